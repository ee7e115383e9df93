/**
 * Copying a real puzzle by its colours, judged while it is typed. The arrangement of the colours on
 * the finished puzzle is read off the pieces themselves: opposite colours never share a piece.
 */
import { orbitsOf } from '../analysis/orbits'
import { colourIn, type Scheme } from '../puzzle/colours'
import {
  DIRECTIONS,
  directionOfVector,
  opposite,
  turnDirection,
  type Direction,
} from '../puzzle/directions'
import type { Puzzle } from '../puzzle/compile'
import { multiply, ROTATION_COUNT, type Rotation } from '../rotation'
import { placeOf, type State } from '../state'
import { isReachable } from '../search/reachable'
import { listed, placeWords } from '../words'

/** A sticker to be marked: a place and one of the sides it shows. */
export interface Sticker {
  /** 'UFR:U' */
  readonly id: string
  readonly place: number
  readonly side: Direction
}

/** Colour ids of the copy's scheme by sticker id; missing ones are not marked yet. */
export type Marked = Readonly<Record<string, string>>

export interface CopyProblem {
  readonly code: 'too-many' | 'impossible' | 'mirrored' | 'twice' | 'twisted' | 'unreachable'
  readonly sentence: string
  /** Sticker ids to look at again. */
  readonly stickers: readonly string[]
}

export interface Judgement {
  readonly missing: number
  readonly problems: readonly CopyProblem[]
  /** Present only if everything is marked and the puzzle can be in this state. */
  readonly found?: { readonly state: State; readonly scheme: Scheme; readonly isOwnScheme: boolean }
}

export const stickerId = (puzzle: Puzzle, place: number, side: Direction): string =>
  `${puzzle.pieces[place].id}:${side.letter}`

/** All stickers, by side, each side's in reading order. */
export function stickersOf(puzzle: Puzzle): Sticker[] {
  return DIRECTIONS.flatMap((side) =>
    puzzle.pieces.flatMap((piece, place) =>
      piece.faces.some(({ normal }) => directionOfVector(normal) === side)
        ? [{ id: stickerId(puzzle, place, side), place, side }]
        : [],
    ),
  )
}

/** What the stickers of a state show: the marks that someone copying it would make. */
export function marksOf(puzzle: Puzzle, state: State): Marked {
  const marks: Record<string, string> = {}
  state.forEach((r, piece) => {
    const place = placeOf(puzzle, state, piece)
    for (const { normal, colour } of puzzle.pieces[piece].faces)
      marks[stickerId(puzzle, place, turnDirection(r, directionOfVector(normal)))] = colour
  })
  return marks
}

export function judge(puzzle: Puzzle, scheme: Scheme, marked: Marked): Judgement {
  const stickers = stickersOf(puzzle)
  const missing = stickers.filter(({ id }) => marked[id] === undefined).length
  const full = puzzle.pieces.flatMap((_, place) => {
    const own = stickers.filter((sticker) => sticker.place === place)
    return own.every(({ id }) => marked[id] !== undefined) ? [{ place, own }] : []
  })
  const arrangement = bestArrangement(puzzle, scheme, marked, full)
  const problems = [
    ...tooMany(puzzle, scheme, marked, stickers),
    ...wrongPieces(puzzle, scheme, marked, full, arrangement),
  ]
  if (missing > 0 || problems.length > 0) return { missing, problems }
  const state = new Uint8Array(puzzle.pieces.length)
  for (const { place, own } of full) {
    const fit = fitOf(puzzle, marked, place, own, arrangement)
    if (fit) state[fit.piece] = fit.rotation
  }
  if (!isReachable(puzzle, state)) return { missing, problems: [assemblyProblem(puzzle, state)] }
  return {
    missing,
    problems,
    found: {
      state,
      scheme: rearranged(puzzle, scheme, arrangement),
      isOwnScheme: isOwn(puzzle, arrangement),
    },
  }
}

/** Which colour id of the copy's scheme each side of the finished puzzle has. */
type Arrangement = ReadonlyMap<Direction, string>

interface FullPlace {
  readonly place: number
  readonly own: readonly Sticker[]
}

