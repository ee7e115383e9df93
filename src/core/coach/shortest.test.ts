import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { frameOf } from '../analysis/frame'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { compile, type Puzzle } from '../puzzle/compile'
import { readDefinition } from '../puzzle/readDefinition'
import { must } from '../result'
import { schoolsOf } from '../schools'
import { shortest } from '../schools/shortest'
import type { School } from '../schools/school'
import { scramble, scrambledState } from '../scramble/scramble'
import { buildDistanceTable, distanceOf, halfTurnTable, lookTable } from '../search/distanceTable'
import { blockOf, isSolved, rotateState, start, turnFreely, type State } from '../state'
import { after, box, cube3, glued } from '../testing'
import { plan } from './plan'

const tetra = must(puzzleById('tetra-3'))

const turnsHome = (puzzle: Puzzle, state: State): number =>
  must(plan(puzzle, shortest(puzzle) as School, state)).turnCount

describe('the shortest way', () => {
  it('is offered where all states can be listed, and nowhere else', () => {
    const ids = CATALOG_IDS.filter((id) => shortest(must(puzzleById(id))))
    expect(ids).toEqual(['cube-2', 'tetra-3'])
    expect(schoolsOf(box(1, 3, 3)).map(({ id }) => id)).toEqual(['piece-by-piece', 'shortest'])
    // Half turns reach few of the arrangements that there are.
    expect(shortest(box(1, 4, 4))).toBeDefined()
    expect(shortest(box(2, 3, 3))).toBeUndefined()
    expect(shortest(cube3)).toBeUndefined()
  })

  it('is offered where pieces look alike in too many ways to try them all', () => {
    const sides = ['up', 'down', 'right', 'left', 'front', 'back']
    const faces = Object.fromEntries(sides.map((side) => [side, side === 'up' ? 'red' : 'white']))
    const mechanism = { kind: 'box', size: [1, 4, 5] }
    const white = compile(
      must(readDefinition({ schema: 1, id: 'white', name: 'white', mechanism, faces })),
    )
    const state = scrambledState(white, scramble(white, 1))
    expect(isSolved(white, state)).toBe(false)
    expect(turnsHome(white, state)).toBeGreaterThan(0)
  })

  it('leads glued puzzles home, in any hold, and a free turn changes it by one at most', () => {
    const tied = glued(
      [2, 2, 2],
      [
        [0.5, 0.5, 0.5],
        [0.5, 0.5, -0.5],
      ],
    )
    for (let seed = 1; seed <= 12; seed++) {
      const state = scrambledState(tied, scramble(tied, seed))
      const held = rotateState(state, tied.holds[seed % tied.holds.length])
      const least = turnsHome(tied, held)
      expect(turnsHome(tied, state)).toBe(least)
      for (const turn of tied.turns.filter((each) => !each.whole && !blockOf(tied, held, each))) {
        const next = turnFreely(tied, held, turn, new Uint8Array(held.length))
        expect(Math.abs(turnsHome(tied, next) - least)).toBeLessThanOrEqual(1)
      }
    }
  })

  it('leads the tetrahedron home in as many turns as its table says, tips too, in any hold', () => {
    const table = halfTurnTable(tetra)
    for (let seed = 1; seed <= 20; seed++) {
      const state = scrambledState(tetra, scramble(tetra, seed))
      const held = rotateState(state, tetra.holds[seed % tetra.holds.length])
      expect(turnsHome(tetra, held)).toBe(distanceOf(tetra, table, state))
      expect(turnsHome(tetra, held)).toBeLessThanOrEqual(15)
    }
  })

  it('is never longer than the turns that led away, and one turn changes it by one at most', () => {
    const flat = box(1, 3, 3)
    // A slice is two turns, so only layers with the frame in none of them.
    const layers = [...frameOf(flat).turns, ...flat.turns.filter(({ whole }) => whole)]
    const anyTurn = fc.constantFrom(...layers)
    fc.assert(
      fc.property(fc.array(anyTurn, { maxLength: 8 }), anyTurn, (turns, turn) => {
        const state = after(flat, turns)
        const least = turnsHome(flat, state)
        expect(least).toBeLessThanOrEqual(turns.filter(({ whole }) => !whole).length)
        const next = turnFreely(flat, state, turn, new Uint8Array(state.length))
        expect(Math.abs(turnsHome(flat, next) - least)).toBeLessThanOrEqual(turn.whole ? 0 : 1)
      }),
      { numRuns: 60 },
    )
  })

  it('counts equal pieces as the eye does: whichever of them lies where', () => {
    const faces = { up: 'white', down: 'white', right: 'white', left: 'white', front: 'red' }
    const mechanism = { kind: 'box', size: [1, 3, 3] }
    const plain = compile(
      must(readDefinition({ schema: 1, id: 'plain', name: 'plain', mechanism, faces })),
    )
    const named = must(buildDistanceTable(plain, 'half'))
    let shorter = 0
    for (let seed = 1; seed <= 20; seed++) {
      const state = scrambledState(plain, scramble(plain, seed))
      const least = turnsHome(plain, state)
      expect(least).toBe(distanceOf(plain, lookTable(plain), state))
      expect(least).toBeLessThanOrEqual(distanceOf(plain, named, state))
      if (least < distanceOf(plain, named, state)) shorter++
    }
    expect(shorter).toBeGreaterThan(0)
  })

  it('has no turns where the puzzle is home, and says so where no turns lead home', () => {
    expect(turnsHome(tetra, start(tetra))).toBe(0)
    const flipped = start(tetra)
    const edge = tetra.pieces.findIndex(({ kind }) => kind === 'edge')
    flipped[edge] = tetra.holds.find(
      (r) => r !== 0 && tetra.place[24 * edge + r] === edge,
    ) as number
    expect(isSolved(tetra, flipped)).toBe(false)
    expect(plan(tetra, shortest(tetra) as School, flipped)).toMatchObject({
      ok: false,
      problem: { code: 'unreachable' },
    })
  })
})
