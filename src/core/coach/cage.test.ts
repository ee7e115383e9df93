import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { circlesInOrder, isLocked } from '../analysis/circles'
import { puzzleById } from '../catalog'
import { compile, type Puzzle } from '../puzzle/compile'
import { DIRECTIONS, opposite, type FaceName } from '../puzzle/directions'
import { readDefinition } from '../puzzle/readDefinition'
import { must } from '../result'
import { cage } from '../schools/cage'
import { schoolAmong, schoolsOf } from '../schools'
import { start, turnFreely } from '../state'
import { drawn } from '../testing'
import { frameMeeting } from './goal'
import { plan } from './plan'
import { faultsOf } from './truth.testing'
import { statesAfterStages } from './verify'

const SIDES = DIRECTIONS.map(({ name }) => name)

const withLocked = (locked: readonly FaceName[]): Puzzle =>
  compile(
    must(
      readDefinition({
        schema: 1,
        id: 'circles',
        name: 'circles',
        mechanism: { kind: 'circles', locked },
      }),
    ),
  )

/**
 * Of the ten sets of locked sides that no turn of the whole and no mirror takes into each other: none, one, all but
 * one; the bench measures all.
 */
const CLASSES: readonly (readonly FaceName[])[] = [
  [],
  ['down'],
  ['front', 'back', 'down', 'left', 'right'],
]

const taughtOn = (puzzle: Puzzle) => must(schoolAmong(schoolsOf(puzzle), cage.id))

describe('the circles of a circle cube', () => {
  it('are done in the order that the three locked ones of the shipped one ask for', () => {
    const order = circlesInOrder(must(puzzleById('circle-3')))
    expect(order.map(({ letter }) => letter).join('')).toBe('UBLRFD')
  })

  it('are each done once, a free one first, across from a locked one if there is such a pair', () => {
    fc.assert(
      fc.property(fc.subarray([...SIDES]), (locked) => {
        const puzzle = withLocked(locked)
        const order = circlesInOrder(puzzle)
        expect(order.map(({ name }) => name).sort()).toEqual([...SIDES].sort())
        expect(opposite(order[0])).toBe(order[5])
        const isFree = (name: FaceName) => !locked.includes(name)
        expect(isLocked(puzzle, order[0])).toBe(!SIDES.some(isFree))
        const hasPair = DIRECTIONS.some((side) => isFree(side.name) && !isFree(opposite(side).name))
        if (hasPair) expect(isLocked(puzzle, order[5])).toBe(true)
      }),
      { numRuns: 64 },
    )
  })

  it('lie still while a free side turns, and go round with a locked one', () => {
    fc.assert(
      fc.property(fc.subarray([...SIDES]), fc.nat(5), (locked, at) => {
        const puzzle = withLocked(locked)
        const side = DIRECTIONS[at]
        const turn = puzzle.turns.find(({ name }) => name === side.letter)
        if (!turn) throw new Error('no such turn')
        const turned = turnFreely(puzzle, start(puzzle), turn, new Uint8Array(puzzle.pieces.length))
        const bits = puzzle.pieces.flatMap(({ id, kind }, p) =>
          kind.endsWith(' bit') && id.endsWith(`-${side.letter}`) ? [p] : [],
        )
        expect(bits).toHaveLength(8)
        for (const p of bits) {
          expect(turned[p] !== 0).toBe(isLocked(puzzle, side))
          expect(puzzle.slot[24 * p + turned[p]]).toSatisfy((slot: number) =>
            bits.some((q) => puzzle.slot[24 * q] === slot),
          )
        }
      }),
      { numRuns: 40 },
    )
  })
})

describe('cage', () => {
  it.each(CLASSES.map((locked) => [locked.join(', ') || 'none', locked] as const))(
    'leads home with these locked: %s',
    (_, locked) => {
      const puzzle = withLocked(locked)
      const school = taughtOn(puzzle)
      const route = must(plan(puzzle, school, drawn(puzzle, 2)))
      expect(statesAfterStages(puzzle, school, route).filter(({ met }) => !met)).toEqual([])
      expect(faultsOf(puzzle, puzzle.definition.colours, route)).toEqual([])
    },
  )

  it('takes up from where any number of its circles are home', () => {
    const puzzle = must(puzzleById('circle-3'))
    const school = taughtOn(puzzle)
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 400 }), (seed) => {
        const route = must(plan(puzzle, school, drawn(puzzle, seed)))
        const ends = statesAfterStages(puzzle, school, route).filter((_, s) => s % 4 === 1)
        for (const { state, stage } of ends) {
          const again = must(plan(puzzle, school, state))
          const left = again.stages.filter(({ done }) => !done).map(({ id }) => id)
          expect(left).not.toContain(stage)
        }
      }),
      { numRuns: 1 },
    )
  })

  it('leaves the corners an even number of exchanges from home, from the first circle on', () => {
    const puzzle = must(puzzleById('circle-3'))
    const even = [{ layer: 'base', must: 'even', select: { kinds: ['outer corner'] } } as const]
    const [up] = DIRECTIONS
    const odd = puzzle.turns.find(({ name }) => name === 'R')
    if (!odd) throw new Error('no such turn')
    const finished = start(puzzle)
    expect(frameMeeting(puzzle, even, up, finished)).toBe(0)
    const turned = turnFreely(puzzle, finished, odd, new Uint8Array(finished.length))
    expect(frameMeeting(puzzle, even, up, turned)).toBeUndefined()
    const twice = turnFreely(puzzle, turned, odd, new Uint8Array(finished.length))
    expect(frameMeeting(puzzle, even, up, twice)).toBe(0)
    // Of some that have left their places among others there is nothing to count.
    const some = [
      { layer: 'base', must: 'even', select: { kinds: ['edge bit'], circle: 1 } } as const,
    ]
    expect(frameMeeting(puzzle, some, up, turned)).toBeUndefined()
  })
})
