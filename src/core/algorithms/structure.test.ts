import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { readTurns } from '../notation/read'
import { simplify } from '../notation/rewrite'
import { writeAlgorithm } from '../notation/write'
import { must } from '../result'
import { inverseOf } from '../state'
import { structureOf, turnsOfStructure } from './structure'

const cube3 = must(puzzleById('cube-3'))
const named = (turns: readonly { name: string }[]) => turns.map(({ name }) => name).join(' ')
const builtOf = (text: string) => {
  const found = structureOf(cube3, must(readTurns(cube3, text)))
  return found && writeAlgorithm(found)
}

describe('how a sequence is built', () => {
  it('is found from the turns alone, also where some have joined', () => {
    expect(builtOf("R U R' U'")).toBe('[R, U]')
    expect(builtOf("F R U R' U' F'")).toBe('[F: [R, U]]')
    expect(builtOf("R' U R' D2 R U' R' D2 R2")).toBe("[R': [U, R' D2 R]]")
    expect(builtOf("R U R' U' R U R' U'")).toBe("(R U R' U')2")
    expect(builtOf("R2 U R U R' U' R' U' R' U R'")).toMatch(/^\[/)
    expect(builtOf('R U F L')).toBeUndefined()
  })

  it('gives back the turns of which it was found, on every puzzle', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...CATALOG_IDS),
        fc.array(fc.nat(), { minLength: 1, maxLength: 3 }),
        fc.array(fc.nat(), { minLength: 1, maxLength: 3 }),
        fc.array(fc.nat(), { maxLength: 2 }),
        (id, first, second, setup) => {
          const puzzle = must(puzzleById(id))
          const plain = puzzle.turns.filter(({ whole }) => !whole)
          const [a, b, s] = [first, second, setup].map((picks) =>
            simplify(
              puzzle,
              picks.map((i) => plain[i % plain.length]),
            ),
          )
          const back = (turns: typeof a) => inverseOf(puzzle, turns)
          const turns = simplify(puzzle, [...s, ...a, ...b, ...back(a), ...back(b), ...back(s)])
          const found = structureOf(puzzle, turns)
          if (found) expect(named(turnsOfStructure(puzzle, found))).toBe(named(turns))
          // A plain commutator of layers that cross is always seen to be one.
          const isPlain = s.length === 0 && turns.length === 2 * (a.length + b.length)
          if (isPlain && a.length > 0 && b.length > 0) expect(found).toBeDefined()
        },
      ),
      { numRuns: 150 },
    )
  })
})
