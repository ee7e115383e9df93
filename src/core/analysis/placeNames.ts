/**
 * What a place is called, by where one sees it: 'the top right front corner', 'the left one of the two
 * top back edges', 'the corner of the upper ring at 2 o'clock'. A name is told in one hold and is that of
 * one place only, among all places of the puzzle in that hold.
 *
 * Two ways of telling: by the six directions where the layers lie level in the picture; else by rings
 * about the upright axis, and round them as on a clock seen from above, with 6 nearest to the solver.
 */
import { average, dot, length, subtract, unit } from '../geometry/vector'
import { placed, type Piece, type Puzzle } from '../puzzle/compile'
import { DIRECTIONS, type Direction } from '../puzzle/directions'
import { posed, poseOf, type Pose } from '../puzzle/view'
import { rotate, type Rotation, type Vector } from '../rotation'
import { inWords, listed, baseKind } from '../phrases'

export interface PlaceNames {
  /** For each home (index of its piece): 'the top right front corner'. */
  readonly names: readonly string[]
  /** The same without what is there, where that has been said: 'top, front right'. */
  readonly points: readonly string[]
  /** Whether hours of the clock are used, so that it must be said how it is read. */
  readonly usesClock: boolean
}

/** How the hours in a name are read. */
export const CLOCK_WORDS = 'Hours are those of a clock seen from above, 6 nearest to you.'

/** A place as it is told: its noun, its points in the picture, and what it belongs to. */
interface Spot {
  readonly piece: number
  readonly noun: string
  /** In the picture's axes, about the middle of its cube: the middle of its cells. */
  readonly at: Vector
  /** The sides of the box that it lies on, as letters. */
  readonly sides: readonly Direction[]
  /** Of a piece that is a part of one face only, and lies at its edge: that face. */
  readonly face?: Direction
  /** ' of the upper right cube', where there are several. */
  readonly cube: string
}

const known = new WeakMap<Puzzle, Map<Rotation, PlaceNames>>()

/** The names of all homes when the puzzle is held in a frame (the rotation of every finished piece). */
export function placeNamesOf(puzzle: Puzzle, frame: Rotation): PlaceNames {
  const frames = known.get(puzzle) ?? new Map<Rotation, PlaceNames>()
  known.set(puzzle, frames)
  let found = frames.get(frame)
  if (!found) {
    found = namesIn(puzzle, frame)
    frames.set(frame, found)
  }
  return found
}

function namesIn(puzzle: Puzzle, frame: Rotation): PlaceNames {
  const pose = poseOf(puzzle.definition)
  const isLevel = pose.every((row) => row.filter((c) => Math.abs(c) > 1e-6).length === 1)
  const spots = spotsIn(puzzle, frame, pose, isLevel)
  const names = new Array<string>(puzzle.pieces.length).fill('')
  const points = new Array<string>(puzzle.pieces.length).fill('')
  let usesClock = false
  const groups = grouped(spots, ({ noun, cube, sides, face }) =>
    [noun, cube, face?.letter ?? '', ...sides.map(({ letter }) => letter)].join('|'),
  )
  for (const group of groups) {
    const told = isLevel ? byDirections(group) : byRings(group)
    usesClock ||= told.some(({ name }) => name.includes("o'clock"))
    group.forEach(({ piece }, i) => {
      names[piece] = told[i].name
      points[piece] = told[i].point
    })
  }
  return {
    names: numberedWhereEqual(names, spots, (name) => name),
    points: numberedWhereEqual(points, spots, (point, { noun }) => `${noun} ${point}`),
    usesClock,
  }
}

