/**
 * Copying a real puzzle by its colours, judged while it is typed. The arrangement of the colours on
 * the finished puzzle is read off the pieces themselves: opposite colours never share a piece.
 */
import { lookClassesOf } from '../analysis/lookAlikes'
import { placeNamesOf } from '../analysis/placeNames'
import { reachOf } from '../analysis/placements'
import { sideAlong, sideOpposite, sidesOf, turnSide } from '../analysis/sides'
import { colourIn, type Scheme } from '../puzzle/colours'
import type { Direction } from '../puzzle/directions'
import type { Puzzle } from '../puzzle/compile'
import { IDENTITY, multiply, rotate, ROTATION_COUNT, type Rotation, type Vector } from '../rotation'
import { placeOf, type State } from '../state'
import { capital, inWords, listed, placeWords, times } from '../phrases'
import { verdictWords } from '../stuck/sayVerdict'
import { judgeEntry, type Entry, type EntryVerdict } from './pieces'

/** A sticker to be marked: a place and one of the sides it shows. */
export interface Sticker {
  /** 'UFR:U' */
  readonly id: string
  readonly place: number
  readonly side: Direction
}

const reasons = new WeakMap<Puzzle, { readonly why?: string }>()

/** Why a puzzle is not copied by its colours, as a sentence; undefined if it is. */
export function whyNotByColours(puzzle: Puzzle): string | undefined {
  const known = reasons.get(puzzle) ?? { why: reasonOf(puzzle) }
  reasons.set(puzzle, known)
  return known.why
}

function reasonOf(puzzle: Puzzle): string | undefined {
  const { classOf } = lookClassesOf(puzzle)
  const reached = waysOf(puzzle).filter(({ isReached }) => isReached)
  const placed = (piece: number, rotation: Rotation) => puzzle.place[24 * piece + rotation]
  if (reached.some(({ piece, rotation }) => placed(piece, rotation) >= puzzle.pieces.length))
    return 'Its pieces do not keep to the places of the finished shape, so there are no fixed stickers to mark.'
  const sides = (piece: number, rotation: Rotation) => sidesShown(puzzle, piece, rotation)?.join()
  if (
    reached.some(({ piece, rotation }) => {
      const shown = sides(piece, rotation)
      return shown === undefined || shown !== sides(placed(piece, rotation), IDENTITY)
    })
  )
    return 'What a place shows depends on the piece that lies there, so its stickers cannot be marked before that is known.'
  const seen = new Map<string, number>()
  const isTold = reached.every(({ piece, rotation }) => {
    const colours = puzzle.pieces[piece].faces.map(
      ({ normal, colour }) => turnSide(puzzle, rotation, sideOf(puzzle, normal)).letter + colour,
    )
    const key = [placed(piece, rotation), ...colours.sort()].join()
    const other = seen.get(key) ?? classOf[piece]
    seen.set(key, other)
    return other === classOf[piece]
  })
  return isTold
    ? undefined
    : 'Different pieces can show the same at one place, so colours do not tell which of them lies there.'
}

/** The sides on which a piece shows a face, as letters in order; undefined where they have no names of their own. */
function sidesShown(puzzle: Puzzle, piece: number, rotation: Rotation): string[] | undefined {
  const found = puzzle.pieces[piece].faces.map(
    ({ normal }) => sideAlong(puzzle, rotate(rotation, normal))?.letter,
  )
  const letters = found.flatMap((letter) => letter ?? [])
  return letters.length === found.length && new Set(letters).size === letters.length
    ? letters.sort()
    : undefined
}

/** Every piece in every rotation, and whether turns bring it there. */
const waysOf = (puzzle: Puzzle) =>
  puzzle.pieces.flatMap((_, piece) => {
    const reached = new Set(
      reachOf(puzzle)[piece].flatMap((r) => puzzle.holds.map((hold) => multiply(hold, r))),
    )
    return Array.from({ length: ROTATION_COUNT }, (__, rotation) => ({
      piece,
      rotation,
      isReached: reached.has(rotation),
    }))
  })

