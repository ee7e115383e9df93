import fc from 'fast-check'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { BenchEvent } from '@/core/coach/bench'
import type { Entry } from '@/core/coach/rebase'
import { fail, ok, type Result } from '@/core/result'
import { entriesAfter, sendEntries, type Heard } from './benchServer'
import { Outbox, type Apart, type Saving } from './outbox'

vi.mock('./benchServer', () => ({ sendEntries: vi.fn(), entriesAfter: vi.fn() }))

/** What the server has, in order. */
let stored: Entry[] = []
let kept: Map<string, string>
const away = fail('away', 'No answer.')

const turn = (atMs: number): BenchEvent => ({ kind: 'turn', atMs, name: 'R' })
const entry = (n: number): Entry => ({
  id: `00000000-0000-4000-8000-${`${n}`.padStart(12, '0')}`,
  event: turn(n),
})

/** The rule of the server: known ids are no fault, and nothing is stored behind what the page does not know. */
function take(after: number, sent: readonly Entry[]): Result<Heard> {
  const own = new Set(sent.map(({ id }) => id))
  const later = stored.slice(after)
  const fresh = sent.filter(({ id }) => !stored.some((each) => each.id === id))
  if (fresh.length > 0 && later.some(({ id }) => !own.has(id)))
    return ok({ entries: later, stored: false })
  stored = [...stored, ...fresh]
  return ok({ entries: stored.slice(after), stored: true })
}

/** A page: an outbox, and the order of things as the page sees it. */
class Page {
  known: Entry[]
  readonly heard: Saving[] = []
  readonly apart: Apart[] = []
  readonly box: Outbox

  constructor() {
    this.known = [...stored]
    this.box = new Outbox('harbour', stored.length, {
      onSaving: (saving) => this.heard.push(saving),
      onStored: (entries, _, left) => {
        this.known.push(...entries)
        return left
      },
      onApart: (apart) => this.apart.push(apart),
    })
  }

  get state() {
    return this.heard.at(-1)
  }
}

let pages: Page[] = []
const open = () => {
  const page = new Page()
  pages.push(page)
  return page
}

/** Waits while the clock of the test runs on. */
async function settle({ box }: Page): Promise<boolean> {
  const settled = box.settled()
  await vi.advanceTimersByTimeAsync(60_000)
  return settled
}

const storage = (over: Partial<Storage> = {}) => ({
  get length() {
    return kept.size
  },
  key: (i: number) => [...kept.keys()][i] ?? null,
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, value: string) => void kept.set(key, value),
  removeItem: (key: string) => void kept.delete(key),
  ...over,
})

const answers = () => {
  vi.mocked(sendEntries).mockImplementation((_, after, sent) => Promise.resolve(take(after, sent)))
  vi.mocked(entriesAfter).mockImplementation((_, after) =>
    Promise.resolve(ok({ entries: stored.slice(after) })),
  )
}

beforeEach(() => {
  stored = []
  kept = new Map()
  pages = []
  vi.useFakeTimers()
  vi.stubGlobal('localStorage', storage())
  vi.stubGlobal('BroadcastChannel', undefined)
  vi.mocked(sendEntries).mockReset()
  vi.mocked(entriesAfter).mockReset()
  answers()
})

