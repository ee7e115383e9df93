/** What is said of pieces and of how a puzzle stands is judged, on every puzzle. */
import { describe, expect, it } from 'vitest'
import { kindsIn } from '../analysis/anatomy'
import { passageOf } from '../scramble/passage'
import { passageClaim, stopClaim } from './stops'
import { CATALOG_IDS, puzzleById } from '../catalog'
import type { Puzzle } from '../puzzle/compile'
import { must } from '../result'
import { scramble, scrambledState } from '../scramble/scramble'
import { start, turnFreely } from '../state'
import { gluedCube } from '../testing'
import { sentencesOf } from '../words/say'
import { evidenceOf, evidenceOfTurns } from './evidence'
import { carryingSaid, factsSaid, lyingSaid, standingSaid } from './facts'
import { Judged } from './judged.testing'
import { FACTS } from './kinds'
import type { FactsKind } from './claim'

const at = (puzzle: Puzzle, id: string) => puzzle.pieces.findIndex((piece) => piece.id === id)
const factWords = (puzzle: Puzzle, id: string) =>
  sentencesOf(puzzle, factsSaid(puzzle, at(puzzle, id)))

describe('what is said of pieces and turns', () => {
  const judged = new Judged(20)

  it.each(CATALOG_IDS)('is true on %s, scrambled and not', (id) => {
    const puzzle = must(puzzleById(id))
    for (const state of [start(puzzle), scrambledState(puzzle, scramble(puzzle, 4))]) {
      const evidence = evidenceOf(puzzle, state, 0)
      expect(judged.faultsOf(puzzle, standingSaid(puzzle, state), evidence)).toEqual([])
      for (const { pieces } of kindsIn(puzzle)) {
        expect(judged.faultsOf(puzzle, factsSaid(puzzle, pieces[0]), evidence)).toEqual([])
        expect(judged.faultsOf(puzzle, lyingSaid(puzzle, state, pieces[0]), evidence)).toEqual([])
      }
      const turns = puzzle.turns.filter(({ whole }) => !whole)
      for (const turn of turns.slice(0, 8))
        expect(judged.faultsOf(puzzle, carryingSaid(puzzle, state, turn), evidence)).toEqual([])
    }
  })

  it('names a place for what is amiss of a sequence that stops, without a code', () => {
    const puzzle = must(puzzleById('shift-3x3x5'))
    const layers = puzzle.turns.filter(({ whole }) => !whole)
    const turns = [layers[0], layers[7], layers[11]]
    const passage = passageOf(puzzle, turns, 200)
    if (!passage) throw new Error('it is never blocked')
    const said = [
      passageClaim(passage),
      ...passage.stops.slice(0, 3).map((stop) => stopClaim(puzzle, turns, stop)),
    ]
    expect(said.length).toBeGreaterThan(1)
    expect(judged.faultsOf(puzzle, said, evidenceOfTurns(puzzle, turns, start(puzzle)))).toEqual([])
    const text = sentencesOf(puzzle, said).join(' ')
    expect(text).toMatch(/^Tried from 200 scrambles/)
    expect(text).not.toMatch(/\b[UDRLFB]{2,3}[+.]/)
  })

  it('has every kind of claim that there is for it, and no lie goes unfound', () => {
    const kinds = Object.keys(FACTS) as FactsKind[]
    expect(kinds.filter((kind) => !judged.kinds.has(kind))).toEqual([])
    expect(judged.kinds.get('blocked')).toBeGreaterThan(0)
    expect(judged.unfound).toEqual([])
  })

  it('is said as one would say it', () => {
    const prism = must(puzzleById('prism-6'))
    const words = factWords(prism, 'DL').join(' ')
    expect(words).toContain('12 places, those of edges (trapezium) and edges (rectangle)')
    expect(words).toMatch(
      /It looks exactly like what belongs to the lower right edge and the lower left edge/,
    )
    expect(words).toContain('two ways, and each of them shows')
    const tower = must(puzzleById('shift-3x3x5'))
    expect(factWords(tower, 'UBL+U').join(' ')).toContain(
      '16 places where the finished puzzle has nothing',
    )
    expect(factWords(must(puzzleById('circle-3')), 'R')).toEqual([
      'No turn moves it: it is part of the core.',
    ])
  })

  it('says what a blocked turn would cut, or what its layer lacks', () => {
    const blocked = (puzzle: Puzzle, made: readonly string[], name: string) => {
      const turnOf = (each: string) => {
        const found = puzzle.turnByName.get(each)
        if (!found) throw new Error(each)
        return found
      }
      const state = made.reduce(
        (now, each) => turnFreely(puzzle, now, turnOf(each), new Uint8Array(now.length)),
        start(puzzle),
      )
      return sentencesOf(puzzle, carryingSaid(puzzle, state, turnOf(name))).join(' ')
    }
    expect(blocked(gluedCube, [], 'F')).toMatch(/^F is blocked: it would cut through the .+\.$/)
    expect(blocked(must(puzzleById('shift-3x3x5')), ['R'], '1U')).toMatch(
      /^1U is blocked: that layer is not complete\. Nothing is at the .+\.$/,
    )
  })
})
