import { spawn, type ChildProcess } from 'node:child_process'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { limitReach } from '../core/catalog/reach'
import { must } from '../core/result'
import { asRequest, keepRequestsApart } from './asking'
import { loadDemo } from './demo/load'
import { beginImport, doImport, findImport, importUnderWay, stopImport } from './imports'
import { writeJson } from './logFile'
import { pool } from './pool'
import { firstProfile, makeSolver, whoAsks } from './profiles'
import { listSolves } from './solves'
import { freshDatabase } from './testDatabase'

let discard: () => Promise<void>
let gull: string
let log: string

beforeAll(async () => {
  discard = await freshDatabase('imports')
  await loadDemo()
  keepRequestsApart()
  gull = await firstProfile()
  log = writeJson(await listSolves(gull))
})
afterAll(async () => {
  limitReach(undefined)
  await discard()
})

const newSolver = async () => must(await makeSolver(`Tern ${Math.random().toString(36).slice(2)}`))
const put = async (solver: string, kind: string, file: string) =>
  (
    await pool().query<{ id: string }>(
      'insert into imports (profile_id, kind, file) values ($1, $2, $3) returning id',
      [solver, kind, file],
    )
  ).rows[0].id
const count = async (solver: string) => (await listSolves(solver)).length

describe('a file that is read', () => {
  it('ends with how many solves are new, and keeps no file', async () => {
    const solver = await newSolver()
    const id = await put(solver, 'log', log)
    expect(await importUnderWay(solver, 'log')).toMatchObject({ id, state: 'waiting', share: 0 })
    await doImport(id, 'here')
    expect(await findImport(solver, id)).toMatchObject({
      state: 'done',
      share: 1,
      value: await count(gull),
    })
    expect(await count(solver)).toBe(await count(gull))
    expect(await importUnderWay(solver, 'log')).toBeUndefined()
    const { rows } = await pool().query('select file from imports where id = $1', [id])
    expect(rows).toEqual([{ file: null }])
  })

  it('is refused as a whole with the reason', async () => {
    const solver = await newSolver()
    const id = await put(solver, 'log', log.replace(/"puzzle":"[^"]+"/, '"puzzle":"cube-x"'))
    await doImport(id, 'here')
    expect(await findImport(solver, id)).toMatchObject({
      state: 'refused',
      problem: { field: 'puzzle' },
    })
    expect(await count(solver)).toBe(0)
  })

  it('is nobody’s but the solver’s', async () => {
    const [solver, other] = [await newSolver(), await newSolver()]
    const id = await put(solver, 'log', log)
    expect(await findImport(other, id)).toBeUndefined()
    expect(await stopImport(other, id)).toBe(false)
    expect(await importUnderWay(other, 'log')).toBeUndefined()
    expect(await stopImport(solver, id)).toBe(true)
  })

  it('that was stopped before it was taken is not read', async () => {
    const solver = await newSolver()
    const id = await put(solver, 'log', log)
    expect(await stopImport(solver, id)).toBe(true)
    await doImport(id, 'here')
    expect(await findImport(solver, id)).toMatchObject({ state: 'stopped' })
    expect(await count(solver)).toBe(0)
  })

  it('that was stopped while it is read leaves nothing behind', async () => {
    const solver = await newSolver()
    // Long enough that it is not through before it is stopped.
    const file = JSON.parse(log) as { solves: { finishedAt: string }[] }
    const solves = Array.from({ length: 40 }, (_, i) =>
      file.solves.map((solve) => ({
        ...solve,
        finishedAt: new Date(Date.parse(solve.finishedAt) - 1000 * i).toISOString(),
      })),
    ).flat()
    const id = await put(solver, 'log', JSON.stringify({ ...file, solves }))
    const reading = doImport(id, 'here')
    while ((await findImport(solver, id))?.state === 'waiting')
      await new Promise((wait) => setTimeout(wait, 5))
    expect(await stopImport(solver, id)).toBe(true)
    await reading
    expect(await findImport(solver, id)).toMatchObject({ state: 'stopped' })
    expect(await count(solver)).toBe(0)
  })

  it('whose process has died is told so', async () => {
    const solver = await newSolver()
    const id = await put(solver, 'log', log)
    await pool().query(
      `update imports set state = 'running', touched_at = now() - interval '2 minutes' where id = $1`,
      [id],
    )
    expect(await findImport(solver, id)).toMatchObject({
      state: 'refused',
      problem: { code: 'interrupted' },
    })
  })
})

/** A process of its own that takes work, as `./merry work` does. */
function worker(): ChildProcess {
  return spawn('node', ['--import', 'tsx', 'scripts/work.ts'], {
    env: { ...process.env },
    stdio: ['ignore', 'ignore', 'inherit'],
  })
}

describe('the queue', () => {
  it('is shared by two processes: each file is read once, and both take some', async () => {
    const workers = [worker(), worker()]
    try {
      const solvers = await Promise.all(Array.from({ length: 12 }, newSolver))
      const ids = await asRequest(async () => {
        await whoAsks(gull)
        return Promise.all(solvers.map((solver) => beginImport(solver, 'log', log)))
      })
      const states = async () =>
        (await Promise.all(ids.map((id, i) => findImport(solvers[i], id)))).map(
          (each) => each?.state,
        )
      await expect.poll(states, { timeout: 120_000, interval: 300 }).toEqual(ids.map(() => 'done'))
      const { rows } = await pool().query<{ taken_by: string }>(
        'select taken_by from imports where id = any($1)',
        [ids],
      )
      expect(new Set(rows.map(({ taken_by }) => taken_by)).size).toBe(2)
      for (const solver of solvers) expect(await count(solver)).toBe(await count(gull))
    } finally {
      for (const each of workers) {
        const ended = new Promise((done) => each.on('exit', done))
        each.kill('SIGTERM')
        await ended
      }
    }
  })
})
