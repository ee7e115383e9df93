import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { compile, type Puzzle } from '../puzzle/compile'
import { readDefinition } from '../puzzle/readDefinition'
import { must } from '../result'
import { blockOf, rotateState, start, turnFreely, type State } from '../state'
import { definitionKey } from './definitionKey'
import { derivedOrder } from './derivedOrders'
import { frameOf } from './frame'
import { orderOfPuzzle, picturesInHold, writeOrder } from './order'
import { orbitsOf } from './orbits'
import { compose, invert, PermutationGroup, type Permutation } from './permutationGroup'
import { canBlock } from './placements'
import { coreOf } from './shapes'

/** Every state that turns of the frame reach, counted one by one; undefined if there are too many. */
function enumerate(puzzle: Puzzle, most: number): State[] | undefined {
  const { turns } = frameOf(puzzle)
  const first = start(puzzle)
  const seen = new Set([first.join()])
  const found = [first]
  for (const state of found)
    for (const turn of turns) {
      if (blockOf(puzzle, state, turn)) continue
      const next = turnFreely(puzzle, state, turn, new Uint8Array(state.length))
      const key = next.join()
      if (seen.has(key)) continue
      if (found.length >= most) return undefined
      seen.add(key)
      found.push(next)
    }
  return found
}

/** Pictures, each counted once whatever the hold. */
function picturesOf(puzzle: Puzzle, states: readonly State[]): number {
  const looks = (state: State) =>
    Array.from(state, (r, p) => puzzle.look[24 * p + r])
      .sort((a, b) => a - b)
      .join()
  const seen = new Set<string>()
  let count = 0
  for (const state of states) {
    if (seen.has(looks(state))) continue
    count++
    for (const hold of puzzle.holds) seen.add(looks(rotateState(state, hold)))
  }
  return count
}

const halves = (tops: readonly [string, readonly number[], number, string][]) => ({
  halfSpaces: tops.map(([, normal, at, colour]) => ({ normal, at, colour })),
})
const boxWith = (size: readonly number[], colours: readonly string[]) => ({
  schema: 1,
  id: 'small',
  name: 'small',
  mechanism: { kind: 'box', size },
  faces: Object.fromEntries(
    ['up', 'down', 'right', 'left', 'back', 'front'].map((face, i) => [face, colours[i]]),
  ),
})

const SIX = ['white', 'yellow', 'red', 'orange', 'blue', 'green']
const small: [string, object][] = [
  ['a box 1x2x3', boxWith([1, 2, 3], SIX)],
  ['a box 2x2x1', boxWith([2, 2, 1], SIX)],
  [
    'a box 2x1x2 of one colour above and below',
    boxWith([2, 1, 2], ['white', 'white', ...SIX.slice(2)]),
  ],
  ['a box 3x1x3', boxWith([3, 1, 3], SIX)],
  [
    'a box 1x3x3 with equal sides',
    boxWith([1, 3, 3], ['white', 'white', 'red', 'orange', 'blue', 'blue']),
  ],
  [
    'a box 2x3x2 with equal sides',
    boxWith([2, 3, 2], ['white', 'yellow', 'red', 'red', 'blue', 'blue']),
  ],
  [
    'a cube with a colour on each half',
    {
      ...boxWith([2, 1, 3], SIX),
      solid: halves([
        ['', [1, 0, 0], 1, 'red'],
        ['', [-1, 0, 0], 1, 'red'],
        ['', [0, 1, 0], 1, 'white'],
        ['', [0, -1, 0], 1, 'yellow'],
        ['', [0, 0, 1], 1.5, 'blue'],
        ['', [0, 0, -1], 1.5, 'green'],
      ]),
    },
  ],
]

