/** From what a puzzle file says to what the program uses. */
import {
  IDENTITY,
  INVERSE,
  multiply,
  ROTATION_COUNT,
  rotate,
  rotationAbout,
  type Rotation,
  type Vector,
} from '../rotation'
import { boxCells, boxFaces, boxGrips, isWhole, type Grip, type OuterFace } from './box'
import type { PuzzleDefinition } from './definition'
import { DIRECTIONS } from './directions'

export interface Piece {
  /** The name of its home place, by face letters: 'UFR'. */
  readonly id: string
  readonly kind: string
  readonly cells: readonly Vector[]
  readonly core: number
  readonly faces: readonly OuterFace[]
}

/** One turn that the mechanism allows: a grip and an amount in its units. */
export interface Turn {
  readonly index: number
  /** Canonical name: R, R2, R', 2-3U, M, x. */
  readonly name: string
  readonly grip: number
  readonly amount: number
  readonly rotation: Rotation
  /** Index of the turn that takes it back. */
  readonly inverse: number
  /** True if the whole puzzle turns. */
  readonly whole: boolean
}

/** In `Puzzle.carry`: what a grip does to a piece under a rotation. */
export const OUT = 0
export const IN = 1
export const STRADDLES = 2

export interface Puzzle {
  readonly definition: PuzzleDefinition
  readonly pieces: readonly Piece[]
  readonly grips: readonly Grip[]
  readonly turns: readonly Turn[]
  readonly turnByName: ReadonlyMap<string, Turn>
  /** For each grip, `[24 * piece + rotation]`: OUT, IN or STRADDLES. */
  readonly carry: readonly Uint8Array[]
  /**
   * `[24 * piece + rotation]`: the piece whose home it then fills, or 255 if it fits no home.
   */
  readonly place: Uint8Array
  /** `[24 * piece + rotation]`: its look, an interned number; equal numbers look the same. */
  readonly look: Uint16Array
  /** Rotations that whole-puzzle turns can reach: the holds. The identity is first. */
  readonly holds: readonly Rotation[]
  /** For each hold (same index), a flag a look: whether the finished puzzle shows it. */
  readonly solvedLooks: readonly Uint8Array[]
}

/** Compiles a checked definition. Pure; the same definition gives the same puzzle. */
export function compile(definition: PuzzleDefinition): Puzzle {
  const pieces = namePieces(assemblePieces(definition))
  const grips = boxGrips(definition)
  const turns = listTurns(grips)
  const holds = closeRotations(turns.filter((turn) => turn.whole).map((turn) => turn.rotation))
  const { look, lookCount } = internLooks(pieces)
  return {
    definition,
    pieces,
    grips,
    turns,
    turnByName: new Map(turns.map((turn) => [turn.name, turn])),
    carry: grips.map((grip) => tabulateCarry(pieces, grip)),
    place: tabulatePlaces(pieces),
    look,
    holds,
    solvedLooks: holds.map((hold) => {
      const flags = new Uint8Array(lookCount)
      pieces.forEach((_, piece) => (flags[look[24 * piece + hold]] = 1))
      return flags
    }),
  }
}

function assemblePieces(definition: PuzzleDefinition): Omit<Piece, 'id'>[] {
  const cells = boxCells(definition)
  const same = (a: Vector) => (b: Vector) => a.every((c, i) => c === b[i])
  const groupOf = (cell: Vector) => definition.glue.findIndex((group) => group.some(same(cell)))
  const seen = new Set<number>()
  const pieces: Omit<Piece, 'id'>[] = []
  for (const cell of cells) {
    const group = groupOf(cell)
    if (group >= 0 && seen.has(group)) continue
    seen.add(group)
    const own = group >= 0 ? definition.glue[group] : [cell]
    const faces = own.flatMap((each) => boxFaces(definition, each))
    pieces.push({ kind: kindOf(own.length, faces.length), cells: own, core: 0, faces })
  }
  return pieces
}

function kindOf(cells: number, faces: number): string {
  if (cells > 1) return 'block'
  return ['inside', 'centre', 'edge', 'corner', 'end', 'end', 'cell'][faces]
}

