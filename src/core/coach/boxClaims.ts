/** The words of steps that exchange pieces of a box by half turns of one side. All read off the states. */
import { lookClassesOf } from '../analysis/lookAlikes'
import { reachOf } from '../analysis/placements'
import { homeFilled, looksOf } from '../analysis/who'
import type { Claim, Said } from '../claims/claim'
import { movedBetween, type Moment } from '../claims/evidence'
import type { Puzzle } from '../puzzle/compile'
import { directionOfVector, turnDirection, type Direction } from '../puzzle/directions'
import { INVERSE, multiply, type Rotation } from '../rotation'
import { looksHome, type State } from '../state'
import { baseKind, sidesShown } from '../phrases'
import type { Aim } from './aim'
import { isFilled } from './goal'
import {
  endOf,
  goesTo,
  heldIn,
  holdOfScene,
  homeCount,
  ids,
  linesOf,
  pieceAt,
  seekAmong,
  type PieceScene,
} from './pieceClaims'
import { MOST_LINES, type RouteLine, type StepClaims } from './route'
import { selected } from './selections'

type Swap = Extract<Aim, { kind: 'swap' }>

export function swapClaims(scene: PieceScene, aim: Swap): StepClaims {
  const { puzzle } = scene
  const of = placesOf(scene)
  const all = linesOf(scene, aim.pieces) ?? arrivalsOf(scene, aim.pieces)
  const lines = all.length > MOST_LINES ? [] : all
  const isTold = lines.length > 0
  const [now, then] = [heldIn(scene), endOf(scene)].map((moment) => rightAt(scene, of, moment))
  const held = homeCount(scene, of, { ...HOME, lists: true }, heldIn(scene))
  const note: Said = [
    ...(then <= now ? [{ kind: 'noneGained', of: ids(puzzle, of) } as const] : []),
    ...pairClaims(scene, aim),
    ...besideClaims(scene, aim, lines),
    ...sideClaims(scene, aim),
    ...twinClaims(scene, aim),
  ]
  return {
    lookFor: isTold ? [] : [held],
    ...(isTold ? { lines } : {}),
    hold: holdOfScene(scene),
    check: [homeCount(scene, of, HOME, endOf(scene))],
    ...(note.length > 0 ? { note } : {}),
    hints: {
      nudge: [seekAmong(puzzle, of, 'right')],
      pointer: isTold ? lines[0].says : [held],
    },
    algorithm: aim.sequence,
    pieces: isTold ? lines.map(({ piece }) => piece) : ids(puzzle, aim.pieces),
    ...(aim.side ? { workSide: aim.side.turn } : {}),
  }
}

const HOME = { must: 'home', layer: 'base' } as const

/** Those of the stage. */
function placesOf({ puzzle, stage, base }: PieceScene): readonly number[] {
  const { technique } = stage
  return technique.kind === 'swap' ? selected(puzzle, technique.select, base) : []
}

const rightAt = ({ puzzle }: PieceScene, of: readonly number[], { state, frame }: Moment): number =>
  of.filter((home) => isFilled(puzzle, state, home, frame)).length

/** What lies in the places of the stage. */
function contentsAt(scene: PieceScene, state: State, frame: Rotation): number[] {
  const { slot } = scene.puzzle
  return placesOf(scene).map((home) =>
    state.findIndex((r, p) => slot[24 * p + r] === slot[24 * home + frame]),
  )
}

/** Pieces that come home by the step. */
function arrivalsOf(scene: PieceScene, pieces: readonly number[]): RouteLine[] {
  const { puzzle, state, frame, end, endFrame } = scene
  const isHome = (of: State, hold: Rotation, p: number) =>
    looksHome(puzzle, p, multiply(INVERSE[hold], of[p]))
  const come = pieces.filter((p) => !isHome(state, frame, p) && isHome(end, endFrame, p))
  return come.map((p) => {
    const place = puzzle.place[24 * p + multiply(INVERSE[endFrame], end[p])]
    return {
      piece: puzzle.pieces[p].id,
      to: puzzle.pieces[place].id,
      says: [pieceAt(puzzle, frame, state, p), goesTo(scene, p)],
    }
  })
}

