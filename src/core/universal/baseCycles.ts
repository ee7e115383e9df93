/**
 * Base cycles: for each orbit short sequences that take three pieces round and leave all else alone, or
 * where there are none all but orbits that have cycles of their own and are done later.
 * They are found among commutators [A, B] = A B A' B' and their squares and cubes, A and B a turn, two
 * turns, or a turn with one before it undone after; nothing is typed in.
 */
import type { Puzzle, Turn } from '../puzzle/compile'
import { layersOf } from '../analysis/layers'
import { multiply, PRODUCT } from '../rotation'
import { inverseOf } from '../state'
import { definitionKey } from '../analysis/definitionKey'
import { learnedTables } from '../analysis/learnedTables'
import { readTurns } from '../notation/read'
import { writeTurns } from '../notation/write'
import { must } from '../result'
import derived from './derived/cycles.json'
import { effectOf, effectOfTurn, followedBy, inverseEffect, type Effect } from './effects'
import { canBlock } from '../analysis/placements'
import { hasEvenPermutations } from './evenPermutations'
import { frameOf } from '../analysis/frame'
import { movesOf } from './moves'
import { workOf, type OrbitAtWork } from './orbitsAtWork'

export interface BaseCycle {
  readonly turns: readonly Turn[]
  /** What is in each place goes to the next, what is in the last to the first. */
  readonly places: readonly [number, number, number]
  /** The rotation that each gets on the way. */
  readonly rotations: readonly [number, number, number]
}

interface Word {
  readonly turns: readonly Turn[]
  readonly effect: Effect
  readonly inverse: Effect
}

/** Cycles of different places that are kept for each orbit. */
const KEPT = 3

/** Places that a commutator may move, for its low powers and for high ones. */
const MOST_MOVED = [12, 40]

/** Places looked at before an orbit is given up, a few seconds; and at a first look. */
const BUDGET = 120_000_000
const QUICK = 4_000_000

const found = new WeakMap<Puzzle, ReadonlyMap<number, readonly BaseCycle[]>>()

/** By position of the orbit among those at work; orbits without three-cycles are missing. */
export function baseCyclesOf(puzzle: Puzzle): ReadonlyMap<number, readonly BaseCycle[]> {
  const known = knownCyclesOf(puzzle)
  if (known) return known
  const cycles = searchCycles(puzzle)
  found.set(puzzle, cycles)
  return cycles
}

/** The same without a search: undefined if they are not known yet. */
export function knownCyclesOf(
  puzzle: Puzzle,
): ReadonlyMap<number, readonly BaseCycle[]> | undefined {
  const known = found.get(puzzle) ?? shippedCycles(puzzle)
  if (known) found.set(puzzle, known)
  return known
}

/**
 * The search itself, whatever is shipped. Orbits that it finds nothing for are looked at again with those
 * left free that have cycles already, unless they are so small that their placements can be listed.
 */
export function searchCycles(puzzle: Puzzle): ReadonlyMap<number, readonly BaseCycle[]> {
  const cycles = new Map<number, readonly BaseCycle[]>()
  const { orbits } = workOf(puzzle)
  const all = [...orbits.keys()]
  for (const way of WAYS) {
    if (way.loops > 0 && !canBlock(puzzle)) continue
    const least = way.budget === QUICK ? 3 : LISTABLE + 1
    for (;;) {
      const free = new Set(way.isFree ? cycles.keys() : [])
      const canCycle = (o: number) => {
        const still = all.filter((other) => other !== o && !free.has(other))
        return way.budget === QUICK || hasEvenPermutations(puzzle, o, still)
      }
      const isOpen = ({ orbit }: OrbitAtWork, o: number) =>
        !cycles.has(o) && orbit.places.length >= least && canCycle(o)
      const wanted = all.filter((o) => isOpen(orbits[o], o))
      if (wanted.length === 0) break
      const search = new Search(puzzle, free, wanted, way)
      search.run(way.loops)
      search.cycles.forEach((list, orbit) => cycles.set(orbit, list))
      if (search.cycles.size === 0 || !way.isFree) break
    }
  }
  shorten(puzzle, cycles)
  return new Map([...cycles].sort(([a], [b]) => a - b))
}

/** A cycle of so many turns is no help to a person: a shorter one may disturb orbits that come later. */
const LONG = 60

