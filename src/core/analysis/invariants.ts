/**
 * What every turn respects: of each orbit the parity of the exchange of its pieces (mod 2) and the
 * sum of their twists (mod the number of orientations). These are the images of a turn in the
 * abelianised group of all rearrangements, so whatever turns do to them lies in the subgroup that the
 * vectors of the single turns span.
 */
import type { Puzzle } from '../puzzle/compile'
import { IDENTITY, INVERSE, multiply, orderOf, type Rotation } from '../rotation'
import type { State } from '../state'
import type { Orbit } from './orbits'

/** One entry: a whole number modulo `modulus`. */
export interface Coordinate {
  readonly orbit: number
  readonly what: 'parity' | 'twist'
  readonly modulus: number
}

/** The coordinates of some orbits, in order; orbits of one piece have no parity. */
export function coordinatesFor(orbits: readonly Orbit[]): Coordinate[] {
  return orbits.flatMap(({ places, orientations }, orbit): Coordinate[] => [
    ...(places.length > 1 ? [{ orbit, what: 'parity' as const, modulus: 2 }] : []),
    ...(orientations.length > 1
      ? [{ orbit, what: 'twist' as const, modulus: orientations.length }]
      : []),
  ])
}

/** The orientation by whose powers twists are counted; undefined if no one generates them all. */
export const twistUnit = ({ orientations }: Orbit): Rotation | undefined =>
  orientations.find((r) => orderOf(r) === orientations.length)

/** So many units of twist as one rotation; none where twists of the orbit are no numbers. */
export function twistOf(orbit: Orbit, count: number): Rotation {
  const unit = twistUnit(orbit) ?? IDENTITY
  let turn = IDENTITY
  for (let k = 0; k < count; k++) turn = multiply(unit, turn)
  return turn
}

/** Orientations as powers of one of them. */
function exponents(orbit: Orbit): Map<Rotation, number> | undefined {
  const { orientations } = orbit
  const generator = twistUnit(orbit)
  if (generator === undefined) return undefined
  const found = new Map<Rotation, number>()
  let power = 0
  for (let k = 0; k < orientations.length; k++) {
    found.set(power, k)
    power = multiply(generator, power)
  }
  return found
}

/** An orientation as a number, 0 for none; undefined if it is no power of the unit. */
export const twistNumber = (orbit: Orbit, rotation: Rotation): number | undefined =>
  orbit.orientations.length === 1 ? 0 : exponents(orbit)?.get(rotation)

/** Whether twists of every orbit can be added up as numbers. */
export const twistsAdd = (orbits: readonly Orbit[]): boolean =>
  orbits.every((orbit) => orbit.orientations.length === 1 || exponents(orbit) !== undefined)

/** Of one orbit: what fills place i goes to place `to[i]`, its twist multiplied by `change[i]`. */
export interface OrbitEffect {
  readonly to: readonly number[]
  readonly change: readonly Rotation[]
}

/** What a move, given as the rotation of what fills each place, does to an orbit. */
export function effectOfMove(
  puzzle: Puzzle,
  { places, reference }: Orbit,
  move: State,
): OrbitEffect {
  const to = places.map((place) => places.indexOf(puzzle.place[24 * place + move[place]]))
  const change = places.map((place, i) =>
    multiply(INVERSE[reference[to[i]]], multiply(move[place], reference[i])),
  )
  return { to, change }
}

export function vectorOf(orbits: readonly Orbit[], effects: readonly OrbitEffect[]): number[] {
  return orbits.flatMap((orbit, o) => {
    const { to, change } = effects[o]
    const parity = orbit.places.length > 1 ? [parityOf(to)] : []
    if (orbit.orientations.length === 1) return parity
    const powers = exponents(orbit)
    const sum = change.reduce((total, c) => total + (powers?.get(c) ?? 0), 0)
    return [...parity, sum % orbit.orientations.length]
  })
}

