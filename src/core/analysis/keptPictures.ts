/**
 * Pictures that a turn of the whole puzzle leaves as they are: what is in a place decides what is in the place
 * that it is taken to. Reached are those whose invariants lie in what the turns and the look-alikes span.
 */
import {
  coordinatesFor,
  spanOf,
  twistNumber,
  twistsAdd,
  vectorOf,
  type OrbitEffect,
} from './invariants'
import { allOf, still, type LookClass, type Space } from './space'
import type { Orbit } from './orbits'

/** Pictures by the twists that they add up to. */
type Counts = Map<number, bigint>

/** States of a count that are kept at a time; more would take too long. */
const MOST_STATES = 200_000

/**
 * @param isFull whether the group holds all that its invariants allow
 * @param turns what each of its generators does, those of the whole puzzle among them
 * @param hold what the whole-puzzle turn does
 * @returns undefined where the invariants alone do not decide what is reached
 */
export function keptPictures(
  space: Space,
  isFull: boolean,
  turns: readonly (readonly OrbitEffect[])[],
  hold: readonly OrbitEffect[],
): bigint | undefined {
  const { orbits, alike } = space
  // Where no piece looks like another, a hold that moves them leaves no picture as it is.
  const isPlain = (o: number) => alike[o].every(({ places }) => places.length === 1)
  const moves = (o: number) => hold[o].to.some((to, i) => to !== i)
  if (orbits.some((_, o) => isPlain(o) && moves(o))) return 0n
  if (!isFull || !twistsAdd(orbits)) return undefined
  const coordinates = coordinatesFor(orbits)
  const moduli = coordinates.map(({ modulus }) => modulus)
  const ofTurns = turns.map((effects) => vectorOf(orbits, effects))
  const ofLooks = alike.flatMap((classes, o) =>
    classes.flatMap(({ generators }) =>
      generators.map((effect) =>
        vectorOf(
          orbits,
          orbits.map((orbit, i) => (i === o ? effect : still(orbit))),
        ),
      ),
    ),
  )
  const span = spanOf([...ofTurns, ...ofLooks], moduli)
  let sums = new Map<string, { readonly vector: readonly number[]; readonly count: bigint }>()
  const none = moduli.map(() => 0)
  sums.set(span.cosetOf(none), { vector: none, count: 1n })
  for (const [o, orbit] of orbits.entries()) {
    const own = ofOrbit(orbit, alike[o], hold[o], coordinates, o)
    if (own === undefined) return undefined
    const next: typeof sums = new Map()
    for (const { vector, count } of sums.values())
      for (const { entries, count: times } of own) {
        const sum = vector.map((entry, c) => (entry + (entries[c] ?? 0)) % moduli[c])
        const key = span.cosetOf(sum)
        next.set(key, { vector: sum, count: (next.get(key)?.count ?? 0n) + count * times })
      }
    sums = next
  }
  return sums.get(span.cosetOf(none))?.count ?? 0n
}

interface Share {
  /** By position among the coordinates. */
  readonly entries: Readonly<Record<number, number>>
  readonly count: bigint
}

/** The pictures of one orbit that a hold leaves as they are, by their invariants. */
function ofOrbit(
  orbit: Orbit,
  classes: readonly LookClass[],
  hold: OrbitEffect,
  coordinates: ReturnType<typeof coordinatesFor>,
  o: number,
): Share[] | undefined {
  const at = (what: 'parity' | 'twist') =>
    coordinates.findIndex((each) => each.orbit === o && each.what === what)
  const [parity, twist] = [at('parity'), at('twist')]
  const m = orbit.orientations.length
  const hasEqual = classes.some(({ places }) => places.length > 1)
  if (!hasEqual) {
    const takes = (i: number, { unseen }: LookClass) =>
      (twistNumber(orbit, hold.change[i]) ?? 0) % (m / unseen) === 0
    const slots = [...hold.to.keys()]
    if (slots.some((i) => !classes.some((each) => takes(i, each)))) return []
    if (!slots.every((i) => classes.every((each) => takes(i, each)))) return undefined
    // Every arrangement stays as it is, as many of each invariant; what turns unseen adds nothing to twists.
    const looks = classes.reduce((product, { unseen }) => product / BigInt(unseen), allOf(orbit))
    const parities = parity < 0 ? [0] : [0, 1]
    const unseen = classes.reduce((most, each) => leastCommonMultiple(most, each.unseen), 1)
    const cells = parities.flatMap((p) => Array.from({ length: m / unseen }, (_, t) => [p, t]))
    const each = looks / BigInt(cells.length)
    return cells.map(([p, t]) => ({
      entries: { ...(parity < 0 ? {} : { [parity]: p }), ...(twist < 0 ? {} : { [twist]: t }) },
      count: each,
    }))
  }
  // Two that look alike can change places unseen, so odd and even is nothing that a picture shows.
  const counts = twistsKept(orbit, classes, hold)
  return (
    counts &&
    [...counts].map(([sum, count]) => ({ entries: twist < 0 ? {} : { [twist]: sum }, count }))
  )
}

const leastCommonMultiple = (a: number, b: number): number => {
  let [divisor, rest] = [a, b]
  while (rest > 0) [divisor, rest] = [rest, divisor % rest]
  return (a / divisor) * b
}

/** By the sum of twists: round after round of places is given to a class of look-alikes. */
function twistsKept(
  orbit: Orbit,
  classes: readonly LookClass[],
  hold: OrbitEffect,
): Counts | undefined {
  const m = orbit.orientations.length
  const number = (rotation: number) => twistNumber(orbit, rotation) ?? 0
  const left = classes.map(({ places }) => places.length)
  const offset = classes.flatMap(({ offsets }) => offsets).reduce((sum, r) => sum + number(r), 0)
  let states = new Map([[`${left.join()};${offset % m}`, 1n]])
  const seen = new Set<number>()
  for (const first of hold.to.keys()) {
    if (seen.has(first)) continue
    // Twists on the way round, and what is left of them once round.
    let [turned, sum, length] = [0, 0, 0]
    for (let i = first; !seen.has(i); i = hold.to[i]) {
      seen.add(i)
      sum += turned
      turned += number(hold.change[i])
      length++
    }
    const next = new Map<string, bigint>()
    for (const [state, count] of states) {
      const [rest, twists] = state.split(';')
      const open = rest.split(',').map(Number)
      classes.forEach(({ unseen }, c) => {
        const looks = m / unseen
        if (open[c] < length || turned % looks !== 0) return
        const after = open.map((n, i) => (i === c ? n - length : n)).join()
        for (let y = 0; y < looks; y++) {
          const key = `${after};${(Number(twists) + sum + length * y) % m}`
          next.set(key, (next.get(key) ?? 0n) + count)
        }
      })
    }
    if (next.size > MOST_STATES) return undefined
    states = next
  }
  const counts: Counts = new Map()
  for (const [state, count] of states) {
    const sum = Number(state.split(';')[1])
    counts.set(sum, (counts.get(sum) ?? 0n) + count)
  }
  return counts
}
