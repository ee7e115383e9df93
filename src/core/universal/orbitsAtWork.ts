/**
 * The orbits that a solver must care for. Left out: a single place whose turns cannot be seen, such as
 * the plain centre of a 3x3x3, whose parities are then no one's concern; and pieces that ride on others.
 */
import { lookAlikesOf } from '../analysis/lookAlikes'
import { coordinatesFor } from '../analysis/invariants'
import { frameOf } from '../analysis/frame'
import { orbitsUnder, type Orbit } from '../analysis/orbits'
import { canBlock } from '../analysis/placements'
import { leadersOf } from '../analysis/riders'
import { sumsOf, sumsUnder, type Sums } from '../analysis/sums'
import type { Puzzle } from '../puzzle/compile'
import { movesOf } from './moves'

export interface OrbitAtWork {
  readonly orbit: Orbit
  /** Place names of one kind, for words. */
  readonly kinds: readonly string[]
}

export interface Work {
  readonly sums: Sums
  readonly orbits: readonly OrbitAtWork[]
  /** Pieces whose rotation does not matter, as long as they stay where they are. */
  readonly ignored: ReadonlySet<number>
  /** Pieces that ride on others. */
  readonly riders: ReadonlySet<number>
  /** Positions in vectors that matter. */
  readonly columns: readonly number[]
}

/** On a puzzle that changes shape: under all moves that come back to it. */
function sumsInShape(puzzle: Puzzle): Sums {
  const effects = movesOf(puzzle).map(({ effect }) => effect)
  return sumsUnder(puzzle, orbitsUnder(puzzle, effects, frameOf(puzzle).piece), effects)
}

/** The orbits, by position, that some of the pieces belong to. */
export const orbitsWith = (puzzle: Puzzle, pieces: readonly number[]): number[] =>
  workOf(puzzle).orbits.flatMap(({ orbit }, o) =>
    orbit.places.some((place) => pieces.includes(place)) ? [o] : [],
  )

const known = new WeakMap<Puzzle, Work>()

export function workOf(puzzle: Puzzle): Work {
  const found = known.get(puzzle)
  if (found) return found
  const sums = canBlock(puzzle) ? sumsInShape(puzzle) : sumsOf(puzzle)
  const { inPlace } = lookAlikesOf(puzzle)
  const isUnseen = ({ places }: Orbit) => places.length === 1 && inPlace[places[0]].looks === 1
  const leaders = leadersOf(puzzle)
  const rides = (p: number) => leaders[p] !== p
  const isLeft = (orbit: Orbit) => isUnseen(orbit) || orbit.places.every(rides)
  const coordinates = coordinatesFor(sums.orbits)
  const work: Work = {
    sums,
    orbits: sums.orbits
      .filter((orbit) => !isLeft(orbit))
      .map((orbit) => ({
        orbit,
        kinds: [...new Set(orbit.places.map((place) => puzzle.pieces[place].kind))],
      })),
    ignored: new Set(sums.orbits.filter(isUnseen).flatMap(({ places }) => places)),
    riders: new Set(
      sums.orbits
        .filter((orbit) => isLeft(orbit) && !isUnseen(orbit))
        .flatMap(({ places }) => places),
    ),
    columns: coordinates.flatMap(({ orbit }, c) => (isLeft(sums.orbits[orbit]) ? [] : [c])),
  }
  known.set(puzzle, work)
  return work
}
