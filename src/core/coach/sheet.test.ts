import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { must } from '../result'
import { schoolsOf } from '../schools'
import { sequence } from '../notation/sequence'
import { isSolved, readState, turnAll } from '../state'
import { whyNotServed } from '../universal/solve'
import { byHeart } from './byHeart'
import { sheetOf } from './sheet'

describe('the sheet of a school', () => {
  it.each(CATALOG_IDS)('shows positions from which its sequences lead home: %s', (id) => {
    const puzzle = must(puzzleById(id))
    whyNotServed(puzzle)
    for (const school of schoolsOf(puzzle)) {
      const stages = sheetOf(puzzle, school)
      expect(stages.length).toBeGreaterThan(0)
      for (const { aim, name, byHeart: known } of stages) {
        expect(`${name} ${aim}`).not.toMatch(/[{}]/)
        for (const { turns, state } of known) {
          const from = must(readState(puzzle, state))
          const end = must(turnAll(puzzle, from, sequence(puzzle, turns).turns))
          expect(isSolved(puzzle, end), turns).toBe(true)
        }
      }
      const all = stages.flatMap((stage) => stage.byHeart.map(({ turns }) => turns))
      // What is done in several layers is shown in each and counts once.
      const whichever = (texts: readonly string[]) =>
        new Set(texts.map((text) => text.replace(/\d+(?=[A-Z])/g, '')))
      expect(whichever(byHeart(puzzle, school))).toEqual(whichever(all))
      expect(byHeart(puzzle, school).length).toBeLessThanOrEqual(new Set(all).size)
    }
  })

  it('counts what the schools ask for', () => {
    const count = (id: string) => {
      const puzzle = must(puzzleById(id))
      return Object.fromEntries(
        schoolsOf(puzzle).map((school) => [school.id, byHeart(puzzle, school).length]),
      )
    }
    expect(count('cube-2')).toMatchObject({ 'layer-by-layer': 9, 'face-first': 12, shortest: 0 })
    expect(count('tetra-3')).toMatchObject({ 'face-then-three': 7 })
    expect(count('cube-3').layers).toBeLessThanOrEqual(14)
    expect(count('box-3x3x5')['nested-boxes']).toBeLessThanOrEqual(8)
    expect(count('box-3x3x2')['box-swaps']).toBeLessThanOrEqual(8)
  })
})
