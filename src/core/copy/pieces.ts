/**
 * Copying a real puzzle piece by piece, in whatever hold: for one place after the other, what is seen
 * there is chosen among the looks that are still possible. A look is a set of coloured outlines, so
 * look-alikes are offered once. The hold is not asked for; it follows from what was chosen.
 *
 * Under a hold h a piece p can have the rotations h q with q in its reach. An entry is possible under h
 * if every chosen look is shown by some piece, no class of look-alikes is used more often than it has
 * members, and no orbit has too few slots left for its pieces.
 */
import { fillerOf } from '../analysis/anatomy'
import { lookClassesOf, type LookClasses } from '../analysis/lookAlikes'
import { isNothing, spanOf, twistsAdd, type Coordinate } from '../analysis/invariants'
import { canBlock, familiesOf, reachOf } from '../analysis/placements'
import type { Puzzle } from '../puzzle/compile'
import { INVERSE, multiply, type Rotation } from '../rotation'
import { rotateState, type State } from '../state'
import { diagnose, type Diagnosis } from '../stuck/diagnose'
import { accountOf } from '../universal/account'
import { workOf } from '../universal/orbitsAtWork'
import { baseKind, listed } from '../phrases'

/** Nothing lies in the slot: on puzzles that change shape. */
export const EMPTY = 'empty'

/** A chosen look, or that nothing is there. */
export type Seen = number | typeof EMPTY

/** What was seen in each slot, in the order in which it was entered. */
export type Entry = readonly { readonly slot: number; readonly seen: Seen }[]

export interface Candidate {
  readonly seen: Seen
  /** A piece and a rotation that look like it; not for an empty slot. */
  readonly piece: number
  readonly rotation: Rotation
  /** How many pieces that look like it are still to place. */
  readonly count: number
}

/** Everything about a puzzle that an entry needs, computed once. */
interface Sheet extends LookClasses {
  /** For each family under each hold (by position in `puzzle.holds`) its slots. */
  readonly slots: readonly (readonly ReadonlySet<number>[])[]
  /** For each hold and slot the placements that fill it. */
  readonly fillers: readonly ReadonlyMap<number, readonly { piece: number; rotation: Rotation }[]>[]
  readonly order: readonly number[]
}

const sheets = new WeakMap<Puzzle, Sheet>()

function sheetOf(puzzle: Puzzle): Sheet {
  const known = sheets.get(puzzle)
  if (known) return known
  const { pieces, slot, holds } = puzzle
  const reach = reachOf(puzzle)
  const families = familiesOf(puzzle)
  const fillers = holds.map((hold) => {
    const bySlot = new Map<number, { piece: number; rotation: Rotation }[]>()
    pieces.forEach((_, piece) => {
      for (const q of reach[piece]) {
        const rotation = multiply(hold, q)
        const at = slot[24 * piece + rotation]
        bySlot.set(at, [...(bySlot.get(at) ?? []), { piece, rotation }])
      }
    })
    return bySlot
  })
  const sheet: Sheet = {
    ...lookClassesOf(puzzle),
    slots: families.map((family) =>
      fillers.map((bySlot) => {
        const own = [...bySlot].filter(([, list]) =>
          list.some(({ piece }) => family.pieces.includes(piece)),
        )
        return new Set(own.map(([at]) => at))
      }),
    ),
    fillers,
    order: slotOrder(puzzle, fillers),
  }
  sheets.set(puzzle, sheet)
  return sheet
}

/**
 * Slots that tell the hold come first: those that a piece which never leaves its place can fill; then
 * those that fewer looks can fill; then kind by kind.
 */
