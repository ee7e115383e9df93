/**
 * A turn in plain words: which layer it is, in the picture, and which way it goes. Directions are those
 * of the picture, whatever the puzzle's own axes are; layers are told by how many lie outside them.
 */
import { dot, length, scale, subtract } from '../geometry/vector'
import { placed, type Puzzle, type Turn } from '../puzzle/compile'
import { DIRECTIONS, type Direction } from '../puzzle/directions'
import { inSlab, isWhole, type Grip } from '../puzzle/mechanism'
import { poseOf, posed } from '../puzzle/view'
import type { Vector } from '../rotation'
import type { Hand } from '../notation/handCost'
import { capital, inWords, listed } from '../phrases'
import { ORDINALS, cubeWords, ringWords } from './placeNames'

export interface TurnWords {
  /** 'the right layer' */
  readonly layer: string
  /** The way that it goes: 'away from you', 'to the left', 'clockwise', 'half round'. */
  readonly way: string
  /** 'clockwise as seen from the right' */
  readonly seen: string
}

/** Where one looks from along an axis that is level in the picture. */
const SEEN: Readonly<Record<string, string>> = {
  U: 'from above',
  D: 'from below',
  F: 'from the front',
  B: 'from behind',
  R: 'from the right',
  L: 'from the left',
}

/** What a middle layer lies between. */
const BETWEEN: Readonly<Record<string, string>> = {
  U: 'top and bottom',
  D: 'top and bottom',
  F: 'front and back',
  B: 'front and back',
  R: 'left and right',
  L: 'left and right',
}

/** Which way the part of a layer that is nearest to the eye goes, clockwise and back. */
const WAYS: Readonly<Record<string, readonly [string, string]>> = {
  U: ['to the left', 'to the right'],
  D: ['to the right', 'to the left'],
  F: ['clockwise', 'anticlockwise'],
  B: ['anticlockwise as you see it', 'clockwise as you see it'],
  R: ['away from you', 'towards you'],
  L: ['towards you', 'away from you'],
}

/** The direction of an axis that lies level in the picture. */
function sideOfAxis(puzzle: Puzzle, axis: Vector): Direction | undefined {
  const shown = scale(posed(poseOf(puzzle.definition), axis), 1 / length(axis))
  return DIRECTIONS.find(({ vector }) => dot(vector, shown) > 1 - 1e-6)
}

export function turnWords(puzzle: Puzzle, turn: Turn): TurnWords {
  const grip = puzzle.grips[turn.grip]
  const side = sideOfAxis(puzzle, grip.axis)
  const full = 360 / grip.unitDegrees
  const isHalf = 2 * turn.amount === full
  const isBack = 2 * turn.amount > full
  const from = side ? SEEN[side.letter] : `from outside, at its letter`
  const third = full === 3 ? 'a third, ' : ''
  return {
    layer: layerWords(puzzle, turn.grip),
    way: isHalf
      ? 'half round'
      : side
        ? WAYS[side.letter][isBack ? 1 : 0]
        : `${isBack ? 'anticlockwise' : 'clockwise'} as seen ${from}`,
    seen: isHalf
      ? 'half round'
      : `${third}${isBack ? 'anticlockwise' : 'clockwise'} as seen ${from}`,
  }
}

/** 'R: the right layer, clockwise as seen from the right.' for each letter of some turns, once. */
export function legendOf(puzzle: Puzzle, names: readonly string[]): string[] {
  const grips = names.flatMap((name) => puzzle.turnByName.get(name)?.grip ?? [])
  return [...new Set(grips)].map((grip) => {
    const first = puzzle.turns.find((turn) => turn.grip === grip) as Turn
    const { layer, seen } = turnWords(puzzle, first)
    const letter = puzzle.grips[grip].name
    const isHalf = puzzle.grips[grip].amounts.length === 1
    return isHalf ? `${first.name}: ${layer}, half round.` : `${letter}: ${layer}, ${seen}.`
  })
}

/** What the outermost level of a layer is, where it can turn or stay alone. */
const OUTERMOST: Readonly<Record<string, string>> = { capped: 'cap', circles: 'circle' }

const known = new WeakMap<Puzzle, Map<number, string>>()

/** 'the right layer', 'the second layer from the top', 'the top cap alone', 'the whole puzzle'. */
export function layerWords(puzzle: Puzzle, grip: number): string {
  const found = known.get(puzzle) ?? new Map<number, string>()
  known.set(puzzle, found)
  let words = found.get(grip)
  if (words === undefined) {
    words = wordsFor(puzzle, puzzle.grips[grip])
    found.set(grip, words)
  }
  return words
}

