/** What happened to a copy: tension set, pieces popped out and put back, stickers. */
import { rowsOf, type Queryable } from './pool'

export const CARE_KINDS = ['tension', 'pop', 'refit', 'stickers'] as const
export type CareKind = (typeof CARE_KINDS)[number]

export interface NewCareEntry {
  /** A day as yyyy-mm-dd. */
  readonly happenedOn: string
  readonly kind: CareKind
  readonly note: string
}

export interface CareEntry extends NewCareEntry {
  readonly id: string
}

interface CareRow {
  id: string
  copy_id: string
  happened_on: string
  kind: CareKind
  note: string
}

/** Entries of all copies of a profile by copy id, the latest first. */
export async function careByCopy(profileId: string): Promise<Map<string, CareEntry[]>> {
  const { rows } = await rowsOf(profileId).query<CareRow>(
    `select e.id, e.copy_id, to_char(e.happened_on, 'YYYY-MM-DD') as happened_on, e.kind, e.note
     from care_entries e join copies c on c.id = e.copy_id
     where c.profile_id = $1
     order by e.happened_on desc, e.created_at desc, e.id`,
    [profileId],
  )
  const found = new Map<string, CareEntry[]>()
  for (const { id, copy_id, happened_on, kind, note } of rows)
    found.set(copy_id, [...(found.get(copy_id) ?? []), { id, happenedOn: happened_on, kind, note }])
  return found
}

/** False if the copy is not this profile's. */
export async function addCare(
  profileId: string,
  copyId: string,
  { happenedOn, kind, note }: NewCareEntry,
  client: Queryable = rowsOf(profileId),
): Promise<boolean> {
  const { rows } = await client.query(
    `insert into care_entries (copy_id, happened_on, kind, note)
     select id, $3, $4, $5 from copies where profile_id = $1 and id = $2
     returning id`,
    [profileId, copyId, happenedOn, kind, note],
  )
  return rows.length > 0
}

export async function removeCare(profileId: string, id: string): Promise<boolean> {
  const { rowCount } = await rowsOf(profileId).query(
    `delete from care_entries e using copies c
     where c.id = e.copy_id and c.profile_id = $1 and e.id = $2`,
    [profileId, id],
  )
  return (rowCount ?? 0) > 0
}
