/** Where pieces lie and go, how they look, how the puzzle is held. */
import type { Look } from '../../analysis/who'
import { hasColouredSides, turnSide } from '../../analysis/sides'
import { average, cross, dot, length, subtract, unit } from '../../geometry/vector'
import type { Puzzle } from '../../puzzle/compile'
import {
  directionOfName,
  directionOfVector,
  DIRECTIONS,
  type Direction,
} from '../../puzzle/directions'
import { posed, poseOf } from '../../puzzle/view'
import { rotate } from '../../rotation'
import { indexOf, type PieceId, type PlacesKind } from '../claim'
import { isHome, lies, placeFilled, type Evidence, type Moment } from '../evidence'
import { isFaced, isFitting } from './counts'
import type { Judges } from './judge'

/** The place that a piece fills at a moment, by id. */
const filled = ({ puzzle }: Evidence, moment: Moment, piece: number): PieceId | undefined => {
  const home = placeFilled(puzzle, moment, piece)
  return home === undefined ? undefined : puzzle.pieces[home].id
}

const isStaying = (evidence: Evidence, piece: number): boolean => {
  const { start, end } = evidence
  const place = filled(evidence, end, piece)
  return place !== undefined && place === filled(evidence, start, piece)
}

export const OF_PLACES: Judges<PlacesKind> = {
  pieceAt: ({ piece, place }, evidence) =>
    filled(evidence, evidence.now, indexOf(evidence.puzzle, piece)) === place,
  goesTo({ piece, place, lies: how, line, isOwed }, evidence) {
    const { puzzle, start, end, lines } = evidence
    const p = indexOf(puzzle, piece)
    // Of a line the place is meant that its piece leaves.
    const other = line === undefined ? undefined : indexOf(puzzle, lines[line - 1])
    return (
      filled(evidence, end, p) === place &&
      lies(puzzle, end, p) === how &&
      (isOwed === true) === evidence.isOwing &&
      (other === undefined || (other >= 0 && filled(evidence, start, other) === place))
    )
  },
  turnsThere({ piece, was, lies: is }, evidence) {
    const { puzzle, start, end } = evidence
    const p = indexOf(puzzle, piece)
    return isStaying(evidence, p) && lies(puzzle, start, p) === was && lies(puzzle, end, p) === is
  },
  takenOut: ({ piece }, evidence) => !isStaying(evidence, indexOf(evidence.puzzle, piece)),
  shows: ({ piece, looks }, { puzzle, now }) =>
    looks.every((look) => showsSo(puzzle, now, indexOf(puzzle, piece), look)),
  sideHeld: ({ side, at }, { puzzle, now }) =>
    turnSide(puzzle, now.frame, directionOfName(side)) === directionOfName(at),
  holdBy: ({ turns: said }, evidence) => said.join() === wholeTurns(evidence).join(),
  afterTurns: ({ count }, evidence) => count === evidence.made - wholeTurns(evidence).length,
  matches: ({ piece, looks }, { puzzle, now }) =>
    looks.length > 0 && looks.every((look) => isMatched(puzzle, now, indexOf(puzzle, piece), look)),
  continues({ piece }, { puzzle, glowing, now: { state } }) {
    if (!glowing.includes(piece)) return false
    const p = indexOf(puzzle, piece)
    const under = puzzle.pieces.flatMap((_, q) => (q !== p && areOnOneRay(puzzle, p, q) ? [q] : []))
    return under.length > 0 && under.every((q) => state[q] === state[p])
  },
  goRound({ at, isClockwise }, evidence) {
    const { puzzle, lines, start, end } = evidence
    const side = directionOfName(at)
    const pieces = lines.map((id) => indexOf(puzzle, id))
    if (pieces.length !== 3) return false
    const from = pieces.map((p) => placeFilled(puzzle, start, p))
    const to = pieces.map((p) => placeFilled(puzzle, end, p))
    // From the first to where it goes, to where that one goes.
    const second = from.indexOf(to[0])
    const third = from.indexOf(to[second])
    const [a, b, c] = [0, second, third].map((i) =>
      rotate(evidence.now.frame, puzzle.pieces[from[i] ?? 0].cells[0]),
    )
    const round = dot(cross(subtract(b, a), subtract(c, b)), side.vector)
    return (
      new Set([0, second, third]).size === 3 &&
      pieces.every((p) =>
        facesOf(puzzle, evidence.now, p).some(({ normal }) => directionOfVector(normal) === side),
      ) &&
      round < 0 === (isClockwise === true)
    )
  },
  inLayer: ({ piece, at }, { puzzle, now }) =>
    facesOf(puzzle, now, indexOf(puzzle, piece)).some(
      ({ normal }) => directionOfVector(normal)?.name === at,
    ),
  countsAsHome: ({ piece }, { puzzle, now }) => isHome(puzzle, now, indexOf(puzzle, piece)),
  rightTogether({ pieces }, { puzzle, now, base }) {
    // Where only faces are asked, what shows the first side there is right.
    const isRight = (p: number) =>
      isHome(puzzle, now, p) ||
      (hasColouredSides(puzzle) ? isFaced : isFitting)(puzzle, now, p, base)
    return pieces.length > 0 && pieces.every((id) => isRight(indexOf(puzzle, id)))
  },
  lacks({ piece, colour }, { puzzle }) {
    const { kind, faces } = puzzle.pieces[indexOf(puzzle, piece)]
    const others = puzzle.pieces.filter((each) => each.kind === kind && each.id !== piece)
    const has = (each: typeof faces) => each.some((face) => face.colour === colour)
    return !has(faces) && others.length > 0 && others.every((each) => has(each.faces))
  },
}

/** Turns of the whole puzzle that are made by then. */
const wholeTurns = ({ puzzle, turns, made }: Evidence): string[] =>
  turns.slice(0, made).flatMap(({ name }) => (puzzle.turnByName.get(name)?.whole ? [name] : []))

const facesOf = (puzzle: Puzzle, { state }: Moment, piece: number) =>
  puzzle.pieces[piece].faces.map(({ colour, normal }) => ({
    colour,
    normal: rotate(state[piece], normal),
  }))

/** Whether it and some other piece show that colour to that side. */
function isMatched(
  puzzle: Puzzle,
  moment: Moment,
  piece: number,
  { colour, toward }: Look,
): boolean {
  const shows = (p: number) =>
    facesOf(puzzle, moment, p).some(
      (face) =>
        face.colour === colour &&
        toward.every((name) => directionOfVector(face.normal)?.name === name),
    )
  return shows(piece) && puzzle.pieces.some((_, q) => q !== piece && shows(q))
}

function areOnOneRay({ pieces, cores }: Puzzle, a: number, b: number): boolean {
  const out = (p: number) => unit(subtract(average(pieces[p].cells), cores[pieces[p].core]))
  return (
    pieces[a].core === pieces[b].core &&
    length(cross(out(a), out(b))) < 1e-3 &&
    dot(out(a), out(b)) > 0
  )
}

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
