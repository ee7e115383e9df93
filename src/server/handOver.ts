/** A copy that changes hands: the puzzle goes to another solver who shares the machine. */
import { fail, ok, type Result } from '../core/result'
import { transactionOfAll } from './pool'

/**
 * Hands a copy over with its colours, remarks, care and benches, and with the puzzle file and the school files
 * that they need. What was solved on it stays in the log of those who solved it.
 */
export function handOver(
  profileId: string,
  copyId: string,
  toId: string,
): Promise<Result<{ readonly nickname: string }>> {
  return transactionOfAll(async (client) => {
    const to = await client.query<{ nickname: string }>(
      'select nickname from profiles where id = $1 and id <> $2 for share',
      [toId, profileId],
    )
    if (to.rowCount === 0)
      return fail('not-found', 'This solver is not here any more.', { field: 'to' })
    // The benches' own rows are held too: a turn that is just being stored comes before, or finds them gone.
    await client.query(
      'select 1 from bench_sessions where profile_id = $1 and copy_id = $2 for update',
      [profileId, copyId],
    )
    await client.query(
      `insert into own_puzzles (profile_id, id, definition, read_by, problem)
       select $3, o.id, o.definition, o.read_by, o.problem
       from own_puzzles o join copies c
         on c.profile_id = o.profile_id and split_part(c.puzzle_id, '--', 1) = o.id
       where c.profile_id = $1 and c.id = $2
       on conflict do nothing`,
      [profileId, copyId, toId],
    )
    await client.query(
      `insert into own_schools (profile_id, puzzle_id, id, school)
       select distinct $3::uuid, o.puzzle_id, o.id, o.school
       from own_schools o
       join copies c on c.profile_id = o.profile_id and c.puzzle_id = o.puzzle_id
       join bench_sessions b on b.copy_id = c.id and b.school = o.id
       where c.profile_id = $1 and c.id = $2
       on conflict do nothing`,
      [profileId, copyId, toId],
    )
    const moved = await client.query(
      'update copies set profile_id = $3, created_at = clock_timestamp() where profile_id = $1 and id = $2',
      [profileId, copyId, toId],
    )
    if (moved.rowCount === 0)
      return fail('not-found', 'This puzzle is not on your shelf any more.', { field: 'copyId' })
    await client.query('update bench_sessions set profile_id = $2 where copy_id = $1', [
      copyId,
      toId,
    ])
    await client.query(
      'update solves set copy_id = null, session_id = null where copy_id = $1 and profile_id <> $2',
      [copyId, toId],
    )
    return ok({ nickname: to.rows[0].nickname })
  })
}
