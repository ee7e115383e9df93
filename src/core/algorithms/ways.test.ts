import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { frameOf } from '../analysis/frame'
import { layersOf } from '../analysis/layers'
import { stateMade } from '../analysis/effect'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { readTurns } from '../notation/read'
import { NO_PLACE, type Puzzle } from '../puzzle/compile'
import { must } from '../result'
import { orderOf } from '../rotation'
import { start, turnAll } from '../state'
import { does, waysFor, type Way } from './ways'
import { completed, readWish, waysInto, wishHome, wishOf, writeWish, type Wish } from './wish'

const cube3 = must(puzzleById('cube-3'))
const at = (puzzle: Puzzle, id: string) => puzzle.pieces.findIndex((piece) => piece.id === id)
const soon = (ms: number) => {
  const end = performance.now() + ms
  return () => Promise.resolve(performance.now() > end)
}
const stays: Wish = { goes: new Map(), free: new Set(), rest: 'stays' }

async function asked(puzzle: Puzzle, wish: Wish, ms = 3000, most = 12) {
  const whole = must(completed(puzzle, wish))
  const firsts: Way[] = []
  const ways = await waysFor(puzzle, whole, {
    most,
    scheme: puzzle.definition.colours,
    rest: soon(ms),
    onFirst: (way) => firsts.push(way),
  })
  return { whole, ways, firsts }
}

describe('the finder', () => {
  it('gives only ways that do what is asked, from what a sequence of any puzzle does', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.constantFrom('cube-2', 'cube-3', 'tetra-3', 'box-3x3x2', 'tilt-3', 'cube-4'),
        fc.array(fc.nat(), { minLength: 2, maxLength: 4 }),
        async (id, picks) => {
          const puzzle = must(puzzleById(id))
          // A slice between still centres would leave the puzzle held otherwise.
          const { piece, turns } = frameOf(puzzle)
          const plain = (piece === undefined ? turns : puzzle.turns).filter(({ grip }) =>
            layersOf(puzzle).includes(grip),
          )
          const made = stateMade(
            puzzle,
            picks.map((i) => plain[i % plain.length]),
          )
          if (!made.ok || made.value.every((r) => r === 0)) return
          const { whole, ways, firsts } = await asked(puzzle, wishOf(puzzle, made.value), 1500, 5)
          if (!ways.ok) {
            expect(ways.problem.sentence).toContain('Nothing is asked')
            return
          }
          for (const { turns } of [...ways.value, ...firsts])
            expect(does(puzzle, turns, whole)).toBe(true)
          for (const { turnCount, isShortest } of ways.value) {
            expect(isShortest).toBe(true)
            expect(turnCount).toBeLessThanOrEqual(picks.length)
          }
        },
      ),
      { numRuns: 12 },
    )
  })

  it('answers a three-cycle of edges with the fewest turns, and one at once', async () => {
    const made = must(stateMade(cube3, must(readTurns(cube3, "R' L F2 R L' U2"))))
    const { ways, firsts } = await asked(cube3, wishOf(cube3, made), 20_000)
    expect(firsts.length).toBeGreaterThan(0)
    const [best] = must(ways)
    expect(best.turnCount).toBeLessThanOrEqual(6)
  })

  it('refuses with what it would take, or has a way, for two that exchange on every puzzle', async () => {
    for (const id of CATALOG_IDS) {
      const puzzle = must(puzzleById(id))
      const pair = exchange(puzzle)
      if (!pair) continue
      const { whole, ways, firsts } = await asked(puzzle, { ...stays, goes: pair }, 0)
      if (!ways.ok) expect(ways.problem.sentence).toMatch(/It takes more: |small group|Nothing is/)
      else for (const { turns } of firsts) expect(does(puzzle, turns, whole)).toBe(true)
      if (ways.ok) expect(firsts.length + ways.value.length, id).toBeGreaterThan(0)
    }
  })

  it('keeps centres in register where what does not show must be right too', async () => {
    const made = must(stateMade(cube3, must(readTurns(cube3, "R' L F2 R L' U2"))))
    // Two centres are turned unseen by it; with them as they were it takes more.
    const whole = must(completed(cube3, wishOf(cube3, made)))
    const still = {
      ...whole,
      position: made.map((r, p) => (cube3.place[24 * p + r] === p ? 0 : r)),
    }
    const options = { most: 12, scheme: cube3.definition.colours, isExact: true }
    const found = must(await waysFor(cube3, still, { ...options, rest: soon(20_000) }))
    expect(found.length).toBeGreaterThan(0)
    for (const { turns } of found) {
      expect(turns.length).toBeGreaterThan(6)
      expect(must(stateMade(cube3, turns))).toEqual(still.position)
    }
    const quarter = { ...still, position: still.position.slice() }
    const centre = cube3.pieces.findIndex(({ kind }) => kind === 'centre')
    const quarters = waysInto(cube3, centre, centre).filter((r) => orderOf(r) === 4)
    quarter.position[centre] = quarters[0]
    const refused = await waysFor(cube3, quarter, { ...options, rest: soon(0) })
    expect(refused.ok ? '' : refused.problem.sentence).toContain('does not show')
  })

  it('lets the rest do as it likes', async () => {
    const [urf, ufl] = [at(cube3, 'UFR'), at(cube3, 'UFL')].map((p, i) =>
      p >= 0 ? p : cube3.pieces.findIndex(({ kind }) => kind === 'corner') + i,
    )
    const [turn] = waysInto(cube3, urf, ufl)
    const { ways } = await asked(cube3, { ...stays, goes: new Map([[urf, turn]]), rest: 'free' })
    expect(must(ways)[0].turnCount).toBeLessThanOrEqual(3)
  })
})

