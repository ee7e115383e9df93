import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { reachOf } from '../analysis/placements'
import { CATALOG_IDS, puzzleById } from '../catalog'
import type { Scheme } from '../puzzle/colours'
import { compile, type Puzzle } from '../puzzle/compile'
import { readDefinition } from '../puzzle/readDefinition'
import { must } from '../result'
import { INVERSE, multiply } from '../rotation'
import { scramble, scrambledState } from '../scramble/scramble'
import { isReached } from '../universal/account'
import { looksOf, rotateState, sameState, start } from '../state'
import { cube2, stateOf } from '../testing'
import { judge, marksOf, stickersOf, whyNotByColours, type Marked } from './colours'

const own = cube2.definition.colours
const codes = (marked: Marked, scheme: Scheme = own) =>
  judge(cube2, scheme, marked).problems.map(({ code }) => code)

/** Copies of a corner twisted in place, or of two stickers exchanged, at random. */
const corner = fc.nat(7)

function twisted(state: Uint8Array, piece: number, which: 0 | 1): Uint8Array {
  const next = new Uint8Array(state)
  const place = cube2.place[24 * piece + state[piece]]
  const turns = cube2.holds.filter(
    (r) => r !== state[piece] && cube2.place[24 * piece + r] === place,
  )
  next[piece] = turns[which]
  return next
}

describe('a copy by colours', () => {
  it('finds every state, in any hold', () => {
    fc.assert(
      fc.property(stateOf(cube2), (state) => {
        const { found, problems, missing } = judge(cube2, own, marksOf(cube2, state))
        expect(problems).toEqual([])
        expect(missing).toBe(0)
        expect(found?.isOwnScheme).toBe(true)
        expect(found && sameState(found.state, state)).toBe(true)
      }),
    )
  })

  it('reads any other arrangement of the colours off the corners', () => {
    fc.assert(
      fc.property(
        stateOf(cube2),
        fc.shuffledSubarray(
          own.map(({ id }) => id),
          { minLength: 6, maxLength: 6 },
        ),
        (state, order) => {
          // The puzzle's colours as another maker lays them: id i is shown as order[i].
          const shown = new Map(own.map(({ id }, i) => [id, order[i]]))
          const marked = Object.fromEntries(
            Object.entries(marksOf(cube2, state)).map(([id, colour]) => [
              id,
              shown.get(colour) ?? '',
            ]),
          )
          const { found, problems } = judge(cube2, own, marked)
          expect(problems).toEqual([])
          if (!found) throw new Error('nothing was found')
          // What the found state shows in the found scheme is what was marked, sticker by sticker.
          const nameOf = new Map(found.scheme.map(({ id, name }) => [id, name]))
          const seen = marksOf(cube2, found.state)
          for (const [id, colour] of Object.entries(marked))
            expect(nameOf.get(seen[id])).toBe(own.find((each) => each.id === colour)?.name)
        },
      ),
      { numRuns: 60 },
    )
  })

  it('says while it is typed how many stickers are missing, and nothing wrong', () => {
    fc.assert(
      fc.property(stateOf(cube2), fc.subarray(stickersOf(cube2)), (state, hidden) => {
        const marked: Record<string, string> = { ...marksOf(cube2, state) }
        for (const { id } of hidden) Reflect.deleteProperty(marked, id)
        const { missing, found } = judge(cube2, own, marked)
        expect(missing).toBe(hidden.length)
        expect(found === undefined).toBe(hidden.length > 0)
        // Few corners may fit another arrangement of colours, but never none.
        expect(codes(marked)).toEqual([])
      }),
    )
  })

  it('finds one twisted corner, and the twist that mends it', () => {
    fc.assert(
      fc.property(stateOf(cube2), corner, fc.constantFrom(0, 1), (state, piece, which) => {
        const { problems, found } = judge(
          cube2,
          own,
          marksOf(cube2, twisted(state, piece, which as 0)),
        )
        expect(found).toBeUndefined()
        expect(problems.map(({ code }) => code)).toEqual(['twisted'])
        expect(problems[0].sentence).toMatch(/a third (clockwise|anticlockwise) by hand/)
      }),
    )
  })

  it('tells the right sense of the twist', () => {
    // The corner top right front, turned by hand clockwise: its white goes from the top to the right.
    const marked = { ...marksOf(cube2, start(cube2)) }
    const [up, right, front] = ['UFR:U', 'UFR:R', 'UFR:F'].map((id) => marked[id])
    const clockwise = { ...marked, 'UFR:R': up, 'UFR:F': right, 'UFR:U': front }
    expect(judge(cube2, own, clockwise).problems[0].sentence).toMatch(/a third anticlockwise/)
  })

  it('finds a colour too many', () => {
    const marked = { ...marksOf(cube2, start(cube2)), 'DBL:D': 'white' }
    expect(codes(marked)).toContain('too-many')
  })

  it('finds a corner that no puzzle has', () => {
    const marked = marksOf(cube2, start(cube2))
    expect(codes({ ...marked, 'UFR:F': 'white', 'DFL:F': 'green' })).toContain('impossible')
    expect(codes({ ...marked, 'UFR:F': 'yellow', 'DFR:D': 'green' })).toContain('impossible')
  })

  it('finds a corner whose colours run the wrong way round', () => {
    const marked = marksOf(cube2, start(cube2))
    const swapped = { ...marked, 'UFR:F': marked['UFR:R'], 'UFR:R': marked['UFR:F'] }
    expect(codes(swapped)).toContain('mirrored')
  })

  it('finds a corner that appears twice', () => {
    const marked = marksOf(cube2, start(cube2))
    const doubled = { ...marked, 'DBL:D': 'white', 'DBL:B': 'red', 'DBL:L': 'green' }
    expect(codes(doubled)).toContain('twice')
  })

  it('accepts nothing that is no state: every single wrong sticker is refused', () => {
    fc.assert(
      fc.property(
        stateOf(cube2),
        fc.constantFrom(...stickersOf(cube2)),
        fc.constantFrom(...own),
        (state, sticker, colour) => {
          const marked = marksOf(cube2, state)
          fc.pre(marked[sticker.id] !== colour.id)
          const { found, problems } = judge(cube2, own, { ...marked, [sticker.id]: colour.id })
          expect(found).toBeUndefined()
          expect(problems.length).toBeGreaterThan(0)
        },
      ),
    )
  })

  it('needs no usual hold: a finished puzzle is finished whichever colour is up', () => {
    for (const hold of cube2.holds) {
      const state = rotateState(start(cube2), hold)
      expect(judge(cube2, own, marksOf(cube2, state)).found?.state).toEqual(state)
    }
  })
})

