import { afterEach, describe, expect, it } from 'vitest'
import { readDefinition } from '../puzzle/readDefinition'
import { must } from '../result'
import { schoolsFor } from '../schools'
import {
  CATALOG_IDS,
  definitionById,
  forgetDefinition,
  learnDefinitions,
  ownDefinitions,
  puzzleById,
} from './index'

const own = (id: string, name: string, mechanism: object) => ({
  ...must(readDefinition({ schema: 1, id: 'own', name, mechanism })),
  id,
})
const flat = own('own-1', 'Flat', { kind: 'box', size: [1, 3, 3] })
const circles = own('own-2', 'Circles', { kind: 'circles', locked: ['up'] })

afterEach(() => [flat, circles].forEach(({ id }) => forgetDefinition(id)))

describe('puzzles of the solver’s own', () => {
  it('are known by their ids once they are learned, like any other', () => {
    expect(puzzleById('own-1')).toMatchObject({ ok: false, problem: { code: 'unknown-puzzle' } })
    learnDefinitions([flat])
    expect(must(puzzleById('own-1')).definition).toBe(flat)
    expect(schoolsFor('own-1').map(({ id }) => id)).toContain('piece-by-piece')
  })

  it('are listed by name, once each, and are none of the shipped ones', () => {
    learnDefinitions([flat, circles])
    learnDefinitions([circles])
    expect(ownDefinitions().map(({ name }) => name)).toEqual(['Circles', 'Flat'])
    expect(CATALOG_IDS).not.toContain('own-1')
  })

  it('have settings where their mechanism has some', () => {
    learnDefinitions([circles])
    expect(definitionById('own-2--front')?.mechanism).toEqual({
      kind: 'circles',
      locked: ['front'],
    })
    expect(definitionById('own-1--front')).toBeUndefined()
  })

  it('are gone when they are forgotten', () => {
    learnDefinitions([flat])
    must(puzzleById('own-1'))
    forgetDefinition('own-1')
    expect(definitionById('own-1')).toBeUndefined()
    expect(puzzleById('own-1').ok).toBe(false)
    expect(ownDefinitions()).toEqual([])
  })
})
