/** Who is named by a browser, and nothing more of them: for whoever answers no pages. */
import { isId } from './id'
import { allRows } from './pool'

/** The id alone of who asks, found in the same way; nothing of theirs becomes known to this process. */
export async function solverNamed(named: string | undefined): Promise<string | undefined> {
  if (isId(named) && (await isSolver(named))) return named
  const { rows } = await allRows.query<{ id: string }>('select id from profiles limit 2')
  return rows.length > 1 ? undefined : (rows[0]?.id ?? firstProfile())
}

/** The id of the solver who was there first, made where there is none yet. */
export async function firstProfile(): Promise<string> {
  await allRows.query(
    `insert into profiles (nickname) select 'Me' where not exists (select 1 from profiles)
     on conflict do nothing`,
  )
  const { rows } = await allRows.query<{ id: string }>(
    'select id from profiles order by created_at, id limit 1',
  )
  return rows[0].id
}

export async function isSolver(id: string): Promise<boolean> {
  const { rowCount } = await allRows.query('select 1 from profiles where id = $1', [id])
  return rowCount === 1
}
