import { describe, expect, it } from 'vitest'
import { puzzleById } from '../catalog'
import { sheetOf } from '../coach/sheet'
import { prepareFor } from '../coach/technique'
import { readTurns } from '../notation/read'
import { must } from '../result'
import { schoolsFor } from '../schools'
import { caseWishOf } from './caseWish'
import { repair } from './repair'

/** Every sequence that a school asks to be known, with its stage. */
function casesOf(id: string) {
  const puzzle = must(puzzleById(id))
  return schoolsFor(id)
    .filter(({ isWithoutBase }) => !isWithoutBase)
    .flatMap((school) => {
      prepareFor(puzzle, school)
      return sheetOf(puzzle, school).flatMap((stage) =>
        stage.byHeart.map(({ turns }) => ({ puzzle, school, stage: stage.id, turns })),
      )
    })
}

describe('a case of a school', () => {
  it.each(['cube-2', 'cube-3', 'tetra-3', 'box-3x3x2'])(
    'is served by the sequence that it has, without a slip: %s',
    (id) => {
      const cases = casesOf(id)
      expect(cases.length).toBeGreaterThan(3)
      for (const { puzzle, school, stage, turns } of cases) {
        const { wish } = caseWishOf(puzzle, school, stage, turns)
        const heard = must(readTurns(puzzle, turns))
        expect([stage, turns, repair(puzzle, heard, wish, 0).edits]).toEqual([stage, turns, 0])
      }
    },
  )

  it('finds a prime that was lost, and refuses the sequence as it was heard', () => {
    const known = casesOf('cube-2').filter(({ turns }) => /'/.test(turns) && !/[[(]/.test(turns))
    let mended = 0
    for (const { puzzle, school, stage, turns } of known.slice(0, 8)) {
      const { wish } = caseWishOf(puzzle, school, stage, turns)
      const meant = must(readTurns(puzzle, turns))
      const at = meant.findIndex(({ name }) => name.endsWith("'"))
      const heard = meant.map((turn, i) => (i === at ? puzzle.turns[turn.inverse] : turn))
      const { edits = 9, readings } = repair(puzzle, heard, wish, 1)
      expect(edits).toBeLessThanOrEqual(1)
      if (edits === 0) continue
      const names = readings.map((reading) => reading.turns.map(({ name }) => name).join(' '))
      expect(names).toContain(meant.map(({ name }) => name).join(' '))
      mended++
    }
    expect(mended).toBeGreaterThan(3)
  })

  it('of turning pieces to a side lets them change places', () => {
    const faced = casesOf('cube-2').flatMap(({ puzzle, school, stage, turns }) => {
      const { ends = [] } = caseWishOf(puzzle, school, stage, turns).wish
      return ends.filter(({ must: asked }) => asked === 'faced')
    })
    expect(faced.length).toBeGreaterThan(3)
    for (const { pieces, side } of faced) {
      expect(side).toBeDefined()
      expect(pieces).toHaveLength(4)
    }
  })
})
