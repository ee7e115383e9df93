/** The words for pieces, places, directions and holds. */
import { colourIn, type Scheme } from './puzzle/colours'
import { DIRECTIONS, directionOfVector, turnDirection, type Direction } from './puzzle/directions'
import type { Puzzle } from './puzzle/compile'
import { cross, dot, length } from './geometry/vector'
import { rotate, type Rotation } from './rotation'

export const listed = (words: readonly string[], last = 'and'): string =>
  words.length < 2
    ? (words[0] ?? '')
    : `${words.slice(0, -1).join(', ')} ${last} ${words[words.length - 1]}`

/** 'one', 'two' … for small numbers. */
export const inWords = (n: number): string =>
  ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten'][n] ?? `${n}`

export const times = (n: number): string =>
  n === 1 ? 'once' : n === 2 ? 'twice' : `${inWords(n)} times`

export const plural = (n: number, word: string): string =>
  `${inWords(n)} ${word}${n === 1 ? '' : 's'}`

/** 'corner' for a corner with three faces, where colours or the company tell the rest. */
export const shortKind = (kind: string): string => kind.replace(/ (with|\().*$/, '')

/** What a piece is in its mechanism, whatever a solid makes of its size: 'corner' for a small one too. */
export const baseKind = (kind: string): string =>
  shortKind(kind).replace(/^(small|large|size \d+) /, '')

/** 'edges with one face': several pieces of a kind. */
export const kindPlural = (kind: string): string => kind.replace(/^.+?(?= with | \(|$)/, '$&s')

/** '8 corners, 12 edges and 6 centres': the visible pieces of a puzzle. */
export function kindCounts({ pieces }: Puzzle): string {
  const kinds = new Map<string, number>()
  for (const { kind, faces } of pieces)
    if (faces.length > 0) kinds.set(kind, (kinds.get(kind) ?? 0) + 1)
  return listed([...kinds].map(([kind, n]) => `${n} ${n === 1 ? kind : kindPlural(kind)}`))
}

export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)

/** The sides that a piece shows in some placement, in the order in which places are named. */
export function sidesShown(puzzle: Puzzle, piece: number, rotation: Rotation): Direction[] {
  const shown = puzzle.pieces[piece].faces.map(({ normal }) =>
    turnDirection(rotation, directionOfVector(normal)),
  )
  return DIRECTIONS.filter((direction) => shown.includes(direction))
}

/** 'top right front', as one says it: height, then side, then depth. */
export function placeWords(sides: readonly Direction[]): string {
  const order = ['U', 'D', 'R', 'L', 'F', 'B']
  return [...sides]
    .sort((a, b) => order.indexOf(a.letter) - order.indexOf(b.letter))
    .map(({ adjective }) => adjective)
    .join(' ')
}

/** 'white up, green to the front': each face of a placement that looks along an axis. */
export function facingWords(
  puzzle: Puzzle,
  scheme: Scheme,
  piece: number,
  rotation: Rotation,
): string {
  const told = puzzle.pieces[piece].faces.flatMap(({ colour, normal }) => {
    const turned = rotate(rotation, normal)
    const direction = DIRECTIONS.find(
      ({ vector }) => length(cross(vector, turned)) < 1e-9 && dot(vector, turned) > 0,
    )
    return direction ? [`${colourIn(scheme, colour).name} ${direction.toward}`] : []
  })
  return told.join(', ')
}

/** The side of the finished puzzle that a frame brings to a direction. */
export const sideAt = (frame: Rotation, direction: Direction): Direction =>
  DIRECTIONS.find((side) => turnDirection(frame, side) === direction) as Direction
