/** The words of steps that bring equal pieces home by commutators. All read off the states. */
import { circlesInOrder, isLocked } from '../analysis/circles'
import { homeFilled, sideName, who } from '../analysis/who'
import { capital, inWords, kindPlural, plural } from '../words'
import type { Aim } from './aim'
import { isFilled } from './goal'
import {
  holdOfScene,
  MISTURNED,
  placeIn,
  type PieceScene,
  type PieceWords,
} from './pieceWords'
import type { RouteLine } from './route'

/** So many lines a card has at most. */
const MOST_LINES = 3

export function commutatorWords(
  scene: PieceScene,
  { of, parts }: Extract<Aim, { kind: 'commutator' }>,
): PieceWords {
  const { puzzle, state, frame, end, endFrame } = scene
  const come = of.filter(
    (home) => !isFilled(puzzle, state, home, frame) && isFilled(puzzle, end, home, endFrame),
  )
  const all = come.map((home) => lineTo(scene, home))
  const lines = all.slice(0, MOST_LINES)
  const right = of.filter((home) => isFilled(puzzle, end, home, endFrame)).length
  const noun = puzzle.pieces[of[0]].kind
  const more = all.length - lines.length
  const note = [
    ...(scene.isFirst ? circleWords(scene) : []),
    ...(more > 0
      ? [`${capital(plural(more, 'other'))} ${more > 1 ? 'come' : 'comes'} home too.`]
      : []),
    ...(parts ? [partsWords(parts)] : []),
  ].join(' ')
  return {
    lookFor: `${plural(come.length, noun)} that ${come.length > 1 ? 'come' : 'comes'} home: ${lines.map(({ sentence }) => sentence).join(' ')}`,
    lines,
    hold: holdOfScene(scene),
    check: `${countWords(right, of.length, kindPlural(noun))}.`,
    ifNot: MISTURNED,
    ...(note === '' ? {} : { note }),
    hints: {
      nudge: `Look for ${kindPlural(noun)} of the colour of ${circleName(scene) ?? 'the place'}.`,
      pointer: lines[0].sentence,
    },
    pieces: lines.map(({ piece }) => piece),
    places: lines.flatMap(({ to }) => (to === undefined ? [] : [to])),
  }
}

/** Of equal pieces the one that lies there at the end. */
function lineTo(scene: PieceScene, home: number): RouteLine {
  const { puzzle, scheme, state, frame, end, endFrame } = scene
  const piece = [...end].findIndex((r, p) => homeFilled(puzzle, endFrame, p, r) === home)
  return {
    piece: puzzle.pieces[piece].id,
    to: puzzle.pieces[home].id,
    sentence: `${capital(who(puzzle, scheme, piece))} is ${placeIn(scene, frame, state, piece)}. It goes to ${placeIn(scene, endFrame, end, piece)}, where it belongs.`,
  }
}

function countWords(right: number, count: number, nouns: string): string {
  if (right === count) return `all ${inWords(count)} ${nouns} of the circle are home`
  return `${inWords(right)} of the ${inWords(count)} ${nouns} of the circle ${right === 1 ? 'is' : 'are'} home`
}

function sideOfCircle({ puzzle, stage: { technique } }: PieceScene) {
  const { circle = 0 } = technique.kind === 'commutator' ? technique.select : {}
  return circlesInOrder(puzzle)[circle - 1]
}

function circleName(scene: PieceScene): string | undefined {
  const side = sideOfCircle(scene)
  return side && `the ${sideName(scene.puzzle, scene.scheme, side)} circle`
}

/** What a circle does when its own side turns: why it is done when it is. */
function circleWords(scene: PieceScene): string[] {
  const side = sideOfCircle(scene)
  if (!side) return []
  const name = sideName(scene.puzzle, scene.scheme, side)
  return [
    isLocked(scene.puzzle, side)
      ? `The ${name} side is locked: its own turns take its circle round with them, whole.`
      : `The ${name} side is free: its own turns pass its circle by.`,
  ]
}

const partsWords = ([first, second]: readonly [readonly string[], string]): string =>
  `Its heart is a commutator: ${first.join(' ')}, then ${second}, then both taken back.`
