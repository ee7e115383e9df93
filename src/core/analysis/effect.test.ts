import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readTurns } from '../notation/read'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { inverseOf, mirror, mirrorImage } from '../notation/rewrite'
import { must } from '../result'
import { start, sameState } from '../state'
import { after, boxAndTurns, cube2, cube3, turnsIn } from '../testing'
import { inFrame } from './frame'
import { describe as describePuzzle } from './describe'
import { effectOf, type Effect } from './effect'

const effect = (text: string, puzzle = cube3) =>
  must(effectOf(puzzle, must(readTurns(puzzle, text))))

describe('the effect of an algorithm', () => {
  it('names cycles, flips and twists', () => {
    const { cycles, twisted, untouched } = effect("R U R' U R U2 R'")
    const shapes = cycles.map(({ kind, places }) => `${kind} ${places.length}`).sort()
    expect(shapes).toEqual(['corner 2', 'corner 2', 'edge 3'])
    expect(twisted).toEqual([])
    expect(untouched).toBe(26 - 7)
    // Six runs of the trigger are nothing; two twist three corners in place and cycle three edges.
    expect(effect("R' D' R D", cube2).order).toBe(6)
    expect(effect("(R' D' R D)6").order).toBe(1)
    expect(effect("(R' D' R D)2").twisted.map(({ kind, order }) => [kind, order])).toEqual(
      Array.from({ length: 4 }, () => ['corner', 3]),
    )
  })

  it('is back after its order and no sooner', () => {
    fc.assert(
      fc.property(turnsIn(cube2, 12), (given) => {
        const turns = given.filter((turn) => !turn.whole)
        const { order } = must(effectOf(cube2, turns))
        let state = start(cube2)
        for (let n = 1; n <= order; n++) {
          state = after(cube2, turns, state)
          expect(sameState(inFrame(cube2, state), start(cube2))).toBe(n === order)
        }
      }),
      { numRuns: 40 },
    )
  })

  it('has the same shape for an inverse and a mirror', () => {
    const shape = (turns: Parameters<typeof effectOf>[1]) => {
      const { cycles, twisted, order } = must(effectOf(cube3, turns))
      return [
        cycles.map(({ kind, places }) => `${kind}${places.length}`).sort(),
        twisted.length,
        order,
      ]
    }
    fc.assert(
      fc.property(turnsIn(cube3, 10), (turns) => {
        const still = turns.filter((turn) => !turn.whole)
        expect(shape(inverseOf(cube3, still))).toEqual(shape(still))
        expect(shape(mirror(cube3, still))).toEqual(shape(still))
      }),
      { numRuns: 40 },
    )
  })

  it('is nothing for a whole-puzzle turn', () => {
    expect(effect('x y2', cube2).untouched).toBe(8)
  })

  it('counts every piece once', () => {
    fc.assert(
      fc.property(boxAndTurns, ([puzzle, turns]) => {
        const { cycles, twisted, untouched } = must(effectOf(puzzle, turns))
        const moved = cycles.reduce((sum, { places }) => sum + places.length, 0)
        expect(moved + twisted.length + untouched).toBe(puzzle.pieces.length)
      }),
    )
  })
})

describe('the description', () => {
  it('names orbits, kinds and what looks alike', () => {
    const two = describePuzzle(cube2)
    expect(two.kinds).toEqual([{ name: 'corner', count: 8, faces: 3 }])
    expect(two.orbits).toHaveLength(1)
    expect(two.orbits[0].orientations).toBe(3)
    expect(two.lookAlikes).toEqual({ pieces: [], unseenTurns: [] })
    expect(two.frame).toBe('DBL')
    const three = describePuzzle(cube3)
    expect(three.lookAlikes.unseenTurns).toHaveLength(6)
    expect(three.lookAlikes.unseenTurns.every(({ rotations }) => rotations === 4)).toBe(true)
  })

  it('lets a reader rebuild every turn from slabs alone', () => {
    const { pieces, grips } = describePuzzle(cube3)
    for (const grip of grips)
      for (const { cells } of pieces)
        for (const cell of cells) {
          const height = cell.reduce((sum, c, i) => sum + c * grip.axis[i], 0)
          // Never on a threshold: inside or outside is never in doubt.
          if (grip.from !== null) expect(Math.abs(height - grip.from)).toBeGreaterThanOrEqual(0.5)
          if (grip.to !== null) expect(Math.abs(height - grip.to)).toBeGreaterThanOrEqual(0.5)
        }
  })
})

describe('the effect of turns of any puzzle', () => {
  it.each(CATALOG_IDS)('is told or refused with a sentence, and so is the mirror: %s', (id) => {
    const puzzle = must(puzzleById(id))
    fc.assert(
      fc.property(turnsIn(puzzle, 6), (turns) => {
        const effect = effectOf(puzzle, turns)
        if (!effect.ok) {
          expect(effect.problem.sentence).not.toBe('')
          return
        }
        const moved = effect.value.cycles.reduce((sum, { places }) => sum + places.length, 0)
        expect(moved + effect.value.twisted.length + effect.value.untouched).toBe(
          puzzle.pieces.length,
        )
        const mirrored = mirrorImage(puzzle, turns)
        if (!mirrored) return
        // A mirror keeps what a sequence does, but for the side on which it does it.
        const lengths = ({ cycles }: Effect) => cycles.map(({ places }) => places.length).sort()
        const image = effectOf(puzzle, mirrored)
        if (image.ok) expect(lengths(image.value)).toEqual(lengths(effect.value))
      }),
      { numRuns: 40 },
    )
  })

  it('has a mirror on the tetrahedron, where right and left change places', () => {
    const tetra = must(puzzleById('tetra-3'))
    const turns = must(readTurns(tetra, "R' L u B"))
    expect(mirrorImage(tetra, turns)?.map(({ name }) => name)).toEqual(['L', "R'", "u'", "B'"])
  })
})
