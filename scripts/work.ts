/**
 * `./merry work`: takes a share of the heavy work of a program that runs, here or on another machine. With `--files` it
 * reads files alone.
 */
import { fork } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { setPriority } from 'node:os'
import type { Result } from '../src/core/result'
import { keepRequestsApart } from '../src/server/asking'
import { type HeavyAsked } from '../src/server/doJob'
import { INTERRUPTED } from '../src/server/jobs'
import { closePool } from '../src/server/pool'
import { leaveQueue } from '../src/server/queue'
import { startWork } from '../src/server/work'
import type { HeavyTold } from './heavy'

/** How often a piece that says nothing by itself is known to go on. */
const ALIVE_MS = 1000

/**
 * Pages come first. Where the system shares its time between groups of processes, and within them only then, what one
 * process asks for counts within its group alone: so the group asks too.
 */
function yieldToPages(): void {
  const LATER = 10
  setPriority(LATER)
  try {
    writeFileSync('/proc/self/autogroup', `${LATER}`)
  } catch {
    // It has no such groups.
  }
}

/** In a process of its own, which is ended when the piece is not wanted any more. */
async function heavily(
  asked: HeavyAsked,
  say: (share: number) => Promise<void>,
): Promise<Result<unknown>> {
  const child = fork(new URL('./heavy.ts', import.meta.url), { execArgv: ['--import', 'tsx'] })
  // It computes without a pause, and would not hear that nobody waits for it.
  const end = () => void child.kill('SIGKILL')
  process.once('exit', end)
  let share = 0
  let timer: NodeJS.Timeout | undefined
  try {
    return await new Promise<Result<unknown>>((resolve, reject) => {
      child.on('error', reject)
      child.on('exit', (_, signal) =>
        signal ? resolve(INTERRUPTED) : reject(new Error('it ended without a result')),
      )
      child.on('message', (told: HeavyTold) => {
        if ('share' in told) share = told.share
        else resolve(told.result)
      })
      child.send(asked)
      timer = setInterval(() => void say(share).catch(reject), ALIVE_MS)
    })
  } finally {
    clearInterval(timer)
    child.removeAllListeners('exit')
    process.removeListener('exit', end)
    end()
  }
}

yieldToPages()
keepRequestsApart()
await startWork(process.argv.includes('--files') ? undefined : heavily)
console.error('merry: taking work from the queue (Ctrl+C stops it)')

async function leave(): Promise<void> {
  await leaveQueue()
  await closePool()
  process.exit(0)
}
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => void leave())
// Started beside a server, it goes when that has gone.
const parent = process.ppid
setInterval(() => process.ppid !== parent && void leave(), 2000).unref()
