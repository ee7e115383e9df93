import { describe, expect, it } from 'vitest'
import { definitionKey } from '../analysis/definitionKey'
import { learnTables } from '../analysis/learnedTables'
import orders from '../analysis/derived/orders.json'
import { puzzleById } from '../catalog'
import { plan } from '../coach/plan'
import { turnsOfRoute } from '../coach/route'
import { compile } from '../puzzle/compile'
import { readDefinition } from '../puzzle/readDefinition'
import { must } from '../result'
import { schoolsOf } from '../schools'
import { isSolved, turnAll } from '../state'
import { drawn } from '../testing'
import { knownCyclesOf } from './baseCycles'
import cycles from './derived/cycles.json'
import plans from './derived/plans.json'
import { knownPlanOf } from './orbitPlan'
import { deriveTables } from './tables'

const box = (id: string) =>
  must(
    readDefinition({ schema: 1, id, name: 'A box', mechanism: { kind: 'box', size: [2, 3, 4] } }),
  )

describe('the tables of a puzzle', () => {
  it.each(['tetra-3', 'box-3x3x2', 'cube-3'])('are those that are shipped: %s', (id) => {
    const puzzle = must(puzzleById(id))
    const key = definitionKey(puzzle.definition) as keyof typeof orders
    const shares: number[] = []
    const made = deriveTables(puzzle, (_, share) => shares.push(share))
    expect(made.order).toEqual(orders[key])
    expect(made.cycles).toEqual((cycles as Record<string, unknown>)[key])
    expect(made.plan).toEqual((plans as Record<string, unknown>)[key])
    expect(shares).toEqual([...shares].sort((a, b) => a - b))
    expect(shares.at(-1)).toBe(1)
  })

  it('that were made elsewhere are taken over, and lead home', () => {
    const definition = box('a-box')
    const tables = JSON.parse(JSON.stringify(deriveTables(compile(definition)))) as object
    const before = compile(definition)
    expect(knownPlanOf(before)).toBeUndefined()
    learnTables(definition, tables)
    // Found by what the definition says, not by its id.
    const puzzle = compile(box('another-id'))
    expect(knownPlanOf(puzzle)).toEqual((tables as { plan: unknown }).plan)
    expect(knownCyclesOf(puzzle)).toBeDefined()
    const school = schoolsOf(puzzle).find(({ id }) => id === 'piece-by-piece')
    if (!school) throw new Error('no school')
    for (const seed of [1, 2, 3]) {
      const from = drawn(puzzle, seed)
      const route = must(plan(puzzle, school, from))
      const turns = turnsOfRoute(route).flatMap(({ name }) => puzzle.turnByName.get(name) ?? [])
      expect(isSolved(puzzle, must(turnAll(puzzle, from, turns)))).toBe(true)
    }
  })
})
