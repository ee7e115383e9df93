import { describe, expect, it } from 'vitest'
import { puzzleById } from '@/core/catalog'
import { follow, openBench, type Bench } from '@/core/coach/bench'
import { plan } from '@/core/coach/plan'
import { must } from '@/core/result'
import { schoolNamed } from '@/core/schools'
import { scramble, scrambledState } from '@/core/scramble/scramble'
import { NO_GUIDE } from '@/ui/puzzle-view/overlay'
import { guideOf } from './guide'

function benchOf(id: string, school: string, seed: number): Bench {
  const puzzle = must(puzzleById(id))
  const state = scrambledState(puzzle, scramble(puzzle, seed))
  const route = must(plan(puzzle, must(schoolNamed(id, school)), state))
  return follow(openBench(puzzle, state), { kind: 'route', atMs: 0, route })
}

/** The bench after the turns of the tape, each in its turn. */
function* walk(bench: Bench): Generator<Bench> {
  let now = bench
  for (;;) {
    yield now
    const { trail, done, step } = now
    const card = trail?.steps[step]
    const next = trail?.tape[done]
    if (!trail || !card) return
    if (card.turns.length === 0) now = follow(now, { kind: 'pass', atMs: 0 })
    else if (next) now = follow(now, { kind: 'turn', atMs: 0, name: next.name })
    else return
  }
}

describe('what leads the eye on the bench', () => {
  it.each([
    ['cube-3', 'piece-by-piece'],
    ['prism-6', 'piece-by-piece'],
    ['tetra-3', 'face-then-three'],
    ['cube-3', 'layers'],
  ])('numbers what the card names until its first layer turns: %s, %s', (id, school) => {
    const puzzle = must(puzzleById(id))
    let numbered = 0
    for (const bench of walk(benchOf(id, school, 6))) {
      const guide = guideOf(puzzle, bench, true)
      const { trail, step, done } = bench
      const card = trail?.steps[step]
      const next = trail?.tape[done]
      if (!trail || !card || bench.solved) continue
      expect(guide.turn?.name).toBe(next?.name)
      const begun = trail.tape
        .slice(trail.firstOfStep[step], done)
        .some(({ role }) => role !== 'hold')
      const pieces = (card.lines ?? []).map(({ piece }) => piece)
      expect(guide.numbered.map((p) => puzzle.pieces[p].id)).toEqual(begun ? [] : pieces)
      if (guide.numbered.length > 0) numbered++
      // An arrow starts where its piece lies now.
      for (const [i, { from }] of guide.arrows.entries()) {
        expect(from.piece).toBe(guide.numbered[i])
        expect(from.rotation).toBe(bench.state[from.piece])
      }
    }
    expect(numbered).toBeGreaterThan(0)
  })

  it('shows no turn when only a pointer is wanted, and nothing off the card', () => {
    const bench = benchOf('cube-3', 'piece-by-piece', 6)
    const { puzzle } = bench
    expect(guideOf(puzzle, bench, false).turn).toBeUndefined()
    const next = bench.trail?.tape[0].name ?? ''
    const other = puzzle.turns.find(({ name, whole }) => !whole && name !== next)
    const off = follow(bench, { kind: 'turn', atMs: 0, name: other?.name ?? '' })
    expect(off.deviation).toBeDefined()
    expect(guideOf(puzzle, off, true)).toEqual(NO_GUIDE)
  })
})