function spotsIn(puzzle: Puzzle, frame: Rotation, pose: Pose, isLevel: boolean): Spot[] {
  const cores = puzzle.cores.map((core) => posed(pose, rotate(frame, core)))
  const placeOfPiece = ({ cells, core }: Piece) =>
    cells.map((cell) =>
      subtract(posed(pose, placed(puzzle.cores[core], frame, cell)), cores[core] ?? [0, 0, 0]),
    )
  const all = puzzle.pieces.map(placeOfPiece)
  return puzzle.pieces.map((piece, p): Spot => {
    const own = all.filter((_, other) => puzzle.pieces[other].core === piece.core).flat()
    const sides = isLevel ? sidesOf(all[p], own) : []
    const shown = sides.length > 1 ? faceOf(piece, frame, pose) : undefined
    const face = shown && sides.includes(shown) ? shown : undefined
    return {
      piece: p,
      noun: baseKind(piece.kind),
      at: average(all[p]),
      sides: sides.filter((side) => side !== face),
      cube: cubeOf(cores, piece.core),
      ...(face ? { face } : {}),
    }
  })
}

/** The direction in which a piece shows its only face, if it is one of the six. */
function faceOf({ faces }: Piece, frame: Rotation, pose: Pose): Direction | undefined {
  if (faces.length !== 1) return undefined
  const shown = unit(posed(pose, rotate(frame, faces[0].normal)))
  return DIRECTIONS.find(({ vector }) => dot(vector, shown) > 1 - 1e-9)
}

/** How far within the outermost cells a place still lies on their side, in cells. */
const OUTER = 0.49

/** The sides on which the cells of a place are outermost; opposite ones (a whole bar) say nothing. */
function sidesOf(cells: readonly Vector[], all: readonly Vector[]): Direction[] {
  const most = (points: readonly Vector[], { vector }: Direction) =>
    Math.max(...points.map((point) => dot(point, vector)))
  const lies = DIRECTIONS.filter(
    (side) => most(cells, side) > most(all, side) - OUTER && most(all, side) > 1e-6,
  )
  return lies.filter((side) => !lies.some((other) => dot(other.vector, side.vector) < 0))
}

/** ' of the upper right cube', as the puzzle stands when it is finished. */
export const cubeWords = ({ cores, definition }: Puzzle, own: number): string => {
  const pose = poseOf(definition)
  return cubeOf(
    cores.map((core) => posed(pose, core)),
    own,
  )
}

function cubeOf(cores: readonly Vector[], own: number): string {
  if (cores.length === 1) return ''
  const middle = average(cores)
  const away = subtract(cores[own], middle)
  const told = DIRECTIONS.filter(({ vector }) => dot(vector, away) > 1e-6)
  const words = inOrder(told).map((side) => BETWEEN[side.letter] ?? side.adjective)
  return ` of the ${words.join(' ')} cube`
}

/** Within a group, and of cubes: 'upper' and not 'top', which is the name of a side. */
const BETWEEN: Readonly<Record<string, string>> = { U: 'upper', D: 'lower' }

/** Height first, then side, then depth, as one says it. */
const SAID = ['U', 'D', 'R', 'L', 'F', 'B']
const inOrder = (sides: readonly Direction[]): Direction[] =>
  [...sides].sort((a, b) => SAID.indexOf(a.letter) - SAID.indexOf(b.letter))

/** A place as it is called, and as one points at it. */
interface Told {
  readonly name: string
  readonly point: string
}

/** 'top, front right', 'bottom back', 'left': height first, then depth, then side. */
function pointedAt(sides: readonly Direction[]): string {
  const words = DIRECTIONS.filter((side) => sides.includes(side)).map(({ adjective }) => adjective)
  return words.length > 2 ? `${words[0]}, ${words.slice(1).join(' ')}` : words.join(' ')
}

/** Parts of a point, from the large to the small; what is in the middle of all says so. */
const pointOf = (...parts: readonly string[]): string =>
  parts.filter(Boolean).join(', ') || 'in the middle'

const withoutOf = (text: string): string => text.replace(/^ of the /, '')

