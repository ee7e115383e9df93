/**
 * Layouts: where the pieces of a glued puzzle lie that decide which turns are free, its blocks above all. Where
 * there are few enough of them they are listed: breadth first from the finished one, so that every layout knows the
 * shortest way back. Every turn that is no branch of that tree closes a loop through the finished layout
 * (out to where it begins, the turn, back from where it ends); these loops generate all that can be done
 * without changing the layout (Schreier's generators of a groupoid).
 */
import { frameOf } from './frame'
import { decidersOf, isBlocked, turnedRotations } from './deciders'
import { familiesOf } from './placements'
import type { Puzzle, Turn } from '../puzzle/compile'
import type { Progress } from './permutationGroup'
import { membershipUnder } from './space'
import { IDENTITY, multiply, type Rotation } from '../rotation'
import { inverseOf, rotateState, start, turnFreely, type State } from '../state'

/** More layouts than this are not listed. */
export const MOST_LAYOUTS = 30_000

interface Layout {
  /** Of the deciders, in their order. */
  readonly rotations: Uint8Array
  /** Position of the layout before, -1 for the finished one. */
  readonly from: number
  readonly turn: Turn | undefined
  readonly depth: number
}

export interface Layouts {
  readonly list: readonly Layout[]
  /** Positions in `list` by the slots of the deciders. */
  readonly at: ReadonlyMap<string, number>
  /** Turns from one layout to another that the tree does not have, shortest loops first. */
  readonly closing: readonly { readonly from: number; readonly turn: Turn; readonly to: number }[]
}

const known = new WeakMap<Puzzle, Layouts | null>()

/** Undefined where nothing is glued, or where there are too many. */
export function layoutsOf(puzzle: Puzzle): Layouts | undefined {
  const found = known.get(puzzle)
  if (found !== undefined) return found ?? undefined
  const layouts =
    puzzle.definition.glue.length > 0
      ? listLayouts(puzzle, frameOf(puzzle).turns, MOST_LAYOUTS)
      : undefined
  known.set(puzzle, layouts ?? null)
  return layouts
}

const inHolds = new WeakMap<Puzzle, Layouts | null>()

/** The same with whole-puzzle turns among the turns; a layout held otherwise counts apart. */
export function layoutsInHolds(puzzle: Puzzle): Layouts | undefined {
  const found = inHolds.get(puzzle)
  if (found !== undefined) return found ?? undefined
  const turns = [...frameOf(puzzle).turns, ...puzzle.turns.filter(({ whole }) => whole)]
  const most = puzzle.holds.length * MOST_LAYOUTS
  const layouts = layoutsOf(puzzle) && listLayouts(puzzle, turns, most)
  inHolds.set(puzzle, layouts ?? null)
  return layouts
}

/** Whether pieces can come to lie where none is in the finished puzzle. */
export const changesShape = (puzzle: Puzzle): boolean => {
  // Of a glued puzzle the list of layouts tells it, and is exact.
  const layouts = layoutsOf(puzzle)
  if (layouts) return layouts.list.length > 1
  return familiesOf(puzzle).some(({ pieces, slots }) => slots.length > pieces.length)
}

function listLayouts(puzzle: Puzzle, turns: readonly Turn[], most: number): Layouts | undefined {
  const deciders = decidersOf(puzzle)
  const finished = new Uint8Array(deciders.length).fill(IDENTITY)
  const list: Layout[] = [{ rotations: finished, from: -1, turn: undefined, depth: 0 }]
  const at = new Map([[keyOf(puzzle, finished), 0]])
  const closing: { from: number; turn: Turn; to: number }[] = []
  for (let from = 0; from < list.length; from++)
    for (const turn of turns) {
      if (isBlocked(puzzle, deciders, list[from].rotations, turn)) continue
      const rotations = turnedRotations(puzzle, deciders, list[from].rotations, turn)
      const key = keyOf(puzzle, rotations)
      const to = at.get(key)
      if (to !== undefined) {
        if (!isBranch(list, from, to, turn, puzzle)) closing.push({ from, turn, to })
        continue
      }
      if (list.length >= most) return undefined
      at.set(key, list.length)
      list.push({ rotations, from, turn, depth: list[from].depth + 1 })
    }
  const length = ({ from, to }: (typeof closing)[number]) => list[from].depth + list[to].depth
  closing.sort((a, b) => length(a) - length(b))
  return { list, at, closing }
}