function bestArrangement(
  puzzle: Puzzle,
  scheme: Scheme,
  marked: Marked,
  full: readonly FullPlace[],
): Arrangement {
  const score = (arrangement: Arrangement) => {
    const fits = full.flatMap(({ place, own }) => {
      const fit = fitOf(puzzle, marked, place, own, arrangement)
      return fit ? [fit.piece] : []
    })
    return new Set(fits).size
  }
  let best = ownArrangement(puzzle)
  let bestScore = score(best)
  if (bestScore === full.length) return best
  for (const arrangement of arrangementsOf(puzzle, scheme)) {
    const next = score(arrangement)
    if (next > bestScore) {
      best = arrangement
      bestScore = next
    }
  }
  return best
}

const ownArrangement = (puzzle: Puzzle): Arrangement =>
  new Map(DIRECTIONS.map((side) => [side, puzzle.definition.faces[side.name]]))

const isOwn = (puzzle: Puzzle, arrangement: Arrangement): boolean =>
  [...arrangement].every(([side, colour]) => puzzle.definition.faces[side.name] === colour)

/** Every way to put the scheme's colours on the sides, counted once whatever the hold. */
function* arrangementsOf(puzzle: Puzzle, scheme: Scheme): Generator<Arrangement> {
  const [first, ...rest] = scheme.map(({ id }) => id)
  if (rest.length !== DIRECTIONS.length - 1) return
  const seen = new Set<string>()
  for (const order of permutations(rest)) {
    const arrangement = new Map(DIRECTIONS.map((side, i) => [side, [first, ...order][i]]))
    const key = puzzle.holds
      .map((hold) => DIRECTIONS.map((side) => arrangement.get(turnDirection(hold, side))).join())
      .sort()[0]
    if (seen.has(key)) continue
    seen.add(key)
    yield arrangement
  }
}

function* permutations<T>(items: readonly T[]): Generator<T[]> {
  if (items.length === 0) yield []
  for (const [i, item] of items.entries())
    for (const rest of permutations([...items.slice(0, i), ...items.slice(i + 1)]))
      yield [item, ...rest]
}

/** The piece and rotation that show the marked colours in a place, or undefined. */
function fitOf(
  puzzle: Puzzle,
  marked: Marked,
  place: number,
  own: readonly Sticker[],
  arrangement: Arrangement,
): { piece: number; rotation: Rotation } | undefined {
  for (let piece = 0; piece < puzzle.pieces.length; piece++)
    for (let rotation = 0; rotation < ROTATION_COUNT; rotation++) {
      if (puzzle.place[24 * piece + rotation] !== place) continue
      const shows = puzzle.pieces[piece].faces.every(({ normal }) => {
        const home = directionOfVector(normal)
        const sticker = own.find(({ side }) => side === turnDirection(rotation, home))
        return sticker !== undefined && marked[sticker.id] === arrangement.get(home)
      })
      if (shows) return { piece, rotation }
    }
  return undefined
}

function tooMany(
  puzzle: Puzzle,
  scheme: Scheme,
  marked: Marked,
  stickers: readonly Sticker[],
): CopyProblem[] {
  return scheme.flatMap(({ id, name }) => {
    const shown = stickers.filter((sticker) => marked[sticker.id] === id)
    const most = puzzle.pieces
      .flatMap(({ faces }) => faces)
      .filter(({ colour }) => colour === id).length
    if (shown.length <= most) return []
    return [
      {
        code: 'too-many',
        sentence: `There are ${shown.length} ${name} stickers; the puzzle has ${most}. One of them must be another colour.`,
        stickers: shown.map((sticker) => sticker.id),
      },
    ]
  })
}

function wrongPieces(
  puzzle: Puzzle,
  scheme: Scheme,
  marked: Marked,
  full: readonly FullPlace[],
  arrangement: Arrangement,
): CopyProblem[] {
  const seen = new Map<number, FullPlace>()
  return full.flatMap((each): CopyProblem[] => {
    const fit = fitOf(puzzle, marked, each.place, each.own, arrangement)
    const stickers = each.own.map(({ id }) => id)
    if (!fit) return [misfit(puzzle, scheme, marked, each, arrangement)]
    const earlier = seen.get(fit.piece)
    if (!earlier) {
      seen.set(fit.piece, each)
      return []
    }
    return [
      {
        code: 'twice',
        sentence: `The ${puzzle.pieces[fit.piece].kind} with ${coloursAt(scheme, marked, each)} appears twice: ${placeOfWords(earlier)} and ${placeOfWords(each)}. Look at both again.`,
        stickers: [...stickers, ...earlier.own.map(({ id }) => id)],
      },
    ]
  })
}

const placeOfWords = ({ own }: FullPlace): string => placeWords(own.map(({ side }) => side))

