import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { kinOf } from '../analysis/kin'
import { puzzleById } from '../catalog'
import { readTurns } from '../notation/read'
import { compile } from '../puzzle/compile'
import { must } from '../result'
import { blockOf, turnAll } from '../state'
import { gluedCube } from '../testing'
import { schoolsFor } from '../schools'
import { adaptingOf, cleaned, isClean } from './adapt'
import { passageOf } from '../scramble/passage'
import { derivedShelf, knownFrom } from './shelf'
import { does } from './ways'

const tilt = must(puzzleById('tilt-3'))
const kinDefinition = kinOf(tilt.definition)
if (!kinDefinition) throw new Error('the tilted cube has no kin')
const kin = compile(kinDefinition)
const of = (text: string) => must(adaptingOf(tilt, kin, must(readTurns(kin, text))))

describe('a sequence of the kin', () => {
  it('is clean where nothing is turned that shows here', () => {
    expect(isClean(tilt, of("R' L F2 R L' U2"))).toBe(false)
    expect(isClean(tilt, of("R U' R' D R U R' D'"))).toBe(true)
  })

  it('is made clean in ways that do here what it does there', async () => {
    const turns = must(readTurns(tilt, "R U' R U R U R U' R' U' R2"))
    const adapting = of("R U' R U R U R U' R' U' R2")
    expect(adapting.besides.map((p) => tilt.pieces[p].kind)).toEqual(
      expect.arrayContaining([expect.stringContaining('centre')]),
    )
    const pieces = tilt.pieces.map((_, p) => p)
    const ways = await cleaned(tilt, turns, adapting)
    for (const { turns: all } of ways)
      expect(does(tilt, all, { position: adapting.wanted, pieces })).toBe(true)
  }, 60_000)

  it('is refused where a layer is missing', () => {
    const cube2 = must(puzzleById('cube-2'))
    const read = adaptingOf(cube2, kin, must(readTurns(kin, 'M U')))
    expect(read.ok ? '' : read.problem.sentence).toContain('M turns no layer')
  })
})

describe('the derived shelf', () => {
  const shelfOf = (id: string) => derivedShelf(must(puzzleById(id)), schoolsFor(id).slice(0, 2))

  it('has each sequence once, with the stages that use it', () => {
    const shelf = shelfOf('cube-2')
    expect(shelf.length).toBeGreaterThan(3)
    expect(new Set(shelf.map(({ text }) => text)).size).toBe(shelf.length)
    for (const { uses, summary } of shelf) {
      expect(uses.length).toBeGreaterThan(0)
      expect(summary).not.toBe('')
    }
  })

  it('tells what is known from another puzzle', () => {
    const here = shelfOf('cube-2').map(({ text }) => text)
    const cube2 = must(puzzleById('cube-2'))
    const all = knownFrom(cube2, here, cube2, here)
    expect(all.every(({ as }) => as === 'the same')).toBe(true)
    expect(all).toHaveLength(here.length)
    expect(knownFrom(cube2, ["R U R' U'"], cube2, ["L' U' L U"])[0].as).toBe('mirrored')
  })
})

describe('where turns can be blocked', () => {
  it('it is tried from scrambles, and counted where it stops', () => {
    const turns = must(readTurns(gluedCube, 'R U F L U'))
    const passage = passageOf(gluedCube, turns, 30)
    if (!passage) throw new Error('it is never blocked')
    expect(passage.made).toBeLessThan(30)
    expect(passage.made + passage.stops.reduce((sum, { times }) => sum + times, 0)).toBe(30)
    expect(passageOf(tilt, [], 30)).toBeUndefined()
  })

  it.each(['shift-3x3x5', 'plus-3x3x3', 'diagonal-3x3x5'])(
    'of every stop it is told truly what is amiss from the beginning: %s',
    (id) => {
      const puzzle = must(puzzleById(id))
      const layers = puzzle.turns.filter(({ whole }) => !whole)
      const caps = layers.filter(({ grip }) => puzzle.grips[grip].condition)
      let [met, named] = [0, 0]
      fc.assert(
        fc.property(
          fc.array(fc.constantFrom(...layers), { maxLength: 5 }),
          fc.constantFrom(...caps),
          (begun, cap) => {
            const turns = [...begun, cap]
            const passage = passageOf(puzzle, turns, 12)
            met += passage?.stops.length ?? 0
            named += passage?.stops.reduce((sum, { missing }) => sum + missing.length, 0) ?? 0
            for (const { at, state, missing } of passage?.stops ?? []) {
              const filled = new Set([...state].map((r, p) => puzzle.slot[24 * p + r]))
              expect(missing.filter((place) => filled.has(place))).toEqual([])
              const before = must(turnAll(puzzle, state, turns.slice(0, at)))
              expect(blockOf(puzzle, before, turns[at])).toBeDefined()
            }
          },
        ),
        { numRuns: 25 },
      )
      expect(met).toBeGreaterThan(20)
      expect(named).toBeGreaterThan(20)
    },
  )
})