/** Looks again for orbits with long cycles only, with those left free whose own cycles leave all others alone. */
function shorten(puzzle: Puzzle, cycles: Map<number, readonly BaseCycle[]>): void {
  const isPure = ([o, list]: [number, readonly BaseCycle[]]) =>
    disturbedBy(puzzle, list, o).length === 0
  for (const [orbit, list] of [...cycles]) {
    if (shortest(list) <= LONG) continue
    const free = new Set([...cycles].filter(isPure).flatMap(([o]) => (o === orbit ? [] : [o])))
    const way = { loops: Infinity, power: POWER, budget: BUDGET }
    const search = new Search(puzzle, free, [orbit], way)
    search.run(way.loops)
    const found = search.cycles.get(orbit) ?? []
    if (found.length > 0 && shortest(found) < shortest(list)) cycles.set(orbit, found)
  }
}

const shortest = (list: readonly BaseCycle[]): number =>
  Math.min(...list.map(({ turns }) => turns.length))

/** Commutators are repeated so often; more often only where nothing else is found. */
const POWER = 3
const HIGH_POWER = 9

/** Loops of so many turns are tried before longer ones: what they make is short too. */
const SHORT_LOOP = 6

/**
 * One after the other, for what is still missing; `isFree`: what has cycles may be disturbed. Before the
 * longer ones it is asked of the group whether there is anything to be found.
 */
const WAYS = [
  { loops: 0, isFree: false, power: POWER, budget: QUICK },
  { loops: 0, isFree: false, power: POWER, budget: BUDGET },
  { loops: 0, isFree: true, power: POWER, budget: BUDGET },
  { loops: SHORT_LOOP, isFree: false, power: POWER, budget: QUICK },
  { loops: SHORT_LOOP, isFree: false, power: POWER, budget: BUDGET },
  { loops: SHORT_LOOP, isFree: true, power: POWER, budget: BUDGET },
  { loops: Infinity, isFree: false, power: POWER, budget: QUICK },
  { loops: Infinity, isFree: false, power: POWER, budget: BUDGET },
  { loops: Infinity, isFree: true, power: POWER, budget: BUDGET },
  { loops: 0, isFree: true, power: HIGH_POWER, budget: BUDGET },
]

/** Orbits of so few places are listed if a first look finds no cycles. */
const LISTABLE = 6

/** As they are shipped: for each orbit the names of the turns. */
export const writeCycles = (cycles: ReadonlyMap<number, readonly BaseCycle[]>) =>
  Object.fromEntries(
    [...cycles].map(([orbit, list]) => [orbit, list.map(({ turns }) => writeTurns(turns))]),
  )

/** Shipped turns are taken at their word for nothing: what they do is computed here. */
function shippedCycles(puzzle: Puzzle): Map<number, BaseCycle[]> | undefined {
  const written =
    (derived as Record<string, Record<string, string[]>>)[definitionKey(puzzle.definition)] ??
    learnedTables(puzzle.definition).cycles
  if (!written) return undefined
  return new Map(
    Object.entries(written).map(([orbit, list]) => {
      const others = Object.keys(written).filter((other) => other !== orbit)
      const search = new Search(puzzle, new Set(others.map(Number)), [])
      return [Number(orbit), list.map((text) => search.read(text))]
    }),
  )
}

/**
 * A sequence as a three-cycle of one orbit: what it does to the orbits in `free` does not matter, all else is
 * left alone. Undefined if it is none.
 */
export function cycleOf(
  puzzle: Puzzle,
  turns: readonly Turn[],
  free: readonly number[],
): BaseCycle | undefined {
  const cycle = new Search(puzzle, new Set(free), [], WAYS[0], true).cycleOf(turns)
  return cycle && { turns, ...cycle }
}

/** Cycles of so many different places are kept of an orbit. */
const SHORT_KEPT = 6

/** Three-cycles of an orbit that are commutators of two turns, what turns unseen left out of account. */
export function shortCycles(puzzle: Puzzle, orbit: number): BaseCycle[] {
  const { turns } = frameOf(puzzle)
  const { places } = workOf(puzzle).orbits[orbit].orbit
  const search = new Search(puzzle, new Set(), [], WAYS[0], true)
  const found = new Map<string, BaseCycle>()
  for (const a of turns)
    for (const b of turns) {
      if (found.size >= SHORT_KEPT) return [...found.values()]
      if (a.grip === b.grip) continue
      const made = [a, b, puzzle.turns[a.inverse], puzzle.turns[b.inverse]]
      const cycle = search.cycleOf(made)
      if (!cycle || !places.includes(cycle.places[0])) continue
      const key = [...cycle.places].sort((x, y) => x - y).join()
      if (!found.has(key)) found.set(key, { turns: made, ...cycle })
    }
  return [...found.values()]
}

