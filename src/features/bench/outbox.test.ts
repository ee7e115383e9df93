import fc from 'fast-check'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { BenchEvent } from '@/core/coach/bench'
import { fail, ok } from '@/core/result'
import { recordEvents } from './actions'
import { Outbox, type Saving } from './outbox'

vi.mock('./actions', () => ({ recordEvents: vi.fn() }))

const send = vi.mocked(recordEvents)
const kept = new Map<string, string>()
/** What the server has, in order. */
let stored: BenchEvent[] = []
const heard: Saving[] = []

const turn = (atMs: number): BenchEvent => ({ kind: 'turn', atMs, name: 'R' })
const open = (position = stored.length) =>
  new Outbox('harbour', position, (saving) => heard.push(saving))

/** Waits while the clock of the test runs on. */
async function settle(box: Outbox): Promise<boolean> {
  const settled = box.settled()
  await vi.advanceTimersByTimeAsync(60_000)
  return settled
}

function serverTakes(input: unknown) {
  const { from, events } = input as { from: number; events: BenchEvent[] }
  expect(from).toBeLessThanOrEqual(stored.length)
  stored = [...stored.slice(0, from), ...events]
  return ok(stored.length)
}

beforeEach(() => {
  stored = []
  heard.length = 0
  kept.clear()
  vi.useFakeTimers()
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => kept.set(key, value),
    removeItem: (key: string) => kept.delete(key),
  })
  send.mockReset()
  send.mockImplementation((_, input) => Promise.resolve(serverTakes(input)))
})

afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('the outbox of the bench', () => {
  it('sends every event once and in order, however they come and however often the line fails', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.boolean(), { minLength: 1, maxLength: 12 }),
        fc.array(fc.boolean(), { maxLength: 6 }),
        async (pauses, failures) => {
          stored = []
          kept.clear()
          const troubles = [...failures]
          send.mockImplementation((_, input) =>
            troubles.pop()
              ? Promise.reject(new Error('no line'))
              : Promise.resolve(serverTakes(input)),
          )
          const box = open()
          for (const [at, pause] of pauses.entries()) {
            box.add(turn(at))
            if (pause) await vi.advanceTimersByTimeAsync(2500)
          }
          expect(await settle(box)).toBe(true)
          expect(stored).toEqual(pauses.map((_, at) => turn(at)))
          expect(kept.size).toBe(0)
          box.close()
        },
      ),
      { numRuns: 60 },
    )
  })

  it('keeps what the server does not have, and a later page sends it', async () => {
    send.mockRejectedValue(new Error('no line'))
    const first = open(0)
    first.add(turn(1))
    first.add(turn(2))
    await vi.advanceTimersByTimeAsync(10)
    expect(heard.at(-1)).toBe('waiting')
    first.close()
    send.mockImplementation((_, input) => Promise.resolve(serverTakes(input)))
    const second = open(0)
    expect(second.recover()).toEqual([turn(1), turn(2)])
    expect(await settle(second)).toBe(true)
    expect(stored).toEqual([turn(1), turn(2)])
  })

  it('does not send again what reached the server after all', () => {
    kept.set('merry-bench-harbour', JSON.stringify({ position: 0, events: [turn(1), turn(2)] }))
    stored = [turn(1)]
    expect(open(1).recover()).toEqual([turn(2)])
  })

  it('leaves out what does not join on, and what it did not write', () => {
    kept.set('merry-bench-harbour', JSON.stringify({ position: 5, events: [turn(1)] }))
    expect(open(0).recover()).toEqual([])
    kept.set('merry-bench-harbour', 'not ours')
    expect(open(0).recover()).toEqual([])
    expect(kept.size).toBe(0)
  })

  it('says so when the server refuses, and stops', async () => {
    send.mockResolvedValue(fail('closed', 'This bench is not open any more.'))
    const box = open()
    box.add(turn(1))
    expect(await settle(box)).toBe(false)
    box.add(turn(2))
    await vi.advanceTimersByTimeAsync(10_000)
    expect(heard.at(-1)).toBe('refused')
    expect(send).toHaveBeenCalledTimes(1)
  })
})
