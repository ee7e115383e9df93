import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { BenchEvent } from '../core/coach/bench'
import { plan } from '../core/coach/plan'
import type { Entry } from '../core/coach/rebase'
import { stepsOf } from '../core/coach/route'
import { puzzleById } from '../core/catalog'
import { must } from '../core/result'
import { schoolNamed } from '../core/schools'
import { scramble, scrambledState } from '../core/scramble/scramble'
import { readTurns } from '../core/notation/read'
import { turnAll, writeState } from '../core/state'
import { batchSchema } from './benchEventSchema'
import { appendEntries, eventsOf, findSession, latestSession, removeSession } from './benchSessions'
import { addCopy, findCopy, removeCopy, shelf, updateCopy } from './copies'
import { finishSession } from './finish'
import { checked } from './outside'
import { allRows, rowsOf } from './pool'
import { firstProfile } from './named'
import { readSettings, writeSettings } from './profiles'
import { findSolve, listSolves, removeSolve, setRemark } from './solves'
import { entriesAfter } from './snapshots'
import { freshDatabase, openAnew } from './testDatabase'
import { DEFAULT_SETTINGS } from '../core/settings'

let discard: () => Promise<void>
let profileId: string
let copyId: string
const puzzle = must(puzzleById('cube-2'))
const school = must(schoolNamed('cube-2', 'layer-by-layer'))
const from = scrambledState(puzzle, scramble(puzzle, 11))
const nobody = '00000000-0000-4000-8000-000000000000'

beforeAll(async () => {
  discard = await freshDatabase('sessions')
  profileId = await firstProfile()
  copyId = await addCopy(profileId, {
    puzzleId: 'cube-2',
    name: 'Lighthouse cube',
    scheme: puzzle.definition.colours,
    remarks: '',
  })
})
afterAll(() => discard())

const open = () =>
  openAnew(profileId, {
    copyId,
    school: school.id,
    variant: {},
    startState: writeState(from),
    scramble: '',
    laidBy: 'colours',
  })

const wholeSolve = (): BenchEvent[] => {
  const route = must(plan(puzzle, school, from))
  let atMs = 0
  return [
    { kind: 'route', atMs, route },
    ...stepsOf(route).flatMap(({ turns }): BenchEvent[] =>
      turns.length === 0
        ? [{ kind: 'pass', atMs: (atMs += 1000) }]
        : turns.map(({ name }) => ({ kind: 'turn', atMs: (atMs += 500), name })),
    ),
  ]
}

describe('profiles', () => {
  it('are made once, and keep their settings', async () => {
    expect(await firstProfile()).toBe(profileId)
    expect(await readSettings(profileId)).toEqual(DEFAULT_SETTINGS)
    await writeSettings(profileId, { ...DEFAULT_SETTINGS, theme: 'daylight', turnMs: 90 })
    expect((await readSettings(profileId)).theme).toBe('daylight')
    await writeSettings(profileId, DEFAULT_SETTINGS)
  })
})

describe('copies', () => {
  it('are kept with their colours, changed and removed', async () => {
    const id = await addCopy(profileId, {
      puzzleId: 'cube-3',
      name: 'Spare',
      scheme: puzzle.definition.colours,
      remarks: 'loose',
    })
    const scheme = puzzle.definition.colours.map((colour) => ({
      ...colour,
      name: `my ${colour.name}`,
    }))
    expect(await updateCopy(profileId, id, { name: 'Spare two', scheme, remarks: '' })).toBe(true)
    expect((await findCopy(profileId, id))?.scheme).toEqual(scheme)
    expect(await findCopy(nobody, id)).toBeUndefined()
    expect(await updateCopy(nobody, id, { name: 'x', scheme, remarks: '' })).toBe(false)
    expect(await removeCopy(profileId, id)).toBe(true)
    expect(await removeCopy(profileId, id)).toBe(false)
  })

  it('stand on the shelf with their open bench', async () => {
    const session = await open()
    const [copy] = await shelf(profileId)
    expect(copy.openSession).toBe(session)
    expect((await latestSession(profileId))?.id).toBe(session)
  })
})

const entriesFor = (...events: BenchEvent[]): Entry[] =>
  events.map((event) => ({ id: randomUUID(), event }))

