import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { puzzleById } from '../core/catalog'
import { must } from '../core/result'
import { addCare, careByCopy, removeCare } from './care'
import { addCopy, removeCopy } from './copies'
import { allRows } from './pool'
import { firstProfile } from './named'
import { freshDatabase } from './testDatabase'

let discard: () => Promise<void>
let profileId: string
let copyId: string
const nobody = '00000000-0000-4000-8000-000000000000'

beforeAll(async () => {
  discard = await freshDatabase('care')
  profileId = await firstProfile()
  copyId = await addCopy(profileId, {
    puzzleId: 'tetra-3',
    name: 'Jib',
    scheme: must(puzzleById('tetra-3')).definition.colours,
    remarks: '',
  })
})
afterAll(() => discard())

const entry = (happenedOn: string, note = '') => ({ happenedOn, kind: 'pop' as const, note })

describe('care entries', () => {
  it('are listed by copy, the latest day first, as they were written', async () => {
    for (const day of ['2026-11-03', '2026-11-20', '2026-11-11'])
      expect(await addCare(profileId, copyId, entry(day, `on ${day}`))).toBe(true)
    const own = (await careByCopy(profileId)).get(copyId) ?? []
    expect(own.map(({ happenedOn }) => happenedOn)).toEqual([
      '2026-11-20',
      '2026-11-11',
      '2026-11-03',
    ])
    expect(own[0].note).toBe('on 2026-11-20')
    expect(await careByCopy(nobody)).toEqual(new Map())
  })

  it('belong to one profile: no other adds or removes them', async () => {
    expect(await addCare(nobody, copyId, entry('2026-11-04'))).toBe(false)
    expect(await addCare(profileId, nobody, entry('2026-11-04'))).toBe(false)
    const [first, ...rest] = (await careByCopy(profileId)).get(copyId) ?? []
    expect(await removeCare(nobody, first.id)).toBe(false)
    expect(await removeCare(profileId, first.id)).toBe(true)
    expect(await removeCare(profileId, first.id)).toBe(false)
    expect((await careByCopy(profileId)).get(copyId)).toEqual(rest)
  })

  it('of a kind that does not exist are refused by the database itself', async () => {
    await expect(
      allRows.query(
        `insert into care_entries (copy_id, happened_on, kind) values ($1, '2026-11-04', 'oiled')`,
        [copyId],
      ),
    ).rejects.toThrow(/kind/)
  })

  it('go with their copy', async () => {
    expect(await removeCopy(profileId, copyId)).toBe(true)
    expect((await careByCopy(profileId)).get(copyId)).toBeUndefined()
  })
})
