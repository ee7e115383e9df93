/** The words of steps that join the parts of a smaller box, and of what that one alone cannot mend. */
import { joinedAs, joinedState, shownIn, wholesIn, type Joined } from '../analysis/joined'
import { parityOf } from '../analysis/invariants'
import {
  byStrips,
  exchangeOf,
  joiningOf,
  pairPlacesOf,
  piecesBySlot,
  sharingPlaces,
  type ByStrips,
  type Filled,
  type PairPlace,
  type Strip,
} from '../analysis/pairPlaces'
import { hasColouredSides } from '../analysis/sides'
import type { Turn } from '../puzzle/compile'
import { homeFilled, whereNow, who } from '../analysis/who'
import { INVERSE, multiply, ROTATION_COUNT, type Rotation, type Vector } from '../rotation'
import { leavesOpen } from './naming'
import { nthTurn } from './nthTurn'
import { turnFreely, type State } from '../state'
import { baseKind, capital, inWords, kindPlural, listed, plural } from '../phrases'
import type { Aim } from './aim'
import { piecesOf, sameImage, sideOf } from './goal'
import {
  goesTo,
  holdOfScene,
  ids,
  pieceAt,
  placeIn,
  type PieceScene,
  type PieceWords,
} from './pieceWords'
import type { RouteLine, RouteStep } from './route'
import { asSaid } from '../claims/claim'

type Join = Extract<Aim, { kind: 'join' }>
type Remedy = Extract<Aim, { kind: 'remedy' }>

/** So many are named in one sentence. */
const MOST_NAMES = 2

/** So many lines a card has at most. */
const MOST_LINES = 3

/** A piece of the smaller box more of whose parts lie together than before, as pieces of the real puzzle. */
interface Grown {
  readonly whole: number
  readonly after: number
  readonly size: number
  /** Those that lie together at the end, and which of them have come to it. */
  readonly together: readonly number[]
  readonly come: readonly number[]
  /** How it lies then. */
  readonly rotation: Rotation
}

export function joinWords(scene: PieceScene, aim: Join): PieceWords {
  const { puzzle } = scene
  const joined = joinedAs(puzzle, aim.size) as Joined
  const grown = grownIn(scene, joined, aim)
  const isPair = grown.every(({ size }) => size === 2)
  const told = aim.isByStrips
    ? joinedByStrips(scene, joined, aim)
    : { grown, turns: turnsOf(scene) }
  const lines = isPair
    ? told.grown.map((each) => pairLine(scene, joined, each, told.turns))
    : comingLines(scene, grown)
  const isTold = lines.length > 0 && lines.length <= MOST_LINES
  const all = [...new Set(told.grown.flatMap(({ together }) => [...together]))]
  const lit = ids(puzzle, all)
  // Many are not told one by one.
  const names =
    grown.length > MOST_NAMES
      ? `${inWords(grown.length)} ${kindPlural(baseKind(joined.small.pieces[grown[0].whole].kind))} at once`
      : listed(grown.map(({ whole }) => nameOf(scene, joined, whole)))
  const missing = aim.of.reduce(
    (sum, whole, i) => sum + joined.partsOf[whole].length - aim.after[i],
    0,
  )
  // Once a stage is enough: what is owed is shown all the time.
  const open =
    aim.open && scene.isFirst
      ? [
          `From ${aim.open.from} to ${aim.open.to} a slice stands open: turn nothing else, and keep the hold.`,
        ]
      : []
  return {
    lookFor: isPair ? `the two parts of ${names}.` : `parts of ${names}.`,
    ...(isTold ? { lines } : {}),
    hold: holdOfScene(scene),
    check: grown.map((each) => wholeWords(scene, joined, each)).join('; ') + '.',
    note: [
      ...open,
      ...(isPair ? costWords(scene, joined, aim) : []),
      statusWords(isPair, missing),
    ].join(' '),
    hints: {
      nudge: isPair
        ? `Find two ${kindPlural(baseKind(joined.small.pieces[grown[0].whole].kind))} that belong together.`
        : 'Find a centre that does not lie with its own.',
      pointer: isTold ? lines[0].says : `Parts of ${names} come together.`,
    },
    others: rivalWords(scene, joined, aim),
    pieces: isTold
      ? [
          ...lines.map(({ piece }) => piece),
          ...lit.filter((id) => lines.every((l) => l.piece !== id)),
        ]
      : lit,
  }
}