/** Where two corners change places: the other two of the layer, if they show one colour to the side that they share. */
function pairClaims(scene: PieceScene, { pieces }: Swap): Claim[] {
  const { puzzle, state, frame, end, endFrame } = scene
  const contents = contentsAt(scene, state, frame)
  const isStill = (p: number) =>
    multiply(INVERSE[frame], state[p]) === multiply(INVERSE[endFrame], end[p])
  const [a, b, ...more] = contents.filter(isStill)
  const isPair = contents.length === 4 && b !== undefined && more.length === 0
  if (!isPair || baseKind(puzzle.pieces[pieces[0]].kind) !== 'corner') return []
  const shared = sidesShown(puzzle, a, state[a]).filter((side) =>
    sidesShown(puzzle, b, state[b]).includes(side),
  )
  const seenOn = (p: number, side: Direction) =>
    puzzle.pieces[p].faces.find(
      ({ normal }) => turnDirection(state[p], directionOfVector(normal)) === side,
    )?.colour
  // The side of the layer is shared by all four.
  const side = shared.find((each) =>
    contents.some((p) => !sidesShown(puzzle, p, state[p]).includes(each)),
  )
  const colour = side && seenOn(a, side)
  return side && colour !== undefined && seenOn(b, side) === colour
    ? [{ kind: 'matchingPair', pieces: ids(puzzle, [a, b]), colour, at: side.name }]
    : []
}

/** What a later stage asks for and this one moves. */
function besideClaims(scene: PieceScene, { pieces }: Swap, lines: readonly RouteLine[]): Claim[] {
  const { puzzle } = scene
  const moved = movedBetween(puzzle, heldIn(scene), endOf(scene)).filter(
    (p) => !pieces.includes(p) && lines.every(({ piece }) => piece !== puzzle.pieces[p].id),
  )
  const kinds = new Set(moved.map((p) => baseKind(puzzle.pieces[p].kind)))
  const [kind] = kinds
  const isOwn = kind === baseKind(puzzle.pieces[pieces[0]].kind)
  if (moved.length === 0 || moved.length > MOST_BESIDE || kinds.size > 1 || isOwn) return []
  return [{ kind: 'movedBeside', kinds: [kind], count: moved.length }]
}

/** More than so many others that move are no side effect to keep in mind. */
const MOST_BESIDE = 4

/** What is half done on the way, and that it comes right: the count is known before the first turn. */
function sideClaims({ puzzle }: PieceScene, { side }: Swap): Claim[] {
  const turn = side && puzzle.turnByName.get(side.turn)
  // A slice is no side that one keeps an eye on.
  const isOuter = turn !== undefined && /^[UDFBRL]$/.test(puzzle.grips[turn.grip].name)
  return side && isOuter ? [{ kind: 'workSide', turn: side.turn, times: side.times }] : []
}

/**
 * A piece of the same colours belongs elsewhere: what that one would show in this place. Told of the first that
 * comes home.
 */
function twinClaims({ puzzle, state, frame, end, endFrame }: PieceScene, aim: Swap): Claim[] {
  const home = aim.pieces.find(
    (p) =>
      twinOf(puzzle, p) !== undefined &&
      looksHome(puzzle, p, multiply(INVERSE[endFrame], end[p])) &&
      multiply(INVERSE[frame], state[p]) !== multiply(INVERSE[endFrame], end[p]),
  )
  const twin = home === undefined ? undefined : twinOf(puzzle, home)
  if (home === undefined || twin === undefined) return []
  const place = homeFilled(puzzle, endFrame, home, end[home])
  const wrong = reachOf(puzzle)[twin].find((r) => puzzle.place[24 * twin + r] === place)
  if (wrong === undefined) return []
  // The first face tells them apart.
  const [not] = looksOf(puzzle, home, end[home])
  const [looks] = looksOf(puzzle, twin, multiply(endFrame, wrong))
  return JSON.stringify(not) === JSON.stringify(looks)
    ? []
    : [
        {
          ...{ kind: 'twinWouldShow', piece: puzzle.pieces[home].id, twin: puzzle.pieces[twin].id },
          looks: [looks],
          not: [not],
        },
      ]
}

/** Another piece of the orbit with the same colours that does not look the same in its place. */
function twinOf(puzzle: Puzzle, piece: number): number | undefined {
  const { classOf } = lookClassesOf(puzzle)
  const colours = (p: number) =>
    puzzle.pieces[p].faces
      .map(({ colour }) => colour)
      .sort()
      .join()
  const found = puzzle.pieces.findIndex(
    (_, q) =>
      q !== piece &&
      classOf[q] !== classOf[piece] &&
      colours(q) === colours(piece) &&
      reachOf(puzzle)[q].some((r) => puzzle.place[24 * q + r] === piece),
  )
  return found < 0 ? undefined : found
}
