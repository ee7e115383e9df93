/** The words of steps that bring pieces home by commutators, equal ones for each other. All read off the states. */
import { areNeighbours, capMeant } from '../analysis/caps'
import { lookClassesOf } from '../analysis/lookAlikes'
import { circlesInOrder, isLocked } from '../analysis/circles'
import { homeFilled, sideName } from '../analysis/who'
import { average, dot, subtract } from '../geometry/vector'
import { rotate, type Rotation, type Vector } from '../rotation'
import type { Scheme } from '../puzzle/colours'
import type { Puzzle } from '../puzzle/compile'
import type { Direction } from '../puzzle/directions'
import type { Stage } from '../schools/school'
import { capital, inWords, kindPlural, plural } from '../phrases'
import type { Aim } from './aim'
import { isFilled } from './goal'
import { goesTo, holdOfScene, pieceAt, type PieceScene, type PieceWords } from './pieceWords'
import type { RouteLine } from './route'

type Commutator = Extract<Aim, { kind: 'commutator' }>

/** So many lines a card has at most. */
const MOST_LINES = 3

export function commutatorWords(
  scene: PieceScene,
  { of, parts }: Commutator,
): PieceWords & { readonly check: string; readonly note?: string } {
  const { puzzle, state, frame, end, endFrame } = scene
  const come = of.filter(
    (home) => !isFilled(puzzle, state, home, frame) && isFilled(puzzle, end, home, endFrame),
  )
  const lines = come.slice(0, MOST_LINES).map((home) => lineTo(scene, home))
  const right = of.filter((home) => isFilled(puzzle, end, home, endFrame)).length
  const noun = nounOf(puzzle, of)
  const more = come.length - lines.length
  const note = [
    ...(scene.isFirst ? circleWords(scene) : []),
    ...(more > 0
      ? [`${capital(plural(more, 'other'))} ${more > 1 ? 'come' : 'comes'} home too.`]
      : []),
    ...lastCapWords(scene, of),
    ...(isBlock(scene, come) ? ['They lie as they belong already, and go as one block.'] : []),
    ...(parts ? [partsWords(parts)] : []),
  ].join(' ')
  return {
    lookFor: `${plural(come.length, noun)} that ${come.length > 1 ? 'come' : 'comes'} home.`,
    lines,
    hold: holdOfScene(scene),
    check: `${countWords(right, of.length, kindPlural(noun), sideOf(scene))}.`,
    ...(note === '' ? {} : { note }),
    hints: {
      nudge: `Look for ${kindPlural(noun)} that belong ${ownerWords(sideOf(scene), 'to')}.`,
      pointer: lines[0].says,
    },
    pieces: lines.map(({ piece }) => piece),
    places: lines.flatMap(({ to }) => (to === undefined ? [] : [to])),
  }
}

/** Of the last cap's pieces, where no cap has room any more: which change places. */
function lastCapWords(scene: PieceScene, of: readonly number[]): string[] {
  const { puzzle, stage, frame } = scene
  if (stage.technique.kind !== 'commutator' || stage.technique.select.cap !== 'last') return []
  const { classOf, classSize } = lookClassesOf(puzzle)
  // Equal ones can be taken for each other, and then there is more than one answer.
  if (of.some((p) => classSize[classOf[p]] > 1)) return []
  const rounds = roundsOf(scene, of)
  const lengths = rounds.map(({ length }) => length).join()
  if (lengths === '2') {
    const [a, b] = rounds[0].map((home) => centreOf(puzzle, home, frame))
    const step = subtract(a, b)
    // In a cap of three by three.
    const how =
      puzzle.pieces[rounds[0][0]].kind === 'cap corner'
        ? Math.round(dot(step, step)) === 4
          ? ', side by side'
          : ', across from each other'
        : ''
    return [`Just two are to be exchanged${how}.`]
  }
  return lengths === '3'
    ? ['Just three go round.']
    : lengths === '2,2'
      ? ['Two and two are to be exchanged.']
      : []
}

/** Pieces that change places among each other, by their homes. */
function roundsOf({ puzzle, state, frame }: PieceScene, of: readonly number[]): number[][] {
  const to = new Map<number, number>()
  for (const p of of) {
    const at = homeFilled(puzzle, frame, p, state[p])
    if (at !== undefined && at !== p) to.set(p, at)
  }
  const rounds: number[][] = []
  const seen = new Set<number>()
  for (const first of to.keys()) {
    if (seen.has(first)) continue
    const round: number[] = []
    for (let at: number | undefined = first; at !== undefined && !seen.has(at); at = to.get(at)) {
      seen.add(at)
      round.push(at)
    }
    rounds.push(round)
  }
  return rounds.sort((a, b) => a.length - b.length)
}