/** What more lies together of. */
function grownIn(scene: PieceScene, joined: Joined, aim: Join): Grown[] {
  const { puzzle, stage, base, state, end } = scene
  const changed = aim.of.filter((_, i) => aim.after[i] !== aim.before[i])
  const isPlaced = stage.goal.some(
    (condition) =>
      condition.must !== 'together' &&
      piecesOf(puzzle, condition, base).some((p) => changed.includes(joined.wholeOf[p])),
  )
  // Of pairs that may lie anywhere equal ones can be taken for each other.
  if (!isPlaced && aim.of.every((whole) => joined.partsOf[whole].length === 2))
    return exchangeOf(puzzle, joined, aim.of, state, end).makes.map(grownPair)
  const full = wholesIn(puzzle, joined, end, aim.of)
  return aim.of.flatMap((whole, i) =>
    aim.after[i] > aim.before[i]
      ? [grownTo(scene, joined, whole, aim.after[i], full.get(whole))]
      : [],
  )
}

/**
 * What a pair costs: two that lie in one place and are no pair are taken apart for it, those that are joined only
 * where nothing else will do; the last two have nothing of the kind.
 */
function costWords(scene: PieceScene, joined: Joined, aim: Join): string[] {
  const { puzzle, state, end } = scene
  const { partsOf } = joined
  const { takesApart, lost, parts } = exchangeOf(puzzle, joined, aim.of, state, end)
  const before = aim.of.filter((whole, i) => aim.before[i] < partsOf[whole].length)
  const after = aim.of.filter((whole, i) => aim.after[i] < partsOf[whole].length)
  const isLastTwo = before.length === 2 && after.length === 0
  const named = (places: readonly PairPlace[]) =>
    places.map((place) => placeName(scene, joined, place))
  const names = isLastTwo ? [] : named(takesApart)
  return [
    ...(names.length === 0
      ? []
      : names.length <= MOST_NAMES
        ? [`Taken apart for it: what lies at ${listed(names)}, no pair yet.`]
        : [`Taken apart for it: what lies in ${inWords(names.length)} places, no pairs yet.`]),
    ...(lost === 0
      ? []
      : lost === 1 && parts.length === 1
        ? [`The pair at ${named(parts).join()} is parted for it.`]
        : [`${capital(plural(lost, 'pair'))} ${lost === 1 ? 'is' : 'are'} parted for it.`]),
    ...(isLastTwo
      ? aim.isByStrips
        ? stripWords(scene, joined, aim)
        : ['They are the last two: each gets its part from the other.']
      : []),
  ]
}

/** What may be taken apart instead, with the turns for it. */
const rivalWords = (
  scene: PieceScene,
  joined: Joined,
  { of, rivals }: Join,
): RouteStep['others'] => {
  const { puzzle, state } = scene
  const places = pairPlacesOf(puzzle, joined, of)
  return rivals.map(({ pieces: [piece, other], pair, turns }) => {
    const slots = [piece, other].map((p) => puzzle.slot[24 * p + state[p]])
    const place = places.find((each) => each.slots.every((slot) => slots.includes(slot)))
    if (!place) throw new Error('what is taken apart lies in no place of a pair')
    return {
      piece: puzzle.pieces[piece].id,
      first: puzzle.pieces[pair].id,
      says: asSaid(
        `What lies at ${placeName(scene, joined, place)}: ${plural(turns.length, 'turn')}, ${turns.join(' ')}.`,
      ),
    }
  })
}

