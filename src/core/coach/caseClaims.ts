/** What is claimed of a case: how its layer looks, the hold, what it is easily taken for, whether the hold matters. */
import { barsIn, looksIn, patternOf, type Look } from '../analysis/caseRead'
import { hasColouredSides } from '../analysis/sides'
import type { Of, Said } from '../claims/claim'
import type { Moment } from '../claims/evidence'
import { doSequence, sequence, sequenceOf } from '../notation/sequence'
import { opposite, turnDirection, type Direction } from '../puzzle/directions'
import type { Puzzle } from '../puzzle/compile'
import { multiply, rotationAbout, type Rotation } from '../rotation'
import { inverseOf, rotateState, start, type State } from '../state'
import type { Aim } from './aim'
import { holdClaims, type CubeScene } from './cubeClaims'
import { frameMeeting, piecesOfSide, sideOf } from './goal'
import { endOf, homeCount, ids } from './pieceClaims'
import type { StepClaims } from './route'
import { caseInSolid } from './solidClaims'
import { after, held } from './workpiece'

type CaseAim = Extract<Aim, { kind: 'case' }>

export function caseClaims(scene: CubeScene, aim: CaseAim): StepClaims {
  const { puzzle, base } = scene
  if (!hasColouredSides(puzzle)) return caseInSolid(scene, aim)
  const side = sideOf('last', base)
  const of = piecesOfSide(puzzle, side)
  const isDirections = aim.reading === 'directions'
  const which = { kind: 'caseIs', nth: aim.caseIndex + 1, of: aim.caseCount } as const
  const reading = readingOf(puzzle, scene, side, aim.reading)
  return {
    lookFor: reading.looks,
    hold: [...holdClaims(scene), ...reading.hold],
    check: [
      isDirections
        ? homeCount(scene, of, { must: 'faced', layer: 'last' }, endOf(scene))
        : { kind: 'doneButForTurn' },
    ],
    hints: {
      nudge: [{ kind: 'seekCase', of: ids(puzzle, of), cases: aim.caseCount }],
      pointer: [which],
    },
    note: [
      which,
      ...(isDirections ? mistakenFor(puzzle, scene, side, aim) : [{ kind: 'meansBar' } as const]),
      ...worksHeld(scene, aim, side),
    ],
    algorithm: aim.algorithm,
    pieces: ids(puzzle, of),
    caseIndex: aim.caseIndex,
  }
}

interface Reading {
  /** The case as it is named: the same from every hold. */
  readonly looks: Said
  /** What must be where for the sequence. */
  readonly hold: Said
}

/** How the layer of a side is read. */
export function readingOf(
  puzzle: Puzzle,
  moment: Moment,
  side: Direction,
  by: CaseAim['reading'],
): Reading {
  if (by === 'bars') {
    const layers = [side, opposite(side)].map((each) => ({
      side: each.name,
      sides: barsIn(puzzle, moment, each).map(({ name }) => name),
    }))
    return {
      looks: layers.map(({ side, sides }) => ({ kind: 'barCount', side, count: sides.length })),
      hold: layers.map((each) => ({ kind: 'barsAt', ...each })),
    }
  }
  const looks = looksIn(puzzle, moment, side)
  const up = turnDirection(moment.frame, side)
  const wrong = looks.filter(({ toward }) => toward !== up)
  const how = patternOf(puzzle, moment, side, looks)
  const of = ids(
    puzzle,
    looks.map(({ place }) => place),
  )
  const count = looks.length - wrong.length
  return {
    looks: how ? [{ kind: 'caseLooks', of, side: side.name, count, how }] : [],
    hold: [
      {
        kind: 'looksToward',
        side: side.name,
        places: ids(
          puzzle,
          wrong.map(({ place }) => place),
        ),
        toward: wrong.map(({ toward }) => toward.name),
      },
    ],
  }
}

/**
 * The case that differs in the fewest places from some side, with a place that tells them apart. People confuse cases
 * with as many pieces right, so those come first.
 */
export function mistakenFor(
  puzzle: Puzzle,
  { state, frame }: Moment,
  side: Direction,
  { caseIndex, algorithms }: Pick<CaseAim, 'caseIndex' | 'algorithms'>,
): Of<'mistakenFor'>[] {
  const own = looksIn(puzzle, { state, frame }, side)
  const up = turnDirection(frame, side)
  const right = (looks: readonly Look[]) => looks.filter(({ toward }) => toward === up).length
  const rivals = algorithms.flatMap((algorithm, nth) => {
    if (nth === caseIndex) return []
    const before = stateOfCase(puzzle, frame, algorithm)
    return [0, 90, 180, 270].map((degrees) => {
      const turned = rotateState(before, rotationAbout(up.vector, degrees))
      const looks = looksIn(puzzle, { state: turned, frame }, side)
      const there = new Map(looks.map(({ place, toward }) => [place, toward]))
      const differing = own.filter(({ place, toward }) => there.get(place) !== toward)
      return { nth, algorithm, looks, there, differing }
    })
  })
  const alike = rivals.filter(({ looks }) => right(looks) === right(own))
  const told = (alike.length > 0 ? alike : rivals).filter(({ differing }) => differing.length > 0)
  const [nearest] = told.sort((a, b) => a.differing.length - b.differing.length)
  const [decisive] = nearest?.differing ?? []
  const there = decisive && nearest.there.get(decisive.place)
  if (!there) return []
  return [
    {
      kind: 'mistakenFor',
      nth: nearest.nth + 1,
      algorithm: sequence(puzzle, nearest.algorithm).turns.map(({ name }) => name),
      of: ids(
        puzzle,
        own.map(({ place }) => place),
      ),
      side: side.name,
      count: nearest.differing.length,
      place: puzzle.pieces[decisive.place].id,
      here: decisive.toward.name,
      there: there.name,
    },
  ]
}

/** The finished puzzle in a hold, with a sequence taken back. */
export const stateOfCase = (puzzle: Puzzle, frame: Rotation, algorithm: string): State =>
  doSequence(
    sequenceOf(puzzle, inverseOf(puzzle, sequence(puzzle, algorithm).turns)),
    rotateState(start(puzzle), frame),
  )

/** Where the sequence does its work from other holds too. */
function worksHeld(scene: CubeScene, aim: CaseAim, side: Direction): Of<'worksHeld'>[] {
  const { puzzle, stage, base, step } = scene
  const { last } = held(stage)
  const turns = step.turns.map(({ turn }) => turn)
  const leading = turns.slice(0, turns.length - aim.algorithm.length)
  const ready = after(puzzle, step.before, step.frame, leading)
  const ends = puzzle.turns.filter(
    ({ grip, whole }) => !whole && puzzle.grips[grip].name === last.letter,
  )
  const works = [90, 180, 270].filter((degrees) => {
    const round = rotationAbout(last.vector, degrees)
    const turned = rotateState(ready.state, round)
    const done = after(puzzle, turned, multiply(round, ready.frame), turns.slice(leading.length))
    return [[], ...ends.map((turn) => [turn])].some((end) => {
      const { state } = after(puzzle, done.state, done.frame, end)
      return frameMeeting(puzzle, stage.goal, base, state) !== undefined
    })
  })
  if (!works.includes(180)) return []
  const so = aim.reading === 'directions' ? 'faced' : 'home'
  const holds = works.length === 3 ? 'any' : 'half'
  return [{ kind: 'worksHeld', side: side.name, so, holds }]
}
