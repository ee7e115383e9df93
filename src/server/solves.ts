/** The log: solves with their splits. */
import { randomUUID } from 'node:crypto'
import type { Split } from '../core/statistics/splits'
import type { Variant } from '../core/schools/school'
import { rowsOf, type Queryable } from './pool'

export interface Solve {
  readonly id: string
  readonly copyId?: string
  readonly sessionId?: string
  readonly puzzleId: string
  readonly school?: string
  readonly variant: Variant
  readonly solver: string
  readonly startState: string
  readonly scramble: string
  readonly solution: string
  readonly finishedAt: Date
  readonly elapsedMs: number
  readonly turnCount: number
  readonly quarterCount: number
  readonly slips: number
  readonly hints: number
  readonly remark: string
  readonly splits: readonly Split[]
}

export type NewSolve = Omit<Solve, 'id'>

interface SolveRow {
  id: string
  copy_id: string | null
  session_id: string | null
  puzzle_id: string
  school: string | null
  variant: Variant
  solver: string
  start_state: string
  scramble: string
  solution: string
  finished_at: Date
  elapsed_ms: number
  turn_count: number
  quarter_count: number
  slips: number
  hints: number
  remark: string
  splits: Split[]
}

const fromRow = (row: SolveRow): Solve => ({
  id: row.id,
  copyId: row.copy_id ?? undefined,
  sessionId: row.session_id ?? undefined,
  puzzleId: row.puzzle_id,
  school: row.school ?? undefined,
  variant: row.variant,
  solver: row.solver,
  startState: row.start_state,
  scramble: row.scramble,
  solution: row.solution,
  finishedAt: row.finished_at,
  elapsedMs: row.elapsed_ms,
  turnCount: row.turn_count,
  quarterCount: row.quarter_count,
  slips: row.slips,
  hints: row.hints,
  remark: row.remark,
  splits: row.splits,
})

/** @param from what stands for the solves, as `s` */
const select = (from: string): string => `
  select s.*, coalesce((
    select jsonb_agg(jsonb_build_object(
      'stageId', t.stage_id, 'name', t.name, 'turnCount', t.turn_count, 'elapsedMs', t.elapsed_ms
    ) order by t.ordinal) from solve_stages t where t.solve_id = s.id
  ), '[]') as splits
  from ${from} s`

interface Part {
  readonly limit: number
  readonly offset?: number
}

/**
 * Solves that meet a condition, newest first.
 *
 * @param condition in SQL, on `s`, with `values` for its numbers after `$1`, the profile
 */
export async function solvesWhere(
  profileId: string,
  condition: string,
  values: readonly unknown[],
  { limit, offset = 0 }: Part,
): Promise<Solve[]> {
  const at = 1 + values.length
  const { rows } = await rowsOf(profileId).query<SolveRow>(
    // Splits are looked up for the solves that are wanted, not for those that are passed over.
    `${select(`(select * from solves s where ${condition}
       order by s.finished_at desc, s.id limit $${at + 1} offset $${at + 2})`)}
     order by s.finished_at desc, s.id`,
    [profileId, ...values, limit, offset],
  )
  return rows.map(fromRow)
}

/** Newest first. */
export const listSolves = (profileId: string, limit = 1000): Promise<Solve[]> =>
  solvesWhere(profileId, 's.profile_id = $1', [], { limit })

/** All of them, newest first, read some at a time within a transaction of the client's: however many, none is lost. */
export async function* eachSolve(profileId: string, client: Queryable): AsyncGenerator<Solve> {
  await client.query(
    `declare each_solve no scroll cursor for
     ${select('solves')} where s.profile_id = $1 order by s.finished_at desc, s.id`,
    [profileId],
  )
  for (;;) {
    const { rows } = (await client.query(`fetch ${AT_A_TIME} from each_solve`)) as {
      rows: SolveRow[]
    }
    if (rows.length === 0) break
    yield* rows.map(fromRow)
  }
  await client.query('close each_solve')
}

const AT_A_TIME = 500

