import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { puzzleById } from '../core/catalog'
import { must } from '../core/result'
import {
  algorithmCounts,
  exportAlgorithms,
  forgetAlgorithm,
  importAlgorithms,
  keepAlgorithm,
  keptAlgorithms,
  ownAlgorithms,
  renameAlgorithm,
} from './algorithms'
import { allRows } from './pool'
import { firstProfile } from './named'
import { freshDatabase } from './testDatabase'

let discard: () => Promise<void>
let profileId: string
let other: string

beforeAll(async () => {
  discard = await freshDatabase('algorithms')
  profileId = await firstProfile()
  const made = await allRows.query<{ id: string }>(
    "insert into profiles (nickname) values ('Another') returning id",
  )
  other = made.rows[0].id
})
afterAll(() => discard())

const trigger = { turns: "R U R' U'", name: 'Trigger', remark: '', hold: 'a' }

describe('sequences of a person’s own', () => {
  it('are kept once for a puzzle, under the latest name, and by their owner alone', async () => {
    const id = must(await keepAlgorithm(profileId, 'cube-3', trigger))
    const again = { ...trigger, name: 'The trigger' }
    expect(must(await keepAlgorithm(profileId, 'cube-3', again))).toBe(id)
    expect(await ownAlgorithms(profileId, 'cube-3')).toEqual([{ id, ...again }])
    expect(await ownAlgorithms(profileId, 'cube-2')).toEqual([])
    expect(await ownAlgorithms(other, 'cube-3')).toEqual([])
    expect(await renameAlgorithm(other, id, { name: 'x', remark: '' })).toBe(false)
    expect(await forgetAlgorithm(other, id)).toBe(false)
    expect(await algorithmCounts(profileId)).toEqual({ 'cube-3': 1 })
  })

  it('are refused where the puzzle has no such turns, and nothing is stored', async () => {
    const refused = async (turns: string, puzzleId = 'cube-2', hold = 'a') => {
      const kept = await keepAlgorithm(profileId, puzzleId, { ...trigger, turns, hold })
      return kept.ok ? '' : `${kept.problem.field} ${kept.problem.sentence}`
    }
    expect(await refused('R M')).toMatch(/^turns .*M/)
    expect(await refused('')).toMatch(/turns/)
    expect(await refused('R', 'no-such')).toMatch(/No puzzle/)
    const { holds } = must(puzzleById('box-3x3x2'))
    const none = [...'abcdefghijklmnopqrstuvwx'].find((_, r) => !holds.includes(r))
    expect(await refused('R2', 'box-3x3x2', none)).toMatch(/hold/)
    expect(await ownAlgorithms(profileId, 'cube-2')).toEqual([])
  })

  it('travel as a file, which is read as a whole or not at all', async () => {
    const file = await exportAlgorithms(profileId, 'cube-3')
    expect(must(await importAlgorithms(other, 'cube-3', file))).toBe(1)
    expect(must(await importAlgorithms(other, 'cube-3', file))).toBe(0)
    expect(await exportAlgorithms(other, 'cube-3')).toEqual(file)
    const bad = async (input: unknown) => {
      const read = await importAlgorithms(other, 'cube-3', input)
      return read.ok ? '' : `${read.problem.field}: ${read.problem.sentence}`
    }
    const with2 = { ...(file as object), algorithms: [{ turns: 'U' }, { turns: 'Q' }] }
    expect(await bad(with2)).toMatch(/^algorithms\[1\]\.turns/)
    expect(await bad({ ...(file as object), format: 'x' })).toMatch(/^format/)
    expect(await bad({ ...(file as object), puzzle: 'cube-2' })).toMatch(/another puzzle/)
    expect(await bad({ ...(file as object), algorithms: [{ turns: 'U', more: 1 }] })).toMatch(
      /not known/,
    )
    expect(await bad(7)).toMatch(/:/)
    expect(await ownAlgorithms(other, 'cube-3')).toHaveLength(1)
  })

  it('that cannot be read any more are left out, counted, and in the file', async () => {
    await allRows.query(
      "insert into algorithms (profile_id, puzzle_id, turns) values ($1, 'cube-2', 'Q')",
      [other],
    )
    expect(await ownAlgorithms(other, 'cube-2')).toEqual([])
    expect(await keptAlgorithms(other, 'cube-2')).toHaveLength(1)
    expect(await exportAlgorithms(other, 'cube-2')).toMatchObject({ algorithms: [{ turns: 'Q' }] })
  })

  it('are forgotten', async () => {
    const [{ id }] = await ownAlgorithms(profileId, 'cube-3')
    expect(await renameAlgorithm(profileId, id, { name: 'Short', remark: 'to the left' })).toBe(
      true,
    )
    expect((await ownAlgorithms(profileId, 'cube-3'))[0].remark).toBe('to the left')
    expect(await forgetAlgorithm(profileId, id)).toBe(true)
    expect(await ownAlgorithms(profileId, 'cube-3')).toEqual([])
  })
})
