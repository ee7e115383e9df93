import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { must } from '../result'
import { multiply, rotate } from '../rotation'
import { scramble, scrambledState } from '../scramble/scramble'
import { looksOf, rotateState, start, type State } from '../state'
import { hasMoves } from '../universal/moves'
import { cube2, cube3 } from '../testing'
import {
  candidatesAt,
  cannotBe,
  EMPTY,
  entryOf,
  isWhole,
  judgeEntry,
  nextSlot,
  placedBy,
  withForced,
  type Entry,
} from './pieces'

/** A state copied as a person would: what is seen in each slot that is asked for. */
function copied(puzzle: Parameters<typeof nextSlot>[0], state: State): Entry {
  const seenAt = new Map(entryOf(puzzle, state).map(({ slot, seen }) => [slot, seen]))
  let entry: Entry = []
  for (let slot = nextSlot(puzzle, entry); slot !== undefined; slot = nextSlot(puzzle, entry)) {
    const seen = seenAt.get(slot)
    const offered = candidatesAt(puzzle, entry, slot).map((candidate) => candidate.seen)
    expect(offered).toContain(seen)
    expect(new Set(offered).size).toBe(offered.length)
    entry = withForced(puzzle, [...entry, { slot, seen: seen as number }])
  }
  return entry
}

/** A rotation that twists a piece in its place. */
function twistOf(puzzle: Parameters<typeof nextSlot>[0], piece: number): number {
  const axis = puzzle.pieces[piece].cells[0]
  return Array.from({ length: 24 }, (_, r) => r).find(
    (r) => r !== 0 && rotate(r, axis).join() === axis.join(),
  ) as number
}

const held = (puzzle: Parameters<typeof nextSlot>[0], state: State, hold: number) =>
  rotateState(state, puzzle.holds[hold % puzzle.holds.length])

