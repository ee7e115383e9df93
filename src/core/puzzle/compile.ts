/** From what a puzzle file says to what the program uses. */
import {
  IDENTITY,
  multiply,
  ROTATION_COUNT,
  rotate,
  rotationAbout,
  type Rotation,
  type Vector,
} from '../rotation'
import { add, length, subtract } from '../geometry/vector'
import { cutPart } from './cut'
import type { PuzzleDefinition } from './definition'
import { DIRECTIONS } from './directions'
import { unreachedGrip } from './frameReached'
import { kindsOf } from './kinds'
import { inSlab, isWhole, type Grip, type OuterFace, type Part } from './mechanism'
import { mechanismOf } from './mechanisms'
import { fail, ok, type Result } from '../result'

export interface Piece {
  /** The name of its home place, by face letters: 'UFR'. */
  readonly id: string
  readonly kind: string
  /** Where grips find it: the middles of its cells. */
  readonly cells: readonly Vector[]
  /** Index of the core that it turns about. */
  readonly core: number
  readonly faces: readonly OuterFace[]
  /** All facets of the solid piece, for drawing; the coloured ones lie on some of them. */
  readonly body: readonly (readonly Vector[])[]
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
  readonly cores: readonly Vector[]
  /** A point that is kept still when states are counted. */
  readonly still: Vector
  /** The middle of the finished puzzle, and the radius of the sphere about it that holds it. */
  readonly middle: Vector
  readonly radius: number
  readonly grips: readonly Grip[]
  readonly turns: readonly Turn[]
  readonly turnByName: ReadonlyMap<string, Turn>
  /** For each grip, `[24 * piece + rotation]`: OUT, IN or STRADDLES. */
  readonly carry: readonly Uint8Array[]
  /**
   * `[24 * piece + rotation]`: the piece whose home it then fills, or 255 if it fits no home.
   */
  readonly place: Uint8Array
  /** `[24 * piece + rotation]`: its slot, the set of cells it fills, interned; homes come first. */
  readonly slot: Uint16Array
  readonly slotCount: number
  /** `[24 * piece + rotation]`: its look, an interned number; equal numbers look the same. */
  readonly look: Uint16Array
  /** Rotations that whole-puzzle turns can reach: the holds. The identity is first. */
  readonly holds: readonly Rotation[]
  /** For each hold (same index), a flag a look: whether the finished puzzle shows it. */
  readonly solvedLooks: readonly Uint8Array[]
}

/** Compiles a checked definition. Pure; the same definition gives the same puzzle. */
export function compile(definition: PuzzleDefinition): Puzzle {
  const { cores, parts, grips, still } = mechanismOf(definition)
  const pieces = finishPieces(joinParts(definition, cutParts(definition, parts)))
  const turns = listTurns(grips)
  const holds = closeRotations(turns.filter((turn) => turn.whole).map((turn) => turn.rotation))
  const { look, lookCount } = internLooks(pieces, cores)
  const unreached = unreachedGrip({ pieces, grips, holds, still })
  if (unreached !== undefined)
    throw new Error(
      `turns of ${unreached} move the part by which its states are counted, and no other layers turned the other way come to the same`,
    )
  const spots = tabulateSpots(pieces, cores)
  const { slot, slotCount } = internSlots(pieces, spots)
  return {
    definition,
    pieces,
    cores,
    still,
    ...sphereAround(pieces),
    grips,
    turns,
    turnByName: new Map(turns.map((turn) => [turn.name, turn])),
    carry: grips.map((grip) => tabulateCarry(pieces, spots, grip)),
    place: slot.reduce(
      (place, at, index) => ((place[index] = at < pieces.length ? at : NO_PLACE), place),
      new Uint8Array(slot.length),
    ),
    slot,
    slotCount,
    look,
    holds,
    solvedLooks: holds.map((hold) => {
      const flags = new Uint8Array(lookCount)
      pieces.forEach((_, piece) => (flags[look[24 * piece + hold]] = 1))
      return flags
    }),
  }
}