function wordsFor(puzzle: Puzzle, grip: Grip): string {
  if (isWhole(grip)) return 'the whole puzzle'
  const side = sideOfAxis(puzzle, grip.axis)
  const adjective = side ? side.adjective : axisWords(puzzle, grip)
  const cube = puzzle.cores.length > 1 ? cubeWords(puzzle, grip.core) : ''
  const levels = levelsAlong(puzzle, grip)
  const own = levels.flatMap((at, i) => (inSlab(grip, scale(grip.axis, at)) ? [i] : []))
  const special = OUTERMOST[puzzle.definition.mechanism.kind]
  const outer = special === undefined ? undefined : outermost(puzzle, grip, levels, own)
  if (outer === 'alone') return `the ${adjective} ${special} alone`
  if (outer === 'with') return `the ${adjective} layer with its ${special}`
  if (outer === 'without') return `the ${adjective} layer without its ${special}`
  const isTip = puzzle.definition.mechanism.kind === 'tetrahedron' && own.length === 1
  if (isTip) return `the ${adjective} tip`
  if (own[0] === 0 && (own.length === 1 || (grip.to === null && isLayerOfItsOwn(puzzle))))
    return `the ${adjective} layer${cube}`
  if (own[0] === 0) return `the ${inWords(own.length)} ${adjective} layers${cube}`
  if (own.length === 1 && 2 * own[0] + 1 === levels.length && side)
    return `the middle layer between ${BETWEEN[side.letter]}${cube}`
  const from =
    side?.letter === 'U' ? 'the top' : side?.letter === 'D' ? 'the bottom' : `the ${adjective}`
  const nth = own.map((i) => ORDINALS[i] ?? `${i + 1}th`)
  return `the ${listed(nth)} layer${own.length > 1 ? 's' : ''} from ${from}${cube}`
}

/** Vertex by vertex a letter takes the layer with its tip. */
const isLayerOfItsOwn = ({ definition }: Puzzle) => definition.mechanism.kind === 'tetrahedron'

/** The heights of the cells of a core along an axis, the outermost first, in lengths of the axis. */
function levelsAlong(puzzle: Puzzle, grip: Grip): number[] {
  const square = dot(grip.axis, grip.axis)
  const heights = puzzle.pieces
    .filter(({ core }) => core === grip.core)
    .flatMap(({ cells, core }) =>
      cells.map((cell) => dot(grip.axis, placed(puzzle.cores[core], 0, cell))),
    )
  const relative = heights.map((height) => Math.round((height / square) * 1e4) / 1e4 + 0)
  return [...new Set(relative)].sort((a, b) => b - a)
}

/** Of a layer beyond which there is a cap or a circle: whether it takes that along. */
function outermost(
  puzzle: Puzzle,
  grip: Grip,
  levels: readonly number[],
  own: readonly number[],
): 'alone' | 'with' | 'without' | undefined {
  const hasMore = puzzle.grips.some(
    (other) =>
      other.core === grip.core &&
      other !== grip &&
      sameAxis(other, grip) &&
      other.name.slice(-1) === grip.name.slice(-1),
  )
  if (puzzle.definition.mechanism.kind === 'circles')
    return own[0] === 0
      ? 'with'
      : own[0] === 1 && own.length === 1 && levels[0] > levels[1]
        ? 'without'
        : undefined
  if (!hasMore || own[0] !== 0) return undefined
  return own.length === 1 ? 'alone' : 'with'
}

const sameAxis = (a: Grip, b: Grip) => length(subtract(a.axis, b.axis)) < 1e-6

/** 'upper right': where the axis of a layer leaves the puzzle, among all such axes. */
function axisWords(puzzle: Puzzle, grip: Grip): string {
  const pose = poseOf(puzzle.definition)
  const axes = puzzle.grips
    .filter((other) => !isWhole(other) && /^[A-Z]$/.test(other.name) && !/[MES]/.test(other.name))
    .map(({ axis }) => scale(posed(pose, axis), 1 / length(axis)))
  return ringWords(scale(posed(pose, grip.axis), 1 / length(grip.axis)), axes)
}

const WHOLE_VERBS: Readonly<Record<string, string>> = {
  U: 'spin it',
  D: 'spin it',
  R: 'roll it',
  L: 'roll it',
  F: 'tip it',
  B: 'tip it',
}

/** Which way the top goes when the whole puzzle is tipped, clockwise as seen from that side and back. */
const TIPPED: Readonly<Record<string, readonly [string, string]>> = {
  F: ['to the right', 'to the left'],
  B: ['to the left', 'to the right'],
}

/**
 * 'spin it half round', 'roll it a quarter away from you': a turn of the whole puzzle, for hands. Undefined about an
 * axis that is not level in the picture: nobody sees where it points.
 */
export function wholeWords(puzzle: Puzzle, turn: Turn): string | undefined {
  const grip = puzzle.grips[turn.grip]
  const side = sideOfAxis(puzzle, grip.axis)
  if (!side) return undefined
  const full = 360 / grip.unitDegrees
  const verb = WHOLE_VERBS[side.letter]
  if (2 * turn.amount === full) return `${verb} half round`
  const ways = TIPPED[side.letter] ?? WAYS[side.letter]
  return `${verb} a ${full === 3 ? 'third' : 'quarter'} ${ways[2 * turn.amount > full ? 1 : 0]}`
}

/** Which hand makes a turn easily: that of its side, else the one that turns most; none for the whole. */
export function handOf(puzzle: Puzzle, turn: Turn, main: Hand): Hand | undefined {
  if (turn.whole) return undefined
  const [x] = scale(
    posed(poseOf(puzzle.definition), puzzle.grips[turn.grip].axis),
    1 / length(puzzle.grips[turn.grip].axis),
  )
  return Math.abs(x) < 0.3 ? main : x > 0 ? 'right' : 'left'
}

/** 'Right layer, away from you' */
export const shortTurnWords = (puzzle: Puzzle, turn: Turn): string => {
  const { layer, way } = turnWords(puzzle, turn)
  return `${capital(layer.replace(/^the /, ''))}, ${way}`
}
