/**
 * The cases of a stage, enumerated from its definition: every state that meets the goal of the stage
 * before, sorted into classes that one algorithm serves from some hold. The algorithm of a class is
 * the cheapest in the hand (see handCost) among the shortest and those one turn longer.
 */
import { memoised } from '../memo'
import { opposite, turnDirection, type Direction } from '../puzzle/directions'
import type { Puzzle, Turn } from '../puzzle/compile'
import { IDENTITY } from '../rotation'
import type { Condition, School, Stage, Technique } from '../schools/school'
import { findAlgorithm } from '../search/algorithmSearch'
import { coordinatesOf } from '../search/coordinates'
import { distanceOf, halfTurnTable } from '../search/distanceTable'
import { buildGoalTable, goalDistance } from '../search/goalTable'
import { handCost, type Hand } from '../notation/handCost'
import { doSequence, join, sequence, type Sequence } from '../notation/sequence'
import { start, writeState, type State } from '../state'
import { frameMeeting, isFaced, pieceMeets, piecesOfSide, relativeTo, sideOf } from './goal'
import { isLayerCycle } from './techniques/count'
import { held, layerTurns } from './workpiece'

export interface Case {
  /** The algorithm, from the hold in which the case is recognised. */
  readonly turns: string
  /** How many of the enumerated states belong to the class. */
  readonly states: number
}

type CaseTechnique = Extract<Technique, { kind: 'case' }>

const MAX_TURNS = 12
const SLACK = 1

/** The stages of a school that have cases or a cycle to be found, with the goal before them. */
export function deriveCases(
  puzzle: Puzzle,
  stage: Stage,
  goalBefore: readonly Condition[],
): Case[] {
  const technique = stage.technique as CaseTechnique
  const base = held(stage).base
  const todo = statesMeeting(puzzle, goalBefore, base).filter(
    (state) => recognise(puzzle, stage, base, state, ['']) === undefined,
  )
  const holds = technique.holds.map((text) => sequence(puzzle, text))
  const lastTurns = layerTurns(puzzle, opposite(base).letter)
  const befores = technique.before ? lastTurns : lastTurns.slice(0, 1)
  const openings = holds.flatMap((hold) => befores.map((before) => join(puzzle, hold, before)))
  const searches = new Map<Direction, ReturnType<typeof searchFor>>()
  const cases: Case[] = []
  let rest = todo
  while (rest.length > 0) {
    let best: Turn[] | undefined
    const seen = new Set<string>()
    for (const opening of openings) {
      const { relative, side } = seenFrom(puzzle, base, rest[0], opening)
      const key = side.letter + writeState(relative)
      if (seen.has(key)) continue
      seen.add(key)
      if (!searches.has(side)) searches.set(side, searchFor(puzzle, stage, side))
      const search = searches.get(side) as ReturnType<typeof searchFor>
      const costBelow = best && handCost(best)
      best = findAlgorithm({ ...search, costBelow }, relative) ?? best
    }
    if (!best) throw new Error(`a case of ${stage.id} needs more than ${MAX_TURNS} turns`)
    const unsolved = rest.filter(
      (state) => recognise(puzzle, stage, base, state, [names(best)]) === undefined,
    )
    cases.push({
      turns: names(best),
      states: rest.length - unsolved.length,
    })
    if (unsolved.length === rest.length) throw new Error('an algorithm does not serve its own case')
    rest = unsolved
  }
  return cases
}

export interface Recognised {
  /** Position of the algorithm in the given list. */
  readonly index: number
  /** Whole-puzzle turns, then a turn of the last layer, before the algorithm. */
  readonly hold: readonly Turn[]
  readonly before: readonly Turn[]
  /** The turn of the last layer that is left to do. */
  readonly end: readonly Turn[]
}

interface Attempt extends Recognised {
  readonly whole: Sequence
}

