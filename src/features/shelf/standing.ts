/** Where each copy on the shelf stands: its bench replayed from the stored events. */
import { stagesMet } from '@/core/coach/standing'
import { must, ok, type Problem, type Result } from '@/core/result'
import { schoolNamed } from '@/core/schools'
import { stagesOf } from '@/core/schools/school'
import { start, writeState } from '@/core/state'
import { eventsOf, findSession } from '@/server/benchSessions'
import { puzzleOf, standingBench } from '@/server/damage'
import type { ShelvedCopy } from '@/server/copies'

export interface Standing {
  /** As `writeState` writes it. */
  readonly state: string
  readonly school?: string
  readonly lit?: number
  readonly stages?: number
  /** Why the open bench cannot be shown. */
  readonly benchProblem?: Problem
}

/** A problem if the copy itself cannot be shown. */
export async function standingOf(profileId: string, copy: ShelvedCopy): Promise<Result<Standing>> {
  const puzzle = puzzleOf(copy)
  if (!puzzle.ok) return puzzle
  const session = copy.openSession ? await findSession(profileId, copy.openSession) : undefined
  const resting = { state: writeState(start(puzzle.value)) }
  if (!session) return ok(resting)
  const stood = standingBench(copy, session, await eventsOf(session.id))
  if (!stood.ok) return ok({ ...resting, benchProblem: stood.problem })
  const bench = stood.value
  const state = writeState(bench.state)
  if (!session.school) return ok({ state })
  const school = must(schoolNamed(copy.puzzleId, session.school))
  const route = bench.trail?.route
  return ok({
    state,
    school: school.name,
    stages: stagesOf(school, session.variant).length,
    lit: route
      ? stagesMet(puzzle.value, school, { ...route, variant: session.variant }, bench.state)
      : 0,
  })
}
