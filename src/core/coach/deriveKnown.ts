/**
 * The sequences of a stage whose cases are few: every placement of its pieces that the goal before, and
 * the sums of the puzzle, leave open; for each that the sequences so far do not serve, the easiest of the
 * shortest is found and added.
 */
import { anchorsOf } from '../analysis/anchors'
import { lookAlikesOf } from '../analysis/lookAlikes'
import { isNothing } from '../analysis/invariants'
import { accountOf, isReached } from '../universal/account'
import type { Puzzle, Turn } from '../puzzle/compile'
import type { Direction } from '../puzzle/directions'
import { ROTATION_COUNT, type Rotation } from '../rotation'
import type { Condition, Stage } from '../schools/school'
import { findAlgorithm } from '../search/algorithmSearch'
import { buildGoalTable, goalDistance, TRACKED_LIMIT } from '../search/goalTable'
import { doSequence } from '../notation/sequence'
import { start, type State } from '../state'
import type { Case } from './cases'
import { frameMeeting, piecesOf } from './goal'
import { cheapestRow } from './techniques/known'
import { held, layerTurns } from './workpiece'

const MAX_TURNS = 12
const SLACK = 1

export function deriveKnown(
  puzzle: Puzzle,
  stage: Stage,
  goalBefore: readonly Condition[],
): Case[] {
  const { technique } = stage
  if (technique.kind !== 'known') throw new Error('the stage has no sequences to be known')
  const { base } = held(stage)
  const context = { puzzle, stage, base, hand: 'right' as const }
  const lastTurns = layerTurns(puzzle, technique.fetch)
  const serves = (state: State, sequences: readonly string[]) =>
    cheapestRow(context, state, technique, sequences) !== undefined
  const all = openStates(puzzle, stage, goalBefore)
  if (!all) throw new Error(`the cases of ${stage.id} are too many to list`)
  let rest = all.filter((state) => !serves(state, []))
  const bound = boundFor(puzzle, stage)
  const found: Case[] = []
  while (rest.length > 0) {
    const turns = findAlgorithm(
      {
        puzzle,
        turns: puzzle.turns.filter(
          ({ grip, whole }) => !whole && /^[A-Z]$/.test(puzzle.grips[grip].name),
        ),
        lowerBound: (state) => bound(state) - 1,
        meets: (state) =>
          lastTurns.some(
            (end) => frameMeeting(puzzle, stage.goal, base, doSequence(end, state)) !== undefined,
          ),
        maxTurns: MAX_TURNS,
        slack: SLACK,
      },
      rest[0],
    )
    if (!turns) throw new Error(`a case of ${stage.id} needs more than ${MAX_TURNS} turns`)
    const names = turns.map(({ name }: Turn) => name).join(' ')
    const left = rest.filter((state) => !serves(state, [names]))
    if (left.length === rest.length) throw new Error('a sequence does not serve its own case')
    found.push({ turns: names, states: rest.length - left.length })
    rest = left
  }
  return found
}

/** More positions than this are not listed. */
const MOST_OPEN = 20_000

/**
 * Every reachable state that meets the goal before, once, with what that goal fixes as it is at home.
 *
 * @param base the side that is done first; as the stage has it if not given
 * @returns undefined if there are too many to list
 */
export function openStates(
  puzzle: Puzzle,
  stage: Stage,
  goalBefore: readonly Condition[],
  base: Direction = held(stage).base,
): State[] | undefined {
  const fixed = new Set(
    goalBefore.flatMap((condition) =>
      condition.must === 'home' || condition.must === 'looks home'
        ? [...piecesOf(puzzle, condition, base)]
        : [],
    ),
  )
  const open = stage.goal
    .flatMap((condition) => [...piecesOf(puzzle, condition, base)])
    .filter((p, i, all) => !fixed.has(p) && all.indexOf(p) === i)
  const places = new Set(open)
  const anchored = new Set(anchorsOf(puzzle))
  const { inPlace } = lookAlikesOf(puzzle)
  const ways = open.reduce(
    (product, piece, i) =>
      product * inPlace[piece].ways * (anchored.has(piece) ? 1 : open.length - i),
    1,
  )
  if (ways > 20 * MOST_OPEN) return undefined
  const found: State[] = []
  const state = start(puzzle)
  const filled = new Set<number>()
  const put = (i: number): void => {
    if (i === open.length) {
      if (
        frameMeeting(puzzle, goalBefore, base, state) !== undefined &&
        isReading(puzzle, new Uint8Array(state))
      )
        found.push(new Uint8Array(state))
      return
    }
    const piece = open[i]
    for (let r: Rotation = 0; r < ROTATION_COUNT; r++) {
      const place = puzzle.place[24 * piece + r]
      if (!places.has(place) || filled.has(place)) continue
      if (anchored.has(piece) && place !== piece) continue
      filled.add(place)
      state[piece] = r
      put(i + 1)
      filled.delete(place)
    }
    state[piece] = 0
  }
  put(0)
  return found.length > MOST_OPEN ? undefined : found
}

/** Whether turns lead to a state with every piece under its own name, as a plan reads it. */
function isReading(puzzle: Puzzle, state: State): boolean {
  if (!isReached(puzzle, state)) return false
  const { span, vectorOf } = accountOf(puzzle)
  return anchorsOf(puzzle).length === 0 || isNothing(span, vectorOf(state))
}

/** Pieces of the goal, as many as a table tracks, must be home: a bound from each such group. */
function boundFor(puzzle: Puzzle, stage: Stage): (state: State) => number {
  const { base } = held(stage)
  const anchored = new Set(anchorsOf(puzzle))
  const moving = stage.goal
    .flatMap((condition) =>
      condition.must === 'home' ? [...piecesOf(puzzle, condition, base)] : [],
    )
    .filter((p) => !anchored.has(p))
  const turns = puzzle.turns.filter(({ whole }) => !whole)
  const tables = [moving.slice(0, TRACKED_LIMIT), moving.slice(-TRACKED_LIMIT)].map((pieces) =>
    buildGoalTable(puzzle, pieces, turns, (rotations) => rotations.every((r) => r === 0)),
  )
  return (state) => Math.max(...tables.map((table) => goalDistance(table, state)))
}
