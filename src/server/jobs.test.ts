import { spawn, type ChildProcess } from 'node:child_process'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { limitReach } from '../core/catalog/reach'
import { SURVEYED_LONG } from '../core/coach/survey'
import { readDefinition } from '../core/puzzle/readDefinition'
import { must, ok } from '../core/result'
import { TABLES_EDITION } from '../core/universal/tables'
import { asRequest, keepRequestsApart } from './asking'
import { loadDemo } from './demo/load'
import { doJob, type HeavyAsked } from './doJob'
import { textSource } from './files/source'
import { textOf } from './files/write'
import {
  beginHeavy,
  beginImport,
  findJob,
  jobsAbout,
  jobUnderWay,
  stopJob,
  type ImportKind,
} from './jobs'
import { writeJson } from './logFile'
import { addOwnPuzzle } from './ownPuzzles'
import { allRows } from './pool'
import { firstProfile } from './named'
import { makeSolver, whoAsks } from './profiles'
import { listSolves } from './solves'
import { beginSurvey, surveysOf } from './surveys'
import { tablesOf } from './tables'
import { exampleFile, freshDatabase } from './testDatabase'

let discard: () => Promise<void>
let gull: string
let log: string

beforeAll(async () => {
  discard = await freshDatabase('imports')
  await loadDemo()
  keepRequestsApart()
  gull = await firstProfile()
  log = await textOf(writeJson(await listSolves(gull)))
})
afterAll(async () => {
  limitReach(undefined)
  await discard()
})

const newSolver = async () => must(await makeSolver(`Tern ${Math.random().toString(36).slice(2)}`))
/** As it lies in the queue, which nobody takes it from here. */
const put = async (solver: string, kind: ImportKind, file: string, subject?: string) =>
  must(await beginImport(solver, kind, { pieces: textSource(file).read() }, subject))
const parts = async (id: string) =>
  (await allRows.query('select 1 from job_parts where job_id = $1', [id])).rowCount
const count = async (solver: string) => (await listSolves(solver)).length

