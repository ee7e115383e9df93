/**
 * The frame: the piece (or the hidden core) that is kept still, so that states are counted once
 * whatever the hold. Along an axis with an odd number of layers it lies in the middle, along an even
 * one at the outer end to the left, at the bottom, at the back: the core of a 3x3x3, one corner of a
 * 2x2x2, an equatorial corner piece of a 4x5x4. A turn of a layer through it is replaced by the
 * other layers of that axis turned the other way, and the whole puzzle with them.
 */
import { inSlab } from '../puzzle/mechanism'
import type { Puzzle, Turn } from '../puzzle/compile'
import { INVERSE, type Vector } from '../rotation'
import { rotateState, type State } from '../state'
import { layersOf, slabsOf } from './layers'

export interface Frame {
  /** The frame piece, or undefined if it is the hidden core. */
  readonly piece: number | undefined
  /** Turns that leave the frame alone, of single layers as far as these will do: they generate everything up to hold. */
  readonly turns: readonly Turn[]
}

const frames = new WeakMap<Puzzle, Frame>()

export function frameOf(puzzle: Puzzle): Frame {
  const known = frames.get(puzzle)
  if (known) return known
  const cell = puzzle.still
  const found = puzzle.pieces.findIndex(({ cells }) =>
    cells.some((each) => each.every((c, i) => c === cell[i])),
  )
  const isFree = freeGrips(puzzle, cell)
  const frame = {
    piece: found < 0 ? undefined : found,
    turns: puzzle.turns.filter((turn) => isFree.has(turn.grip)),
  }
  frames.set(puzzle, frame)
  return frame
}

/**
 * Single layers without the frame cell; where cells are glued also several together, because these can be
 * free where each alone would cut a block.
 */
function freeGrips(puzzle: Puzzle, cell: Vector): Set<number> {
  const layers = puzzle.definition.glue.length > 0 ? slabsOf(puzzle) : layersOf(puzzle)
  return new Set(layers.filter((grip) => !inSlab(puzzle.grips[grip], cell)))
}

/** The same state held so that the frame piece is home (unchanged where the core is the frame). */
export function inFrame(puzzle: Puzzle, state: State): State {
  const { piece } = frameOf(puzzle)
  return piece === undefined ? state : rotateState(state, INVERSE[state[piece]])
}
