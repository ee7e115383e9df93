/**
 * Many solvers at once, as people do it: each leads one of eight puzzles home by the turns of its card, thinks, turns,
 * slips now and then and gets a new plan, looks at other screens with their pictures; every open page asks what others
 * have done. The one who asks runs beside the one who answers, on the same cores, and so does the heavy work.
 */
import { randomUUID } from 'node:crypto'
import { readdirSync, readFileSync } from 'node:fs'
import { Agent, request, type IncomingHttpHeaders } from 'node:http'
import { monitorEventLoopDelay } from 'node:perf_hooks'
import { puzzleById } from '../src/core/catalog'
import { plan } from '../src/core/coach/plan'
import { turnsOfRoute, type Route } from '../src/core/coach/route'
import type { Puzzle } from '../src/core/puzzle/compile'
import { seededRandom } from '../src/core/random'
import { must } from '../src/core/result'
import { schoolNamed, schoolsFor } from '../src/core/schools'
import { scramble } from '../src/core/scramble/scramble'
import { blockOf, start, turnAll, turnFreely, writeState, type State } from '../src/core/state'
import { cloneSolver } from '../src/server/demo/clone'
import { SOLVER_COOKIE } from '../src/server/headers'
import { allRows, isAway } from '../src/server/pool'
import { beginSurvey } from '../src/server/surveys'

const PUZZLES = [
  'cube-2',
  'cube-3',
  'cube-4',
  'tilt-3',
  'prism-6',
  'box-3x3x5',
  'shift-3x3x5',
  'tetra-3',
] as const
/** Scrambles of each, so that not everyone does the same. */
const SEEDS = 3
const THINK_MS = 2000
/** As a page asks what others have done (src/features/bench/outbox.ts). */
const FOLLOW_MS = 2500
/** Solvers come one after another in this time. */
const ARRIVAL_MS = 60_000
/** One thing in so many is another screen instead of a turn. */
const SCREEN_EVERY = 20
/** Pictures of a shelf that is seen for the first time. */
const PICTURES = 12

interface Job {
  readonly puzzle: string
  readonly school: string
  readonly startState: string
  /** What is sent, one after another. */
  readonly events: readonly object[]
}

interface Seen {
  readonly event: number[]
  readonly page: number[]
  readonly picture: number[]
  readonly poll: number[]
  readonly errors: string[]
  /** Answers that said it was too much. */
  busy: number
}

const nothingSeen = (): Seen => ({
  ...{ event: [], page: [], picture: [], poll: [], errors: [] },
  busy: 0,
})

interface Solver {
  readonly id: string
  readonly copies: Readonly<Record<string, string>>
  readonly first: number
}

const agent = new Agent({ keepAlive: true, maxSockets: 3000 })

/** The plan from a scramble, a slip in its middle, and the new plan from there: all of it made beforehand. */
function jobOf(id: string, seed: number): Job {
  const puzzle = must(puzzleById(id))
  const [{ id: school }] = schoolsFor(id)
  const planFrom = (state: State): Route => must(plan(puzzle, must(schoolNamed(id, school)), state))
  const from = must(turnAll(puzzle, start(puzzle), scramble(puzzle, seed).turns))
  const first = planFrom(from)
  const turns = turnsOfRoute(first).map(({ name }) => name)
  const slipAt = Math.floor(turns.length / 3)
  const upTo = turns.slice(0, slipAt)
  const there = after(puzzle, from, upTo)
  const slip = puzzle.turns.find(
    (turn) => !turn.whole && turn.name !== turns[slipAt] && !blockOf(puzzle, there, turn),
  )
  if (!slip) throw new Error(`${id} cannot be turned in the middle of a plan`)
  const second = planFrom(after(puzzle, there, [slip.name]))
  const names = [...upTo, slip.name].map((name) => ({ kind: 'turn', name }))
  const rest = turnsOfRoute(second).map(({ name }) => ({ kind: 'turn', name }))
  const events = [
    { kind: 'route', route: first },
    ...names,
    { kind: 'route', route: second },
    ...rest,
  ]
  return { puzzle: id, school, startState: writeState(from), events }
}

const after = (puzzle: Puzzle, from: State, names: readonly string[]): State =>
  names.reduce((state, name) => {
    const turn = puzzle.turnByName.get(name)
    return turn ? turnFreely(puzzle, state, turn, new Uint8Array(state.length)) : state
  }, from)

