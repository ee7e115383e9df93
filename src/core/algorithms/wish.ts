/**
 * What a finder is asked: these pieces go there and lie so, the rest stays or does as it likes. Made whole: pieces that
 * are driven from their places go where places are left, so that turns can do it if they can in any way.
 */
import { frameOf } from '../analysis/frame'
import { handReachOf, holdOf } from '../analysis/placements'
import { NO_PLACE, type Puzzle } from '../puzzle/compile'
import { fail, ok, type Result } from '../result'
import { IDENTITY, INVERSE, ROTATION_COUNT, type Rotation } from '../rotation'
import { rotateState, start, type State } from '../state'
import { hasMoves } from '../universal/moves'
import { isReached } from '../universal/account'
import { isInShape } from '../scramble/scramble'
import { undoing } from './moves'

export interface Wish {
  /** Pieces with the rotations in which they shall lie at the end. */
  readonly goes: ReadonlyMap<number, Rotation>
  /** Pieces that may do as they like. */
  readonly free: ReadonlySet<number>
  /** All pieces of which nothing is said. */
  readonly rest: 'stays' | 'free'
}

export const NO_WISH: Wish = { goes: new Map(), free: new Set(), rest: 'stays' }

/** The ways in which a piece can lie in a place, by the piece whose home it is. */
export const waysInto = (puzzle: Puzzle, piece: number, place: number): Rotation[] =>
  handReachOf(puzzle)[piece].filter((r) => puzzle.place[24 * piece + r] === place)

export interface Completed {
  /** The finished puzzle afterwards. */
  readonly position: State
  /** Pieces that must lie so; the others may lie otherwise. */
  readonly pieces: readonly number[]
  /** Pieces that were given a place because another took theirs. */
  readonly driven: readonly number[]
  /** Whether there is no other position, or none that turns make, that does what is wished. */
  readonly isSettled: boolean
}

/** Completions that are tried. */
const TRIED = 4000

/** A position that does what is wished, one that turns make if there is any among those tried. */
export function completed(puzzle: Puzzle, { goes, free, rest }: Wish): Result<Completed> {
  const taken = new Map<number, number>()
  for (const [piece, rotation] of goes) {
    const place = puzzle.place[24 * piece + rotation]
    if (place === NO_PLACE || !handReachOf(puzzle)[piece].includes(rotation))
      return fail('bad-wish', `${puzzle.pieces[piece].id} cannot lie there.`, { field: 'goes' })
    const other = taken.get(place)
    if (other !== undefined)
      return fail(
        'bad-wish',
        `${puzzle.pieces[other].id} and ${puzzle.pieces[piece].id} would both lie at ${puzzle.pieces[place].id}.`,
        { field: 'goes' },
      )
    taken.set(place, piece)
  }
  const isFree = (p: number) => !goes.has(p) && (free.has(p) || rest === 'free')
  const all = puzzle.pieces.map((_, p) => p)
  const driven = all.filter((p) => !goes.has(p) && taken.has(p))
  const vacant = all.filter((place) => goes.has(place) && !taken.has(place))
  const open = all.filter((p) => isFree(p) && !taken.has(p))
  const position = start(puzzle)
  for (const [piece, rotation] of goes) position[piece] = rotation
  const judged = hasMoves(puzzle)
  let tried = 0
  let first: State | undefined
  const isDone = (state: State): boolean => {
    first ??= state.slice()
    return !judged || tried++ > TRIED || isReached(puzzle, state)
  }
  const found = fill(puzzle, position, driven, new Set(vacant), (state) =>
    firstOf(looser(puzzle, state, open), isDone),
  )
  const whole = found ?? first
  if (!whole)
    return fail(
      'bad-wish',
      'A piece that is driven from its place can go to none that is left. Say where it goes.',
      { field: 'goes' },
    )
  return ok({
    position: whole,
    pieces: all.filter(
      (p) => puzzle.pieces[p].faces.length > 0 && !isFree(p) && !driven.includes(p),
    ),
    driven,
    isSettled: open.length === 0 && tried <= TRIED,
  })
}

function firstOf<T>(all: Iterable<T>, isIt: (each: T) => boolean): T | undefined {
  for (const each of all) if (isIt(each)) return each
  return undefined
}