const BOXES = ['cube-3', 'cube-4', 'box-3x3x2', 'box-3x3x5', 'box-4x4x5']

describe.each(BOXES)('a copy of %s by colours', (id) => {
  const puzzle = must(puzzleById(id))
  const scheme = puzzle.definition.colours

  it('looks as what was copied, in any hold, look-alikes told apart so that turns lead there', () => {
    for (const seed of [1, 2, 3]) {
      const drawn = scrambledState(puzzle, scramble(puzzle, seed))
      const state = rotateState(drawn, puzzle.holds[(7 * seed) % puzzle.holds.length])
      const { found, problems, missing } = judge(puzzle, scheme, marksOf(puzzle, state))
      expect(problems).toEqual([])
      expect(missing).toBe(0)
      expect(found?.isOwnScheme).toBe(true)
      expect(found && looksOf(puzzle, found.state)).toBe(looksOf(puzzle, state))
      expect(found && isReached(puzzle, inHome(puzzle, found.state))).toBe(true)
    }
  })

  it('tells a piece that is there too often, by all its places', () => {
    const state = start(puzzle)
    const marked: Record<string, string> = { ...marksOf(puzzle, state) }
    const [one, other] = puzzle.pieces.flatMap(({ kind }, p) => (kind === 'corner' ? [p] : []))
    const sides = (p: number) => stickersOf(puzzle).filter(({ place }) => place === p)
    sides(one).forEach(({ id: to }, i) => (marked[to] = marked[sides(other)[i].id]))
    const codes = judge(puzzle, scheme, marked).problems.map(({ code }) => code)
    expect(codes.some((code) => ['twice', 'mirrored'].includes(code))).toBe(true)
  })
})

/** The same state held so that a piece which never leaves its place is home, where there is one. */
function inHome(puzzle: Puzzle, state: Uint8Array): Uint8Array {
  const hold = puzzle.holds.find((h) =>
    reachOf(puzzle).every((own, p) => own.includes(multiply(INVERSE[h], state[p]))),
  )
  if (hold === undefined) throw new Error('no hold allows this state')
  return rotateState(state, INVERSE[hold])
}

