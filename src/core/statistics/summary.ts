/** What a list of solves amounts to: progress, and what costs most. */
export interface LoggedSolve {
  readonly elapsedMs: number
  readonly turnCount: number
  readonly slips: number
  readonly splits: readonly {
    readonly name: string
    readonly elapsedMs: number
    readonly turnCount: number
  }[]
}

export interface StageCost {
  readonly name: string
  readonly meanMs: number
  readonly meanTurns: number
  /** Share of all time spent, 0 to 1. */
  readonly share: number
}

export interface Summary {
  readonly count: number
  readonly meanMs: number
  readonly bestMs: number
  readonly meanTurns: number
  readonly slipsASolve: number
  readonly stages: readonly StageCost[]
}

/** Undefined for no solves at all. Stages of the same name are taken together. */
export function summaryOf(solves: readonly LoggedSolve[]): Summary | undefined {
  if (solves.length === 0) return undefined
  const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length
  const totalMs = solves.reduce((sum, { elapsedMs }) => sum + elapsedMs, 0)
  const names = [...new Set(solves.flatMap(({ splits }) => splits.map(({ name }) => name)))]
  return {
    count: solves.length,
    meanMs: totalMs / solves.length,
    bestMs: Math.min(...solves.map(({ elapsedMs }) => elapsedMs)),
    meanTurns: mean(solves.map(({ turnCount }) => turnCount)),
    slipsASolve: mean(solves.map(({ slips }) => slips)),
    stages: names.map((name) => {
      const own = solves.flatMap(({ splits }) => splits.filter((split) => split.name === name))
      const spent = own.reduce((sum, { elapsedMs }) => sum + elapsedMs, 0)
      return {
        name,
        meanMs: spent / own.length,
        meanTurns: mean(own.map(({ turnCount }) => turnCount)),
        share: totalMs === 0 ? 0 : spent / totalMs,
      }
    }),
  }
}

/** Means over the latest `size` solves, oldest first; shorter at the beginning. */
export function movingMean(values: readonly number[], size: number): number[] {
  return values.map((_, i) => {
    const part = values.slice(Math.max(0, i - size + 1), i + 1)
    return part.reduce((a, b) => a + b, 0) / part.length
  })
}