function slotOrder(puzzle: Puzzle, fillers: Sheet['fillers']): number[] {
  const reach = reachOf(puzzle)
  const room = puzzle.pieces.map(
    (_, p) => new Set(reach[p].map((r) => puzzle.slot[24 * p + r])).size,
  )
  const known = new Map<number, { looks: Set<number>; owner: number; room: number }>()
  for (const bySlot of fillers)
    for (const [at, list] of bySlot)
      for (const { piece, rotation } of list) {
        const own = known.get(at) ?? { looks: new Set<number>(), owner: piece, room: room[piece] }
        own.looks.add(puzzle.look[24 * piece + rotation])
        own.owner = Math.min(own.owner, piece)
        own.room = Math.min(own.room, room[piece])
        known.set(at, own)
      }
  return [...known]
    .sort(
      ([a, one], [b, other]) =>
        one.room - other.room ||
        one.looks.size - other.looks.size ||
        puzzle.pieces[one.owner].kind.localeCompare(puzzle.pieces[other.owner].kind) ||
        a - b,
    )
    .map(([at]) => at)
}

/** All slots in which something can lie, in the order in which they are asked. */
export const slotsAsked = (puzzle: Puzzle): readonly number[] => sheetOf(puzzle).order

/** How many pieces of each class an entry uses under one hold; undefined if it is not possible there. */
function usedUnder(
  puzzle: Puzzle,
  h: number,
  entry: Entry,
): ReadonlyMap<number, number> | undefined {
  const sheet = sheetOf(puzzle)
  const used = new Map<number, number>()
  const empty = new Set<number>()
  for (const { slot, seen } of entry) {
    if (seen === EMPTY) {
      empty.add(slot)
      continue
    }
    const found = (sheet.fillers[h].get(slot) ?? []).find(
      ({ piece, rotation }) => puzzle.look[24 * piece + rotation] === seen,
    )
    if (!found) return undefined
    const own = sheet.classOf[found.piece]
    const count = (used.get(own) ?? 0) + 1
    if (count > sheet.classSize[own]) return undefined
    used.set(own, count)
  }
  // Slots of a family are its own, so those that are not empty must be enough for its pieces.
  const isShort = familiesOf(puzzle).some(({ pieces }, f) => {
    const slots = [...sheet.slots[f][h]]
    return slots.filter((slot) => !empty.has(slot)).length < pieces.length
  })
  return isShort ? undefined : used
}

/** Positions in `puzzle.holds` under which an entry is possible. */
const holdsFor = (puzzle: Puzzle, entry: Entry): number[] =>
  puzzle.holds.flatMap((_, h) => (usedUnder(puzzle, h, entry) ? [h] : []))

/** What can still lie in a slot, look-alikes once; several holds may add up. */
export function candidatesAt(puzzle: Puzzle, entry: Entry, slot: number): Candidate[] {
  const sheet = sheetOf(puzzle)
  const others = entry.filter((each) => each.slot !== slot)
  const found = new Map<Seen, Candidate>()
  puzzle.holds.forEach((_, h) => {
    const used = usedUnder(puzzle, h, others)
    if (!used) return
    const list = sheet.fillers[h].get(slot) ?? []
    for (const { piece, rotation } of list) {
      const own = sheet.classOf[piece]
      const count = sheet.classSize[own] - (used.get(own) ?? 0)
      const seen = puzzle.look[24 * piece + rotation]
      const known = found.get(seen)
      if (count > 0 && (known?.count ?? 0) < count)
        found.set(seen, { seen, piece, rotation, count })
    }
    const withEmpty = [...others, { slot, seen: EMPTY } as const]
    if (!found.has(EMPTY) && usedUnder(puzzle, h, withEmpty))
      found.set(EMPTY, { seen: EMPTY, piece: -1, rotation: 0, count: 1 })
  })
  return [...found.values()].sort((a, b) => a.piece - b.piece || a.rotation - b.rotation)
}