describe('a copy of a 3x3x3 by colours', () => {
  it('reads another arrangement of the colours off the centres', () => {
    const cube3 = must(puzzleById('cube-3'))
    const order = ['red', 'orange', 'white', 'green', 'yellow', 'blue']
    const shown = new Map(cube3.definition.colours.map(({ id }, i) => [id, order[i]]))
    const state = scrambledState(cube3, scramble(cube3, 5))
    const marked = Object.fromEntries(
      Object.entries(marksOf(cube3, state)).map(([id, colour]) => [id, shown.get(colour) ?? '']),
    )
    const { found, problems } = judge(cube3, cube3.definition.colours, marked)
    expect(problems).toEqual([])
    expect(found?.isOwnScheme).toBe(false)
  })

  it('tells a flipped edge', () => {
    const cube3 = must(puzzleById('cube-3'))
    const marked: Record<string, string> = { ...marksOf(cube3, start(cube3)) }
    const [one, other] = ['UF:U', 'UF:F']
    ;[marked[one], marked[other]] = [marked[other], marked[one]]
    const [problem] = judge(cube3, cube3.definition.colours, marked).problems
    expect(problem.code).toBe('twisted')
    expect(problem.sentence).toMatch(/Hands have flipped one of the 12 edges/)
  })
})

describe('a copy by colours of other puzzles', () => {
  const others = ['tetra-3', 'twin-3', 'circle-3']

  it('is offered where colours settle what lies where', () => {
    const boxes = CATALOG_IDS.filter((id) => /^(cube|box)-/.test(id))
    for (const id of [...others, ...boxes])
      expect(whyNotByColours(must(puzzleById(id))), id).toBeUndefined()
    expect(whyNotByColours(must(puzzleById('tilt-3')))).toMatch(/depends on the piece/)
    expect(whyNotByColours(must(puzzleById('shift-3x3x5')))).toMatch(/do not keep to the places/)
    expect(whyNotByColours(must(puzzleById('circle-3--none')))).toMatch(/can show the same/)
  })

  it('is asked of what the pieces do, whatever the file calls it', () => {
    // A solid that is the plain cube again is copied as that is; a cube with two cells glued is not.
    const file = (more: object) =>
      compile(
        must(
          readDefinition({
            schema: 1,
            id: 'own',
            name: 'own',
            mechanism: { kind: 'box', size: [2, 2, 2] },
            ...more,
          }),
        ),
      )
    const halfSpaces = (
      [
        [1, 0, 0, 'red'],
        [-1, 0, 0, 'orange'],
        [0, 1, 0, 'white'],
        [0, -1, 0, 'yellow'],
        [0, 0, 1, 'green'],
        [0, 0, -1, 'blue'],
      ] as const
    ).map(([x, y, z, colour]) => ({ normal: [x, y, z], at: 1, colour }))
    expect(whyNotByColours(file({ solid: { halfSpaces } }))).toBeUndefined()
    const glue = [
      [
        [0.5, 0.5, 0.5],
        [0.5, 0.5, -0.5],
      ],
    ]
    expect(whyNotByColours(file({ glue }))).toBeDefined()
  })

  it.each(others)('finds every position of %s, in any hold, as it looks', (id) => {
    const puzzle = must(puzzleById(id))
    fc.assert(
      fc.property(fc.nat(10_000), fc.nat(100), (seed, nth) => {
        const hold = puzzle.holds[nth % puzzle.holds.length]
        const state = rotateState(scrambledState(puzzle, scramble(puzzle, seed)), hold)
        const { found, problems, missing } = judge(
          puzzle,
          puzzle.definition.colours,
          marksOf(puzzle, state),
        )
        expect(problems).toEqual([])
        expect(missing).toBe(0)
        expect(found && looksOf(puzzle, found.state)).toEqual(looksOf(puzzle, state))
      }),
      { numRuns: 6 },
    )
  })

  it.each(others)('of %s tells one wrong sticker while it is marked', (id) => {
    const puzzle = must(puzzleById(id))
    const state = scrambledState(puzzle, scramble(puzzle, 5))
    const marked = marksOf(puzzle, state)
    const colours = puzzle.definition.colours.map((colour) => colour.id)
    fc.assert(
      fc.property(fc.constantFrom(...Object.keys(marked)), fc.nat(10), (sticker, nth) => {
        const other = colours.filter((colour) => colour !== marked[sticker])
        const changed = { ...marked, [sticker]: other[nth % other.length] }
        const { problems, found } = judge(puzzle, puzzle.definition.colours, changed)
        expect(found).toBeUndefined()
        expect(problems.length).toBeGreaterThan(0)
        for (const { sentence } of problems) expect(sentence).toMatch(/^[A-Z].*\.$/)
      }),
      { numRuns: 12 },
    )
  })
})