/** Whether a turn only goes back along the tree. */
const isBranch = (
  list: readonly Layout[],
  from: number,
  to: number,
  turn: Turn,
  puzzle: Puzzle,
): boolean => list[from].from === to && list[from].turn === puzzle.turns[turn.inverse]

/** Equal pieces may stand for each other. */
const keyOf = (puzzle: Puzzle, rotations: ArrayLike<number>): string =>
  String.fromCharCode(
    ...decidersOf(puzzle)
      .map((p, i) => puzzle.slot[24 * p + rotations[i]])
      .sort((a, b) => a - b),
  )

/** Whether turns lead to the layout of a state in the frame. */
export const hasLayout = (puzzle: Puzzle, layouts: Layouts, state: State): boolean =>
  positionOf(puzzle, layouts, state) !== undefined

const positionOf = (puzzle: Puzzle, { at }: Layouts, state: State) =>
  at.get(
    keyOf(
      puzzle,
      decidersOf(puzzle).map((p) => state[p]),
    ),
  )

/** The fewest turns from the layout of a state in the frame to the finished one. */
export function turnsToFinished(
  puzzle: Puzzle,
  layouts: Layouts,
  state: State,
): Turn[] | undefined {
  const position = positionOf(puzzle, layouts, state)
  return position === undefined ? undefined : inverseOf(puzzle, pathTo(layouts, position))
}

/** The turns from the finished layout to one in the list. */
function pathTo({ list }: Layouts, position: number): Turn[] {
  const path: Turn[] = []
  for (let at = position; list[at].turn; at = list[at].from) path.push(list[at].turn as Turn)
  return path.reverse()
}

/**
 * What becomes of the finished puzzle where each of its layouts that a hold leaves as it is has been gone to,
 * the whole turned into that hold, and the same way gone back.
 */
export function* loopsThroughHold(
  puzzle: Puzzle,
  layouts: Layouts,
  hold: Rotation,
): Generator<State> {
  for (const [position, { rotations }] of layouts.list.entries()) {
    const held = rotations.map((r) => multiply(hold, r))
    if (layouts.at.get(keyOf(puzzle, held)) !== position) continue
    const path = pathTo(layouts, position)
    const out = path.reduce((state, turn) => turnFreely(puzzle, state, turn, state), start(puzzle))
    const turned = rotateState(out, hold)
    yield inverseOf(puzzle, path).reduce(
      (state, turn) => turnFreely(puzzle, state, turn, state),
      turned,
    )
  }
}

/** A loop through the finished layout, and the state that it makes of the finished puzzle. */
export interface Loop {
  readonly turns: readonly Turn[]
  readonly effect: State
}

/** All that do different things, one of two that undo each other, the shortest first. */
export function* loopsThrough(puzzle: Puzzle, layouts: Layouts): Generator<Loop> {
  const seen = new Set<string>([start(puzzle).join()])
  for (const { from, turn, to } of layouts.closing) {
    const turns = [...pathTo(layouts, from), turn, ...inverseOf(puzzle, pathTo(layouts, to))]
    const made = (path: readonly Turn[]) =>
      path.reduce((state, each) => turnFreely(puzzle, state, each, state), start(puzzle))
    const effect = made(turns)
    if (seen.has(effect.join())) continue
    seen.add(effect.join())
    seen.add(made(inverseOf(puzzle, turns)).join())
    yield { turns, effect }
  }
}

/** Loops that together do all that can be done without changing the layout, each needed for it. */
export function generatorsThrough(
  puzzle: Puzzle,
  layouts: Layouts,
  fixed: number | undefined,
  progress: Progress = () => undefined,
): State[] {
  const loops: State[] = []
  let isOld: (state: State) => boolean = () => false
  let seen = 0
  for (const { effect } of loopsThrough(puzzle, layouts)) {
    if (++seen % 1000 === 0) progress(seen / (layouts.closing.length + seen))
    if (isOld(effect)) continue
    loops.push(effect)
    isOld = membershipUnder(puzzle, loops, fixed, false)
  }
  return loops
}
