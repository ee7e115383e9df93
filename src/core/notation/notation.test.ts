import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Puzzle, Turn } from '../puzzle/compile'
import { must } from '../result'
import { INVERSE } from '../rotation'
import { rotateState, sameState, start } from '../state'
import { after, box, boxAndTurns, cube2, cube3, turnsIn } from '../testing'
import { LETTERS } from './letters'
import { TEXT_LIMIT, TURN_LIMIT } from './limits'
import { readAlgorithm, readTurns } from './read'
import {
  countQuarters,
  countTurns,
  holdAfter,
  inverseOf,
  mirror,
  rehold,
  simplify,
} from './rewrite'
import { expand, expandedLength, type Algorithm, type Node } from './tree'
import { writeAlgorithm, writeTurns } from './write'

const names = (turns: readonly Turn[]) => turns.map(({ name }) => name).join(' ')
const read = (puzzle: Puzzle, text: string) => names(must(readTurns(puzzle, text)))

/** Random algorithms with groups, conjugates and commutators inside each other. */
function algorithmsOf(puzzle: Puzzle): fc.Arbitrary<Algorithm> {
  const turn = fc
    .nat(puzzle.turns.length - 1)
    .map((index): Node => ({ kind: 'turn', turn: puzzle.turns[index] }))
  return fc
    .letrec<{ algorithm: Algorithm; node: Node }>((tie) => ({
      algorithm: fc.array(tie('node'), { minLength: 1, maxLength: 4 }),
      node: fc.oneof(
        { depthSize: 'small', withCrossShrink: true },
        turn,
        fc.record({
          kind: fc.constant('group' as const),
          body: tie('algorithm'),
          times: fc.integer({ min: 1, max: 4 }),
          inverse: fc.boolean(),
        }),
        fc.record({
          kind: fc.constant('conjugate' as const),
          setup: tie('algorithm'),
          body: tie('algorithm'),
        }),
        fc.record({
          kind: fc.constant('commutator' as const),
          first: tie('algorithm'),
          second: tie('algorithm'),
        }),
      ),
    }))
    .algorithm.filter((algorithm) => expandedLength(algorithm) <= TURN_LIMIT)
}

describe('reading and writing', () => {
  it.each(LETTERS.map(({ id }) => id))('is the identity in the dialect %s', (dialect) => {
    fc.assert(
      fc.property(algorithmsOf(cube3), (algorithm) => {
        const text = writeAlgorithm(algorithm, dialect)
        const again = must(readAlgorithm(cube3, text, dialect))
        expect(writeAlgorithm(again, dialect)).toBe(text)
        expect(names(expand(cube3, again))).toBe(names(expand(cube3, algorithm)))
      }),
    )
  })

  it('is the identity for the plain turns of any box', () => {
    fc.assert(
      fc.property(boxAndTurns, ([puzzle, turns]) => {
        expect(read(puzzle, writeTurns(turns))).toBe(names(turns))
      }),
    )
  })

  it.each([
    ["(R U R' U')2", "R U R' U' R U R' U'"],
    ["(R U)'", "U' R'"],
    ['[R: U2]', "R U2 R'"],
    ['[R, U]', "R U R' U'"],
    ['R2\u2019 U\u2032', "R2 U'"],
    ['Rw 3Rw', '1-2R x'],
    ['R // a remark\nU', 'R U'],
    ['R3 RU2R', "R' R U2 R"],
    ['2-3U M E S x y z', '2-3U M E S x y z'],
  ])('understands %s', (text, turns) => {
    // Three layers at once are the whole 3x3x3, so that one is read on a 4x4x4.
    const puzzle = text.includes('3Rw') ? box(4, 4, 4) : cube3
    expect(read(puzzle, text)).toBe(text.includes('3Rw') ? '1-2R 1-3R' : turns)
  })

  it.each([
    ['R Q', 2, /'Q' names no layer/],
    ['(R U', 0, /never closed/],
    ['R ) U', 2, /closes or divides nothing/],
    ['[R U]', 4, /colon.*comma/],
    ['R4', 1, /4 times/],
    ['R0', 1, /0 times/],
    ['3', 1, /missing/],
    ['2-1R', 0, /small number first/],
    ['Ri', 1, /letters with i/],
    ['Rw', 0, /fewer layers.*x/],
    ['M', 0, /names no layer/],
  ])('says at which character %s goes wrong', (text, at, sentence) => {
    const result = readTurns(cube2, text)
    if (result.ok) throw new Error('it was read')
    expect(result.problem.at).toBe(at)
    expect(result.problem.sentence).toMatch(sentence)
  })

  it('says so where a layer makes half turns only', () => {
    const result = readTurns(box(3, 2, 3), 'U R')
    expect(result.ok ? '' : result.problem.sentence).toMatch(/half turns.*R2/)
  })

  it('refuses what would expand without end', () => {
    const result = readTurns(cube3, '((((R)999)999)999)999')
    expect(result.ok ? '' : result.problem.sentence).toMatch(/more than/)
  })

  it('reads turns with i only when told to', () => {
    expect(names(must(readTurns(cube2, 'Ri U2 Fi', 'i')))).toBe("R' U2 F'")
    expect(readTurns(cube2, "R'", 'i').ok).toBe(false)
  })
})

