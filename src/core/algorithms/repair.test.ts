import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { asNamed, layersOf, slabsOf } from '../analysis/layers'
import { byHeart } from '../coach/byHeart'
import { puzzleById } from '../catalog'
import { readTurns } from '../notation/read'
import { inverseOf, isParallel } from '../notation/rewrite'
import type { Puzzle, Turn } from '../puzzle/compile'
import { must } from '../result'
import { schoolsOf } from '../schools'
import { isSolved, sameState, start, turnAll, turnFreely } from '../state'
import { repair, REPAIR_LIMITS, type Reading } from './repair'

const cube2 = must(puzzleById('cube-2'))
const cube3 = must(puzzleById('cube-3'))

const read = (puzzle: Puzzle, text: string) => must(readTurns(puzzle, text))
const written = (turns: readonly Turn[]) => turns.map(({ name }) => name).join(' ')
const texts = (readings: readonly Reading[]) => readings.map(({ turns }) => written(turns))

const all = (puzzle: Puzzle): number[] => puzzle.pieces.map((_, p) => p)
const named = (puzzle: Puzzle, letter: string): number[] =>
  puzzle.pieces.flatMap(({ id }, p) => (id.includes(letter) ? [p] : []))

/** Every sequence that one edit makes of another, written down without regard to what it does. */
function oneEdit(puzzle: Puzzle, turns: readonly Turn[]): Turn[][] {
  const found: Turn[][] = []
  const put = (at: number, takes: number, ...is: readonly Turn[]) =>
    found.push([...turns.slice(0, at), ...is, ...turns.slice(at + takes)])
  const heard = turns.map(({ grip }) => grip)
  const layers = puzzle.turns.filter(
    ({ grip }) => layersOf(puzzle).includes(grip) || heard.includes(grip),
  )
  const slabs = puzzle.turns.filter(({ grip }) => slabsOf(puzzle).includes(grip))
  for (let at = 0; at <= turns.length; at++) {
    for (const turn of layers) put(at, 0, turn)
    if (at === turns.length) continue
    put(at, 1)
    const turn = turns[at]
    for (const other of slabs)
      if (
        other !== turn &&
        isParallel(puzzle, turn, other) &&
        (other.grip === turn.grip || other.amount === turn.amount)
      )
        put(at, 1, other)
    const next = turns.at(at + 1)
    if (at + 1 < turns.length && next && !isParallel(puzzle, turn, next)) put(at, 2, next, turn)
    for (let size = 2; size <= 8 && at + size <= turns.length; size++) {
      const part = turns.slice(at, at + size)
      put(at, size, ...part, ...part)
      if (written(turns.slice(at + size, at + 2 * size)) === written(part))
        put(at, 2 * size, ...part)
    }
  }
  return found
}

const row = (puzzle: Puzzle, least: number, most: number) => {
  const turns = puzzle.turns.filter(({ grip }) => layersOf(puzzle).includes(grip))
  return fc
    .array(fc.nat(turns.length - 1), { minLength: least, maxLength: most })
    .map((picks) => picks.map((i) => turns[i]))
}

