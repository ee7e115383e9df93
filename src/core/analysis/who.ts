/** How a piece is told from the others, and by which two of them a hold is known again. */
import { placeNamesOf } from './placeNames'
import { average, dot, unit } from '../geometry/vector'
import { colourIn, type Scheme } from '../puzzle/colours'
import { placed, type Puzzle } from '../puzzle/compile'
import { posed, poseOf } from '../puzzle/view'
import { DIRECTIONS, type Direction } from '../puzzle/directions'
import { INVERSE, multiply, rotate, type Rotation, type Vector } from '../rotation'
import { hasColouredSides, piecesShowing, turnSide } from './sides'
import { looksHome, type State } from '../state'
import { baseKind, inWords, shortKind } from '../phrases'

/** More colours of one piece are not listed: they do not help to find it. */
const MOST_COLOURS = 3

/** Words for every piece in one scheme, made once. */
const known = new WeakMap<Puzzle, Map<Scheme, readonly string[]>>()

function wordsIn(puzzle: Puzzle, scheme: Scheme): readonly string[] {
  const schemes = known.get(puzzle) ?? new Map<Scheme, readonly string[]>()
  known.set(puzzle, schemes)
  const found = schemes.get(scheme)
  if (found) return found
  const called = (p: number, kind: string) => {
    const names = puzzle.pieces[p].faces.map(({ colour }) => colourIn(scheme, colour).name)
    if (names.length === 0) return `the ${kind} without a colour`
    return names.length > MOST_COLOURS
      ? `the ${inWords(names.length)}-faced ${[...new Set(names)].slice(0, MOST_COLOURS).join('-')} ${kind}`
      : `the ${names.join('-')} ${kind}`
  }
  const plainest = puzzle.pieces.map(({ kind }, p) => called(p, baseKind(kind)))
  // Size is told only where it tells one from another.
  const plain = plainest.map((own, p) => {
    const alike = plainest.flatMap((other, q) => (other === own ? [q] : []))
    const kinds = new Set(alike.map((q) => shortKind(puzzle.pieces[q].kind)))
    return kinds.size > 1 ? called(p, shortKind(puzzle.pieces[p].kind)) : own
  })
  // Where colours do not tell two pieces apart, their outline may.
  const words = plain.map((own, p) => {
    const { kind } = puzzle.pieces[p]
    const others = plain.flatMap((other, q) =>
      other === own && puzzle.pieces[q].kind !== kind ? [outlinesOf(puzzle.pieces[q].kind)] : [],
    )
    return others.length > 0 ? `${own}${toldBy(outlinesOf(kind), others)}` : own
  })
  schemes.set(scheme, words)
  return words
}

/** The outlines of the faces that a kind is told by: 'corner (square and triangle)'. */
const outlinesOf = (kind: string): readonly string[] =>
  /\((.*)\)/.exec(kind)?.[1].split(' and ') ?? []

/** What tells a piece from others of its colours: ' with a triangle', ' without a square', all its outlines at worst. */
function toldBy(own: readonly string[], others: readonly (readonly string[])[]): string {
  if (own.length === 0) return ''
  if (own.length === 1) return ` (${own[0]})`
  const face = (outline: string) =>
    outline.endsWith('s') ? `a face of ${outline}` : `a ${outline}`
  const had = own.find((each) => others.every((other) => !other.includes(each)))
  if (had) return ` with ${face(had)}`
  const lacked = others[0].find(
    (each) => !own.includes(each) && others.every((other) => other.includes(each)),
  )
  return lacked ? ` without ${face(lacked)}` : ` (${own.join(' and ')})`
}

/** 'the white-red-green corner', 'the white centre' */
export const who = (puzzle: Puzzle, scheme: Scheme, piece: number): string =>
  wordsIn(puzzle, scheme)[piece]

/** By which colours alone each piece is known, in one scheme. */
const byColours = new WeakMap<Puzzle, Map<Scheme, readonly (string | undefined)[]>>()

/**
 * The colours of a piece, where they say which kind it is too: 'white-red-green'; undefined where they do not. What
 * has one colour is never called by it alone.
 */
export function coloursAlone(puzzle: Puzzle, scheme: Scheme, piece: number): string | undefined {
  const schemes = byColours.get(puzzle) ?? new Map<Scheme, readonly (string | undefined)[]>()
  byColours.set(puzzle, schemes)
  const found = schemes.get(scheme)
  if (found) return found[piece]
  const joined = puzzle.pieces.map(({ faces }) =>
    faces.map(({ colour }) => colourIn(scheme, colour).name).join('-'),
  )
  const set = (text: string) => text.split('-').sort().join('-')
  const words = wordsIn(puzzle, scheme)
  const alone = joined.map((colours, p) => {
    const { faces } = puzzle.pieces[p]
    const isTold =
      faces.length > 1 &&
      faces.length <= MOST_COLOURS &&
      joined.every((other, q) => set(other) !== set(colours) || words[q] === words[p])
    return isTold ? colours : undefined
  })
  schemes.set(scheme, alone)
  return alone[piece]
}

/** What a side is called: by its colour, else by the piece in its middle, else by where it is when finished. */
export function sideName(puzzle: Puzzle, scheme: Scheme, side: Direction): string {
  if (hasColouredSides(puzzle)) return colourIn(scheme, puzzle.definition.faces[side.name]).name
  const middle = piecesShowing(puzzle, side).find((p) => isMiddle(puzzle, p))
  return middle === undefined ? `the ${side.adjective} side` : who(puzzle, scheme, middle)
}

/** A component of a face's direction that is worth a word. */
const LEANS = 0.35