export interface Load {
  readonly solvers: number
  readonly seconds: number
}

/** @param title what is measured, for the first line */
export async function measureLoad(
  title: string,
  address: string,
  serverGroup: number,
  { solvers: count, seconds }: Load,
): Promise<void> {
  await allRows.query(`delete from profiles where nickname like 'Load %'`)
  const jobs = PUZZLES.flatMap((id) =>
    Array.from({ length: SEEDS }, (_, seed) => jobOf(id, seed + 1)),
  )
  console.log(
    `${title}: ${PUZZLES.length} puzzles, ${jobs.length} solves of ${Math.round(mean(jobs.map(({ events }) => events.length)))} events with two plans each`,
  )
  // What is done for the first time takes longer, and is not what is asked here.
  await crowd(address, await newSolvers(16), jobs, { seconds: 20, thinkMs: 300 })
  await keepWorkerBusy()
  const solvers = await newSolvers(count)
  const before = residentMb(serverGroup)
  const delay = ownDelay()
  const began = processorTimes(serverGroup)
  const seen = await crowd(address, solvers, jobs, { seconds, thinkMs: THINK_MS })
  const late = delay()
  const used = processorTimes(serverGroup)
  const share = (part: keyof typeof used) =>
    `${part} ${Math.round((100 * (used[part] - began[part])) / seconds)} %`
  tell(`${count} solvers, ${seconds} s`, seen, seconds)
  console.log(
    `  memory ${before} MB before, ${residentMb(serverGroup)} MB after; who asks was itself late by ${late} ms (99th); ` +
      `of a processor: ${share('answering')}, ${share('database')}, ${share('asking')}`,
  )
  await overload(address, jobs)
}

/** Far more than it can carry: who cannot be served is told so, and soon afterwards all is well. */
async function overload(address: string, jobs: readonly Job[]): Promise<void> {
  const seconds = 20
  const seen = await crowd(address, await newSolvers(600), jobs, {
    seconds,
    thinkMs: 100,
    arrivalMs: 2000,
  })
  tell('600 solvers who hardly think', seen, seconds)
  const ended = performance.now()
  for (;;) {
    const calm = await crowd(address, await newSolvers(4), jobs, {
      seconds: 1,
      thinkMs: 200,
      arrivalMs: 100,
    })
    if (calm.busy === 0 && calm.errors.length === 0 && at(calm.event, 0.99) < 300) break
    if (performance.now() - ended > 60_000) throw new Error('it does not recover')
  }
  console.log(
    `  as quick as before ${((performance.now() - ended) / 1000).toFixed(1)} s after it was over`,
  )
}

function tell(what: string, { event, page, picture, poll, errors, busy }: Seen, seconds: number) {
  const all = event.length + page.length + picture.length + poll.length
  console.log(
    `${what}: ${(all / seconds).toFixed(0)} requests a second; an event ${spread(event)}; a page ${spread(page)}; ` +
      `a picture ${spread(picture)}; asking ${spread(poll)}; ${busy} told that it is too much; ${errors.length} errors`,
  )
  const kinds = new Map<string, number>()
  for (const error of errors) kinds.set(error, (kinds.get(error) ?? 0) + 1)
  for (const [error, times] of [...kinds].slice(0, 10)) console.log(`  ${times} times: ${error}`)
}

/** Copies of the demo, each with a copy of every puzzle. */
async function newSolvers(count: number): Promise<Solver[]> {
  const demo = await allRows.query<{ id: string }>(
    'select id from profiles order by created_at, id limit 1',
  )
  const made: Solver[] = []
  for (let i = 0; i < count; i++) {
    const id = await cloneSolver(allRows, demo.rows[0].id, `Load ${randomUUID().slice(0, 8)}`)
    const copies = await allRows.query<{ id: string; puzzle_id: string }>(
      'select id, puzzle_id from copies where profile_id = $1',
      [id],
    )
    const known = Object.fromEntries(copies.rows.map((row) => [row.puzzle_id, row.id]))
    for (const puzzleId of PUZZLES.filter((each) => !known[each])) {
      const { rows } = await allRows.query<{ id: string }>(
        `insert into copies (profile_id, puzzle_id, name, scheme, remarks)
         values ($1, $2, 'Load', $3, '') returning id`,
        [id, puzzleId, JSON.stringify(must(puzzleById(puzzleId)).definition.colours)],
      )
      known[puzzleId] = rows[0].id
    }
    made.push({ id, copies: known, first: i })
  }
  return made
}

