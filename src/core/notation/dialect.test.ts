import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { must } from '../result'
import { DIALECT_IDS, meaningsOf, readIn, rewritten, understood } from './dialect'
import { withTurns, writeTurnName, writeTurns } from './write'

const cube3 = must(puzzleById('cube-3'))
const cube4 = must(puzzleById('cube-4'))
const named = (turns: readonly { name: string }[]) => turns.map(({ name }) => name).join(' ')

describe('a dialect', () => {
  it('reads what it has written, on every puzzle', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...CATALOG_IDS),
        fc.constantFrom(...DIALECT_IDS),
        fc.array(fc.nat(), { maxLength: 30 }),
        (id, dialect, picks) => {
          const puzzle = must(puzzleById(id))
          const turns = picks.map((i) => puzzle.turns[i % puzzle.turns.length])
          expect(named(must(readIn(puzzle, writeTurns(turns, dialect), dialect)))).toBe(
            named(turns),
          )
        },
      ),
      { numRuns: 200 },
    )
  })

  it('never writes two turns of a puzzle alike', () => {
    for (const id of CATALOG_IDS) {
      const { turns } = must(puzzleById(id))
      for (const dialect of DIALECT_IDS)
        expect(new Set(turns.map(({ name }) => writeTurnName(name, dialect))).size).toBe(
          turns.length,
        )
    }
  })

  it('gives both meanings of small letters, and of a number in front', () => {
    const meant = (text: string, puzzle = cube4) =>
      meaningsOf(puzzle, text).map(({ turns }) => named(turns))
    expect(meant("r U'")).toEqual(["2R U'", "1-2R U'"])
    expect(meant('2R U')).toEqual(['2R U', 'R2 U'])
    expect(meant('R U2')).toEqual(['R U2'])
    expect(meant('Ri U')).toEqual(["R' U"])
    expect(meant('nothing')).toEqual([])
  })

  it('gives both meanings of a number in front beside an i, whatever the dialect that is chosen', () => {
    const puzzle = must(puzzleById('cube-4'))
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('2R', 'Ui', 'FI', 'L', '2B', 'D'), { minLength: 1, maxLength: 6 }),
        (words) => {
          const text = words.join(' ')
          const meanings = meaningsOf(puzzle, text).map(({ turns }) => writeTurns(turns))
          const back = text.replace(/[iI]/g, "'")
          expect(meanings).toContain(back)
          expect(meanings).toContain(back.replace(/2(\w)/g, '$12'))
          expect(understood(puzzle, text, 'i').meanings.length).toBe(/2/.test(text) ? 2 : 1)
        },
      ),
    )
  })

  it('is taken from the text where only one can read it, and asked for where two can', () => {
    const asked = understood(cube3, 'right clockwise, top back', 'prime')
    expect(asked).toMatchObject({ dialect: 'words', turns: "R U'" })
    expect(asked.meanings).toHaveLength(1)
    const two = understood(cube4, '2R U', 'prime')
    expect(two).toMatchObject({ dialect: 'prime', turns: '2R U' })
    expect(two.meanings.map(({ turns }) => named(turns))).toEqual(['2R U', 'R2 U'])
    const open = understood(cube4, "r U'", 'prime')
    expect(open.problem?.at).toBe(0)
    expect(open.turns).toBe('')
    // Once it is known what small letters mean on this puzzle, that is taken, and both are still shown.
    const meant = understood(cube4, "r U'", 'prime', 'wide')
    expect(meant).toMatchObject({ dialect: 'small-wide', turns: "1-2R U'" })
    expect(meant.meanings).toHaveLength(2)
    expect(understood(cube4, "r U'", 'small-inner', 'wide').turns).toBe("2R U'")
    expect(understood(cube4, "R U'", 'prime', 'wide').dialect).toBe('prime')
    expect(understood(cube3, '[R: Ui]', 'i').turns).toBe("[R: U']")
  })

  it('points at the character of the text as it was given', () => {
    const read = readIn(cube4, "r u' R? U", 'small-wide')
    expect(read.ok ? undefined : read.problem.at).toBe(6)
  })

  it('is that of the turns that a sentence names, and leaves all else as it stands', () => {
    const text = "Its heart is a commutator: U, then R', then both taken back. A layer's turn, U2."
    expect(withTurns(cube3, text, 'hands')).toBe(
      "Its heart is a commutator: top with the right hand, then right down, then both taken back. A layer's turn, top half round.",
    )
    expect(withTurns(cube3, text, 'i')).toContain('U, then Ri, then')
    expect(withTurns(cube3, text, 'prime')).toBe(text)
    const tetra = must(puzzleById('tetra-3'))
    expect(withTurns(tetra, "a tip: u' then U", 'words')).toBe(
      'a tip: top tip back then top clockwise',
    )
  })

  it('keeps brackets where it has any, and writes the turns out where it has none', () => {
    expect(rewritten(cube3, "[R: U'] (R U)2", 'i')).toBe('[R: Ui] (R U)2')
    expect(rewritten(cube3, "[R: U']", 'hands')).toBe(
      'right up, top with the left hand, right down',
    )
  })
})
