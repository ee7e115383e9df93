import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { stateMade } from '../analysis/effect'
import { CATALOG_IDS, puzzleById } from '../catalog'
import type { EffectsKind } from '../claims/claim'
import { evidenceOfTurns } from '../claims/evidence'
import { Judged } from '../claims/judged.testing'
import { readTurns } from '../notation/read'
import type { Turn } from '../puzzle/compile'
import { must } from '../result'
import { start, turnAll } from '../state'
import { sentencesOf } from '../words/say'
import { doingOf, type Doing } from './does'
import { followedBy, undoing } from './moves'

const ids = fc.constantFrom(...CATALOG_IDS)
const rows = fc.array(fc.nat(), { minLength: 1, maxLength: 12 })
const cube3 = must(puzzleById('cube-3'))
const doing = (text: string, puzzle = cube3) => must(doingOf(puzzle, must(readTurns(puzzle, text))))

/** Turns of a puzzle and what they do; undefined where they cannot be made or leave the shape. */
function drawn(id: string, picks: readonly number[]) {
  const puzzle = must(puzzleById(id))
  const turns = picks.map((i) => puzzle.turns[i % puzzle.turns.length])
  const told = doingOf(puzzle, turns)
  return told.ok ? { puzzle, turns, told: told.value } : undefined
}

/** What stops it is judged beside. */
const EFFECT_KINDS: readonly EffectsKind[] = [
  'roundOf',
  'arrives',
  'roundsOf',
  'spun',
  'nothingChanged',
  'borrowedOnly',
  'heldAfter',
  'backAfter',
]

describe('what a sequence does', () => {
  const judged = new Judged(20)

  it('is what the engine makes of the finished puzzle, claim by claim', () => {
    fc.assert(
      fc.property(ids, rows, (id, picks) => {
        const found = drawn(id, picks)
        if (!found) return
        const { puzzle, turns, told } = found
        const state = must(stateMade(puzzle, turns))
        for (const { from, to } of told.hops) expect(puzzle.place[24 * from + state[from]]).toBe(to)
        const moved = new Set([...told.hops.map(({ from }) => from), ...told.turned])
        state.forEach((r, p) => expect(r !== 0).toBe(moved.has(p)))
        expect(told.borrowed.every((p) => !moved.has(p))).toBe(true)
        expect(judged.faultsOf(puzzle, told.said, evidenceOfTurns(puzzle, turns, state))).toEqual(
          [],
        )
      }),
      { numRuns: 150 },
    )
    expect(judged.unfound).toEqual([])
    expect(EFFECT_KINDS.filter((kind) => !judged.kinds.has(kind))).toEqual([])
  })

  it('comes back after as many times as it says, and at no divisor of that', () => {
    fc.assert(
      fc.property(ids, rows, (id, picks) => {
        const found = drawn(id, picks)
        if (!found || found.told.order > 200) return
        const { puzzle, turns, told } = found
        const isBack = (n: number) => {
          const all: Turn[] = Array.from({ length: n }, () => turns).flat()
          const end = turnAll(puzzle, start(puzzle), all)
          return end.ok && end.value.every((r) => r === end.value[0])
        }
        expect(isBack(told.order)).toBe(true)
        for (let n = 1; n < told.order; n++) if (told.order % n === 0) expect(isBack(n)).toBe(false)
      }),
      { numRuns: 40 },
    )
  })

  it('of A B is that of A and then of B', () => {
    fc.assert(
      fc.property(ids, rows, rows, (id, first, second) => {
        const [a, b, both] = [first, second, [...first, ...second]].map((picks) => {
          const puzzle = must(puzzleById(id))
          const turns = picks
            .map((i) => puzzle.turns[i % puzzle.turns.length])
            .filter(({ whole }) => !whole)
          return stateMade(puzzle, turns)
        })
        if (!a.ok || !b.ok || !both.ok) return
        const puzzle = must(puzzleById(id))
        expect(followedBy(puzzle, a.value, b.value)).toEqual(both.value)
        expect(followedBy(puzzle, a.value, undoing(puzzle, a.value))).toEqual(start(puzzle))
      }),
      { numRuns: 80 },
    )
  })

  it('is told in words that a solver would use', () => {
    const wordsOf = ({ said }: Doing) => sentencesOf(cube3, said)
    const three = doing("R' L F2 R L' U2")
    expect(wordsOf(three)[0]).toMatch(/^Three edges go round: the bottom front edge to /)
    expect(three.summary).toBe('3 edges round, 2 turned in place')
    const turned = doing("R U' R U R U R U' R' U' R2")
    expect(wordsOf(turned).join(' ')).toContain(
      'The top centre is turned in place, a quarter anticlockwise, which does not show.',
    )
    expect(wordsOf(doing("R R'"))[0]).toBe('Nothing is changed by it.')
    expect(wordsOf(doing('R U y')).join(' ')).toContain(
      'Afterwards the whole puzzle is held otherwise: what was in front is on the left',
    )
  })

  it('is refused where a turn is blocked', () => {
    const twin = must(puzzleById('diagonal-3x3x5'))
    const told = doingOf(twin, must(readTurns(twin, 'U R2 F2 U R2')))
    expect(told.ok || told.problem.sentence).toBeTruthy()
  })
})
