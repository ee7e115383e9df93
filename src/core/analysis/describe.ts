/** The compiled puzzle as plain data, enough to rebuild it in another engine. */
import type { Puzzle } from '../puzzle/compile'
import { frameOf } from './frame'
import { lookAlikesOf } from './lookAlikes'
import { changesShape } from './layouts'
import { familiesOf } from './placements'

export function describe(puzzle: Puzzle) {
  const { definition, pieces, grips, cores } = puzzle
  const kinds = [...new Set(pieces.map(({ kind }) => kind))]
  const name = (p: number) => pieces[p].id
  const { classes, unseen } = lookAlikesOf(puzzle)
  const frame = frameOf(puzzle).piece
  return {
    id: definition.id,
    name: definition.name,
    pieces: pieces.map(({ id, kind, cells, core, faces }) => ({ id, kind, cells, core, faces })),
    cores,
    grips,
    colours: definition.colours.map(({ id, name: title }) => ({ id, name: title })),
    kinds: kinds.map((kind) => ({
      name: kind,
      count: pieces.filter((piece) => piece.kind === kind).length,
      faces: pieces.find((piece) => piece.kind === kind)?.faces.length,
    })),
    orbits: familiesOf(puzzle)
      .filter((family) => frame === undefined || !family.pieces.includes(frame))
      .map((family) => ({
        kind: [...new Set(family.pieces.map((p) => pieces[p].kind))].join(', '),
        places: family.pieces.map(name),
        slots: family.slots.length,
        orientations: family.orientations,
      })),
    lookAlikes: {
      pieces: classes.map((alike) => alike.map(name)),
      unseenTurns: unseen.flatMap((rotations, p) =>
        rotations.length > 1 ? [{ piece: name(p), rotations: rotations.length }] : [],
      ),
    },
    changesShape: changesShape(puzzle),
    /** The piece kept still when states are counted, or null where it is the hidden core. */
    frame: frame === undefined ? null : name(frame),
  }
}