describe('repair', () => {
  it('puts back a lost prime first of all', () => {
    const heard = read(cube3, "R U R' U R U2 R")
    const from = must(
      turnAll(cube3, start(cube3), inverseOf(cube3, read(cube3, "R U R' U R U2 R'"))),
    )
    const { edits, readings } = repair(cube3, heard, {
      keep: [],
      from,
      ends: [{ must: 'home', pieces: all(cube3) }],
    })
    expect(edits).toBe(1)
    expect(texts(readings)[0]).toBe("R U R' U R U2 R'")
    // Two others do the same with the whole cube turned along.
    expect(readings.slice(1).map((reading) => reading.edits[0].kind)).not.toContain('back')
    expect(readings[0].edits).toEqual([{ at: 6, kind: 'back', was: ['R'], is: ["R'"] }])
  })

  it('leaves alone what does what it should', () => {
    const heard = read(cube2, "R U R' U'")
    const { edits, readings } = repair(cube2, heard, { keep: [] })
    expect(edits).toBe(0)
    expect(texts(readings)).toEqual(["R U R' U'"])
  })

  it('finds with one edit exactly what a plain enumeration finds', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(cube2, cube3, must(puzzleById('box-3x3x2')), must(puzzleById('tetra-3'))),
        fc.integer({ min: 1, max: 4 }),
        fc.gen(),
        (puzzle, kept, gen) => {
          const heard = gen(row, puzzle, 1, 6)
          const keep = all(puzzle).slice(0, kept)
          const stays = (turns: readonly Turn[]) => {
            const state = new Uint8Array(start(puzzle))
            for (const turn of turns) turnFreely(puzzle, state, turn, state)
            return (
              puzzle.holds.includes(state[keep[0]]) &&
              keep.every((p) => state[p] === state[keep[0]])
            )
          }
          const { edits, readings } = repair(puzzle, heard, { keep }, 1)
          const plain = stays(heard) ? [heard] : oneEdit(puzzle, heard).filter(stays)
          expect(new Set(texts(readings))).toEqual(new Set(plain.map(written)))
          if (plain.length > 0) expect(edits).toBe(stays(heard) ? 0 : 1)
        },
      ),
      { numRuns: 40 },
    )
  })

  it('gives with two and three edits only what does what was asked, each edit as it says', () => {
    fc.assert(
      fc.property(row(cube2, 2, 6), fc.integer({ min: 2, max: 3 }), (heard, kept) => {
        const keep = all(cube2).slice(0, kept)
        const { edits = 0, readings } = repair(cube2, heard, { keep }, 3)
        for (const reading of readings) {
          const end = must(turnAll(cube2, start(cube2), reading.turns))
          expect(keep.every((p) => end[p] === end[keep[0]])).toBe(true)
          expect(reading.edits).toHaveLength(edits)
          // Made by hand, from the last to the first.
          const turns = heard.map(({ name }) => name)
          for (const { at, was, is } of [...reading.edits].reverse()) {
            expect(turns.slice(at, at + was.length)).toEqual(was)
            turns.splice(at, was.length, ...is)
          }
          expect(turns.join(' ')).toBe(written(reading.turns))
        }
      }),
      { numRuns: 12 },
    )
  })

  it.each(['cube-2', 'cube-3', 'tetra-3', 'box-3x3x2', 'twin-3'])(
    'has what was meant among its readings, whatever was misheard: %s',
    (id) => {
      const puzzle = must(puzzleById(id))
      const known = schoolsOf(puzzle)
        .flatMap((school) => byHeart(puzzle, school))
        .filter((text) => read(puzzle, text).length <= 12)
      expect(known.length).toBeGreaterThan(0)
      fc.assert(
        fc.property(fc.nat(), fc.nat(), fc.nat(), fc.boolean(), (which, first, second, twice) => {
          const meant = read(puzzle, known[which % known.length])
          // One slip, or one in either half.
          const middle = twice ? meant.length >> 1 : 0
          const slipIn = (part: readonly Turn[], nth: number) => {
            const slips = oneEdit(puzzle, part)
            return slips[nth % slips.length]
          }
          const begun = twice ? slipIn(meant.slice(0, middle), first) : []
          const heard = [...begun, ...slipIn(meant.slice(middle), second)]
          const from = must(turnAll(puzzle, start(puzzle), inverseOf(puzzle, meant)))
          const ends = [{ must: 'home', pieces: all(puzzle) }] as const
          const slips = twice ? 2 : 1
          const { edits = 9, readings } = repair(puzzle, heard, { keep: [], from, ends }, slips)
          expect(edits).toBeLessThanOrEqual(slips)
          // Unless fewer do.
          // One layer can have two names: what was meant is among them under either.
          const plain = (turns: readonly Turn[]) =>
            written(turns.map((turn) => asNamed(puzzle, turn)))
          if (edits === slips)
            expect(readings.map(({ turns }) => plain(turns))).toContain(plain(meant))
          for (const { turns } of readings)
            expect(isSolved(puzzle, must(turnAll(puzzle, from, turns)))).toBe(true)
        }),
        { numRuns: 12 },
      )
    },
  )

  it('keeps within its wish on layers: the bottom stays, the top is faced', () => {
    const meant = read(cube3, "F R U R' U' F'")
    const heard = read(cube3, "F R U R' U F'")
    const keep = [
      ...named(cube3, 'D'),
      ...all(cube3).filter((p) => /^[FRBL]{2}$/.test(cube3.pieces[p].id)),
    ]
    const { edits, readings } = repair(cube3, heard, { keep })
    expect(edits).toBe(1)
    expect(texts(readings)).toContain(written(meant))
    const end = must(turnAll(cube3, start(cube3), meant))
    expect(keep.every((p) => sameState(Uint8Array.of(end[p]), Uint8Array.of(0)))).toBe(true)
  })

  it('stops when it is told to, and gives nothing half found', () => {
    const heard = read(cube3, "R U R' U R U2 R F")
    let asked = 0
    const { edits, readings } = repair(cube3, heard, { keep: all(cube3) }, 3, () => ++asked < 12)
    expect(readings).toEqual([])
    expect(edits).toBeUndefined()
    expect(asked).toBeLessThan(REPAIR_LIMITS.turns)
  })
})