/** Names by face letters; a number tells apart pieces that share the same faces. */
function namePieces(pieces: readonly Omit<Piece, 'id'>[]): Piece[] {
  const letters = pieces.map(({ faces }) =>
    DIRECTIONS.filter(({ vector }) =>
      faces.some(({ normal }) => normal.every((c, i) => c === vector[i])),
    )
      .map(({ letter }) => letter)
      .join(''),
  )
  const total = (name: string) => letters.filter((other) => other === name).length
  const count = new Map<string, number>()
  return pieces.map((piece, index) => {
    const name = letters[index]
    const nth = (count.get(name) ?? 0) + 1
    count.set(name, nth)
    return { id: total(name) > 1 ? `${name}.${nth}` : name, ...piece }
  })
}

function listTurns(grips: readonly Grip[]): Turn[] {
  const listed = grips.flatMap((grip, index) =>
    grip.amounts.map((amount) => ({
      name: grip.name + amountSuffix(amount, grip),
      grip: index,
      amount,
      rotation: rotationAbout(grip.axis, amount * grip.unitDegrees),
      whole: isWhole(grip),
    })),
  )
  return listed.map((turn, index) => {
    const full = 360 / grips[turn.grip].unitDegrees
    const inverse = listed.findIndex(
      (other) => other.grip === turn.grip && (other.amount + turn.amount) % full === 0,
    )
    return { index, ...turn, inverse }
  })
}

function amountSuffix(amount: number, grip: Grip): string {
  if (amount === 1) return ''
  return amount === 360 / grip.unitDegrees - 1 ? "'" : `${amount}`
}

/** The group that some rotations generate, identity first. */
export function closeRotations(generators: readonly Rotation[]): Rotation[] {
  const found = [IDENTITY]
  for (const r of found)
    for (const generator of generators) {
      const next = multiply(generator, r)
      if (!found.includes(next)) found.push(next)
    }
  return found
}

function tabulateCarry(pieces: readonly Piece[], grip: Grip): Uint8Array {
  const table = new Uint8Array(pieces.length * ROTATION_COUNT)
  pieces.forEach((piece, p) => {
    for (let r = 0; r < ROTATION_COUNT; r++) {
      const inside = piece.cells.filter((cell) => {
        // Rotating the axis back is the same as rotating every cell forward.
        const axis = rotate(INVERSE[r], grip.axis)
        const height = axis[0] * cell[0] + axis[1] * cell[1] + axis[2] * cell[2]
        return (grip.from === null || grip.from <= height) && (grip.to === null || height < grip.to)
      }).length
      table[24 * p + r] = inside === 0 ? OUT : inside === piece.cells.length ? IN : STRADDLES
    }
  })
  return table
}

function tabulatePlaces(pieces: readonly Piece[]): Uint8Array {
  const key = (cells: readonly Vector[]) =>
    cells
      .map((cell) => cell.join())
      .sort()
      .join(';')
  const homes = new Map(pieces.map((piece, index) => [key(piece.cells), index]))
  const table = new Uint8Array(pieces.length * ROTATION_COUNT)
  pieces.forEach((piece, p) => {
    for (let r = 0; r < ROTATION_COUNT; r++)
      table[24 * p + r] = homes.get(key(piece.cells.map((cell) => rotate(r, cell)))) ?? 255
  })
  return table
}

/** A look is the set of coloured outlines a placement shows; where it shows nothing, its cells. */
function internLooks(pieces: readonly Piece[]): { look: Uint16Array; lookCount: number } {
  const numbers = new Map<string, number>()
  const look = new Uint16Array(pieces.length * ROTATION_COUNT)
  pieces.forEach((piece, p) => {
    for (let r = 0; r < ROTATION_COUNT; r++) {
      const outlines = piece.faces.map((face) => {
        const corners = face.polygon.map((corner) => rotate(r, corner).join()).sort()
        return `${face.colour}:${corners.join(';')}`
      })
      const key = outlines.sort().join('|')
      if (!numbers.has(key)) numbers.set(key, numbers.size)
      look[24 * p + r] = numbers.get(key) as number
    }
  })
  return { look, lookCount: numbers.size }
}
