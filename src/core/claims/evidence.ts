/** What a claim is held against: the states of the step that it is made in. */
import { lookClassesOf } from '../analysis/lookAlikes'
import { homeFilled } from '../analysis/who'
import type { Puzzle } from '../puzzle/compile'
import { DIRECTIONS, type Direction } from '../puzzle/directions'
import { IDENTITY, INVERSE, multiply, ROTATION_COUNT, type Rotation } from '../rotation'
import { looksHome, start, type State } from '../state'
import { indexOf, type Lies, type PieceId } from './claim'

/** A position, and the rotation that a finished piece has in it. */
export interface Moment {
  readonly state: State
  readonly frame: Rotation
}

export interface Evidence {
  readonly puzzle: Puzzle
  /** When it is read, and how many turns of the step are made then. */
  readonly now: Moment
  readonly made: number
  /** Once the hold is taken, after so many turns. */
  readonly held: number
  /** The whole step, by canonical name. */
  readonly turns: readonly { readonly name: string; readonly role: string }[]
  readonly algorithm: readonly string[]
  /** How often the algorithm is done, and where that count stands among all of the stage. */
  readonly runs?: { readonly times: number; readonly before: number; readonly total: number }
  /** After so many turns of the step: as it is, and with equal pieces under the names of the homes that they go to. */
  readonly at: (turns: number) => Moment
  readonly readAt: (turns: number) => Moment
  /** Before the step and after it, with what is owed undone. */
  readonly start: Moment
  readonly end: Moment
  /** Whether anything is owed then. */
  readonly isOwing: boolean
  /** The pieces of the card's lines, and those that glow. */
  readonly lines: readonly PieceId[]
  readonly glowing: readonly PieceId[]
  /** The side that the solver starts with. */
  readonly base: Direction
}

/** Of a position by itself: nothing is turned. */
export function evidenceOf(puzzle: Puzzle, state: State, frame: Rotation): Evidence {
  const now = { state, frame }
  return {
    puzzle,
    now,
    made: 0,
    held: 0,
    turns: [],
    algorithm: [],
    at: () => now,
    readAt: () => now,
    start: now,
    end: now,
    isOwing: false,
    lines: [],
    glowing: [],
    base: DIRECTIONS[0],
  }
}

/** Of turns that are made of the finished puzzle, as what they do is told: turns of the whole puzzle taken back. */
export const evidenceOfTurns = (
  puzzle: Puzzle,
  turns: readonly { readonly name: string }[],
  made: State,
): Evidence => ({
  ...evidenceOf(puzzle, start(puzzle), IDENTITY),
  turns: turns.map(({ name }) => ({ name, role: 'do' })),
  end: { state: made, frame: IDENTITY },
})

/** How a piece lies at its place. */
export function lies(puzzle: Puzzle, { state, frame }: Moment, piece: number): Lies {
  if (looksHome(puzzle, piece, multiply(INVERSE[frame], state[piece]))) return 'home'
  const home = homeFilled(puzzle, frame, piece, state[piece])
  // The home of one that looks the same is its own too.
  const { classOf } = lookClassesOf(puzzle)
  return home !== undefined && classOf[home] === classOf[piece] ? 'turned' : 'on'
}

/** Whether a piece looks home. */
export const isHome = (puzzle: Puzzle, { state, frame }: Moment, piece: number): boolean =>
  looksHome(puzzle, piece, multiply(INVERSE[frame], state[piece]))

/** The place that a piece fills; undefined outside the finished shape. */
export const placeFilled = (puzzle: Puzzle, { state, frame }: Moment, piece: number) =>
  homeFilled(puzzle, frame, piece, state[piece])

/** What lies in a place, -1 for nothing. */
export function lyingIn(puzzle: Puzzle, { state, frame }: Moment, place: number): number {
  const slot = puzzle.slot[24 * place + frame]
  return state.findIndex((r, p) => puzzle.slot[24 * p + r] === slot)
}

/** Whether a place shows what it should. */
export function showsRight(puzzle: Puzzle, moment: Moment, place: number): boolean {
  const there = lyingIn(puzzle, moment, place)
  return there >= 0 && isHome(puzzle, moment, there)
}

/** What shows itself otherwise at one moment than at another, up to the hold. */
export function movedBetween(puzzle: Puzzle, before: Moment, after: Moment): number[] {
  return [...before.state].flatMap((r, p) => {
    const was = multiply(INVERSE[before.frame], r)
    const is = multiply(INVERSE[after.frame], after.state[p])
    return puzzle.look[24 * p + was] === puzzle.look[24 * p + is] ? [] : [p]
  })
}

export const indices = (puzzle: Pick<Puzzle, 'pieces'>, ids: readonly PieceId[]): number[] =>
  ids.map((id) => indexOf(puzzle, id))

const ROTATIONS = Array.from({ length: ROTATION_COUNT }, (_, r) => r)

/**
 * Whether a piece lies outside some places that would look right in one of them that does not show what it should:
 * asked of looks, not of names, for an equal piece is found as well.
 */
export function waitsOutside(puzzle: Puzzle, moment: Moment, places: readonly number[]): boolean {
  const open = places.filter((place) => !showsRight(puzzle, moment, place))
  const inside = places.map((place) => lyingIn(puzzle, moment, place))
  const fits = (p: number) =>
    ROTATIONS.some((r) => looksHome(puzzle, p, r) && open.includes(puzzle.place[24 * p + r]))
  return puzzle.pieces.some((_, p) => !inside.includes(p) && fits(p))
}
