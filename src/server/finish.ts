/** Ends a bench session: its events are replayed on the engine, and the solve goes into the log. */
import { puzzleById } from '../core/catalog'
import { fail, ok, type Result } from '../core/result'
import { schoolNamed } from '../core/schools'
import { readState } from '../core/state'
import { accountOf } from '../core/statistics/splits'
import { eventsOf, findSession } from './benchSessions'
import { findCopy } from './copies'
import { transaction } from './pool'
import { addSolve, solveOfSession } from './solves'

/** The id of the solve. Calling it again gives the same id. */
export async function finishSession(
  profileId: string,
  sessionId: string,
  solver: string,
): Promise<Result<string>> {
  const session = await findSession(profileId, sessionId)
  if (!session) return fail('not-found', 'This bench is not there any more.')
  const logged = await solveOfSession(profileId, sessionId)
  if (logged) return ok(logged)
  const copy = await findCopy(profileId, session.copyId)
  if (!copy) return fail('not-found', 'The puzzle of this bench is not on the shelf any more.')
  const puzzle = puzzleById(copy.puzzleId)
  if (!puzzle.ok) return puzzle
  const school = session.school ? schoolNamed(copy.puzzleId, session.school) : undefined
  if (school && !school.ok) return school
  const from = readState(puzzle.value, session.startState)
  if (!from.ok) return from
  const events = await eventsOf(profileId, sessionId)
  const account = accountOf(puzzle.value, school?.value, session.variant, from.value, events)
  if (!account.solved)
    return fail('not-solved', 'The puzzle is not solved yet, so nothing is logged.')
  return transaction(profileId, async (client) => {
    const ended = await client.query(
      `update bench_sessions set status = 'finished', ended_at = now()
       where profile_id = $1 and id = $2 and status = 'open'`,
      [profileId, sessionId],
    )
    if (ended.rowCount === 0) {
      // Another page of this bench was first.
      const first = await solveOfSession(profileId, sessionId)
      return first ? ok(first) : fail('closed', 'This bench was closed before it was home.')
    }
    return ok(
      await addSolve(
        profileId,
        {
          ...account,
          sessionId,
          copyId: copy.id,
          puzzleId: copy.puzzleId,
          school: session.school,
          variant: session.variant,
          solver,
          startState: session.startState,
          scramble: session.scramble,
          finishedAt: new Date(),
          remark: '',
        },
        client,
      ),
    )
  })
}
