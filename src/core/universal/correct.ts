/**
 * What hands must do to a state that no turns lead to: the smallest set of single corrections. Each
 * changes the vector of the state: a piece turned in its place adds to the sum of twists of its orbit, an
 * exchange of two makes odd even (and can twist one of them on the way). The search walks over the cosets
 * of what turns and unseen changes span, the fewest pieces in the hand first.
 */
import { outwardOf } from '../analysis/anatomy'
import { namedInOrbits } from './namedInOrbits'
import type { Orbit } from '../analysis/orbits'
import { senseOf, type Sense } from '../analysis/sense'
import type { Puzzle } from '../puzzle/compile'
import { IDENTITY, INVERSE, multiply, rotate } from '../rotation'
import type { State } from '../state'
import { isNothing, twistOf } from '../analysis/invariants'
import { accountOf } from './account'
import { workOf } from './orbitsAtWork'

export interface Correction {
  /** One piece turned in its place, or two exchanged. */
  readonly pieces: readonly number[]
  /** How the first of them is turned in its (new) place; undefined for a plain exchange. */
  readonly sense?: Sense
}

export interface Mended {
  readonly corrections: readonly Correction[]
  /** In the frame; turns lead home from it as far as sums tell. */
  readonly state: State
}

/** More cosets than this are not walked through. */
const LIMIT = 50_000

interface Kind {
  readonly orbit: number
  readonly exchange: boolean
  readonly twist: number
  /** Pieces that must be taken out. */
  readonly cost: number
  readonly by: readonly number[]
}

/** For a state in the frame and in shape; undefined if no corrections of these sorts are enough. */
export function mend(puzzle: Puzzle, given: State): Mended | undefined {
  const natural = namedInOrbits(puzzle, given)
  const ways = cheapest(puzzle, accountOf(puzzle).vectorOf(given)).map((kinds): Mended => {
    let state = natural
    const corrections = kinds.map((kind) => {
      const { correction, after } = place(puzzle, state, kind)
      state = after
      return correction
    })
    return { corrections, state }
  })
  // Of equally small ones the one that leaves most at home: that is what happened to the puzzle.
  const homes = ({ state }: Mended) => state.filter((r) => r === IDENTITY).length
  return ways.sort((a, b) => homes(b) - homes(a))[0]
}

/**
 * Where sums do not decide: the one correction in these places after which turns lead home, if one is enough.
 *
 * @param isReached whether turns lead to a state
 */
export function mendByTrial(
  puzzle: Puzzle,
  given: State,
  places: readonly number[],
  isReached: (state: State) => boolean,
): Correction | undefined {
  const state = namedInOrbits(puzzle, given)
  const { orbits } = workOf(puzzle).sums
  for (const { orbit: o, exchange, twist } of kindsOfCorrection(puzzle)) {
    if (!places.includes(orbits[o].places[0])) continue
    for (const pieces of candidates(orbits[o], exchange)) {
      const { correction, after } = corrected(puzzle, orbits[o], state, pieces, twist)
      if (isReached(after)) return correction
    }
  }
  return undefined
}

/** The pieces of one correction: single ones, or pairs either way round. */
const candidates = ({ places }: Orbit, exchange: boolean): number[][] =>
  exchange
    ? places.flatMap((p) => places.flatMap((q) => (q === p ? [] : [[p, q]])))
    : places.map((p) => [p])

/** Equally cheap sets of corrections that are compared. */
const WAYS = 24

