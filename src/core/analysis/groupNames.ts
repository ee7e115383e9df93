/**
 * What a group of places is called, so that a person can tell it from the other groups of its kind: by
 * the cube that it belongs to, by how its pieces look, by the layers and faces that it lies in, by the
 * side of its pair. As few of these as tell it apart.
 */
import { average } from '../geometry/vector'
import type { Puzzle } from '../puzzle/compile'
import { DIRECTIONS } from '../puzzle/directions'
import { posed, poseOf } from '../puzzle/view'
import type { Vector } from '../rotation'
import { baseKind, inWords, kindPlural, listed, shortKind } from '../phrases'
import { frameOf } from './frame'
import { handReachOf } from './placements'
import { cubeWords, ORDINALS } from './placeNames'

export interface GroupName {
  /** In the plural: 'edges of the middle layer'. */
  readonly name: string
  /** Its places, with that of the piece that is kept still where that piece is one of them. */
  readonly places: readonly number[]
  /** Whether it holds every place of its kind. */
  readonly isAll: boolean
}

/** One word order a feature: adjectives before the noun, the rest behind it. */
interface Feature {
  readonly noun?: string
  readonly behind?: string
}

export function groupNames(puzzle: Puzzle, groups: readonly (readonly number[])[]): GroupName[] {
  const given = groups.map((places) => withStill(puzzle, places))
  const whole = [...given, ...leftOver(puzzle, given)]
  const nouns = whole.map((places) => nounOf(puzzle, places))
  const features = whole.map((places) => featuresOf(puzzle, places))
  const counts = whole.map((places) => places.length)
  return given.map((places, g) => {
    const rivals = whole.flatMap((_, i) => (i !== g && nouns[i] === nouns[g] ? [i] : []))
    const tells = (chosen: readonly number[]) =>
      rivals.every(
        (i) => wordsOf(nouns[i], features[i], chosen) !== wordsOf(nouns[g], features[g], chosen),
      )
    const chosen = SUBSETS.find(tells)
    const kind = (p: number) => shortKind(puzzle.pieces[p].kind)
    return {
      name:
        chosen === undefined
          ? `${nouns[g]}, group ${inWords(1 + rivals.filter((i) => i < g).length)}`
          : wordsOf(nouns[g], features[g], chosen),
      places,
      isAll:
        rivals.length === 0 &&
        counts[g] ===
          puzzle.pieces.filter((_, p) => places.some((q) => kind(q) === kind(p))).length,
    }
  })
}

/** Pieces that no group holds, kind by kind: a name must not mean them too. */
function leftOver(puzzle: Puzzle, groups: readonly (readonly number[])[]): number[][] {
  const held = new Set(groups.flat())
  const rest = puzzle.pieces.flatMap(({ faces }, p) =>
    held.has(p) || faces.length === 0 ? [] : [p],
  )
  const kinds = new Set(rest.map((p) => puzzle.pieces[p].kind))
  return [...kinds].map((kind) => rest.filter((p) => puzzle.pieces[p].kind === kind))
}

/** 'all 12 edges' or 'the 4 edges of the middle layer' */
export const countedName = ({ name, places, isAll }: GroupName): string =>
  `${isAll ? 'all' : 'the'} ${places.length} ${name}`

/** Which features are used, the fewest first. */
const SUBSETS: readonly (readonly number[])[] = [0, 1, 2, 3, 4, 5, 6].flatMap((size) =>
  subsets([0, 1, 2, 3, 4, 5], size),
)

function subsets(items: readonly number[], size: number): number[][] {
  if (size === 0) return [[]]
  return items.flatMap((item, i) =>
    subsets(items.slice(i + 1), size - 1).map((rest) => [item, ...rest]),
  )
}

function wordsOf(noun: string, features: readonly Feature[], chosen: readonly number[]): string {
  const used = chosen.map((i) => features[i])
  const named = used.find((feature) => feature.noun !== undefined)?.noun ?? noun
  return [named, ...used.flatMap(({ behind }) => (behind ? [behind] : []))].join(' ')
}

/** Of more sizes than this none is named: 'edges'. */
const MOST_SIZES = 3

function nounOf({ pieces }: Puzzle, places: readonly number[]): string {
  const kinds = (name: (kind: string) => string) => [
    ...new Set(places.map((p) => name(pieces[p].kind))),
  ]
  const sized = kinds(shortKind)
  return listed((sized.length > MOST_SIZES ? kinds(baseKind) : sized).map(kindPlural))
}

