/** The places of a smaller box that two parts fill: what lies there, and what turns part or join. */
import type { Puzzle, Turn } from '../puzzle/compile'
import { ROTATION_COUNT, type Rotation } from '../rotation'
import { sequence } from '../notation/sequence'
import { turnFreely, type State } from '../state'
import { areTogetherIn, shownIn, togetherIn, type Joined } from './joined'
import { lookClassesOf } from './lookAlikes'

export interface PairPlace {
  /** Its slot in the smaller box. */
  readonly id: number
  /** A piece of the smaller box and a rotation that brings it there. */
  readonly whole: number
  readonly rotation: Rotation
  /** Of the real puzzle. */
  readonly slots: readonly [number, number]
}

/** Slots of the real puzzle that a place of the smaller one is made of. */
const slotsIn = (puzzle: Puzzle, { partsOf }: Joined, whole: number, r: Rotation): number[] =>
  partsOf[whole].map((p) => puzzle.slot[24 * p + r])

const known = new WeakMap<Joined, Map<string, readonly PairPlace[]>>()

/** Of some pieces of the smaller box, each of two parts, all places that turns bring them to. */
export function pairPlacesOf(
  puzzle: Puzzle,
  joined: Joined,
  wholes: readonly number[],
): readonly PairPlace[] {
  const own = known.get(joined) ?? new Map<string, readonly PairPlace[]>()
  known.set(joined, own)
  const key = wholes.join()
  const places = own.get(key) ?? listPlaces(puzzle, joined, wholes)
  own.set(key, places)
  return places
}

function listPlaces(puzzle: Puzzle, joined: Joined, wholes: readonly number[]): PairPlace[] {
  const found = new Map<number, PairPlace>()
  for (const whole of wholes)
    for (const rotation of joined.ways[whole]) {
      const slots = slotsIn(puzzle, joined, whole, rotation)
      const place = joined.small.slot[24 * whole + rotation]
      if (slots.length === 2 && !found.has(place))
        found.set(place, { id: place, whole, rotation, slots: [slots[0], slots[1]] })
    }
  return [...found.values()]
}

/** What lies in each slot. */
export function piecesBySlot(puzzle: Puzzle, state: State): Int16Array {
  const at = new Int16Array(puzzle.slotCount).fill(-1)
  state.forEach((r, p) => (at[puzzle.slot[24 * p + r]] = p))
  return at
}

/** What lies joined where: by slot in the smaller box a piece of it, or one of its equals, and its rotation. */
function joinedIn(puzzle: Puzzle, joined: Joined, wholes: readonly number[], state: State) {
  const shown = shownIn(puzzle, state)
  return new Map(
    wholes.flatMap((whole) =>
      togetherIn(puzzle, joined, shown, whole).map(
        (rotation) => [joined.small.slot[24 * whole + rotation], { whole, rotation }] as const,
      ),
    ),
  )
}

/** Whether a piece lies beside its partner, or beside one that looks like it, as one of some pieces of the smaller box. */
export function isJoined(
  puzzle: Puzzle,
  joined: Joined,
  wholes: readonly number[],
  piece: number,
  state: State,
): boolean {
  const slot = puzzle.slot[24 * piece + state[piece]]
  const place = pairPlacesOf(puzzle, joined, wholes).find(({ slots }) => slots.includes(slot))
  if (!place) return false
  const at = [...state].flatMap((r, p) =>
    place.slots.includes(puzzle.slot[24 * p + r]) ? [p] : [],
  )
  return wholes.some((whole) =>
    joined.ways[whole].some(
      (r) =>
        joined.small.slot[24 * whole + r] === place.id &&
        joined.partsOf[whole].every((part) =>
          at.some(
            (p) =>
              puzzle.slot[24 * p + state[p]] === puzzle.slot[24 * part + r] &&
              puzzle.look[24 * p + state[p]] === puzzle.look[24 * part + r],
          ),
        ),
    ),
  )
}

/** A place and the two that lie in it. */
export interface Filled extends PairPlace {
  readonly pieces: readonly [number, number]
}

/**
 * What turns do to the pairs of some pieces of the smaller box. Parts of equal ones may be taken for each other: of
 * pairs that look the same only those that there are more of, or fewer, count.
 */
export interface Exchange {
  /** Pairs that there were not before, in their places afterwards. */
  readonly makes: readonly Filled[]
  /** How many pairs there are no longer, and which, where that is no matter of reading. */
  readonly lost: number
  readonly parts: readonly Filled[]
  /** Places whose two were no pair and lie in one place no longer, but for those that something joined comes from. */
  readonly takesApart: readonly Filled[]
}

