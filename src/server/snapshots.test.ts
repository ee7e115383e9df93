import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { puzzleById } from '../core/catalog'
import { openBench, replay, turnsMade, type BenchEvent } from '../core/coach/bench'
import type { Entry } from '../core/coach/rebase'
import { must } from '../core/result'
import { start, writeState } from '../core/state'
import { appendEntries, eventsOf, findSession } from './benchSessions'
import { shelf, type Copy } from './copies'
import { standingBench } from './damage'
import { allRows, rowsOf } from './pool'
import { firstProfile } from './named'
import { tailOf } from './snapshots'
import { standings } from './standing'
import { exampleCopy, freshDatabase, openAnew } from './testDatabase'

let discard: () => Promise<void>
let profileId: string
let copy: Copy
let bench: string
const puzzle = must(puzzleById('cube-3'))
const startState = writeState(start(puzzle))

beforeAll(async () => {
  discard = await freshDatabase('snapshots')
  profileId = await firstProfile()
  copy = await exampleCopy(profileId, 'cube-3', 'Capstan cube')
})
beforeEach(async () => {
  bench = await openAnew(profileId, {
    copyId: copy.id,
    school: undefined,
    variant: {},
    startState,
    scramble: '',
    seed: undefined,
    laidBy: 'pieces',
  })
})
afterAll(() => discard())

const NAMES = ['R', "U'", 'F2', 'D', "L'", 'B']

/** One turn after another; every ninth thing takes one back. */
const happenings = (count: number): BenchEvent[] =>
  Array.from({ length: count }, (_, i) =>
    i % 9 === 8 ? { kind: 'undo', atMs: i } : { kind: 'turn', atMs: i, name: NAMES[i % 6] },
  )
const entriesOf = (events: readonly BenchEvent[]): Entry[] =>
  events.map((event) => ({ id: randomUUID(), event }))

async function append(events: readonly BenchEvent[], batch = 100): Promise<void> {
  const count = (await eventsOf(profileId, bench)).length
  for (let at = 0; at < events.length; at += batch)
    must(await appendEntries(profileId, bench, count + at, entriesOf(events.slice(at, at + batch))))
}

/** Stored as an earlier program has: no snapshots beside them. */
const put = (events: readonly BenchEvent[]) =>
  allRows.query(
    `insert into bench_events (session_id, seq, event)
     select $1, ordinality - 1, value from jsonb_array_elements($2::jsonb) with ordinality`,
    [bench, JSON.stringify(events)],
  )

const kept = async () =>
  (
    await allRows.query<{ events: number }>(
      'select events from bench_snapshots where session_id = $1 order by events',
      [bench],
    )
  ).rows.map(({ events }) => events)

const open = async (whole = false) => {
  const session = await findSession(profileId, bench)
  if (!session) throw new Error('no session')
  return must(await standingBench(profileId, copy, session, whole))
}

describe('a long bench', () => {
  it('is taken up from a snapshot as if everything were replayed, with enough to take back', async () => {
    const events = happenings(1730)
    await append(events)
    expect(await kept()).toEqual([500, 1000, 1500])
    const tail = await tailOf(bench, rowsOf(profileId))
    expect(tail.snapshot?.events).toBe(1000)
    expect(tail.entries).toHaveLength(730)
    const [short, whole] = [await open(), await open(true)]
    expect(short.tail).toEqual(tail)
    expect(writeState(short.bench.state)).toBe(writeState(whole.bench.state))
    expect(turnsMade(short.bench)).toBe(turnsMade(whole.bench))
    expect(whole.bench.before).toBe(0)
    expect(await eventsOf(profileId, bench)).toEqual(events)
  })

  it('of an earlier program is replayed once, and then is short too', async () => {
    await put(happenings(4003))
    expect((await tailOf(bench, rowsOf(profileId))).entries).toHaveLength(4003)
    const before = await open()
    expect(await kept()).toEqual([3503])
    const now = await open()
    expect(now.tail.entries).toHaveLength(500)
    expect(writeState(now.bench.state)).toBe(writeState(before.bench.state))
  })

  it('passes over a snapshot that another program has made', async () => {
    await append(happenings(1100))
    await allRows.query(`update bench_snapshots set program = 'earlier' where session_id = $1`, [
      bench,
    ])
    expect((await tailOf(bench, rowsOf(profileId))).entries).toHaveLength(1100)
  })

  it('can be taken back further than the snapshot reaches', async () => {
    // Kept nowhere but in the database: this process has not seen it.
    await put(happenings(1700))
    await open()
    const short = (await open()).bench
    const back = turnsMade(short) - short.before + 3
    await append(Array.from({ length: back }, (_, i) => ({ kind: 'undo', atMs: 5000 + i })))
    const all = replay(openBench(puzzle, start(puzzle)), await eventsOf(profileId, bench))
    expect(turnsMade(all)).toBe(short.before - 3)
    const now = await open()
    expect(writeState(now.bench.state)).toBe(writeState(all.state))
    expect(turnsMade(now.bench)).toBe(turnsMade(all))
    // Its snapshot is of no use any more: everything is replayed.
    expect(now.tail.snapshot).toBeUndefined()
  })

  it('stands on the shelf where it stands on the bench, worked out once', async () => {
    await append(happenings(37))
    const look = async () => must((await standings(profileId, await shelf(profileId)))[0]).state
    const stood = (await open()).bench
    expect(await look()).toBe(writeState(stood.state))
    const stored = async () =>
      (
        await allRows.query<{ standing: { standing: { state: string } } }>(
          'select standing from bench_sessions where id = $1',
          [bench],
        )
      ).rows[0].standing.standing.state
    expect(await stored()).toBe(await look())
    await append([{ kind: 'turn', atMs: 99, name: 'R' }])
    expect(await look()).not.toBe(writeState(stood.state))
    expect(await stored()).toBe(await look())
  })
})
