/** What a list of solves amounts to: progress, and what costs most. */
/** Many solves, added up as far as they can be. */
export interface Totals {
  /** Of each solve, the newest first. */
  readonly elapsedMs: readonly number[]
  readonly turnCounts: readonly number[]
  readonly slips: number
  readonly hints: number
  /** Of how many puzzles they are. */
  readonly puzzles: number
  readonly stages: readonly StageSum[]
}

/** A stage of a school, over all the solves that have it. */
export interface StageSum {
  readonly school?: string
  readonly name: string
  readonly count: number
  readonly elapsedMs: number
  readonly turnCount: number
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

/** Undefined for no solves at all. */
export function summaryOf({
  elapsedMs,
  turnCounts,
  slips,
  hints,
  puzzles,
  stages,
}: Totals): Summary | undefined {
  const count = elapsedMs.length
  if (count === 0) return undefined
  const totalMs = sum(elapsedMs)
  // Means of the latest so many are the same as of so many in a row, whichever end one begins at.
  const rows = movingMean(elapsedMs, ROW).slice(ROW - 1)
  return {
    count,
    meanMs: totalMs / count,
    bestMs: least(elapsedMs),
    meanTurns: sum(turnCounts) / count,
    slipsASolve: slips / count,
    hintsASolve: hints / count,
    puzzles,
    ...(rows.length > 0 ? { latestFiveMs: rows[0], bestFiveMs: least(rows) } : {}),
    stages:
      puzzles > 1
        ? []
        : stages.map((stage) => ({
            school: stage.school,
            name: stage.name,
            meanMs: stage.elapsedMs / stage.count,
            meanTurns: stage.turnCount / stage.count,
            share: totalMs === 0 ? 0 : stage.elapsedMs / totalMs,
          })),
  }
}

const sum = (values: readonly number[]) => values.reduce((a, b) => a + b, 0)
const least = (values: readonly number[]) => values.reduce((a, b) => Math.min(a, b))

/** A point of a chart: one solve, or the mean of some that follow each other. */
export interface Point {
  /** When the first of them was finished, in milliseconds since 1970. */
  readonly at: number
  readonly elapsedMs: number
}

/**
 * Solves as points of a chart, the oldest first: each for itself, or as many together as are needed for at most
 * `most` points. `together` is their number.
 */
export function pointsOf(
  finishedAt: readonly number[],
  elapsedMs: readonly number[],
  most: number,
): { readonly points: Point[]; readonly together: number } {
  const together = Math.max(1, Math.ceil(elapsedMs.length / most))
  const oldest = [...elapsedMs].reverse()
  const times = [...finishedAt].reverse()
  const points: Point[] = []
  for (let at = 0; at < oldest.length; at += together) {
    const part = oldest.slice(at, at + together)
    points.push({ at: times[at], elapsedMs: sum(part) / part.length })
  }
  return { points, together }
}

/** Means over the latest `size` values, in their order; shorter at the beginning. */
export function movingMean(values: readonly number[], size: number): number[] {
  let total = 0
  return values.map((value, i) => {
    total += value - (i >= size ? values[i - size] : 0)
    return total / Math.min(i + 1, size)
  })
}