/** Fills in whatever has only one answer left. */
export function withForced(puzzle: Puzzle, entry: Entry): Entry {
  let now = entry
  for (;;) {
    const done = new Set(now.map(({ slot }) => slot))
    const forced = slotsAsked(puzzle).flatMap((slot) => {
      if (done.has(slot)) return []
      const options = candidatesAt(puzzle, now, slot)
      return options.length === 1 ? [{ slot, seen: options[0].seen }] : []
    })
    if (forced.length === 0) return now
    // One at a time: two forced slots may ask for the same piece.
    now = [...now, forced[0]]
  }
}

/** The next slot to ask for, or undefined when all are entered. */
export const nextSlot = (puzzle: Puzzle, entry: Entry): number | undefined =>
  slotsAsked(puzzle).find((slot) => !entry.some((each) => each.slot === slot))

/** Pieces where an entry puts them, look-alikes in any order. */
export interface Placed {
  /** The identity for pieces that are not placed yet. */
  readonly state: State
  readonly placed: ReadonlySet<number>
  /** The hold that it was read in. */
  readonly hold: Rotation
}

/** An entry as a state, under the first hold that allows it. */
export function placedBy(puzzle: Puzzle, entry: Entry): Placed | undefined {
  const [h] = holdsFor(puzzle, entry)
  return h === undefined ? undefined : placedUnder(puzzle, h, entry)
}

function placedUnder(puzzle: Puzzle, h: number, entry: Entry): Placed {
  const { fillers } = sheetOf(puzzle)
  const state = new Uint8Array(puzzle.pieces.length)
  const placed = new Set<number>()
  for (const { slot, seen } of entry) {
    const found = (fillers[h].get(slot) ?? []).find(
      ({ piece, rotation }) => !placed.has(piece) && puzzle.look[24 * piece + rotation] === seen,
    )
    if (!found) continue
    state[found.piece] = found.rotation
    placed.add(found.piece)
  }
  return { state, placed, hold: puzzle.holds[h] }
}

export type EntryVerdict =
  | { readonly kind: 'incomplete'; readonly left: number }
  /** No hold allows all that was entered. */
  | { readonly kind: 'contradiction' }
  | { readonly kind: 'whole'; readonly diagnosis: Diagnosis; readonly state: State }

/** Whether an entry is whole: the quick part of judging it. */
export function isWhole(puzzle: Puzzle, entry: Entry): boolean {
  return entry.length === slotsAsked(puzzle).length && holdsFor(puzzle, entry).length > 0
}

/** Judges an entry: whether it is whole, and what it is; the kindest verdict of all holds. */
export function judgeEntry(puzzle: Puzzle, entry: Entry): EntryVerdict {
  const holds = holdsFor(puzzle, entry)
  if (holds.length === 0) return { kind: 'contradiction' }
  const left = slotsAsked(puzzle).length - entry.length
  if (left > 0) return { kind: 'incomplete', left }
  const verdicts = holds.map((h) => {
    const { state } = placedUnder(puzzle, h, entry)
    const diagnosis = diagnose(puzzle, state)
    return { kind: 'whole' as const, diagnosis, state: diagnosis.state ?? state }
  })
  return (
    verdicts.find(({ diagnosis }) => diagnosis.state) ??
    verdicts.find(({ diagnosis }) => diagnosis.verdict === 'not known') ??
    verdicts[0]
  )
}

/**
 * Why no turns lead to what is entered so far, whatever lies at the other places, as a sentence; undefined as
 * long as they may. Judged by sums: those of orbits with open places can still become anything.
 */
export function cannotBe(puzzle: Puzzle, entry: Entry): string | undefined {
  if (canBlock(puzzle) || !twistsAdd(workOf(puzzle).sums.orbits)) return undefined
  const holds = holdsFor(puzzle, entry)
  const guilty = holds.map((h) => orbitsThatCannotBe(puzzle, placedUnder(puzzle, h, entry)))
  const [first] = guilty
  if (!first || guilty.some((each) => each === undefined)) return undefined
  const { orbits } = workOf(puzzle).sums
  const kinds = first.flatMap((o) =>
    orbits[o].places.map((p) => `${baseKind(puzzle.pieces[p].kind)}s`),
  )
  return `As entered, the ${listed([...new Set(kinds)])} cannot be: no turns lead there, whatever lies at the other places. Look at them once more, the last one first. If they do lie so, go on: at the end it is told what was put together wrongly.`
}

