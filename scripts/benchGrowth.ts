/**
 * What each page costs when the database is full: 20,000 solves, 2,000 benches, one of them with 20,000 events,
 * and 200 puzzle files of the solver's own; beside it the demo as it is.
 */
import { randomUUID } from 'node:crypto'
import { scramble } from '../src/core/scramble/scramble'
import { puzzleById } from '../src/core/catalog'
import { readDefinition } from '../src/core/puzzle/readDefinition'
import { must } from '../src/core/result'
import { start, writeState } from '../src/core/state'
import { cloneSolver } from '../src/server/demo/clone'
import { openAnew } from '../src/server/testDatabase'
import { addOwnPuzzle } from '../src/server/ownPuzzles'
import { SOLVER_COOKIE } from '../src/server/headers'
import { allRows } from '../src/server/pool'

const SOLVES = 20_000
const BENCHES = 2000
const EVENTS = 20_000
const FILES = 200
const TRIES = 15

export async function measureGrowth(address: string): Promise<void> {
  await allRows.query(`delete from profiles where nickname in ('Few', 'Many')`)
  const demo = await allRows.query<{ id: string }>(
    'select id from profiles order by created_at, id limit 1',
  )
  const [few, many] = [
    await cloneSolver(allRows, demo.rows[0].id, 'Few'),
    await cloneSolver(allRows, demo.rows[0].id, 'Many'),
  ]
  const began = performance.now()
  await fill(many)
  console.log(`filled in ${((performance.now() - began) / 1000).toFixed(0)} s`)
  const pages = [
    ['shelf', '/shelf'],
    ['bench', `/bench/${await benchOf(few)}`, `/bench/${await longBench(many)}`],
    ['log', '/log'],
    ['log, page 300', '/log?page=300'],
    ['log, filtered', '/log?puzzle=cube-2&solver=Kelp'],
    ['anatomy', '/anatomy'],
    ['schools', '/schools'],
    ['algorithms', '/algorithms'],
    ['settings', '/settings'],
    ['solvers', '/solvers'],
  ]
  for (const [name, path, fullPath = path] of pages) {
    const small = await costOf(address, few, path)
    const large = await costOf(address, many, fullPath)
    console.log(
      `${name.padEnd(14)} demo ${told(small)}; full ${told(large)}, the first time ${large.first.toFixed(0)} ms`,
    )
  }
}

interface Cost {
  readonly first: number
  readonly median: number
  readonly kB: number
  readonly queries: number
  readonly queryMs: number
}

const told = ({ median, kB, queries, queryMs }: Cost) =>
  `${median.toFixed(0)} ms, ${kB} kB, ${queries} queries in ${queryMs.toFixed(1)} ms`

async function costOf(address: string, solver: string, path: string): Promise<Cost> {
  const times: number[] = []
  let kB = 0
  const get = async () => {
    const from = performance.now()
    const answer = await fetch(address + path, {
      headers: { cookie: `${SOLVER_COOKIE}=${solver}` },
    })
    const text = await answer.text()
    if (!answer.ok) throw new Error(`${path}: ${answer.status}`)
    times.push(performance.now() - from)
    kB = Math.round(text.length / 1024)
  }
  await get()
  const first = times.splice(0)[0]
  await allRows.query('select pg_stat_statements_reset()')
  for (let i = 0; i < TRIES; i++) await get()
  const { rows } = await allRows.query<{ calls: number; ms: number }>(
    `select sum(calls)::float as calls, sum(total_exec_time) as ms from pg_stat_statements
     where query not like '%pg_stat_statements%'`,
  )
  times.sort((a, b) => a - b)
  return {
    first,
    median: times[TRIES >> 1],
    kB,
    queries: Math.round(rows[0].calls / TRIES),
    queryMs: rows[0].ms / TRIES,
  }
}

const benchOf = async (solver: string): Promise<string> =>
  (
    await allRows.query<{ id: string }>(
      `select id from bench_sessions where profile_id = $1 and status = 'open' limit 1`,
      [solver],
    )
  ).rows[0].id

const longBench = async (solver: string): Promise<string> =>
  (
    await allRows.query<{ id: string }>(
      `select s.id from bench_sessions s where s.profile_id = $1
       order by (select count(*) from bench_events e where e.session_id = s.id) desc limit 1`,
      [solver],
    )
  ).rows[0].id

async function fill(solver: string): Promise<void> {
  await allRows.query(
    `insert into solves (profile_id, copy_id, puzzle_id, school, solver, start_state, solution, finished_at,
       elapsed_ms, turn_count, quarter_count, slips, hints)
     select $1, c.id, c.puzzle_id, (array['one-trigger', 'face-first', null])[1 + n % 3],
       (array['Gull', 'Kelp', 'Tern', 'Heron'])[1 + n % 4], 'aaaaaaaa', '',
       now() - n * interval '37 minutes', 20000 + n * 7919 % 70000, 20 + n % 60, 25 + n % 70, n % 4, n % 3
     from generate_series(1, $2::int) n
     join lateral (
       select id, puzzle_id from copies where profile_id = $1 order by id offset n % 12 limit 1) c on true`,
    [solver, SOLVES],
  )
  await allRows.query(
    `insert into solve_stages (solve_id, ordinal, stage_id, name, turn_count, elapsed_ms)
     select s.id, i, 'stage-' || i, 'Stage ' || i, 5, s.elapsed_ms / 4
     from solves s cross join generate_series(0, 3) i
     where s.profile_id = $1
     on conflict do nothing`,
    [solver],
  )
  await allRows.query(
    `insert into bench_sessions (profile_id, copy_id, start_state, laid_by, status)
     select $1, c.id, 'aaaaaaaa', 'pieces', 'aside' from generate_series(1, $2::int) n
     join lateral (
       select id from copies where profile_id = $1 order by id offset n % 12 limit 1) c on true`,
    [solver, BENCHES],
  )
  await allRows.query(
    `insert into bench_events (session_id, seq, event)
     select s.id, i, jsonb_build_object('kind', 'turn', 'atMs', 1000 * i, 'name', (array['R', 'U', 'F'])[1 + i % 3])
     from bench_sessions s cross join generate_series(0, 39) i
     where s.profile_id = $1 and s.status = 'aside'`,
    [solver],
  )
  const cube = must(puzzleById('cube-3'))
  const copy = await allRows.query<{ id: string }>(
    `select id from copies where profile_id = $1 and puzzle_id = 'cube-3'`,
    [solver],
  )
  const long = await openAnew(solver, {
    copyId: copy.rows[0].id,
    school: undefined,
    variant: {},
    startState: writeState(start(cube)),
    scramble: '',
    seed: undefined,
    laidBy: 'pieces',
  })
  const drawn = scramble(cube, 3).turns
  await allRows.query(
    `insert into bench_events (session_id, seq, id, event)
     select $1, n - 1, gen_random_uuid(),
       jsonb_build_object('kind', 'turn', 'atMs', 1000 * n, 'name', ($2::text[])[1 + n % cardinality($2::text[])])
     from generate_series(1, $3::int) n`,
    [long, drawn.map(({ name }) => name), EVENTS],
  )
  for (let i = 0; i < FILES; i++) {
    const size = [1 + (i % 3), 2 + (i % 2), 3 + (i % 2)]
    const name = `Filler ${i} ${randomUUID().slice(0, 4)}`
    must(
      await addOwnPuzzle(
        solver,
        must(
          readDefinition({ schema: 1, id: `filler-${i}`, name, mechanism: { kind: 'box', size } }),
        ),
      ),
    )
  }
  await allRows.query('analyze')
}
