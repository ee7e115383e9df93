/**
 * How many states there are: the order of the group that the turns generate, all pieces told apart,
 * the frame kept still; and how many of them the eye can tell apart.
 *
 * Let L be all rearrangements, reachable or not, that look like the start. The reachable looks number
 * |G| / |G and L|. Only some orbits have look-alikes; the subgroup N of G that leaves all others alone
 * is read off the strong generating set. If N holds every even exchange of what it moves (its order
 * tells), an element of L lies in N exactly if its invariants do, so the intersection is counted by
 * spans of invariants; otherwise the elements of the smaller of L and N are tried one by one.
 */
import type { Puzzle } from '../puzzle/compile'
import type { State } from '../state'
import { INVERSE, multiply, type Rotation } from '../rotation'
import { frameOf } from './frame'
import {
  coordinatesFor,
  effectOfMove,
  spanSize,
  twistsAdd,
  vectorOf,
  type OrbitEffect,
} from './invariants'
import { moveOf, orbitsUnder, type Orbit } from './orbits'
import { PermutationGroup, type Permutation, type Progress } from './permutationGroup'
import { changesShape, layoutsOf, loopsThrough, type Layouts } from './layouts'
import { canBlock, familiesOf, reachOf } from './placements'
import { coreOf, loopsOf } from './shapes'
import { kindPlural, listed } from '../words'

export interface Order {
  /** Null where turns can be blocked: then the sequences do not form a group. */
  readonly groupOrder: bigint | null
  /** States that look different, the hold left out of account; null where it is not known. */
  readonly visibleStates: bigint | null
  /** All rearrangements of the pieces within their orbits, divided by the order of the group. */
  readonly index: bigint | null
  /** The same as the invariants alone would have it. */
  readonly indexByInvariants: bigint | null
  /** Shapes that the puzzle can take, the core kept still; null where it keeps its shape. */
  readonly silhouettes: bigint | null
  readonly invariants: readonly string[]
  /** What is not known, and why. */
  readonly remarks: readonly string[]
}

/** Most elements that are tried one by one. */
const TRY_LIMIT = 200_000n

export function orderOfPuzzle(puzzle: Puzzle, progress: Progress = () => undefined): Order {
  const core = changesShape(puzzle) ? coreOf(puzzle) : undefined
  if (core) {
    const silhouettes = picturesInHold(core)
    const loops = loopsOf(puzzle, core)
    return withIndexWords({ ...orderUnder(puzzle, loops, undefined, progress), silhouettes })
  }
  const layouts = layoutsOf(puzzle)
  if (layouts) return orderOfGlued(puzzle, layouts, progress)
  if (canBlock(puzzle)) return blockedOrder()
  const { turns, piece } = frameOf(puzzle)
  const moves = turns.map((turn) => moveOf(puzzle, turn))
  return withIndexWords(orderUnder(puzzle, moves, piece, progress))
}

/** Says so where the group is smaller than its invariants would have it. */
function withIndexWords(order: Order): Order {
  const { index, indexByInvariants } = order
  if (index === null || indexByInvariants === null || index === indexByInvariants) return order
  const remark = `Parities and twist sums would allow ${index / indexByInvariants} times as many states: some orbit carries a smaller group of its own.`
  return { ...order, remarks: [remark, ...order.remarks] }
}

/**
 * Every layout of the blocks is taken by as many states as the finished one, whose states the loops through
 * it generate (orbit and stabiliser, for a groupoid).
 */
