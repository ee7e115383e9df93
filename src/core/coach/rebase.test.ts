import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { must } from '../result'
import { isSolved, start, writeState } from '../state'
import { cube2, cube3, capped, turnsIn } from '../testing'
import { simplify } from '../notation/rewrite'
import { schoolNamed } from '../schools'
import { admit } from './admit'
import {
  openBench,
  quarterCountOf,
  replay,
  turnCountOf,
  type Bench,
  type BenchEvent,
  latestTurns,
  turnsMade,
} from './bench'
import { plan } from './plan'
import { rebase, type Entry } from './rebase'

const entries = (events: readonly BenchEvent[], page = ''): Entry[] =>
  events.map((event, i) => ({ id: `${page}${i}`, event }))

const tower = capped('up', 'down')

/** What a page may do next: a turn that is free, or take one back. */
function eventsOn(bench: Bench, moves: readonly { index: number; back: boolean }[]): BenchEvent[] {
  const events: BenchEvent[] = []
  let now = bench
  for (const { index, back } of moves) {
    const event: BenchEvent = back
      ? { kind: 'undo', atMs: 0 }
      : { kind: 'turn', atMs: 0, name: bench.puzzle.turns[index % bench.puzzle.turns.length].name }
    const next = admit(now, event)
    if (!next.ok) continue
    now = next.value
    events.push(event)
  }
  return events
}

const moves = fc.array(
  fc.record({ index: fc.nat(500), back: fc.integer({ min: 0, max: 4 }).map((n) => n === 0) }),
  { maxLength: 12 },
)
const names = (bench: Bench) => latestTurns(bench).map(({ name }) => name)

describe('a page that comes second', () => {
  it.each([
    ['a 2x2x2', cube2],
    ['a puzzle that changes shape', tower],
  ])('puts what still holds behind what was first: %s', (_, puzzle) => {
    fc.assert(
      fc.property(moves, moves, moves, (common, theirs, mine) => {
        const open = openBench(puzzle, start(puzzle))
        const before = replay(open, eventsOn(open, common))
        const others = eventsOn(before, theirs)
        const own = entries(eventsOn(before, mine), 'mine')
        const base = replay(before, others)
        const { bench, kept, dropped } = rebase(base, before, own)
        // Every event is one or the other, in order, and the bench is what the kept ones make of the base.
        expect([...kept, ...dropped].map(({ id }) => id).sort()).toEqual(
          own.map(({ id }) => id).sort(),
        )
        const events = kept.map(({ event }) => event)
        expect(writeState(bench.state)).toBe(writeState(replay(base, events).state))
        // Nothing of the other page is taken back by it, unless it stood there for both.
        if (names(base).join() !== names(before).join())
          expect(names(bench).slice(0, turnsMade(base))).toEqual(names(base))
        else expect(dropped).toEqual([])
        // Turns are dropped only where they are blocked now.
        if (puzzle === cube2) expect(dropped.every(({ event }) => event.kind === 'undo')).toBe(true)
      }),
    )
  })

  it('drops a plan that was made for another position, and keeps one that still leads home', () => {
    const school = must(schoolNamed('cube-2', 'layer-by-layer'))
    const turned = replay(openBench(cube2, start(cube2)), [
      { kind: 'turn', atMs: 0, name: 'R' },
      { kind: 'turn', atMs: 0, name: 'U' },
    ])
    const route = must(plan(cube2, school, turned.state))
    const own = entries([{ kind: 'route', atMs: 0, route }])
    const hint = replay(turned, [{ kind: 'hint', atMs: 0, strength: 1 }])
    expect(rebase(hint, turned, own).kept).toEqual(own)
    const moved = replay(turned, [{ kind: 'turn', atMs: 0, name: 'F' }])
    expect(rebase(moved, turned, own).dropped).toEqual(own)
  })
})

describe('a bench counts as it goes', () => {
  it('the same as over its whole history', () => {
    fc.assert(
      fc.property(turnsIn(cube3), fc.nat(20), (turns, back) => {
        const events: BenchEvent[] = [
          ...turns.map(({ name }): BenchEvent => ({ kind: 'turn', atMs: 0, name })),
          ...Array.from({ length: back }, (): BenchEvent => ({ kind: 'undo', atMs: 0 })),
        ]
        const bench = replay(openBench(cube3, start(cube3)), events)
        const layers = simplify(cube3, latestTurns(bench)).filter(({ whole }) => !whole)
        expect(turnCountOf(bench)).toBe(layers.length)
        expect(quarterCountOf(bench)).toBe(
          layers.reduce((sum, { amount }) => sum + (amount === 2 ? 2 : 1), 0),
        )
        expect(bench.solved).toBe(isSolved(cube3, bench.state))
      }),
    )
  })
})