/** The orbits, by position, that base cycles of one orbit move besides it. */
export function disturbedBy(puzzle: Puzzle, cycles: readonly BaseCycle[], own: number): number[] {
  const { orbits } = workOf(puzzle)
  const effects = cycles.map(({ turns }) => effectOf(puzzle, turns))
  return orbits.flatMap(({ orbit }, o) =>
    o !== own && effects.some((effect) => orbit.places.some((place) => effect[place] !== 0))
      ? [o]
      : [],
  )
}

/** Places outside the orbits at work: of the frame, of pieces that may turn there, of any others. */
const FRAME = -2
const STAYS = -1
const FREE = -3

const isOneLayer = (one: Word, other: Word): boolean =>
  one.turns.length === 1 && other.turns.length === 1 && one.turns[0].grip === other.turns[0].grip

class Search {
  readonly cycles = new Map<number, BaseCycle[]>()
  private readonly orbitOf: Int16Array
  private readonly wanted: Set<number>
  /** Places that it matters to leave alone. */
  private readonly counted: Int32Array
  private tried = 0

  constructor(
    private readonly puzzle: Puzzle,
    free: ReadonlySet<number>,
    wanted: readonly number[],
    private readonly way: { readonly power: number; readonly budget: number } = WAYS[0],
    /** Whether what turns in its place unseen is left out of account. */
    private readonly passesUnseen = false,
  ) {
    const { orbits, ignored, riders } = workOf(puzzle)
    this.orbitOf = Int16Array.from(puzzle.pieces, () => FRAME)
    orbits.forEach(({ orbit }, o) => orbit.places.forEach((place) => (this.orbitOf[place] = o)))
    for (const place of ignored) this.orbitOf[place] = STAYS
    for (const place of riders) this.orbitOf[place] = FREE
    for (const o of free) for (const place of orbits[o].orbit.places) this.orbitOf[place] = FREE
    this.wanted = new Set(wanted)
    this.counted = Int32Array.from(
      [...this.orbitOf.keys()].filter((q) => this.orbitOf[q] !== STAYS && this.orbitOf[q] !== FREE),
    )
  }

  run(loops: number): void {
    const single = this.singles(loops)
    const conjugates = this.conjugates(single)
    const pairs = this.pairs(single)
    for (const [first, second] of [
      [conjugates, single],
      [pairs, single],
      [conjugates, conjugates],
      [pairs, conjugates],
      [pairs, pairs],
    ])
      if (!this.tryAll(first, second)) return
  }

  cycleOf(turns: readonly Turn[]): Omit<BaseCycle, 'turns'> | undefined {
    return this.threeCycle(effectOf(this.puzzle, turns))
  }

  /** A shipped three-cycle; throws if it is none. */
  read(text: string): BaseCycle {
    const turns = must(readTurns(this.puzzle, text))
    const cycle = this.cycleOf(turns)
    if (!cycle) throw new Error(`${text} is no three-cycle of ${this.puzzle.definition.id}`)
    return { turns, ...cycle }
  }

  /** Single turns, and loops of at most so many where turns can be blocked. */
  private singles(loops: number): Word[] {
    const { puzzle } = this
    const seen = new Set<string>()
    if (canBlock(puzzle))
      return movesOf(puzzle).filter(({ turns }) => turns.length === 1 || turns.length <= loops)
    const single = new Set(layersOf(puzzle))
    const shortNamesFirst = puzzle.turns
      .filter(({ grip }) => single.has(grip))
      .sort((a, b) => a.name.length - b.name.length)
    return shortNamesFirst.flatMap((turn): Word[] => {
      const effect = effectOfTurn(puzzle, turn)
      const key = effect.join()
      if (seen.has(key)) return []
      seen.add(key)
      return [{ turns: [turn], effect, inverse: inverseEffect(puzzle, effect) }]
    })
  }

  /** B A B' */
  private conjugates(single: readonly Word[]): Word[] {
    return single.flatMap((outer) =>
      single.flatMap((inner): Word[] => {
        if (isOneLayer(outer, inner)) return []
        const half = followedBy(this.puzzle, outer.effect, inner.effect)
        const effect = followedBy(this.puzzle, half, outer.inverse)
        const turns = [...outer.turns, ...inner.turns, ...inverseOf(this.puzzle, outer.turns)]
        return [{ turns, effect, inverse: inverseEffect(this.puzzle, effect) }]
      }),
    )
  }

