/** Where each copy on the shelf stands: worked out from its bench once for so many events, and kept beside it. */
import { stagesMet } from '../core/coach/standing'
import type { Bench } from '../core/coach/bench'
import { must, ok, type Problem, type Result } from '../core/result'
import { schoolNamed } from '../core/schools'
import { stagesOf } from '../core/schools/school'
import { start, writeState } from '../core/state'
import { sessionFromRow, type BenchSession, type SessionRow } from './benchSessions'
import type { ShelvedCopy } from './copies'
import { puzzleOf, standingBench } from './damage'
import { rowsOf } from './pool'
import { PROGRAM } from './program'
import { rests } from './rest'

export interface Standing {
  /** As `writeState` writes it. */
  readonly state: string
  readonly school?: string
  readonly lit?: number
  readonly stages?: number
  /** Why the open bench cannot be shown. */
  readonly benchProblem?: Problem
}

/** What is kept, and for what it was so. */
interface Kept {
  readonly of: string
  readonly standing: Standing
}

interface OpenBench {
  readonly session: BenchSession
  readonly events: number
  readonly kept?: Kept
}

/** In the order of the copies; a problem where the copy itself cannot be shown. */
export async function standings(
  profileId: string,
  copies: readonly ShelvedCopy[],
): Promise<Result<Standing>[]> {
  const open = await openBenches(
    profileId,
    copies.flatMap(({ openSession }) => openSession ?? []),
  )
  const rest = rests()
  const found: Result<Standing>[] = []
  for (const copy of copies) {
    found.push(await standingOf(profileId, copy, open.get(copy.openSession ?? '')))
    await rest()
  }
  return found
}

async function openBenches(
  profileId: string,
  ids: readonly string[],
): Promise<ReadonlyMap<string, OpenBench>> {
  const { rows } = await rowsOf(profileId).query<
    SessionRow & { events: number; standing: Kept | null }
  >(
    `select s.*, coalesce(
       (select max(seq) + 1 from bench_events e where e.session_id = s.id), 0)::int as events
     from bench_sessions s where s.profile_id = $1 and s.id = any($2)`,
    [profileId, ids],
  )
  return new Map(
    rows.map((row) => [
      row.id,
      { session: sessionFromRow(row), events: row.events, kept: row.standing ?? undefined },
    ]),
  )
}

async function standingOf(
  profileId: string,
  copy: ShelvedCopy,
  open: OpenBench | undefined,
): Promise<Result<Standing>> {
  const puzzle = puzzleOf(copy)
  if (!puzzle.ok) return puzzle
  const resting = { state: writeState(start(puzzle.value)) }
  if (!open) return ok(resting)
  const { session, events, kept } = open
  const of = JSON.stringify([PROGRAM, events, session.school, session.variant])
  if (kept?.of === of) return ok(kept.standing)
  const stood = await standingBench(profileId, copy, session)
  if (!stood.ok) return ok({ ...resting, benchProblem: stood.problem })
  const standing = standingAt(copy, session, stood.value.bench)
  await rowsOf(profileId).query('update bench_sessions set standing = $2 where id = $1', [
    session.id,
    JSON.stringify({ of, standing } satisfies Kept),
  ])
  return ok(standing)
}

function standingAt(copy: ShelvedCopy, session: BenchSession, bench: Bench): Standing {
  const state = writeState(bench.state)
  if (!session.school) return { state }
  const school = must(schoolNamed(copy.puzzleId, session.school))
  const route = bench.trail?.route
  return {
    state,
    school: school.name,
    stages: stagesOf(school, session.variant).length,
    lit: route
      ? stagesMet(bench.puzzle, school, { ...route, variant: session.variant }, bench.state)
      : 0,
  }
}
