/**
 * The words of steps on solids, where no side has a colour of its own: which piece by its colours, where by
 * the name of the place, which way by where its faces look. What is `turned right` is told by fitting.
 */
import { sideOpposite } from '../analysis/sides'
import { leaningWords, who } from '../analysis/who'
import { asSaid } from '../claims/claim'
import { placeOf } from '../state'
import { baseKind, capital, inWords, kindPlural, listed, plural, times } from '../phrases'
import type { Aim } from './aim'
import { piecesOfSide } from './goal'
import {
  facedInSolid,
  goesTo,
  holdByMarks,
  ids,
  pieceAt,
  placeIn,
  shows,
  statusWords,
  takenOut,
  type PieceScene,
} from './pieceWords'
import type { StepDraft } from './route'
import { unseenWords } from './unseenWords'

type SolidScene = Omit<PieceScene, 'isFirst'>

type Words = Pick<StepDraft, 'lookFor' | 'hold' | 'check' | 'hints'> &
  Partial<
    Pick<
      StepDraft,
      'ifNot' | 'note' | 'runs' | 'algorithm' | 'pieces' | 'places' | 'others' | 'caseIndex'
    >
  >

const now = (scene: SolidScene, piece: number): string =>
  placeIn(scene, scene.frame, scene.state, piece)

const then = (scene: SolidScene, piece: number): string =>
  placeIn(scene, scene.endFrame, scene.end, piece)

/** 'The red-green corner is the top front corner. It shows red up and to the front.' */
const lying = (scene: SolidScene, piece: number): string =>
  `${capital(who(scene.puzzle, scene.scheme, piece))} is ${now(scene, piece)}. It shows ${leaningWords(scene.puzzle, scene.scheme, piece, scene.state[piece])}.`

/** How many pieces of the first layer are as the stage wants them. */
function progressOf(scene: SolidScene, must: 'home' | 'faced'): string {
  const pieces = piecesOfSide(scene.puzzle, scene.base)
  return statusWords(scene, { pieces, must, layer: 'base' }, scene.end, scene.endFrame)
}

export function startInSolid(scene: SolidScene, aim: Extract<Aim, { kind: 'start' }>): Words {
  const { puzzle, scheme } = scene
  const name = who(puzzle, scheme, aim.piece)
  const others = aim.already.filter((p) => p !== aim.piece)
  return {
    lookFor: `${lying(scene, aim.piece)} It counts as home; the rest is built around it.`,
    hold: holdByMarks(scene),
    check: `${name} is ${then(scene, aim.piece)}.`,
    ifNot: 'If it is elsewhere, the puzzle was turned another way. Take the hold again.',
    ...(others.length > 0
      ? {
          note: `Right together with it: ${listed(others.map((p) => who(puzzle, scheme, p)))}.`,
        }
      : {}),
    hints: {
      nudge: `Choose a first ${baseKind(puzzle.pieces[aim.piece].kind)}.`,
      pointer: `Begin with ${name}.`,
    },
    pieces: ids(puzzle, aim.already),
    places: ids(puzzle, [placeOf(puzzle, scene.state, aim.piece)]),
  }
}

export function insertInSolid(scene: SolidScene, aim: Extract<Aim, { kind: 'insert' }>): Words {
  const { puzzle, scheme } = scene
  const name = who(puzzle, scheme, aim.piece)
  const to = then(scene, aim.piece)
  const at = pieceAt(puzzle, scene.frame, scene.state, aim.piece)
  return {
    lookFor: [at, goesTo(scene, aim.piece), shows(scene, aim.piece)],
    hold: holdByMarks(scene),
    check: `${name} is ${to}. ${capital(progressOf(scene, aim.must))}.`,
    note:
      [
        ...(aim.must === 'home' ? unseenWords(scene, [aim.piece], 'home') : []),
        ...(aim.runs > 0 ? [`The trigger is done ${times(aim.runs)}.`] : []),
        ...(aim.lastDropped
          ? [
              `The very last ${aim.trigger[aim.trigger.length - 1]} is left out: it would turn the other layer only.`,
            ]
          : []),
      ].join(' ') || undefined,
    hints: { nudge: `Look for ${name}.`, pointer: [at] },
    algorithm: aim.trigger,
    ...(aim.runs > 0 ? { runs: { times: aim.runs, before: 0, total: aim.runs } } : {}),
    pieces: ids(puzzle, [aim.piece]),
    places: ids(puzzle, [placeOf(puzzle, scene.end, aim.piece)]),
    others: aim.others.map(({ piece, turns }) => ({
      piece: puzzle.pieces[piece].id,
      says: asSaid(`${capital(who(puzzle, scheme, piece))}: ${plural(turns, 'turn')}.`),
    })),
  }
}

export function takeOutInSolid(scene: SolidScene, aim: Extract<Aim, { kind: 'takeOut' }>): Words {
  const { puzzle, scheme, state, frame } = scene
  const name = who(puzzle, scheme, aim.piece)
  const at = pieceAt(puzzle, frame, state, aim.piece)
  return {
    lookFor: [at, takenOut(puzzle, aim.piece), shows(scene, aim.piece)],
    hold: holdByMarks(scene),
    check: `${name} is ${then(scene, aim.piece)}. What was right is still right.`,
    note: 'No piece of the first layer is left in the other layer, so a wrong one is taken out.',
    hints: {
      nudge: `Look for ${name}.`,
      pointer: [at],
    },
    algorithm: aim.trigger,
    runs: { times: 1, before: 0, total: 1 },
    pieces: ids(puzzle, [aim.piece]),
    places: ids(puzzle, [placeOf(puzzle, scene.state, aim.piece)]),
  }
}

