import { beforeAll, describe, expect, it } from 'vitest'
import { seededRandom } from '../random'
import { must } from '../result'
import { drawState } from '../scramble/scramble'
import { SCHOOLS } from '../schools'
import { fits } from '../schools/fits'
import { variantsOf } from '../schools/school'
import { cube2 } from '../testing'
import { plan } from './plan'
import { stepsOf, type RouteStep } from './route'

const cards: RouteStep[] = []

/** The written schools of the 2x2x2. */
const OWN = SCHOOLS.filter((school) => fits(school, cube2.definition))

beforeAll(() => {
  const random = seededRandom(7)
  for (const school of OWN)
    for (const variant of variantsOf(school))
      for (let i = 0; i < 12; i++)
        cards.push(...stepsOf(must(plan(cube2, school, drawState(cube2, random), { variant }))))
})

describe('the words of a card', () => {
  it('count the runs truly', () => {
    let told = 0
    for (const step of cards) {
      if (!step.runs) continue
      told++
      const seen = new Set(step.turns.flatMap(({ run }) => (run === undefined ? [] : [run])))
      expect(seen.size).toBe(step.runs.times)
      expect(step.runs.before + step.runs.times).toBeLessThanOrEqual(step.runs.total)
    }
    expect(told).toBeGreaterThan(100)
  })
})
