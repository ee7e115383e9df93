/** Sequences that a person keeps for a puzzle, and the file in which they travel (docs/algorithms-file.md). */
import { array, object, string, type InferType } from 'yup'
import { puzzleById } from '../core/catalog'
import { readTurns } from '../core/notation/read'
import { fail, ok, type Result } from '../core/result'
import { trimmed } from '../core/trimmed'
import { checked } from './outside'
import { rowsOf, transaction, type Queryable } from './pool'

/** Each stands in a list that is shown whole. */
const MOST = 1000

export const algorithmSchema = object({
  turns: trimmed().max(4000, 'turns have at most 4000 characters.').required('turns are missing.'),
  name: trimmed().max(80, 'name has at most 80 letters.').default(''),
  remark: trimmed().max(2000, 'remark has at most 2000 letters.').default(''),
  hold: string()
    .matches(/^[a-x]$/, 'hold is one letter from a to x.')
    .default('a'),
}).noUnknown('${path} has a field that is not known: ${unknown}')

export type NewAlgorithm = InferType<typeof algorithmSchema>

export interface OwnAlgorithm extends NewAlgorithm {
  readonly id: string
}

const COLUMNS = 'id, turns, name, remark, hold'

/** All that can be read, the oldest first; what cannot takes no page with it. */
export async function ownAlgorithms(profileId: string, puzzleId: string): Promise<OwnAlgorithm[]> {
  const all = await keptAlgorithms(profileId, puzzleId)
  return all.filter((algorithm) => misfitOf(puzzleId, algorithm).ok)
}

/** The same with those that cannot be read any more. */
export async function keptAlgorithms(profileId: string, puzzleId: string): Promise<OwnAlgorithm[]> {
  const { rows } = await rowsOf(profileId).query<OwnAlgorithm>(
    `select ${COLUMNS} from algorithms where profile_id = $1 and puzzle_id = $2
     order by created_at, id`,
    [profileId, puzzleId],
  )
  return rows
}

/** How many there are of each puzzle. */
export async function algorithmCounts(profileId: string): Promise<Record<string, number>> {
  const { rows } = await rowsOf(profileId).query<{ puzzle_id: string; count: number }>(
    `select puzzle_id, count(*)::int as count from algorithms where profile_id = $1
     group by puzzle_id`,
    [profileId],
  )
  return Object.fromEntries(rows.map(({ puzzle_id, count }) => [puzzle_id, count]))
}

/** Refuses what is no sequence of the puzzle, or is held as it cannot be. */
function misfitOf(puzzleId: string, { turns, hold }: NewAlgorithm): Result<true> {
  const puzzle = puzzleById(puzzleId)
  if (!puzzle.ok) return puzzle
  const read = readTurns(puzzle.value, turns)
  if (!read.ok) return fail(read.problem.code, read.problem.sentence, { field: 'turns' })
  if (read.value.length === 0) return fail('bad-turns', 'turns are missing.', { field: 'turns' })
  if (!puzzle.value.holds.includes(hold.charCodeAt(0) - 97))
    return fail('bad-hold', `This puzzle is not held as '${hold}' says.`, { field: 'hold' })
  return ok(true)
}

/** Keeps one; its id is returned. The same turns in the same hold are kept once, under their latest name. */
export async function keepAlgorithm(
  profileId: string,
  puzzleId: string,
  algorithm: NewAlgorithm,
): Promise<Result<string>> {
  const fits = misfitOf(puzzleId, algorithm)
  if (!fits.ok) return fits
  const full = await isFull(profileId, puzzleId, 1)
  if (full) return full
  const { rows } = await rowsOf(profileId).query<{ id: string }>(KEEP, [
    profileId,
    puzzleId,
    algorithm.turns,
    algorithm.name,
    algorithm.remark,
    algorithm.hold,
  ])
  return ok(rows[0].id)
}