describe('rewriting', () => {
  it('in another hold does the same elsewhere', () => {
    fc.assert(
      fc.property(turnsIn(cube3), fc.nat(23), (turns, hold) => {
        const first = rotateState(after(cube3, turns), hold)
        const second = after(cube3, rehold(cube3, turns, hold), rotateState(start(cube3), hold))
        expect(sameState(first, second)).toBe(true)
      }),
    )
  })

  it('in a mirror keeps cycle lengths and is undone by another mirror', () => {
    fc.assert(
      fc.property(turnsIn(cube3), fc.constantFrom(0, 1, 2), (turns, axis) => {
        const there = mirror(cube3, turns, axis as 0)
        const back = mirror(cube3, there, axis as 0)
        expect(sameState(after(cube3, back), after(cube3, turns))).toBe(true)
        expect(countTurns(there)).toBe(countTurns(turns))
        expect(countQuarters(there)).toBe(countQuarters(turns))
      }),
    )
    expect(names(mirror(cube2, must(readTurns(cube2, "R U R' U'"))))).toBe("L' U' L U")
  })

  it('without idle turns reaches the same state with no more turns', () => {
    fc.assert(
      fc.property(boxAndTurns, ([puzzle, turns]) => {
        const short = simplify(puzzle, turns)
        expect(sameState(after(puzzle, short), after(puzzle, turns))).toBe(true)
        expect(short.length).toBeLessThanOrEqual(turns.length)
        expect(simplify(puzzle, [...turns, ...inverseOf(puzzle, turns)])).toEqual([])
      }),
    )
  })

  it('adds whole-puzzle turns up to the hold they lead to', () => {
    const turns = must(readTurns(cube2, "x y2 z'"))
    const hold = holdAfter(turns)
    expect(sameState(rotateState(after(cube2, turns), INVERSE[hold]), start(cube2))).toBe(true)
  })
})

describe('what would become too long', () => {
  const refused = (text: string) => {
    const read = readTurns(cube3, text)
    return read.ok ? `${read.value.length} turns` : read.problem.sentence
  }

  it('is refused before anything is expanded, also where it would be thrown away later', () => {
    expect(refused('((((R)999)999)999)0')).toMatch(/more than 10000 turns/)
    expect(refused('(R)0')).toMatch(/0 times/)
    expect(refused('[((R)999)999: U]')).toMatch(/more than 10000 turns/)
    expect(refused('[U, ((R)99)99]')).toMatch(/more than 10000 turns/)
    expect(refused(`${'(R)999 '.repeat(11)}`)).toMatch(/more than 10000 turns/)
    expect(refused('(R)999')).toBe('999 turns')
  })

  it('is refused where brackets lie too deep or the text has no end', () => {
    for (const [open, close] of [
      ['(', ')'],
      ['[', ': U]'],
    ])
      expect(refused(`${open.repeat(1900)}R${close.repeat(1900)}`)).toMatch(/24 deep/)
    expect(refused('('.repeat(20) + 'R' + ')'.repeat(20))).toBe('1 turns')
    expect(refused(' '.repeat(TEXT_LIMIT + 1))).toMatch(/characters/)
  })
})
