import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { must } from '../result'
import { cube3 } from '../testing'
import { holdName } from './holds'

describe('a hold in words', () => {
  it.each([...CATALOG_IDS])('is told apart from every other of %s', (id) => {
    const puzzle = must(puzzleById(id))
    const names = puzzle.holds.map((hold) => holdName(puzzle, hold))
    expect(new Set(names).size).toBe(names.length)
    for (const name of names) expect(name).not.toMatch(/undefined|^,|, *$/)
  })

  it('names the sides of a cube by their colours', () => {
    expect(holdName(cube3, 0)).toBe('white up, green in front')
  })
})
