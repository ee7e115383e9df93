/** Where each copy on the shelf stands: its bench replayed from the stored events. */
import { openBench, replay } from '@/core/coach/bench'
import { stagesMet } from '@/core/coach/standing'
import { puzzleById } from '@/core/catalog'
import { directionOfName } from '@/core/puzzle/directions'
import { must } from '@/core/result'
import { schoolNamed } from '@/core/schools'
import { stagesOf } from '@/core/schools/school'
import { readState, start, writeState } from '@/core/state'
import { eventsOf, findSession } from '@/server/benchSessions'
import type { ShelvedCopy } from '@/server/copies'

export interface Standing {
  /** As `writeState` writes it. */
  readonly state: string
  readonly school?: string
  readonly lit?: number
  readonly stages?: number
}

export async function standingOf(profileId: string, copy: ShelvedCopy): Promise<Standing> {
  const puzzle = must(puzzleById(copy.puzzleId))
  const session = copy.openSession ? await findSession(profileId, copy.openSession) : undefined
  if (!session) return { state: writeState(start(puzzle)) }
  const events = await eventsOf(session.id)
  const bench = replay(openBench(puzzle, must(readState(puzzle, session.startState))), events)
  const state = writeState(bench.state)
  if (!session.school) return { state }
  const school = must(schoolNamed(copy.puzzleId, session.school))
  const base = bench.trail?.route.base
  return {
    state,
    school: school.name,
    stages: stagesOf(school, session.variant).length,
    lit: base ? stagesMet(puzzle, school, session.variant, directionOfName(base), bench.state) : 0,
  }
}