const coloursAt = (scheme: Scheme, marked: Marked, { own }: FullPlace): string =>
  listed(own.map(({ id }) => colourIn(scheme, marked[id]).name))

/** Why no piece has these colours: a colour twice, two opposite ones, or the wrong way round. */
function misfit(
  puzzle: Puzzle,
  scheme: Scheme,
  marked: Marked,
  each: FullPlace,
  arrangement: Arrangement,
): CopyProblem {
  const { place, own } = each
  const stickers = own.map(({ id }) => id)
  const kind = puzzle.pieces[place].kind
  const where = placeOfWords(each)
  const ids = own.map(({ id }) => marked[id])
  const name = (id: string) => colourIn(scheme, id).name
  const double = ids.find((id, i) => ids.indexOf(id) !== i)
  if (double !== undefined)
    return {
      code: 'impossible',
      sentence: `The ${kind} ${where} shows ${name(double)} twice. No piece does.`,
      stickers,
    }
  const sideOf = (id: string) => [...arrangement].find(([, colour]) => colour === id)?.[0]
  for (const id of ids) {
    const side = sideOf(id)
    const other = side && arrangement.get(opposite(side))
    if (other !== undefined && ids.includes(other))
      return {
        code: 'impossible',
        sentence: `The ${kind} ${where} shows ${name(id)} and ${name(other)}, which are opposite each other on this puzzle. No piece has both.`,
        stickers,
      }
  }
  return {
    code: 'mirrored',
    sentence: `The colours of the ${kind} ${where}, ${coloursAt(scheme, marked, each)}, run the wrong way round. Two of its stickers are exchanged.`,
    stickers,
  }
}

/** The smallest fix by hand: one piece turned in its place, if that is enough. */
function assemblyProblem(puzzle: Puzzle, state: State): CopyProblem {
  const orbits = orbitsOf(puzzle)
  for (let piece = puzzle.pieces.length - 1; piece >= 0; piece--) {
    const orbit = orbits.find(({ places }) => places.includes(piece))
    if (!orbit) continue
    const place = placeOf(puzzle, state, piece)
    for (const turned of turnsInPlace(puzzle, place)) {
      const tried = new Uint8Array(state)
      tried[piece] = multiply(turned.rotation, state[piece])
      if (!isReachable(puzzle, tried)) continue
      const sides = puzzle.pieces[place].faces.map(({ normal }) => directionOfVector(normal))
      const kind = puzzle.pieces[piece].kind
      return {
        code: 'twisted',
        sentence: `This cannot happen by turning. One ${kind} has been twisted: the twists do not add up to whole turns. Twist one ${kind}, whichever you like, a third ${turned.isClockwise ? 'clockwise' : 'anticlockwise'} by hand: for instance the one ${placeWords(sides)}.`,
        stickers: sides.map((side) => stickerId(puzzle, place, side)),
      }
    }
  }
  return {
    code: 'unreachable',
    sentence: 'This cannot happen by turning, and twisting one piece by hand does not mend it.',
    stickers: [],
  }
}

/** Rotations that leave a corner place where it is, with the sense seen from outside. */
function turnsInPlace(puzzle: Puzzle, place: number) {
  const [cell] = puzzle.pieces[place].cells
  return Array.from({ length: ROTATION_COUNT }, (_, rotation) => rotation)
    .filter((rotation) => rotation !== 0 && puzzle.place[24 * place + rotation] === place)
    .map((rotation) => {
      const [first] = puzzle.pieces[place].faces.map(({ normal }) => normal)
      const image = turnDirection(rotation, directionOfVector(first)).vector
      // Anticlockwise seen from outside if first, image and the outward diagonal are right-handed.
      const cross = [
        first[1] * image[2] - first[2] * image[1],
        first[2] * image[0] - first[0] * image[2],
        first[0] * image[1] - first[1] * image[0],
      ]
      const sense = cross.reduce((sum, c, i) => sum + c * cell[i], 0)
      return { rotation, isClockwise: sense < 0 }
    })
}

/** The copy's colours moved to the sides on which they were found. */
function rearranged(puzzle: Puzzle, scheme: Scheme, arrangement: Arrangement): Scheme {
  return puzzle.definition.colours.map((colour) => {
    const side = DIRECTIONS.find(({ name }) => puzzle.definition.faces[name] === colour.id)
    const shown = side && arrangement.get(side)
    return shown === undefined ? colour : { ...colourIn(scheme, shown), id: colour.id }
  })
}