function byDirections(group: readonly Spot[]): Told[] {
  const [{ noun, sides, face }] = group
  const cube = (face ? ` of the ${face.adjective} face` : '') + group[0].cube
  const what = [...inOrder(sides).map(({ adjective }) => adjective), noun].join(' ')
  const around = [withoutOf(group[0].cube), face ? `${face.adjective} face` : '', pointedAt(sides)]
  if (group.length === 1)
    return [
      {
        name: `the ${sides.length === 0 ? 'inner ' : ''}${what}${cube}`,
        point: pointOf(...around),
      },
    ]
  const whole = `${inWords(group.length)} ${what}s${cube}`
  const all = group.map(({ at }) => at)
  const axes = AXES.filter(({ axis }) => levelsOf(all, axis).length > 1)
  return group.map((spot) => {
    const words = axes.map(({ axis, low, high, from }) => {
      const levels = levelsOf(all, axis)
      return levelWord(indexIn(levels, spot.at[axis]), levels.length, { low, high, from })
    })
    const short = words.filter(({ adjective }) => adjective !== undefined)
    const long = words.filter(({ adjective }) => adjective === undefined)
    const first = [...short.map(({ adjective }) => adjective), 'one'].filter(Boolean).join(' ')
    const isMiddle = short.length > 0 && short.every(({ adjective }) => adjective === '')
    const second = long.map(({ counted }) => counted)
    const among = [...short.map(({ adjective }) => adjective)].filter(Boolean).join(' ')
    return {
      name: `the ${isMiddle ? 'middle ' : ''}${first}${second.length > 0 ? `, ${listed(second)},` : ''} of the ${whole}`,
      point: pointOf(...around, isMiddle ? 'middle' : among, listed(second)),
    }
  })
}

interface AxisWords {
  readonly low: string
  readonly high: string
  /** From which end levels are counted. */
  readonly from: string
}

const AXES: readonly (AxisWords & { readonly axis: 0 | 1 | 2 })[] = [
  { axis: 1, low: 'lower', high: 'upper', from: 'from above' },
  { axis: 0, low: 'left', high: 'right', from: 'from the left' },
  { axis: 2, low: 'back', high: 'front', from: 'from the front' },
]

export const ORDINALS = [
  'first',
  'second',
  'third',
  'fourth',
  'fifth',
  'sixth',
  'seventh',
  'eighth',
]

/** One level of several: by an adjective ('' in the middle of three), or counted. */
function levelWord(at: number, count: number, { low, high, from }: AxisWords) {
  if (count === 2) return { adjective: at === 0 ? low : high, counted: '' }
  if (count === 3) return { adjective: [low, '', high][at], counted: '' }
  const nth = from === 'from the left' ? at : count - 1 - at
  return { adjective: undefined, counted: `${ORDINALS[nth] ?? nth + 1} ${from}` }
}

const rounded = (n: number) => Math.round(n * 1e4) / 1e4 + 0

/** The different heights of a group along an axis, the least first. */
const levelsOf = (points: readonly Vector[], axis: 0 | 1 | 2): number[] =>
  [...new Set(points.map((at) => rounded(at[axis])))].sort((a, b) => a - b)

const indexIn = (levels: readonly number[], value: number): number => levels.indexOf(rounded(value))

const RINGS: readonly (readonly string[])[] = [
  [],
  [''],
  ['upper', 'lower'],
  ['upper', 'middle', 'lower'],
  ['top', 'upper', 'lower', 'bottom'],
  ['top', 'upper', 'middle', 'lower', 'bottom'],
]

/** A group in rings about the upright axis, the highest first. */
function byRings(group: readonly Spot[]): Told[] {
  const [{ noun, cube }] = group
  const all = group.map(({ at }) => at)
  return group.map(({ at }) => {
    const { height, side, hour } = ringOf(at, all)
    const counted = height.startsWith('ring') ? ` of ${height}` : ''
    const words = [counted === '' ? height : '', side, noun].filter(Boolean).join(' ')
    return {
      name: `the ${words}${cube}${counted}${hour}`,
      point: pointOf(
        withoutOf(cube),
        [height, side].filter(Boolean).join(' '),
        hour.replace(/^ at /, ''),
      ),
    }
  })
}

