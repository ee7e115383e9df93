/** Puzzles of a person's own, as the files say that were put on the shelf. */
import { createHash } from 'node:crypto'
import { canonicalText } from '../core/canonical'
import { forgetDefinition, isLearned, learnDefinitions, learnLater } from '../core/catalog'
import type { PuzzleDefinition } from '../core/puzzle/definition'
import { readDefinition } from '../core/puzzle/readDefinition'
import { fail, ok, type Problem, type Result } from '../core/result'
import { noLongerInReach, nowInReach } from './asking'
import { allRows, rowsOf, type Queryable } from './pool'
import { PROGRAM } from './program'
import { rests } from './rest'
import { compiledFrom } from '../core/puzzle/compile'

/** Each is compiled on the server when it is shown, so there is an end to them. */
const MOST = 200

/** The id that a definition gets here: the same content has the same id everywhere. */
export function ownId(definition: PuzzleDefinition): string {
  const hash = createHash('sha256').update(canonicalText(definition)).digest('hex')
  return `own-${hash.slice(0, 20)}`
}

/** One that is stored and cannot be read, or not be built: what an earlier program let in, or a hand. */
export interface DamagedPuzzle {
  readonly id: string
  readonly name: string
  readonly problem: Problem
}

interface StoredPuzzle {
  readonly id: string
  readonly definition: unknown
}

function readStored({ id, definition }: StoredPuzzle): Result<PuzzleDefinition> {
  const file = readDefinition(definition)
  const built = file.ok ? compiledFrom(file.value) : file
  return file.ok && built.ok ? ok({ ...file.value, id }) : (built as Result<never>)
}

/** One of a person's own, as far as lists need it. */
export interface OwnPuzzle {
  readonly id: string
  readonly name: string
  readonly mechanism: PuzzleDefinition['mechanism']['kind']
}

/** Those of a person's own that can be read, by name. */
export async function ownPuzzleNames(profileId: string): Promise<OwnPuzzle[]> {
  await readUnread(profileId)
  const { rows } = await rowsOf(profileId).query<OwnPuzzle>(
    `select id, definition->>'name' as name, definition->'mechanism'->>'kind' as mechanism
     from own_puzzles
     where profile_id = $1 and problem is null order by 2, 1`,
    [profileId],
  )
  return rows
}

/** The others. */
export async function damagedPuzzles(profileId: string): Promise<DamagedPuzzle[]> {
  await readUnread(profileId)
  const { rows } = await rowsOf(profileId).query<{
    id: string
    name: string | null
    problem: Problem
  }>(
    `select id, definition->>'name' as name, problem from own_puzzles
     where profile_id = $1 and problem is not null order by 2, 1`,
    [profileId],
  )
  return rows.map(({ id, name, problem }) => ({ id, name: name ?? id, problem }))
}

/**
 * Reads what this program has not read yet: an earlier one may have let in what it cannot build. Found out once
 * for each file, and written down beside it.
 */
async function readUnread(profileId: string): Promise<void> {
  const { rows } = await rowsOf(profileId).query<StoredPuzzle>(
    'select id, definition from own_puzzles where profile_id = $1 and read_by is distinct from $2',
    [profileId, PROGRAM],
  )
  const rest = rests()
  for (const stored of rows) {
    const read = readStored(stored)
    await rowsOf(profileId).query(
      'update own_puzzles set read_by = $3, problem = $4 where profile_id = $1 and id = $2',
      [profileId, stored.id, PROGRAM, read.ok ? null : JSON.stringify(read.problem)],
    )
    await rest()
  }
}

/** Of those with these ids what was put on the shelf, word for word. */
export async function ownPuzzleFiles(
  profileId: string,
  ids: readonly string[],
): Promise<PuzzleDefinition[]> {
  const { rows } = await rowsOf(profileId).query<{ definition: unknown }>(
    'select definition from own_puzzles where profile_id = $1 and id = any($2) order by id',
    [profileId, ids],
  )
  return rows.flatMap(({ definition }) => {
    const read = readDefinition(definition)
    return read.ok ? [read.value] : []
  })
}

/** Makes those with these ids known to this process: afterwards they are found by their ids like any other. */
export async function learnOwnPuzzles(profileId: string, ids: readonly string[]): Promise<void> {
  const unknown = ids.filter((id) => !isLearned(id))
  if (unknown.length === 0) return
  const { rows } = await rowsOf(profileId).query<StoredPuzzle>(
    'select id, definition from own_puzzles where profile_id = $1 and id = any($2)',
    [profileId, unknown],
  )
  for (const stored of rows)
    learnLater(stored.id, () => {
      const read = readStored(stored)
      return read.ok ? read.value : undefined
    })
}

/** Stores a definition, if it is not there yet, and makes it known. Its id here is returned. */
export async function addOwnPuzzle(
  profileId: string,
  definition: PuzzleDefinition,
  client: Queryable = rowsOf(profileId),
): Promise<Result<string>> {
  const id = ownId(definition)
  const built = compiledFrom(definition)
  if (!built.ok) return built
  const counted = await client.query(
    'select count(*)::int as count from own_puzzles where profile_id = $1 and id <> $2',
    [profileId, id],
  )
  if ((counted.rows[0] as { count: number }).count >= MOST)
    return fail(
      'too-many',
      `There are ${MOST} puzzle files on this shelf already. Forget one that stands nowhere first.`,
    )
  await client.query(
    `insert into own_puzzles (profile_id, id, definition, read_by) values ($1, $2, $3, $4)
     on conflict (profile_id, id) do nothing`,
    [profileId, id, JSON.stringify(definition), PROGRAM],
  )
  learnDefinitions([{ ...definition, id }])
  nowInReach('puzzles', id)
  return ok(id)
}

/** Whether it was there and nothing uses it any more: no copy, no logged solve. */
export async function forgetOwnPuzzle(profileId: string, id: string): Promise<boolean> {
  const { rowCount } = await rowsOf(profileId).query(
    `delete from own_puzzles o where profile_id = $1 and id = $2
       and not exists (
         select 1 from copies where profile_id = $1 and split_part(puzzle_id, '--', 1) = o.id)
       and not exists (
         select 1 from solves where profile_id = $1 and split_part(puzzle_id, '--', 1) = o.id)`,
    [profileId, id],
  )
  if (rowCount !== 1) return false
  noLongerInReach('puzzles', id)
  // Another solver may have the same file.
  const others = await allRows.query('select 1 from own_puzzles where id = $1 limit 1', [id])
  if (others.rowCount === 0) forgetDefinition(id)
  return true
}
