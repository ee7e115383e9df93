/**
 * What is written and drawn over the windows: letters at their layers, numbers on pieces, arrows from
 * place to place, and a bent arrow for the next turn. All in CSS pixels of the canvas.
 */
import { add, average, cross, dot, length, scale, subtract, unit } from '@/core/geometry/vector'
import { roomIn } from '@/core/geometry/outline'
import { IN, placed, type Puzzle, type Turn } from '@/core/puzzle/compile'
import { drawnFaces } from '@/core/puzzle/drawnFaces'
import { rotate, type Rotation, type Vector } from '@/core/rotation'
import type { State } from '@/core/state'

export type Point = readonly [number, number]

/** A window as it is looked through, in the puzzle's own coordinates. */
export interface Eye {
  readonly from: Vector
  readonly flat: (point: Vector) => Point
  /** The nearest point at which a letter is whole inside the window. */
  readonly inside: (point: Point) => Point
  /** Whether a point of a piece is in sight. */
  readonly sees: (piece: number, point: Vector) => boolean
}

/** A piece in some placement: where it is, or would be. */
export interface Spot {
  readonly piece: number
  readonly rotation: Rotation
}

/** What leads the eye beside the lights. */
export interface Guide {
  /** Pieces that are numbered, in their order from 1. */
  readonly numbered: readonly number[]
  readonly arrows: readonly { readonly from: Spot; readonly to: Spot }[]
  /** The turn that comes next. */
  readonly turn?: Turn
}

export const NO_GUIDE: Guide = { numbered: [], arrows: [] }

export interface Letter {
  readonly name: string
  readonly at: Point
}

export interface Overlay {
  readonly letters: readonly Letter[]
  readonly numbers: readonly {
    readonly number: number
    readonly at: Point
    /** No face of the piece is in sight from either side: it lies behind there. */
    readonly isHidden?: boolean
  }[]
  readonly arrows: readonly { readonly from: Point; readonly to: Point }[]
  readonly turns: readonly { readonly path: readonly Point[]; readonly name: string }[]
}

/** How far beyond the puzzle the letters of its layers stand, in cells. */
const LETTER_DISTANCE = 0.35

/** One overlay a window; what no window shows is numbered where it lies behind, in the nearer one. */
export function overlaysOf(
  puzzle: Puzzle,
  state: State,
  guide: Guide,
  eyes: readonly Eye[],
): Overlay[] {
  const overlays = eyes.map((eye) => overlayOf(puzzle, state, guide, eye))
  return guide.numbered.reduce((all, piece, i) => {
    if (all.some(({ numbers }) => numbers.some(({ number }) => number === i + 1))) return all
    const own = puzzle.pieces[piece]
    const point = placed(
      puzzle.cores[own.core],
      state[piece],
      average(own.faces.flatMap(({ polygon }) => [...polygon])),
    )
    const distances = eyes.map(({ from }) => length(subtract(from, point)))
    const nearest = distances.indexOf(Math.min(...distances))
    return all.map((overlay, e) =>
      e === nearest
        ? {
            ...overlay,
            numbers: [
              ...overlay.numbers,
              { number: i + 1, at: eyes[e].flat(point), isHidden: true },
            ],
          }
        : overlay,
    )
  }, overlays)
}

function overlayOf(
  puzzle: Puzzle,
  state: State,
  { numbered, arrows, turn }: Guide,
  eye: Eye,
): Overlay {
  const inSight = numbered.map((piece) =>
    seenPoint(puzzle, eye, { piece, rotation: state[piece] }, (point) => eye.sees(piece, point)),
  )
  return {
    letters: lettersOf(puzzle, eye),
    numbers: inSight.flatMap((point, i) => (point ? [{ number: i + 1, at: eye.flat(point) }] : [])),
    arrows: arrows.flatMap(({ from, to }) => {
      const start = seenPoint(puzzle, eye, from, (point) => eye.sees(from.piece, point))
      const end = seenPoint(puzzle, eye, to, () => true)
      return start && end ? [{ from: eye.flat(start), to: eye.flat(end) }] : []
    }),
    turns: turn ? [{ path: bentArrow(puzzle, state, turn, eye), name: turn.name }] : [],
  }
}

/**
 * A point on a piece in some placement, for a number or the end of an arrow: the middle of the face that
 * looks most toward the eye, or what else of the piece is in sight; undefined if no face looks that way.
 */
