/**
 * Many solvers at once: each opens a bench, then thinks and turns, thinks and turns, and looks at another screen
 * now and then. The one who asks runs beside the one who answers, on the same cores.
 */
import { randomUUID } from 'node:crypto'
import { readdirSync, readFileSync } from 'node:fs'
import { Agent, request } from 'node:http'
import { monitorEventLoopDelay } from 'node:perf_hooks'
import { cloneSolver } from '../src/server/demo/clone'
import { SOLVER_COOKIE } from '../src/server/headers'
import { pool } from '../src/server/pool'

const THINK_MS = 2000
/** Solvers come one after another in this time. */
const ARRIVAL_MS = 10_000
/** One thing in so many is another screen instead of a turn. */
const SCREEN_EVERY = 20
const TURNS = ['R', 'U', "R'", "U'"]

interface Seen {
  readonly event: number[]
  readonly page: number[]
  readonly errors: string[]
}

interface Solver {
  readonly id: string
  readonly bench: string
}

const agent = new Agent({ keepAlive: true, maxSockets: 1000 })

export async function measureLoad(address: string, serverGroup: number): Promise<void> {
  await pool().query(`delete from profiles where nickname like 'Load %'`)
  // What is done for the first time takes longer, and is not what is asked here.
  await crowd(address, await newSolvers(10), 8)
  // The last twice: what is held afterwards shows whether memory grows.
  for (const [count, seconds] of [
    [50, 30],
    [200, 30],
    [200, 30],
  ]) {
    const solvers = await newSolvers(count)
    const before = residentMb(serverGroup)
    const delay = ownDelay()
    const { event, page, errors } = await crowd(address, solvers, seconds)
    const late = delay()
    const after = residentMb(serverGroup)
    const all = event.length + page.length
    console.log(
      `${count} solvers, ${seconds} s: ${(all / seconds).toFixed(0)} requests a second; ` +
        `an event ${spread(event)}; a page ${spread(page)}; ${errors.length} errors; ` +
        `memory ${before} MB before, ${after} MB after; ` +
        `who asks was itself late by ${late} ms (99th)`,
    )
    for (const error of new Set(errors)) console.log(`  ${error}`)
  }
}

async function newSolvers(count: number): Promise<Solver[]> {
  const demo = await pool().query<{ id: string }>(
    'select id from profiles order by created_at, id limit 1',
  )
  const made: Solver[] = []
  for (let i = 0; i < count; i++) {
    const id = await cloneSolver(pool(), demo.rows[0].id, `Load ${randomUUID().slice(0, 8)}`)
    const bench = await pool().query<{ id: string }>(
      `select s.id from bench_sessions s join copies c on c.id = s.copy_id
       where s.profile_id = $1 and s.status = 'open' and c.puzzle_id = 'cube-2'`,
      [id],
    )
    made.push({ id, bench: bench.rows[0].id })
  }
  return made
}

/** How long this process itself was held up: what it measures is late by that. */
function ownDelay(): () => number {
  const delay = monitorEventLoopDelay({ resolution: 10 })
  delay.enable()
  return () => {
    delay.disable()
    return Math.round(delay.percentile(99) / 1e6)
  }
}

async function crowd(address: string, solvers: readonly Solver[], seconds: number): Promise<Seen> {
  const seen: Seen = { event: [], page: [], errors: [] }
  const end = performance.now() + 1000 * seconds
  await Promise.all(
    solvers.map(async (solver, i) => {
      await pause((ARRIVAL_MS * i) / solvers.length)
      await ask(address, solver, `/bench/${solver.bench}`, seen.page, seen)
      let after = 0
      for (let turn = 0; performance.now() < end; turn++) {
        // About two seconds, as people do.
        await pause(THINK_MS * (0.5 + ((i * 7919 + turn * 104_729) % 1000) / 1000))
        if ((i + turn) % SCREEN_EVERY === 0) {
          const screen = ['/shelf', '/log', `/bench/${solver.bench}`][(i + turn) % 3]
          await ask(address, solver, screen, seen.page, seen)
          continue
        }
        const event = { kind: 'turn', atMs: 2000 * turn, name: TURNS[turn % TURNS.length] }
        const entries = [{ id: randomUUID(), event }]
        const path = `/api/bench/${solver.bench}`
        const answer = await ask(address, solver, path, seen.event, seen, { after, entries })
        if (answer.includes('"stored":true')) after++
        else seen.errors.push(`not stored: ${answer.slice(0, 200)}`)
      }
    }),
  )
  return seen
}

function ask(
  address: string,
  { id }: Solver,
  path: string,
  into: number[],
  { errors }: Seen,
  body?: unknown,
): Promise<string> {
  const began = performance.now()
  return new Promise((resolve) => {
    const failed = (why: string) => {
      errors.push(`${path.split('/').slice(0, 3).join('/')}: ${why}`)
      resolve('')
    }
    const asked = request(
      address + path,
      {
        agent,
        method: body ? 'POST' : 'GET',
        headers: {
          cookie: `${SOLVER_COOKIE}=${id}`,
          ...(body ? { 'content-type': 'application/json' } : {}),
        },
      },
      (response) => {
        const parts: Buffer[] = []
        response.on('data', (part: Buffer) => parts.push(part))
        response.on('end', () => {
          into.push(performance.now() - began)
          if (response.statusCode !== 200) return failed(`${response.statusCode}`)
          resolve(Buffer.concat(parts).toString('utf8'))
        })
      },
    )
    asked.on('error', (error) => failed(error.message))
    asked.end(body ? JSON.stringify(body) : undefined)
  })
}

function spread(times: readonly number[]): string {
  const sorted = [...times].sort((a, b) => a - b)
  const at = (share: number) =>
    Math.round(sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))])
  return `median ${at(0.5)} ms, 99th ${at(0.99)} ms, most ${at(1)} ms (${sorted.length})`
}

const pause = (ms: number) => new Promise((go) => setTimeout(go, ms))

/** What the processes of a group hold in memory. */
function residentMb(group: number): number {
  let pages = 0
  for (const name of readdirSync('/proc')) {
    if (!/^\d+$/.test(name)) continue
    try {
      // After the name in brackets: state, parent, group.
      const stat = readFileSync(`/proc/${name}/stat`, 'utf8')
        .replace(/^.*\) /s, '')
        .split(' ')
      if (Number(stat[2]) !== group) continue
      pages += Number(readFileSync(`/proc/${name}/statm`, 'utf8').split(' ')[1])
    } catch {
      // It has ended meanwhile.
    }
  }
  return Math.round((pages * 4096) / 1e6)
}