describe('copying piece by piece', () => {
  it.each(CATALOG_IDS)('finds a scrambled %s again in any hold', (id) => {
    const puzzle = must(puzzleById(id))
    for (const seed of [3, 8]) {
      const state = held(puzzle, scrambledState(puzzle, scramble(puzzle, seed)), 5 * seed)
      const entry = copied(puzzle, state)
      const verdict = judgeEntry(puzzle, entry)
      if (verdict.kind !== 'whole') throw new Error(verdict.kind)
      expect(verdict.diagnosis.verdict === 'not known').toBe(!hasMoves(puzzle))
      expect(looksOf(puzzle, verdict.state)).toBe(looksOf(puzzle, state))
    }
  })

  it('never asks more than the eye can answer: every look is offered once, with a count', () => {
    const puzzle = must(puzzleById('prism-6'))
    const slot = puzzle.pieces.findIndex(({ kind }) => kind === 'edge (trapezium)')
    const solved = entryOf(puzzle, start(puzzle)).filter((each) => each.slot !== slot)
    // The last one: as it was, or flipped.
    expect(candidatesAt(puzzle, solved, slot).map(({ count }) => count)).toEqual([1, 1])
    const centres = solved.filter(({ slot: at }) => puzzle.pieces[at].kind === 'centre')
    const alike = candidatesAt(puzzle, centres, slot)
    expect(Math.max(...alike.map(({ count }) => count))).toBe(3)
  })

  it('offers that nothing is there only where the shape changes', () => {
    const slots = (id: string) => {
      const puzzle = must(puzzleById(id))
      return entryOf(puzzle, start(puzzle)).some(({ slot }) =>
        candidatesAt(puzzle, [], slot).some(({ seen }) => seen === EMPTY),
      )
    }
    expect(slots('shift-3x3x5')).toBe(true)
    expect(slots('plus-3x3x3')).toBe(true)
    expect(slots('cube-3')).toBe(false)
    expect(slots('twin-3')).toBe(false)
  })

  it('tells a twisted corner, two exchanged edges, and what the hold cannot explain', () => {
    const corner = cube3.pieces.findIndex(({ kind }) => kind === 'corner')
    const twisted = start(cube3)
    twisted[corner] = twistOf(cube3, corner)
    const told = judgeEntry(cube3, entryOf(cube3, twisted))
    if (told.kind !== 'whole') throw new Error(told.kind)
    expect(told.diagnosis.said.map(({ kind }) => kind)).toContain('turnedByHand')
  })

  it('finds a state or says why not, whatever candidates are chosen', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(cube2, cube3, must(puzzleById('tetra-3'))),
        fc.array(fc.nat(1000), { minLength: 30, maxLength: 30 }),
        (puzzle, picks) => {
          let entry: Entry = []
          let pick = 0
          for (let at = nextSlot(puzzle, entry); at !== undefined; at = nextSlot(puzzle, entry)) {
            const offered = candidatesAt(puzzle, entry, at)
            expect(offered.length).toBeGreaterThan(0)
            const { seen } = offered[(picks[pick++] ?? 0) % offered.length]
            entry = withForced(puzzle, [...entry, { slot: at, seen }])
          }
          const verdict = judgeEntry(puzzle, entry)
          if (verdict.kind !== 'whole') throw new Error(verdict.kind)
          const placed = placedBy(puzzle, entry)
          expect(placed?.placed.size).toBe(puzzle.pieces.length)
          expect(isWhole(puzzle, entry)).toBe(true)
          const seen = entryOf(puzzle, verdict.state)
          const sorted = (list: Entry) => [...list].sort((a, b) => a.slot - b.slot)
          expect(sorted(seen)).toEqual(sorted(entry))
        },
      ),
      { numRuns: 25 },
    )
  })

  it.each(CATALOG_IDS)('never doubts what turns made, however much of it is entered: %s', (id) => {
    const puzzle = must(puzzleById(id))
    for (const seed of [2, 5]) {
      const state = held(puzzle, scrambledState(puzzle, scramble(puzzle, seed)), 3 * seed)
      const entry = entryOf(puzzle, state)
      const shuffled = [...entry.slice(seed), ...entry.slice(0, seed)]
      for (let known = 0; known <= entry.length; known += 1 + Math.floor(entry.length / 12))
        expect(cannotBe(puzzle, shuffled.slice(0, known))).toBeUndefined()
      expect(cannotBe(puzzle, entry)).toBeUndefined()
    }
  })

  it('doubts exactly those whole entries that no turns lead to', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(cube2, cube3, must(puzzleById('prism-6')), must(puzzleById('tetra-3'))),
        fc.array(fc.nat(1000), { minLength: 30, maxLength: 30 }),
        (puzzle, picks) => {
          let entry: Entry = []
          for (let pick = 0, at = nextSlot(puzzle, entry); at !== undefined; pick++) {
            const offered = candidatesAt(puzzle, entry, at)
            const { seen } = offered[(picks[pick] ?? 0) % offered.length]
            entry = withForced(puzzle, [...entry, { slot: at, seen }])
            at = nextSlot(puzzle, entry)
          }
          const verdict = judgeEntry(puzzle, entry)
          if (verdict.kind !== 'whole') throw new Error(verdict.kind)
          expect(cannotBe(puzzle, entry) !== undefined).toBe(
            verdict.diagnosis.verdict === 'assembly',
          )
        },
      ),
      { numRuns: 30 },
    )
  })

  it('doubts a twisted corner as soon as all corners are entered, and names the corners', () => {
    const isCorner = ({ kind }: { kind: string }) => kind === 'corner'
    const corner = cube3.pieces.findIndex(isCorner)
    const twisted = start(cube3)
    twisted[corner] = twistOf(cube3, corner)
    const entry = entryOf(cube3, twisted)
    const corners = entry.filter(({ slot }) => isCorner(cube3.pieces[slot]))
    const centres = entry.filter(({ slot }) => cube3.pieces[slot].kind === 'centre')
    expect(cannotBe(cube3, [...centres, ...corners.slice(1)])).toBeUndefined()
    expect(cannotBe(cube3, [...centres, ...corners])).toMatch(/^As entered, the corners cannot be/)
  })

  it('keeps what was entered when the puzzle is turned over as a whole', () => {
    const state = scrambledState(cube2, scramble(cube2, 4))
    const once = judgeEntry(cube2, copied(cube2, state))
    const over = judgeEntry(cube2, copied(cube2, rotateState(state, cube2.holds[7])))
    if (once.kind !== 'whole' || over.kind !== 'whole') throw new Error('not whole')
    expect(Array.from(over.state)).toEqual(
      Array.from(once.state, (r) => multiply(cube2.holds[7], r)),
    )
  })
})
