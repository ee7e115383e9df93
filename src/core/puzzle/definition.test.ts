import { describe, expect, it } from 'vitest'
import { CATALOG } from '../catalog'
import { rotate } from '../rotation'
import { compile } from './compile'
import { readDefinition } from './definition'

const box = (extra: object) => ({
  schema: 1,
  id: 'a-box',
  name: 'A box',
  mechanism: { kind: 'box', size: [3, 3, 3] },
  ...extra,
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
    ['a face without its colour', { faces: { ...CATALOG[0].faces, up: 'mauve' } }, 'faces.up'],
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

  it.each([null, 4, 'text', []])('is refused if it is no object: %j', (input) => {
    expect(readDefinition(input).ok).toBe(false)
  })
})

describe('compiling', () => {
  it.each(CATALOG.map((definition) => [definition.id, definition] as const))(
    'gives %s outlines that lie on its surface, turned outward',
    (_, definition) => {
      const puzzle = compile(definition)
      const size = definition.mechanism.size
      for (const piece of puzzle.pieces)
        for (const { normal, polygon } of piece.faces) {
          const axis = normal.findIndex((c) => c !== 0)
          for (const corner of polygon) expect(corner[axis]).toBe((normal[axis] * size[axis]) / 2)
          const [a, b, c] = polygon
          const u = b.map((x, i) => x - a[i])
          const v = c.map((x, i) => x - b[i])
          const cross = [
            u[1] * v[2] - u[2] * v[1],
            u[2] * v[0] - u[0] * v[2],
            u[0] * v[1] - u[1] * v[0],
          ].map((x) => x + 0)
          expect(cross).toEqual(normal.map((x) => x + 0))
        }
      const area = puzzle.pieces.reduce((sum, piece) => sum + piece.faces.length, 0)
      expect(area).toBe(2 * (size[0] * size[1] + size[1] * size[2] + size[2] * size[0]))
    },
  )

  it('names pieces apart, and by kind', () => {
    const puzzle = compile(CATALOG[1])
    expect(new Set(puzzle.pieces.map(({ id }) => id)).size).toBe(26)
    const count = (kind: string) => puzzle.pieces.filter((piece) => piece.kind === kind).length
    expect([count('corner'), count('edge'), count('centre')]).toEqual([8, 12, 6])
  })

  it('lets a layer that is not square make half turns only', () => {
    const read = readDefinition(box({ mechanism: { kind: 'box', size: [3, 2, 3] } }))
    if (!read.ok) throw new Error(read.problem.sentence)
    const puzzle = compile(read.value)
    expect(puzzle.turnByName.has('R')).toBe(false)
    expect(puzzle.turnByName.has('R2')).toBe(true)
    expect(puzzle.turnByName.has("U'")).toBe(true)
  })

  it('carries exactly the pieces whose cells lie in the slab', () => {
    const puzzle = compile(CATALOG[1])
    puzzle.grips.forEach((grip, g) => {
      puzzle.pieces.forEach((piece, p) => {
        for (let r = 0; r < 24; r++) {
          const heights = piece.cells.map((cell) =>
            rotate(r, cell).reduce((sum, c, i) => sum + c * grip.axis[i], 0),
          )
          const inside = heights.every(
            (h) => (grip.from === null || grip.from <= h) && (grip.to === null || h < grip.to),
          )
          expect(puzzle.carry[g][24 * p + r]).toBe(inside ? 1 : 0)
        }
      })
    })
  })
})
