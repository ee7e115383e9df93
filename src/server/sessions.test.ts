import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { BenchEvent } from '../core/coach/bench'
import { plan } from '../core/coach/plan'
import { stepsOf } from '../core/coach/route'
import { puzzleById } from '../core/catalog'
import { must } from '../core/result'
import { schoolNamed } from '../core/schools'
import { scramble, scrambledState } from '../core/scramble/scramble'
import { writeState } from '../core/state'
import { batchSchema } from './benchEventSchema'
import { appendEvents, eventsOf, findSession, latestSession, openSession } from './benchSessions'
import { addCopy, findCopy, removeCopy, shelf, updateCopy } from './copies'
import { finishSession } from './finish'
import { checked } from './outside'
import { pool } from './pool'
import { defaultProfile, readSettings, writeSettings } from './profiles'
import { findSolve, listSolves, removeSolve, setRemark } from './solves'
import { freshDatabase } from './testDatabase'
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
  profileId = await defaultProfile()
  copyId = await addCopy(profileId, {
    puzzleId: 'cube-2',
    name: 'Lighthouse cube',
    scheme: puzzle.definition.colours,
    remarks: '',
  })
})
afterAll(() => discard())

const open = () =>
  openSession(profileId, {
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
    expect(await defaultProfile()).toBe(profileId)
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

describe('bench events', () => {
  const turn = (name: string): BenchEvent => ({ kind: 'turn', atMs: 1, name })

  it('are added in order, a repeated batch only once, a gap not at all', async () => {
    const id = await open()
    expect(await appendEvents(profileId, id, 0, [turn('R'), turn('U')])).toBe(2)
    expect(await appendEvents(profileId, id, 0, [turn('R'), turn('U'), turn('F')])).toBe(3)
    expect(await appendEvents(profileId, id, 7, [turn('L')])).toBe(3)
    expect((await eventsOf(id)).map((event) => (event.kind === 'turn' ? event.name : ''))).toEqual([
      'R',
      'U',
      'F',
    ])
  })

  it('keep their order when two pages write at once', async () => {
    const id = await open()
    const both = [turn('R'), turn('U'), turn('F')]
    await Promise.all([appendEvents(profileId, id, 0, both), appendEvents(profileId, id, 0, both)])
    expect(await eventsOf(id)).toHaveLength(3)
  })

  it('are never changed', async () => {
    const id = await open()
    await appendEvents(profileId, id, 0, [turn('R')])
    await expect(
      pool().query("update bench_events set event = '{}' where session_id = $1", [id]),
    ).rejects.toThrow(/never changed/)
  })

  it('of a session that is not open are refused', async () => {
    const first = await open()
    await open()
    expect((await findSession(profileId, first))?.status).toBe('aside')
    expect(await appendEvents(profileId, first, 0, [turn('R')])).toBeUndefined()
    expect(await appendEvents(nobody, first, 0, [turn('R')])).toBeUndefined()
  })

  it('meet their schema: a real batch passes, bad ones name their field', async () => {
    expect((await checked(batchSchema, { from: 0, events: wholeSolve() })).ok).toBe(true)
    const bad = [
      { from: -1, events: [turn('R')] },
      { from: 0, events: [] },
      { from: 0, events: [{ kind: 'turn', atMs: 1 }] },
      { from: 0, events: [{ kind: 'turn', atMs: 'soon', name: 'R' }] },
      { from: 0, events: [{ kind: 'jump', atMs: 1 }] },
      { from: 0, events: [{ kind: 'route', atMs: 1, route: { base: 'up' } }] },
      { from: 0, events: [{ kind: 'undo', atMs: 1, extra: true }] },
      { from: 0 },
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
    await appendEvents(profileId, id, 0, events)
    const solveId = must(await finishSession(profileId, id, 'Gull'))
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
    const id = await openSession(profileId, {
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
    await appendEvents(profileId, id, 0, wholeSolve())
    const solveId = must(await finishSession(profileId, id, ''))
    const solve = await findSolve(profileId, solveId)
    await removeCopy(profileId, solve?.copyId ?? '')
    expect((await findSolve(profileId, solveId))?.copyId).toBeUndefined()
  })
})
