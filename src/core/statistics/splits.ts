/** Splits of a solve, read off the events of its bench by replaying them. */
import {
  follow,
  latestTurns,
  openBench,
  quarterCountOf,
  turnCountOf,
  type BenchEvent,
} from '../coach/bench'
import { stagesMet } from '../coach/standing'
import { writeTurns } from '../notation/write'
import type { Puzzle } from '../puzzle/compile'
import { stagesOf, type School, type Variant } from '../schools/school'
import type { State } from '../state'

export interface Split {
  readonly stageId: string
  readonly name: string
  readonly turnCount: number
  readonly elapsedMs: number
}

export interface Account {
  readonly solved: boolean
  readonly solution: string
  readonly elapsedMs: number
  readonly turnCount: number
  readonly quarterCount: number
  readonly slips: number
  /** Hints of the strongest kind count too: every one that was asked for. */
  readonly hints: number
  readonly splits: readonly Split[]
}

/**
 * A stage's split ends when its goal (or a later one) is first met; what it borrows afterwards
 * belongs to the later stage. Without a school there are no splits.
 */
export function accountOf(
  puzzle: Puzzle,
  school: School | undefined,
  variant: Variant,
  from: State,
  events: readonly BenchEvent[],
): Account {
  const stages = school ? stagesOf(school, variant) : []
  const route = events.findLast((event) => event.kind === 'route')?.route
  const reached: { atMs: number; turns: number }[] = []
  let bench = openBench(puzzle, from)
  let hints = 0
  const note = (atMs: number) => {
    if (!school || !route) return
    const met = stagesMet(puzzle, school, { ...route, variant }, bench.state)
    while (reached.length < met) reached.push({ atMs, turns: turnCountOf(bench) })
  }
  note(0)
  for (const event of events) {
    bench = follow(bench, event)
    if (event.kind === 'hint') hints++
    if (event.kind === 'turn') note(event.atMs)
  }
  return {
    solved: bench.solved,
    solution: writeTurns(latestTurns(bench)),
    elapsedMs: events.at(-1)?.atMs ?? 0,
    turnCount: turnCountOf(bench),
    quarterCount: quarterCountOf(bench),
    slips: bench.slips,
    hints,
    splits: reached.map(({ atMs, turns }, i) => ({
      stageId: stages[i].id,
      name: stages[i].name,
      turnCount: Math.max(0, turns - (reached[i - 1]?.turns ?? 0)),
      elapsedMs: Math.max(0, atMs - (reached[i - 1]?.atMs ?? 0)),
    })),
  }
}