function seenPoint(
  puzzle: Puzzle,
  eye: Eye,
  { piece, rotation }: Spot,
  isInSight: (point: Vector) => boolean,
): Vector | undefined {
  const own = puzzle.pieces[piece]
  const put = (point: Vector) => placed(puzzle.cores[own.core], rotation, point)
  const faces = drawnFaces(own)
    .map(({ polygon, normal }) => {
      const { middle } = roomIn(polygon, normal)
      const toward = subtract(eye.from, put(middle))
      return { polygon, middle, looks: dot(unit(rotate(rotation, normal)), unit(toward)) }
    })
    .filter(({ looks }) => looks > 0.02)
    .sort((a, b) => b.looks - a.looks)
  const points = faces.flatMap(({ polygon, middle }) => [
    put(middle),
    ...polygon.map((corner) => put(average([middle, corner]))),
  ])
  return points.find(isInSight)
}

/** The letters of the outer layers, in each window those that face it. */
function lettersOf(puzzle: Puzzle, eye: Eye): Letter[] {
  const seen = new Set<string>()
  const outer = puzzle.grips.filter(({ name, from, to }, g) => {
    if ((from === null && to === null) || !/^[A-Z]$/.test(name) || /[MES]/.test(name)) return false
    const slab = puzzle.carry[g].join('')
    return !seen.has(slab) && seen.add(slab)
  })
  return outer.flatMap((grip): Letter[] => {
    const axis = unit(grip.axis)
    const core = puzzle.cores[grip.core]
    const reach = Math.max(
      ...puzzle.pieces.flatMap(({ core: own, faces }) =>
        own === grip.core
          ? faces.flatMap(({ polygon }) => polygon.map((c) => dot(axis, subtract(c, core))))
          : [0],
      ),
    )
    const at = add(core, scale(axis, reach + LETTER_DISTANCE))
    if (dot(axis, subtract(eye.from, at)) <= 0) return []
    return [{ name: grip.name, at: eye.inside(eye.flat(at)) }]
  })
}

/** How much of the way round the arrow of a turn goes, in degrees, and its points. */
const SWEEP: Readonly<Record<'part' | 'half', number>> = { part: 75, half: 130 }
const ARC_POINTS = 22
/** Its distance from the axis, in that of the farthest corner of its layer. */
const ARC_REACH = 0.86

/** Round the layer that turns, on the side that is in sight, the way that it goes. */
export function bentArrow(
  puzzle: Puzzle,
  state: State,
  turn: Turn,
  eye: Pick<Eye, 'from' | 'flat'>,
): Point[] {
  const grip = puzzle.grips[turn.grip]
  const axis = unit(grip.axis)
  const core = puzzle.cores[grip.core]
  const corners = puzzle.pieces.flatMap(({ faces, core: own }, p) =>
    puzzle.carry[turn.grip][24 * p + state[p]] === IN
      ? faces.flatMap(({ polygon }) =>
          polygon.map((c) => subtract(placed(puzzle.cores[own], state[p], c), core)),
        )
      : [],
  )
  if (corners.length === 0) return []
  const heights = corners.map((c) => dot(axis, c))
  const height = (Math.min(...heights) + Math.max(...heights)) / 2
  const radius =
    ARC_REACH * Math.max(...corners.map((c) => length(subtract(c, scale(axis, dot(axis, c))))))
  // Toward the eye, at a right angle to the axis.
  const view = subtract(eye.from, core)
  const level = subtract(view, scale(axis, dot(axis, view)))
  const out = length(level) > 1e-6 ? unit(level) : unit(cross(axis, average(corners)))
  const along = cross(axis, out)
  const full = 360 / grip.unitDegrees
  const isBack = 2 * turn.amount > full
  const half = ((2 * turn.amount === full ? SWEEP.half : SWEEP.part) * Math.PI) / 360
  // Clockwise as seen from outside is against the axis.
  const sign = isBack ? 1 : -1
  return Array.from({ length: ARC_POINTS }, (_, i) => {
    const angle = sign * half * ((2 * i) / (ARC_POINTS - 1) - 1)
    const round = add(scale(out, Math.cos(angle)), scale(along, Math.sin(angle)))
    return eye.flat(add(core, add(scale(axis, height), scale(round, radius))))
  })
}
