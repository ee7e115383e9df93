import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { must } from '../result'
import { schoolNamed } from '../schools'
import { readEnds, readKeep, stageKeeps } from './keep'

const cube3 = must(puzzleById('cube-3'))
const ids = (pieces: readonly number[]) => pieces.map((p) => cube3.pieces[p].id)

describe('what a repair is asked to keep', () => {
  it('is told by pieces, by a layer, or by all but one', () => {
    expect(ids(must(readKeep(cube3, 'DFR, DF'))).sort()).toEqual(['DF', 'DFR'])
    expect(must(readKeep(cube3, 'layer:D'))).toHaveLength(9)
    expect(must(readKeep(cube3, 'all-but:U'))).toHaveLength(cube3.pieces.length - 9)
  })

  it('divides every puzzle in two, whichever side is named', () => {
    fc.assert(
      fc.property(fc.constantFrom(...CATALOG_IDS), fc.constantFrom(...'UDFBRL'), (id, letter) => {
        const puzzle = must(puzzleById(id))
        const [inside, outside] = ['layer', 'all-but'].map((how) =>
          must(readKeep(puzzle, `${how}:${letter}`)),
        )
        expect([...inside, ...outside].sort((a, b) => a - b)).toEqual(
          puzzle.pieces.map((_, p) => p),
        )
      }),
      { numRuns: 40 },
    )
  })

  it('is refused by its field if it names what is not there', () => {
    const why = (read: ReturnType<typeof readKeep | typeof readEnds>) =>
      read.ok ? '' : `${read.problem.field}: ${read.problem.sentence}`
    expect(why(readKeep(cube3, 'DFR,XYZ'))).toMatch(/^keep: .*XYZ/)
    expect(why(readKeep(cube3, 'layer:Q'))).toMatch(/^keep: .*'Q'/)
    expect(why(readEnds(cube3, 'solved'))).toMatch(/^ends: .*solved/)
    expect(why(readEnds(cube3, 'faced:'))).toMatch(/^ends: .*none of U, D/)
    expect(must(readEnds(cube3, 'home')).pieces).toHaveLength(cube3.pieces.length)
    expect(must(readEnds(cube3, 'placed:U'))).toMatchObject({ must: 'placed' })
  })
})

describe('what stages keep', () => {
  it('is what their goals bring home, more from stage to stage', () => {
    const keeps = stageKeeps(cube3, [must(schoolNamed('cube-3', 'layers'))])
    expect(keeps.map(({ stage }) => stage)).toContain('Middle layer')
    const counts = keeps.map(({ pieces }) => pieces.length)
    expect(counts).toEqual([...counts].sort((a, b) => a - b))
    const middle = keeps.find(({ stage }) => stage === 'Middle layer')
    // All but the last layer: eight edges, four corners, six centres.
    expect(middle?.pieces.filter((p) => !cube3.pieces[p].kind.includes('centre'))).toHaveLength(12)
  })
})