/** The piece that is kept still when states are told apart is one of the group if it can lie in it. */
function withStill(puzzle: Puzzle, places: readonly number[]): number[] {
  const still = frameOf(puzzle).piece
  if (still === undefined || places.includes(still)) return [...places]
  const reached = new Set(handReachOf(puzzle)[still].map((r) => puzzle.slot[24 * still + r]))
  return places.some((place) => reached.has(place)) ? [still, ...places] : [...places]
}

function featuresOf(puzzle: Puzzle, places: readonly number[]): Feature[] {
  const pose = poseOf(puzzle.definition)
  const at = (p: number): Vector => posed(pose, average(puzzle.pieces[p].cells))
  const points = places.map(at)
  const cores = [...new Set(places.map((p) => puzzle.pieces[p].core))]
  const kinds = [...new Set(places.map((p) => puzzle.pieces[p].kind))]
  return [
    { behind: cores.length === 1 ? cubeWords(puzzle, cores[0]).trim() : '' },
    { noun: kinds.length === 1 ? kindPlural(kinds[0]) : undefined },
    {
      behind: layersOf(
        puzzle.pieces.map((_, p) => at(p)[1]),
        points.map(([, y]) => y),
      ),
    },
    { behind: facesOf(points) },
    { behind: pairSide(points) },
    { behind: runningWords(puzzle, places) },
  ]
}

const rounded = (n: number) => Math.round(n * 1e3) / 1e3 + 0

/** 'of the second and fourth layers' */
function layersOf(all: readonly number[], own: readonly number[]): string {
  const heights = [...new Set(all.map(rounded))].sort((a, b) => b - a)
  const used = heights.flatMap((height, i) => (own.some((y) => rounded(y) === height) ? [i] : []))
  if (used.length === heights.length || used.length > 3) return ''
  const name = (i: number) => {
    if (i === 0) return 'top'
    if (i === heights.length - 1) return 'bottom'
    return 2 * i + 1 === heights.length ? 'middle' : (ORDINALS[i] ?? `${i + 1}th`)
  }
  return `of the ${listed(used.map(name))} layer${used.length > 1 ? 's' : ''}`
}

/** 'of the left and right faces': the level directions in which all of them lie farthest out. */
function facesOf(points: readonly Vector[]): string {
  const sides = points.map(([x, , z]) => {
    if (Math.abs(Math.abs(x) - Math.abs(z)) < 1e-6) return undefined
    const out: Vector = Math.abs(x) > Math.abs(z) ? [Math.sign(x), 0, 0] : [0, 0, Math.sign(z)]
    return DIRECTIONS.find(({ vector }) => vector.every((c, i) => c === out[i]))
  })
  if (sides.includes(undefined)) return ''
  const used = DIRECTIONS.filter((side) => sides.includes(side))
  return used.length > 2 ? '' : `of the ${listed(used.map(({ adjective }) => adjective))} faces`
}

/** Of edges that all run one way: 'from left to right'. */
function runningWords(puzzle: Puzzle, places: readonly number[]): string {
  const pose = poseOf(puzzle.definition)
  const all = puzzle.pieces.map(({ cells }) => posed(pose, average(cells)))
  const reach = [0, 1, 2].map((axis) => Math.max(...all.map((at) => Math.abs(at[axis]))))
  const inner = places.map((p) =>
    [0, 1, 2].filter((axis) => Math.abs(all[p][axis]) < reach[axis] - 1e-6),
  )
  const [first] = inner
  if (first.length !== 1 || inner.some((axes) => axes.length !== 1 || axes[0] !== first[0]))
    return ''
  return ['from left to right', 'that stand upright', 'from front to back'][first[0]]
}

/**
 * Of pieces that lie beside the middle of a side: whether to its right or its left, with the nearer end
 * of the puzzle up and that side in front.
 */
function pairSide(points: readonly Vector[]): string {
  const hands = points.map(([x, y, z]) => {
    if (Math.abs(Math.abs(x) - Math.abs(z)) < 1e-6 || Math.abs(y) < 1e-6) return 0
    const isSide = Math.abs(x) > Math.abs(z)
    // Up cross out is to the right.
    const right = isSide ? -Math.sign(x) * z : Math.sign(z) * x
    return Math.sign(right * Math.sign(y))
  })
  if (hands.some((hand) => hand === 0 || hand !== hands[0])) return ''
  return `to the ${hands[0] > 0 ? 'right' : 'left'} of the middle, seen with the nearer end up`
}