describe('the order of the group', () => {
  it.each(small)('agrees with counting: %s', (_, definition) => {
    const puzzle = compile(must(readDefinition(definition)))
    const states = enumerate(puzzle, 300_000)
    if (!states) throw new Error('too large to count')
    const order = orderOfPuzzle(puzzle)
    expect(order.groupOrder).toBe(BigInt(states.length))
    // Too many for one by one, in orbits that carry smaller groups of their own.
    if (order.visibleStates === null) expect(states.length).toBeGreaterThan(200_000)
    else expect(order.visibleStates).toBe(BigInt(picturesOf(puzzle, states)))
  })

  it('agrees with counting on random boxes, colours shared between faces', () => {
    const side = fc.integer({ min: 1, max: 3 })
    const colours = fc.array(fc.constantFrom(...SIX.slice(0, 4)), { minLength: 6, maxLength: 6 })
    let counted = 0
    fc.assert(
      fc.property(fc.tuple(side, side, side), colours, (size, faces) => {
        fc.pre(Math.max(...size) > 1 && size.filter((n) => n > 1).length > 1)
        const puzzle = compile(must(readDefinition(boxWith(size, faces))))
        const states = enumerate(puzzle, 60_000)
        if (!states) return
        const order = orderOfPuzzle(puzzle)
        expect(order.groupOrder).toBe(BigInt(states.length))
        const pictures = BigInt(picturesOf(puzzle, states))
        expect(order.visibleStates, `${size.join()} ${faces.join()}`).toBe(pictures)
        counted++
      }),
      { numRuns: 20 },
    )
    expect(counted).toBeGreaterThan(5)
  })

  it('agrees with counting where blocks are glued and the hold cannot be told by eye', () => {
    let counted = 0
    const counts = (puzzle: Puzzle) => {
      const states = enumerate(puzzle, 40_000)
      if (!states) return
      const order = orderOfPuzzle(puzzle)
      expect(order.groupOrder).toBe(BigInt(states.length))
      expect(order.visibleStates).toBe(BigInt(picturesOf(puzzle, states)))
      counted++
    }
    // One colour above and below, on the sides that face each other too, or all over.
    const colours = fc.constantFrom(
      ['white', 'white', 'red', 'orange', 'blue', 'green'],
      ['white', 'white', 'red', 'red', 'blue', 'blue'],
      ['white', 'white', 'white', 'white', 'white', 'white'],
    )
    const size = fc.constantFrom([2, 2, 3], [3, 3, 2], [2, 3, 2], [3, 2, 1], [2, 2, 2], [1, 3, 3])
    const tied = fc.tuple(size, colours, fc.nat(), fc.nat()).map(([sides, faces, at, along]) => {
      const middle = (n: number, i: number) => i - (n - 1) / 2
      const axes = [0, 1, 2].filter((a) => sides[a] > 1)
      const axis = axes[along % axes.length]
      const cell = sides.map((n, a) => (a === axis ? 0 : Math.floor(at / 4 ** a) % n))
      const pair = [0, 1].map((i) => cell.map((c, a) => middle(sides[a], a === axis ? c + i : c)))
      return compile(must(readDefinition({ ...boxWith(sides, faces), glue: [pair] })))
    })
    fc.assert(
      fc.property(tied, (puzzle) => counts(puzzle)),
      { numRuns: 14 },
    )
    expect(counted).toBeGreaterThan(3)
  })

  it('counts boxes of even length up to their holds, and circles all free or all locked', () => {
    const visible = (puzzle: Puzzle) => orderOfPuzzle(puzzle).visibleStates
    const circles = (setting: string) => visible(must(puzzleById(`circle-3--${setting}`)))
    // All circles locked it shows what a 3x3x3 shows.
    expect(circles('up-down-front-back-right-left')).toBe(visible(must(puzzleById('cube-3'))))
    expect(circles('none')).toBeGreaterThan(0n)
    // Its corners are all told apart, so no hold but one leaves a picture as it is.
    const long = compile(must(readDefinition(boxWith([3, 3, 4], SIX))))
    expect(visible(long)).toBe(41_295_442_083_840_000n)
  })

  it('is shipped for the catalogue as it is computed', () => {
    const cheap = ['cube-2', 'cube-3', 'box-3x3x2', 'box-3x3x5', 'tilt-3', 'prism-6', 'tetra-3']
    for (const id of [...cheap, 'diagonal-3x3x5-half', 'shift-3x3x5']) {
      const puzzle = must(puzzleById(id))
      expect(derivedOrder(puzzle.definition), id).toEqual(writeOrder(orderOfPuzzle(puzzle)))
    }
    for (const id of CATALOG_IDS)
      expect(derivedOrder(must(puzzleById(id)).definition)?.groupOrder, id).toMatch(/^\d+$/)
  })

  it('has a key that changes with everything that matters', () => {
    const { definition } = must(puzzleById('circle-3'))
    const other = { ...definition, mechanism: { kind: 'circles' as const, locked: [] } }
    expect(definitionKey(other)).not.toBe(definitionKey(definition))
    expect(definitionKey({ ...definition, id: 'x', name: 'y' })).toBe(definitionKey(definition))
  })

  it('tells an orbit that carries a smaller group of its own', () => {
    const twin = derivedOrder(must(puzzleById('twin-3')).definition)
    expect(twin?.index).not.toBe(twin?.indexByInvariants)
    expect(twin?.remarks.join()).toMatch(/smaller group/)
  })

  it('counts shapes as looks of the core, and what keeps them divides the rest', () => {
    for (const id of ['shift-3x3x5', 'plus-3x3x3']) {
      const core = coreOf(must(puzzleById(id)))
      if (!core) throw new Error('no core')
      const shapes = picturesInHold(core) as bigint
      expect((orderOfPuzzle(core).groupOrder as bigint) % shapes).toBe(0n)
      expect(derivedOrder(must(puzzleById(id)).definition)?.silhouettes).toBe(`${shapes}`)
    }
  })

  it('is the largest that the orbits allow, divided by the index', () => {
    for (const id of CATALOG_IDS) {
      const puzzle = must(puzzleById(id))
      if (canBlock(puzzle)) continue
      const order = derivedOrder(puzzle.definition)
      const all = orbitsOf(puzzle).reduce((product, { places, orientations }) => {
        let own = 1n
        places.forEach((_, i) => (own *= BigInt(i + 1) * BigInt(orientations.length)))
        return product * own
      }, 1n)
      expect(BigInt(order?.groupOrder ?? 0) * BigInt(order?.index ?? 0)).toBe(all)
    }
  })
})

describe('a permutation group', () => {
  const permutation = (degree: number) =>
    fc
      .shuffledSubarray(
        Array.from({ length: degree }, (_, i) => i),
        { minLength: degree, maxLength: degree },
      )
      .map((order) => Uint16Array.from(order))

  it('has the order that listing its elements gives, and knows its elements', () => {
    fc.assert(
      fc.property(
        fc.array(permutation(6), { minLength: 1, maxLength: 3 }),
        permutation(6),
        (generators, other) => {
          const group = new PermutationGroup(6, generators, [0, 1, 2, 3, 4, 5])
          const first = Uint16Array.from([0, 1, 2, 3, 4, 5])
          const elements = new Map<string, Permutation>([[first.join(), first]])
          for (const element of elements.values())
            for (const generator of generators) {
              const next = compose(generator, element)
              if (!elements.has(next.join())) elements.set(next.join(), next)
            }
          expect(group.order).toBe(BigInt(elements.size))
          expect(group.contains(other)).toBe(elements.has(other.join()))
          for (const element of elements.values())
            expect(group.contains(invert(element))).toBe(true)
        },
      ),
      { numRuns: 40 },
    )
  })
})