const lastPieces = ({ puzzle, base }: SolidScene): readonly number[] => {
  const side = sideOpposite(puzzle, base)
  return side ? piecesOfSide(puzzle, side) : []
}

export function countInSolid(scene: SolidScene, aim: Extract<Aim, { kind: 'count' }>): Words {
  const { puzzle, scheme } = scene
  const pieces = lastPieces(scene)
  const noun = kindPlural(baseKind(puzzle.pieces[pieces[0]].kind))
  const all = `all ${inWords(pieces.length)} ${noun} of the last layer are in their places`
  const counted = `As it stands, and after one, two and three quarter turns of the last layer (clockwise, seen from outside), ${listed(aim.counts.map(String))} are in their places.`
  const common = {
    hold: holdByMarks(scene),
    ifNot: 'Take the turns back, the last first, and count again.',
    algorithm: aim.action === 'align' ? [] : aim.cycle,
    ...(aim.runs > 0 ? { runs: { times: aim.runs, before: 0, total: aim.runs } } : {}),
  }
  const nudge = `Turn the last layer and count the ${noun} that are in their places.`
  if (aim.action === 'align')
    return {
      ...common,
      lookFor: `the position of the last layer in which all its ${noun} are in their places.`,
      check: `${all}; twists do not matter yet.`,
      note: counted,
      hints: { nudge, pointer: 'Only a turn of the last layer is missing.' },
      pieces: ids(puzzle, pieces),
    }
  if (aim.action === 'cycleAnyway')
    return {
      ...common,
      lookFor: `how many ${noun} of the last layer are in their places in each position.`,
      check: 'one position now shows exactly one in its place.',
      note: `${counted} No position shows exactly one, so run the cycle once from anywhere and count again.`,
      hints: { nudge, pointer: 'Run the cycle once from where you are.' },
      pieces: ids(puzzle, pieces),
    }
  const piece = aim.piece as number
  const name = who(puzzle, scheme, piece)
  return {
    ...common,
    lookFor: `a position in which exactly one ${baseKind(puzzle.pieces[piece].kind)} of the last layer is in its place: ${name}.`,
    check: `${all}; twists do not matter yet.`,
    note: `${counted} The one that is right is held at ${then(scene, piece)}; the cycle moves the other three, ${times(aim.runs)}.`,
    hints: { nudge, pointer: `The one that stays: ${name}.` },
    pieces: ids(puzzle, [piece]),
    places: ids(puzzle, [placeOf(puzzle, scene.end, piece)]),
  }
}

export function alignInSolid(scene: SolidScene): Words {
  return {
    lookFor: 'the last layer: only a turn of it is missing.',
    hold: holdByMarks(scene),
    check: 'it fits the layer beside it all round.',
    ifNot: 'Keep turning that layer until it fits.',
    hints: {
      nudge: 'Only a turn of one layer is missing.',
      pointer: 'Turn the last layer until it fits.',
    },
    pieces: ids(scene.puzzle, lastPieces(scene)),
  }
}

export function caseInSolid(scene: SolidScene, aim: Extract<Aim, { kind: 'case' }>): Words {
  const { puzzle } = scene
  const isDirections = aim.reading === 'directions'
  const pieces = lastPieces(scene)
  const noun = kindPlural(baseKind(puzzle.pieces[pieces[0]].kind))
  const name = `It is case ${aim.caseIndex + 1} of ${aim.caseCount}.`
  return {
    lookFor: `how the ${noun} of the last layer lie. ${pieces.map((p) => lying(scene, p)).join(' ')}`,
    hold: holdByMarks(scene),
    check: isDirections
      ? `all ${inWords(pieces.length)} ${noun} of the last layer are turned right, wherever they are.`
      : 'every piece fits those beside it, if need be after a turn of one layer.',
    note: [
      name,
      ...(isDirections ? [facedInSolid(baseKind(puzzle.pieces[pieces[0]].kind))] : []),
      ...unseenWords(scene, pieces, isDirections ? 'faced' : 'home'),
    ].join(' '),
    hints: {
      nudge: `Look how the ${inWords(pieces.length)} ${noun} of the last layer lie: one of ${inWords(aim.caseCount)} cases.`,
      pointer: name,
    },
    algorithm: aim.algorithm,
    pieces: ids(puzzle, pieces),
    caseIndex: aim.caseIndex,
  }
}

export function twistInSolid(
  scene: SolidScene,
  aim: Extract<Aim, { kind: 'twist' }>,
  note: string,
): Words {
  const { puzzle, scheme, end } = scene
  const name = who(puzzle, scheme, aim.piece)
  const [place, there] = [now(scene, aim.piece), then(scene, aim.piece)]
  return {
    lookFor: `${capital(name)} is ${place}; it is twisted at ${there}.`,
    hold: holdByMarks(scene),
    check: `it shows ${leaningWords(puzzle, scheme, aim.piece, end[aim.piece])}.`,
    ifNot:
      'Finish the run that you are in. If it still looks elsewhere, take back the runs of this step and count them anew.',
    note: [...unseenWords(scene, [aim.piece], 'home'), note].join(' '),
    hints: {
      nudge: `Find the next ${baseKind(puzzle.pieces[aim.piece].kind)} that is twisted. It is mended at ${there}.`,
      pointer: `${capital(name)} is ${place}.`,
    },
    algorithm: aim.trigger,
    runs: { times: aim.runs, before: aim.runsBefore, total: aim.runsTotal },
    pieces: ids(puzzle, [aim.piece]),
    places: ids(puzzle, [placeOf(puzzle, end, aim.piece)]),
  }
}