/** Which algorithm serves a state, from which hold; the easiest if several do. */
export function recognise(
  puzzle: Puzzle,
  stage: Stage,
  base: Direction,
  state: State,
  algorithms: readonly string[],
  hand: Hand = 'right',
): Recognised | undefined {
  const all = attemptsOf(puzzle, stage, algorithms, hand)
  const works = ({ whole }: Attempt) =>
    frameMeeting(puzzle, stage.goal, base, state, whole.table) !== undefined
  const found = all.find(works)
  if (!found || found.hold.length === 0) return found
  // No hold is taken where the same algorithm works as the puzzle is held, with the same preparation.
  const still = all.find(
    (each) =>
      each.index === found.index &&
      each.hold.length === 0 &&
      each.before.length === found.before.length &&
      works(each),
  )
  return still ?? found
}

const attempts = new WeakMap<Stage, (puzzle: Puzzle, key: string) => readonly Attempt[]>()

/** Every hold, turn before, algorithm and turn after of a stage, the easiest first. */
function attemptsOf(puzzle: Puzzle, stage: Stage, algorithms: readonly string[], hand: Hand) {
  let known = attempts.get(stage)
  if (!known) {
    known = memoised((owner: Puzzle, key: string) => {
      const [side, ...texts] = key.split('|')
      return tabulateAttempts(owner, stage, texts, side as Hand)
    })
    attempts.set(stage, known)
  }
  return known(puzzle, [hand, ...algorithms].join('|'))
}

function tabulateAttempts(
  puzzle: Puzzle,
  stage: Stage,
  algorithms: readonly string[],
  hand: Hand,
): readonly Attempt[] {
  const technique = stage.technique as CaseTechnique
  const lastTurns = layerTurns(puzzle, held(stage).last.letter)
  const none = lastTurns.slice(0, 1)
  return technique.holds
    .flatMap((holdText) => {
      const hold = sequence(puzzle, holdText)
      return (technique.before ? lastTurns : none).flatMap((before) =>
        algorithms.flatMap((text, index) =>
          (technique.after ? lastTurns : none).map((end) => ({
            index,
            hold: hold.turns,
            before: before.turns,
            end: end.turns,
            whole: join(puzzle, hold, before, sequence(puzzle, text), end),
          })),
        ),
      )
    })
    .sort((a, b) => a.whole.costs[hand] - b.whole.costs[hand])
}

/** A three-cycle of the last layer for a counting stage. */
export function deriveCycle(puzzle: Puzzle, stage: Stage): string {
  const { held: heldPlace } = stage.technique as Extract<Technique, { kind: 'count' }>
  const { base } = held(stage)
  const found = findAlgorithm(
    {
      puzzle,
      turns: turnsOfLayers(puzzle, ['R', 'U', 'L', 'F']),
      lowerBound: boundFor(puzzle, [{ layer: 'base', must: 'home' }], base),
      meets: (state) => isLayerCycle({ puzzle, stage }, { state, frame: IDENTITY }, heldPlace),
      maxTurns: MAX_TURNS,
      slack: SLACK,
    },
    start(puzzle),
  )
  if (!found) throw new Error('no three-cycle of the last layer was found')
  return names(found)
}

/** All states, frame piece home, that meet a goal with the base layer on its held side. */
export function statesMeeting(
  puzzle: Puzzle,
  goal: readonly Condition[],
  base: Direction,
): State[] {
  const { parts, stateAt } = coordinatesOf(puzzle)
  // The arrangement coordinate decides places; only those that fit are worth orienting.
  const [arrangement, orientation] = parts
  if (parts.length !== 2) throw new Error('cases are enumerated for puzzles with one orbit only')
  const found: State[] = []
  for (let a = 0; a < arrangement.size; a++) {
    if (!placesFit(puzzle, goal, base, stateAt(a * orientation.size))) continue
    for (let o = 0; o < orientation.size; o++) {
      const state = stateAt(a * orientation.size + o)
      if (frameMeeting(puzzle, goal, base, state) !== undefined) found.push(state)
    }
  }
  return found
}

