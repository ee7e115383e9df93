/** Pieces of a puzzle as points that turns permute, with those of each orbit that look alike. */
import type { Puzzle } from '../puzzle/compile'
import { INVERSE, multiply, type Rotation } from '../rotation'
import type { State } from '../state'
import {
  coordinatesFor,
  effectOfMove,
  spanSize,
  twistsAdd,
  vectorOf,
  type OrbitEffect,
} from './invariants'
import { orbitsUnder, type Orbit } from './orbits'
import { PermutationGroup, type Permutation, type Progress } from './permutationGroup'

/**
 * Places with orientations as points: orbit after orbit, those without look-alikes first; then the
 * bare places of orbits whose only look-alikes are turns in place; then the orbits with look-alikes.
 */
export interface Space {
  readonly orbits: readonly Orbit[]
  /** The first point of each orbit. */
  readonly starts: readonly number[]
  /** Position of the first orbit with look-alikes. */
  readonly active: number
  readonly degree: number
  readonly base: readonly number[]
  readonly permutationOf: (effects: readonly OrbitEffect[]) => Permutation
  /** Classes of look-alikes in each orbit, as positions, with the unseen turns of the first. */
  readonly alike: readonly (readonly LookClass[])[]
}

export interface LookClass {
  /** Positions in the orbit. */
  readonly places: readonly number[]
  /** How many orientations in place look alike. */
  readonly unseen: number
  /** For each of them the orientation in which its piece, at the first of them, looks as that one's own. */
  readonly offsets: readonly Rotation[]
  /** The orientations in which the piece of one of them looks, at another, as that one's own. */
  readonly alikeAt: (piece: number, place: number) => readonly Rotation[]
  /** Rearrangements that generate all of the class that look like the start. */
  readonly generators: readonly OrbitEffect[]
}

export function spaceOf(puzzle: Puzzle, found: readonly Orbit[]): Space {
  const classed = found.map((orbit) => ({ orbit, classes: lookClasses(puzzle, orbit) }))
  const isActive = ({ classes }: (typeof classed)[number]) =>
    classes.some(({ places, unseen }) => places.length > 1 || unseen > 1)
  const sorted = [...classed.filter((each) => !isActive(each)), ...classed.filter(isActive)]
  const orbits = sorted.map(({ orbit }) => orbit)
  const active = sorted.filter((each) => !isActive(each)).length
  const alike = sorted.map(({ classes }) => classes)
  const starts: number[] = []
  const placeStarts: number[] = []
  let degree = 0
  orbits.forEach(({ places, orientations }, o) => {
    if (o === active)
      orbits.forEach((spun, s) => {
        if (s < active || !onlySpins(alike[s])) return
        placeStarts[s] = degree
        degree += spun.places.length
      })
    starts.push(degree)
    degree += places.length * orientations.length
  })
  const orbitBase = (o: number) =>
    orbits[o].places.map((_, i) => starts[o] + i * orbits[o].orientations.length)
  const placeBase = placeStarts.flatMap((start, s) => orbits[s].places.map((_, i) => start + i))
  const positions = orbits.map((_, o) => o)
  return {
    orbits,
    starts,
    active,
    degree,
    base: [
      ...positions.slice(0, active).flatMap(orbitBase),
      ...placeBase,
      ...positions.slice(active).flatMap(orbitBase),
    ],
    permutationOf(effects) {
      const permutation = new Uint16Array(degree)
      orbits.forEach(({ orientations }, o) => {
        effects[o].to.forEach((to, i) =>
          orientations.forEach((r, k) => {
            const turned = orientations.indexOf(multiply(effects[o].change[i], r))
            permutation[starts[o] + i * orientations.length + k] =
              starts[o] + to * orientations.length + turned
          }),
        )
      })
      placeStarts.forEach((start, o) =>
        effects[o].to.forEach((to, i) => (permutation[start + i] = start + to)),
      )
      return permutation
    },
    alike,
  }
}

export const onlySpins = (classes: readonly LookClass[]) =>
  classes.every(({ places }) => places.length === 1)

export const effectsOf = (puzzle: Puzzle, orbits: readonly Orbit[], move: State) =>
  orbits.map((orbit) => effectOfMove(puzzle, orbit, move))

export const still = ({ places }: Orbit): OrbitEffect => ({
  to: places.map((_, i) => i),
  change: places.map(() => 0),
})

/**
 * Which pieces of an orbit look at some place as its own piece does. An orientation o of the piece of
 * place i at place j stands for the rotation c(j) o c(i)'.
 */
