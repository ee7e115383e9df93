import { describe, expect, it } from 'vitest'
import { must } from '../result'
import { compile } from './compile'
import { readDefinition, readPuzzleFile } from './readDefinition'

const box = (extra: object) => ({
  schema: 1,
  id: 'a-box',
  name: 'A box',
  mechanism: { kind: 'box', size: [3, 3, 3] },
  ...extra,
})

const ALL = ['x+', 'x-', 'y+', 'y-', 'z+', 'z-']

/** Half-spaces of a cube by the directions of its sides. */
const halves = (sides: readonly string[], at = 1.5) =>
  sides.map((side) => ({
    normal: ['x', 'y', 'z'].map((axis) => (side[0] === axis ? (side[1] === '+' ? 1 : -1) : 0)),
    at,
    colour: 'red',
  }))

const circles = { kind: 'circles', locked: [] }
const joined = (centre: readonly number[]) => ({
  kind: 'conjoined',
  boxes: [
    { size: [3, 3, 3], centre: [0, 0, 0] },
    { size: [3, 3, 3], centre },
  ],
})

describe('a puzzle file', () => {
  it.each([
    ['another schema', { schema: 2 }, 'schema'],
    ['an id with capitals', { id: 'Box' }, 'id'],
    ['no name', { name: '' }, 'name'],
    ['too many layers', { mechanism: { kind: 'box', size: [3, 8, 3] } }, 'mechanism.size[1]'],
    ['half a layer', { mechanism: { kind: 'box', size: [3, 2.5, 3] } }, 'mechanism.size[1]'],
    ['two dimensions', { mechanism: { kind: 'box', size: [3, 3] } }, 'mechanism.size'],
    ['an unknown mechanism', { mechanism: { kind: 'clock', size: [3, 3, 3] } }, 'mechanism.kind'],
    ['an unknown field', { wheels: 4 }, ''],
    [
      'a solid without an end',
      { solid: { halfSpaces: halves(['x+', 'x-', 'y+', 'y-']) } },
      'solid',
    ],
    ['a solid that misses a piece', { solid: { halfSpaces: halves(ALL, 0.5) } }, 'solid'],
    [
      'a half-space that cuts nothing',
      { solid: { halfSpaces: [...halves(ALL), { normal: [1, 1, 1], at: 9, colour: 'red' }] } },
      'solid.halfSpaces[6]',
    ],
    [
      'a solid with an unknown colour',
      { solid: { halfSpaces: halves(ALL).map((half) => ({ ...half, colour: 'mauve' })) } },
      'solid.halfSpaces[0].colour',
    ],
    [
      'a direction of two numbers',
      { solid: { halfSpaces: [{ normal: [1, -1], at: 1.5, colour: 'red' }, ...halves(ALL)] } },
      'solid.halfSpaces[0].normal',
    ],
    [
      'a direction that is none',
      { solid: { halfSpaces: [{ normal: [0, 0, 0], at: 1.5, colour: 'red' }, ...halves(ALL)] } },
      'solid.halfSpaces[0].normal',
    ],
    [
      'a tilt that is not rational enough',
      { solid: { halfSpaces: [{ normal: [1, 0, 0], at: 1.2345, colour: 'red' }, ...halves(ALL)] } },
      'solid.halfSpaces[0].at',
    ],
    ['circles with a solid', { mechanism: circles, solid: { halfSpaces: halves(ALL) } }, 'solid'],
    ['boxes that share nothing', { mechanism: joined([9, 9, 0]) }, 'mechanism.boxes'],
    ['a view that leans', { view: { up: [0, 1, 0], front: [0, 1, 1] } }, 'view'],
    ['a face without its colour', { faces: { up: 'mauve' } }, 'faces.up'],
    [
      'glue beyond the box',
      {
        glue: [
          [
            [1, 1, 1],
            [1, 1, 2],
          ],
        ],
      },
      'glue[0]',
    ],
    [
      'glue of strangers',
      {
        glue: [
          [
            [1, 1, 1],
            [-1, 1, 1],
          ],
        ],
      },
      'glue[0]',
    ],
    [
      'a cell glued twice',
      {
        glue: [
          [
            [1, 1, 1],
            [1, 1, 0],
          ],
          [
            [1, 1, 0],
            [1, 1, -1],
          ],
        ],
      },
      'glue[1]',
    ],
  ])('is refused with the path of what is wrong: %s', (_, extra, field) => {
    const read = readDefinition(box(extra))
    expect(read.ok).toBe(false)
    if (!read.ok) expect(read.problem.field).toBe(field)
  })

  it('tells all that is wrong at once', () => {
    const read = readDefinition(box({ id: 'No', name: '', glue: [[[1, 1, 1]]] }))
    if (read.ok) throw new Error('it was taken')
    const fields = [read.problem, ...(read.problem.more ?? [])].map(({ field }) => field)
    expect(fields.sort()).toEqual(['glue[0]', 'id', 'name'])
  })

  it('gives names to pieces that are glued, by all their sides', () => {
    const glue = [
      [
        [1, 1, 1],
        [1, 1, 0],
        [1, 1, -1],
      ],
    ]
    const puzzle = compile(must(readDefinition(box({ glue }))))
    const block = puzzle.pieces.find(({ kind }) => kind === 'block')
    expect(block?.id).toBe('UFBR')
    expect(block?.faces).toHaveLength(8)
    // The squares between the cells are gone: 3 cells have 18, 4 of them inside.
    expect(block?.body).toHaveLength(14)
  })

  it.each([null, 4, 'text', []])('is refused if it is no object: %j', (input) => {
    expect(readDefinition(input).ok).toBe(false)
  })
})