function exchange(puzzle: Puzzle): Map<number, number> | undefined {
  for (const [a, { kind }] of puzzle.pieces.entries())
    for (let b = a + 1; b < puzzle.pieces.length; b++) {
      if (puzzle.pieces[b].kind !== kind) continue
      const [there] = waysInto(puzzle, a, b)
      const [back] = waysInto(puzzle, b, a)
      if (there !== undefined && back !== undefined)
        return new Map([
          [a, there],
          [b, back],
        ])
    }
  return undefined
}

describe('what does what is wished', () => {
  it('leaves the puzzle in shape', () => {
    const tower = must(puzzleById('shift-3x3x5'))
    const turn = must(readTurns(tower, 'R'))
    const after = must(turnAll(tower, start(tower), turn))
    // Asked of just those that stand out: they lie in no place at all, not in their own.
    const out = [...after].flatMap((r, p) => (tower.place[24 * p + r] === NO_PLACE ? [p] : []))
    expect(out.length).toBeGreaterThan(0)
    const asked = { position: start(tower), pieces: out }
    expect(does(tower, turn, asked)).toBe(false)
    expect(does(tower, must(readTurns(tower, "R R'")), asked)).toBe(true)
  })
})

describe('a wish', () => {
  it('that leaves pieces free is never refused for one position that cannot be', async () => {
    const [corner, other] = cube3.pieces.flatMap(({ kind }, p) => (kind === 'corner' ? [p] : []))
    const ways = new Map([
      [corner, waysInto(cube3, corner, other)[0]],
      [other, waysInto(cube3, other, corner)[0]],
    ])
    const { whole } = await asked(cube3, { ...stays, goes: ways }, 0)
    expect(whole.isSettled).toBe(true)
    const edges = new Set(cube3.pieces.flatMap(({ kind }, p) => (kind === 'edge' ? [p] : [])))
    const loose = await asked(cube3, { ...stays, goes: ways, free: edges }, 0)
    expect(loose.whole.isSettled).toBe(false)
    expect(loose.ways.ok).toBe(true)
  })

  it('to lead a position home is met by what does so', async () => {
    const turns = must(readTurns(cube3, "R U F'"))
    const wish = wishHome(cube3, must(turnAll(cube3, start(cube3), turns)))
    const { ways } = await asked(cube3, must(readWish(cube3, wish ?? '')))
    expect(must(ways).map((way) => way.turns.map(({ name }) => name).join(' '))).toContain(
      "F U' R'",
    )
    expect(wishHome(cube3, start(cube3))).toBeUndefined()
  })

  it('is read as it was written', () => {
    const wish: Wish = { goes: new Map([[0, 3]]), free: new Set([5]), rest: 'free' }
    expect(must(readWish(cube3, writeWish(cube3, wish)))).toEqual(wish)
  })

  it('that contradicts itself or names nothing is refused with the field', () => {
    const [a, b] = cube3.pieces.flatMap(({ kind }, p) => (kind === 'corner' ? [p] : []))
    const [way] = waysInto(cube3, a, b)
    const both = completed(cube3, {
      ...stays,
      goes: new Map([
        [a, way],
        [b, 0],
      ]),
    })
    expect(both.ok ? '' : both.problem.sentence).toContain('would both lie at')
    for (const text of ['never', 'stays,XYZ:a', 'stays,:'])
      expect(readWish(cube3, text).ok ? '' : 'refused').toBe('refused')
  })
})
