/** Puzzles of a person's own, as the files say that were put on the shelf. */
import { createHash } from 'node:crypto'
import { canonicalText } from '../core/canonical'
import { compiledFrom, definitionById, forgetDefinition, learnDefinitions } from '../core/catalog'
import type { PuzzleDefinition } from '../core/puzzle/definition'
import { readDefinition } from '../core/puzzle/readDefinition'
import { fail, ok, type Problem, type Result } from '../core/result'
import { pool, type Queryable } from './pool'

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

/** An id stands for one content, so each is read and built once. */
const readOnce = new Map<string, Result<PuzzleDefinition>>()

function readStored({ id, definition }: StoredPuzzle): Result<PuzzleDefinition> {
  const known = readOnce.get(id)
  if (known) return known
  const file = readDefinition(definition)
  const built = file.ok ? compiledFrom(file.value) : file
  const read = file.ok && built.ok ? ok({ ...file.value, id }) : (built as Result<never>)
  readOnce.set(id, read)
  return read
}

interface StoredPuzzle {
  readonly id: string
  readonly definition: unknown
}

async function storedPuzzles(profileId: string): Promise<StoredPuzzle[]> {
  const { rows } = await pool().query<StoredPuzzle>(
    `select id, definition from own_puzzles where profile_id = $1
     order by definition->>'name', id`,
    [profileId],
  )
  return rows
}

/** All of a person's own that can be read, by name. */
export async function ownPuzzles(profileId: string): Promise<PuzzleDefinition[]> {
  const read = (await storedPuzzles(profileId)).map(readStored)
  return read.flatMap((each) => (each.ok ? [each.value] : []))
}

/** The others. */
export async function damagedPuzzles(profileId: string): Promise<DamagedPuzzle[]> {
  return (await storedPuzzles(profileId)).flatMap((stored) => {
    const read = readStored(stored)
    if (read.ok) return []
    const { name } = Object(stored.definition) as { name?: unknown }
    return [
      { id: stored.id, name: typeof name === 'string' ? name : stored.id, problem: read.problem },
    ]
  })
}

/** Of those with these ids what was put on the shelf, word for word. */
export async function ownPuzzleFiles(
  profileId: string,
  ids: readonly string[],
): Promise<PuzzleDefinition[]> {
  const { rows } = await pool().query<{ definition: unknown }>(
    'select definition from own_puzzles where profile_id = $1 and id = any($2) order by id',
    [profileId, ids],
  )
  return rows.flatMap(({ definition }) => {
    const read = readDefinition(definition)
    return read.ok ? [read.value] : []
  })
}

/** Makes them known to this process: afterwards they are found by their ids like any other. */
export async function learnOwnPuzzles(profileId: string): Promise<void> {
  const { rows } = await pool().query<{ id: string }>(
    'select id from own_puzzles where profile_id = $1',
    [profileId],
  )
  if (rows.some(({ id }) => !definitionById(id) && readOnce.get(id)?.ok !== false))
    learnDefinitions(await ownPuzzles(profileId))
}

/** Stores a definition, if it is not there yet, and makes it known. Its id here is returned. */
export async function addOwnPuzzle(
  profileId: string,
  definition: PuzzleDefinition,
  client: Queryable = pool(),
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
    `insert into own_puzzles (profile_id, id, definition) values ($1, $2, $3)
     on conflict (profile_id, id) do nothing`,
    [profileId, id, JSON.stringify(definition)],
  )
  learnDefinitions([{ ...definition, id }])
  return ok(id)
}

/** Whether it was there and nothing uses it any more: no copy, no logged solve. */
export async function forgetOwnPuzzle(profileId: string, id: string): Promise<boolean> {
  const { rowCount } = await pool().query(
    `delete from own_puzzles o where profile_id = $1 and id = $2
       and not exists (
         select 1 from copies where profile_id = $1 and split_part(puzzle_id, '--', 1) = o.id)
       and not exists (
         select 1 from solves where profile_id = $1 and split_part(puzzle_id, '--', 1) = o.id)`,
    [profileId, id],
  )
  if (rowCount !== 1) return false
  readOnce.delete(id)
  forgetDefinition(id)
  return true
}
