import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { must } from '../result'
import { groupOf } from '../universal/groups'
import { workOf } from '../universal/orbitsAtWork'
import { countedName } from './groupNames'

const groupsOf = (id: string) => {
  const puzzle = must(puzzleById(id))
  const { orbits } = workOf(puzzle)
  return [...orbits.keys()]
    .filter((o) => orbits[o].orbit.places.length > 1)
    .map((o) => groupOf(puzzle, o))
}

describe('the names of groups of places', () => {
  it.each(CATALOG_IDS)('differ, and hold the piece that is kept still: %s', (id) => {
    const puzzle = must(puzzleById(id))
    const groups = groupsOf(id)
    expect(new Set(groups.map(({ name }) => name)).size).toBe(groups.length)
    for (const { name, places, isAll } of groups) {
      expect(name).not.toMatch(/\d|group/)
      expect(new Set(places).size).toBe(places.length)
      const noun = name.split(/ (?:with|of|to) /)[0].replace(/s$/, '')
      if (isAll)
        expect(puzzle.pieces.filter(({ kind }) => kind.startsWith(noun))).toHaveLength(
          places.length,
        )
    }
  })

  it('say where they are and how they look', () => {
    expect(groupsOf('cube-2').map(countedName)).toEqual(['all 8 corners'])
    expect(groupsOf('box-3x3x5').map(countedName)).toEqual([
      'all 8 corners',
      'the 8 edges of the top and bottom layers',
      'the 8 edges of the second and fourth layers',
      'the 8 centres of the second and fourth layers',
      'the 4 edges of the middle layer',
    ])
  })
})