/** 0 for an even exchange, 1 for an odd one. */
export function parityOf(to: readonly number[]): number {
  const seen = new Set<number>()
  let parity = 0
  to.forEach((_, first) => {
    for (let at = to[first]; !seen.has(first) && at !== first; at = to[at]) {
      seen.add(at)
      parity ^= 1
    }
    seen.add(first)
  })
  return parity
}

/** The subgroup that some vectors span. */
export interface Span {
  readonly size: bigint
  /** A name of the coset of a vector: equal for two vectors if and only if the span has their difference. */
  readonly cosetOf: (vector: readonly number[]) => string
}

/**
 * The span of vectors with whole entries modulo `moduli`. These divide 12, so everything happens in two
 * parts, modulo 4 and modulo 3: rows are reduced by the entry that is divisible least often, which
 * clears its column in all others. What is left of a vector after the same steps names its coset: in the
 * column of a pivot u p^a only an entry below p^a can be left, and p^(k-a) times a pivot's row is nothing
 * modulo p^k, because no entry of it was divisible less often.
 */
export function spanOf(vectors: readonly (readonly number[])[], moduli: readonly number[]): Span {
  if (moduli.some((m) => 12 % m !== 0)) throw new Error('a twist is counted by neither 2, 3 nor 4')
  const parts = [
    [2, 2],
    [3, 1],
  ].map(([prime, power]) => {
    const full = prime ** power
    const part = (vector: readonly number[]) =>
      vector.map((entry, i) => {
        let own = 1
        while (own < full && moduli[i] % (own * prime) === 0) own *= prime
        return (entry * (full / own)) % full
      })
    const pivots = pivotsOf(vectors.map(part), prime, power)
    return {
      size: pivots.reduce((size, { at }) => size * BigInt(prime ** (power - at)), 1n),
      reduce: (vector: readonly number[]) =>
        pivots.reduce((row, pivot) => reduced(row, pivot, prime, full), part(vector)),
    }
  })
  return {
    size: parts[0].size * parts[1].size,
    cosetOf: (vector) => parts.map(({ reduce }) => reduce(vector).join()).join('|'),
  }
}

export const isNothing = (span: Span, vector: readonly number[]): boolean =>
  span.cosetOf(vector) === span.cosetOf(vector.map(() => 0))

export const spanSize = (
  vectors: readonly (readonly number[])[],
  moduli: readonly number[],
): bigint => spanOf(vectors, moduli).size

interface Pivot {
  readonly row: readonly number[]
  readonly column: number
  /** The pivot entry is a unit times prime^at. */
  readonly at: number
  readonly inverseOfUnit: number
}

function reduced(row: readonly number[], pivot: Pivot, prime: number, full: number): number[] {
  const factor = Math.floor(row[pivot.column] / prime ** pivot.at) * pivot.inverseOfUnit
  return row.map((entry, i) => (((entry - factor * pivot.row[i]) % full) + full) % full)
}

function pivotsOf(rows: readonly (readonly number[])[], prime: number, power: number): Pivot[] {
  const full = prime ** power
  const valuation = (entry: number) => {
    if (entry === 0) return power
    let times = 0
    while (entry % prime ** (times + 1) === 0) times++
    return times
  }
  const pivots: Pivot[] = []
  let rest = rows
  for (;;) {
    let best: { row: number; column: number; at: number } | undefined
    rest.forEach((row, r) =>
      row.forEach((entry, column) => {
        const at = valuation(entry)
        if (at < (best?.at ?? power)) best = { row: r, column, at }
      }),
    )
    if (!best) return pivots
    const { row, column, at } = best
    const unit = rest[row][column] / prime ** at
    let inverseOfUnit = 1
    while ((unit * inverseOfUnit) % full !== 1) inverseOfUnit++
    const pivot = { row: rest[row], column, at, inverseOfUnit }
    pivots.push(pivot)
    rest = rest.filter((_, r) => r !== row).map((other) => reduced(other, pivot, prime, full))
  }
}
