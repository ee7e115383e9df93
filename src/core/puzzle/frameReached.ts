/**
 * Whether the turns that are made reach the frame by which states are counted. What is counted keeps one point still
 * (`Mechanism.still`); a turn that moves that point is taken for the other layers of its axis turned the other way, and
 * the whole puzzle with them. Where there are no such layers (a cut through the core itself, with nothing turning on the
 * far side) the turns that keep the point still say nothing of the others, and every answer would be wrong.
 */
import { INVERSE, rotationAbout, type Rotation, type Vector } from '../rotation'
import { inSlab, isWhole, type Grip } from './mechanism'

/** What the compiler knows by then. */
export interface Turnable {
  readonly pieces: readonly { readonly core: number; readonly cells: readonly Vector[] }[]
  readonly grips: readonly Grip[]
  readonly holds: readonly Rotation[]
  readonly still: Vector
}

/** The name of a grip whose turns the frame cannot be told of; undefined where all is well. */
export function unreachedGrip(puzzle: Turnable): string | undefined {
  const { pieces, grips, still, holds } = puzzle
  // By cells, not by pieces: what is glued makes turns blocked, not other turns.
  const cells = pieces.flatMap((piece) => piece.cells.map((cell) => ({ cell, core: piece.core })))
  const layers = grips
    .filter((grip) => !isWhole(grip))
    .map((grip) => ({
      name: grip.name,
      line: lineOf(grip.axis),
      rotations: rotationsOf(grip),
      movesStill: inSlab(grip, still),
      moves: new Set(
        cells.flatMap(({ cell, core }, at) =>
          core === grip.core && inSlab(grip, cell) ? [at] : [],
        ),
      ),
    }))
  const beside = layers.filter(({ movesStill }) => !movesStill)
  return layers.find(
    ({ movesStill, line, moves, rotations }) =>
      movesStill &&
      rotations.some((rotation) => {
        if (!holds.includes(rotation)) return true
        const rest = new Set(cells.keys())
        for (const cell of moves) rest.delete(cell)
        const others = beside.filter(
          (each) => each.line === line && each.rotations.includes(INVERSE[rotation]),
        )
        return !isUnionOf(
          rest,
          others.map((each) => each.moves),
        )
      }),
  )?.name
}

const rotationsOf = ({ axis, amounts, unitDegrees }: Grip): Rotation[] =>
  amounts.map((amount) => rotationAbout(axis, amount * unitDegrees))

/** Whether some of the sets, none of which share anything, hold exactly these. */
function isUnionOf(wanted: ReadonlySet<number>, sets: readonly ReadonlySet<number>[]): boolean {
  const [first] = wanted
  if (first === undefined) return true
  return sets.some((set) => {
    if (!set.has(first)) return false
    const left = new Set(wanted)
    for (const each of set) if (!left.delete(each)) return false
    return isUnionOf(left, sets)
  })
}

/** The line on which an axis lies, whichever way it points: the same name for `v` and `-v`, and for no other. */
export function lineOf(axis: Vector): string {
  const first = axis.find((c) => c !== 0) ?? 0
  return axis.map((c) => (first < 0 ? -c : c) + 0).join()
}