const KEEP = `insert into algorithms (profile_id, puzzle_id, turns, name, remark, hold)
  values ($1, $2, $3, $4, $5, $6)
  on conflict (profile_id, puzzle_id, turns, hold)
  do update set name = excluded.name, remark = excluded.remark returning id`

async function isFull(
  profileId: string,
  puzzleId: string,
  more: number,
  client: Queryable = rowsOf(profileId),
) {
  const { rows } = await client.query(
    'select count(*)::int as count from algorithms where profile_id = $1 and puzzle_id = $2',
    [profileId, puzzleId],
  )
  return (rows[0] as { count: number }).count + more > MOST
    ? fail('too-many', `At most ${MOST} sequences are kept for a puzzle. Forget one first.`)
    : undefined
}

/** Whether it was there. */
export async function renameAlgorithm(
  profileId: string,
  id: string,
  { name, remark }: Pick<NewAlgorithm, 'name' | 'remark'>,
): Promise<boolean> {
  const { rowCount } = await rowsOf(profileId).query(
    'update algorithms set name = $3, remark = $4 where profile_id = $1 and id = $2',
    [profileId, id, name, remark],
  )
  return rowCount === 1
}

export async function forgetAlgorithm(profileId: string, id: string): Promise<boolean> {
  const { rowCount } = await rowsOf(profileId).query(
    'delete from algorithms where profile_id = $1 and id = $2',
    [profileId, id],
  )
  return rowCount === 1
}

const FORMAT = 'merry-lantern-algorithms'

const fileSchema = object({
  format: string().oneOf([FORMAT], `format must be ${FORMAT}.`).required('format is missing.'),
  puzzle: string().max(80).required('puzzle is missing.'),
  algorithms: array()
    .of(algorithmSchema)
    .max(MOST, `algorithms are at most ${MOST}.`)
    .required('algorithms are missing.'),
}).noUnknown('The file has a field that is not known: ${unknown}')

/** All of a puzzle, to be kept elsewhere. */
export async function exportAlgorithms(profileId: string, puzzleId: string): Promise<unknown> {
  const all = await keptAlgorithms(profileId, puzzleId)
  const algorithms = all.map(({ turns, name, remark, hold }) => ({ turns, name, remark, hold }))
  return { format: FORMAT, puzzle: puzzleId, algorithms }
}

/**
 * Reads such a file for a puzzle: all of it is kept or nothing. How many are new is returned.
 *
 * @param within the transaction of which it is a part; one of its own if not given
 */
export async function importAlgorithms(
  profileId: string,
  puzzleId: string,
  input: unknown,
  within?: Queryable,
): Promise<Result<number>> {
  const read = await checked(fileSchema, input)
  if (!read.ok) return read
  const file = read.value
  if (file.puzzle !== puzzleId)
    return fail('bad-file', `puzzle is '${file.puzzle}': these are sequences of another puzzle.`, {
      field: 'puzzle',
    })
  for (const [i, algorithm] of file.algorithms.entries()) {
    const fits = misfitOf(puzzleId, algorithm)
    if (fits.ok) continue
    const field = [`algorithms[${i}]`, fits.problem.field].filter(Boolean).join('.')
    return fail('bad-file', `${field}: ${fits.problem.sentence}`, { field })
  }
  const store = async (client: Queryable): Promise<Result<number>> => {
    const full = await isFull(profileId, puzzleId, file.algorithms.length, client)
    if (full) return full
    let fresh = 0
    for (const { turns, name, remark, hold } of file.algorithms) {
      const { rows } = await client.query(`${KEEP}, (xmax = 0) as fresh`, [
        profileId,
        puzzleId,
        turns,
        name,
        remark,
        hold,
      ])
      fresh += Number((rows[0] as { fresh: boolean }).fresh)
    }
    return ok(fresh)
  }
  return within ? store(within) : transaction(profileId, store)
}

/** The puzzles for which a solver keeps some. */
export async function puzzlesWithAlgorithms(profileId: string): Promise<string[]> {
  return Object.keys(await algorithmCounts(profileId)).sort()
}