describe('a file that is read', () => {
  it('ends with how many solves are new, and keeps no file', async () => {
    const solver = await newSolver()
    const id = await put(solver, 'log', log)
    expect(await jobUnderWay(solver, 'log')).toMatchObject({ id, state: 'waiting', share: 0 })
    await doJob(id, 'here')
    expect(await findJob(solver, id)).toMatchObject({
      state: 'done',
      share: 1,
      value: await count(gull),
    })
    expect(await count(solver)).toBe(await count(gull))
    expect(await jobUnderWay(solver, 'log')).toBeUndefined()
    expect(await parts(id)).toBe(0)
  })

  it('is refused as a whole with the reason', async () => {
    const solver = await newSolver()
    const id = await put(solver, 'log', log.replace(/"puzzle":"[^"]+"/, '"puzzle":"cube-x"'))
    await doJob(id, 'here')
    expect(await findJob(solver, id)).toMatchObject({
      state: 'refused',
      problem: { field: 'puzzle' },
    })
    expect(await count(solver)).toBe(0)
  })

  it('is nobody’s but the solver’s', async () => {
    const [solver, other] = [await newSolver(), await newSolver()]
    const id = await put(solver, 'log', log)
    expect(await findJob(other, id)).toBeUndefined()
    expect(await stopJob(other, id)).toBe(false)
    expect(await jobUnderWay(other, 'log')).toBeUndefined()
    expect(await stopJob(solver, id)).toBe(true)
  })

  it('that was stopped before it was taken is not read', async () => {
    const solver = await newSolver()
    const id = await put(solver, 'log', log)
    expect(await stopJob(solver, id)).toBe(true)
    await doJob(id, 'here')
    expect(await findJob(solver, id)).toMatchObject({ state: 'stopped' })
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
    const reading = doJob(id, 'here')
    while ((await findJob(solver, id))?.state === 'waiting')
      await new Promise((wait) => setTimeout(wait, 5))
    expect(await stopJob(solver, id)).toBe(true)
    await reading
    expect(await findJob(solver, id)).toMatchObject({ state: 'stopped' })
    expect(await count(solver)).toBe(0)
  })

  it('whose process has died is told so', async () => {
    const solver = await newSolver()
    const id = await put(solver, 'log', log)
    await allRows.query(
      `update jobs set state = 'running', touched_at = now() - interval '2 minutes' where id = $1`,
      [id],
    )
    expect(await findJob(solver, id)).toMatchObject({
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

describe('heavy work', () => {
  it('is begun once, found again by what it is about, and stopped', async () => {
    const solver = await newSolver()
    const subject = 'cube-2 layer-by-layer'
    const id = await beginHeavy(solver, 'survey', subject)
    expect(await beginHeavy(solver, 'survey', subject)).toBe(id)
    expect(await jobsAbout(solver, 'survey', [subject, 'cube-2 one-trigger'])).toMatchObject([
      { id, subject, state: 'waiting' },
    ])
    expect(await jobsAbout(gull, 'survey', [subject])).toEqual([])
    expect(await stopJob(solver, id)).toBe(true)
    await doJob(id, 'here')
    expect(await findJob(solver, id)).toMatchObject({ state: 'stopped' })
    const again = await beginHeavy(solver, 'survey', subject)
    expect(again).not.toBe(id)
    expect(await findJob(solver, id)).toBeUndefined()
  })

  it('of schools is found by the school, by its owner, while the program is the same', async () => {
    const solver = await newSolver()
    const id = await beginSurvey(solver, 'cube-2', 'one-trigger')
    const schools = ['one-trigger', 'face-first']
    const found = await surveysOf(solver, 'cube-2', schools)
    expect(Object.keys(found)).toEqual(['one-trigger'])
    expect(found['one-trigger']).toMatchObject({ id, state: 'waiting' })
    expect(await surveysOf(gull, 'cube-2', schools)).toEqual({})
    await allRows.query('update jobs set subject = $2 where id = $1', [
      id,
      'cube-2 one-trigger older',
    ])
    expect(await surveysOf(solver, 'cube-2', schools)).toEqual({})
    await stopJob(solver, id)
  })

  it('that was cut off is asked for again', async () => {
    const solver = await newSolver()
    expect(await tablesOf(solver, 'own-cut-off')).toBeUndefined()
    const job = await jobUnderWay(solver, 'tables', 'own-cut-off')
    await allRows.query(
      `update jobs set state = 'running', touched_at = now() - interval '2 minutes' where id = $1`,
      [job?.id],
    )
    expect(await tablesOf(solver, 'own-cut-off')).toBeUndefined()
    const again = await jobUnderWay(solver, 'tables', 'own-cut-off')
    expect(again?.state).toBe('waiting')
    expect(again?.id).not.toBe(job?.id)
  })

  it('is done with what its owner has, and refused where that is gone', async () => {
    const solver = await newSolver()
    const definition = must(readDefinition(exampleFile('A tide box')))
    const puzzleId = await asRequest(async () => {
      await whoAsks(solver)
      return must(await addOwnPuzzle(solver, definition))
    })
    const asked: HeavyAsked[] = []
    const heavily = (each: HeavyAsked) => {
      asked.push(each)
      return Promise.resolve(ok({ edition: TABLES_EDITION, tables: { order: each.puzzleId } }))
    }
    expect(await tablesOf(solver, puzzleId)).toBeUndefined()
    const job = await jobUnderWay(solver, 'tables', puzzleId)
    await doJob(job?.id ?? '', 'here', heavily)
    expect(asked).toMatchObject([{ kind: 'tables', puzzleId, definition: { id: puzzleId } }])
    expect(await tablesOf(solver, puzzleId)).toEqual({ order: puzzleId })
    // Nobody else's: another solver has no such puzzle.
    const other = await newSolver()
    const foreign = await beginHeavy(other, 'tables', puzzleId)
    await doJob(foreign, 'here', heavily)
    expect(await findJob(other, foreign)).toMatchObject({
      state: 'refused',
      problem: { code: 'not-found' },
    })
    expect(asked).toHaveLength(1)
  })
})

/** Other tests run beside, and every heavy piece is a process that first has to load the core. */
const PATIENCE_MS = 500_000

describe('the queue', () => {
  it(
    'is shared by two processes: each file is read once, and both take some',
    async () => {
      const workers = [worker(), worker()]
      try {
        const solvers = await Promise.all(Array.from({ length: 8 }, newSolver))
        const ids = await asRequest(async () => {
          await whoAsks(gull)
          return Promise.all(solvers.map((solver) => put(solver, 'log', log)))
        })
        const states = async () =>
          (await Promise.all(ids.map((id, i) => findJob(solvers[i], id)))).map(
            (each) => each?.state,
          )
        await expect
          .poll(states, { timeout: PATIENCE_MS, interval: 300 })
          .toEqual(ids.map(() => 'done'))
        const { rows } = await allRows.query<{ taken_by: string }>(
          'select taken_by from jobs where id = any($1)',
          [ids],
        )
        expect(new Set(rows.map(({ taken_by }) => taken_by)).size).toBe(2)
        for (const solver of solvers) expect(await count(solver)).toBe(await count(gull))
        // What keeps a processor busy is shared too: tables, and surveys of schools.
        const puzzles = await Promise.all(
          solvers.slice(0, 3).map((solver, i) =>
            asRequest(async () => {
              await whoAsks(solver)
              return must(await addOwnPuzzle(solver, exampleFile(`Slab ${i}`)))
            }),
          ),
        )
        const heavy = await Promise.all([
          ...puzzles.map((id, i) => beginHeavy(solvers[i], 'tables', id)),
          // Long enough for the other process to take the second.
          ...solvers.slice(3, 5).map((solver) => beginSurvey(solver, 'cube-2', 'shortest')),
        ])
        const done = () => Promise.all(heavy.map((id, i) => findJob(solvers[i], id)))
        const ended = async () => (await done()).map((each) => each?.state)
        await expect
          .poll(ended, { timeout: PATIENCE_MS, interval: 500 })
          .toEqual(heavy.map(() => 'done'))
        const values = (await done()).map((job) => job?.value)
        for (const surveyed of values.slice(3))
          expect(surveyed).toMatchObject({
            states: SURVEYED_LONG,
            meanTurns: expect.any(Number),
          })
        for (const made of values.slice(0, 3))
          expect(made).toMatchObject({
            edition: TABLES_EDITION,
            tables: { order: expect.anything() },
          })
        const { rows: takers } = await allRows.query<{ taken_by: string }>(
          'select taken_by from jobs where id = any($1)',
          [heavy],
        )
        expect(new Set(takers.map(({ taken_by }) => taken_by)).size).toBe(2)
      } finally {
        for (const each of workers) {
          const ended = new Promise((done) => each.on('exit', done))
          each.kill('SIGTERM')
          await ended
        }
      }
    },
    PATIENCE_MS,
  )
})
