/**
 * Base cycles: for each orbit short sequences that take three pieces round and leave all else alone.
 * They are found among commutators [A, B] = A B A' B' and their squares and cubes, A and B a turn, two
 * turns, or a turn with one before it undone after; nothing is typed in.
 */
import type { Puzzle, Turn } from '../puzzle/compile'
import { isWhole } from '../puzzle/mechanism'
import { multiply } from '../rotation'
import { definitionKey } from '../analysis/derivedOrders'
import { readTurns } from '../notation/read'
import { writeTurns } from '../notation/write'
import { must } from '../result'
import derived from './derived/cycles.json'
import { effectOf, effectOfTurn, followedBy, inverseEffect, type Effect } from './effects'
import { canBlock } from '../analysis/placements'
import { movesOf } from './moves'
import { workOf } from './orbitsAtWork'

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

/** Places looked at before an orbit is given up: a few seconds. */
const BUDGET = 120_000_000

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

/** The search itself, whatever is shipped. */
export function searchCycles(puzzle: Puzzle): ReadonlyMap<number, readonly BaseCycle[]> {
  const search = new Search(puzzle)
  search.run()
  return new Map([...search.cycles].sort(([a], [b]) => a - b))
}

/** As they are shipped: for each orbit the names of the turns. */
export const writeCycles = (cycles: ReadonlyMap<number, readonly BaseCycle[]>) =>
  Object.fromEntries(
    [...cycles].map(([orbit, list]) => [orbit, list.map(({ turns }) => writeTurns(turns))]),
  )

/** Shipped turns are taken at their word for nothing: what they do is computed here. */
function shippedCycles(puzzle: Puzzle): Map<number, BaseCycle[]> | undefined {
  const written = (derived as Record<string, Record<string, string[]>>)[
    definitionKey(puzzle.definition)
  ]
  if (!written) return undefined
  const search = new Search(puzzle)
  return new Map(
    Object.entries(written).map(([orbit, list]) => [
      Number(orbit),
      list.map((text) => search.read(text)),
    ]),
  )
}

class Search {
  readonly cycles = new Map<number, BaseCycle[]>()
  private readonly orbitOf: Int16Array
  private readonly wanted: Set<number>
  private tried = 0

  constructor(private readonly puzzle: Puzzle) {
    const { orbits, ignored } = workOf(puzzle)
    this.orbitOf = Int16Array.from(puzzle.pieces, () => -2)
    orbits.forEach(({ orbit }, o) => orbit.places.forEach((place) => (this.orbitOf[place] = o)))
    for (const place of ignored) this.orbitOf[place] = -1
    this.wanted = new Set(orbits.flatMap(({ orbit }, o) => (orbit.places.length >= 3 ? [o] : [])))
  }

  run(): void {
    const single = this.singles()
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

  /** A shipped three-cycle; throws if it is none. */
  read(text: string): BaseCycle {
    const turns = must(readTurns(this.puzzle, text))
    const cycle = this.threeCycle(effectOf(this.puzzle, turns))
    if (!cycle) throw new Error(`${text} is no three-cycle of ${this.puzzle.definition.id}`)
    return { turns, ...cycle }
  }

  private singles(): Word[] {
    const { puzzle } = this
    const seen = new Set<string>()
    if (canBlock(puzzle)) return movesOf(puzzle).filter(({ turns }) => turns.length === 1)
    const shortNamesFirst = [...puzzle.turns].sort((a, b) => a.name.length - b.name.length)
    return shortNamesFirst.flatMap((turn): Word[] => {
      const grip = puzzle.grips[turn.grip]
      if (isWhole(grip) || grip.name.includes('-')) return []
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
        if (outer.turns[0].grip === inner.turns[0].grip) return []
        const [turn] = outer.turns
        const back = this.puzzle.turns[turn.inverse]
        const half = followedBy(this.puzzle, outer.effect, inner.effect)
        const effect = followedBy(this.puzzle, half, outer.inverse)
        const turns = [turn, inner.turns[0], back]
        return [{ turns, effect, inverse: inverseEffect(this.puzzle, effect) }]
      }),
    )
  }

  private pairs(single: readonly Word[]): Word[] {
    return single.flatMap((one) =>
      single.flatMap((other): Word[] => {
        if (one.turns[0].grip === other.turns[0].grip) return []
        const effect = followedBy(this.puzzle, one.effect, other.effect)
        const turns = [one.turns[0], other.turns[0]]
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
        if ((this.tried += puzzle.pieces.length) > BUDGET) return false
        followedBy(puzzle, first.effect, second.effect, a)
        followedBy(puzzle, a, first.inverse, b)
        followedBy(puzzle, b, second.inverse, c)
        this.look(c, first, second)
      }
    return this.wanted.size > 0
  }

  /** Keeps the commutator, or its square or cube, if that is a three-cycle. */
  private look(effect: Effect, first: Word, second: Word): void {
    const moved = this.supportSize(effect)
    if (moved === 0 || moved > 12) return
    let power = effect
    for (let times = 1; times <= 3; times++) {
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

  private supportSize(effect: Effect): number {
    let size = 0
    for (let q = 0; q < effect.length; q++) if (effect[q] !== 0 && this.orbitOf[q] !== -1) size++
    return size
  }

  private threeCycle(effect: Effect): Omit<BaseCycle, 'turns'> | undefined {
    const { puzzle, orbitOf } = this
    let first = -1
    let count = 0
    for (let q = 0; q < effect.length; q++) {
      if (effect[q] === 0) continue
      // A turned frame, or a place that no turn of the frame moves.
      if (orbitOf[q] === -2) return undefined
      if (orbitOf[q] === -1) {
        if (puzzle.place[24 * q + effect[q]] !== q) return undefined
        continue
      }
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
    const back = (turns: readonly Turn[]) =>
      turns.map(({ inverse }) => this.puzzle.turns[inverse]).reverse()
    return [...first.turns, ...second.turns, ...back(first.turns), ...back(second.turns)]
  }
}