const placeName = (
  { frame }: PieceScene,
  { small }: Joined,
  { whole, rotation }: PairPlace,
): string => whereNow(small, frame, whole, rotation) ?? 'outside the finished shape'

function stripsIn(scene: PieceScene, joined: Joined, aim: Join): ByStrips {
  const apart = aim.of.filter((_, i) => aim.before[i] < aim.after[i])
  const places = pairPlacesOf(scene.puzzle, joined, sharingPlaces(joined, aim.of, apart))
  const found = byStrips(scene.puzzle, places, scene.state, turnsOf(scene))
  if (!found) throw new Error('the last two are not joined by equal strips')
  return found
}

/** The pairs that the first slice joins: what equal strips exchange later is not seen. */
function joinedByStrips(scene: PieceScene, joined: Joined, aim: Join) {
  const { puzzle, state } = scene
  const { joins, states } = stripsIn(scene, joined, aim)
  const turns = turnsOf(scene).slice(0, joins + 1)
  const open = turnFreely(puzzle, states[0], turns[joins], new Uint8Array(state.length))
  return { turns, grown: exchangeOf(puzzle, joined, aim.of, state, open).makes.map(grownPair) }
}

const grownPair = ({ whole, rotation, pieces }: Filled): Grown => ({
  whole,
  after: 2,
  size: 2,
  together: pieces,
  come: pieces,
  rotation,
})

/** How the last two are joined where nothing else can be taken apart. */
function stripWords(scene: PieceScene, joined: Joined, aim: Join): string[] {
  const { puzzle, scheme } = scene
  const turns = turnsOf(scene)
  const found = stripsIn(scene, joined, aim)
  /** 'the front one of … and the back one of … both hold red centres' */
  const told = (strips: readonly Strip[], at: State) => {
    const pieces = piecesBySlot(puzzle, at)
    return strips
      .map(({ places: [a, b] }) => {
        const name = kindPlural(who(puzzle, scheme, pieces[a.slots[0]])).replace(/^the /, '')
        return `${placeName(scene, joined, a)} and ${placeName(scene, joined, b)} both hold ${name}`
      })
      .join('; ')
  }
  const slice = turns[found.joins].name
  return [
    'They are the last two, so strips are made equal.',
    `Before the first ${slice}: ${told(found.first, found.states[0])}; so it changes the two pairs alone.`,
    `Before the second: ${told(found.second, found.states[1])}; so it only mends the rest.`,
  ]
}

/** The turns of a step without those of the whole puzzle. */
const turnsOf = ({ step }: PieceScene): Turn[] =>
  step.turns.flatMap(({ turn, role }) => (role === 'hold' ? [] : [turn]))

const statusWords = (isPair: boolean, missing: number): string => {
  if (missing === 0) return isPair ? 'All pairs are joined then.' : 'They are all in then.'
  const [count, verb] = [inWords(missing), missing === 1 ? 'is' : 'are']
  return isPair
    ? `${capital(plural(missing, 'pair'))} ${verb} still apart after this.`
    : `${capital(count)} ${verb} still missing after this.`
}

/** 'the white-red edge'; of centres in one colour 'the white centres'. */
const nameOf = ({ puzzle, scheme }: PieceScene, { small }: Joined, whole: number): string =>
  isPlain(puzzle, small, whole) ? kindPlural(who(small, scheme, whole)) : who(small, scheme, whole)

/** Whether it is a centre of one colour. */
const isPlain = (puzzle: PieceScene['puzzle'], small: Joined['small'], whole: number): boolean =>
  hasColouredSides(puzzle) && baseKind(small.pieces[whole].kind) === 'centre'

