/**
 * The last two pairs, with nothing left that could be taken apart: a slice joins both where it exchanges equal strips
 * besides; other layers make all strips equal, and the slice goes back without anything being seen of it.
 */
import {
  byStrips,
  pairPlacesOf,
  sharingPlaces,
  stripsOf,
  type PairPlace,
} from '../../analysis/pairPlaces'
import { lookClassesOf } from '../../analysis/lookAlikes'
import { shownIn, wholesIn } from '../../analysis/joined'
import { handCost } from '../../notation/handCost'
import { sequence } from '../../notation/sequence'
import type { Turn } from '../../puzzle/compile'
import { IDENTITY } from '../../rotation'
import { turnFreely, type State } from '../../state'
import { isFresh } from './joinMacros'
import type { JoinSearch, JoinWay } from './joinSearch'

/** Turns before it. */
const MOST_BEFORE = 4

/** Turns while the slice stands open. */
const MOST_BETWEEN = 4

export interface LastTwo extends JoinSearch {
  /** Half turns of slices. */
  readonly slices: readonly Turn[]
  /** Turns that part nothing. */
  readonly single: readonly Turn[]
}

/** The fewest turns; of equal ways the easiest in the hand. Undefined where it is not the last two, or no way is short. */
export function wayByStrips(given: LastTwo, state: State): JoinWay | undefined {
  const { puzzle, joined, wholes, judge, hand, slices } = given
  const counts = judge.partsTogether(state)
  const apart = wholes.filter((_, i) => counts[i] < 2)
  if (apart.length !== 2) return undefined
  const kind = sharingPlaces(joined, wholes, apart)
  // Where all of the kind differ no strips are equal.
  const { classOf, classSize } = lookClassesOf(puzzle)
  const hasEquals = kind.some((whole) => classSize[classOf[joined.partsOf[whole][0]]] > 1)
  if (!hasEquals || !apart.every((whole) => kind.includes(whole))) return undefined
  const places = pairPlacesOf(puzzle, joined, kind)
  let best: JoinWay | undefined
  let [fewest, least] = [Infinity, Infinity]
  for (const { turns: before, state: turned } of arrangements(given, places, state)) {
    for (const slice of slices) {
      const room = Math.min(MOST_BETWEEN, fewest - before.length - 2)
      if (room < 1 || !joinsBoth(given, places, kind, turned, slice)) continue
      const open = turnFreely(puzzle, turned, slice, new Uint8Array(state.length))
      for (const made of rowsWhile(given, places, open, slice, room)) {
        const turns = [slice, ...made.turns, slice]
        const length = before.length + turns.length
        if (length > fewest) break
        const end = turnFreely(puzzle, made.state, slice, new Uint8Array(state.length))
        const all = [...before, ...turns]
        const cost = handCost(all, hand)
        if (length === fewest && cost >= least) continue
        if (judge.begin(end) < judge.partsInAll || !judge.keeps(end)) continue
        if (!byStrips(puzzle, places, state, all)) continue
        best = { prefix: before, turns, end, isByStrips: true }
        ;[fewest, least] = [length, cost]
      }
    }
  }
  return best
}

interface Row {
  readonly state: State
  readonly turns: readonly Turn[]
}

/** Each way in which turns that part nothing make some places look, by the fewest turns. */
function arrangements({ puzzle, single }: LastTwo, places: readonly PairPlace[], from: State) {
  const slots = places.flatMap((place) => [...place.slots])
  const look = (state: State) => {
    const shown = shownIn(puzzle, state)
    return String.fromCharCode(...slots.map((slot) => shown[slot]))
  }
  const seen = new Set([look(from)])
  const rows: Row[] = [{ state: from, turns: [] }]
  for (const { state, turns } of rows) {
    if (turns.length === MOST_BEFORE) continue
    for (const turn of single) {
      if (!isFresh(puzzle, turns.at(-1), turn)) continue
      const next = turnFreely(puzzle, state, turn, new Uint8Array(state.length))
      const seenThen = look(next)
      if (seen.has(seenThen)) continue
      seen.add(seenThen)
      rows.push({ state: next, turns: [...turns, turn] })
    }
  }
  return rows
}

/** Whether a slice exchanges halves of two places and else only equal strips, after which all of the kind are joined. */
function joinsBoth(
  { puzzle, joined }: LastTwo,
  places: readonly PairPlace[],
  kind: readonly number[],
  state: State,
  slice: Turn,
): boolean {
  const strips = stripsOf(puzzle, places, state, slice)
  if (strips.length < 2 || strips.filter(({ isEqual }) => !isEqual).length !== 1) return false
  const open = turnFreely(puzzle, state, slice, new Uint8Array(state.length))
  return wholesIn(puzzle, joined, open, kind).size === kind.length
}

/** Rows of turns that leave alone what the slice has taken along of the rest, the shortest first. */
function* rowsWhile(
  given: LastTwo,
  places: readonly PairPlace[],
  open: State,
  slice: Turn,
  most: number,
): Generator<Row> {
  const { puzzle } = given
  const turns = turnsBeside(given, places, slice)
  let rows: Row[] = [{ state: open, turns: [] }]
  for (let n = 0; n < most; n++) {
    const next: Row[] = []
    for (const row of rows)
      for (const turn of turns) {
        if (!isFresh(puzzle, row.turns.at(-1), turn)) continue
        const state = turnFreely(puzzle, row.state, turn, new Uint8Array(open.length))
        const made = { state, turns: [...row.turns, turn] }
        next.push(made)
        yield made
      }
    rows = next
  }
}

/** Turns that leave alone what a slice takes along beside some places. */
function turnsBeside(
  { puzzle, single }: LastTwo,
  places: readonly PairPlace[],
  slice: Turn,
): Turn[] {
  const own = new Set(places.flatMap(({ slots }) => [...slots]))
  const moved = (turn: Turn) => {
    const { table } = sequence(puzzle, turn.name)
    return puzzle.pieces.flatMap((_, p) =>
      table[24 * p] === IDENTITY ? [] : [puzzle.slot[24 * p]],
    )
  }
  const rest = new Set(moved(slice).filter((slot) => !own.has(slot)))
  return single.filter((turn) => !moved(turn).some((slot) => rest.has(slot)))
}
