import { beforeAll, describe, expect, it } from 'vitest'
import { seededRandom } from '../random'
import { must } from '../result'
import { drawState } from '../scramble/scramble'
import { SCHOOLS } from '../schools'
import { fits } from '../schools/fits'
import { variantsOf } from '../schools/school'
import { cube2 } from '../testing'
import { asSaid } from '../claims/claim'
import { plan } from './plan'
import { sentencesIn } from './readStep.testing'
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
  it('are whole sentences without praise, exclamation or holes', () => {
    expect(cards.length).toBeGreaterThan(500)
    for (const step of cards)
      for (const said of [
        step.lookFor,
        step.check,
        step.note ?? asSaid('A.'),
        step.hints.nudge,
        step.hints.pointer,
      ]) {
        const text = sentencesIn(said)
        // What is claimed is said by the lexicon, and read in every card (truth.testing.ts).
        if (text === '' && said.length > 0) continue
        expect(text).toMatch(/^[A-Z0-9a-z'].*[.?]$/s)
        expect(text).not.toMatch(/[!{}]|undefined|NaN|\s\s|\.\./)
      }
  })

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
