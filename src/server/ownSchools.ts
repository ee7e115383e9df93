/** School files that a person keeps, for the puzzles on which they were proven. */
import { createHash } from 'node:crypto'
import { canonicalText } from '../core/canonical'
import { misfitOf } from '../core/coach/prove'
import { puzzleById } from '../core/catalog'
import { reachOfSchool } from '../core/catalog/reach'
import { fail, ok, type Result } from '../core/result'
import {
  forgetSchool,
  isSchoolLearned,
  learnSchools,
  type OwnSchool,
} from '../core/schools/ownSchools'
import { readSchool } from '../core/schools/readSchool'
import type { School } from '../core/schools/school'
import { noLongerInReach, nowInReach } from './asking'
import { allRows, rowsOf, type Queryable } from './pool'

/** Every page that shows schools carries them, so there is an end to them. */
const MOST = 50

/** The id that a school gets here: the same content has the same id everywhere. */
export function ownSchoolId(school: School): string {
  const hash = createHash('sha256').update(canonicalText(school)).digest('hex')
  return `own-${hash.slice(0, 20)}`
}

interface Stored {
  readonly puzzleId: string
  readonly id: string
  readonly school: unknown
}

/** Those of a puzzle that can be read, by name; a stored one that cannot takes no page with it. */
export const keptSchools = (profileId: string, puzzleId: string): Promise<OwnSchool[]> =>
  stored('puzzle_id = $2', profileId, puzzleId)

async function stored(which: string, profileId: string, value: unknown): Promise<OwnSchool[]> {
  const { rows } = await rowsOf(profileId).query<Stored>(
    `select puzzle_id as "puzzleId", id, school from own_schools
     where profile_id = $1 and ${which} order by school->>'name', id`,
    [profileId, value],
  )
  return rows.flatMap(({ puzzleId, id, school }) => {
    const read = readSchool(school)
    return read.ok ? [{ puzzleId, school: { ...read.value, id } }] : []
  })
}

/** Makes these known to this process: afterwards they are found by their ids like any other. */
export async function learnOwnSchools(
  profileId: string,
  kept: readonly { readonly puzzleId: string; readonly id: string }[],
): Promise<void> {
  const unknown = kept.filter(({ puzzleId, id }) => !isSchoolLearned(puzzleId, id))
  if (unknown.length === 0) return
  const ids = unknown.map(({ id }) => id)
  learnSchools(await stored('id = any($2)', profileId, ids))
}

/**
 * Keeps a school for a puzzle. The page has proven it; here it is read again and held against the puzzle.
 * Whatever it plans is replayed on the engine before it is shown.
 */
export async function keepSchool(
  profileId: string,
  puzzleId: string,
  input: unknown,
  client: Queryable = rowsOf(profileId),
): Promise<Result<string>> {
  const puzzle = puzzleById(puzzleId)
  if (!puzzle.ok) return puzzle
  const read = readSchool(input)
  if (!read.ok) return read
  const misfit = misfitOf(puzzle.value, read.value)
  if (misfit) return { ok: false, problem: misfit }
  const id = ownSchoolId(read.value)
  const counted = await client.query(
    'select count(*)::int as count from own_schools where profile_id = $1 and id <> $2',
    [profileId, id],
  )
  if ((counted.rows[0] as { count: number }).count >= MOST)
    return fail('too-many', `${MOST} school files are kept already. Forget one first.`)
  await client.query(
    `insert into own_schools (profile_id, puzzle_id, id, school) values ($1, $2, $3, $4)
     on conflict (profile_id, puzzle_id, id) do nothing`,
    [profileId, puzzleId, id, JSON.stringify(input)],
  )
  learnSchools([{ puzzleId, school: { ...read.value, id } }])
  nowInReach('schools', reachOfSchool(puzzleId, id))
  return ok(id)
}

/** Whether it was there and nothing follows it any more: no bench, no logged solve. */
export async function forgetOwnSchool(
  profileId: string,
  puzzleId: string,
  id: string,
): Promise<boolean> {
  const { rowCount } = await rowsOf(profileId).query(
    `delete from own_schools o where profile_id = $1 and puzzle_id = $2 and id = $3
       and not exists (
         select 1 from bench_sessions b join copies c on c.id = b.copy_id
         where c.profile_id = $1 and c.puzzle_id = $2 and b.school = o.id)
       and not exists (
         select 1 from solves where profile_id = $1 and puzzle_id = $2 and school = o.id)`,
    [profileId, puzzleId, id],
  )
  if (rowCount !== 1) return false
  noLongerInReach('schools', reachOfSchool(puzzleId, id))
  // Another solver may keep the same.
  const others = await allRows.query(
    'select 1 from own_schools where puzzle_id = $1 and id = $2 limit 1',
    [puzzleId, id],
  )
  if (others.rowCount === 0) forgetSchool(puzzleId, id)
  return true
}
