/**
 * Whether turns lead from the finished puzzle to a state, as it looks: judged by parities and twist
 * sums, with look-alikes free to stand for each other.
 */
import { frameOf, inFrame } from '../analysis/frame'
import { coordinatesFor, spanSize } from '../analysis/invariants'
import { derivedOrder } from '../analysis/derivedOrders'
import { unseenChanges } from '../analysis/lookAlikes'
import { canBlock, reachOf } from '../analysis/placements'
import { inSpan, sumsOf, vectorOfState, type Sums } from '../analysis/sums'
import type { Puzzle } from '../puzzle/compile'
import { rotateState, start, type State } from '../state'
import { plural } from '../words'

export type Verdict =
  /** `state` looks like the one given, with look-alikes told apart so that turns lead to it. */
  | { readonly kind: 'reachable'; readonly state: State }
  | { readonly kind: 'unreachable'; readonly sentence: string }
  /** Nothing speaks against it, but it is not proved that turns lead there. */
  | { readonly kind: 'not judged'; readonly state: State; readonly sentence: string }

export const isReachable = (puzzle: Puzzle, state: State): boolean =>
  judgeState(puzzle, state).kind !== 'unreachable'

export function judgeState(puzzle: Puzzle, given: State): Verdict {
  if (canBlock(puzzle))
    return {
      kind: 'not judged',
      state: given,
      sentence: 'Whether turns lead here is not judged on a puzzle whose turns can be blocked.',
    }
  const state = inFrame(puzzle, given)
  const stray = straying(puzzle, state)
  if (stray !== undefined)
    return {
      kind: 'unreachable',
      sentence: `The piece ${puzzle.pieces[stray].id} can never lie like that: no turns take it there.`,
    }
  const sums = sumsOf(puzzle)
  const found = identifications(puzzle, sums, state, (vector) => inSpan(sums, vector))
  if (!found) return { kind: 'unreachable', sentence: faultWords(puzzle, sums, state) }
  // Back into the hold that was given.
  const { piece } = frameOf(puzzle)
  const named = rotateState(found, piece === undefined ? 0 : given[piece])
  if (isDecidedBySums(puzzle)) return { kind: 'reachable', state: named }
  return {
    kind: 'not judged',
    state: named,
    sentence:
      'Exchanges and twists add up. But some pieces of this puzzle cannot be moved as freely as that says, so it is not proved that turns lead here.',
  }
}

/**
 * Whether parities and twist sums are all that turns respect: the order of the group says so where it
 * was derived.
 */
function isDecidedBySums({ definition }: Puzzle): boolean {
  const order = derivedOrder(definition)
  return order !== undefined && order.index !== null && order.index === order.indexByInvariants
}

/**
 * A state in the frame with look-alikes told apart so that its sums are as wanted, as few of them as can
 * be taken differently; undefined if no way of telling them apart does.
 */
export function identifications(
  puzzle: Puzzle,
  sums: Sums,
  state: State,
  isRight: (vector: readonly number[]) => boolean,
): State | undefined {
  if (isRight(vectorOfState(puzzle, sums, state))) return state
  return tradeLookAlikes(puzzle, sums, state, isRight)
}

/** A piece that is where its orbit does not reach. */
function straying(puzzle: Puzzle, state: State): number | undefined {
  const reach = reachOf(puzzle)
  const found = state.findIndex((r, p) => !reach[p].includes(r))
  return found < 0 ? undefined : found
}

/**
 * The same look with equal pieces traded or unseen turns made: the fewest such changes that bring the
 * sums to where they are wanted.
 */
function tradeLookAlikes(
  puzzle: Puzzle,
  sums: Sums,
  state: State,
  isRight: (vector: readonly number[]) => boolean,
): State | undefined {
  const vector = vectorOfState(puzzle, sums, state)
  const steps = unseenSteps(puzzle, sums)
  const add = (a: readonly number[], b: readonly number[]) =>
    a.map((entry, i) => (entry + b[i]) % sums.moduli[i])
  const seen = new Set([vector.join()])
  let front: { vector: number[]; path: UnseenStep[] }[] = [{ vector, path: [] }]
  while (front.length > 0) {
    const next: typeof front = []
    for (const { vector: from, path } of front)
      for (const step of steps) {
        const to = add(from, step.by)
        if (seen.has(to.join())) continue
        seen.add(to.join())
        const made = [...path, step]
        if (isRight(to)) return made.reduce((current, { make }) => make(current), state)
        next.push({ vector: to, path: made })
      }
    front = next
  }
  return undefined
}

interface UnseenStep {
  readonly make: (state: State) => State
  /** What it adds to the sums, wherever it is made. */
  readonly by: readonly number[]
}

const stepsOf = new WeakMap<Sums, readonly UnseenStep[]>()

/** Changes that are not seen, one for each effect on the sums. */
function unseenSteps(puzzle: Puzzle, sums: Sums): readonly UnseenStep[] {
  const known = stepsOf.get(sums)
  if (known) return known
  const home = start(puzzle)
  const found = new Map<string, UnseenStep>()
  for (const { pieces, make } of unseenChanges(puzzle)) {
    if (!sums.orbits.some(({ places }) => pieces.every((p) => places.includes(p)))) continue
    const by = vectorOfState(puzzle, sums, make(home))
    const key = by.join()
    if (by.some((entry) => entry !== 0) && !found.has(key)) found.set(key, { make, by })
  }
  const steps = [...found.values()]
  stepsOf.set(sums, steps)
  return steps
}

/** The least that hands must do: one piece turned, two exchanged, or both. */
function faultWords(puzzle: Puzzle, sums: Sums, state: State): string {
  const { orbits } = sums
  const vector = vectorOfState(puzzle, sums, state)
  const columns = coordinatesFor(orbits)
  const nameOf = (orbit: number) => puzzle.pieces[orbits[orbit].places[0]].kind
  const changes = unseenSteps(puzzle, sums).map(({ by }) => by)
  const span = { ...sums, turns: [...sums.turns, ...changes] }
  const wide = { ...span, size: spanSize(span.turns, span.moduli) }
  const mended = (column: number, by: number) =>
    inSpan(
      wide,
      vector.map((entry, i) => (i === column ? (entry + by) % columns[i].modulus : entry)),
    )
  for (const [column, { what, modulus, orbit }] of columns.entries())
    for (let by = 1; by < modulus; by++)
      if (mended(column, by)) {
        if (what === 'parity')
          return `This cannot happen by turning: two pieces of the kind ${nameOf(orbit)} have been exchanged by hand. Exchange any two of them back.`
        return `This cannot happen by turning: a piece of the kind ${nameOf(orbit)} has been ${modulus === 2 ? 'flipped' : 'twisted'} by hand; the twists of the ${plural(orbits[orbit].places.length, nameOf(orbit))} do not add up. Turn one of them in place.`
      }
  return 'This cannot happen by turning: more than one piece has been put in or turned by hand.'
}