describe('bench events', () => {
  const turn = (name: string): BenchEvent => ({ kind: 'turn', atMs: 1, name })
  const undo: BenchEvent = { kind: 'undo', atMs: 1 }
  const append = (id: string, after: number, sent: readonly Entry[]) =>
    appendEntries(profileId, id, after, sent)

  it('are added in order; sent again they are no fault, and nothing is stored twice', async () => {
    const id = await open()
    const [r, u, f] = entriesFor(turn('R'), turn('U'), turn('F'))
    expect(must(await append(id, 0, [r, u]))).toEqual({
      entries: [{ id: r.id }, { id: u.id }],
      stored: true,
    })
    // The answer was lost: the page sends the same again, and one more.
    expect(must(await append(id, 0, [r, u, f])).stored).toBe(true)
    expect(must(await append(id, 3, [r, f])).entries).toEqual([])
    expect(await entriesAfter(id, 0, rowsOf(profileId))).toEqual([r, u, f])
    expect(await entriesAfter(id, 2, rowsOf(profileId))).toEqual([f])
    const ahead = await append(id, 7, entriesFor(turn('L')))
    expect(ahead.ok ? '' : ahead.problem.code).toBe('ahead')
  })

  it('of two pages meet: who comes second is told what the first has stored, and nothing is lost', async () => {
    const id = await open()
    const [mine] = entriesFor(turn('R'))
    const [theirs] = entriesFor(turn('U'))
    expect(must(await append(id, 0, [mine])).stored).toBe(true)
    expect(must(await append(id, 0, [theirs]))).toEqual({ entries: [mine], stored: false })
    expect(must(await append(id, 1, [theirs])).stored).toBe(true)
    expect(await entriesAfter(id, 0, rowsOf(profileId))).toEqual([mine, theirs])
  })

  it('keep one order when many pages write at once', async () => {
    const id = await open()
    const page = async (names: readonly string[]) => {
      let after = 0
      let left = entriesFor(...names.map(turn))
      while (left.length > 0) {
        const heard = must(await append(id, after, left.slice(0, 2)))
        after += heard.entries.length
        const known = new Set(heard.entries.map((entry) => entry.id))
        left = left.filter((entry) => !known.has(entry.id))
      }
    }
    await Promise.all([page(['R', 'U', 'F']), page(['L', 'D']), page(['B', 'R2', 'U2', 'F2'])])
    const names = (await eventsOf(profileId, id)).map((event) =>
      event.kind === 'turn' ? event.name : '',
    )
    expect([...names].sort()).toEqual(['B', 'D', 'F', 'F2', 'L', 'R', 'R2', 'U', 'U2'])
    expect(names.filter((name) => ['R', 'U', 'F'].includes(name))).toEqual(['R', 'U', 'F'])
  })

  it('are made on the engine first: what does not fit is refused with the whole batch', async () => {
    const id = await open()
    const [first, , ...rest] = wholeSolve()
    const route = first.kind === 'route' ? first.route : undefined
    if (!route) throw new Error('no route')
    const bad: [BenchEvent, RegExp][] = [
      [turn('7R'), /no turn that is written 7R/],
      [undo, /no turn to take back/],
      [{ kind: 'route', atMs: 0, route: { ...route, from: 'a'.repeat(8) } }, /another position/],
      [{ kind: 'route', atMs: 0, route: { ...route, puzzle: 'cube-3' } }, /another puzzle/],
      [{ kind: 'route', atMs: 0, route: { ...route, school: 'nowhere' } }, /nowhere/],
      [{ kind: 'route', atMs: 0, route: { ...route, stages: [] } }, /does not lead home/],
      [{ kind: 'route', atMs: 0, route: { ...route, turnCount: 1 } }, /counts its turns wrongly/],
      [{ kind: 'route', atMs: 0, route: { ...route, variant: { odd: 'one' } } }, /variant/],
    ]
    for (const [event, sentence] of bad) {
      const refused = await append(id, 0, entriesFor({ kind: 'pass', atMs: 0 }, event))
      expect(refused.ok ? 'it was stored' : refused.problem.sentence).toMatch(sentence)
      expect(refused.ok ? '' : refused.problem.field).toBe('events[1]')
    }
    expect(await entriesAfter(id, 0, rowsOf(profileId))).toEqual([])
    expect(must(await append(id, 0, entriesFor(first, ...rest.slice(0, 4)))).stored).toBe(true)
  })

  it('that were not stored after all leave nothing behind, in the memory of the server either', async () => {
    const id = await open()
    await allRows.query(`
      create function lose_it() returns trigger language plpgsql as $$
      begin raise exception 'lost at the last moment'; end $$;
      create constraint trigger lose_it after insert on bench_events
      deferrable initially deferred for each row execute function lose_it()`)
    await expect(append(id, 0, entriesFor(turn('R')))).rejects.toThrow(/last moment/)
    await allRows.query('drop trigger lose_it on bench_events; drop function lose_it')
    // As another process stores it.
    await allRows.query('insert into bench_events (session_id, seq, event) values ($1, 0, $2)', [
      id,
      JSON.stringify(turn('U')),
    ])
    // A plan for where the bench really stands.
    const stands = must(turnAll(puzzle, from, must(readTurns(puzzle, 'U'))))
    const route = must(plan(puzzle, school, stands))
    expect(must(await append(id, 1, entriesFor({ kind: 'route', atMs: 2, route }))).stored).toBe(
      true,
    )
  })

  it('are never changed, and go with their bench', async () => {
    const id = await open()
    must(await append(id, 0, entriesFor(turn('R'))))
    await expect(
      allRows.query("update bench_events set event = '{}' where session_id = $1", [id]),
    ).rejects.toThrow(/never changed/)
    expect(await removeSession(nobody, id)).toBe(false)
    expect(await removeSession(profileId, id)).toBe(true)
    expect(await entriesAfter(id, 0, rowsOf(profileId))).toEqual([])
  })

  it('of a session that is not open are refused, but for those that are stored', async () => {
    const first = await open()
    const [kept] = entriesFor(turn('R'))
    must(await append(first, 0, [kept]))
    await open()
    expect((await findSession(profileId, first))?.status).toBe('aside')
    expect(must(await append(first, 0, [kept])).stored).toBe(true)
    const closed = await append(first, 1, entriesFor(turn('R')))
    expect(closed.ok ? '' : closed.problem.code).toBe('closed')
    const stranger = await appendEntries(nobody, first, 1, entriesFor(turn('R')))
    expect(stranger.ok ? '' : stranger.problem.code).toBe('not-found')
  })

  it('meet their schema: a real batch passes, bad ones name their field', async () => {
    const read = (events: readonly unknown[]) => ({
      after: 0,
      entries: events.map((event) => ({ id: randomUUID(), event })),
    })
    expect((await checked(batchSchema, read(wholeSolve()))).ok).toBe(true)
    const bad = [
      { ...read([turn('R')]), after: -1 },
      read([]),
      read([{ kind: 'turn', atMs: 1 }]),
      read([{ kind: 'turn', atMs: 'soon', name: 'R' }]),
      read([{ kind: 'jump', atMs: 1 }]),
      read([{ kind: 'constructor', atMs: 1 }]),
      read([{ kind: 'toString', atMs: 1 }]),
      read([{ kind: 'route', atMs: 1, route: { base: 'up' } }]),
      read([{ kind: 'undo', atMs: 1, extra: true }]),
      read([null]),
      { after: 0, entries: [{ id: 'seven', event: turn('R') }] },
      { after: 0 },
      null,
    ]
    for (const batch of bad) {
      const read = await checked(batchSchema, batch)
      expect(read.ok, JSON.stringify(batch)).toBe(false)
      if (!read.ok) expect(read.problem.field).toBeDefined()
    }
  })
})