export const exchangeOf = (
  puzzle: Puzzle,
  joined: Joined,
  wholes: readonly number[],
  from: State,
  end: State,
): Exchange => exchangesFrom(puzzle, joined, wholes, from)(end)

/** The same for many ends. */
export function exchangesFrom(
  puzzle: Puzzle,
  joined: Joined,
  wholes: readonly number[],
  from: State,
): (end: State) => Exchange {
  const before = filledIn(puzzle, joined, wholes, from)
  return (end) =>
    between(puzzle, joined, wholes, before, filledIn(puzzle, joined, wholes, end), end)
}

type FilledPlaces = ReturnType<typeof filledIn>

function between(
  puzzle: Puzzle,
  joined: Joined,
  wholes: readonly number[],
  before: FilledPlaces,
  after: FilledPlaces,
  end: State,
): Exchange {
  const places = pairPlacesOf(puzzle, joined, wholes)
  const { classOf } = lookClassesOf(puzzle)
  const sorted = (pieces: readonly number[], by: (p: number) => number) =>
    pieces
      .map(by)
      .sort((x, y) => x - y)
      .join()
  // Equal ones of another orbit cannot be taken for these.
  const orbitOf = (whole: number) =>
    Math.min(...joined.ways[whole].map((r) => joined.small.slot[24 * whole + r]))
  const lookOf = ({ whole, pieces }: Filled) =>
    `${orbitOf(whole)}: ${sorted(pieces, (p) => classOf[p])}`
  const themselves = ({ pieces }: Filled) => sorted(pieces, (p) => p)
  const pairs = (all: FilledPlaces) => all.filter(({ isPair }) => isPair)
  const [were, are] = [pairs(before), pairs(after)]
  const without = (all: readonly Filled[], others: readonly Filled[]) => {
    const known = new Set(others.map(themselves))
    return all.filter((pair) => !known.has(themselves(pair)))
  }
  const [come, gone] = [without(are, were), without(were, are)]
  const paired = new Set(were.flatMap(({ pieces }) => [...pieces]))
  const newTo = ({ pieces }: Filled) => pieces.filter((p) => !paired.has(p)).length
  const looks = [...new Set([...come, ...gone].map(lookOf))]
  const changes = looks.map((look) => {
    const own = (all: readonly Filled[]) => all.filter((pair) => lookOf(pair) === look)
    const gain = own(come).length - own(gone).length
    return { gain, come: own(come).sort((x, y) => newTo(y) - newTo(x)), gone: own(gone) }
  })
  const placeAt = new Map(places.flatMap(({ id, slots }) => slots.map((slot) => [slot, id])))
  const placeNow = (p: number) => placeAt.get(puzzle.slot[24 * p + end[p]])
  const used = new Set(come.flatMap(({ pieces }) => [...pieces]))
  return {
    makes: changes.flatMap((each) => each.come.slice(0, Math.max(0, each.gain))),
    lost: changes.reduce((sum, { gain }) => sum + Math.max(0, -gain), 0),
    parts: changes.flatMap((each) => (each.gain === -each.gone.length ? each.gone : [])),
    takesApart: before.filter(
      ({ isPair, pieces: [one, other] }) =>
        !isPair && placeNow(one) !== placeNow(other) && !used.has(one) && !used.has(other),
    ),
  }
}

/** What lies in each place of a pair, and whether it is one. */
function filledIn(puzzle: Puzzle, joined: Joined, wholes: readonly number[], state: State) {
  const at = piecesBySlot(puzzle, state)
  const full = joinedIn(puzzle, joined, wholes, state)
  return pairPlacesOf(puzzle, joined, wholes).map((place) => ({
    ...place,
    ...full.get(place.id),
    pieces: [at[place.slots[0]], at[place.slots[1]]] as const,
    isPair: full.has(place.id),
  }))
}

/** Two places that a half turn of a slice takes half of to each other. */
export interface Strip {
  readonly places: readonly [PairPlace, PairPlace]
  /** Whether the two halves look the same, so that their exchange shows nothing. */
  readonly isEqual: boolean
}

