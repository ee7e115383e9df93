import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { must } from '../result'
import { scramble, scrambledState } from '../scramble/scramble'
import { schoolNamed } from '../schools'
import { capped, cube2, cube3 } from '../testing'
import { admit } from './admit'
import {
  haveSameTurns,
  latestTurns,
  openBench,
  quarterCountOf,
  replay,
  turnCountOf,
  turnsMade,
  type Bench,
  type BenchEvent,
} from './bench'
import { plan } from './plan'
import { benchFrom, snapshotOf, type Snapshot } from './snapshot'

const tower = capped('up', 'down')
const route = must(
  plan(
    cube2,
    must(schoolNamed('cube-2', 'one-trigger')),
    scrambledState(cube2, scramble(cube2, 5)),
  ),
)

/** One thing after another, as far as it fits: turns of the plan, other turns, taken back, hints, the plan anew. */
function happenings(bench: Bench, choices: readonly number[]): BenchEvent[] {
  const events: BenchEvent[] = []
  let now = bench
  for (const choice of choices) {
    const expected = now.trail?.tape[now.done]?.name
    const { turns } = now.puzzle
    const event: BenchEvent =
      choice % 7 === 0
        ? { kind: 'undo', atMs: 0 }
        : choice % 11 === 0
          ? { kind: 'hint', atMs: 0, strength: 2 }
          : choice % 13 === 0
            ? { kind: 'pass', atMs: 0 }
            : {
                kind: 'turn',
                atMs: 0,
                name: choice % 2 && expected ? expected : turns[choice % turns.length].name,
              }
    const next = admit(now, event)
    if (!next.ok) continue
    now = next.value
    events.push(event)
  }
  return events
}

const shown = (bench: Bench) => ({
  state: [...bench.state],
  done: bench.done,
  step: bench.step,
  deviation: bench.deviation,
  hint: bench.hint,
  slips: bench.slips,
  solved: bench.solved,
  route: bench.trail?.route,
  turns: turnsMade(bench),
  turnCount: turnCountOf(bench),
  quarterCount: quarterCountOf(bench),
})

/** As the database and the line bring it. */
const carried = (snapshot: Snapshot) => JSON.parse(JSON.stringify(snapshot)) as Snapshot

describe('a bench that is taken up from a snapshot', () => {
  it.each([
    ['with a plan', cube2, [{ kind: 'route', atMs: 0, route }] as BenchEvent[]],
    ['in free play', cube3, []],
    ['on a puzzle that changes shape', tower, []],
  ])('goes on as the bench that it was made of: %s', (_, puzzle, first) => {
    fc.assert(
      fc.property(fc.array(fc.nat(9999), { maxLength: 60 }), fc.nat(60), (choices, cut) => {
        const open = openBench(puzzle, scrambledState(puzzle, scramble(puzzle, 5)))
        const begun = replay(open, first)
        const all = [...first, ...happenings(begun, choices)]
        const at = Math.min(cut, all.length)
        const before = replay(open, all.slice(0, at))
        let whole = before
        let now = must(benchFrom(puzzle, carried(snapshotOf(before, at))))
        expect(shown(now)).toEqual(shown(whole))
        for (const event of all.slice(at)) {
          const next = admit(now, event)
          if (!next.ok) {
            // Only what lies before it is not known.
            expect(next.problem.code).toBe('beyond')
            expect(turnsMade(now)).toBe(now.before)
            return
          }
          now = next.value
          whole = replay(whole, [event])
          expect(shown(now)).toEqual(shown(whole))
          expect(haveSameTurns(now, whole)).toBe(true)
        }
        const known = latestTurns(now)
        expect(known).toEqual(latestTurns(whole, known.length))
      }),
    )
  })

  it('is none where the puzzle does not have what it speaks of', () => {
    const good = snapshotOf(openBench(cube2, scrambledState(cube2, scramble(cube2, 5))), 0)
    expect(benchFrom(cube2, good).ok).toBe(true)
    expect(benchFrom(cube2, { ...good, state: 'zz' }).ok).toBe(false)
    expect(benchFrom(cube2, { ...good, joined: [['9R', 0]] }).ok).toBe(false)
    expect(benchFrom(cube3, good).ok).toBe(false)
  })
})
