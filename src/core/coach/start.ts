/** How a plan may begin: a base colour, and the frame that some piece of its layer sets. */
import { anchoredHolds, anchorsOf } from '../analysis/anchors'
import { lookAlikesOf } from '../analysis/lookAlikes'
import { holdOf } from '../analysis/placements'
import { sideOpposite, turnSide } from '../analysis/sides'
import { directionOfLetter, type Direction } from '../puzzle/directions'
import type { Puzzle, Turn } from '../puzzle/compile'
import type { Rotation } from '../rotation'
import type { Condition, School, Stage } from '../schools/school'
import type { State } from '../state'
import { frameMeeting, isFilled, piecesOf, piecesOfSide } from './goal'
import { isDear, plansAsWhole } from './technique'
import { held, holdsBringing } from './workpiece'

export interface Start {
  readonly base: Direction
  /** The rotation that every piece will have when it is home, before any hold is taken. */
  readonly frame: Rotation
  /** How many stages are done already. */
  readonly stagesDone: number
  /** The piece that sets the frame, where no stage is done yet. */
  readonly piece?: number
  /** Where each step is a search: how many pieces of the first stage are right. */
  readonly right?: number
}

/** Every way to begin with one base colour, each distinct frame once. */
export function startsWith(
  puzzle: Puzzle,
  school: School,
  stages: readonly Stage[],
  base: Direction,
  state: State,
): Start[] {
  if (school.isWithoutBase) return [{ base, frame: holdOf(puzzle, state) ?? 0, stagesDone: 0 }]
  // Where no turn of the whole puzzle is possible, there is one hold.
  const allowed = anchoredHolds(puzzle, state)
  const [anchored] = allowed
  const isAnchored = allowed.length === 1
  for (let done = stages.length; done > 0; done--) {
    const frame = frameMeeting(puzzle, stages[done - 1].goal, base, state)
    if (frame !== undefined)
      return [{ base, frame: isAnchored ? anchored : frame, stagesDone: done }]
  }
  if (isAnchored) return [{ base, frame: anchored, stagesDone: 0 }]
  // Where each step is a search, the sides are meant as most pieces lie.
  if (isDear(stages[0])) {
    const all = stages.filter(isDear).at(-1)?.goal ?? []
    const rightIn = (goal: readonly Condition[], frame: Rotation) =>
      goal
        .filter(({ must }) => must !== 'together')
        .flatMap((condition) => [...piecesOf(puzzle, condition, base)])
        .filter((p) => isFilled(puzzle, state, p, frame)).length
    const best = allowed
      .map((frame) => ({ frame, right: rightIn(all, frame) }))
      .reduce((a, b) => (b.right > a.right ? b : a))
    return [{ base, frame: best.frame, stagesDone: 0, right: rightIn(stages[0].goal, best.frame) }]
  }
  const pieces = firstPieces(puzzle, stages[0], base)
  // Where the ends tell which is up, the sides may be meant in every way that is left.
  if (anchorsOf(puzzle).length > 0)
    return allowed.map((frame) => ({
      base,
      frame,
      stagesDone: 0,
      piece: pieces.find(
        (piece) => state[piece] === frame && piecesOfSide(puzzle, base).includes(piece),
      ),
    }))
  return pieces
    .filter((piece, i) => pieces.findIndex((other) => state[other] === state[piece]) === i)
    .filter((piece) => allowed.includes(state[piece]))
    .map((piece) => ({ base, frame: state[piece], stagesDone: 0, piece }))
}

/** Of several sides to begin with the most promising one, where to follow each of them is too dear. */
export function mostPromising(
  puzzle: Puzzle,
  school: School,
  stages: readonly Stage[],
  bases: readonly Direction[],
  state: State,
): readonly Direction[] {
  if (!isDear(stages[0])) return bases
  const starts = bases.flatMap((base) => startsWith(puzzle, school, stages, base, state))
  const best = starts.reduce((a, b) =>
    b.stagesDone > a.stagesDone ||
    (b.stagesDone === a.stagesDone && (b.right ?? 0) > (a.right ?? 0))
      ? b
      : a,
  )
  return [best.base]
}

/** What the first stage brings home: any of these may set the frame. */
function firstPieces(puzzle: Puzzle, stage: Stage, base: Direction): readonly number[] {
  const still = anchorsOf(puzzle)
  return stage.goal
    .flatMap((condition) => [...piecesOf(puzzle, condition, base)])
    .filter((p, i, all) => all.indexOf(p) === i && !still.includes(p))
}

/** The cheapest whole-puzzle turns that bring the base layer to where a stage holds it. */
export function holdFor(puzzle: Puzzle, stage: Stage, base: Direction, frame: Rotation): Turn[] {
  // What plans as a whole begins in the hold that there is.
  if (plansAsWhole(stage)) return []
  return [...holdsBringing(puzzle, turnSide(puzzle, frame, base), held(stage).base)[0].turns]
}

/**
 * The sides of the finished puzzle that may be a base: all that a whole-puzzle turn exchanges, and of these,
 * if the school asks for it, those across from the centre that tells least.
 */
export function basesOf(puzzle: Puzzle, school: School, stage: Stage): Direction[] {
  if (school.isWithoutBase) return [directionOfLetter('U')]
  const { base } = held(stage)
  const all = puzzle.holds
    .map((hold) => turnSide(puzzle, hold, base))
    .filter((side, i, sides) => sides.indexOf(side) === i)
  if (!school.lastCentreTellsLeast) return all
  const looks = all.map((side) => looksOfMiddle(puzzle, sideOpposite(puzzle, side)))
  // A centre that shows half turns or quarter turns shows odd and even; one that shows none leaves them open.
  const isOpen = looks.includes(1)
  return all.filter((_, i) => !isOpen || looks[i] === 1)
}

/** In how many ways the middle of a side can be seen to lie. */
function looksOfMiddle(puzzle: Puzzle, side: Direction | undefined): number {
  const middle = side
    ? piecesOfSide(puzzle, side).find((p) => anchorsOf(puzzle).includes(p))
    : undefined
  return middle === undefined ? 1 : lookAlikesOf(puzzle).inPlace[middle].looks
}
