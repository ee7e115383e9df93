/** Whether what is claimed is so: read off the states by the engine, without a word. */
import { lookClassesOf } from '../analysis/lookAlikes'
import { homeFilled, type Look } from '../analysis/who'
import { turnSide } from '../analysis/sides'
import { directionOfName, DIRECTIONS, type Direction } from '../puzzle/directions'
import { posed, poseOf } from '../puzzle/view'
import { dot, unit } from '../geometry/vector'
import type { Puzzle } from '../puzzle/compile'
import { INVERSE, multiply, rotate, type Rotation } from '../rotation'
import { looksHome, type State } from '../state'
import { indexOf, type Claim, type Lies, type PieceId } from './claim'

/** A position, and the rotation that a finished piece has in it. */
export interface Moment {
  readonly state: State
  readonly frame: Rotation
}

/** What a claim is held against. */
export interface Evidence {
  readonly puzzle: Puzzle
  /** When it is read. */
  readonly now: Moment
  /** Before the step and after it, with what is owed undone. */
  readonly start: Moment
  readonly end: Moment
  /** Whether anything is owed then. */
  readonly isOwing: boolean
  /** The pieces of the card's lines. */
  readonly lines: readonly PieceId[]
  /** Turns of the step that come before `now`. */
  readonly made: readonly string[]
}

export const isTrue = (claim: Claim, evidence: Evidence): boolean =>
  'piece' in claim ? isTrueOfPiece(claim, evidence) : isTrueOfAll(claim, evidence)

type OfPiece = Extract<Claim, { piece: PieceId }>

function isTrueOfPiece(claim: OfPiece, evidence: Evidence): boolean {
  const { puzzle, now, start, end, lines, isOwing } = evidence
  const p = indexOf(puzzle, claim.piece)
  if (p < 0) return false
  /** The place that a piece fills at a moment; none outside the finished shape. */
  const filled = ({ state, frame }: Moment, piece: number): PieceId | undefined => {
    const home = homeFilled(puzzle, frame, piece, state[piece])
    return home === undefined ? undefined : puzzle.pieces[home].id
  }
  const isStaying = filled(end, p) !== undefined && filled(end, p) === filled(start, p)
  switch (claim.kind) {
    case 'pieceAt':
      return filled(now, p) === claim.place
    case 'goesTo': {
      // Of a line the place is meant that its piece leaves.
      const other = claim.line === undefined ? undefined : indexOf(puzzle, lines[claim.line - 1])
      return (
        filled(end, p) === claim.place &&
        lies(puzzle, end, p) === claim.lies &&
        (claim.isOwed === true) === isOwing &&
        (other === undefined || (other >= 0 && filled(start, other) === claim.place))
      )
    }
    case 'turnsThere':
      return (
        isStaying && lies(puzzle, start, p) === claim.was && lies(puzzle, end, p) === claim.lies
      )
    case 'takenOut':
      return !isStaying
    case 'shows':
      return claim.looks.every((look) => showsSo(puzzle, now, p, look))
  }
}

function isTrueOfAll(claim: Exclude<Claim, OfPiece>, { puzzle, now, made }: Evidence): boolean {
  switch (claim.kind) {
    case 'sideHeld':
      return turnSide(puzzle, now.frame, directionOfName(claim.side)) === directionOfName(claim.at)
    case 'holdBy':
      return claim.turns.join() === made.filter((name) => isWhole(puzzle, name)).join()
    case 'afterTurns':
      return claim.count === made.filter((name) => !isWhole(puzzle, name)).length
    case 'text':
      // What it says is read back elsewhere.
      return true
  }
}

const isWhole = (puzzle: Puzzle, name: string): boolean =>
  puzzle.turnByName.get(name)?.whole === true

/** Whether a face of that colour looks to each of some directions, and to none more than to the first. */
function showsSo(
  puzzle: Puzzle,
  { state }: Moment,
  piece: number,
  { colour, toward }: Look,
): boolean {
  const pose = poseOf(puzzle.definition)
  return puzzle.pieces[piece].faces.some((face) => {
    if (face.colour !== colour) return false
    const shown = posed(pose, unit(rotate(state[piece], face.normal)))
    const along = (name: Direction['name']) => dot(directionOfName(name).vector, shown)
    const most = Math.max(...DIRECTIONS.map(({ name }) => along(name)))
    return (
      toward.length > 0 &&
      toward.every((name) => along(name) > 0.3) &&
      along(toward[0]) > most - 1e-9
    )
  })
}

/** How a piece lies at its place. */
export function lies(puzzle: Puzzle, { state, frame }: Moment, piece: number): Lies {
  if (looksHome(puzzle, piece, multiply(INVERSE[frame], state[piece]))) return 'home'
  const home = homeFilled(puzzle, frame, piece, state[piece])
  // The home of one that looks the same is its own too.
  const { classOf } = lookClassesOf(puzzle)
  return home !== undefined && classOf[home] === classOf[piece] ? 'turned' : 'on'
}
