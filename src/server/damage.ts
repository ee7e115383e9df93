/**
 * What is stored was checked when it came in. Should it be broken all the same (by an earlier program, by a
 * hand in the database), the page that shows it says so, and stays.
 */
import { puzzleById } from '../core/catalog'
import { openBench, replay, type Bench, type BenchEvent } from '../core/coach/bench'
import { fail, ok, type Result } from '../core/result'
import { readTurns } from '../core/notation/read'
import { readState } from '../core/state'
import type { Puzzle } from '../core/puzzle/compile'
import { schoolNamed } from '../core/schools'
import type { BenchSession } from './benchSessions'
import type { Copy } from './copies'
import type { Solve } from './solves'

const damaged = (what: string): Result<never> => fail('damaged', what)

/** The puzzle of a copy, if the copy can be shown. */
export function puzzleOf({ puzzleId, scheme }: Copy): Result<Puzzle> {
  const puzzle = puzzleById(puzzleId)
  if (!puzzle.ok) return damaged(puzzle.problem.sentence)
  const shown = Array.isArray(scheme) ? scheme.map((colour) => colour?.id) : []
  const missing = puzzle.value.definition.colours.find(({ id }) => !shown.includes(id))
  return missing ? damaged(`Its colours lack ${missing.name}.`) : puzzle
}

/** The bench as its events have left it, with the number of them. */
export function standingBench(
  copy: Copy,
  session: BenchSession,
  events: readonly BenchEvent[],
): Result<Bench> {
  const puzzle = puzzleOf(copy)
  if (!puzzle.ok) return puzzle
  const state = readState(puzzle.value, session.startState)
  if (!state.ok) return damaged(`Its start cannot be read. ${state.problem.sentence}`)
  if (session.school !== undefined) {
    const school = schoolNamed(copy.puzzleId, session.school)
    if (!school.ok) return damaged(school.problem.sentence)
  }
  try {
    return ok(replay(openBench(puzzle.value, state.value), events))
  } catch (error) {
    return damaged(
      `What happened on it cannot be replayed: ${error instanceof Error ? error.message : String(error)}.`,
    )
  }
}

/** The puzzle of a logged solve, if its turns can be played again. */
export function replayed({ puzzleId, startState, scramble, solution }: Solve): Result<Puzzle> {
  const puzzle = puzzleById(puzzleId)
  if (!puzzle.ok) return damaged(puzzle.problem.sentence)
  const read = [
    readState(puzzle.value, startState),
    readTurns(puzzle.value, scramble),
    readTurns(puzzle.value, solution),
  ].find(({ ok: isRead }) => !isRead)
  return read && !read.ok ? damaged(read.problem.sentence) : puzzle
}
