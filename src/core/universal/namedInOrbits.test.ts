import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { unseenChanges } from '../analysis/lookAlikes'
import { puzzleById } from '../catalog'
import type { Puzzle } from '../puzzle/compile'
import { seededRandom } from '../random'
import { must } from '../result'
import { isInShape, scramble, scrambledState } from '../scramble/scramble'
import { start, turnAll, type State } from '../state'
import { diagnose } from '../stuck/diagnose'
import { FAULTS, withFault } from '../stuck/faults'
import { namedInOrbits, outsideOrbits } from './namedInOrbits'
import { reshape } from './reshape'

const CHANGING = ['shift-3x3x5', 'plus-3x3x3', 'diagonal-3x3x5'] as const

/** A scrambled state brought back into shape, so that colours alone are left. */
function inShape(puzzle: Puzzle, seed: number): State {
  const away = scrambledState(puzzle, scramble(puzzle, seed))
  return must(turnAll(puzzle, away, reshape(puzzle, away) ?? []))
}

/** What is seen: the looks, whichever piece shows them. */
const seen = (puzzle: Puzzle, state: State): string =>
  Array.from(state, (r, p) => puzzle.look[24 * p + r])
    .sort((a, b) => a - b)
    .join()

describe.each(CHANGING)('equal pieces of %s', (id) => {
  const puzzle = must(puzzleById(id))
  const changes = unseenChanges(puzzle)

  it('are told apart so that each lies where its orbit takes it, however they were called', () => {
    fc.assert(
      fc.property(fc.nat(200), fc.array(fc.nat(1000), { maxLength: 20 }), (seed, picks) => {
        const reached = inShape(puzzle, seed)
        const renamed = picks.reduce<State>((state, n) => {
          const next = changes[n % changes.length].make(state)
          return isInShape(puzzle, next) ? next : state
        }, reached)
        const named = namedInOrbits(puzzle, renamed)
        expect(seen(puzzle, named)).toBe(seen(puzzle, reached))
        expect(outsideOrbits(puzzle, named)).toEqual([])
      }),
      { numRuns: 15 },
    )
  })

  it('are all at home where the puzzle looks finished', () => {
    for (const { make } of changes)
      expect(Array.from(namedInOrbits(puzzle, make(start(puzzle))))).toEqual(
        Array.from(start(puzzle)),
      )
  })

  it('leave no fault undecided', () => {
    const random = seededRandom(4)
    for (const fault of FAULTS)
      for (let seed = 0; seed < 4; seed++) {
        const state = withFault(
          puzzle,
          scrambledState(puzzle, scramble(puzzle, seed)),
          fault,
          random,
        )
        if (!state) continue
        const { verdict } = diagnose(puzzle, state)
        expect(verdict, `${fault} ${seed}`).not.toBe('not known')
      }
  })
})
