/** The copies of puzzles that a person owns: name, colours, remarks. */
import type { Scheme } from '../core/puzzle/colours'
import { rowsOf, type Queryable } from './pool'

export interface Copy {
  readonly id: string
  readonly puzzleId: string
  readonly name: string
  readonly scheme: Scheme
  readonly remarks: string
}

/** A copy with where it stands, for the shelf. */
export interface ShelvedCopy extends Copy {
  readonly openSession?: string
  readonly lastSolvedAt?: Date
  readonly solves: number
}

interface CopyRow {
  id: string
  puzzle_id: string
  name: string
  scheme: Scheme
  remarks: string
}

const fromRow = (row: CopyRow): Copy => ({
  id: row.id,
  puzzleId: row.puzzle_id,
  name: row.name,
  scheme: row.scheme,
  remarks: row.remarks,
})

export async function shelf(profileId: string): Promise<ShelvedCopy[]> {
  const { rows } = await rowsOf(profileId).query<
    CopyRow & {
      open_session: string | null
      last_solved_at: Date | null
      solves: number
    }
  >(
    `select c.*, s.id as open_session, l.last_solved_at,
            coalesce(l.solves, 0)::int as solves
     from copies c
     left join lateral (
       select id from bench_sessions
       where copy_id = c.id and status = 'open' order by created_at desc limit 1
     ) s on true
     left join lateral (
       select max(finished_at) as last_solved_at, count(*) as solves from solves
       where copy_id = c.id
     ) l on true
     where c.profile_id = $1
     order by c.created_at, c.id`,
    [profileId],
  )
  return rows.map((row) => ({
    ...fromRow(row),
    openSession: row.open_session ?? undefined,
    lastSolvedAt: row.last_solved_at ?? undefined,
    solves: row.solves,
  }))
}

export async function findCopy(profileId: string, id: string): Promise<Copy | undefined> {
  const { rows } = await rowsOf(profileId).query<CopyRow>(
    'select * from copies where profile_id = $1 and id = $2',
    [profileId, id],
  )
  return rows[0] && fromRow(rows[0])
}

export async function addCopy(
  profileId: string,
  copy: Omit<Copy, 'id'>,
  client: Queryable = rowsOf(profileId),
): Promise<string> {
  const { rows } = await client.query(
    `insert into copies (profile_id, puzzle_id, name, scheme, remarks)
     values ($1, $2, $3, $4, $5) returning id`,
    [profileId, copy.puzzleId, copy.name, JSON.stringify(copy.scheme), copy.remarks],
  )
  return (rows[0] as { id: string }).id
}

export async function updateCopy(
  profileId: string,
  id: string,
  { name, scheme, remarks }: Pick<Copy, 'name' | 'scheme' | 'remarks'>,
): Promise<boolean> {
  const { rowCount } = await rowsOf(profileId).query(
    'update copies set name = $3, scheme = $4, remarks = $5 where profile_id = $1 and id = $2',
    [profileId, id, name, JSON.stringify(scheme), remarks],
  )
  return rowCount === 1
}

export async function removeCopy(profileId: string, id: string): Promise<boolean> {
  const { rowCount } = await rowsOf(profileId).query(
    'delete from copies where profile_id = $1 and id = $2',
    [profileId, id],
  )
  return rowCount === 1
}
