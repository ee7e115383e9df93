/** The words of steps that exchange pieces of a box by half turns of one side. All read off the states. */
import { lookClassesOf } from '../analysis/lookAlikes'
import { reachOf } from '../analysis/placements'
import { who } from '../analysis/who'
import { colourIn } from '../puzzle/colours'
import type { Puzzle } from '../puzzle/compile'
import { directionOfVector, turnDirection, type Direction } from '../puzzle/directions'
import { INVERSE, multiply, type Rotation } from '../rotation'
import { looksHome, type State } from '../state'
import { baseKind, capital, facingWords, inWords, kindPlural, plural, sidesShown } from '../phrases'
import type { Aim } from './aim'
import {
  holdOfScene,
  ids,
  goesTo,
  linesOf,
  pieceAt,
  statusWords,
  type PieceScene,
  type PieceWords,
} from './pieceWords'
import type { RouteLine } from './route'
import { selected } from './selections'

type Swap = Extract<Aim, { kind: 'swap' }>

/** So many pieces are told one by one. */
const MOST_LINES = 3

export function swapWords(scene: PieceScene, aim: Swap): PieceWords {
  const { puzzle, state, frame, end, endFrame } = scene
  const noun = kindPlural(baseKind(puzzle.pieces[aim.pieces[0]].kind))
  const now = statusAt(scene, state, frame)
  const all = linesOf(scene, aim.pieces) ?? arrivalsOf(scene, aim.pieces)
  const lines = all.length > MOST_LINES ? [] : all
  const isTold = lines.length > 0
  const note = [
    ...(isTold ? [`${capital(now)}.`] : []),
    ...(rightAt(scene, end, endFrame) <= rightAt(scene, state, frame)
      ? ['None comes home by this; it makes the next ones short.']
      : []),
    ...pairWords(scene, aim),
    ...besideWords(scene, aim),
    ...sideWords(scene, aim),
    ...twinWords(scene, aim),
  ].join(' ')
  return {
    lookFor: `how the ${noun} lie: ${now}.`,
    ...(isTold ? { lines } : {}),
    hold: holdOfScene(scene),
    check: `${statusAt(scene, end, endFrame)}.`,
    ...(note ? { note } : {}),
    hints: {
      nudge: `Look at the ${inWords(aim.pieces.length)} ${noun} of the stage: which are right?`,
      pointer: isTold ? lines[0].says : `${capital(now)}.`,
    },
    algorithm: aim.sequence,
    pieces: isTold ? lines.map(({ piece }) => piece) : ids(puzzle, aim.pieces),
    ...(aim.side ? { workSide: aim.side.turn } : {}),
  }
}

/** What lies in the places of the stage. */
function contentsAt({ puzzle, stage, base }: PieceScene, state: State, frame: Rotation): number[] {
  const { technique } = stage
  const places = technique.kind === 'swap' ? selected(puzzle, technique.select, base) : []
  return places.map((home) => {
    const slot = puzzle.slot[24 * home + frame]
    return state.findIndex((r, p) => puzzle.slot[24 * p + r] === slot)
  })
}

/** How many places of the stage show what they should, whichever of equal pieces lies there. */
const statusAt = (scene: PieceScene, state: State, frame: Rotation): string =>
  statusWords(
    scene,
    { pieces: contentsAt(scene, state, frame), must: 'home', layer: 'base' },
    state,
    frame,
  )

const rightAt = (scene: PieceScene, state: State, frame: Rotation): number =>
  contentsAt(scene, state, frame).filter((p) =>
    looksHome(scene.puzzle, p, multiply(INVERSE[frame], state[p])),
  ).length

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
function pairWords(scene: PieceScene, { pieces }: Swap): string[] {
  const { puzzle, scheme, state, frame, end, endFrame } = scene
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
  if (!side || colour === undefined || seenOn(b, side) !== colour) return []
  const name = colourIn(scheme, colour).name
  return [
    `The two corners ${side.at} both show ${name} ${side.toward}: a matching pair. It stays, and the other two change places.`,
  ]
}

/** What a later stage asks for and this one moves. */
function besideWords(scene: PieceScene, { pieces }: Swap): string[] {
  const { puzzle, state, frame, end, endFrame } = scene
  const { look } = puzzle
  const moved = [...state].flatMap((r, p) => {
    const [was, is] = [multiply(INVERSE[frame], r), multiply(INVERSE[endFrame], end[p])]
    return pieces.includes(p) || look[24 * p + was] === look[24 * p + is] ? [] : [p]
  })
  const kinds = new Set(moved.map((p) => baseKind(puzzle.pieces[p].kind)))
  const [kind] = kinds
  const isOwn = kind === baseKind(puzzle.pieces[pieces[0]].kind)
  if (moved.length === 0 || moved.length > MOST_BESIDE || kinds.size > 1 || isOwn) return []
  return [`It also moves ${plural(moved.length, kind)}, whose turn comes later.`]
}

/** More than so many others that move are no side effect to keep in mind. */
const MOST_BESIDE = 4

const SIDE_NAMES: Readonly<Record<string, string>> = {
  R: 'right',
  L: 'left',
  F: 'front',
  B: 'back',
  U: 'top',
  D: 'bottom',
}

/** What is half done on the way, and that it comes right: the count is known before the first turn. */
function sideWords({ puzzle }: PieceScene, { side }: Swap): string[] {
  const turn = side && puzzle.turnByName.get(side.turn)
  const name = turn && SIDE_NAMES[puzzle.grips[turn.grip].name]
  if (!side || name === undefined) return []
  const count = `The ${name} side is the work side: ${inWords(side.times)} half turns in all`
  return side.times % 2 === 0
    ? [`${count}, an even number, so all else comes right again. Keep this hold until then.`]
    : [
        `${count}. The number is odd, but pieces that look alike have changed places, so all that is done looks right again. Keep this hold until then.`,
      ]
}

/**
 * A piece of the same colours belongs elsewhere: what that one would show in this place. Told of the first that
 * comes home.
 */
function twinWords(
  { puzzle, scheme, state, frame, end, endFrame }: PieceScene,
  aim: Swap,
): string[] {
  const home = aim.pieces.find(
    (p) =>
      twinOf(puzzle, p) !== undefined &&
      looksHome(puzzle, p, multiply(INVERSE[endFrame], end[p])) &&
      multiply(INVERSE[frame], state[p]) !== multiply(INVERSE[endFrame], end[p]),
  )
  const twin = home === undefined ? undefined : twinOf(puzzle, home)
  if (home === undefined || twin === undefined) return []
  const wrong = reachOf(puzzle)[twin].find((r) => puzzle.place[24 * twin + r] === home)
  if (wrong === undefined) return []
  // The first face tells them apart.
  const [right, other] = [
    facingWords(puzzle, scheme, home, end[home]),
    facingWords(puzzle, scheme, twin, multiply(endFrame, wrong)),
  ].map((text) => text.split(',')[0])
  return right === other
    ? []
    : [
        `${capital(who(puzzle, scheme, home))} has a twin of the same colours, which would show ${other} there, not ${right}.`,
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
