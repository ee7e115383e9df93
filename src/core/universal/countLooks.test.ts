import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '../catalog'
import type { Puzzle } from '../puzzle/compile'
import { PRODUCT } from '../rotation'
import { must } from '../result'
import { countLooks } from './countLooks'
import type { Effect } from './effects'
import { movesOf } from './moves'
import { workOf } from './orbitsAtWork'

/** The same by listing, up to a limit. */
function listed(
  puzzle: Puzzle,
  places: readonly number[],
  effects: readonly Effect[],
  most: number,
) {
  const key = (at: readonly number[]) => places.map((p, i) => puzzle.look[24 * p + at[i]]).join()
  const seen = new Map([[key(places.map(() => 0)), places.map(() => 0)]])
  for (const at of seen.values())
    for (const effect of effects) {
      const next = at.map((r, i) => PRODUCT[24 * effect[puzzle.place[24 * places[i] + r]] + r])
      seen.set(key(next), next)
      if (seen.size > most) return undefined
    }
  return seen.size
}

describe('the count of looks', () => {
  it.each(CATALOG_IDS)('is what listing them says, wherever that ends, for %s', (id) => {
    const puzzle = must(puzzleById(id))
    const effects = movesOf(puzzle).map(({ effect }) => effect)
    for (const { orbit } of workOf(puzzle).orbits) {
      const places = [...orbit.places]
      const count = listed(puzzle, places, effects, 1500)
      const counted = countLooks(puzzle, places, effects)
      if (count === undefined) expect(counted).toBeGreaterThan(1500n)
      else expect(counted).toBe(BigInt(count))
    }
  })
})