/**
 * A definition that has been read, compiled; a mechanism that cannot be built after all is told, so that it
 * can be refused at the door and never takes a page with it.
 */
export function compiledFrom(definition: PuzzleDefinition): Result<Puzzle> {
  try {
    return ok(compile(definition))
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error)
    return fail('unbuildable', `The puzzle ${definition.name} cannot be built: ${why}.`)
  }
}

function sphereAround(pieces: readonly Piece[]): { middle: Vector; radius: number } {
  const corners = pieces.flatMap(({ faces }) => faces.flatMap(({ polygon }) => [...polygon]))
  const middle = [0, 1, 2].map((axis) => {
    const values = corners.map((corner) => corner[axis])
    // Rounded, so that a solid about its core has its middle exactly there.
    return Math.round((Math.max(...values) + Math.min(...values)) * 5e5) / 1e6 + 0
  }) as unknown as Vector
  return { middle, radius: Math.max(...corners.map((corner) => length(subtract(corner, middle)))) }
}

/** In `Puzzle.place`: the piece fits no home. */
export const NO_PLACE = 255

/** Where a point of a piece is when the piece has a rotation about its core. */
export const placed = (core: Vector, rotation: Rotation, point: Vector): Vector =>
  add(core, rotate(rotation, subtract(point, core)))

/** Parts cut out of the definition's solid, where it has one; parts that show nothing are left out. */
function cutParts(definition: PuzzleDefinition, parts: readonly Part[]): Part[] {
  const cut = definition.solid
    ? parts
        .filter(({ faces }) => faces.length > 0)
        .map((part) => cutPart(definition.solid?.halfSpaces ?? [], part))
    : parts
  const glued = new Set(definition.glue.flat().map(String))
  return cut.filter(
    ({ faces, points }) => faces.length > 0 || points.some((each) => glued.has(each.join())),
  )
}

type Joined = Omit<Piece, 'id' | 'kind'> & { name: string; role: string }

function joinParts(definition: PuzzleDefinition, parts: readonly Part[]): Joined[] {
  const groups = definition.glue.map((group) => new Set(group.map(String)))
  const groupOf = (part: Part) =>
    groups.findIndex((group) => part.points.some((point) => group.has(point.join())))
  const seen = new Set<number>()
  return parts.flatMap((part): Joined[] => {
    const group = groupOf(part)
    if (group >= 0 && seen.has(group)) return []
    seen.add(group)
    const own = group >= 0 ? parts.filter((other) => groupOf(other) === group) : [part]
    const faces = own.flatMap((each) => each.faces)
    if (faces.length === 0) return []
    const letters = new Set(own.flatMap(({ name }) => [...name]))
    return [
      {
        name:
          group < 0
            ? part.name
            : [...letters]
                .filter((letter) => isFaceLetter(letter))
                .sort(byFace)
                .join(''),
        role: group >= 0 ? 'block' : part.role,
        cells: own.flatMap(({ points }) => points),
        core: part.core,
        faces,
        body: own.length === 1 ? own[0].body : withoutSeams(own.flatMap(({ body }) => body)),
      },
    ]
  })
}

const faceOrder = DIRECTIONS.map(({ letter }) => letter as string)
const isFaceLetter = (letter: string) => faceOrder.includes(letter)
const byFace = (a: string, b: string) => faceOrder.indexOf(a) - faceOrder.indexOf(b)

/** Facets that two glued cells share are inside, and are not drawn. */
function withoutSeams(facets: readonly (readonly Vector[])[]): (readonly Vector[])[] {
  const points = new Points()
  const key = (facet: readonly Vector[]) => nameOf(points, facet)
  const count = new Map<string, number>()
  for (const facet of facets) count.set(key(facet), (count.get(key(facet)) ?? 0) + 1)
  return facets.filter((facet) => count.get(key(facet)) === 1)
}