/** A side of a puzzle that is copied by its colours has a name. */
function sideOf(puzzle: Puzzle, normal: Vector): Direction {
  const side = sideAlong(puzzle, normal)
  if (!side) throw new Error('a sticker looks between the sides')
  return side
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
  const shown = puzzle.pieces.flatMap(({ faces }, place) =>
    faces.map(({ normal }) => ({ place, side: sideOf(puzzle, normal) })),
  )
  return [...sidesOf(puzzle).keys()].flatMap((side) =>
    shown
      .filter((each) => each.side === side)
      .map(({ place }) => ({ id: stickerId(puzzle, place, side), place, side })),
  )
}

/** What the stickers of a state show: the marks that someone copying it would make. */
export function marksOf(puzzle: Puzzle, state: State): Marked {
  const marks: Record<string, string> = {}
  state.forEach((r, piece) => {
    const place = placeOf(puzzle, state, piece)
    for (const { normal, colour } of puzzle.pieces[piece].faces)
      marks[stickerId(puzzle, place, turnSide(puzzle, r, sideOf(puzzle, normal)))] = colour
  })
  return marks
}

export function judge(puzzle: Puzzle, scheme: Scheme, marked: Marked): Judgement {
  const stickers = stickersOf(puzzle)
  const missing = stickers.filter(({ id }) => marked[id] === undefined).length
  const full = puzzle.pieces.flatMap((_, place) => {
    const own = stickers.filter((sticker) => sticker.place === place)
    const isMarked = own.length > 0 && own.every(({ id }) => marked[id] !== undefined)
    return isMarked ? [{ place, own }] : []
  })
  const arrangement = bestArrangement(puzzle, scheme, marked, full)
  const problems = [
    ...tooMany(puzzle, scheme, marked, stickers),
    ...wrongPieces(puzzle, scheme, marked, full, arrangement),
  ]
  if (missing > 0 || problems.length > 0) return { missing, problems }
  const entry: Entry = full.flatMap(({ place, own }) => {
    const fit = fitOf(puzzle, marked, place, own, arrangement)
    return fit ? [{ slot: place, seen: puzzle.look[24 * fit.piece + fit.rotation] }] : []
  })
  const own = rearranged(puzzle, scheme, arrangement)
  const verdict = judgeEntry(puzzle, entry)
  if (verdict.kind !== 'whole' || !verdict.diagnosis.state)
    return { missing, problems: [assemblyProblem(puzzle, own, verdict)] }
  return {
    missing,
    problems,
    found: { state: verdict.state, scheme: own, isOwnScheme: isOwn(puzzle, arrangement) },
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
  const { classOf, classSize } = lookClassesOf(puzzle)
  const score = (arrangement: Arrangement) => {
    const left = [...classSize]
    return full.filter(({ place, own }) => {
      const fit = fitOf(puzzle, marked, place, own, arrangement)
      return fit !== undefined && left[classOf[fit.piece]]-- > 0
    }).length
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
  new Map([...sidesOf(puzzle).keys()].map((side) => [side, puzzle.definition.faces[side.name]]))

const isOwn = (puzzle: Puzzle, arrangement: Arrangement): boolean =>
  [...arrangement].every(([side, colour]) => puzzle.definition.faces[side.name] === colour)

/** Every way to put the scheme's colours on the sides, counted once whatever the hold. */
function* arrangementsOf(puzzle: Puzzle, scheme: Scheme): Generator<Arrangement> {
  const sides = [...sidesOf(puzzle).keys()]
  const [first, ...rest] = scheme.map(({ id }) => id)
  if (rest.length !== sides.length - 1) return
  const seen = new Set<string>()
  for (const order of permutations(rest)) {
    const arrangement = new Map(sides.map((side, i) => [side, [first, ...order][i]]))
    const key = puzzle.holds
      .map((hold) => sides.map((side) => arrangement.get(turnSide(puzzle, hold, side))).join())
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

/** One way to fill a place: for each side that the place shows, the side of home that it shows there. */
interface Filling {
  readonly piece: number
  readonly rotation: Rotation
  readonly homes: ReadonlyMap<Direction, Direction>
}

const knownFillings = new WeakMap<Puzzle, readonly (readonly Filling[])[]>()

/** For each place all fillings that differ in what they show; no colours are looked at. */
function fillingsOf(puzzle: Puzzle): readonly (readonly Filling[])[] {
  const known = knownFillings.get(puzzle)
  if (known) return known
  const found = puzzle.pieces.map(() => new Map<string, Filling>())
  const sides = [...sidesOf(puzzle).keys()]
  // What turns can bring there comes before what only hands could.
  const ways = waysOf(puzzle)
  for (const isReached of [true, false])
    for (const { piece, rotation } of ways.filter((way) => way.isReached === isReached)) {
      const { faces } = puzzle.pieces[piece]
      const place = puzzle.place[24 * piece + rotation]
      if (place >= puzzle.pieces.length) continue
      const homes = new Map(
        faces.map(({ normal }) => {
          const home = sideOf(puzzle, normal)
          return [turnSide(puzzle, rotation, home), home] as const
        }),
      )
      const key = sides.map((side) => homes.get(side)?.letter ?? '-').join('')
      if (!found[place].has(key)) found[place].set(key, { piece, rotation, homes })
    }
  const lists = found.map((byKey) => [...byKey.values()])
  knownFillings.set(puzzle, lists)
  return lists
}

/** A piece and rotation that show the marked colours in a place, or undefined. */
const fitOf = (
  puzzle: Puzzle,
  marked: Marked,
  place: number,
  own: readonly Sticker[],
  arrangement: Arrangement,
): Filling | undefined =>
  fillingsOf(puzzle)[place].find(
    ({ homes }) =>
      homes.size === own.length &&
      own.every(({ id, side }) => {
        const home = homes.get(side)
        return home !== undefined && marked[id] === arrangement.get(home)
      }),
  )

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
  const { classOf, classSize } = lookClassesOf(puzzle)
  const seen = new Map<number, FullPlace[]>()
  return full.flatMap((each): CopyProblem[] => {
    const fit = fitOf(puzzle, marked, each.place, each.own, arrangement)
    if (!fit) return [misfit(puzzle, scheme, marked, each, arrangement)]
    const own = classOf[fit.piece]
    const earlier = seen.get(own) ?? []
    seen.set(own, [...earlier, each])
    if (earlier.length < classSize[own]) return []
    const all = [...earlier, each]
    return [
      {
        code: 'twice',
        sentence: `The ${puzzle.pieces[fit.piece].kind} with ${coloursAt(scheme, marked, each)} appears ${times(all.length)}: ${listed(all.map((other) => placeOfWords(puzzle, other)))}. ${classSize[own] === 1 ? 'There is only one' : `There are only ${inWords(classSize[own])}`}. Look at them again.`,
        stickers: all.flatMap((other) => other.own.map(({ id }) => id)),
      },
    ]
  })
}

/** A sticker as it is told to those who do not see it. */
export function stickerWords(puzzle: Puzzle, { place, side }: Sticker): string {
  if (puzzle.definition.mechanism.kind !== 'box')
    return `${placeNamesOf(puzzle, IDENTITY).names[place]}, ${side.adjective} side`
  const sides = puzzle.pieces[place].faces.map(({ normal }) => sideOf(puzzle, normal))
  return `${placeWords(sides)}, looking ${side.toward}`
}

/** Where a place of a plain box is, by its sides; of any other puzzle its name. */
const placeOfWords = (puzzle: Puzzle, { place, own }: FullPlace): string =>
  puzzle.definition.mechanism.kind === 'box'
    ? placeWords(own.map(({ side }) => side))
    : placeNamesOf(puzzle, IDENTITY).names[place]

/** The same with what lies there, as a sentence begins. */
const whatIsAt = (puzzle: Puzzle, each: FullPlace): string =>
  puzzle.definition.mechanism.kind === 'box'
    ? `The ${puzzle.pieces[each.place].kind} ${placeOfWords(puzzle, each)}`
    : capital(placeOfWords(puzzle, each))

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
  const { own } = each
  const stickers = own.map(({ id }) => id)
  const what = whatIsAt(puzzle, each)
  const ids = own.map(({ id }) => marked[id])
  const name = (id: string) => colourIn(scheme, id).name
  const double = ids.find((id, i) => ids.indexOf(id) !== i)
  if (double !== undefined)
    return {
      code: 'impossible',
      sentence: `${what} shows ${name(double)} twice. No piece does.`,
      stickers,
    }
  const homeOf = (id: string) => [...arrangement].find(([, colour]) => colour === id)?.[0]
  for (const id of ids) {
    const side = homeOf(id)
    const across = side && sideOpposite(puzzle, side)
    const other = across && arrangement.get(across)
    const areTogether = puzzle.pieces.some(({ faces }) =>
      [side, across].every((each) => faces.some(({ normal }) => sideOf(puzzle, normal) === each)),
    )
    if (other !== undefined && !areTogether && ids.includes(other))
      return {
        code: 'impossible',
        sentence: `${what} shows ${name(id)} and ${name(other)}, which are opposite each other on this puzzle. No piece has both.`,
        stickers,
      }
  }
  const shown = [...ids].sort().join()
  const isMirrored = fillingsOf(puzzle)[each.place].some(
    ({ homes }) =>
      [...homes.values()]
        .map((home) => arrangement.get(home))
        .sort()
        .join() === shown,
  )
  if (!isMirrored)
    return {
      code: 'impossible',
      sentence: `${what} shows ${coloursAt(scheme, marked, each)}. No piece that can come there has these colours.`,
      stickers,
    }
  return {
    code: 'mirrored',
    sentence: `The colours of ${what[0].toLowerCase()}${what.slice(1)}, ${coloursAt(scheme, marked, each)}, run the wrong way round. Two of its stickers are exchanged.`,
    stickers,
  }
}

/** Why no turns lead here, with the stickers of the pieces that are spoken of. */
function assemblyProblem(puzzle: Puzzle, scheme: Scheme, verdict: EntryVerdict): CopyProblem {
  if (verdict.kind !== 'whole')
    return {
      code: 'unreachable',
      sentence:
        'The pieces are right, but no hold explains where they are: some layer would have been turned by a quarter that only half-turns.',
      stickers: [],
    }
  const { finding, slots } = verdict.diagnosis
  const isTwist =
    finding.kind === 'assembly' &&
    finding.corrections.length === 1 &&
    finding.corrections[0].pieces.length === 1
  return {
    code: isTwist ? 'twisted' : 'unreachable',
    sentence: verdictWords(puzzle, scheme, verdict.diagnosis).join(' '),
    stickers: slots.flatMap((place) =>
      puzzle.pieces[place].faces.map(({ normal }) =>
        stickerId(puzzle, place, sideOf(puzzle, normal)),
      ),
    ),
  }
}

/** The copy's colours moved to the sides on which they were found. */
function rearranged(puzzle: Puzzle, scheme: Scheme, arrangement: Arrangement): Scheme {
  return puzzle.definition.colours.map((colour) => {
    const sides = [...sidesOf(puzzle).keys()]
    const side = sides.find(({ name }) => puzzle.definition.faces[name] === colour.id)
    const shown = side && arrangement.get(side)
    return shown === undefined ? colour : { ...colourIn(scheme, shown), id: colour.id }
  })
}