/** @param lies how it lies at the end, if it is whole */
function grownTo(
  scene: PieceScene,
  joined: Joined,
  whole: number,
  after: number,
  lies: Rotation | undefined,
): Grown {
  const { puzzle, stage, base, state, end, endFrame, frame } = scene
  const { small, partsOf } = joined
  const parts = partsOf[whole]
  // It may be asked to lie in its own place.
  const isPlaced = stage.goal.some(
    (condition) =>
      condition.must !== 'together' && piecesOf(puzzle, condition, base).includes(parts[0]),
  )
  const fitting = (of: State, hold: Rotation, r: Rotation): number[] =>
    isPlaced && small.place[24 * whole + r] !== small.place[24 * whole + hold]
      ? []
      : partsFitting(puzzle, joined, of, whole, r)
  const rotations = Array.from({ length: ROTATION_COUNT }, (_, r) => r)
  const bestIn = (of: State, hold: Rotation) =>
    rotations
      .map((r) => ({ r, own: fitting(of, hold, r) }))
      .reduce((a, b) => (b.own.length > a.own.length ? b : a))
  const best =
    lies === undefined || isPlaced
      ? bestIn(end, endFrame)
      : { r: lies, own: fitting(end, endFrame, lies) }
  const before = new Set(bestIn(state, frame).own)
  return {
    whole,
    after,
    size: parts.length,
    together: best.own,
    come: best.own.filter((p) => !before.has(p)),
    rotation: best.r,
  }
}

/** What lies so that it fits a piece of the smaller box with that rotation. */
function partsFitting(
  puzzle: PieceScene['puzzle'],
  { partsOf }: Joined,
  state: State,
  whole: number,
  rotation: Rotation,
): number[] {
  const bySlot = new Map([...state].map((r, p) => [puzzle.slot[24 * p + r], p]))
  const shown = shownIn(puzzle, state)
  return partsOf[whole].flatMap((p) => {
    const slot = puzzle.slot[24 * p + rotation]
    return shown[slot] === 1 + puzzle.look[24 * p + rotation] ? [bySlot.get(slot) as number] : []
  })
}

/** The rotations in which a piece fills a slot. */
const rotationsInto = (small: Joined['small'], piece: number, slot: number): Rotation[] =>
  Array.from({ length: ROTATION_COUNT }, (_, r) => r).filter(
    (r) => small.slot[24 * piece + r] === slot,
  )

/** 'The white-red edges are the upper one of … and the left one of … 2R2 joins them: …' */
function pairLine(
  scene: PieceScene,
  joined: Joined,
  { whole, together }: Grown,
  turns: readonly Turn[],
): RouteLine {
  const { puzzle, scheme, state, frame } = scene
  const [a, b] = together.map((p) => placeIn(scene, frame, state, p))
  const [one, other] = together.map((p) => who(puzzle, scheme, p))
  const told =
    one === other
      ? `${capital(asPair(one, other))} are ${a} and ${b}.`
      : `${capital(one)} is ${a}. Its partner is ${b}.`
  return {
    piece: puzzle.pieces[together[0]].id,
    says: asSaid([told, ...joiningWords(scene, joined, whole, together, turns)].join(' ')),
  }
}

/** By which of some turns two come together, and from where: a half turn joins what lies across from its place. */
function joiningWords(
  scene: PieceScene,
  joined: Joined,
  whole: number,
  together: readonly number[],
  turns: readonly Turn[],
): string[] {
  const { puzzle, state, frame } = scene
  const pair = [together[0], together[1]] as const
  const found = joiningOf(puzzle, joined, whole, pair, state, turns)
  if (!found) return []
  const { at, moves } = found
  const { inverse, index } = turns[at]
  const which = moves === pair[0] ? ['first', 'second'] : ['second', 'first']
  const [now, then] = [state, found.state].map((each) => placeIn(scene, frame, each, moves))
  const by = now === then ? '' : `, by then ${then},`
  const how = inverse === index ? ' across' : ''
  return [
    `${capital(nthTurn(turnsOf(scene), at))} joins them: it brings the ${which[0]}${by}${how} to the ${which[1]}.`,
  ]
}