/** Names by place; a number tells apart pieces that would have the same. */
function finishPieces(pieces: readonly Joined[]): Piece[] {
  const kinds = kindsOf(pieces)
  const total = (wanted: string) => pieces.filter(({ name }) => name === wanted).length
  const count = new Map<string, number>()
  return pieces.map(({ name, cells, core, faces, body }, p) => {
    const nth = (count.get(name) ?? 0) + 1
    count.set(name, nth)
    return {
      id: total(name) > 1 ? `${name}.${nth}` : name,
      kind: kinds[p],
      cells,
      core,
      faces,
      body,
    }
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

/** `[24 * piece + rotation]`: where the cells then are. */
function tabulateSpots(pieces: readonly Piece[], cores: readonly Vector[]): Vector[][] {
  return pieces.flatMap(({ cells, core }) =>
    Array.from({ length: ROTATION_COUNT }, (_, r) =>
      cells.map((cell) => placed(cores[core], r, cell)),
    ),
  )
}

function tabulateCarry(
  pieces: readonly Piece[],
  spots: readonly (readonly Vector[])[],
  grip: Grip,
): Uint8Array {
  const table = new Uint8Array(spots.length)
  const isAll = isWhole(grip)
  for (let at = 0; at < spots.length; at++) {
    // A layer of one core never reaches the pieces of another.
    if (!isAll && pieces[(at / ROTATION_COUNT) | 0].core !== grip.core) continue
    let inside = 0
    for (const spot of spots[at]) if (inSlab(grip, spot)) inside++
    table[at] = inside === 0 ? OUT : inside === spots[at].length ? IN : STRADDLES
  }
  return table
}

/**
 * Points as whole numbers: equal for points that agree to five decimals, which is finer than any two
 * points of a piece are apart. Coordinates are numbered first, because there are few of them.
 */
class Points {
  private readonly coordinates = new Map<number, number>()
  private readonly points = new Map<number, number>()

  numberOf([x, y, z]: Vector): number {
    const key = (this.coordinate(x) * 65_536 + this.coordinate(y)) * 65_536 + this.coordinate(z)
    return numberIn(this.points, key)
  }

  private coordinate(value: number): number {
    return numberIn(this.coordinates, Math.round(value * 1e5) + 0)
  }
}

function numberIn<K>(numbers: Map<K, number>, key: K): number {
  let found = numbers.get(key)
  if (found === undefined) numbers.set(key, (found = numbers.size))
  return found
}

const ascending = (a: number, b: number) => a - b

/** A name of some points, whatever their order. */
const nameOf = (points: Points, list: readonly Vector[]): string =>
  list
    .map((point) => points.numberOf(point))
    .sort(ascending)
    .join()

/** Slots are numbered so that the home of piece p is p. */
function internSlots(
  pieces: readonly Piece[],
  spots: readonly (readonly Vector[])[],
): { slot: Uint16Array; slotCount: number } {
  const points = new Points()
  const keys = spots.map((cells) => nameOf(points, cells))
  const numbers = new Map(pieces.map((_, p) => [keys[24 * p], p]))
  const slot = Uint16Array.from(keys, (key) => numberIn(numbers, key))
  return { slot, slotCount: numbers.size }
}

/** A look is the set of coloured outlines a placement shows. */
function internLooks(
  pieces: readonly Piece[],
  cores: readonly Vector[],
): { look: Uint16Array; lookCount: number } {
  const points = new Points()
  const numbers = new Map<string, number>()
  const look = new Uint16Array(pieces.length * ROTATION_COUNT)
  pieces.forEach((piece, p) => {
    const core = cores[piece.core]
    for (let r = 0; r < ROTATION_COUNT; r++) {
      const outlines = piece.faces.map(({ colour, corners, polygon }) => {
        const corner = (corners ?? polygon).map((point) => placed(core, r, point))
        return `${colour}:${nameOf(points, corner)}`
      })
      const key = outlines.length > 1 ? outlines.sort().join('|') : (outlines[0] ?? '')
      look[24 * p + r] = numberIn(numbers, key)
    }
  })
  return { look, lookCount: numbers.size }
}
