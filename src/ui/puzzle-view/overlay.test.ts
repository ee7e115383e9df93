import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '@/core/catalog'
import { cross, dot, length, scale, subtract, unit } from '@/core/geometry/vector'
import { IN, placed, type Puzzle } from '@/core/puzzle/compile'
import { poseOf } from '@/core/puzzle/view'
import { must } from '@/core/result'
import type { Vector } from '@/core/rotation'
import { start, turnFreely } from '@/core/state'
import { eyeOf, WINDOW_NAMES } from '../camera'
import { NO_GUIDE, overlaysOf, type Eye } from './overlay'

/** A window that looks without perspective from where the true one does; y goes down. */
function eyeFrom(puzzle: Puzzle, name: (typeof WINDOW_NAMES)[number], sees = true): Eye {
  const [right, up, front] = poseOf(puzzle.definition)
  const [x, y, z] = eyeOf(name, puzzle.definition)
  const toward = unit(
    [0, 1, 2].map((i) => x * right[i] + y * up[i] + z * front[i]) as never as Vector,
  )
  const across = unit(cross(up, toward))
  const above = cross(toward, across)
  return {
    from: scale(toward, 40),
    flat: (v) => [dot(across, v), -dot(above, v)],
    inside: (point) => point,
    sees: () => sees,
  }
}

const eyesOf = (puzzle: Puzzle, sees = true) =>
  WINDOW_NAMES.map((name) => eyeFrom(puzzle, name, sees))

describe('what is drawn over the windows', () => {
  it.each(CATALOG_IDS)(
    'has a letter at every outer layer, in the window that faces it: %s',
    (id) => {
      const puzzle = must(puzzleById(id))
      const overlays = overlaysOf(puzzle, start(puzzle), NO_GUIDE, eyesOf(puzzle))
      const letters = overlays.flatMap((overlay) => overlay.letters.map(({ name }) => name))
      const outer = puzzle.grips
        .filter(({ name, from, to }) => /^[UDFBRL]$/.test(name) && (from !== null || to !== null))
        .map(({ name }) => name)
      expect([...letters].sort()).toEqual([...new Set(letters)].sort())
      for (const letter of letters) expect(outer).toContain(letter)
      expect(letters.length).toBeGreaterThanOrEqual(Math.min(4, outer.length))
    },
  )

  it('numbers every piece at least once, behind where it is out of sight', () => {
    const puzzle = must(puzzleById('cube-3'))
    const guide = { numbered: [0, 5, 12], arrows: [] }
    const seen = overlaysOf(puzzle, start(puzzle), guide, eyesOf(puzzle))
    const numbers = seen.flatMap((overlay) => overlay.numbers)
    expect(new Set(numbers.map(({ number }) => number))).toEqual(new Set([1, 2, 3]))
    expect(numbers.some(({ isHidden }) => isHidden)).toBe(false)
    const hidden = overlaysOf(puzzle, start(puzzle), guide, eyesOf(puzzle, false))
    const behind = hidden.flatMap((overlay) => overlay.numbers)
    expect(behind.map(({ number, isHidden }) => [number, isHidden]).sort()).toEqual([
      [1, true],
      [2, true],
      [3, true],
    ])
  })

  it.each(['cube-3', 'box-3x3x2', 'prism-6', 'tetra-3', 'twin-3'])(
    'bends the arrow of every turn the way that the layer goes: %s',
    (id) => {
      const puzzle = must(puzzleById(id))
      const state = start(puzzle)
      for (const turn of puzzle.turns) {
        const eyes = eyesOf(puzzle)
        overlaysOf(puzzle, state, { ...NO_GUIDE, turn }, eyes).forEach(({ turns: [drawn] }, w) => {
          const { path } = drawn
          const eye = eyes[w]
          const grip = puzzle.grips[turn.grip]
          const core = puzzle.cores[grip.core]
          const axis = unit(grip.axis)
          // The way of the middle of the arrow, and that of a point of the layer there, both flat.
          const at = Math.floor(path.length / 2)
          const way = [path[at + 1][0] - path[at - 1][0], path[at + 1][1] - path[at - 1][1]]
          const view = subtract(eye.from, core)
          const level = subtract(view, scale(axis, dot(axis, view)))
          if (length(level) < 1e-6) return
          const out = unit(level)
          const full = 360 / grip.unitDegrees
          const sign = 2 * turn.amount > full ? 1 : -1
          const go = scale(cross(axis, out), sign)
          const [a, b] = [
            eye.flat(core),
            eye.flat([core[0] + go[0], core[1] + go[1], core[2] + go[2]]),
          ]
          const moved = [b[0] - a[0], b[1] - a[1]]
          expect(
            way[0] * moved[0] + way[1] * moved[1],
            `${turn.name} in window ${w}`,
          ).toBeGreaterThan(0)
        })
      }
    },
  )

  it('agrees with the engine about that way', () => {
    const puzzle = must(puzzleById('cube-3'))
    const turn = puzzle.turnByName.get('R')
    if (!turn) throw new Error('R')
    const before = start(puzzle)
    const after = turnFreely(puzzle, before, turn, start(puzzle))
    // The top front of the right layer goes to the back: in the near window the arrow goes up and away.
    const corner = puzzle.pieces.findIndex(({ id }) => id === 'UFR')
    const where = (r: number) => placed([0, 0, 0], r, puzzle.pieces[corner].cells[0])
    expect(where(after[corner])[2]).toBeLessThan(where(before[corner])[2])
    const eyes = eyesOf(puzzle)
    const [near] = overlaysOf(puzzle, before, { ...NO_GUIDE, turn }, eyes)
    const path = near.turns[0].path
    expect(path[path.length - 1][1]).toBeLessThan(path[0][1])
    expect(puzzle.carry[turn.grip][24 * corner]).toBe(IN)
  })

  it('points from where a piece is to where it will lie', () => {
    const puzzle = must(puzzleById('cube-3'))
    const turn = puzzle.turnByName.get('U')
    if (!turn) throw new Error('U')
    const after = turnFreely(puzzle, start(puzzle), turn, start(puzzle))
    const piece = puzzle.pieces.findIndex(({ id }) => id === 'UFR')
    const arrow = { from: { piece, rotation: 0 }, to: { piece, rotation: after[piece] } }
    const [near] = overlaysOf(
      puzzle,
      start(puzzle),
      { numbered: [piece], arrows: [arrow] },
      eyesOf(puzzle),
    )
    expect(near.arrows).toHaveLength(1)
    const [{ from, to }] = near.arrows
    expect(to[0]).toBeLessThan(from[0])
    expect(near.numbers[0].at).toEqual(from)
  })
})
