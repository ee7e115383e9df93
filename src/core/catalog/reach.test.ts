import { afterEach, describe, expect, it } from 'vitest'
import { must } from '../result'
import {
  forgetSchool,
  isSchoolLearned,
  learnSchools,
  ownSchools,
  ownSchoolsFor,
} from '../schools/ownSchools'
import { schoolsFor, SCHOOLS } from '../schools'
import { readDefinition } from '../puzzle/readDefinition'
import {
  definitionById,
  forgetDefinition,
  isLearned,
  learnDefinitions,
  learnLater,
  ownDefinitions,
  puzzleById,
} from './index'
import { limitReach, reachOfSchool } from './reach'

const circles = must(
  readDefinition({
    schema: 1,
    id: 'own-reach',
    name: 'Circles',
    mechanism: { kind: 'circles', locked: ['up'] },
  }),
)
const school = { ...SCHOOLS[0], id: 'own-school', name: 'Kelp’s way' }

afterEach(() => {
  limitReach(undefined)
  forgetDefinition(circles.id)
  for (const id of ['cube-2', 'cube-3']) forgetSchool(id, school.id)
})

const reach = (puzzles: readonly string[], schools: readonly string[]) =>
  limitReach(() => ({ puzzles: new Set(puzzles), schools: new Set(schools) }))

describe('what each may see of what the process has learned', () => {
  it('is everything where nobody says otherwise', () => {
    learnDefinitions([circles])
    expect(puzzleById('own-reach').ok).toBe(true)
    expect(ownDefinitions()).toEqual([circles])
  })

  it('is nothing of others, compiled or not, with a setting or without', () => {
    learnDefinitions([circles])
    must(puzzleById('own-reach'))
    must(puzzleById('own-reach--front'))
    reach([], [])
    for (const id of ['own-reach', 'own-reach--front']) {
      expect(definitionById(id)).toBeUndefined()
      expect(puzzleById(id)).toMatchObject({ ok: false, problem: { code: 'unknown-puzzle' } })
    }
    expect(ownDefinitions()).toEqual([])
    expect(isLearned('own-reach')).toBe(true)
    // What is shipped is everyone's.
    expect(puzzleById('cube-2').ok).toBe(true)
    expect(puzzleById('circle-3--front').ok).toBe(true)
    reach(['own-reach'], [])
    expect(puzzleById('own-reach--front').ok).toBe(true)
  })

  it('is read when it is first asked for, and once', () => {
    let times = 0
    learnLater('own-reach', () => (times++, circles))
    expect(times).toBe(0)
    expect(definitionById('own-reach')).toBe(circles)
    expect(ownDefinitions()).toEqual([circles])
    expect(times).toBe(1)
    forgetDefinition('own-reach')
    learnLater('own-reach', () => undefined)
    expect(puzzleById('own-reach').ok).toBe(false)
    expect(ownDefinitions()).toEqual([])
  })

  it('goes for schools puzzle by puzzle', () => {
    learnSchools([
      { puzzleId: 'cube-2', school },
      { puzzleId: 'cube-3', school },
    ])
    reach([], [reachOfSchool('cube-2', 'own-school')])
    expect(ownSchoolsFor('cube-2').map(({ id }) => id)).toEqual(['own-school'])
    expect(ownSchoolsFor('cube-3')).toEqual([])
    expect(ownSchools().map(({ puzzleId }) => puzzleId)).toEqual(['cube-2'])
    expect(schoolsFor('cube-3').map(({ id }) => id)).not.toContain('own-school')
    expect(isSchoolLearned('cube-3', 'own-school')).toBe(true)
  })
})
