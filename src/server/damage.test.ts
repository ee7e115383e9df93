import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { must, type Result } from '../core/result'
import { findSession } from './benchSessions'
import type { Copy } from './copies'
import { puzzleOf, replayed, standingBench } from './damage'
import { textOf } from './files/write'
import { exportCopy, exportPuzzle } from './exportCopy'
import { addOwnPuzzle, damagedPuzzles, forgetOwnPuzzle, ownPuzzleNames } from './ownPuzzles'
import { allRows } from './pool'
import { firstProfile } from './named'
import { exampleCopy, exampleFile, freshDatabase, openAnew } from './testDatabase'
import type { Solve } from './solves'

let discard: () => Promise<void>
let profileId: string
let copy: Copy

beforeAll(async () => {
  discard = await freshDatabase('damage')
  profileId = await firstProfile()
  copy = await exampleCopy(profileId, 'cube-2', 'Wreck')
})
afterAll(() => discard())

const sentence = (result: Result<unknown>) => (result.ok ? '' : result.problem.sentence)

async function benchWith(startState: string, events: readonly unknown[] = [], school?: string) {
  const id = await openAnew(profileId, {
    copyId: copy.id,
    school,
    variant: {},
    startState,
    scramble: '',
    laidBy: 'pieces',
  })
  for (const [seq, event] of events.entries())
    await allRows.query('insert into bench_events (session_id, seq, event) values ($1, $2, $3)', [
      id,
      seq,
      JSON.stringify(event),
    ])
  const session = await findSession(profileId, id)
  if (!session) throw new Error('no session')
  return standingBench(profileId, copy, session)
}

describe('what is stored and broken', () => {
  it('is told of a copy: no such puzzle, no such colours', () => {
    expect(sentence(puzzleOf(copy))).toBe('')
    expect(sentence(puzzleOf({ ...copy, puzzleId: 'own-gone' }))).toMatch(/own-gone/)
    expect(sentence(puzzleOf({ ...copy, scheme: copy.scheme.slice(1) }))).toBe(
      `Its colours lack ${copy.scheme[0].name}.`,
    )
    expect(sentence(puzzleOf({ ...copy, scheme: 7 as never }))).toMatch(/lack/)
  })

  it('is told of a bench: its start, its school, what happened on it', async () => {
    const whole = 'a'.repeat(8)
    expect(sentence(await benchWith(whole))).toBe('')
    expect(sentence(await benchWith('xyz'))).toMatch(/start cannot be/)
    expect(sentence(await benchWith(whole, [], 'gone'))).toMatch(/gone/)
    const junk = [{ kind: 'route', atMs: 0, route: { from: 'nonsense', stages: [] } }]
    expect(sentence(await benchWith(whole, junk))).toMatch(/cannot be replayed/)
    // An event that does not fit was always passed over.
    const odd = [{ kind: 'turn', atMs: 0, name: '9R' }]
    expect(sentence(await benchWith(whole, odd))).toBe('')
  })

  it('is told of a solve whose turns cannot be played', () => {
    const solve = { puzzleId: 'cube-2', startState: 'a'.repeat(8), scramble: 'R', solution: "R'" }
    expect(replayed(solve as Solve).ok).toBe(true)
    for (const part of [
      { puzzleId: 'x' },
      { startState: 'b' },
      { scramble: 'Q' },
      { solution: '(' },
    ])
      expect(replayed({ ...solve, ...part } as Solve).ok).toBe(false)
  })

  it('is told of a puzzle file, and the others are there all the same', async () => {
    const good = exampleFile('Good')
    const goodId = must(await addOwnPuzzle(profileId, good))
    const bad = { name: 'Bad', mechanism: { kind: 'capped', caps: ['right', 'right'] } }
    await allRows.query(
      `insert into own_puzzles (profile_id, id, definition) values ($1, 'own-bad', $2)`,
      [profileId, JSON.stringify({ schema: 1, id: 'bad', ...bad })],
    )
    expect((await ownPuzzleNames(profileId)).map(({ id }) => id)).toEqual([goodId])
    expect(await damagedPuzzles(profileId)).toMatchObject([{ id: 'own-bad', name: 'Bad' }])
    expect(await exportPuzzle(profileId, 'own-bad')).toMatchObject(bad)
    // Every page begins with it: it must not be stopped.
    expect(await firstProfile()).toBe(profileId)
    expect(await forgetOwnPuzzle(profileId, 'own-bad')).toBe(true)
    expect(await damagedPuzzles(profileId)).toEqual([])
  })

  it('goes out as it is stored, with its benches', async () => {
    const pieces = await exportCopy(profileId, copy.id)
    const file = JSON.parse(pieces ? await textOf(pieces) : '') as {
      copy: { name: string }
      puzzle: unknown
      benches: { start_state: string; events: unknown[] }[]
    }
    expect(file.copy.name).toBe('Wreck')
    expect(file.puzzle).toBeNull()
    expect(file.benches.map(({ start_state }) => start_state)).toContain('xyz')
    expect(file.benches.some(({ events }) => events.length === 1)).toBe(true)
    expect(await exportCopy('00000000-0000-4000-8000-000000000000', copy.id)).toBeUndefined()
  })
})
