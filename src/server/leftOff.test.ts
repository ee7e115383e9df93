import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { puzzleById } from '../core/catalog'
import type { BenchEvent } from '../core/coach/bench'
import { must } from '../core/result'
import { start, writeState } from '../core/state'
import { appendEntries, eventsOf, findSession, openSession } from './benchSessions'
import type { Copy } from './copies'
import { benchEnd, benchesLeftOff, runningBench, takeUp } from './leftOff'
import { firstProfile } from './named'
import { makeSolver } from './profiles'
import { exampleCopy, freshDatabase } from './testDatabase'

let discard: () => Promise<void>
let profileId: string
let copy: Copy
const startState = writeState(start(must(puzzleById('cube-2'))))

beforeAll(async () => {
  discard = await freshDatabase('left_off')
  profileId = await firstProfile()
  copy = await exampleCopy(profileId, 'cube-2', 'Mooring cube')
})
afterAll(() => discard())

const open = (instead?: string) =>
  openSession(
    profileId,
    { copyId: copy.id, school: undefined, variant: {}, startState, scramble: '', laidBy: 'pieces' },
    instead,
  )
const opened = async (instead?: string) => {
  const made = await open(instead)
  if (!('bench' in made)) throw new Error('another bench runs')
  return made.bench
}
const happen = async (bench: string, after: number, ...events: BenchEvent[]) =>
  appendEntries(
    profileId,
    bench,
    after,
    events.map((event) => ({ id: randomUUID(), event })),
  )
const turn: BenchEvent = { kind: 'turn', atMs: 1, name: 'R' }
const undo: BenchEvent = { kind: 'undo', atMs: 2 }

describe('a bench on which something was turned', () => {
  it('is never ended unasked; left off it keeps its turns, and is taken up again', async () => {
    // One on which nothing was turned is in nobody's way.
    const empty = await opened()
    const first = await opened()
    expect((await findSession(profileId, empty))?.status).toBe('aside')
    must(await happen(first, 0, turn, turn, undo, turn))
    expect(await runningBench(profileId, copy.id)).toEqual({ id: first, turns: 2 })

    for (const instead of [undefined, empty, randomUUID()]) {
      expect(await open(instead)).toEqual({ running: { id: first, turns: 2 } })
      expect((await findSession(profileId, first))?.status).toBe('open')
    }
    const second = await opened(first)
    expect(await benchEnd(profileId, first)).toMatchObject({ status: 'aside', now: second })
    expect(await benchEnd(profileId, second)).toBeUndefined()
    // Only what has turns is worth a line in the log.
    expect(await benchesLeftOff(profileId, 9)).toMatchObject([
      { id: first, turns: 2, copyName: 'Mooring cube' },
    ])
    expect(await happen(first, 4, turn)).toMatchObject({ problem: { code: 'closed' } })

    must(await happen(second, 0, turn))
    expect(must(await takeUp(profileId, first))).toEqual({ running: { id: second, turns: 1 } })
    expect(must(await takeUp(profileId, first, second))).toEqual({ bench: first })
    expect(await eventsOf(profileId, first)).toHaveLength(4)
    must(await happen(first, 4, turn))
    expect(await benchesLeftOff(profileId, 9)).toMatchObject([{ id: second, turns: 1 }])
  })

  it('is left off once, however many pages ask at the same moment', async () => {
    const running = await runningBench(profileId, copy.id)
    const made = await Promise.all(Array.from({ length: 5 }, () => open(running?.id)))
    const benches = made.flatMap((each) => ('bench' in each ? [each.bench] : []))
    // Those after the first find an empty one, which is in nobody's way: one is open in the end.
    const states = await Promise.all(benches.map((id) => findSession(profileId, id)))
    expect(states.filter((each) => each?.status === 'open')).toHaveLength(1)
  })

  it('is nobody else’s to take up, or to see', async () => {
    const other = must(await makeSolver('Plover'))
    const [left] = await benchesLeftOff(profileId, 1)
    expect(await takeUp(other, left.id)).toMatchObject({ problem: { code: 'not-found' } })
    expect(await benchEnd(other, left.id)).toBeUndefined()
    expect(await benchesLeftOff(other, 9)).toEqual([])
  })
})
