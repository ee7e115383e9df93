import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { must } from '../result'
import { schoolsFor } from '../schools'
import { scramble, scrambledState } from '../scramble/scramble'
import { packed, unpacked, unpackedSafely, type StoredRoute } from './packed'
import { plan } from './plan'
import type { Route } from './route'

const routes = CATALOG_IDS.map((id) => {
  const puzzle = must(puzzleById(id))
  return must(plan(puzzle, schoolsFor(id)[0], scrambledState(puzzle, scramble(puzzle, 5))))
})

/** As it comes back from where it was stored. */
const stored = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T

describe('a packed route', () => {
  it('is the same again, in much fewer bytes', () => {
    let [before, after] = [0, 0]
    for (const route of routes) {
      const small = stored(packed(route))
      expect(stored(unpacked(small)), route.puzzle).toEqual(stored(route))
      expect(unpackedSafely(small).ok).toBe(true)
      before += JSON.stringify(route).length
      after += JSON.stringify(small).length
    }
    expect(after).toBeLessThan(before / 2)
  })

  it('is read whatever a stranger makes of it: a route, or a sentence why not', () => {
    const given = stored(packed(routes[1])) as unknown as Record<string, unknown>
    const junk = fc.oneof(fc.jsonValue(), fc.constantFrom(-1, 'x', null, [[1]], { a: 1 }))
    const change = (value: unknown, path: readonly number[], by: unknown): unknown => {
      const [first, ...rest] = path
      if (first === undefined || typeof value !== 'object' || value === null) return by
      const keys = Object.keys(value)
      if (keys.length === 0) return by
      const key = keys[first % keys.length]
      const changed = change((value as Record<string, unknown>)[key], rest, by)
      if (!Array.isArray(value)) return { ...value, [key]: changed }
      return value.map((each: unknown, i) => (String(i) === key ? changed : each))
    }
    let refused = 0
    fc.assert(
      fc.property(fc.array(fc.nat(1000), { maxLength: 9 }), junk, (path, by) => {
        const read = unpackedSafely({ ...(change(given, path, by) as object), packed: 2 })
        if (!read.ok) refused++
        expect(read.ok || read.problem.sentence.length > 10).toBe(true)
      }),
      { numRuns: 300 },
    )
    expect(refused).toBeGreaterThan(10)
  })

  it('is read as the first program wrote it that packed', () => {
    for (const route of routes) {
      const { stages, ...rest } = packed(route)
      const first: StoredRoute = stored({ ...rest, stages2: stages })
      expect(unpacked(first)).toEqual(unpacked(packed(route)))
      expect(unpackedSafely(first).ok).toBe(true)
    }
  })

  it('names no list so often that it grows without end', () => {
    const small = packed(routes[1])
    const long = Array.from({ length: 500 }, () => 'UFR').join(' ')
    const [stage] = small.stages.filter(({ steps }) => steps.length > 0)
    const many = Array.from({ length: 5000 }, () => ({ ...stage.steps[0], p: 0, q: 0 }))
    const swollen = { ...small, lists: [long], stages: [{ ...stage, steps: many }] }
    expect(unpackedSafely(swollen).ok).toBe(false)
  })

  it('is told apart from what programs sent that did not pack', () => {
    const [route] = routes as [Route]
    expect(unpacked(stored(route))).toEqual(stored(route))
    expect(unpackedSafely({ ...packed(route), packed: 3 }).ok).toBe(false)
  })
})
