import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { keepAll, type Kept } from './keepUp'
import { keptSecret } from './place'
import {
  claim,
  endGroup,
  endsWithin,
  isAlive,
  note,
  processOf,
  readRunning,
  unclaim,
} from './running'
import * as words from './say'

let folder: string
beforeEach(() => {
  folder = mkdtempSync(`${tmpdir()}/merry-`)
  vi.stubEnv('MERRY_DATA', folder)
  vi.spyOn(words, 'say').mockImplementation(() => undefined)
})
afterEach(() => {
  rmSync(folder, { recursive: true })
  vi.unstubAllEnvs()
  vi.restoreAllMocks()
  vi.useRealTimers()
})

const sleeper = () => {
  const child = spawn('sleep', ['60'], { detached: true, stdio: 'ignore' })
  const found = processOf(child.pid ?? 0)
  if (!found) throw new Error('nothing to end')
  return found
}

describe('what runs in a folder', () => {
  it('is known by its number and its beginning, so that a reused number is another process', async () => {
    const running = sleeper()
    expect(isAlive(running)).toBe(true)
    expect(isAlive({ ...running, began: '1' })).toBe(false)
    // Another process of that number is left alone.
    endGroup({ ...running, began: '1' })
    expect(isAlive(running)).toBe(true)
    endGroup(running)
    expect(await endsWithin(running, 5000)).toBe(true)
    expect(processOf(2 ** 30)).toBeUndefined()
  })

  it('keeps a second start away with a sentence, while it runs', () => {
    claim('demo', () => 'never said')
    note('demo', { port: 3600 })
    expect(() => claim('demo', ({ port }) => `at ${port} already`)).toThrow('at 3600 already')
    unclaim('demo')
    claim('demo', () => 'never said')
    expect(readRunning('demo')?.script.pid).toBe(process.pid)
  })

  it('that a killed script has left behind is ended by the next', async () => {
    const server = sleeper()
    const script = { pid: process.pid, began: 'long ago' }
    writeFileSync(`${folder}/demo.running.json`, JSON.stringify({ script, server }))
    claim('demo', () => 'never said')
    expect(await endsWithin(server, 5000)).toBe(true)
    for (const junk of ['', '{', '[]', '{"script":7}']) {
      writeFileSync(`${folder}/demo.running.json`, junk)
      claim('demo', () => 'never said')
    }
  })

  it('has secrets that stay, and that only their owner can read', () => {
    const secret = keptSecret('key', 32, 'hex')
    expect(secret).toMatch(/^[0-9a-f]{64}$/)
    expect(keptSecret('key', 32, 'hex')).toBe(secret)
    expect(statSync(`${folder}/key`).mode & 0o077).toBe(0)
    expect(keptSecret('other', 32, 'hex')).not.toBe(secret)
  })
})

describe('what is watched over', () => {
  const never = new Promise<void>(() => undefined)
  const lamp = (start: Kept['start'], ended: Kept['ended']): Kept => ({
    name: 'the lamp',
    start,
    ended,
  })

  it('is started again with growing pauses, and given up in a sentence', async () => {
    vi.useFakeTimers()
    const starts: number[] = []
    const start = () => Promise.resolve(void starts.push(Date.now()))
    const kept = keepAll([lamp(start, () => Promise.resolve())], never)
    await vi.runAllTimersAsync()
    expect(await kept).toMatch(/the lamp ended again and again/)
    const pauses = starts.slice(1).map((at, i) => at - starts[i])
    expect(pauses.length).toBeGreaterThan(3)
    expect(pauses).toEqual([...pauses].sort((a, b) => a - b))
  })

  it('begins with no pause once it has stayed up, and is not started while it shall end', async () => {
    vi.useFakeTimers()
    let end: () => void = () => undefined
    let starts = 0
    const start = () => Promise.resolve(void (++starts === 20 && end()))
    const stays = () => new Promise<void>((done) => setTimeout(done, 10_000))
    const kept = keepAll([lamp(start, stays)], new Promise((asked) => (end = asked)))
    await vi.runAllTimersAsync()
    expect(await kept).toBe('')
    expect(starts).toBe(20)
  })

  it('is not started again when another is given up and all is stopped', async () => {
    vi.useFakeTimers()
    const stop: (() => void)[] = []
    const others = { starts: 0 }
    const other: Kept = {
      name: 'the other',
      start: () => Promise.resolve(void others.starts++),
      ended: () => new Promise((done) => stop.push(done)),
    }
    const start = () => Promise.resolve()
    const trouble = await Promise.all([
      keepAll([lamp(start, () => Promise.resolve()), other], never),
      vi.runAllTimersAsync(),
    ])
    expect(trouble[0]).toMatch(/the lamp/)
    expect(stop).toHaveLength(1)
    stop[0]()
    await vi.runAllTimersAsync()
    expect(others.starts).toBe(0)
  })

  it('is tried again where the start itself fails', async () => {
    vi.useFakeTimers()
    let tries = 0
    const start = () => (++tries < 3 ? Promise.reject(new Error('no oil')) : Promise.resolve())
    const ended = () => (tries < 3 ? Promise.resolve() : never)
    void keepAll([lamp(start, ended)], never)
    await vi.advanceTimersByTimeAsync(10_000)
    expect(tries).toBe(3)
    expect(words.say).toHaveBeenCalledWith('the lamp did not start: no oil')
  })
})
