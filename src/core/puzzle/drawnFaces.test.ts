import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { areaOf } from '../geometry/polyhedron'
import { must } from '../result'
import { anyGlued, cube3 } from '../testing'
import { compile, type Piece } from './compile'
import { drawnFaces } from './drawnFaces'
import { readDefinition } from './readDefinition'

/** The block of a 3x3x3 in which these cells are glued. */
function block(cells: readonly (readonly number[])[], faces = {}): Piece {
  const mechanism = { kind: 'box', size: [3, 3, 3] }
  const definition = { schema: 1, id: 'glued', name: 'glued', mechanism, glue: [cells], faces }
  const found = compile(must(readDefinition(definition))).pieces.find(
    (piece) => piece.cells.length > 1,
  )
  if (!found) throw new Error('no block')
  return found
}

const area = (faces: readonly { polygon: readonly (readonly number[])[] }[]) =>
  faces.reduce((sum, { polygon }) => sum + areaOf(polygon as never), 0)

describe('faces as they are drawn', () => {
  it('are those of the piece where it is one cell', () => {
    for (const piece of cube3.pieces) expect(drawnFaces(piece)).toBe(piece.faces)
  })

  it('are one oblong for each side of two cells, and cover what their faces cover', () => {
    const stiff = block([
      [1, 1, 1],
      [1, 1, 0],
    ])
    expect(stiff.faces).toHaveLength(5)
    expect(drawnFaces(stiff).map(({ polygon }) => polygon.length)).toEqual([4, 4, 4])
    expect(area(drawnFaces(stiff))).toBeCloseTo(area(stiff.faces))
  })

  it('have six corners where three cells form a bend', () => {
    const bend = block([
      [1, 1, 1],
      [0, 1, 1],
      [1, 1, 0],
    ])
    const corners = drawnFaces(bend).map(({ polygon }) => polygon.length)
    expect(corners.sort()).toEqual([4, 4, 6])
  })

  it('stay apart around a hole', () => {
    const ring = [-1, 0, 1].flatMap((x) =>
      [-1, 0, 1].flatMap((z) => (x === 0 && z === 0 ? [] : [[x, 1, z]])),
    )
    const top = drawnFaces(block(ring)).filter(({ normal }) => normal[1] > 0)
    expect(top).toHaveLength(8)
  })

  it('never lose or gain area, whatever is glued', () => {
    fc.assert(
      fc.property(anyGlued, (puzzle) => {
        for (const piece of puzzle.pieces) {
          expect(area(drawnFaces(piece))).toBeCloseTo(area(piece.faces))
          expect(drawnFaces(piece).length).toBeLessThanOrEqual(piece.faces.length)
        }
      }),
      { numRuns: 25 },
    )
  })
})