afterEach(() => {
  pages.forEach(({ box }) => box.close())
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('the outbox of the bench', () => {
  it('sends every event once and in order, however they come and however the line fails', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.boolean(), { minLength: 1, maxLength: 12 }),
        // before: it is not stored; after: it is stored and the answer is lost.
        fc.array(fc.constantFrom('no', 'before', 'after'), { maxLength: 8 }),
        async (pauses, failures) => {
          stored = []
          kept.clear()
          const troubles = [...failures]
          vi.mocked(sendEntries).mockImplementation((_, after, sent) => {
            const trouble = troubles.pop()
            if (trouble === 'before') return Promise.resolve(away)
            const answer = take(after, sent)
            return Promise.resolve(trouble === 'after' ? away : answer)
          })
          const page = open()
          for (const [at, pause] of pauses.entries()) {
            page.box.add(turn(at))
            if (pause) await vi.advanceTimersByTimeAsync(900)
          }
          expect(await settle(page)).toBe(true)
          expect(stored.map(({ event }) => event)).toEqual(pauses.map((_, at) => turn(at)))
          expect(page.known).toEqual(stored)
          expect(kept.size).toBe(0)
          page.box.close()
        },
      ),
      { numRuns: 60 },
    )
  })

  it('of several pages on one bench ends with one order on all, nothing lost and nothing doubled', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.nat(2), fc.nat(4000)), { minLength: 1, maxLength: 20 }),
        fc.array(fc.boolean(), { maxLength: 10 }),
        async (turns, failures) => {
          stored = []
          kept.clear()
          const troubles = [...failures]
          vi.mocked(sendEntries).mockImplementation((_, after, sent) => {
            const answer = take(after, sent)
            return Promise.resolve(troubles.pop() ? away : answer)
          })
          const three = [open(), open(), open()]
          for (const [i, [page, pause]] of turns.entries()) {
            three[page].box.add(turn(i))
            await vi.advanceTimersByTimeAsync(pause)
          }
          for (const page of three) expect(await settle(page)).toBe(true)
          await vi.advanceTimersByTimeAsync(10_000)
          const made = stored.map(({ event }) => event.atMs)
          expect([...made].sort((a, b) => a - b)).toEqual(turns.map((_, i) => i))
          for (const page of three) {
            expect(page.known).toEqual(stored)
            page.box.close()
          }
          // What one page has done stands in the order in which it did it.
          for (const p of [0, 1, 2]) {
            const own = made.filter((i) => turns[i][0] === p)
            expect(own).toEqual([...own].sort((a, b) => a - b))
          }
        },
      ),
      { numRuns: 40 },
    )
  })

  it('keeps what the server does not have, and a later page sends it', async () => {
    vi.mocked(sendEntries).mockResolvedValue(away)
    const first = open()
    first.box.take([entry(1), entry(2)])
    await vi.advanceTimersByTimeAsync(10)
    expect(first.state).toMatchObject({ state: 'waiting', unsent: 2, isKeptHere: true })
    first.box.close()
    answers()
    const second = open()
    expect(second.box.recover(new Set())).toEqual([{ after: 0, entries: [entry(1), entry(2)] }])
    second.box.takeOver([entry(1), entry(2)])
    expect(await settle(second)).toBe(true)
    expect(stored).toEqual([entry(1), entry(2)])
    expect(kept.size).toBe(0)
  })

  it('does not take up what has reached the server after all, nor what it did not write', () => {
    const ours = { after: 0, entries: [entry(1), entry(2)] }
    kept.set('merry-bench-harbour-a', JSON.stringify(ours))
    kept.set('merry-bench-harbour-b', 'not ours')
    kept.set('merry-bench-harbour-c', '{"after":0,"entries":[{"id":7},null,{"event":{}}]}')
    kept.set('merry-bench-harbour-d', JSON.stringify({ after: 0, entries: [entry(1)] }))
    kept.set('merry-bench-elsewhere-e', JSON.stringify({ after: 0, entries: [entry(9)] }))
    stored = [entry(1)]
    const { box } = open()
    expect(box.recover(new Set([entry(1).id]))).toEqual([ours])
    // What holds no more is given up with the rest: the page has told it.
    box.takeOver([])
    expect([...kept.keys()]).toEqual(['merry-bench-elsewhere-e'])
  })

  it('leaves what earlier pages have kept where it is, if the browser keeps nothing new', async () => {
    kept.set('merry-bench-harbour-a', JSON.stringify({ after: 0, entries: [entry(1)] }))
    vi.stubGlobal(
      'localStorage',
      storage({
        setItem: () => {
          throw new DOMException('full', 'QuotaExceededError')
        },
      }),
    )
    const page = open()
    page.box.takeOver([entry(1)])
    expect(kept.has('merry-bench-harbour-a')).toBe(true)
    expect(await settle(page)).toBe(true)
    expect(stored).toEqual([entry(1)])
  })

  it('waits longer from try to try while there is no answer', async () => {
    const tries: number[] = []
    vi.mocked(sendEntries).mockImplementation(() => {
      tries.push(Date.now())
      return Promise.resolve(away)
    })
    const page = open()
    page.box.add(turn(1))
    // Who waits for it does not make it try more often.
    void page.box.settled()
    await vi.advanceTimersByTimeAsync(30_000)
    const pauses = tries.slice(1).map((at, i) => at - tries[i])
    expect(pauses.slice(0, 4)).toEqual([700, 1500, 3000, 6000])
    expect(tries.length).toBeLessThan(10)
  })

  it.each([
    [
      'full',
      () =>
        storage({
          setItem: () => {
            throw new DOMException('full', 'QuotaExceededError')
          },
        }),
    ],
    ['blocked', undefined],
  ])('sends all the same where the browser keeps nothing: %s', async (_, make) => {
    vi.unstubAllGlobals()
    if (make) vi.stubGlobal('localStorage', make())
    else
      Object.defineProperty(globalThis, 'localStorage', {
        configurable: true,
        get: () => {
          throw new DOMException('blocked', 'SecurityError')
        },
      })
    vi.mocked(sendEntries).mockResolvedValueOnce(away)
    const page = open()
    expect(page.box.recover(new Set())).toEqual([])
    page.box.add(turn(1))
    await vi.advanceTimersByTimeAsync(10)
    expect(page.state).toMatchObject({ state: 'waiting', isKeptHere: false })
    expect(await settle(page)).toBe(true)
    expect(stored).toHaveLength(1)
    expect(page.state?.state).toBe('saved')
    Reflect.deleteProperty(globalThis, 'localStorage')
  })

  it('sets apart what the server refuses, and goes on: at once, and on every page that is opened later', async () => {
    const sentence = 'entries[0].event.atMs must be less.'
    const tooLate = fail('bad-input', sentence)
    vi.mocked(sendEntries).mockImplementation((_, after, sent) =>
      Promise.resolve(sent.some(({ event }) => event.atMs > 100) ? tooLate : take(after, sent)),
    )
    const page = open()
    page.box.add(turn(1))
    await settle(page)
    page.box.add(turn(500))
    page.box.add(turn(2))
    expect(await settle(page)).toBe(false)
    expect(page.apart.map((each) => each.sentence)).toEqual([sentence])
    expect(page.apart[0].entries.map(({ event }) => event.atMs)).toEqual([500, 2])
    page.box.add(turn(3))
    expect(await settle(page)).toBe(true)
    expect(stored.map(({ event }) => event.atMs)).toEqual([1, 3])
    // A page opened later has nothing to send, and knows what lies apart until it is let go.
    page.box.close()
    const later = open()
    expect(later.box.recover(new Set())).toEqual([])
    const [apart, ...more] = later.box.apart()
    expect([apart.sentence, apart.entries.length, more]).toEqual([sentence, 2, []])
    later.box.letGo(apart)
    expect([later.box.apart(), kept.size]).toEqual([[], 0])
  })

  it('keeps what is made on a bench that is unknown to whoever is chosen now, until they are the right one', async () => {
    const gone = fail('not-found', 'This bench is not there any more.')
    vi.mocked(sendEntries).mockResolvedValueOnce(gone).mockResolvedValueOnce(gone)
    const page = open()
    page.box.add(turn(1))
    await vi.advanceTimersByTimeAsync(10)
    expect(page.state).toMatchObject({ state: 'waiting', unsent: 1, isKeptHere: true })
    expect(page.state?.sentence).toMatch(/not there any more/)
    expect(await settle(page)).toBe(true)
    expect([stored.length, page.apart.length]).toEqual([1, 0])
    expect(page.state?.sentence).toBeUndefined()
  })

  it('sends nothing more once the bench is closed', async () => {
    vi.mocked(sendEntries).mockResolvedValue(fail('closed', 'This bench is not open any more.'))
    const page = open()
    page.box.add(turn(1))
    expect(await settle(page)).toBe(false)
    expect(page.apart).toHaveLength(1)
    page.box.end()
    page.box.add(turn(2))
    await vi.advanceTimersByTimeAsync(10_000)
    expect(page.state?.state).toBe('closed')
    expect(sendEntries).toHaveBeenCalledTimes(1)
  })

  it('sends no more at once than the server reads in no time', async () => {
    const long = (n: number): BenchEvent => ({ kind: 'turn', atMs: n, name: 'R'.repeat(90_000) })
    const lengths: number[] = []
    vi.mocked(sendEntries).mockImplementation((_, after, sent) => {
      lengths.push(JSON.stringify(sent).length)
      return Promise.resolve(take(after, sent))
    })
    vi.mocked(sendEntries).mockResolvedValueOnce(away)
    const page = open()
    for (let n = 0; n < 20; n++) page.box.add(long(n))
    expect(await settle(page)).toBe(true)
    expect(stored.map(({ event }) => event.atMs)).toEqual(Array.from({ length: 20 }, (_, n) => n))
    expect(lengths.length).toBeGreaterThan(4)
    expect(Math.max(...lengths)).toBeLessThan(500_000)
  })
})
