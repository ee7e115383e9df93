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
import { frameOf } from './frame'
import { vectorOf } from './invariants'
import { invariantWords } from './invariantWords'
import { changesShape, generatorsThrough, layoutsOf, type Layouts } from './layouts'
import { moveOf, type Orbit } from './orbits'
import { PermutationGroup, type Progress } from './permutationGroup'
import { canBlock } from './placements'
import { coreOf, loopsOf } from './shapes'
import { allOf, effectsOf, groupUnder, membershipUnder, spaceOf } from './space'
import { commonOrder, visibleStates } from './visible'

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
  const loops = generatorsThrough(puzzle, layouts, piece, progress)
  const order = orderUnder(puzzle, loops, piece, progress)
  const count = BigInt(layouts.list.length)
  return {
    ...order,
    groupOrder: order.groupOrder && order.groupOrder * count,
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

function orderUnder(
  puzzle: Puzzle,
  moves: readonly State[],
  piece: number | undefined,
  progress: Progress,
): Order {
  const { space, group, most } = groupUnder(puzzle, moves, piece, progress)
  const vectors = moves.map((move) => vectorOf(space.orbits, effectsOf(puzzle, space.orbits, move)))
  const all = space.orbits.reduce((product, orbit) => product * allOf(orbit), 1n)
  const indexByInvariants = most === undefined ? null : all / most
  const index = all / group.order
  const remarks: string[] = []
  return {
    groupOrder: group.order,
    visibleStates: visibleStates(puzzle, moves, group, space, remarks),
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