/** Which way a face looks, by the id of its colour: the nearest of the six directions first. */
export interface Look {
  readonly colour: string
  readonly toward: readonly Direction['name'][]
}

/** The same without words. */
export function looksOf(puzzle: Puzzle, piece: number, rotation: Rotation): Look[] {
  const pose = poseOf(puzzle.definition)
  return puzzle.pieces[piece].faces.slice(0, MOST_COLOURS).map(({ colour, normal }) => {
    const shown = posed(pose, unit(rotate(rotation, normal)))
    const toward = DIRECTIONS.filter(({ vector }) => dot(vector, shown) > LEANS)
      .sort((a, b) => dot(b.vector, shown) - dot(a.vector, shown))
      .map(({ name }) => name)
    return { colour, toward }
  })
}

/** Whether no other piece is called the same. */
const isUnmistakable = (puzzle: Puzzle, scheme: Scheme, piece: number): boolean =>
  wordsIn(puzzle, scheme).filter((words) => words === who(puzzle, scheme, piece)).length === 1

/** For each slot, the home whose place it is in a frame. */
const homes = new WeakMap<Puzzle, Map<Rotation, ReadonlyMap<number, number>>>()

function homesIn(puzzle: Puzzle, frame: Rotation): ReadonlyMap<number, number> {
  const frames = homes.get(puzzle) ?? new Map<Rotation, ReadonlyMap<number, number>>()
  homes.set(puzzle, frames)
  let found = frames.get(frame)
  if (!found) {
    found = new Map(puzzle.pieces.map((_, p) => [puzzle.slot[24 * p + frame], p]))
    frames.set(frame, found)
  }
  return found
}

/** The home that a piece fills in a frame, by index; undefined where the finished puzzle has none. */
export const homeFilled = (
  puzzle: Puzzle,
  frame: Rotation,
  piece: number,
  rotation: Rotation,
): number | undefined => homesIn(puzzle, frame).get(puzzle.slot[24 * piece + rotation])

/** What the place is called that a piece fills; undefined outside the finished shape. */
export function whereNow(
  puzzle: Puzzle,
  frame: Rotation,
  piece: number,
  rotation: Rotation,
): string | undefined {
  const home = homeFilled(puzzle, frame, piece, rotation)
  return home === undefined ? undefined : placeNamesOf(puzzle, frame).names[home]
}

/** A piece in the middle of a face: found at a glance. */
const isMiddle = (puzzle: Puzzle, piece: number): boolean =>
  shortKind(puzzle.pieces[piece].kind).endsWith('centre')

/** Toward the eye of the near window. */
const EYE: Vector = [0.8, 1, 1.1]

export interface Mark {
  readonly piece: number
  /** The home whose place it is. */
  readonly home: number
  readonly place: string
}

export const markClaim = ({ pieces }: Puzzle, { piece, home }: Mark) =>
  ({ kind: 'pieceAt', piece: pieces[piece].id, place: pieces[home].id }) as const

/**
 * Pieces that are told apart from all others by their words, with their places: what never leaves its place
 * first, then what is home, the nearest to the eye first.
 */
export function marksIn(
  puzzle: Puzzle,
  scheme: Scheme,
  state: State,
  frame: Rotation,
): readonly Mark[] {
  const pose = poseOf(puzzle.definition)
  const back = INVERSE[frame]
  const told = puzzle.pieces.flatMap(({ faces, cells, core }, p) => {
    const home = homeFilled(puzzle, frame, p, state[p])
    if (faces.length === 0 || home === undefined || !isUnmistakable(puzzle, scheme, p)) return []
    const at = posed(pose, average(cells.map((cell) => placed(puzzle.cores[core], state[p], cell))))
    const eye = EYE[0] * at[0] + EYE[1] * at[1] + EYE[2] * at[2]
    const isHome = looksHome(puzzle, p, multiply(back, state[p]))
    const isAnchor = home === p && isMiddle(puzzle, p)
    const place = placeNamesOf(puzzle, frame).names[home]
    return [{ piece: p, home, place, rank: (isHome ? 100 : 0) + (isAnchor ? 200 : 0) + eye }]
  })
  return told.sort((a, b) => b.rank - a.rank)
}

/** Two pieces whose places fix the hold; undefined if no two do. */
export function marksOf(
  puzzle: Puzzle,
  scheme: Scheme,
  state: State,
  frame: Rotation,
): readonly [Mark, Mark] | undefined {
  const best = marksIn(puzzle, scheme, state, frame)
  for (const [i, second] of best.entries())
    for (const first of best.slice(0, i))
      if (fixHold(puzzle, state, first.piece, second.piece)) return [first, second]
  return undefined
}

/** A piece whose place, once a side is held where it is, fixes the hold; undefined if none does. */
export function markBeside(
  puzzle: Puzzle,
  scheme: Scheme,
  state: State,
  frame: Rotation,
  held: Direction,
): Mark | undefined {
  const round = puzzle.holds.filter((hold) => hold !== 0 && turnSide(puzzle, hold, held) === held)
  return marksIn(puzzle, scheme, state, frame).find(({ piece }) =>
    round.every(
      (hold) =>
        puzzle.slot[24 * piece + multiply(hold, state[piece])] !==
        puzzle.slot[24 * piece + state[piece]],
    ),
  )
}

/** Whether no other hold leaves both pieces in the places that they fill. */
function fixHold(puzzle: Puzzle, state: State, a: number, b: number): boolean {
  const stays = (p: number, hold: Rotation) =>
    puzzle.slot[24 * p + multiply(hold, state[p])] === puzzle.slot[24 * p + state[p]]
  return puzzle.holds.every((hold) => hold === 0 || !stays(a, hold) || !stays(b, hold))
}