/** Surveys of schools, which take minutes. */
async function keepWorkerBusy(): Promise<void> {
  const { rows } = await allRows.query<{ id: string }>(
    'select id from profiles order by created_at, id limit 1',
  )
  for (const id of ['cube-3', 'tilt-3', 'prism-6'])
    await beginSurvey(rows[0].id, id, schoolsFor(id)[0].id)
}

async function newBench(solver: Solver, job: Job): Promise<string> {
  for (;;)
    try {
      const { rows } = await allRows.query<{ id: string }>(
        `insert into bench_sessions (profile_id, copy_id, school, variant, start_state, laid_by)
         values ($1, $2, $3, '{}', $4, 'pieces') returning id`,
        [solver.id, solver.copies[job.puzzle], job.school, job.startState],
      )
      return rows[0].id
    } catch (error) {
      // Who measures needs the database too, and waits for it as long as it takes.
      if (!isAway(error)) throw error
    }
}

interface Crowd {
  readonly seconds: number
  readonly thinkMs: number
  readonly arrivalMs?: number
}

async function crowd(
  address: string,
  solvers: readonly Solver[],
  jobs: readonly Job[],
  { seconds, thinkMs, arrivalMs = Math.min(ARRIVAL_MS, 300 * solvers.length) }: Crowd,
): Promise<Seen> {
  const seen = nothingSeen()
  const end = performance.now() + 1000 * seconds
  await Promise.all(
    solvers.map(async (solver, i) => {
      await pause((arrivalMs * i) / solvers.length)
      await ask(address, solver, '/shelf', seen.page, seen)
      const first = Array.from({ length: PICTURES }, (_, n) => n + 1)
      await pictures(address, solver, jobs[solver.first % jobs.length].puzzle, first, seen)
      let solve = solver.first
      while (performance.now() < end)
        await oneSolve(address, solver, jobs[solve++ % jobs.length], seen, end, thinkMs)
    }),
  )
  return seen
}

async function oneSolve(
  address: string,
  solver: Solver,
  job: Job,
  seen: Seen,
  end: number,
  thinkMs: number,
): Promise<void> {
  const bench = await newBench(solver, job)
  const path = `/api/bench/${bench}`
  await ask(address, solver, `/bench/${bench}`, seen.page, seen)
  let after = 0
  let heardAt = performance.now()
  for (const [i, each] of job.events.entries()) {
    // About as long as people do.
    const thinks = thinkMs * (0.5 + ((solver.first * 7919 + i * 104_729) % 1000) / 1000)
    for (const till = performance.now() + thinks; performance.now() < till;) {
      await pause(Math.min(500, till - performance.now()))
      if (performance.now() - heardAt < FOLLOW_MS) continue
      await ask(address, solver, `${path}?after=${after}`, seen.poll, seen)
      heardAt = performance.now()
    }
    if (performance.now() > end) return
    if ((solver.first + i) % SCREEN_EVERY === SCREEN_EVERY - 1)
      await look(address, solver, job, bench, i, seen)
    const entries = [{ id: randomUUID(), event: { atMs: Math.round(thinks * i), ...each } }]
    // What is told to come again comes again, as the page does it.
    for (;;) {
      const answer = await ask(address, solver, path, seen.event, seen, { after, entries })
      heardAt = performance.now()
      if (answer.status === 503) {
        await pause(1000 * Number(answer.headers['retry-after'] ?? 1))
        if (performance.now() > end) return
        continue
      }
      if (answer.text.includes('"stored":true')) after++
      else if (answer.status === 200) seen.errors.push(`not stored: ${answer.text.slice(0, 120)}`)
      break
    }
  }
  await ask(address, solver, `${path}/finish`, seen.event, seen, {})
}

/**
 * Another screen, with those of its pictures that the browser does not have: one that was drawn for others before, and
 * one of a position in which nobody has been.
 */
async function look(
  address: string,
  solver: Solver,
  job: Job,
  bench: string,
  i: number,
  seen: Seen,
): Promise<void> {
  const screens = [
    '/shelf',
    '/log',
    `/bench/${bench}`,
    `/anatomy/${job.puzzle}`,
    `/schools/${job.puzzle}`,
  ]
  await ask(address, solver, screens[(solver.first + i) % screens.length], seen.page, seen)
  await pictures(address, solver, job.puzzle, [1 + (i % 12), 1000 * (solver.first + 1) + i], seen)
}