function orderOfGlued(puzzle: Puzzle, layouts: Layouts, progress: Progress): Order {
  const { piece } = frameOf(puzzle)
  const loops: State[] = []
  let isOld: (state: State) => boolean = () => false
  let seen = 0
  for (const { effect } of loopsThrough(puzzle, layouts)) {
    if (++seen % 1000 === 0) progress(seen / (layouts.closing.length + seen))
    if (isOld(effect)) continue
    loops.push(effect)
    isOld = membershipUnder(puzzle, loops, piece, false)
  }
  const order = orderUnder(puzzle, loops, piece, progress)
  const count = BigInt(layouts.list.length)
  const times = (own: bigint | null) => own && own * count
  return {
    ...order,
    groupOrder: times(order.groupOrder),
    visibleStates: times(order.visibleStates),
    // Within one layout, which is not what these are said to count.
    index: null,
    indexByInvariants: null,
    invariants: order.invariants.map((sentence) =>
      count === 1n
        ? sentence
        : `With the blocks where they belong: ${sentence[0].toLowerCase()}${sentence.slice(1)}`,
    ),
    remarks: [
      `The blocks can lie in ${count === 1n ? 'one way only' : `${count} ways, every one with as many states as the finished one`}.`,
      ...order.remarks,
    ],
  }
}

/**
 * How many states moves make of the finished puzzle, all its pieces told apart. Not proven, and so rarely
 * too few: quick enough for a decision on the way.
 */
export function countUnder(
  puzzle: Puzzle,
  moves: readonly State[],
  fixed: number | undefined,
): bigint {
  return groupUnder(puzzle, moves, fixed, undefined, false).group.order
}

/** The group that moves generate, frame piece fixed, with the points that it permutes. */
function groupUnder(
  puzzle: Puzzle,
  moves: readonly State[],
  fixed: number | undefined,
  progress?: Progress,
  isProven = true,
): { readonly space: Space; readonly group: PermutationGroup } {
  const space = spaceOf(puzzle, orbitsUnder(puzzle, moves, fixed))
  const generators = moves.map((move) => space.permutationOf(effectsOf(puzzle, space.orbits, move)))
  const group = new PermutationGroup(space.degree, generators, space.base, progress, isProven)
  return { space, group }
}

function orderUnder(
  puzzle: Puzzle,
  moves: readonly State[],
  piece: number | undefined,
  progress: Progress,
): Order {
  const { space, group } = groupUnder(puzzle, moves, piece, progress)
  const effects = moves.map((move) => effectsOf(puzzle, space.orbits, move))
  const all = space.orbits.reduce((product, orbit) => product * allOf(orbit), 1n)
  const moduli = coordinatesFor(space.orbits).map(({ modulus }) => modulus)
  const vectors = effects.map((effect) => vectorOf(space.orbits, effect))
  const abelian = moduli.reduce((product, m) => product * BigInt(m), 1n)
  const indexByInvariants = twistsAdd(space.orbits) ? abelian / spanSize(vectors, moduli) : null
  const index = all / group.order
  const remarks: string[] = []
  return {
    groupOrder: group.order,
    visibleStates: visibleStates(puzzle, group, space, remarks),
    index,
    indexByInvariants,
    silhouettes: null,
    invariants: invariantWords(puzzle, space.orbits, vectors),
    remarks,
  }
}

/**
 * Whether turns lead to a state with all its pieces told apart, decided by the group itself; for states in
 * the frame and in shape. Undefined where turns form no group.
 */
