/** Solves added up one by one, to be held against what a database adds up. */
import type { StageSum, Totals } from './summary'

export interface LoggedSolve {
  readonly puzzleId: string
  readonly school?: string
  readonly elapsedMs: number
  readonly turnCount: number
  readonly slips: number
  readonly hints: number
  readonly splits: readonly {
    readonly name: string
    readonly elapsedMs: number
    readonly turnCount: number
  }[]
}

/** @param solves newest first */
export function totalsOf(solves: readonly LoggedSolve[]): Totals {
  const stages = new Map<string, StageSum>()
  for (const { school, splits } of solves)
    for (const { name, elapsedMs, turnCount } of splits) {
      const key = `${school} ${name}`
      const before = stages.get(key) ?? { school, name, count: 0, elapsedMs: 0, turnCount: 0 }
      stages.set(key, {
        ...before,
        count: before.count + 1,
        elapsedMs: before.elapsedMs + elapsedMs,
        turnCount: before.turnCount + turnCount,
      })
    }
  const sum = (of: (solve: LoggedSolve) => number) =>
    solves.reduce((all, each) => all + of(each), 0)
  return {
    elapsedMs: solves.map(({ elapsedMs }) => elapsedMs),
    turnCounts: solves.map(({ turnCount }) => turnCount),
    slips: sum(({ slips }) => slips),
    hints: sum(({ hints }) => hints),
    puzzles: new Set(solves.map(({ puzzleId }) => puzzleId)).size,
    stages: [...stages.values()],
  }
}