function placesFit(
  puzzle: Puzzle,
  goal: readonly Condition[],
  base: Direction,
  state: State,
): boolean {
  const spinsOfBase = puzzle.holds.filter((hold) => isFaced(hold, base))
  return spinsOfBase.some((frame) =>
    goal.every((condition) => {
      const pieces = piecesOfSide(puzzle, sideOf(condition.layer, base))
      const homes = pieces.map((p) => puzzle.place[24 * p + frame])
      return condition.must === 'faced'
        ? pieces.every((p) => homes.includes(puzzle.place[24 * p + state[p]]))
        : pieces.every((p) =>
            pieceMeets(puzzle, { ...condition, must: 'placed' }, base, state, p, frame),
          )
    }),
  )
}

/** A state after an opening, called after its homes there, and the side where the base then is. */
function seenFrom(puzzle: Puzzle, base: Direction, state: State, opening: Sequence) {
  const { hold } = opening
  return {
    relative: relativeTo(puzzle, doSequence(opening, state), hold),
    side: turnDirection(hold, base),
  }
}

function searchFor(puzzle: Puzzle, stage: Stage, side: Direction) {
  const technique = stage.technique as CaseTechnique
  const lastTurns = layerTurns(puzzle, held(stage).last.letter)
  const ends = technique.after ? lastTurns : lastTurns.slice(0, 1)
  const bound = isWholeGoal(puzzle, stage.goal, side)
    ? wholeBound(puzzle)
    : boundFor(puzzle, stage.goal, side)
  return {
    puzzle,
    turns: turnsOfLayers(puzzle, technique.layers),
    lowerBound: technique.after ? (state: State) => bound(state) - 1 : bound,
    meets: (state: State) =>
      ends.some(
        (end) => frameMeeting(puzzle, stage.goal, side, doSequence(end, state)) !== undefined,
      ),
    maxTurns: MAX_TURNS,
    slack: SLACK,
  }
}

/** Whether a goal leaves nothing open: every piece must be home. */
function isWholeGoal(puzzle: Puzzle, goal: readonly Condition[], base: Direction): boolean {
  const covered = goal
    .filter(({ must: demand }) => demand === 'home')
    .flatMap(({ layer }) => piecesOfSide(puzzle, sideOf(layer, base)))
  return new Set(covered).size === puzzle.pieces.length
}

/** The exact distance from the table of all states. */
function wholeBound(puzzle: Puzzle): (state: State) => number {
  const table = halfTurnTable(puzzle)
  return (state) => distanceOf(puzzle, table, state)
}

/** The farthest of a goal's conditions, each met up to a turn of its own layer. */
function boundFor(
  puzzle: Puzzle,
  goal: readonly Condition[],
  base: Direction,
): (state: State) => number {
  const tables = goal.map((condition) => {
    const side = sideOf(condition.layer, base)
    const pieces = piecesOfSide(puzzle, side)
    const frames = puzzle.holds.filter((hold) => isFaced(hold, side))
    const turns = turnsOfLayers(puzzle, ['U', 'D', 'F', 'B', 'R', 'L'])
    const state = start(puzzle)
    return buildGoalTable(puzzle, pieces, turns, (rotations) => {
      pieces.forEach((p, i) => (state[p] = rotations[i]))
      return frames.some((frame) =>
        pieces.every((p) => pieceMeets(puzzle, condition, base, state, p, frame)),
      )
    })
  })
  return (state) => tables.reduce((most, table) => Math.max(most, goalDistance(table, state)), 0)
}

const names = (turns: readonly Turn[]): string => turns.map(({ name }) => name).join(' ')

const turnsOfLayers = (puzzle: Puzzle, letters: readonly string[]): Turn[] =>
  puzzle.turns.filter((turn) => letters.includes(puzzle.grips[turn.grip].name))

/** The key under which the derived data of a stage is kept. */
export const stageKey = (school: School, stage: Stage): string => `${school.id}/${stage.id}`
