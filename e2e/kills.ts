/**
 * Ends the server, the worker, the database, the script and the whole program again and again at random moments of a solve, and
 * then counts: every turn that was made on the page must be stored once, in order, and the page must have
 * sent it without a reload. It works with the start script itself, on data and a port of its own.
 */
import { spawn, type ChildProcess } from 'node:child_process'
import { mkdirSync, openSync, readFileSync, rmSync } from 'node:fs'
import { resolve } from 'node:path'
import { expect, type Page } from '@playwright/test'
import { freePort } from '../scripts/merry/ports'
import { placeOfData } from '../scripts/merry/postgres'

export interface Kills {
  readonly servers: number
  readonly databases: number
  readonly restarts: number
  readonly workers: number
  readonly scripts: number
}

interface StoredEntry {
  readonly id: string
  readonly event: { readonly kind: string; readonly name?: string }
}

/** Keys of the bench that turn a layer of a 3x3x3, with the turns that they make. */
const KEYS: readonly (readonly [string, string])[] = [
  ...['R', 'L', 'U', 'D', 'F', 'B'].map((letter) => [letter.toLowerCase(), letter] as const),
  ...['R', 'U', 'F'].map((letter) => [`Shift+${letter.toLowerCase()}`, `${letter}'`] as const),
]

/** What has stayed up longer than this is not taken for something that cannot start. */
const STEADY_MS = 3500

export class Program {
  private script?: ChildProcess
  private readonly data = resolve('.data', `kills-${process.pid}`)
  private port = 0

  get address(): string {
    return `http://127.0.0.1:${this.port}`
  }

  async start(): Promise<void> {
    if (this.port === 0) {
      rmSync(this.data, { recursive: true, force: true })
      mkdirSync(this.data, { recursive: true })
      this.port = await freePort()
    }
    const log = openSync(resolve('.data', 'kills.log'), 'a')
    const env: NodeJS.ProcessEnv = {
      ...process.env,
      PORT: `${this.port}`,
      MERRY_DATA: this.data,
      MERRY_BUILT: '1',
    }
    delete env.DATABASE_URL
    this.script = spawn('node', ['--import', 'tsx', 'scripts/merry/main.ts', 'demo'], {
      env,
      stdio: ['ignore', log, log],
      detached: true,
    })
    for (let tries = 0; tries < 240; tries++) {
      const answer = await fetch(`${this.address}/shelf`).catch(() => undefined)
      // What a killed script has left behind may answer a moment longer.
      if (answer?.ok && this.isRunning()) return
      if (this.script.exitCode !== null) break
      await pause(250)
    }
    throw new Error('the program did not start; its words are in .data/kills.log')
  }

  /** Whether the script that was started last has started all the others. */
  private isRunning(): boolean {
    try {
      const { script, server, worker } = this.running()
      return script?.pid === this.script?.pid && server !== undefined && worker !== undefined
    } catch {
      return false
    }
  }

  killServer(): Promise<void> {
    return kill(() => -(this.running().server?.pid ?? 0))
  }

  killWorker(): Promise<void> {
    return kill(() => -(this.running().worker?.pid ?? 0))
  }

  /** The script alone: what it has started goes on, until the next start takes over. */
  async killScript(): Promise<void> {
    const { script } = this
    if (!script) return
    const ended = new Promise<void>((done) => script.on('exit', () => done()))
    script.kill('SIGKILL')
    await ended
    await this.start()
  }

  private running(): Partial<Record<'script' | 'server' | 'worker', { readonly pid: number }>> {
    return JSON.parse(readFileSync(`${this.data}/demo.running.json`, 'utf8')) as object
  }

  killDatabase(): Promise<void> {
    return kill(() =>
      Number(
        readFileSync(`${placeOfData('postgres', this.data)}/postmaster.pid`, 'utf8').split('\n')[0],
      ),
    )
  }

  /** What the database holds, as soon as it is back from the last kill. */
  async storedEntries(sessionId: string): Promise<readonly StoredEntry[]> {
    for (let tries = 0; tries < 120; tries++) {
      const answer = await fetch(`${this.address}/api/bench/${sessionId}?after=0`).catch(
        () => undefined,
      )
      if (answer?.ok)
        return ((await answer.json()) as { value: { entries: StoredEntry[] } }).value.entries
      await pause(500)
    }
    throw new Error('the database does not come back')
  }

