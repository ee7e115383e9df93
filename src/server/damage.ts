/**
 * What is stored was checked when it came in. Should it be broken all the same (by an earlier program, by a
 * hand in the database), the page that shows it says so, and stays.
 */
import { puzzleById } from '../core/catalog'
import { BeyondSnapshot, type Bench } from '../core/coach/bench'
import { fail, ok, type Result } from '../core/result'
import { readTurns } from '../core/notation/read'
import { readState } from '../core/state'
import type { Puzzle } from '../core/puzzle/compile'
import { schoolNamed } from '../core/schools'
import { takenUp, type BenchSession } from './benchSessions'
import type { Copy } from './copies'
import { isAway, rowsOf } from './pool'
import { replayed as replayedTail, tailOf, wholeOf, type Tail } from './snapshots'
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

/**
 * The bench as what happened has left it, with what it was made of.
 *
 * @param whole whether every event is replayed, be there snapshots or not
 */
export async function standingBench(
  profileId: string,
  copy: Copy,
  session: BenchSession,
  whole = false,
): Promise<Result<{ readonly bench: Bench; readonly tail: Tail }>> {
  const puzzle = puzzleOf(copy)
  if (!puzzle.ok) return puzzle
  const start = readState(puzzle.value, session.startState)
  if (!start.ok) return damaged(`Its start cannot be read. ${start.problem.sentence}`)
  if (session.school !== undefined) {
    const school = schoolNamed(copy.puzzleId, session.school)
    if (!school.ok) return damaged(school.problem.sentence)
  }
  const tail = await (whole ? wholeOf : tailOf)(session.id, rowsOf(profileId))
  const from = takenUp(puzzle.value, session.startState, tail)
  // A snapshot is only a shorter way: where it cannot be read, the events are.
  if (!from.ok) return standingBench(profileId, copy, session, true)
  try {
    return ok({ bench: await replayedTail(session.id, from.value, tail, rowsOf(profileId)), tail })
  } catch (error) {
    if (error instanceof BeyondSnapshot) return standingBench(profileId, copy, session, true)
    if (isAway(error)) throw error
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