  private pairs(single: readonly Word[]): Word[] {
    return single.flatMap((one) =>
      single.flatMap((other): Word[] => {
        if (isOneLayer(one, other)) return []
        const effect = followedBy(this.puzzle, one.effect, other.effect)
        const turns = [...one.turns, ...other.turns]
        return [{ turns, effect, inverse: inverseEffect(this.puzzle, effect) }]
      }),
    )
  }

  /** False if nothing is left to look for. */
  private tryAll(firsts: readonly Word[], seconds: readonly Word[]): boolean {
    const { puzzle } = this
    const [a, b, c] = [0, 1, 2].map(() => new Uint8Array(puzzle.pieces.length))
    for (const first of firsts)
      for (const second of seconds) {
        if (this.wanted.size === 0) return false
        if ((this.tried += puzzle.pieces.length) > this.way.budget) return false
        if (!this.movesFew(first, second)) continue
        followedBy(puzzle, first.effect, second.effect, a)
        followedBy(puzzle, a, first.inverse, b)
        followedBy(puzzle, b, second.inverse, c)
        this.look(c, first, second)
      }
    return this.wanted.size > 0
  }

  /** Whether a commutator moves something, and not too much. Most move a lot: seen after a few places. */
  private movesFew(first: Word, second: Word): boolean {
    const { place } = this.puzzle
    const product = PRODUCT
    const most = MOST_MOVED[this.way.power === POWER ? 0 : 1]
    let moved = 0
    for (const q of this.counted) {
      let r = first.effect[q]
      r = product[24 * second.effect[place[24 * q + r]] + r]
      r = product[24 * first.inverse[place[24 * q + r]] + r]
      r = product[24 * second.inverse[place[24 * q + r]] + r]
      if (r !== 0 && ++moved > most) return false
    }
    return moved > 0
  }

  /** Keeps the commutator, or its square or cube, if that is a three-cycle. */
  private look(effect: Effect, first: Word, second: Word): void {
    let power = effect
    for (let times = 1; times <= this.way.power; times++) {
      if (times > 1) power = followedBy(this.puzzle, power, effect)
      const cycle = this.threeCycle(power)
      if (!cycle) continue
      const orbit = this.orbitOf[cycle.places[0]]
      if (!this.wanted.has(orbit)) return
      const turns = Array.from({ length: times }, () => this.commutator(first, second)).flat()
      const own = this.cycles.get(orbit) ?? []
      const key = (places: readonly number[]) => [...places].sort((x, y) => x - y).join()
      if (own.some((other) => key(other.places) === key(cycle.places))) return
      this.cycles.set(orbit, [...own, { turns, ...cycle }])
      if (own.length + 1 >= KEPT) this.wanted.delete(orbit)
      return
    }
  }

  private threeCycle(effect: Effect): Omit<BaseCycle, 'turns'> | undefined {
    const { puzzle, orbitOf } = this
    let first = -1
    let count = 0
    for (let q = 0; q < effect.length; q++) {
      if (effect[q] === 0) continue
      // A turned frame, or a place that no turn of the frame moves.
      if (orbitOf[q] === FRAME) return undefined
      if (orbitOf[q] === FREE) continue
      if (orbitOf[q] === STAYS) {
        if (puzzle.place[24 * q + effect[q]] !== q) return undefined
        continue
      }
      if (
        this.passesUnseen &&
        puzzle.place[24 * q + effect[q]] === q &&
        puzzle.look[24 * q + effect[q]] === puzzle.look[24 * q]
      )
        continue
      if (++count > 3) return undefined
      if (first < 0) first = q
    }
    if (count !== 3) return undefined
    const second = puzzle.place[24 * first + effect[first]]
    const third = puzzle.place[24 * second + effect[second]]
    if (second === first || third === first || third === second) return undefined
    const rotations = [effect[first], effect[second], effect[third]] as const
    // Round once and it lies as it did: else a twist is left over.
    if (multiply(rotations[2], multiply(rotations[1], rotations[0])) !== 0) return undefined
    return { places: [first, second, third], rotations }
  }

  private commutator(first: Word, second: Word): Turn[] {
    const back = ({ turns }: Word) => inverseOf(this.puzzle, turns)
    return [...first.turns, ...second.turns, ...back(first), ...back(second)]
  }
}
