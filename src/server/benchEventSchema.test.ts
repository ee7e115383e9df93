import { describe, expect, it } from 'vitest'
import { puzzleById } from '../core/catalog'
import { admit } from '../core/coach/admit'
import { openBench } from '../core/coach/bench'
import { plan } from '../core/coach/plan'
import { asBefore } from '../core/coach/stored.testing'
import { must } from '../core/result'
import { schoolsFor } from '../core/schools'
import { scramble, scrambledState } from '../core/scramble/scramble'
import { readState } from '../core/state'
import { batchSchema } from './benchEventSchema'
import { checked } from './outside'

const ID = '00000000-0000-4000-8000-000000000001'

describe('what a bench may send', () => {
  // One of each sort of way: written schools, mods, shapes, small groups, tips.
  it.each(['cube-2', 'prism-6', 'shift-3x3x5', 'twin-3', 'tetra-3', 'box-3x3x5'])(
    'holds every route that is planned for %s',
    async (id) => {
      const puzzle = must(puzzleById(id))
      for (const school of schoolsFor(id)) {
        const route = must(plan(puzzle, school, scrambledState(puzzle, scramble(puzzle, 9))))
        const event = { kind: 'route', atMs: 0, route } as const
        const read = await checked(batchSchema, { after: 0, entries: [{ id: ID, event }] })
        expect(read.ok ? '' : read.problem.sentence, school.id).toBe('')
        // And the engine takes it.
        const added = admit(openBench(puzzle, must(readState(puzzle, route.from))), event)
        expect(added.ok ? '' : added.problem.sentence, school.id).toBe('')
      }
    },
  )

  it('is a route of a page that is older than claims, and none with claims that are not understood', async () => {
    const puzzle = must(puzzleById('cube-3'))
    const [school] = schoolsFor('cube-3')
    const route = must(plan(puzzle, school, scrambledState(puzzle, scramble(puzzle, 9))))
    const bench = openBench(puzzle, must(readState(puzzle, route.from)))
    const sent = (event: object) => checked(batchSchema, { after: 0, entries: [{ id: ID, event }] })
    const old = { kind: 'route', atMs: 0, route: asBefore(route) } as const
    expect((await sent(old)).ok).toBe(true)
    expect(must(admit(bench, old)).trail?.steps[0].hold[0].kind).toBe('text')
    const withHold = (claim: object) => ({
      ...{ kind: 'route', atMs: 0 },
      route: {
        ...route,
        stages: route.stages.map((stage) => ({
          ...stage,
          steps: stage.steps.map((step) => ({ ...step, hold: [claim] })),
        })),
      },
    })
    for (const claim of [
      { kind: 'nothing' },
      { kind: 'pieceAt' },
      { kind: 'sideHeld', side: 'x' },
    ]) {
      const read = await sent(withHold(claim))
      expect(read.ok).toBe(false)
      if (!read.ok) expect(read.problem.field).toMatch(/hold\[0\]/)
    }
    const stranger = withHold({ kind: 'pieceAt', piece: 'ZZ' })
    expect((await sent(stranger)).ok).toBe(true)
    expect(admit(bench, stranger as never).ok).toBe(false)
  })

  it('is not a route without turns that can be read', async () => {
    const read = await checked(batchSchema, {
      after: 0,
      entries: [{ id: ID, event: { kind: 'route', atMs: 0, route: { puzzle: 'cube-2' } } }],
    })
    expect(read.ok).toBe(false)
    if (!read.ok) expect(read.problem.field).toMatch(/^entries\[0\]\.event/)
  })
})
