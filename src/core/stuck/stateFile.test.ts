import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { placed, type Puzzle } from '../puzzle/compile'
import { must } from '../result'
import { MATRICES, rotate } from '../rotation'
import { scramble, scrambledState } from '../scramble/scramble'
import { looksOf, rotateState, start, writeState, type State } from '../state'
import { cube2, cube3 } from '../testing'
import { diagnose } from './diagnose'
import { readStateFile } from './stateFile'

const head = { format: 'merry-lantern-state', version: 1 }

const byPieces = (puzzle: Puzzle, state: State) => ({
  ...head,
  pieces: puzzle.pieces.map(({ id }, p) => {
    const m = MATRICES[state[p]]
    return { id, rotation: [m.slice(0, 3), m.slice(3, 6), m.slice(6, 9)].map((row) => [...row]) }
  }),
})

const byLooks = (puzzle: Puzzle, state: State) => ({
  ...head,
  places: puzzle.pieces.map(({ cells, core, faces }, p) => {
    const at = (point: readonly number[]) => [
      ...placed(puzzle.cores[core], state[p], point as never),
    ]
    return {
      cells: cells.map(at),
      faces: faces.map(({ colour, normal, polygon }) => ({
        colour,
        normal: [...rotate(state[p], normal)],
        polygon: polygon.map(at),
      })),
    }
  }),
})

const anyState = fc
  .tuple(fc.constantFrom(...CATALOG_IDS), fc.nat(50), fc.nat(23))
  .map(([id, seed, hold]) => {
    const puzzle = must(puzzleById(id))
    const state = scrambledState(puzzle, scramble(puzzle, seed))
    return { puzzle, state: rotateState(state, puzzle.holds[hold % puzzle.holds.length]) }
  })

const stateIn = (puzzle: Puzzle, file: unknown): State => {
  const read = must(readStateFile(puzzle, file))
  if (read.kind === 'misread') throw new Error(read.sentences.join(' '))
  return read.state
}

const misread = (puzzle: Puzzle, file: unknown) => {
  const read = must(readStateFile(puzzle, file))
  return read.kind === 'misread' ? read.sentences.join(' ') : read.kind
}

describe('a state file', () => {
  it('says the same by pieces, by letters and by what is seen', () => {
    fc.assert(
      fc.property(anyState, ({ puzzle, state }) => {
        expect(Array.from(stateIn(puzzle, byPieces(puzzle, state)))).toEqual(Array.from(state))
        const letters = { ...head, letters: writeState(state) }
        expect(Array.from(stateIn(puzzle, letters))).toEqual(Array.from(state))
        expect(looksOf(puzzle, stateIn(puzzle, byLooks(puzzle, state)))).toBe(
          looksOf(puzzle, state),
        )
      }),
      { numRuns: 25 },
    )
  })

  it('that is no set of the puzzle’s pieces is told as misread', () => {
    const whole = byPieces(cube2, start(cube2))
    const [first, second] = whole.pieces
    expect(misread(cube2, { ...whole, pieces: [...whole.pieces.slice(1)] })).toMatch(
      new RegExp(`The piece ${first.id} is missing`),
    )
    expect(misread(cube2, { ...whole, pieces: [...whole.pieces, first] })).toMatch(/appears twice/)
    const clash = {
      ...second,
      rotation: [
        [0, 0, 1],
        [0, 1, 0],
        [-1, 0, 0],
      ],
    }
    const others = whole.pieces.filter(({ id }) => id !== second.id)
    expect(misread(cube2, { ...whole, pieces: [...others, clash] })).toMatch(/in the same place/)

    const seen = byLooks(cube3, start(cube3))
    const edge = seen.places.find(({ faces }) => faces.length === 2) as (typeof seen.places)[number]
    const twice = seen.places.map((place) =>
      place === edge
        ? {
            ...place,
            faces: [place.faces[0], { ...place.faces[1], colour: place.faces[0].colour }],
          }
        : place,
    )
    expect(misread(cube3, { ...seen, places: twice })).toMatch(/No piece shows/)
    expect(misread(cube3, { ...seen, places: [...seen.places, edge] })).toMatch(/more than once/)
    expect(misread(cube3, { ...seen, places: seen.places.slice(2) })).toMatch(
      /2 pieces are missing/,
    )
  })

  it('that is not well made is refused with the path of its field', () => {
    const refused = (file: unknown) => {
      const read = readStateFile(cube2, file)
      return read.ok ? undefined : read.problem.field
    }
    expect(refused({ ...head, version: 2, letters: 'a' })).toBe('version')
    expect(refused({ ...head, letters: 'zz' })).toBe('letters')
    expect(refused({ ...head, pieces: [{ id: 'UFR', rotation: [[1, 0, 0]] }] })).toMatch(
      /pieces\[0\]/,
    )
    expect(
      refused({
        ...head,
        pieces: [
          {
            id: 'QQQ',
            rotation: [
              [1, 0, 0],
              [0, 1, 0],
              [0, 0, 1],
            ],
          },
        ],
      }),
    ).toBe('pieces[0].id')
    expect(
      refused({
        ...head,
        pieces: [
          {
            id: 'UFR',
            rotation: [
              [1, 0, 0],
              [0, 1, 0],
              [0, 0, -1],
            ],
          },
        ],
      }),
    ).toBe('pieces[0].rotation')
    expect(refused(head)).toBeDefined()
    expect(refused({ ...head, letters: 'aaaaaaaa', more: 1 })).toBeDefined()
  })
})

describe('the examples of the documentation', () => {
  it('are what they are said to be', () => {
    const text = readFileSync(new URL('../../../docs/state-file.md', import.meta.url), 'utf8')
    const [whole, part] = [...text.matchAll(/```json\n([\s\S]*?)```/g)].map(
      ([, json]) => JSON.parse(json) as Record<string, unknown>,
    )
    const state = stateIn(cube2, whole)
    expect(diagnose(cube2, state).said).toMatchObject([
      { kind: 'impossible' },
      { kind: 'turnedByHand', degrees: 120 },
      { kind: 'turnAny', degrees: 120 },
      { kind: 'pieceAt' },
    ])
    expect(misread(cube2, part)).toMatch(/7 pieces are missing/)
  })
})
