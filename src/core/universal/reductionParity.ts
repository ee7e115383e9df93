/**
 * Reduction: on a box with more than three layers a side, pieces that are joined into bars and blocks
 * behave like the pieces of a plain box with three. If all of them are joined, the state is read as one
 * of that plain box, turned by the outer layers only, and its sums say whether these can finish it.
 */
import { coordinatesFor, spanOf, type Coordinate } from '../analysis/invariants'
import { frameOf } from '../analysis/frame'
import { holdOf } from '../analysis/placements'
import { seenSpan, sumsOf, vectorOfState, type Sums } from '../analysis/sums'
import { joinedAs, joinedState, type Joined } from '../analysis/joined'
import type { Puzzle } from '../puzzle/compile'
import { INVERSE, type Vector } from '../rotation'
import { rotateState, type State } from '../state'

interface Plain {
  readonly size: Vector
  readonly joined: Joined
  readonly sums: Sums
}

const known = new WeakMap<Puzzle, Plain | null>()

/** The plain box that joined pieces make; undefined for other mechanisms and for three layers or fewer. */
function plainOf(puzzle: Puzzle): Plain | undefined {
  const found = known.get(puzzle)
  if (found !== undefined) return found ?? undefined
  const plain = makePlain(puzzle)
  known.set(puzzle, plain ?? null)
  return plain
}

function makePlain(puzzle: Puzzle): Plain | undefined {
  const { mechanism } = puzzle.definition
  if (mechanism.kind !== 'box' || Math.max(...mechanism.size) <= 3) return undefined
  const size = mechanism.size.map((n) => Math.min(n, 3)) as unknown as Vector
  const joined = joinedAs(puzzle, size)
  if (!joined) return undefined
  const { small } = joined
  const all = sumsOf(small)
  const turns = all.turns.filter((_, t) => puzzle.turnByName.has(frameOf(small).turns[t].name))
  return {
    size,
    joined,
    sums: { ...all, turns, span: spanOf(turns, all.moduli) },
  }
}

export interface ReductionParity {
  /** Of the plain box, along x, y and z. */
  readonly size: Vector
  /** What comes out wrong: coordinates of the kin's orbits. */
  readonly wrong: readonly { readonly kind: string; readonly what: Coordinate['what'] }[]
  /** Joined parts that are not home, each as pieces of the puzzle. */
  readonly parts: readonly (readonly number[])[]
}

/** Undefined if the state is not joined, or if outer layers alone can finish it. */
export function reductionParity(puzzle: Puzzle, given: State): ReductionParity | undefined {
  const plain = plainOf(puzzle)
  if (!plain) return undefined
  const {
    sums,
    joined: { small: kin, partsOf: blocks },
  } = plain
  const read = joinedState(puzzle, plain.joined, given)
  if (!read) return undefined
  const hold = holdOf(kin, read)
  if (hold === undefined) return undefined
  const state = rotateState(read, INVERSE[hold])
  const { cosetOf } = seenSpan(kin, sums)
  const vector = vectorOfState(kin, sums, state)
  const nothing = cosetOf(vector.map(() => 0))
  if (cosetOf(vector) === nothing) return undefined
  const coordinates = coordinatesFor(sums.orbits)
  const single = coordinates.flatMap((each, c) => {
    const mended = Array.from({ length: each.modulus - 1 }, (_, k) =>
      vector.map((entry, i) => (i === c ? (entry + k + 1) % each.modulus : entry)),
    ).some((tried) => cosetOf(tried) === nothing)
    return mended ? [each] : []
  })
  const isHome = (b: number) => kin.look[24 * b + state[b]] === kin.look[24 * b]
  // Where exchanges of corners and of edges must both be odd or both be even, either may be called the one
  // that is wrong: it is the one of which something lies wrong.
  const seen = single.filter(({ orbit }) => !sums.orbits[orbit].places.every(isHome))
  return {
    size: plain.size,
    wrong: (single.length > 0
      ? [...seen, ...single].slice(0, 1)
      : coordinates.filter((_, c) => vector[c] !== 0)
    ).map(({ orbit, what }) => ({ kind: kin.pieces[sums.orbits[orbit].places[0]].kind, what })),
    parts: blocks.filter((_, b) => !isHome(b)),
  }
}
