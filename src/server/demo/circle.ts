/**
 * The demo: three weeks of the winter puzzle circle of a harbour-town library, its members with
 * made-up nicknames. Every solve is made by the real core from a seed: scrambled, planned, turned
 * with the pauses and slips of its solver, and accounted for like any other.
 */
import { puzzleById } from '../../core/catalog'
import type { BenchEvent } from '../../core/coach/bench'
import { packed } from '../../core/coach/packed'
import { plan } from '../../core/coach/plan'
import { stepsOf } from '../../core/coach/route'
import { writeTurns } from '../../core/notation/write'
import { seededRandom, type Random } from '../../core/random'
import { must } from '../../core/result'
import { scramble, scrambledState } from '../../core/scramble/scramble'
import { schoolNamed } from '../../core/schools'
import type { Variant } from '../../core/schools/school'
import { writeState } from '../../core/state'
import { accountOf } from '../../core/statistics/splits'
import type { Puzzle } from '../../core/puzzle/compile'
import type { NewSolve } from '../solves'

interface Member {
  readonly nickname: string
  readonly school: string
  readonly variant: Variant
  /** Seconds to look at a step, and to make a turn, at the first meeting. */
  readonly lookSeconds: number
  readonly turnSeconds: number
  /** Share of turns that go wrong and are taken back. */
  readonly slips: number
}

const MEMBERS: readonly Member[] = [
  member('Gull', 'one-trigger', 6, 0.9, 0.02),
  member('Foghorn', 'one-trigger', 9, 1.3, 0.03, { 'first-layer': 'bottom', twisting: 'down' }),
  member('Tansy', 'layer-by-layer', 5, 0.7, 0.012),
  member('Kelp', 'layer-by-layer', 7, 0.8, 0.025),
  member('Old Anchor', 'face-first', 4, 0.6, 0.01),
]

function member(
  nickname: string,
  school: string,
  lookSeconds: number,
  turnSeconds: number,
  slips: number,
  variant: Variant = {},
): Member {
  return { nickname, school, variant, lookSeconds, turnSeconds, slips }
}

/** Evenings of the circle: three a week, from the third of November 2026. */
const EVENINGS = ['11-03', '11-05', '11-07', '11-10', '11-12', '11-14', '11-17', '11-19', '11-21']

const REMARKS = [
  'Lost the hold once and found it again.',
  'First time without looking at the card.',
  'Cold fingers.',
]
/** Of a solve by triggers and counts only. */
const TRIGGER_REMARKS = [
  'The long ending; it all came back.',
  'Counted the corners and knew what to do.',
]

export interface CircleSolve extends NewSolve {
  /** Which of the circle's copies was used: 0 or 1. */
  readonly copy: number
}

export function circleSolves(seed = 1103): CircleSolve[] {
  const puzzle = must(puzzleById('cube-2'))
  const random = seededRandom(seed)
  return EVENINGS.flatMap((day, evening) =>
    MEMBERS.flatMap((each, m) => {
      const count = random.below(4)
      return Array.from({ length: count }, (_, nth) => {
        const minutes = m * 9 + nth * 2.6 + random.unit()
        const finishedAt = new Date(Date.parse(`2026-${day}T18:00:00Z`) + minutes * 60_000)
        return solveOf(puzzle, each, evening, random, finishedAt)
      })
    }),
  )
}

function solveOf(
  puzzle: Puzzle,
  { nickname, school: schoolId, variant, ...pace }: Member,
  evening: number,
  random: Random,
  finishedAt: Date,
): CircleSolve {
  const school = must(schoolNamed(puzzle.definition.id, schoolId))
  const scrambled = scramble(puzzle, random.below(1_000_000))
  const from = scrambledState(puzzle, scrambled)
  const route = must(plan(puzzle, school, from, { variant }))
  // Practice: a third faster after nine evenings.
  const ease = 1 - (evening / EVENINGS.length) * 0.35
  const events: BenchEvent[] = [{ kind: 'route', atMs: 0, route: packed(route) }]
  let atMs = 0
  const wait = (seconds: number) =>
    (atMs += Math.round(1000 * seconds * ease * (0.6 + 0.8 * random.unit())))
  for (const { turns } of stepsOf(route)) {
    wait(pace.lookSeconds)
    if (turns.length === 0) events.push({ kind: 'pass', atMs })
    for (const { name } of turns) {
      wait(pace.turnSeconds)
      if (random.unit() < pace.slips) slip(name)
      events.push({ kind: 'turn', atMs, name })
    }
  }
  function slip(instead: string) {
    const wrong = puzzle.turns.filter(({ name, whole }) => !whole && name !== instead)
    events.push({ kind: 'turn', atMs, name: wrong[random.below(wrong.length)].name })
    wait(1.5)
    events.push({ kind: 'undo', atMs })
    wait(pace.turnSeconds)
  }
  const account = accountOf(puzzle, school, route.variant, from, events)
  const remarks = schoolId === 'one-trigger' ? [...REMARKS, ...TRIGGER_REMARKS] : REMARKS
  if (!account.solved) throw new Error('a solve of the demo does not solve the puzzle')
  return {
    ...account,
    copy: random.below(3) === 0 ? 1 : 0,
    puzzleId: puzzle.definition.id,
    school: schoolId,
    variant: route.variant,
    solver: nickname,
    startState: writeState(from),
    scramble: writeTurns(scrambled.turns),
    finishedAt,
    remark: random.below(7) === 0 ? remarks[random.below(remarks.length)] : '',
  }
}