async function pictures(
  address: string,
  solver: Solver,
  id: string,
  seeds: readonly number[],
  seen: Seen,
): Promise<void> {
  const puzzle = must(puzzleById(id))
  await Promise.all(
    seeds.map((seed) => {
      const state = writeState(positionOf(puzzle, seed))
      return ask(address, solver, `/api/pictures/${id}?state=${state}`, seen.picture, seen)
    }),
  )
}

/** Some position, found in no time. */
function positionOf(puzzle: Puzzle, seed: number): State {
  const random = seededRandom(seed)
  let state = start(puzzle)
  for (let n = 0; n < 12; n++) {
    const turn = puzzle.turns[random.below(puzzle.turns.length)]
    if (!turn.whole && !blockOf(puzzle, state, turn)) state = after(puzzle, state, [turn.name])
  }
  return state
}

/** Seconds of processor time so far: of the processes that answer, of the database's, and of this one. */
function processorTimes(group: number): Record<'answering' | 'database' | 'asking', number> {
  const [ticks, seconds] = [100, { answering: 0, database: 0, asking: 0 }]
  for (const name of readdirSync('/proc')) {
    if (!/^\d+$/.test(name)) continue
    try {
      const stat = readFileSync(`/proc/${name}/stat`, 'utf8')
      const fields = stat.replace(/^.*\) /s, '').split(' ')
      // After the state: parent, group; later the times in the process and for it in the system.
      const used = (Number(fields[11]) + Number(fields[12])) / ticks
      if (Number(fields[2]) === group) seconds.answering += used
      else if (stat.includes('(postgres)')) seconds.database += used
      else if (Number(name) === process.pid) seconds.asking += used
    } catch {
      // It has ended meanwhile.
    }
  }
  return seconds
}

interface Answer {
  readonly status: number
  readonly text: string
  readonly headers: IncomingHttpHeaders
}

function ask(
  address: string,
  { id }: Solver,
  path: string,
  into: number[],
  seen: Seen,
  body?: unknown,
): Promise<Answer> {
  const began = performance.now()
  const text = body === undefined ? undefined : JSON.stringify(body)
  return new Promise((resolve) => {
    const failed = (why: string) => {
      seen.errors.push(`${path.split(/[/?]/).slice(0, 3).join('/')}: ${why}`)
      resolve({ status: 0, text: '', headers: {} })
    }
    const asked = request(
      address + path,
      {
        agent,
        method: text === undefined ? 'GET' : 'POST',
        headers: {
          cookie: `${SOLVER_COOKIE}=${id}`,
          ...(text === undefined
            ? {}
            : { 'content-type': 'application/json', 'content-length': Buffer.byteLength(text) }),
        },
      },
      (response) => {
        const parts: Buffer[] = []
        response.on('data', (part: Buffer) => parts.push(part))
        response.on('end', () => {
          const status = response.statusCode ?? 0
          const isTold = status === 503 && response.headers['retry-after'] !== undefined
          if (isTold) seen.busy++
          else if (status !== 200) return failed(`${status}`)
          else into.push(performance.now() - began)
          resolve({
            status,
            text: Buffer.concat(parts).toString('utf8'),
            headers: response.headers,
          })
        })
      },
    )
    asked.on('error', (error: NodeJS.ErrnoException) => {
      // As a browser does where a connection that it had kept was closed in the moment in which it was used again.
      if (asked.reusedSocket && error.code === 'ECONNRESET')
        resolve(ask(address, { id } as Solver, path, into, seen, body))
      else failed(error.message)
    })
    asked.end(text)
  })
}

const mean = (list: readonly number[]): number => list.reduce((sum, n) => sum + n, 0) / list.length

/** The time below which that share of them lies. */
function at(times: readonly number[], share: number): number {
  const sorted = [...times].sort((a, b) => a - b)
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? 0
}

const spread = (times: readonly number[]): string =>
  `median ${Math.round(at(times, 0.5))} ms, 99th ${Math.round(at(times, 0.99))} ms, most ${Math.round(at(times, 1))} ms (${times.length})`

const pause = (ms: number) => new Promise((go) => setTimeout(go, Math.max(0, ms)))

/** How long this process itself was held up: what it measures is late by that. */
function ownDelay(): () => number {
  const delay = monitorEventLoopDelay({ resolution: 10 })
  delay.enable()
  return () => {
    delay.disable()
    return Math.round(delay.percentile(99) / 1e6)
  }
}

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
