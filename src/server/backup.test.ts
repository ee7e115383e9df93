import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { limitReach } from '../core/catalog/reach'
import { must } from '../core/result'
import { keepAlgorithm } from './algorithms'
import { asRequest, keepRequestsApart } from './asking'
import { writeBackup } from './backup'
import { textSource } from './files/source'
import { textOf } from './files/write'
import { restore } from './restore'
import { addCopy } from './copies'
import { loadDemo } from './demo/load'
import { benchesLeftOff } from './leftOff'
import { addOwnPuzzle } from './ownPuzzles'
import { keepSchool } from './ownSchools'
import { allRows } from './pool'
import { firstProfile } from './named'
import { whoAsks } from './profiles'
import { exampleFile, exampleSchool, freshDatabase } from './testDatabase'

let backup: string

const written = async (id: string) => {
  const pieces = await writeBackup(id)
  return pieces ? textOf(pieces) : ''
}

const say = () => Promise.resolve()
const end = () => Promise.resolve()

/** On the machine on which it was made: the demo, with files of one's own. */
async function made(): Promise<string> {
  const discard = await freshDatabase('backup_from')
  await loadDemo()
  const gull = await firstProfile()
  const text = await asRequest(async () => {
    await whoAsks(gull)
    const slab = exampleFile('Quay slab')
    const puzzleId = must(await addOwnPuzzle(gull, slab))
    await addCopy(gull, { puzzleId, name: 'Slab', scheme: slab.colours, remarks: 'Wobbles.' })
    must(await keepSchool(gull, 'cube-3', exampleSchool()))
    must(
      await keepAlgorithm(gull, 'cube-3', { turns: "R U R'", name: 'Lift', remark: '', hold: 'a' }),
    )
    await allRows.query(
      `insert into bench_events (session_id, seq, event)
       select id, 0, '{"kind":"turn","atMs":5,"name":"R"}' from bench_sessions
       where status = 'open'`,
    )
    // One of them was left off.
    await allRows.query(
      `update bench_sessions s set status = 'aside', turns = 1, ended_at = date_trunc('milliseconds', now())
       from copies c where c.id = s.copy_id and c.puzzle_id = 'cube-2'`,
    )
    return written(gull)
  })
  await discard()
  return text ?? ''
}

let discard: () => Promise<void>
beforeAll(async () => {
  keepRequestsApart()
  backup = await made()
  discard = await freshDatabase('backup_to')
})
afterAll(async () => {
  limitReach(undefined)
  await discard()
})

const rows = async (table: string) =>
  (await allRows.query<{ count: number }>(`select count(*)::int as count from ${table}`)).rows[0]
    .count

/** What identifies a part, in whichever database it is. */
const parts = (text: string) => {
  const file = JSON.parse(text) as Record<string, unknown>
  const copies = (file.copies as { copy: object; benches: { events: unknown[] }[] }[]).map(
    ({ copy, benches, ...rest }) => ({
      ...rest,
      copy: { ...copy, id: '', created_at: '' },
      care: ((rest as { care?: object[] }).care ?? []).map((entry) => ({
        ...entry,
        id: '',
        created_at: '',
      })),
      benches: benches.map((bench) => ({ ...bench, id: '', copy_id: '', created_at: '' })),
    }),
  )
  return { ...file, copies, settings: { ...(file.settings as object), nickname: '' } }
}