describe('the text of a puzzle file', () => {
  const good = { schema: 1, id: 'flat', name: 'Flat', mechanism: { kind: 'box', size: [1, 3, 3] } }

  it('is read as what it says', () => {
    expect(readPuzzleFile(JSON.stringify(good))).toEqual(readDefinition(good))
  })

  it.each([
    ['', /not well-formed JSON/],
    ['{"schema": 1,', /not well-formed JSON/],
    ['[]', /puzzle file is not right/],
    ['"flat"', /puzzle file is not right/],
    [JSON.stringify({ ...good, id: 'Flat!' }), /id must be small letters/],
    [`"${'x'.repeat(300_001)}"`, /longer than any puzzle file/],
  ])('is refused with a sentence where it is none: %.20s', (text, sentence) => {
    const read = readPuzzleFile(text)
    expect(read.ok).toBe(false)
    if (!read.ok) expect(read.problem.sentence).toMatch(sentence)
  })
})

describe('what a stranger may put into a puzzle file', () => {
  const base = { schema: 1, id: 'a', name: 'A' }
  const field = (file: unknown) => {
    const read = readDefinition(file)
    return read.ok ? 'it was read' : read.problem.field
  }

  it('is told with its field, and never takes anything down', () => {
    const cases: [unknown, string][] = [
      [{ ...base, mechanism: { kind: 'capped', caps: ['right', 'right'] } }, 'mechanism.caps'],
      [{ ...base, mechanism: { kind: 'circles', locked: ['up', 'up'] } }, 'mechanism.locked'],
      ...['constructor', 'toString', '__proto__', 'hasOwnProperty', 7, null].map(
        (kind): [unknown, string] => [{ ...base, mechanism: { kind } }, 'mechanism.kind'],
      ),
      [JSON.parse('{"__proto__":{"schema":1}}'), '__proto__'],
      [{ ...base, name: 'a\u0000b', mechanism: { kind: 'tetrahedron' } }, 'name'],
      [{ ...base, name: '\ud800', mechanism: { kind: 'tetrahedron' } }, 'name'],
      [
        {
          ...base,
          mechanism: { kind: 'box', size: [3, 3, 3] },
          glue: Array.from({ length: 2000 }, () => []),
        },
        'glue',
      ],
    ]
    for (const [file, wanted] of cases) expect(field(file)).toMatch(new RegExp(`^${wanted}`))
    const sentence = (file: unknown) => {
      const read = readDefinition(file)
      return read.ok ? '' : read.problem.sentence
    }
    expect(sentence({ ...base, mechanism: { kind: 'box', size: 7 } })).toBe(
      'The puzzle file is not right: mechanism.size must be a list.',
    )
    const million = Array.from({ length: 1_000_000 }, () => [])
    expect(field({ ...base, mechanism: { kind: 'box', size: [3, 3, 3] }, glue: million })).not.toBe(
      'it was read',
    )
    let deep: unknown = 1
    for (let i = 0; i < 5000; i++) deep = [deep]
    expect(field({ ...base, mechanism: deep })).not.toBe('it was read')
  })
})