const centreOf = ({ pieces }: Puzzle, home: number, frame: Rotation): Vector =>
  rotate(frame, average(pieces[home].cells))

/** What lies in a home at the end: of equal pieces any. */
const fillerOf = ({ puzzle, end, endFrame }: PieceScene, home: number): number =>
  [...end].findIndex((r, p) => homeFilled(puzzle, endFrame, p, r) === home)

function lineTo(scene: PieceScene, home: number): RouteLine {
  const { puzzle, state, frame } = scene
  const piece = fillerOf(scene, home)
  return {
    piece: puzzle.pieces[piece].id,
    to: puzzle.pieces[home].id,
    says: [pieceAt(puzzle, frame, state, piece), goesTo(scene, piece)],
  }
}

/** Whether what comes home has lain together before as it does then. */
function isBlock(scene: PieceScene, come: readonly number[]): boolean {
  const { puzzle, state, end } = scene
  if (puzzle.definition.mechanism.kind === 'capped' && !areBeside(puzzle, come)) return false
  const [first, ...others] = come.map((home) => fillerOf(scene, home))
  return (
    others.length > 0 && others.every((p) => state[p] === state[first] && end[p] === end[first])
  )
}

/** Whether some homes hang together, cell by cell. */
function areBeside(puzzle: Puzzle, homes: readonly number[]): boolean {
  const [first, ...rest] = homes
  const reached = [first]
  for (const home of reached)
    for (const other of rest)
      if (!reached.includes(other) && areNeighbours(puzzle, home, other)) reached.push(other)
  return reached.length === homes.length
}

/** 'edge bit' where all are of one kind, else 'piece'. */
function nounOf({ pieces }: Puzzle, of: readonly number[]): string {
  const kinds = new Set(of.map((p) => pieces[p].kind))
  return kinds.size === 1 ? pieces[of[0]].kind : 'piece'
}

/** The side whose circle or cap a stage is about. */
interface Owner {
  readonly name: string
  readonly what: 'circle' | 'cap'
  readonly side: Direction
}

export function ownerOf(
  puzzle: Puzzle,
  scheme: Scheme,
  { technique }: Pick<Stage, 'technique'>,
): Owner | undefined {
  const { circle, cap } =
    technique.kind === 'commutator' || technique.kind === 'blocks' ? technique.select : {}
  const side =
    circle !== undefined
      ? circlesInOrder(puzzle)[circle - 1]
      : cap !== undefined
        ? capMeant(puzzle, cap)
        : undefined
  return (
    side && {
      name: sideName(puzzle, scheme, side),
      what: circle === undefined ? 'cap' : 'circle',
      side,
    }
  )
}

const sideOf = ({ puzzle, scheme, stage }: PieceScene) => ownerOf(puzzle, scheme, stage)

const ownerWords = (owner: Owner | undefined, word: 'of' | 'to'): string =>
  owner ? `${word} the ${owner.name} ${owner.what}` : 'there'

function countWords(right: number, count: number, nouns: string, owner: Owner | undefined): string {
  const whose = owner ? `${nouns} ${ownerWords(owner, 'of')}` : nouns
  if (right === count) return `all ${inWords(count)} ${whose} are home`
  if (right === 0) return `none of the ${inWords(count)} ${whose} is home`
  return `${inWords(right)} of the ${inWords(count)} ${whose} ${right === 1 ? 'is' : 'are'} home`
}

/** What a circle does when its own side turns: why it is done when it is. */
function circleWords(scene: PieceScene): string[] {
  const owner = sideOf(scene)
  if (owner?.what !== 'circle') return []
  return [
    isLocked(scene.puzzle, owner.side)
      ? `The ${owner.name} side is locked: its own turns take its circle round with them, whole.`
      : `The ${owner.name} side is free: its own turns pass its circle by.`,
  ]
}

const partsWords = ([first, second]: readonly [readonly string[], string]): string =>
  `Its heart is a commutator: ${first.join(' ')}, then ${second}, then both taken back.`
