import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { must } from './result'
import { after, anyBox, box, boxAndTurns, cube2, cube3, stateOf, gluedCube } from './testing'
import {
  blockOf,
  inverseOf,
  isSolved,
  looksSame,
  occupants,
  readState,
  rotateState,
  sameState,
  start,
  turn,
  turnAll,
  writeState,
  type Block,
} from './state'

describe('turns of any layered box', () => {
  it('have the order that their angle says', () => {
    fc.assert(
      fc.property(anyBox, (puzzle) => {
        for (const each of puzzle.turns) {
          const degrees = each.amount * puzzle.grips[each.grip].unitDegrees
          const order = degrees === 180 ? 2 : 4
          const times = (n: number) =>
            after(
              puzzle,
              Array.from({ length: n }, () => each),
            )
          expect(sameState(times(order), start(puzzle))).toBe(true)
          const moved = puzzle.carry[each.grip].some((value, at) => value === 1 && at % 24 === 0)
          if (moved) expect(sameState(times(order / 2), start(puzzle))).toBe(false)
        }
      }),
      { numRuns: 25 },
    )
  })

  it('come to nothing with their inverse', () => {
    fc.assert(
      fc.property(boxAndTurns, ([puzzle, turns]) => {
        const back = after(puzzle, [...turns, ...inverseOf(puzzle, turns)])
        expect(sameState(back, start(puzzle))).toBe(true)
      }),
    )
  })

  it('never take a piece out of the lattice, nor two into one place', () => {
    fc.assert(
      fc.property(boxAndTurns, ([puzzle, turns]) => {
        const state = after(puzzle, turns)
        expect(readState(puzzle, writeState(state)).ok).toBe(true)
        expect(new Set(occupants(puzzle, state)).size).toBe(puzzle.pieces.length)
      }),
    )
  })

  it('are the same for the fast and the checked way', () => {
    fc.assert(
      fc.property(boxAndTurns, ([puzzle, turns]) => {
        expect(must(turnAll(puzzle, start(puzzle), turns))).toEqual(after(puzzle, turns))
      }),
    )
  })
})

describe('the whole puzzle', () => {
  it('is as solved after a turn of it as before', () => {
    fc.assert(
      fc.property(boxAndTurns, ([puzzle, turns]) => {
        const state = after(puzzle, turns)
        for (const hold of puzzle.holds) {
          const held = rotateState(state, hold)
          expect(isSolved(puzzle, held)).toBe(isSolved(puzzle, state))
          expect(looksSame(puzzle, held, state)).toBe(true)
        }
      }),
      { numRuns: 40 },
    )
  })

  it('can be held in 24 ways if it is a cube, in fewer if it is not', () => {
    expect(cube2.holds).toHaveLength(24)
    expect(box(3, 2, 3).holds).toHaveLength(8)
    expect(box(2, 3, 4).holds).toHaveLength(4)
  })
})

describe('look-alikes', () => {
  it('count as home: an unseen quarter turn of two centres leaves a cube solved', () => {
    const state = start(cube3)
    const top = cube3.pieces.findIndex(({ id }) => id === 'U')
    const spun = cube3.turnByName.get('U')?.rotation ?? 0
    state[top] = spun
    expect(sameState(state, start(cube3))).toBe(false)
    expect(isSolved(cube3, state)).toBe(true)
  })

  it('do not hide a corner that is twisted', () => {
    const state = start(cube2)
    const corner = cube2.pieces.findIndex(({ id }) => id === 'UFR')
    const twists = cube2.holds.filter((r) => r !== 0 && cube2.place[24 * corner + r] === corner)
    expect(twists).toHaveLength(2)
    for (const twist of twists) {
      state[corner] = twist
      expect(isSolved(cube2, state)).toBe(false)
    }
  })
})

describe('a written state', () => {
  it('is read back as it was', () => {
    fc.assert(
      fc.property(stateOf(cube3), (state) => {
        expect(must(readState(cube3, writeState(state)))).toEqual(state)
      }),
    )
  })

  it.each([
    ['too short', 'aaa', /3 letters for 8 pieces/],
    ['beyond x', 'aaaaaaaz', /between a and x/],
    ['two in one place', 'aaaaaaab', /same place/],
  ])('is refused if it is wrong: %s', (_, text, sentence) => {
    const read = readState(cube2, text)
    expect(read.ok ? '' : read.problem.sentence).toMatch(sentence)
  })
})

describe('glued cells', () => {
  const named = (name: string) => {
    const found = gluedCube.turnByName.get(name)
    if (!found) throw new Error(name)
    return found
  }

  it('block the turn that would cut them, and say which', () => {
    expect(turn(gluedCube, start(gluedCube), named('F'))).toMatchObject({
      problem: { code: 'blocked', sentence: 'F is blocked: it would cut through one piece.' },
    })
    const ids = (blocked: Block | undefined) =>
      blocked?.kind === 'cuts' ? blocked.pieces.map((p) => gluedCube.pieces[p].id) : []
    expect(ids(blockOf(gluedCube, start(gluedCube), named('F')))).toEqual(['UFR'])
    expect(turn(gluedCube, start(gluedCube), named('R')).ok).toBe(true)
  })

  it('block a turn forward, back and half alike', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(gluedCube.turns.length - 1), { maxLength: 30 }), (indices) => {
        let state = start(gluedCube)
        for (const index of indices) {
          const next = turn(gluedCube, state, gluedCube.turns[index])
          if (next.ok) state = next.value
        }
        for (const each of gluedCube.turns)
          expect(blockOf(gluedCube, state, each) === undefined).toBe(
            blockOf(gluedCube, state, gluedCube.turns[each.inverse]) === undefined,
          )
      }),
    )
  })
})
