import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '../../catalog'
import type { Puzzle, Turn } from '../../puzzle/compile'
import { must, type Result } from '../../result'
import { SPOKEN, spokenDialect } from '.'
import { phraseOf } from './phrases'
import { numberFirst } from './numberFirst'
import { readLoosely, readSpoken, speakTurn } from './spoken'
import { words } from './words'
import { writeNames, writeTurns } from '../write'

const cube3 = must(puzzleById('cube-3'))
const named = (turns: readonly Turn[]) => turns.map(({ name }) => name).join(' ')
const ids = fc.constantFrom(...CATALOG_IDS)
const dialects = fc.constantFrom(...SPOKEN)
const rowOf = (puzzle: Puzzle) =>
  fc
    .array(fc.nat(puzzle.turns.length - 1), { maxLength: 30 })
    .map((picks) => picks.map((i) => puzzle.turns[i]))
const problem = (read: Result<unknown>) => {
  if (read.ok) throw new Error('it was read')
  return read.problem
}

describe('a spoken dialect', () => {
  it('reads what it has written, on every puzzle', () => {
    fc.assert(
      fc.property(ids, dialects, fc.gen(), (id, dialect, gen) => {
        const puzzle = must(puzzleById(id))
        const turns = gen(rowOf, puzzle)
        expect(named(must(readSpoken(puzzle, writeTurns(turns, dialect.id), dialect)))).toBe(
          named(turns),
        )
      }),
      { numRuns: 150 },
    )
  })

  it('never says two turns alike, nor one as another dialect falls back to', () => {
    for (const id of CATALOG_IDS) {
      const { turns } = must(puzzleById(id))
      for (const dialect of SPOKEN) {
        const said = turns.map(({ name }) => speakTurn(dialect, name))
        expect(new Set(said).size).toBe(turns.length)
        for (const { name } of turns) {
          const own = dialect.says(name)
          const other = turns.find((turn) => phraseOf(turn.name) === own)
          expect(other === undefined || other.name === name).toBe(true)
        }
      }
    }
  })

  it('says what the others cannot in plain words', () => {
    const [hands, raise] = ['hands', 'raise-lower'].map((id) => spokenDialect(id) ?? words)
    const say = (dialect: typeof words, text: string) => writeNames(text.split(' '), dialect.id)
    expect(say(hands, "R U' L' F R2 M'")).toBe(
      'right up, top with the left hand, left up, front clockwise, right half round, middle slice as the left back',
    )
    expect(say(raise, "R' L U u'")).toBe('lower right, lower left, top clockwise, top tip back')
    expect(say(numberFirst, "R U2 F' M2")).toBe("R 2U F' 2M")
    expect(say(numberFirst, 'R 1-2U F')).toBe('R, layers 1 to 2 from the top clockwise, F')
  })

  it('takes a number in front for a half turn, and asks for words for an inner layer', () => {
    const cube4 = must(puzzleById('cube-4'))
    const mixed = "2R U', layer 2 from the right clockwise, F"
    expect(named(must(readSpoken(cube4, mixed, numberFirst)))).toBe("R2 U' 2R F")
    const { sentence, at } = problem(readSpoken(cube4, 'R 3U F', numberFirst))
    expect(sentence).toContain("'3U' is no turn")
    expect(at).toBe(2)
  })

  it('names the place of a word that it does not know, and what a layer can do', () => {
    const { at, sentence } = problem(readSpoken(cube3, 'right clockwise, sideways', words))
    expect(at).toBe(17)
    expect(sentence).toContain("'sideways'")
    const box = must(puzzleById('box-3x3x2'))
    expect(problem(readSpoken(box, 'right', words)).sentence).toContain('right half round')
    expect(problem(readSpoken(cube3, 'x'.repeat(70_000), words)).sentence).toContain('characters')
  })
})

describe('words without a direction', () => {
  it('have every reading that their layers allow, and none else', () => {
    fc.assert(
      fc.property(ids, fc.gen(), (id, gen) => {
        const puzzle = must(puzzleById(id))
        const turns = gen(rowOf, puzzle).slice(0, 4)
        const text = turns.map(({ name }) =>
          phraseOf(name).replace(/ (clockwise|back|half round)$/, ''),
        )
        const readings = must(readLoosely(puzzle, text.join(', '), words))
        const count = turns.reduce(
          (product, { grip }) => product * puzzle.turns.filter((turn) => turn.grip === grip).length,
          1,
        )
        expect(readings).toHaveLength(count)
        expect(readings.map(named)).toContain(named(turns))
      }),
      { numRuns: 60 },
    )
  })

  it('may be those of a hand: up, across, down, across two', () => {
    const readings = must(readLoosely(cube3, 'up, across, down, across two', words))
    expect(readings.map(named)).toEqual(["R U R' U2", "R U' R' U2"])
    expect(problem(readLoosely(cube3, Array(9).fill('top').join(','), words)).sentence).toMatch(
      /more than 4096 ways/,
    )
    expect(problem(readLoosely(cube3, 'up, along', words)).at).toBe(4)
  })
})