/** Every way to put the driven pieces into what is left, until one is taken. */
function fill(
  puzzle: Puzzle,
  position: State,
  driven: readonly number[],
  vacant: ReadonlySet<number>,
  take: (state: State) => State | undefined,
): State | undefined {
  const [piece, ...others] = driven
  if (piece === undefined) return take(position)
  for (const place of vacant)
    for (const rotation of waysInto(puzzle, piece, place)) {
      const next = position.slice()
      next[piece] = rotation
      const left = new Set([...vacant].filter((each) => each !== place))
      const found = fill(puzzle, next, others, left, take)
      if (found) return found
    }
  return undefined
}

/** A position; then the same with two free pieces exchanged, one turned in its place, or both. */
function* looser(puzzle: Puzzle, state: State, open: readonly number[]): Generator<State> {
  const turned = function* (from: State): Generator<State> {
    for (const piece of open) {
      const place = puzzle.place[24 * piece + from[piece]]
      for (const rotation of waysInto(puzzle, piece, place)) {
        if (rotation === from[piece]) continue
        const next = from.slice()
        next[piece] = rotation
        yield next
      }
    }
  }
  yield state
  yield* turned(state)
  for (const [i, a] of open.entries())
    for (const b of open.slice(i + 1)) {
      const [there] = waysInto(puzzle, a, puzzle.place[24 * b + state[b]])
      const [back] = waysInto(puzzle, b, puzzle.place[24 * a + state[a]])
      if (there === undefined || back === undefined) continue
      const next = state.slice()
      next[a] = there
      next[b] = back
      yield next
      yield* turned(next)
    }
}

/** 'stays,DFR:c,UF:-', for an address: what goes with its rotation as a letter, what is free with a dash. */
export const writeWish = (puzzle: Puzzle, { goes, free, rest }: Wish): string =>
  [
    rest,
    ...[...goes].map(([p, r]) => `${puzzle.pieces[p].id}:${String.fromCharCode(97 + r)}`),
    ...[...free].map((p) => `${puzzle.pieces[p].id}:-`),
  ].join(',')

/** Reads what `writeWish` wrote; the error names what is wrong with it. */
export function readWish(puzzle: Puzzle, text: string): Result<Wish> {
  if (text === '') return ok(NO_WISH)
  const [rest, ...parts] = text.split(',')
  if (rest !== 'stays' && rest !== 'free')
    return fail('bad-wish', `A wish begins with stays or free, not with '${rest.slice(0, 20)}'.`, {
      field: 'wish',
    })
  const goes = new Map<number, Rotation>()
  const free = new Set<number>()
  for (const part of parts) {
    const cut = part.lastIndexOf(':')
    const piece = puzzle.pieces.findIndex(({ id }) => id === part.slice(0, cut))
    const rotation = part.charCodeAt(part.length - 1) - 97
    const isOne = cut === part.length - 2
    if (piece < 0 || !isOne)
      return fail('bad-wish', `'${part.slice(0, 20)}' names no piece of this puzzle.`, {
        field: 'wish',
      })
    if (part.endsWith('-')) free.add(piece)
    else if (rotation >= IDENTITY && rotation < ROTATION_COUNT) goes.set(piece, rotation)
    else return fail('bad-wish', `'${part.slice(0, 20)}' says no way to lie.`, { field: 'wish' })
  }
  return ok({ goes, free, rest })
}

/**
 * The wish to do what a position shows: every piece that is not as in the finished puzzle goes there. Where nothing
 * that is seen keeps still, in the hold in which it was given; else in that of the core.
 */
export const wishOf = (puzzle: Puzzle, position: State): Wish => ({
  goes: new Map(
    [...inOwnHold(puzzle, position)].flatMap((r, p) =>
      r === IDENTITY || puzzle.pieces[p].faces.length === 0 ? [] : [[p, r] as const],
    ),
  ),
  free: new Set(),
  rest: 'stays',
})

function inOwnHold(puzzle: Puzzle, position: State): State {
  if (frameOf(puzzle).piece !== undefined) return position
  return rotateState(position, INVERSE[holdOf(puzzle, position) ?? IDENTITY])
}

/** The wish to lead a position home, as `writeWish` writes it; undefined where it is out of shape, or home. */
export function wishHome(puzzle: Puzzle, state: State): string | undefined {
  const framed = rotateState(state, INVERSE[holdOf(puzzle, state) ?? IDENTITY])
  if (!isInShape(puzzle, framed)) return undefined
  const wish = wishOf(puzzle, undoing(puzzle, framed))
  return wish.goes.size === 0 ? undefined : writeWish(puzzle, wish)
}