/** What a half turn exchanges of some places, each two once. */
export function stripsOf(
  puzzle: Puzzle,
  places: readonly PairPlace[],
  state: State,
  turn: Turn,
): Strip[] {
  const { slot, look } = puzzle
  const { table } = sequence(puzzle, turn.name)
  const at = piecesBySlot(puzzle, state)
  const found: Strip[] = []
  for (const a of places)
    for (const from of a.slots) {
      const p = at[from]
      const [was, is] = [24 * p + state[p], 24 * p + table[24 * p + state[p]]]
      const to = slot[is]
      if (to <= from) continue
      const b = places.find(({ slots }) => slots.includes(to))
      if (!b || a === b) continue
      const q = at[to]
      const [wasThere, isHere] = [24 * q + state[q], 24 * q + table[24 * q + state[q]]]
      const isEqual = look[is] === look[wasThere] && look[isHere] === look[was]
      found.push({ places: [a, b], isEqual })
    }
  return found
}

/** The last two pairs joined by a half turn of a slice and the same again. */
export interface ByStrips {
  /** The half turn that joins, by its number among the turns, and the one that takes the slice back. */
  readonly joins: number
  readonly back: number
  /** What the first exchanges beside the two pairs, all equal, and what the second exchanges, all equal. */
  readonly first: readonly Strip[]
  readonly second: readonly Strip[]
  /** Before each. */
  readonly states: readonly [State, State]
}

/**
 * Whether turns join the last two by equal strips: a half turn exchanges halves of these two and else, of their kind,
 * only what looks the same; when it is made again all that it exchanges of the kind looks the same.
 */
export function byStrips(
  puzzle: Puzzle,
  places: readonly PairPlace[],
  from: State,
  turns: readonly Turn[],
): ByStrips | undefined {
  const back = turns.length - 1
  const joins = turns.findIndex((turn) => turn === turns[back])
  if (joins === back || turns[back].inverse !== turns[back].index) return undefined
  const states: State[] = [from]
  for (const turn of turns)
    states.push(turnFreely(puzzle, states[states.length - 1], turn, new Uint8Array(from.length)))
  const first = stripsOf(puzzle, places, states[joins], turns[joins])
  const second = stripsOf(puzzle, places, states[back], turns[back])
  const equal = first.filter(({ isEqual }) => isEqual)
  return equal.length > 0 &&
    equal.length === first.length - 1 &&
    second.every(({ isEqual }) => isEqual)
    ? { joins, back, first: equal, second, states: [states[joins], states[back]] }
    : undefined
}

/** Of some pieces of the smaller box those that can lie where some of them lie. */
export function sharingPlaces(
  { small, ways }: Joined,
  wholes: readonly number[],
  some: readonly number[],
): number[] {
  const reached = (whole: number) => ways[whole].map((r) => small.place[24 * whole + r])
  const wanted = new Set(some.flatMap(reached))
  return wholes.filter((whole) => reached(whole).some((place) => wanted.has(place)))
}

/** The turn that joins two pieces, by its number; what comes after it leaves them joined. */
export interface Joining {
  readonly at: number
  /** Before that turn. */
  readonly state: State
  /** The one that it moves, and the one beside which it brings it. */
  readonly moves: number
  readonly waits: number
}

/**
 * When two parts come together for good, as one of some pieces of the smaller box; undefined where they are together
 * all the time, or where not just one of them is moved then.
 */
export function joiningOf(
  puzzle: Puzzle,
  joined: Joined,
  whole: number,
  pair: readonly [number, number],
  from: State,
  turns: readonly Turn[],
): Joining | undefined {
  const parts = joined.partsOf[whole]
  const isTogether = (state: State) => {
    const own = pair.map((p) => puzzle.slot[24 * p + state[p]])
    const shown = shownIn(puzzle, state)
    // A slice that stands open holds them in a place of the smaller box all the same.
    return Array.from({ length: ROTATION_COUNT }, (_, r) => r).some(
      (r) =>
        parts.every((p) => own.includes(puzzle.slot[24 * p + r])) &&
        areTogetherIn(puzzle, shown, parts, r),
    )
  }
  const states: State[] = [from]
  for (const turn of turns)
    states.push(turnFreely(puzzle, states[states.length - 1], turn, new Uint8Array(from.length)))
  const last = states.findLastIndex((state) => !isTogether(state))
  if (last < 0 || last === turns.length) return undefined
  const moved = pair.filter(
    (p) => puzzle.slot[24 * p + states[last][p]] !== puzzle.slot[24 * p + states[last + 1][p]],
  )
  if (moved.length !== 1) return undefined
  const waits = moved[0] === pair[0] ? pair[1] : pair[0]
  return { at: last, state: states[last], moves: moved[0], waits }
}
