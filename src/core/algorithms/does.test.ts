import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { placeNamesOf } from '../analysis/placeNames'
import { stateMade } from '../analysis/effect'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { dot, unit } from '../geometry/vector'
import { readTurns } from '../notation/read'
import type { Puzzle, Turn } from '../puzzle/compile'
import { DIRECTIONS } from '../puzzle/directions'
import { posed, poseOf } from '../puzzle/view'
import { must } from '../result'
import { rotate } from '../rotation'
import { start, turnAll, type State } from '../state'
import { doingOf, type Doing } from './does'
import { followedBy, undoing } from './moves'

const ids = fc.constantFrom(...CATALOG_IDS)
const rows = fc.array(fc.nat(), { minLength: 1, maxLength: 12 })
const cube3 = must(puzzleById('cube-3'))
const doing = (text: string, puzzle = cube3) => must(doingOf(puzzle, must(readTurns(puzzle, text))))

/** Turns of a puzzle and what they do; undefined where they cannot be made or leave the shape. */
function drawn(id: string, picks: readonly number[]) {
  const puzzle = must(puzzleById(id))
  const turns = picks.map((i) => puzzle.turns[i % puzzle.turns.length])
  const told = doingOf(puzzle, turns)
  return told.ok ? { puzzle, turns, told: told.value } : undefined
}

describe('what a sequence does', () => {
  it('is what the engine makes of the finished puzzle, sentence by sentence', () => {
    fc.assert(
      fc.property(ids, rows, (id, picks) => {
        const found = drawn(id, picks)
        if (!found) return
        const { puzzle, turns, told } = found
        const state = must(stateMade(puzzle, turns))
        for (const { from, to } of told.hops) expect(puzzle.place[24 * from + state[from]]).toBe(to)
        const moved = new Set([...told.hops.map(({ from }) => from), ...told.turned])
        state.forEach((r, p) => expect(r !== 0).toBe(moved.has(p)))
        expect(told.borrowed.every((p) => !moved.has(p))).toBe(true)
        expectArrivals(puzzle, state, told)
        expectSums(puzzle, told)
      }),
      { numRuns: 150 },
    )
  })

  it('comes back after as many times as it says, and at no divisor of that', () => {
    fc.assert(
      fc.property(ids, rows, (id, picks) => {
        const found = drawn(id, picks)
        if (!found || found.told.order > 200) return
        const { puzzle, turns, told } = found
        const isBack = (n: number) => {
          const all: Turn[] = Array.from({ length: n }, () => turns).flat()
          const end = turnAll(puzzle, start(puzzle), all)
          return end.ok && end.value.every((r) => r === end.value[0])
        }
        expect(isBack(told.order)).toBe(true)
        for (let n = 1; n < told.order; n++) if (told.order % n === 0) expect(isBack(n)).toBe(false)
      }),
      { numRuns: 40 },
    )
  })

  it('of A B is that of A and then of B', () => {
    fc.assert(
      fc.property(ids, rows, rows, (id, first, second) => {
        const [a, b, both] = [first, second, [...first, ...second]].map((picks) => {
          const puzzle = must(puzzleById(id))
          const turns = picks
            .map((i) => puzzle.turns[i % puzzle.turns.length])
            .filter(({ whole }) => !whole)
          return stateMade(puzzle, turns)
        })
        if (!a.ok || !b.ok || !both.ok) return
        const puzzle = must(puzzleById(id))
        expect(followedBy(puzzle, a.value, b.value)).toEqual(both.value)
        expect(followedBy(puzzle, a.value, undoing(puzzle, a.value))).toEqual(start(puzzle))
      }),
      { numRuns: 80 },
    )
  })

  it('is told in words that a solver would use', () => {
    const three = doing("R' L F2 R L' U2")
    expect(three.sentences[0]).toMatch(/^Three edges go round: the bottom front edge to /)
    expect(three.summary).toBe('3 edges round, 2 turned in place')
    const turned = doing("R U' R U R U R U' R' U' R2")
    expect(turned.sentences.join(' ')).toContain(
      'The top centre is turned in place, a quarter turn anticlockwise, which does not show.',
    )
    expect(doing("R R'").sentences[0]).toBe('Nothing is changed by it.')
    expect(doing('R U y').sentences.join(' ')).toContain(
      'Afterwards the whole puzzle is held otherwise: what was in front is on the left',
    )
  })

  it('is refused where a turn is blocked', () => {
    const twin = must(puzzleById('diagonal-3x3x5'))
    const told = doingOf(twin, must(readTurns(twin, 'U R2 F2 U R2')))
    expect(told.ok || told.problem.sentence).toBeTruthy()
  })
})

/** 'the top left edge to the top back edge (what looked up looks to the left)' */
function expectArrivals(puzzle: Puzzle, state: State, { sentences }: Doing) {
  const { names } = placeNamesOf(puzzle, 0)
  const pose = poseOf(puzzle.definition)
  const hop = /(the [^;:]+?) to (the [^;:(]+?)(?: \(what look(?:s|ed) ([^)]+)\))?[;.]/g
  for (const sentence of sentences.filter((each) => /change places: |go round: /.test(each)))
    for (const [, from, to, looks] of sentence.slice(sentence.indexOf(': ')).matchAll(hop)) {
      const piece = names.indexOf(from)
      expect(piece, from).toBeGreaterThanOrEqual(0)
      expect(puzzle.place[24 * piece + state[piece]], sentence).toBe(names.indexOf(to))
      if (looks === undefined) continue
      const [, was, , is] = /^(.+?)( still does| looks (.+))$/.exec(looks) ?? []
      const toward = (words: string) => DIRECTIONS.find((each) => each.toward === words)
      const face = puzzle.pieces[piece].faces.find(
        ({ normal }) => dot(unit(posed(pose, normal)), toward(was)?.vector ?? [0, 0, 0]) > 0.999,
      )
      expect(face, sentence).toBeDefined()
      if (!face) continue
      const now = unit(posed(pose, rotate(state[piece], face.normal)))
      expect(dot(now, toward(is ?? was)?.vector ?? [0, 0, 0])).toBeGreaterThan(0.999)
    }
}

/** Moved, borrowed and untouched are all there are. */
function expectSums(puzzle: Puzzle, { hops, turned, borrowed, sentences }: Doing) {
  const untouched = puzzle.pieces.length - hops.length - turned.length - borrowed.length
  const NUMBERS = [
    'no',
    'one',
    'two',
    'three',
    'four',
    'five',
    'six',
    'seven',
    'eight',
    'nine',
    'ten',
  ]
  const said = /(\w+) (?:is|are) never touched/.exec(sentences.join(' '))?.[1].toLowerCase()
  if (said !== undefined)
    expect(NUMBERS.includes(said) ? NUMBERS.indexOf(said) : Number(said)).toBe(untouched)
  else if (borrowed.length > 0) expect(untouched).toBe(0)
}
