import { describe, expect, it } from 'vitest'
import { puzzleById } from '../core/catalog'
import { plan } from '../core/coach/plan'
import { must } from '../core/result'
import { schoolsFor } from '../core/schools'
import { scramble, scrambledState } from '../core/scramble/scramble'
import { batchSchema } from './benchEventSchema'
import { checked } from './outside'

describe('what a bench may send', () => {
  // One of each sort of way: written schools, mods, shapes, small groups, tips.
  it.each(['cube-2', 'prism-6', 'shift-3x3x5', 'twin-3', 'tetra-3'])(
    'holds every route that is planned for %s',
    async (id) => {
      const puzzle = must(puzzleById(id))
      for (const school of schoolsFor(id)) {
        const route = must(plan(puzzle, school, scrambledState(puzzle, scramble(puzzle, 9))))
        const events = [{ kind: 'route', atMs: 0, route }]
        const read = await checked(batchSchema, { from: 0, events })
        expect(read.ok ? '' : read.problem.sentence, school.id).toBe('')
      }
    },
  )

  it('is not a route without turns that can be read', async () => {
    const read = await checked(batchSchema, {
      from: 0,
      events: [{ kind: 'route', atMs: 0, route: { puzzle: 'cube-2' } }],
    })
    expect(read.ok).toBe(false)
    if (!read.ok) expect(read.problem.field).toMatch(/^events\[0\]/)
  })
})
