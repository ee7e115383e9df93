/** What a list of solves amounts to: progress, and what costs most. */
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

export interface StageCost {
  readonly school?: string
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
  /** Of one puzzle, each school's for themselves; none where the solves are of several puzzles. */
  readonly stages: readonly StageCost[]
  readonly puzzles: number
  /** Mean of the latest five, and of the best five that follow each other; undefined for fewer. */
  readonly latestFiveMs?: number
  readonly bestFiveMs?: number
  readonly hintsASolve: number
}

const ROW = 5

/** Undefined for no solves at all. @param solves newest first */
export function summaryOf(solves: readonly LoggedSolve[]): Summary | undefined {
  if (solves.length === 0) return undefined
  const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length
  const totalMs = solves.reduce((sum, { elapsedMs }) => sum + elapsedMs, 0)
  const puzzles = new Set(solves.map(({ puzzleId }) => puzzleId)).size
  const rows = solves
    .slice(0, Math.max(0, solves.length - ROW + 1))
    .map((_, i) => mean(solves.slice(i, i + ROW).map(({ elapsedMs }) => elapsedMs)))
  return {
    count: solves.length,
    meanMs: totalMs / solves.length,
    bestMs: Math.min(...solves.map(({ elapsedMs }) => elapsedMs)),
    meanTurns: mean(solves.map(({ turnCount }) => turnCount)),
    slipsASolve: mean(solves.map(({ slips }) => slips)),
    hintsASolve: mean(solves.map(({ hints }) => hints)),
    puzzles,
    ...(rows.length > 0 ? { latestFiveMs: rows[0], bestFiveMs: Math.min(...rows) } : {}),
    stages: puzzles > 1 ? [] : stageCosts(solves, totalMs),
  }
}

/** Stages of one name in one school are taken together. */
function stageCosts(solves: readonly LoggedSolve[], totalMs: number): StageCost[] {
  const schools = [...new Set(solves.map(({ school }) => school))]
  return schools.flatMap((school) => {
    const splits = solves
      .filter((solve) => solve.school === school)
      .flatMap((solve) => solve.splits)
    return [...new Set(splits.map(({ name }) => name))].map((name) => {
      const own = splits.filter((split) => split.name === name)
      const spent = own.reduce((sum, { elapsedMs }) => sum + elapsedMs, 0)
      const turns = own.reduce((sum, { turnCount }) => sum + turnCount, 0)
      return {
        school,
        name,
        meanMs: spent / own.length,
        meanTurns: turns / own.length,
        share: totalMs === 0 ? 0 : spent / totalMs,
      }
    })
  })
}

/** Means over the latest `size` solves, oldest first; shorter at the beginning. */
export function movingMean(values: readonly number[], size: number): number[] {
  return values.map((_, i) => {
    const part = values.slice(Math.max(0, i - size + 1), i + 1)
    return part.reduce((a, b) => a + b, 0) / part.length
  })
}