/** 'upper right', 'lower at 10 o'clock': where a point lies among others. */
export function ringWords(at: Vector, all: readonly Vector[]): string {
  const { height, side, hour } = ringOf(at, all)
  return [height, `${side}${hour}`.trim()].filter(Boolean).join(' ')
}

function ringOf(at: Vector, all: readonly Vector[]) {
  const heights = levelsOf(all, 1).reverse()
  const nth = indexIn(heights, at[1])
  const ring = all.filter((other) => rounded(other[1]) === heights[nth])
  const height = RINGS[heights.length]?.[nth] ?? `ring ${nth + 1} from the top`
  if (ring.length === 1) {
    const end = nth === 0 ? 'top' : nth === heights.length - 1 ? 'bottom' : height
    return { height: heights.length === 1 ? '' : end, side: '', hour: '' }
  }
  // Where every other ring is a single place, the height says nothing.
  const isOnly = all.every(
    (other) =>
      ring.includes(other) ||
      !all.some((third) => third !== other && rounded(third[1]) === rounded(other[1])),
  )
  const told = isOnly ? '' : height
  const word = [sideWord, cornerWord].find(
    (wordFor) => ring.length <= 4 && new Set(ring.map(wordFor)).size === ring.length,
  )
  return word
    ? { height: told, side: word(at), hour: '' }
    : { height: told, side: '', hour: ` at ${hourWords(at)}` }
}

/** Degrees from the side that is nearest to the solver, clockwise as seen from above. */
const roundFromFront = ([x, , z]: Vector): number =>
  ((Math.atan2(-x, z) * 180) / Math.PI + 360 + 1e-6) % 360

/** The nearest of four sides; what lies half way between two is told by the one of them to the side. */
function sideWord(at: Vector): string {
  const angle = roundFromFront(at)
  const off = angle % 90
  if (off > 40 && off < 50) return cornerWord(at)
  if (angle <= 30.01 || angle >= 329.99) return 'front'
  if (angle >= 149.99 && angle <= 210.01) return 'back'
  return angle < 180 ? 'left' : 'right'
}

/** One of eight: 'right front'. */
function cornerWord(at: Vector): string {
  const eighth = Math.round(roundFromFront(at) / 45) % 8
  return ['front', 'left front', 'left', 'left back', 'back', 'right back', 'right', 'right front'][
    eighth
  ]
}

function hourWords(at: Vector): string {
  const halves = Math.round(roundFromFront(at) / 15)
  const hour = ((((halves >> 1) + 6 - 1) % 12) + 12) % 12
  return halves % 2 === 0 ? `${hour + 1} o'clock` : `half past ${hour + 1}`
}

/** What two places share is told apart by counting outward, which is the last resort. */
function numberedWhereEqual(
  names: readonly string[],
  spots: readonly Spot[],
  key: (name: string, spot: Spot) => string,
): string[] {
  const distance = (p: number) => length(spots[p].at)
  const keys = names.map((name, p) => key(name, spots[p]))
  return names.map((name, p) => {
    const same = keys.flatMap((other, q) => (other === keys[p] ? [q] : []))
    if (same.length === 1) return name
    const order = [...same].sort((a, b) => distance(b) - distance(a) || a - b)
    return `${name}, ${ORDINALS[order.indexOf(p)] ?? order.indexOf(p) + 1} of ${order.length} from outside`
  })
}

function grouped<T>(items: readonly T[], key: (item: T) => string): T[][] {
  const groups = new Map<string, T[]>()
  for (const item of items) groups.set(key(item), [...(groups.get(key(item)) ?? []), item])
  return [...groups.values()]
}
