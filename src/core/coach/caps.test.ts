import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { capsInOrder, isInCap } from '../analysis/caps'
import { puzzleById } from '../catalog'
import type { Puzzle } from '../puzzle/compile'
import { DIRECTIONS, opposite, type FaceName } from '../puzzle/directions'
import { must } from '../result'
import { capsByBlocks } from '../schools/caps-by-blocks'
import { schoolAmong, schoolsOf } from '../schools'
import { isInShape } from '../scramble/scramble'
import { start, turnAll, turnFreely } from '../state'
import { capped, drawn } from '../testing'
import { plan } from './plan'
import { stepsOf } from './route'
import { claimsOf, Lies } from './claimed.testing'
import { steadyTurns } from './techniques/commutatorKit'
import { faultsOf } from './truth.testing'
import { statesAfterStages } from './verify'

const SIDES = DIRECTIONS.map(({ name }) => name)

const plus = must(puzzleById('plus-3x3x3'))

const taughtOn = (puzzle: Puzzle) => must(schoolAmong(schoolsOf(puzzle), capsByBlocks.id))

describe('the caps of a core', () => {
  it('are each done once, those across from each other in a row, and share the cap pieces out', () => {
    fc.assert(
      fc.property(fc.subarray([...SIDES], { minLength: 1 }), (caps) => {
        const puzzle = capped(...caps)
        const order = capsInOrder(puzzle)
        expect(order.map(({ name }) => name).sort()).toEqual([...caps].sort())
        const pairs = order.filter((side) => caps.includes(opposite(side).name)).length / 2
        for (let pair = 0; pair < pairs; pair++)
          expect(order[2 * pair + 1]).toBe(opposite(order[2 * pair]))
        puzzle.pieces.forEach(({ kind }, p) => {
          const owners = order.filter((side) => isInCap(puzzle, p, side)).length
          expect(owners).toBe(kind.startsWith('cap ') ? 1 : 0)
        })
      }),
      { numRuns: 30 },
    )
  })

  it('are done by blocks where all lie across from each other, in two pairs or three', () => {
    const isTaught = (caps: readonly FaceName[]) =>
      schoolsOf(capped(...caps)).some(({ id }) => id === capsByBlocks.id)
    expect(isTaught(['right', 'left', 'front', 'back'])).toBe(true)
    expect(isTaught(SIDES)).toBe(true)
    expect(isTaught(['up', 'down'])).toBe(false)
    expect(isTaught(['up', 'down', 'front', 'right'])).toBe(false)
    expect(isTaught(SIDES.slice(1))).toBe(false)
  })
})

describe('turns that keep shape and hold', () => {
  it('can follow each other in any order: none is ever blocked, and the shape stays', () => {
    const turns = steadyTurns(plus)
    expect(turns.map(({ name }) => name)).toEqual(expect.arrayContaining(['U', 'R2', '1R', '1F2']))
    expect(turns.map(({ name }) => name)).not.toContain('R')
    const row = fc.array(fc.nat(turns.length - 1), { minLength: 1, maxLength: 40 })
    fc.assert(
      fc.property(row, (picks) => {
        const made = picks.map((i) => turns[i])
        const end = must(turnAll(plus, start(plus), made))
        expect(isInShape(plus, end)).toBe(true)
        const freely = new Uint8Array(plus.pieces.length)
        for (const turn of made) turnFreely(plus, freely, turn, freely)
        expect(end).toEqual(freely)
      }),
      { numRuns: 60 },
    )
  })
})

describe('caps by blocks', () => {
  it.each([
    ['plus-3x3x3', plus, [1, 2]],
    ['a core with six caps', capped(...SIDES), [1]],
  ] as const)('leads %s home, every sentence true', (_, puzzle, seeds) => {
    const school = taughtOn(puzzle)
    for (const seed of seeds) {
      const route = must(plan(puzzle, school, drawn(puzzle, seed)))
      expect(statesAfterStages(puzzle, school, route).filter(({ met }) => !met)).toEqual([])
      expect(faultsOf(puzzle, puzzle.definition.colours, route)).toEqual([])
    }
  })

  it('goes its own way to the end: nothing is left to the pieces one by one', () => {
    const school = taughtOn(plus)
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5000 }), (seed) => {
        const route = must(plan(plus, school, drawn(plus, seed)))
        const kinds = new Set(stepsOf(route).map(({ kind }) => kind))
        expect(
          [...kinds].filter((kind) => !['shape', 'commutator', 'blocks', 'even'].includes(kind)),
        ).toEqual([])
      }),
      { numRuns: 6 },
    )
  })

  it('says of a block only what has lain together before', () => {
    const school = taughtOn(plus)
    const steps = [1, 2, 3, 4, 5, 6].flatMap((seed) =>
      stepsOf(must(plan(plus, school, drawn(plus, seed)))),
    )
    const blocks = steps.filter((step) => claimsOf('asOneBlock', step).length > 0)
    expect(blocks.length).toBeGreaterThan(0)
    for (const { lines } of blocks) expect(lines?.length).toBeGreaterThan(1)
  })

  it('grows a cap from a corner with its edge, parks the block and lifts in what is next, for what lies there', () => {
    const school = taughtOn(plus)
    const routes = [1, 2, 3, 4, 5, 6].map((seed) => must(plan(plus, school, drawn(plus, seed))))
    const steps = routes.flatMap(stepsOf).filter(({ kind }) => kind === 'blocks')
    const sizes = steps.flatMap((step) => claimsOf('grown', step)).map(({ count }) => count)
    expect([...new Set(sizes)].sort()).toEqual([2, 3, 5, 8])
    const lifted = steps.flatMap((step) => claimsOf('lifts', step))
    for (const how of ['nothing', 'all'] as const)
      expect(
        lifted.some(({ moves }) => moves === how),
        how,
      ).toBe(true)
    expect(lifted.some(({ hasBlock, leaving }) => hasBlock && leaving === 3)).toBe(true)
    const lies = new Lies()
    for (const route of routes) expect(lies.unfoundIn(plus, route)).toEqual([])
    for (const kind of ['grown', 'parks', 'lifts', 'gathers'] as const)
      expect(lies.count(kind), kind).toBeGreaterThan(0)
  })

  it('says of the last cap how its pieces change places', () => {
    const school = taughtOn(plus)
    const routes = Array.from({ length: 8 }, (_, i) => must(plan(plus, school, drawn(plus, i + 1))))
    const rounds = routes.flatMap(stepsOf).flatMap((step) => claimsOf('rounds', step))
    expect(rounds.some(({ lengths, how }) => lengths.join() === '2' && how !== undefined)).toBe(
      true,
    )
    expect(rounds.some(({ lengths }) => lengths.join() === '3')).toBe(true)
    const lies = new Lies()
    for (const route of routes) expect(lies.unfoundIn(plus, route)).toEqual([])
    expect(lies.count('rounds')).toBeGreaterThan(0)
  })
})