export async function findSolve(profileId: string, id: string): Promise<Solve | undefined> {
  const { rows } = await rowsOf(profileId).query<SolveRow>(
    `${select('solves')} where s.profile_id = $1 and s.id = $2`,
    [profileId, id],
  )
  return rows[0] && fromRow(rows[0])
}

/** The solve that a bench session has led to. */
export async function solveOfSession(
  profileId: string,
  sessionId: string,
): Promise<string | undefined> {
  const { rows } = await rowsOf(profileId).query<{ id: string }>(
    'select id from solves where profile_id = $1 and session_id = $2',
    [profileId, sessionId],
  )
  return rows[0]?.id
}

/** Stores a solve; its id is returned. */
export async function addSolve(
  profileId: string,
  solve: NewSolve,
  client: Queryable,
): Promise<string> {
  const id = randomUUID()
  await insert(profileId, [{ ...solve, id }], '', client)
  return id
}

/**
 * Stores those that are not in the log already (same start, solution and moment), some hundreds in one statement;
 * their number is returned.
 */
export async function addNewSolves(
  profileId: string,
  solves: readonly NewSolve[],
  client: Queryable,
): Promise<number> {
  const keyOf = ({ startState, solution, finishedAt }: NewSolve) =>
    `${startState} ${solution} ${finishedAt.toISOString()}`
  const different = [
    ...new Map(solves.map((solve) => [keyOf(solve), { ...solve, id: randomUUID() }])).values(),
  ]
  if (different.length === 0) return 0
  return insert(
    profileId,
    different,
    `where not exists (
       select 1 from solves k where k.profile_id = $1 and k.finished_at = g."finishedAt"
         and k.start_state = g."startState" and k.solution = g.solution)`,
    client,
  )
}

/**
 * Stores solves with their splits, all sent as a list in JSON, within a transaction of the client's; the number of
 * those that are stored is returned.
 */
async function insert(
  profileId: string,
  solves: readonly (NewSolve & { readonly id: string })[],
  condition: string,
  client: Queryable,
): Promise<number> {
  const given = JSON.stringify(solves)
  const { rowCount } = await client.query(
    `insert into solves (id, profile_id, session_id, copy_id, puzzle_id, school, variant, solver,
       start_state, scramble, solution, finished_at, elapsed_ms, turn_count, quarter_count,
       slips, hints, remark)
     select g.id, $1, g."sessionId", g."copyId", g."puzzleId", g.school, g.variant, g.solver,
       g."startState", g.scramble, g.solution, g."finishedAt", g."elapsedMs", g."turnCount",
       g."quarterCount", g.slips, g.hints, g.remark
     from jsonb_to_recordset($2::jsonb) as g(
       id uuid, "sessionId" uuid, "copyId" uuid, "puzzleId" text, school text, variant jsonb,
       solver text, "startState" text, scramble text, solution text, "finishedAt" timestamptz,
       "elapsedMs" bigint, "turnCount" integer, "quarterCount" integer, slips integer,
       hints integer, remark text) ${condition}`,
    [profileId, given],
  )
  // A statement of its own: that the solve is the solver's is seen only when it is there.
  await client.query(
    `insert into solve_stages (solve_id, ordinal, stage_id, name, turn_count, elapsed_ms)
     select s.id, t.ordinal - 1, t.value->>'stageId', t.value->>'name',
       (t.value->>'turnCount')::integer, (t.value->>'elapsedMs')::bigint
     from jsonb_to_recordset($2::jsonb) as g(id uuid, splits jsonb)
     join solves s on s.id = g.id and s.profile_id = $1
     cross join lateral jsonb_array_elements(g.splits) with ordinality as t(value, ordinal)`,
    [profileId, given],
  )
  return rowCount ?? 0
}

export async function setRemark(profileId: string, id: string, remark: string): Promise<boolean> {
  const { rowCount } = await rowsOf(profileId).query(
    'update solves set remark = $3 where profile_id = $1 and id = $2',
    [profileId, id, remark],
  )
  return rowCount === 1
}

export async function removeSolve(profileId: string, id: string): Promise<boolean> {
  const { rowCount } = await rowsOf(profileId).query(
    'delete from solves where profile_id = $1 and id = $2',
    [profileId, id],
  )
  return rowCount === 1
}