export function membershipOf(puzzle: Puzzle): ((state: State) => boolean) | undefined {
  const core = changesShape(puzzle) ? coreOf(puzzle) : undefined
  if (!core && canBlock(puzzle)) return undefined
  const { turns, piece } = frameOf(puzzle)
  const moves = core ? loopsOf(puzzle, core) : turns.map((turn) => moveOf(puzzle, turn))
  return membershipUnder(puzzle, moves, core ? undefined : piece)
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

/**
 * What moves do to some orbits and to sums, as a test whether another move does nothing beyond it. Each sum
 * is a cycle of points of its own.
 */
export function groupOn(
  puzzle: Puzzle,
  orbits: readonly Orbit[],
  moduli: readonly number[],
  moves: readonly { readonly effect: State; readonly by: readonly number[] }[],
): (move: { readonly effect: State; readonly by: readonly number[] }) => boolean {
  const space = spaceOf(puzzle, orbits)
  const starts = moduli.map((_, c) => moduli.slice(0, c).reduce((a, b) => a + b, space.degree))
  const degree = moduli.reduce((a, b) => a + b, space.degree)
  const permutationOf = ({ effect, by }: (typeof moves)[number]) => {
    const permutation = new Uint16Array(degree)
    permutation.set(space.permutationOf(effectsOf(puzzle, space.orbits, effect)))
    moduli.forEach((modulus, c) => {
      for (let i = 0; i < modulus; i++)
        permutation[starts[c] + i] = starts[c] + ((i + by[c]) % modulus)
    })
    return permutation
  }
  const group = new PermutationGroup(degree, moves.map(permutationOf), [...space.base, ...starts])
  return (move) => group.contains(permutationOf(move))
}

/**
 * States that look different when the frame is known to be still, as the core of a puzzle that changes
 * shape is: its mechanism shows the hold even where the colours do not.
 */
export function picturesInHold(puzzle: Puzzle): bigint | null {
  const { turns, piece } = frameOf(puzzle)
  const moves = turns.map((turn) => moveOf(puzzle, turn))
  const { space, group } = groupUnder(puzzle, moves, piece)
  const both = commonOrder(group, space, [])
  return both === null ? null : group.order / both
}

const blockedOrder = (): Order => ({
  groupOrder: null,
  visibleStates: null,
  index: null,
  indexByInvariants: null,
  silhouettes: null,
  invariants: [],
  remarks: [
    'Which turns are free depends on the state, so the sequences of turns do not form a group; the states are not counted.',
  ],
})

/** All arrangements and twists of one orbit. */
function allOf({ places, orientations }: Orbit): bigint {
  let product = 1n
  places.forEach((_, i) => (product *= BigInt(i + 1) * BigInt(orientations.length)))
  return product
}

/**
 * Places with orientations as points: orbit after orbit, those without look-alikes first; then the
 * bare places of orbits whose only look-alikes are turns in place; then the orbits with look-alikes.
 */
interface Space {
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

interface LookClass {
  /** Positions in the orbit. */
  readonly places: readonly number[]
  /** How many orientations in place look alike. */
  readonly unseen: number
  /** Rearrangements that generate all of the class that look like the start. */
  readonly generators: readonly OrbitEffect[]
}

function spaceOf(puzzle: Puzzle, found: readonly Orbit[]): Space {
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

const onlySpins = (classes: readonly LookClass[]) =>
  classes.every(({ places }) => places.length === 1)

const effectsOf = (puzzle: Puzzle, orbits: readonly Orbit[], move: State) =>
  orbits.map((orbit) => effectOfMove(puzzle, orbit, move))

const still = ({ places }: Orbit): OrbitEffect => ({
  to: places.map((_, i) => i),
  change: places.map(() => 0),
})

/**
 * Which pieces of an orbit look at some place as its own piece does. An orientation o of the piece of
 * place i at place j stands for the rotation c(j) o c(i)'.
 */
function lookClasses(puzzle: Puzzle, orbit: Orbit): LookClass[] {
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
    return [{ places: alike, unseen: alikeAt(i, i).length, generators: [...swaps, ...spins] }]
  })
}

function visibleStates(
  puzzle: Puzzle,
  group: PermutationGroup,
  space: Space,
  remarks: string[],
): bigint | null {
  if (!showsItsHold(puzzle)) {
    if (!canBlock(puzzle)) return visibleUpToHold(puzzle, remarks)
    remarks.push('How many states look different is not counted: the hold cannot be told by eye.')
    return null
  }
  const both = commonOrder(group, space, remarks)
  return both === null ? null : group.order / both
}

/**
 * Whether the eye sees which way the frame is held: no other piece, and no other turn, can look like
 * the frame piece in its place; or, where the frame is the hidden core, pieces that never leave their
 * places tell every hold from every other.
 */
function showsItsHold(puzzle: Puzzle): boolean {
  const { pieces, holds, look, place } = puzzle
  const frame = frameOf(puzzle).piece
  if (frame !== undefined)
    return pieces.every((_, p) =>
      holds.every((hold) =>
        reachOf(puzzle)[p].every((r) => {
          const held = 24 * p + multiply(hold, r)
          return (
            place[held] !== frame ||
            look[held] !== look[24 * frame] ||
            (p === frame && r === 0 && hold === 0)
          )
        }),
      ),
    )
  const still = familiesOf(puzzle).flatMap(({ pieces: own, slots }) =>
    slots.length === 1 ? own : [],
  )
  return holds.every(
    (hold) =>
      hold === 0 ||
      still.some((p) => {
        const at = place[24 * p + hold]
        const shown = look[24 * p + hold]
        return still.includes(at) && reachOf(puzzle)[at].every((r) => look[24 * at + r] !== shown)
      }),
  )
}

/**
 * Where the hold is not seen, a state may look like another one held differently. So the whole-puzzle
 * turns are taken into the group, the looks of all are counted, and divided by the holds. None of these
 * leaves a picture as it is if all pieces look different; otherwise the count is not given.
 */
function visibleUpToHold(puzzle: Puzzle, remarks: string[]): bigint | null {
  const turns = [...frameOf(puzzle).turns, ...puzzle.turns.filter(({ whole }) => whole)]
  const moves = turns.map((turn) => moveOf(puzzle, turn))
  const space = spaceOf(puzzle, orbitsUnder(puzzle, moves, undefined))
  if (space.alike.flat().some(({ places }) => places.length > 1)) {
    remarks.push(
      'How many states look different is not counted: some may look the same in another hold, because neither the hold nor all pieces can be told by eye.',
    )
    return null
  }
  const generators = moves.map((move) => space.permutationOf(effectsOf(puzzle, space.orbits, move)))
  const group = new PermutationGroup(space.degree, generators, space.base)
  const both = commonOrder(group, space, remarks)
  return both === null ? null : group.order / both / BigInt(puzzle.holds.length)
}

/** The order of what the group has in common with the rearrangements that look like the start. */
function commonOrder(group: PermutationGroup, space: Space, remarks: string[]): bigint | null {
  const { active, alike } = space
  if (active === space.orbits.length) return 1n
  const moved = new Set(
    space.orbits
      .slice(active)
      .flatMap(({ places, orientations }, o) =>
        Array.from(
          { length: places.length * orientations.length },
          (_, i) => space.starts[active + o] + i,
        ),
      ),
  )
  const level = group.levels.findIndex(({ point }) => moved.has(point))
  const order = group.orderFrom(level)
  const looksAlike = alike.flat().reduce((product, { places, unseen }) => {
    let own = 1n
    places.forEach((_, i) => (own *= BigInt(i + 1) * BigInt(unseen)))
    return product * own
  }, 1n)
  const parts = space.orbits
    .slice(active)
    .flatMap((orbit, o) => (onlySpins(alike[active + o]) ? eachPlace(orbit) : [orbit]))
  if (twistsAdd(parts)) {
    const vector = (effects: readonly OrbitEffect[]) =>
      vectorOf(
        parts,
        effects.flatMap((effect, o) =>
          onlySpins(alike[active + o])
            ? effect.change.map((change) => ({ to: [0], change: [change] }))
            : [effect],
        ),
      )
    const moduli = coordinatesFor(parts).map(({ modulus }) => modulus)
    const own = (group.levels[level]?.generators ?? []).map((g) => vector(readEffects(space, g)))
    const ofLooks = alike.flatMap((list, o) =>
      list.flatMap(({ generators }) =>
        generators.map((effect) =>
          vector(
            space.orbits.flatMap((orbit, i) =>
              i < active ? [] : [i === o ? effect : still(orbit)],
            ),
          ),
        ),
      ),
    )
    const all = parts.reduce((product, orbit) => product * allOf(orbit), 1n)
    const abelian = moduli.reduce((product, m) => product * BigInt(m), 1n)
    const span = spanSize(own, moduli)
    if (order * abelian === all * span)
      return (looksAlike * span) / spanSize([...own, ...ofLooks], moduli)
  }
  if (looksAlike <= TRY_LIMIT) return countCommon(group, space, looksAlike)
  remarks.push(
    'How many states look different is not known: the look-alikes lie in orbits that carry smaller groups of their own, and there are too many to try.',
  )
  return null
}

/** An orbit whose pieces stay where they are, as one orbit a place. */
const eachPlace = ({ places, reference, orientations }: Orbit): Orbit[] =>
  places.map((place, i) => ({
    places: [place],
    reference: [reference[i]],
    orientations,
  }))

/** What a permutation of points does to the orbits with look-alikes. */
function readEffects({ orbits, starts, active }: Space, g: Permutation): OrbitEffect[] {
  return orbits.slice(active).map(({ places, orientations }, i) => {
    const start = starts[active + i]
    const images = places.map((_, at) => g[start + at * orientations.length] - start)
    return {
      to: images.map((image) => Math.floor(image / orientations.length)),
      change: images.map((image) => orientations[image % orientations.length]),
    }
  })
}

/** All elements of the look-alike group, made breadth first, tried in the group one by one. */
function countCommon(group: PermutationGroup, space: Space, expected: bigint): bigint {
  const generators = space.alike.flatMap((list, o) =>
    list.flatMap(({ generators: own }) =>
      own.map((effect) =>
        space.permutationOf(space.orbits.map((orbit, i) => (i === o ? effect : still(orbit)))),
      ),
    ),
  )
  const first = Uint16Array.from({ length: space.degree }, (_, i) => i)
  const key = (g: Permutation) => String.fromCharCode(...g)
  const found = [first]
  const seen = new Set([key(first)])
  let common = 0n
  for (const element of found) {
    if (group.contains(element)) common++
    for (const generator of generators) {
      const next = new Uint16Array(space.degree)
      for (let i = 0; i < next.length; i++) next[i] = generator[element[i]]
      const text = key(next)
      if (seen.has(text)) continue
      seen.add(text)
      found.push(next)
    }
  }
  if (BigInt(found.length) !== expected) throw new Error('look-alikes were miscounted')
  return common
}

/** What the vectors of all turns have in common, in words. */
function invariantWords(
  puzzle: Puzzle,
  orbits: readonly Orbit[],
  vectors: readonly (readonly number[])[],
): string[] {
  const kindsOf = ({ places }: Orbit) =>
    listed([...new Set(places.map((p) => kindPlural(puzzle.pieces[p].kind)))])
  const nameOf = (orbit: Orbit) => {
    const isOnly = orbits.filter((other) => kindsOf(other) === kindsOf(orbit)).length === 1
    if (orbit.places.length === 1) return `the piece ${puzzle.pieces[orbit.places[0]].id}`
    const which = isOnly ? '' : ` of the orbit of ${puzzle.pieces[orbit.places[0]].id}`
    return `the ${orbit.places.length} ${kindsOf(orbit)}${which}`
  }
  const columns = coordinatesFor(orbits).map((coordinate, c) => ({
    ...coordinate,
    name: nameOf(orbits[coordinate.orbit]),
    values: vectors.map((v) => v[c]),
  }))
  const words: string[] = []
  for (const { what, values, name, modulus } of columns) {
    if (!values.every((v) => v === 0)) continue
    if (what === 'parity') words.push(`Exchanges of ${name} are always even.`)
    else if (modulus === 2) words.push(`Flips of ${name} are always even in number.`)
    else words.push(`Twists of ${name} always add up to whole turns.`)
  }
  const groups = new Map<string, string[]>()
  for (const { what, values, name, modulus } of columns) {
    const key = values.map((v) => v % 2).join('')
    if (modulus % 2 === 1 || !key.includes('1')) continue
    const twist = modulus === 2 ? 'flips' : 'quarter turns'
    const told = `${what === 'parity' ? 'exchanges' : twist} of ${name}`
    groups.set(key, [...(groups.get(key) ?? []), told])
  }
  for (const told of groups.values())
    if (told.length > 1) words.push(`Odd together or even together: ${told.join('; ')}.`)
  return words
}

/** As the command line prints it: whole numbers as strings. */
export function writeOrder(order: Order) {
  const written = (n: bigint | null) => (n === null ? null : `${n}`)
  return {
    groupOrder: written(order.groupOrder),
    visibleStates: written(order.visibleStates),
    index: written(order.index),
    indexByInvariants: written(order.indexByInvariants),
    silhouettes: written(order.silhouettes),
    invariants: order.invariants,
    remarks: order.remarks,
  }
}
