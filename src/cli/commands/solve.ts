/** Solves, card by card if wished. */
import { plan } from '../../core/coach/plan'
import { turnsOfStage, type Route } from '../../core/coach/route'
import { readTurns } from '../../core/notation/read'
import { writeTurns } from '../../core/notation/write'
import type { Puzzle } from '../../core/puzzle/compile'
import { scramble, scrambledState } from '../../core/scramble/scramble'
import { schoolAmong, schoolsOf } from '../../core/schools'
import type { School } from '../../core/schools/school'
import { whyNotServed } from '../../core/universal/solve'
import { isSolved, turnAll, type State } from '../../core/state'
import type { Register } from '../../core/words/lexicon'
import { cardsOf, writeCards } from '../cards'
import { Failure, told, Usage } from '../failure'
import { stateAfter, puzzleAnd, wholeNumber } from '../asked'
import { type Values, type Command, many } from '../options'

export const solveCommand: Command = (rest, values) => {
  const [puzzle] = puzzleAnd(rest, 0, values)
  const { id } = puzzle.definition
  // The order of the work is found first: the stages of the universal school depend on it.
  const why = whyNotServed(puzzle)
  const schools = schoolsOf(puzzle)
  const schoolId = values.school ?? schools[0]?.id
  if (schoolId === undefined) throw new Failure(`${id} has no school: ${why ?? ''}`)
  const school = told(schoolAmong(schools, schoolId))
  const { register: named = 'full' } = values
  if (named !== 'full' && named !== 'brief') throw new Usage('--register must be full or brief')
  const register = values.steps ? named : undefined
  // Tables are built before the clock starts: a plan is timed warm, as it is on the bench.
  for (let seed = 0; seed < WARM_PLANS; seed++)
    told(plan(puzzle, school, scrambledState(puzzle, scramble(puzzle, seed))))
  const solves = given(puzzle, values).map(({ seed, text, state }) =>
    solve(puzzle, school, seed, text, state, register),
  )
  return many(solves, ({ scramble: scrambled, solution, turnCount, stages }) =>
    [scrambled, ...stages.flatMap(writeCards), solution, `${turnCount} turns`].join('\n'),
  )
}

const WARM_PLANS = 3

interface Scrambled {
  seed: number | null
  text: string
  state: State
}

function given(puzzle: Puzzle, values: Values): Scrambled[] {
  if ((values.scramble === undefined) === (values.random === undefined))
    throw new Usage('solve needs either --scramble or --random')
  if (values.scramble !== undefined) {
    const turns = told(readTurns(puzzle, values.scramble))
    const state = stateAfter(puzzle, values.scramble)
    return [{ seed: null, text: writeTurns(turns), state }]
  }
  const count = wholeNumber(values.random, 'random') as number
  const seed = wholeNumber(values.seed, 'seed')
  if (seed === undefined) throw new Usage('--random needs --seed')
  return Array.from({ length: count }, (_, i) => {
    const drawn = scramble(puzzle, seed + i)
    return { seed: seed + i, text: writeTurns(drawn.turns), state: scrambledState(puzzle, drawn) }
  })
}

function solve(
  puzzle: Puzzle,
  school: School,
  seed: number | null,
  text: string,
  state: State,
  steps: Register | undefined,
) {
  const began = performance.now()
  const route: Route = told(plan(puzzle, school, state))
  const planMs = Math.round((performance.now() - began) * 1000) / 1000
  const cards = steps && cardsOf(puzzle, puzzle.definition.colours, route, steps)
  const stages = route.stages.map((stage, s) => ({
    id: stage.id,
    turns: turnsOfStage(stage)
      .map(({ name }) => name)
      .join(' '),
    steps: stage.steps.length,
    ...(cards ? { name: stage.name, aim: stage.aim, cards: cards[s] } : {}),
  }))
  const solution = stages
    .map(({ turns }) => turns)
    .filter(Boolean)
    .join(' ')
  const end = told(turnAll(puzzle, state, told(readTurns(puzzle, solution))))
  return {
    puzzle: puzzle.definition.id,
    school: school.id,
    seed,
    scramble: text,
    solution,
    turnCount: route.turnCount,
    planMs,
    stages,
    solved: isSolved(puzzle, end),
  }
}