function cheapest(puzzle: Puzzle, vector: readonly number[]): (readonly Kind[])[] {
  const { seen, coordinates } = accountOf(puzzle)
  const kinds = kindsOfCorrection(puzzle)
  interface Node {
    readonly vector: readonly number[]
    readonly path: readonly Kind[]
  }
  const waiting: Node[][] = [[{ vector, path: [] }]]
  const done = new Set<string>()
  const found: (readonly Kind[])[] = []
  for (let cost = 0; cost < waiting.length && done.size < LIMIT; cost++) {
    for (const { vector: from, path } of waiting[cost] ?? []) {
      if (isNothing(seen, from)) {
        if (found.length < WAYS) found.push(path)
        continue
      }
      const coset = seen.cosetOf(from)
      if (done.has(coset)) continue
      done.add(coset)
      for (const kind of kinds) {
        const to = from.map((entry, c) => (entry + kind.by[c]) % coordinates[c].modulus)
        if (done.has(seen.cosetOf(to))) continue
        while (waiting.length <= cost + kind.cost) waiting.push([])
        waiting[cost + kind.cost].push({ vector: to, path: [...path, kind] })
      }
    }
    if (found.length > 0) break
  }
  return found
}

function kindsOfCorrection(puzzle: Puzzle): Kind[] {
  const { coordinates } = accountOf(puzzle)
  const byOf = (orbit: number, parity: number, twist: number) =>
    coordinates.map((each) => (each.orbit !== orbit ? 0 : each.what === 'parity' ? parity : twist))
  const orbits = [...new Set(coordinates.map(({ orbit }) => orbit))]
  const kinds = orbits.flatMap((orbit): Kind[] => {
    const own = coordinates.filter((each) => each.orbit === orbit)
    const ways = own.find(({ what }) => what === 'twist')?.modulus ?? 1
    const turns = Array.from({ length: ways - 1 }, (_, i): Kind => {
      const twist = i + 1
      return { orbit, exchange: false, twist, cost: 1, by: byOf(orbit, 0, twist) }
    })
    if (!own.some(({ what }) => what === 'parity')) return turns
    const exchanges = Array.from({ length: ways }, (_, twist): Kind => ({
      orbit,
      exchange: true,
      twist,
      cost: 2,
      by: byOf(orbit, 1, twist),
    }))
    return [...turns, ...exchanges]
  })
  return kinds.sort((a, b) => a.cost - b.cost || a.twist - b.twist)
}

/** Where to do it: if it can be, so that what is corrected is home afterwards. */
function place(puzzle: Puzzle, state: State, kind: Kind): { correction: Correction; after: State } {
  const orbit = workOf(puzzle).sums.orbits[kind.orbit]
  let best: { correction: Correction; after: State } | undefined
  let bestScore = -1
  for (const pieces of candidates(orbit, kind.exchange)) {
    const next = corrected(puzzle, orbit, state, pieces, kind.twist)
    const score = pieces.filter((p) => next.after[p] === 0 && state[p] !== 0).length
    const open = pieces.filter((p) => state[p] !== 0).length
    if (3 * score + open <= bestScore) continue
    bestScore = 3 * score + open
    best = next
  }
  if (!best) throw new Error('an orbit without pieces')
  return best
}

function corrected(
  puzzle: Puzzle,
  orbit: Orbit,
  state: State,
  pieces: readonly number[],
  twist: number,
): { correction: Correction; after: State } {
  const after = new Uint8Array(state)
  const referenceAt = (piece: number) =>
    orbit.reference[orbit.places.indexOf(puzzle.place[24 * piece + state[piece]])]
  if (pieces.length === 2) {
    const [p, q] = pieces
    const [cp, cq] = [referenceAt(p), referenceAt(q)]
    // Each gets into the other's place with the orientation that it has.
    after[p] = multiply(multiply(cq, INVERSE[cp]), state[p])
    after[q] = multiply(multiply(cp, INVERSE[cq]), state[q])
  }
  const [first] = pieces
  const c = orbit.reference[orbit.places.indexOf(puzzle.place[24 * first + after[first]])]
  const turned = multiply(multiply(c, twistOf(orbit, twist)), INVERSE[c])
  after[first] = multiply(turned, after[first])
  const outward = rotate(after[first], outwardOf(puzzle, first))
  const sense = turned === IDENTITY ? undefined : senseOf(turned, outward)
  return { correction: { pieces, sense }, after }
}
