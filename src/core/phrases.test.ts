import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from './catalog'
import { must } from './result'
import { cube2, cube3, gluedCube } from './testing'
import { inWords, kindCounts, kindPlural, listed, plural, shortKind, times } from './phrases'

describe('words', () => {
  it('list as one speaks', () => {
    expect([[], ['a'], ['a', 'b'], ['a', 'b', 'c']].map((each) => listed(each))).toEqual([
      '',
      'a',
      'a and b',
      'a, b and c',
    ])
    expect(listed(['a', 'b'], 'or')).toBe('a or b')
  })

  it('count in words as far as one does', () => {
    expect([0, 1, 2, 10, 11].map(inWords)).toEqual(['no', 'one', 'two', 'ten', '11'])
    expect([1, 2, 3].map(times)).toEqual(['once', 'twice', 'three times'])
    expect([plural(1, 'turn'), plural(2, 'turn')]).toEqual(['one turn', 'two turns'])
  })

  it('name kinds in the plural, and short', () => {
    expect(kindPlural('corner with three faces')).toBe('corners with three faces')
    expect(kindPlural('edge')).toBe('edges')
    expect(shortKind('corner with three faces')).toBe('corner')
  })

  it('count the visible pieces of every puzzle, kind by kind', () => {
    expect(kindCounts(cube2)).toBe('8 corners')
    expect(kindCounts(cube3)).toMatch(/8 corners/)
    expect(kindCounts(gluedCube)).toMatch(/7 corners.* and 1 block$/)
    for (const id of CATALOG_IDS) {
      const puzzle = must(puzzleById(id))
      const counted = kindCounts(puzzle).match(/\d+/g)?.map(Number) ?? []
      const visible = puzzle.pieces.filter(({ faces }) => faces.length > 0).length
      expect(counted.reduce((a, b) => a + b, 0)).toBe(visible)
    }
  })
})
