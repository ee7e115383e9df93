import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '../catalog'
import type { Puzzle } from '../puzzle/compile'
import { must } from '../result'
import { multiply } from '../rotation'
import { scramble, scrambledState } from '../scramble/scramble'
import { rotateState, start, type State } from '../state'
import { solids } from '../testing'
import { placeNamesOf } from './placeNames'
import { homeFilled, marksIn, marksOf, whereNow, who } from './who'

const scrambled = (puzzle: Puzzle, seed: number, hold: number): State =>
  rotateState(scrambledState(puzzle, scramble(puzzle, seed)), hold)

/** The piece and the home that 'the white centre is the top centre' speaks of. */
function readMark(puzzle: Puzzle, frame: number, sentence: string): [number[], number] {
  const scheme = puzzle.definition.colours
  const [subject, place] = sentence.split(' is ')
  const pieces = puzzle.pieces.flatMap((_, p) => (who(puzzle, scheme, p) === subject ? [p] : []))
  return [pieces, placeNamesOf(puzzle, frame).names.indexOf(place)]
}

describe('two pieces by which a hold is known again', () => {
  it.each(CATALOG_IDS)(
    'are each one piece, lie where it is said, and leave one hold only: %s',
    (id) => {
      const puzzle = must(puzzleById(id))
      const scheme = puzzle.definition.colours
      let told = 0
      fc.assert(
        fc.property(fc.integer({ min: 1, max: 9999 }), fc.nat(), (seed, nth) => {
          const frame = puzzle.holds[nth % puzzle.holds.length]
          const state = scrambled(puzzle, seed, frame)
          const marks = marksOf(puzzle, scheme, state, frame)
          if (!marks) return
          told++
          const read = marks.map(({ piece, place }) =>
            readMark(puzzle, frame, `${who(puzzle, scheme, piece)} is ${place}`),
          )
          for (const [pieces, home] of read) {
            expect(pieces).toHaveLength(1)
            expect(homeFilled(puzzle, frame, pieces[0], state[pieces[0]])).toBe(home)
          }
          // Turned as a whole any other way, one of the two lies elsewhere.
          for (const hold of puzzle.holds.slice(1)) {
            const turned = rotateState(state, hold)
            const still = read.every(
              ([[p], home]) => homeFilled(puzzle, frame, p, turned[p]) === home,
            )
            expect(still, `${id}: ${marks.map(({ place }) => place).join(' and ')}`).toBe(false)
          }
        }),
        { numRuns: 8 },
      )
      expect(told).toBeGreaterThan(0)
    },
  )

  it('are the centres of a 3x3x3, which never leave their places', () => {
    const cube3 = must(puzzleById('cube-3'))
    const scheme = cube3.definition.colours
    const marks = marksOf(cube3, scheme, scrambled(cube3, 5, 0), 0)
    expect(marks?.map(({ place }) => place)).toEqual(['the front centre', 'the top centre'])
  })

  it('say nothing of pieces that have equals', () => {
    const prism = must(puzzleById('prism-6'))
    const scheme = prism.definition.colours
    const names = marksIn(prism, scheme, start(prism), 0).map(({ piece }) =>
      who(prism, scheme, piece),
    )
    expect(new Set(names).size).toBe(names.length)
    const all = prism.pieces.map((_, p) => who(prism, scheme, p))
    for (const name of names) expect(all.filter((other) => other === name)).toHaveLength(1)
  })
})

describe('what a piece is called', () => {
  it('is by its colours, and by few of them where it has many', () => {
    const bipyramid = must(puzzleById('bipyramid-6'))
    const names = bipyramid.pieces.map((_, p) => who(bipyramid, bipyramid.definition.colours, p))
    expect(names.filter((name) => /^the six-faced \w+-\w+-\w+ corner$/.test(name))).toHaveLength(2)
    for (const name of names) expect(name.length).toBeLessThan(70)
    const cube3 = must(puzzleById('cube-3'))
    const own = cube3.pieces.map((_, p) => who(cube3, cube3.definition.colours, p))
    expect(own).toContain('the white centre')
    expect(own.some((name) => /^the \w+-\w+-\w+ corner$/.test(name))).toBe(true)
    expect(new Set(own).size).toBe(26)
  })

  it('on solids tells by a face what is true of no other piece of those colours', () => {
    let told = 0
    fc.assert(
      fc.property(solids(2), (puzzle) => {
        const names = puzzle.pieces.map(({ kind }, p) => {
          const name = who(puzzle, puzzle.definition.colours, p)
          const [, stem, how, face] = /^(.*?) (with|without) a (?:face of )?(.*)$/.exec(name) ?? []
          const outlines = /\((.*)\)/.exec(kind)?.[1].split(' and ') ?? []
          return { name, stem: stem ?? name.replace(/ \(.*/, ''), how, face, outlines }
        })
        for (const { name, stem, how, face, outlines } of names) {
          // Pieces of one name cannot be told apart by their outlines.
          for (const other of names)
            if (other.name === name) expect(other.outlines, name).toEqual(outlines)
          if (!how) continue
          told++
          const rivals = names.filter((each) => each.stem === stem && each.name !== name)
          expect(rivals.length, name).toBeGreaterThan(0)
          for (const all of [outlines, ...rivals.map((each) => each.outlines)])
            expect(all.includes(face), name).toBe((all === outlines) === (how === 'with'))
        }
      }),
      { numRuns: 60 },
    )
    expect(told).toBeGreaterThan(0)
  })

  it('follows the colours of a copy', () => {
    const cube3 = must(puzzleById('cube-3'))
    const scheme = cube3.definition.colours.map((colour) =>
      colour.name === 'white' ? { ...colour, name: 'chalk' } : colour,
    )
    const own = cube3.pieces.map((_, p) => who(cube3, scheme, p))
    expect(own).toContain('the chalk centre')
    expect(own.join()).not.toContain('white')
  })
})

describe('the place that a piece fills', () => {
  it.each(['cube-3', 'prism-6', 'twin-3', 'box-3x3x5'])('turns with the whole puzzle: %s', (id) => {
    const puzzle = must(puzzleById(id))
    const state = scrambled(puzzle, 3, 0)
    for (const hold of puzzle.holds)
      puzzle.pieces.forEach((_, p) => {
        const before = homeFilled(puzzle, 0, p, state[p])
        const after = homeFilled(puzzle, hold, p, multiply(hold, state[p]))
        expect(after).toBe(before)
        const named = whereNow(puzzle, hold, p, multiply(hold, state[p]))
        if (before !== undefined) expect(named).toBe(placeNamesOf(puzzle, hold).names[before])
      })
  })

  it('is none outside the finished shape', () => {
    const tower = must(puzzleById('shift-3x3x5'))
    const state = scrambledState(tower, scramble(tower, 4))
    const outside = tower.pieces.flatMap((_, p) =>
      whereNow(tower, 0, p, state[p]) === undefined ? [p] : [],
    )
    expect(outside.length).toBeGreaterThan(0)
    for (const p of outside)
      expect(tower.slot[24 * p + state[p]]).toBeGreaterThanOrEqual(tower.pieces.length)
  })
})