describe('a finished session', () => {
  it('goes into the log once, with splits that the engine has counted', async () => {
    const id = await open()
    expect((await finishSession(profileId, id, 'Gull')).ok).toBe(false)
    const events = wholeSolve()
    must(await appendEntries(profileId, id, 0, entriesFor(...events)))
    // Two pages that both see it home.
    const [solveId, second] = await Promise.all(
      [1, 2].map(async () => must(await finishSession(profileId, id, 'Gull'))),
    )
    expect(second).toBe(solveId)
    expect(must(await finishSession(profileId, id, 'Gull'))).toBe(solveId)
    const solve = await findSolve(profileId, solveId)
    expect(solve?.solver).toBe('Gull')
    expect(solve?.splits.map(({ stageId }) => stageId)).toEqual([
      'first-layer',
      'orient',
      'permute',
    ])
    expect(solve?.splits.reduce((sum, { turnCount }) => sum + turnCount, 0)).toBe(solve?.turnCount)
    expect(solve?.elapsedMs).toBe(events.at(-1)?.atMs)
    expect((await findSession(profileId, id))?.status).toBe('finished')
    expect(await setRemark(profileId, solveId, 'calm')).toBe(true)
    expect((await listSolves(profileId))[0].remark).toBe('calm')
    expect(await removeSolve(nobody, solveId)).toBe(false)
  })

  it('outlives its puzzle', async () => {
    const id = await openAnew(profileId, {
      copyId: await addCopy(profileId, {
        puzzleId: 'cube-2',
        name: 'Short-lived',
        scheme: puzzle.definition.colours,
        remarks: '',
      }),
      school: school.id,
      variant: {},
      startState: writeState(from),
      scramble: '',
      laidBy: 'colours',
    })
    must(await appendEntries(profileId, id, 0, entriesFor(...wholeSolve())))
    const solveId = must(await finishSession(profileId, id, ''))
    const solve = await findSolve(profileId, solveId)
    await removeCopy(profileId, solve?.copyId ?? '')
    expect((await findSolve(profileId, solveId))?.copyId).toBeUndefined()
  })
})