export function lookClasses(puzzle: Puzzle, orbit: Orbit): LookClass[] {
  const { places, reference, orientations } = orbit
  const alikeAt = (i: number, j: number): Rotation[] =>
    orientations.filter((o) => {
      const r = multiply(reference[j], multiply(o, INVERSE[reference[i]]))
      return puzzle.look[24 * places[i] + r] === puzzle.look[24 * places[j]]
    })
  const seen = new Set<number>()
  return places.flatMap((_, i): LookClass[] => {
    if (seen.has(i)) return []
    const alike = places.flatMap((__, j) => (alikeAt(i, j).length > 0 ? [j] : []))
    alike.forEach((j) => seen.add(j))
    const swaps = alike.slice(1).map((j): OrbitEffect => {
      const effect = still(orbit)
      const [to, change] = [[...effect.to], [...effect.change]]
      to[i] = j
      to[j] = i
      change[i] = alikeAt(i, j)[0]
      change[j] = alikeAt(j, i)[0]
      return { to, change }
    })
    const spins = alike.flatMap((j) =>
      alikeAt(j, j)
        .filter((o) => o !== 0)
        .map((o): OrbitEffect => {
          const change = [...still(orbit).change]
          change[j] = o
          return { to: still(orbit).to, change }
        }),
    )
    const offsets = alike.map((j) => alikeAt(j, i)[0])
    return [
      {
        places: alike,
        unseen: alikeAt(i, i).length,
        offsets,
        alikeAt,
        generators: [...swaps, ...spins],
      },
    ]
  })
}

/** What a permutation of points does to the orbits with look-alikes. */
export function readEffects({ orbits, starts, active }: Space, g: Permutation): OrbitEffect[] {
  return orbits.slice(active).map(({ places, orientations }, i) => {
    const start = starts[active + i]
    const images = places.map((_, at) => g[start + at * orientations.length] - start)
    return {
      to: images.map((image) => Math.floor(image / orientations.length)),
      change: images.map((image) => orientations[image % orientations.length]),
    }
  })
}

/** All arrangements and twists of one orbit. */
export function allOf({ places, orientations }: Orbit): bigint {
  let product = 1n
  places.forEach((_, i) => (product *= BigInt(i + 1) * BigInt(orientations.length)))
  return product
}

/**
 * The group that moves generate, frame piece fixed, with the points that it permutes, and the order that it
 * cannot exceed.
 */
export function groupUnder(
  puzzle: Puzzle,
  moves: readonly State[],
  fixed: number | undefined,
  progress?: Progress,
  isProven = true,
): { readonly space: Space; readonly group: PermutationGroup; readonly most?: bigint } {
  const space = spaceOf(puzzle, orbitsUnder(puzzle, moves, fixed))
  const effects = moves.map((move) => effectsOf(puzzle, space.orbits, move))
  const generators = effects.map((effect) => space.permutationOf(effect))
  const most = mostUnder(space.orbits, effects)
  const group = new PermutationGroup(space.degree, generators, space.base, progress, isProven, most)
  return { space, group, most }
}

/** What odd and even and the sums of twists leave possible; undefined where twists cannot be added up. */
function mostUnder(
  orbits: readonly Orbit[],
  effects: readonly (readonly OrbitEffect[])[],
): bigint | undefined {
  if (!twistsAdd(orbits)) return undefined
  const moduli = coordinatesFor(orbits).map(({ modulus }) => modulus)
  const vectors = effects.map((effect) => vectorOf(orbits, effect))
  const all = orbits.reduce((product, orbit) => product * allOf(orbit), 1n)
  const abelian = moduli.reduce((product, m) => product * BigInt(m), 1n)
  return (all * spanSize(vectors, moduli)) / abelian
}

/**
 * Whether a state, told apart in all its pieces, is what some sequence of moves makes. Without the proof no
 * may be said where yes is right, never the other way round.
 */
export function membershipUnder(
  puzzle: Puzzle,
  moves: readonly State[],
  fixed: number | undefined,
  isProven = true,
): (state: State) => boolean {
  const { space, group } = groupUnder(puzzle, moves, fixed, undefined, isProven)
  return (state) => {
    const effects = effectsOf(puzzle, space.orbits, state)
    // A piece outside its orbit, or turned as its orbit never turns it.
    const isOutside = space.orbits.some(({ orientations }, o) =>
      effects[o].to.some((to, i) => to < 0 || !orientations.includes(effects[o].change[i])),
    )
    return !isOutside && group.contains(space.permutationOf(effects))
  }
}