/** 'the white-red edges', or each by its own name. */
const asPair = (one: string, other: string): string =>
  one === other ? one.replace(/\b(edge|centre)\b/, '$1s') : `${one} and its partner`

function comingLines(scene: PieceScene, grown: readonly Grown[]): RouteLine[] {
  const { puzzle, state, frame, end, endFrame } = scene
  return grown
    .flatMap(({ come }) => come)
    .flatMap((p) => {
      const home = homeFilled(puzzle, endFrame, p, end[p])
      // What stays was counted otherwise before.
      if (home === undefined || home === homeFilled(puzzle, frame, p, state[p])) return []
      const says = [pieceAt(puzzle, frame, state, p), goesTo(scene, p)]
      return [{ piece: puzzle.pieces[p].id, says }]
    })
}

/** 'three of the four bottom centres are white', 'the white-red edges together are the top left edge' */
function wholeWords(scene: PieceScene, joined: Joined, grown: Grown): string {
  const { puzzle, scheme, endFrame } = scene
  const { small } = joined
  const { whole, after, size, rotation, together } = grown
  const place = whereNow(small, endFrame, whole, rotation) ?? 'outside the finished shape'
  if (size === 2) {
    const [one, other] = together.map((p) => who(puzzle, scheme, p))
    return `${asPair(one, other)} together are ${place}`
  }
  if (isPlain(puzzle, small, whole)) {
    const colour = who(small, scheme, whole).replace(/^the | centre$/g, '')
    const side = place.replace(/^the | centre$/g, '')
    const count =
      after === size ? `all ${inWords(size)}` : `${inWords(after)} of the ${inWords(size)}`
    return `${count} ${side} centres ${after === 1 ? 'is' : 'are'} ${colour}`
  }
  const name = who(small, scheme, whole)
  // Another piece that is called the same may fit there better.
  const most = Math.max(
    after,
    ...small.pieces.flatMap((_, other) =>
      other !== whole && who(small, scheme, other) === name
        ? rotationsInto(small, other, small.slot[24 * whole + rotation]).map(
            (r) => partsFitting(puzzle, joined, scene.end, other, r).length,
          )
        : [],
    ),
  )
  return most === size
    ? `${name} is whole: it is ${place}`
    : `${inWords(most)} of the ${inWords(size)} parts of ${name} lie${most === 1 ? 's' : ''} as ${place}`
}

export function remedyWords(scene: PieceScene, aim: Remedy): PieceWords {
  const { puzzle, scheme, state, frame, end, endFrame } = scene
  const joined = joinedAs(puzzle, aim.size) as Joined
  if (leavesOpen(joined.small)) return openRemedyWords(scene, aim, joined)
  const [before, after] = [
    countsOf(scene, joined, state, frame),
    countsOf(scene, joined, end, endFrame),
  ]
  const isFlip = before.turned.length % 2 === 1
  const moved = aim.of.filter((whole) => before.rotations[whole] !== after.rotations[whole])
  const names = listed(moved.map((whole) => who(joined.small, scheme, whole)))
  const common = {
    hold: holdOfScene(scene),
    algorithm: aim.sequence,
    pieces: ids(
      puzzle,
      moved.flatMap((whole) => [...joined.partsOf[whole]]),
    ),
  }
  if (isFlip) {
    const count = (n: number) =>
      `${n === 0 ? 'none' : inWords(n)} of the ${inWords(before.last.length)} edges of the last layer ${n > 1 ? 'are' : 'is'} turned over`
    return {
      ...common,
      lookFor: `how many edges of the last layer are turned over: ${inWords(before.turned.length)}, an odd number.`,
      check: `${count(after.turned.length)}, an even number.`,
      note: `Outer layers turn edges over two at a time, so inner ones must turn once more. ${capital(names)} ${moved.length > 1 ? 'are' : 'is'} turned over by it; ${keptWords(scene, joined, aim.of, before, after)}`,
      hints: {
        nudge: 'Count the edges of the last layer that are turned over.',
        pointer: `An odd number is turned over: outer layers alone cannot mend that.`,
      },
    }
  }
  return {
    ...common,
    lookFor: `whether corners and edges come home by as many exchanges: counted through, ${oddWords('corners', before.corners)}, ${oddWords('edges', before.edges)}.`,
    check: `counted through, ${oddWords('corners', after.corners)}, ${oddWords('edges', after.edges)}.`,
    note: `Outer layers exchange corners and edges alike, so inner ones must turn once more. ${capital(names)} change places by it; ${keptWords(scene, joined, aim.of, before, after)}`,
    hints: {
      nudge: 'Count how many exchanges bring the corners home, and how many the edges.',
      pointer: 'One number is odd and the other even: outer layers alone cannot mend that.',
    },
  }
}