describe('a backup', () => {
  it('makes a solver with everything, in a database that had nothing', async () => {
    expect(await rows('copies')).toBe(0)
    await firstProfile()
    const id = must(await restore(textSource(backup), say, end))
    const again = await asRequest(async () => {
      const profile = await whoAsks(id)
      expect(profile?.nickname).toBe('Gull')
      return written(id)
    })
    expect(parts(again ?? '')).toEqual(parts(backup))
    const { rows: linked } = await allRows.query<{ count: number }>(
      'select count(*)::int as count from solves where profile_id = $1 and copy_id is not null',
      [id],
    )
    expect(linked[0].count).toBe(79)
    expect(await benchesLeftOff(id, 9)).toMatchObject([{ puzzleId: 'cube-2', turns: 1 }])
  })

  it('comes back beside a solver of that nickname under another', async () => {
    const id = must(await restore(textSource(backup), say, end))
    expect((await asRequest(() => whoAsks(id)))?.nickname).toBe('Gull 2')
  })

  it('is refused as a whole, with the part named, whatever is wrong in it', async () => {
    const count = async () =>
      Promise.all(['profiles', 'copies', 'solves', 'bench_events', 'own_puzzles'].map(rows))
    const before = await count()
    const file = JSON.parse(backup) as Record<string, never>
    const wrong = async (change: (copy: Record<string, never>) => void, part: RegExp) => {
      const copy = structuredClone(file)
      change(copy)
      const read = await restore(textSource(JSON.stringify(copy)), say, end)
      expect(read.ok ? '' : `${read.problem.field} ${read.problem.sentence}`).toMatch(part)
      expect(await count()).toEqual(before)
    }
    type Any = Record<string, unknown>
    const first = (copy: Any, list: string) => (copy[list] as Any[])[0]
    await wrong((copy) => delete (copy as Any).log, /log/)
    await wrong((copy) => Object.assign(copy, { extra: 1 }), /extra/)
    await wrong((copy) => Object.assign(copy, { format: 'x' }), /format/)
    await wrong((copy) => Object.assign(first(copy, 'puzzles'), { mechanism: 7 }), /puzzles\[0\]/)
    await wrong(
      (copy) => Object.assign(first(copy, 'schools'), { puzzle: 'cube-2' }),
      /schools\[0\]/,
    )
    await wrong(
      (copy) => Object.assign(first(copy, 'copies').copy as Any, { name: '' }),
      /copies\[0\]/,
    )
    await wrong(
      (copy) => Object.assign(first(copy, 'copies').copy as Any, { puzzle_id: 'tetra-3' }),
      /copies\[0\].*colours/,
    )
    await wrong((copy) => {
      const [{ benches }] = copy.copies as unknown as { benches: Any[] }[]
      benches[0].events = [{ kind: 'spell' }]
    }, /copies\[0\]\.benches\[0\].*kind/)
    await wrong((copy) => {
      const [{ benches }] = copy.copies as unknown as { benches: Any[] }[]
      benches[0].start_state = 'zz'
    }, /benches\[0\]/)
    await wrong((copy) => {
      ;(copy.solvedOn as unknown[]).pop()
    }, /solvedOn/)
    await wrong((copy) => {
      const { solves } = copy.log as unknown as { solves: Any[] }
      solves[3].solution = 'R'
    }, /log.*Line/)
    await wrong(
      (copy) => Object.assign(first(copy, 'algorithms'), { puzzle: 'no' }),
      /algorithms\[0\]/,
    )
    expect(await restore(textSource('{'), say, end)).toMatchObject({
      ok: false,
      problem: { code: 'bad-file' },
    })
  })

  it('is read whatever the order of its parts', async () => {
    const file = JSON.parse(backup) as Record<string, unknown>
    const turned = JSON.stringify(Object.fromEntries(Object.entries(file).reverse()))
    const id = must(await restore(textSource(turned), say, end))
    expect(parts(await asRequest(async () => (await whoAsks(id), written(id))))).toEqual(
      parts(backup),
    )
  })

  it('that is stopped, or is not wanted at its end, leaves nothing behind', async () => {
    const before = await rows('profiles')
    const stop = () => Promise.reject(new Error('stopped'))
    await expect(restore(textSource(backup), stop, end)).rejects.toThrow('stopped')
    await expect(restore(textSource(backup), say, stop)).rejects.toThrow('stopped')
    expect(await rows('profiles')).toBe(before)
  })
})