  /** As Ctrl+C does. */
  async interrupt(): Promise<void> {
    const { script } = this
    if (!script || script.exitCode !== null) return
    const ended = new Promise<void>((done) => script.on('exit', () => done()))
    script.kill('SIGINT')
    await ended
  }

  async end(): Promise<void> {
    await this.interrupt()
    rmSync(placeOfData('postgres', this.data), { recursive: true, force: true })
    rmSync(this.data, { recursive: true, force: true })
  }
}

/** Kills what there is to kill: it may just be on its way back from being killed before. */
async function kill(pidNow: () => number): Promise<void> {
  for (let tries = 0; tries < 200; tries++) {
    try {
      const pid = pidNow()
      if (pid !== 0) return void process.kill(pid, 'SIGKILL')
    } catch (error) {
      if (!['ESRCH', 'ENOENT'].includes((error as NodeJS.ErrnoException).code ?? '')) throw error
    }
    await pause(100)
  }
  throw new Error('there was nothing to kill')
}

const pause = (ms: number) => new Promise((wait) => setTimeout(wait, ms))

/** Puts a copy of the demo on the bench, in free play, with a scramble. */
async function freePlay(page: Page, address: string): Promise<string> {
  await page.goto(`${address}/shelf`)
  await page
    .getByRole('listitem')
    .filter({ hasText: 'Chart-room cube' })
    .last()
    .getByRole('link', { name: 'Lay out' })
    .click()
  await page.getByLabel('Or your own turns').fill("R U2 F' L2 D B'")
  await page.getByLabel('School').selectOption({ label: 'None: free play' })
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  await expect(page.getByText('Free play', { exact: false }).first()).toBeVisible()
  await expect(page.locator('canvas[data-ready]')).toBeVisible()
  return /bench\/([0-9a-f-]+)/.exec(page.url())?.[1] ?? ''
}

/** @returns how many turns were made and stored */
export async function surviveKills(
  program: Program,
  page: Page,
  kills: Kills,
  random: () => number,
  say: (sentence: string) => void = () => undefined,
): Promise<number> {
  const sessionId = await freePlay(page, program.address)
  const made: string[] = []
  let isTurning = true
  const turning = (async () => {
    while (isTurning) {
      const [key, name] = KEYS[Math.floor(random() * KEYS.length)]
      await page.keyboard.press(key)
      made.push(name)
      await pause(20 + 180 * random())
    }
  })()
  const order = [
    ...Array<'server'>(kills.servers).fill('server'),
    ...Array<'database'>(kills.databases).fill('database'),
    ...Array<'restart'>(kills.restarts).fill('restart'),
    ...Array<'worker'>(kills.workers).fill('worker'),
    ...Array<'script'>(kills.scripts).fill('script'),
  ].sort(() => random() - 0.5)
  const kept = page.getByRole('status').filter({ hasText: /^saved$/ })
  try {
    for (const [i, kind] of order.entries()) {
      // Some follow each other at once; not so many that it looks as if it could not start at all.
      await pause(i % 3 === 2 ? STEADY_MS : 1500 * random())
      if (kind === 'server') await program.killServer()
      else if (kind === 'database') await program.killDatabase()
      else if (kind === 'worker') await program.killWorker()
      else if (kind === 'script') await program.killScript()
      else {
        await program.interrupt()
        await program.start()
      }
      await expect(kept).toBeVisible({ timeout: 60_000 })
      say(`${i + 1} of ${order.length}: ${kind}, ${made.length} turns so far`)
    }
  } finally {
    isTurning = false
    await turning
  }
  await expect(
    page.getByRole('group', { name: new RegExp(`^Turns: ${made.length} done`) }),
  ).toBeVisible()
  await expect(kept).toBeVisible({ timeout: 60_000 })
  const entries = await program.storedEntries(sessionId)
  expect(entries.map(({ event }) => event.name)).toEqual(made)
  expect(new Set(entries.map(({ id }) => id)).size).toBe(made.length)
  return made.length
}
