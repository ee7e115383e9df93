import { describe, expect, it } from 'vitest'
import { DIRECTIONS, type FaceName } from '../puzzle/directions'
import { must } from '../result'
import { definitionById, puzzleById } from '.'
import { settingId, settingOf, splitId } from './setting'

const NAMES = DIRECTIONS.map(({ name }) => name)

describe('settings of the circles', () => {
  it('are all sixty-four, each with an id of its own that leads back to it', () => {
    const ids = new Set<string>()
    for (let bits = 0; bits < 64; bits++) {
      const locked = NAMES.filter((_, i) => bits & (1 << i))
      const id = settingId('circle-3', locked)
      ids.add(id)
      const definition = definitionById(id)
      if (definition?.mechanism.kind !== 'circles') throw new Error(`${id} has no circles`)
      expect(definition.mechanism.locked).toEqual(locked)
      expect(definition.id).toBe(id)
      expect(
        settingOf(definition)
          ?.filter((face) => face.locked)
          .map(({ name }) => name),
      ).toEqual(locked)
    }
    expect(ids.size).toBe(64)
  })

  it('change what a turn carries and nothing about the pieces', () => {
    const count = (locked: FaceName[]) => {
      const puzzle = must(puzzleById(settingId('circle-3', locked)))
      const turn = puzzle.turnByName.get('U')
      if (!turn) throw new Error('U is no turn')
      expect(puzzle.pieces).toHaveLength(74)
      return puzzle.pieces.filter((_, p) => puzzle.carry[turn.grip][24 * p] === 1).length
    }
    expect(count(['up'])).toBe(count([]) + 9)
  })

  it('that do not exist are no puzzles', () => {
    for (const id of ['circle-3--top', 'circle-3--up-up', 'cube-3--up', 'circle-3--', 'circle--up'])
      expect(definitionById(id), id).toBeUndefined()
    expect(splitId('circle-3--none')).toEqual({ file: 'circle-3', setting: 'none' })
  })
})