/** The orbits, by position, whose sums turns cannot make; undefined if they can. */
function orbitsThatCannotBe(puzzle: Puzzle, { state, placed, hold }: Placed): number[] | undefined {
  const { orbits } = workOf(puzzle).sums
  const { coordinates, turns, changes, vectorOf } = accountOf(puzzle)
  const moduli = coordinates.map(({ modulus }) => modulus)
  const open = orbits.map(({ places }) => places.filter((p) => !placed.has(p)).length)
  const filled = filledUp(puzzle, state, placed, hold)
  if (!filled) return undefined
  const vector = vectorOf(rotateState(filled, INVERSE[hold]))
  const canBeWith = (isFree: (orbit: number, what: Coordinate['what']) => boolean) => {
    const free = coordinates.flatMap(({ orbit, what }, c) =>
      isFree(orbit, what) ? [coordinates.map((_, other) => Number(other === c))] : [],
    )
    const known = [...turns, ...changes.map(({ by }) => by), ...free]
    return isNothing(spanOf(known, moduli), vector)
  }
  // One open place takes the piece that is left, but in any twist.
  const isOpen = (orbit: number, what: Coordinate['what']) =>
    open[orbit] > (what === 'parity' ? 1 : 0)
  if (canBeWith(isOpen)) return undefined
  const alone = orbits.findIndex(
    (_, o) => !canBeWith((orbit, what) => orbit !== o || isOpen(orbit, what)),
  )
  if (alone >= 0) return [alone]
  const judged = coordinates.filter(({ orbit, what }) => !isOpen(orbit, what))
  return [...new Set(judged.map(({ orbit }) => orbit))]
}

/** Pieces that are not entered yet put into the places that are left, in some way; undefined if none is found. */
function filledUp(
  puzzle: Puzzle,
  given: State,
  placed: ReadonlySet<number>,
  hold: Rotation,
): State | undefined {
  const state = new Uint8Array(given)
  const taken = new Set([...placed].map((p) => puzzle.slot[24 * p + state[p]]))
  for (const p of puzzle.pieces.keys()) {
    if (placed.has(p)) continue
    const ways = reachOf(puzzle)[p].map((r) => multiply(hold, r))
    const free = ways.find((r) => !taken.has(puzzle.slot[24 * p + r]))
    if (free === undefined) return undefined
    state[p] = free
    taken.add(puzzle.slot[24 * p + free])
  }
  return state
}

/** The entry that someone who copies a state would make. */
export function entryOf(puzzle: Puzzle, state: State): Entry {
  return slotsAsked(puzzle).map((slot) => {
    const piece = state.findIndex((r, p) => puzzle.slot[24 * p + r] === slot)
    return { slot, seen: piece < 0 ? EMPTY : puzzle.look[24 * piece + state[piece]] }
  })
}

/** The same entry after the whole puzzle has been turned over. */
export function turnedOver(puzzle: Puzzle, entry: Entry, by: Rotation): Entry {
  const placed = placedBy(puzzle, entry)
  if (!placed) return entry
  return entry.map(({ slot, seen }) => {
    const filler =
      seen === EMPTY
        ? fillerOf(puzzle, slot)
        : [...placed.placed]
            .map((piece) => ({ piece, rotation: placed.state[piece] }))
            .find(({ piece, rotation }) => puzzle.slot[24 * piece + rotation] === slot)
    if (!filler) return { slot, seen }
    const at = 24 * filler.piece + multiply(by, filler.rotation)
    return { slot: puzzle.slot[at], seen: seen === EMPTY ? seen : puzzle.look[at] }
  })
}