/** Where equal pieces can be taken for each other, counts are nobody's own. */
function openRemedyWords(scene: PieceScene, aim: Remedy, { partsOf }: Joined): PieceWords {
  return {
    lookFor:
      'nothing that shows: counted through, no turns that keep all joined can finish this, whichever of equal pieces is taken for which.',
    hold: holdOfScene(scene),
    check:
      'as before; counted through again, it can be finished, if need be after one more such remedy.',
    hints: {
      nudge: 'Equal pieces hide what is wrong here.',
      pointer: 'Some slice must turn once more before this can be finished.',
    },
    algorithm: aim.sequence,
    pieces: ids(
      scene.puzzle,
      aim.of.flatMap((whole) => [...partsOf[whole]]),
    ),
  }
}

const oddWords = (noun: string, parity: number): string =>
  `the ${noun} by an ${parity === 1 ? 'odd' : 'even'} number`

interface Counts {
  readonly rotations: State
  /** Edges of the last layer, and those of them that are turned over. */
  readonly last: readonly number[]
  readonly turned: readonly number[]
  /** Whether an odd number of exchanges brings them home. */
  readonly corners: number
  readonly edges: number
}

function countsOf(
  { puzzle, base }: PieceScene,
  joined: Joined,
  state: State,
  frame: Rotation,
): Counts {
  const { small } = joined
  const read = joinedState(puzzle, joined, state)
  if (!read) throw new Error('what should be joined is not')
  const rotations = read.map((r) => multiply(INVERSE[frame], r))
  const kindOf = (p: number) => baseKind(small.pieces[p].kind)
  const far = sideOf('last', base)
  const last = small.pieces.flatMap(({ cells: [cell] }, p) =>
    kindOf(p) === 'edge' && along(cell, far.vector) > 0 ? [p] : [],
  )
  const parity = (kind: string) => {
    const own = small.pieces.flatMap((_, p) => (kindOf(p) === kind ? [p] : []))
    return parityOf(own.map((p) => own.indexOf(small.place[24 * p + rotations[p]])))
  }
  return {
    rotations,
    last,
    turned: last.filter((p) => !sameImage(rotations[p], 0, far)),
    corners: parity('corner'),
    edges: parity('edge'),
  }
}

const along = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]

/** What else shows itself otherwise than before. */
function keptWords(
  { scheme }: PieceScene,
  { small }: Joined,
  of: readonly number[],
  before: Counts,
  after: Counts,
): string {
  const others = small.pieces.flatMap((_, p) =>
    of.includes(p) ||
    small.look[24 * p + before.rotations[p]] === small.look[24 * p + after.rotations[p]]
      ? []
      : [p],
  )
  return others.length === 0
    ? 'nothing else moves.'
    : `${listed(others.map((p) => who(small, scheme, p)))} ${others.length > 1 ? 'turn' : 'turns'} in place too.`
}
