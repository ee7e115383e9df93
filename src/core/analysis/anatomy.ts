/** What there is to know about one piece. */
import { dot, subtract } from '../geometry/vector'
import { IN, placed, type Puzzle } from '../puzzle/compile'
import { DIRECTIONS } from '../puzzle/directions'
import { colourIn, type Scheme } from '../puzzle/colours'
import { IDENTITY, ROTATION_COUNT, type Vector } from '../rotation'
import { blockOf, type State } from '../state'
import { inWords, listed } from '../phrases'
import { frameOf } from './frame'
import { lookAlikesOf } from './lookAlikes'
import { handReachOf } from './placements'
import { layersOf, turnsOf } from './layers'
import { placeNamesOf } from './placeNames'
import { senseOf, type Sense } from './sense'

export interface Kind {
  readonly name: string
  readonly pieces: readonly number[]
  /** Faces that a piece of this kind shows. */
  readonly faces: number
}

/** The kinds of pieces, those with the most faces first. */
export function kindsIn({ pieces }: Puzzle): Kind[] {
  const names = [...new Set(pieces.map(({ kind }) => kind))]
  return names
    .map((name) => {
      const own = pieces.flatMap(({ kind }, p) => (kind === name ? [p] : []))
      return { name, pieces: own, faces: pieces[own[0]].faces.length }
    })
    .sort((a, b) => b.faces - a.faces)
}

export interface PieceFacts {
  /** Slots that the piece can ever fill, its own among them; homes are below the piece count. */
  readonly slots: readonly number[]
  /** Other pieces that look the same in each other's places. */
  readonly alike: readonly number[]
  /** Ways to lie in its own place, and how many of them differ to the eye. */
  readonly inPlace: { readonly ways: number; readonly looks: number }
  /** Slots that layers which only half-turn trade it with, by the name of the turn. */
  readonly partners: readonly { readonly turn: string; readonly slot: number }[]
}

export function factsOf(puzzle: Puzzle, piece: number): PieceFacts {
  const { slot, look } = puzzle
  const { classes } = lookAlikesOf(puzzle)
  const own = handReachOf(puzzle)[piece]
  const inPlace = own.filter((r) => slot[24 * piece + r] === piece)
  const frame = frameOf(puzzle)
  const turns = frame.piece === undefined ? frame.turns : puzzle.turns.filter((t) => !t.whole)
  const byLength = [...turns].sort((a, b) => a.name.length - b.name.length)
  const traded = byLength.flatMap((turn) => {
    const { amounts, unitDegrees } = puzzle.grips[turn.grip]
    if (amounts.length > 1 || 2 * amounts[0] * unitDegrees !== 360) return []
    if (puzzle.carry[turn.grip][24 * piece] !== IN) return []
    const to = slot[24 * piece + turn.rotation]
    return to === piece ? [] : [{ turn: turn.name, slot: to }]
  })
  const partners = traded.filter(
    (each, i) => traded.findIndex((other) => other.slot === each.slot) === i,
  )
  return {
    slots: [...new Set(own.map((r) => slot[24 * piece + r]))],
    alike: (classes.find((each) => each.includes(piece)) ?? []).filter((p) => p !== piece),
    inPlace: {
      ways: inPlace.length,
      looks: new Set(inPlace.map((r) => look[24 * piece + r])).size,
    },
    partners,
  }
}

/** 'white, red and green', or 'no colour' for a piece inside. */
export function coloursOf(puzzle: Puzzle, scheme: Scheme, piece: number): string {
  const names = puzzle.pieces[piece].faces.map(({ colour }) => colourIn(scheme, colour).name)
  const counted = [...new Set(names)].map((name) => {
    const count = names.filter((other) => other === name).length
    return count === 1 ? name : `${inWords(count)} ${name}`
  })
  return listed(counted) || 'no colour'
}

export interface PlaceAccount {
  readonly piece: number
  /** How it is turned, seen from outside. */
  readonly sense: Sense
  /** Whether the eye sees it. */
  readonly isSeen: boolean
}

/**
 * The account of turns in place: pieces that sit at home but are turned there, unseen turns too,
 * because later they may show in another piece.
 */
export function turnedInPlace(puzzle: Puzzle, state: State): PlaceAccount[] {
  return puzzle.pieces.flatMap((_, piece) => {
    const r = state[piece]
    if (r === 0 || puzzle.slot[24 * piece + r] !== piece) return []
    const isSeen = puzzle.look[24 * piece + r] !== puzzle.look[24 * piece]
    return [{ piece, sense: senseOf(r, outwardOf(puzzle, piece)), isSeen }]
  })
}

/** From the core to the middle of a piece's first cell, at home. */
export const outwardOf = (puzzle: Puzzle, piece: number): Vector => {
  const { cells, core } = puzzle.pieces[piece]
  return subtract(cells[0], puzzle.cores[core])
}

/** Of an outward vector: whether it points at the middle of an edge of the cube, so that half a turn is a flip. */
export const isOnEdge = (outward: Vector): boolean =>
  outward.filter((c) => Math.abs(c) > 1e-9).length === 2

/** One turn for each layer that is blocked now, under the one name that the layer has. */
export const blockedNow = (puzzle: Puzzle, state: State): number[] =>
  layersOf(puzzle).flatMap((grip) => {
    const [turn] = turnsOf(puzzle, grip)
    return blockOf(puzzle, state, turn) ? [turn.index] : []
  })

/** For a slot, a piece and a rotation that fill it: how to draw the place. */
export function fillerOf(puzzle: Puzzle, slot: number): { piece: number; rotation: number } {
  if (slot < puzzle.pieces.length) return { piece: slot, rotation: 0 }
  const at = puzzle.slot.indexOf(slot)
  return { piece: Math.floor(at / ROTATION_COUNT), rotation: at % ROTATION_COUNT }
}

/** A slot in words, as the finished puzzle is held; outside its shape by the letters of its faces. */
export const placeWords = (puzzle: Puzzle, slot: number): string =>
  slot < puzzle.pieces.length
    ? placeNamesOf(puzzle, IDENTITY).names[slot]
    : `the place ${slotName(puzzle, slot)} outside the finished shape`

/** What a slot is called: the piece whose home it is, or face letters with the face it lies beyond. */
export function slotName(puzzle: Puzzle, slot: number): string {
  if (slot < puzzle.pieces.length) return puzzle.pieces[slot].id
  const { piece, rotation } = fillerOf(puzzle, slot)
  const { cells, core } = puzzle.pieces[piece]
  const cell = placed(puzzle.cores[core], rotation, cells[0])
  const facing = DIRECTIONS.map(({ letter, vector }) => ({ letter, height: dot(vector, cell) }))
  const letters = facing.flatMap(({ letter, height }) => (height > 0.5 ? [letter] : []))
  const beyond = facing.flatMap(({ letter, height }) => (height > 1.5 ? [letter] : []))
  return `${letters.join('')}+${beyond.join('')}`
}
