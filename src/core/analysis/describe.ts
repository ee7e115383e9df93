/** The compiled puzzle as plain data, enough to rebuild it in another engine. */
import type { Puzzle } from '../puzzle/compile'
import { frameOf } from './frame'
import { orbitsOf } from './orbits'

export function describe(puzzle: Puzzle) {
  const { definition, pieces, grips } = puzzle
  const kinds = [...new Set(pieces.map(({ kind }) => kind))]
  return {
    id: definition.id,
    name: definition.name,
    pieces: pieces.map(({ id, kind, cells, core, faces }) => ({ id, kind, cells, core, faces })),
    cores: [[0, 0, 0]],
    grips,
    colours: definition.colours.map(({ id, name }) => ({ id, name })),
    kinds: kinds.map((name) => ({
      name,
      count: pieces.filter(({ kind }) => kind === name).length,
    })),
    orbits: orbitsOf(puzzle).map(({ places, orientations }) => ({
      kind: pieces[places[0]].kind,
      places: places.map((place) => pieces[place].id),
      orientations: orientations.length,
    })),
    lookAlikes: lookAlikes(puzzle),
    /** The piece kept still when states are counted, or null where it is the hidden core. */
    frame: frameName(puzzle),
  }
}

function frameName(puzzle: Puzzle): string | null {
  const { piece } = frameOf(puzzle)
  return piece === undefined ? null : puzzle.pieces[piece].id
}

/** Classes of pieces that look the same in some place, and turns in place that cannot be seen. */
function lookAlikes(puzzle: Puzzle) {
  const byLook = new Map<number, Set<string>>()
  const unseen: { piece: string; rotations: number }[] = []
  puzzle.pieces.forEach(({ id }, p) => {
    let sameAsHome = 0
    for (let r = 0; r < 24; r++) {
      const look = puzzle.look[24 * p + r]
      const known = byLook.get(look) ?? new Set<string>()
      byLook.set(look, known.add(id))
      if (look === puzzle.look[24 * p] && puzzle.place[24 * p + r] === p) sameAsHome++
    }
    if (sameAsHome > 1) unseen.push({ piece: id, rotations: sameAsHome })
  })
  const classes = [...byLook.values()].filter((ids) => ids.size > 1).map((ids) => [...ids].sort())
  const distinct = [...new Map(classes.map((ids) => [ids.join(), ids])).values()]
  return { pieces: distinct, unseenTurns: unseen }
}
