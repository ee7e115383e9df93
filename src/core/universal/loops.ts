/**
 * Loops: sequences that leave the finished shape and come back. Where blocks are glued they are read off the
 * list of layouts. Where the shape changes they are found by turning at random and bringing the shape back.
 * Kept are short ones, and such as no moves before them add up to.
 */
import { decidersOf } from '../analysis/deciders'
import { frameOf } from '../analysis/frame'
import { layoutsOf, loopsThrough, type Layouts } from '../analysis/layouts'
import { orbitsUnder } from '../analysis/orbits'
import { orderOfPuzzle } from '../analysis/order'
import { membershipUnder } from '../analysis/space'
import { coreOf, loopsOf } from '../analysis/shapes'
import { simplify } from '../notation/rewrite'
import type { Puzzle, Turn } from '../puzzle/compile'
import { seededRandom } from '../random'
import { must } from '../result'
import { isInShape } from '../scramble/scramble'
import { blockOf, start, turnAll, turnFreely, type State } from '../state'
import type { Effect } from './effects'
import { moveWith, singleMoves, type Move } from './move'
import { reshape } from './reshape'

export interface Loops {
  readonly list: readonly Move[]
  /** Whether it is proven that with the single turns they make everything that turns make in shape. */
  readonly isAll: () => boolean
}

/**
 * Random loops that are tried, those in a row that may add nothing, and the most turns out of shape at the
 * end of the search.
 */
const TRIES = 600
const QUIET = 150
const MOST_OUT = 16

/** Loops that are kept whatever they add: short ones make short cycles. */
const SHORT_LOOPS = 8
const SHORT = 6

export function searchLoops(puzzle: Puzzle): Loops {
  const layouts = layoutsOf(puzzle)
  if (layouts) return loopsAround(puzzle, layouts)
  const core = coreOf(puzzle)
  if (!core) return { list: [], isAll: () => false }
  const wanted = loopsOf(puzzle, core)
  const moves = singleMoves(puzzle)
  const loops: Move[] = []
  const random = seededRandom(1)
  const { turns } = frameOf(puzzle)
  const reach = () => reachOfMoves(puzzle, [...moves, ...loops])
  let isOld = reach()
  let isDone = wanted.every(isOld)
  const seen = new Set<string>()
  let quiet = 0
  // Short ways out first: their loops are short too.
  for (let tried = 0; tried < TRIES && quiet < QUIET && !isDone; tried++) {
    if (2 * tried > TRIES) quiet++
    const length = 1 + Math.floor((MOST_OUT * tried) / TRIES) + random.below(2)
    const out: Turn[] = []
    let away = start(puzzle)
    while (out.length < length) {
      const turn = turns[random.below(turns.length)]
      if (blockOf(puzzle, away, turn)) continue
      out.push(turn)
      away = turnFreely(puzzle, away, turn, new Uint8Array(away.length))
    }
    const back = isInShape(puzzle, away) ? [] : reshape(puzzle, away)
    if (!back) continue
    const path = simplify(puzzle, [...out, ...back])
    if (!leavesShape(puzzle, path)) continue
    const effect = must(turnAll(puzzle, start(puzzle), path))
    if (seen.has(effect.join())) continue
    seen.add(effect.join())
    const loop = moveWith(puzzle, path, effect)
    const isNew = !isOld(effect)
    if (!isNew && (path.length > SHORT || loops.length >= SHORT_LOOPS)) continue
    loops.push(loop)
    if (!isNew) continue
    quiet = 0
    isOld = reach()
    isDone = wanted.every(isOld)
  }
  return { list: loops, isAll: () => areAllOfCapped(puzzle, [...moves, ...loops]) }
}

/** Whether the moves of a capped puzzle, however they were found, make all that turns make in shape. */
export function areAllOfCapped(puzzle: Puzzle, moves: readonly Move[]): boolean {
  const core = coreOf(puzzle)
  if (!core) return false
  const wanted = loopsOf(puzzle, core)
  return wanted.every(reachOfMoves(puzzle, moves)) && isAllOfCaps(puzzle, wanted)
}

/**
 * Whether loops that hold all that the core can do in shape, and a turn of every cap, are all there are. The
 * others turn a cap after some core turns: four corners and four edges of caps go round, whichever they are.
 * So where all corners of caps lie in one orbit and all edges in one, without twists, no loop adds to the
 * sums, and no orbit can grow; and if the loops make all that the sums allow, there is nothing else.
 */
function isAllOfCaps(puzzle: Puzzle, loops: readonly State[]): boolean {
  const caps = decidersOf(puzzle)
  // The centre of a cap stays where it is.
  const orbits = orbitsUnder(puzzle, loops, undefined).filter(
    ({ places }) => places.length > 1 && caps.includes(places[0]),
  )
  const kinds = orbits.map(({ places }) => puzzle.pieces[places[0]].kind)
  if (new Set(kinds).size !== kinds.length) return false
  if (orbits.some(({ orientations }) => orientations.length > 1)) return false
  const { index, indexByInvariants } = orderOfPuzzle(puzzle)
  return index !== null && index === indexByInvariants
}

/** Whether turns leave the finished shape on the way; single moves do what others do. */
function leavesShape(puzzle: Puzzle, turns: readonly Turn[]): boolean {
  let state = start(puzzle)
  return turns.some((turn) => {
    state = turnFreely(puzzle, state, turn, new Uint8Array(state.length))
    return !isInShape(puzzle, state)
  })
}

/** Loops between layouts that are looked at. */
const MOST_LOOPS = 3000

/** Loops that leave the finished layout of blocks and come back: short ones, and such as add something. */
function loopsAround(puzzle: Puzzle, layouts: Layouts): Loops {
  const single = singleMoves(puzzle)
  const all: Move[] = []
  let isAll = true
  for (const loop of loopsThrough(puzzle, layouts)) {
    if (all.length >= MOST_LOOPS) {
      isAll = false
      break
    }
    const turns = simplify(puzzle, loop.turns)
    if (turns.length > 1) all.push(moveWith(puzzle, turns, loop.effect))
  }
  const loops = all.slice(0, SHORT_LOOPS)
  let isOld = reachOfMoves(puzzle, [...single, ...loops])
  for (const move of all.slice(SHORT_LOOPS)) {
    if (isOld(move.effect)) continue
    loops.push(move)
    isOld = reachOfMoves(puzzle, [...single, ...loops])
  }
  return { list: loops, isAll: () => isAll }
}

/** Whether moves reach what another does, decided by the group that they generate. */
const reachOfMoves = (puzzle: Puzzle, moves: readonly Move[]): ((effect: Effect) => boolean) =>
  membershipUnder(
    puzzle,
    moves.map(({ effect }) => effect),
    frameOf(puzzle).piece,
    false,
  )
