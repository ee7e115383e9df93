import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { definitionById, ownDefinitions, puzzleById } from '../core/catalog'
import type { PuzzleDefinition } from '../core/puzzle/definition'
import { readDefinition } from '../core/puzzle/readDefinition'
import { must } from '../core/result'
import { schoolsFor } from '../core/schools'
import { addCopy, removeCopy } from './copies'
import {
  addOwnPuzzle,
  forgetOwnPuzzle,
  learnOwnPuzzles,
  ownId,
  ownPuzzleFiles,
  ownPuzzleNames,
} from './ownPuzzles'
import { allRows, transaction } from './pool'
import { firstProfile } from './named'
import { freshDatabase } from './testDatabase'

let discard: () => Promise<void>
let profileId: string

beforeAll(async () => {
  discard = await freshDatabase('own')
  profileId = await firstProfile()
})
afterAll(() => discard())

const file = (size: number[], name = 'A box'): PuzzleDefinition =>
  must(readDefinition({ schema: 1, id: 'a-box', name, mechanism: { kind: 'box', size } }))

describe('puzzles of a person’s own', () => {
  it('are stored once, found by an id of their own, and read back as they were', async () => {
    const definition = file([2, 3, 3])
    const id = must(await addOwnPuzzle(profileId, definition))
    expect(must(await addOwnPuzzle(profileId, definition))).toBe(id)
    expect(await ownPuzzleNames(profileId)).toEqual([{ id, name: 'A box', mechanism: 'box' }])
    expect(await ownPuzzleFiles(profileId, [id])).toEqual([definition])
    expect(must(puzzleById(id)).definition.name).toBe('A box')
    expect(ownDefinitions().map((each) => each.id)).toContain(id)
    expect(schoolsFor(id).map((school) => school.id)).toEqual(['box-swaps', 'piece-by-piece'])
  })

  it('have the same id whatever the order of the fields, and another for other content', () => {
    const written = { name: 'A box', id: 'a-box', mechanism: { size: [2, 3, 3], kind: 'box' } }
    expect(ownId(must(readDefinition({ ...written, schema: 1 })))).toBe(ownId(file([2, 3, 3])))
    expect(ownId(file([3, 3, 2]))).not.toBe(ownId(file([2, 3, 3])))
    expect(ownId(file([2, 3, 3], 'Another'))).not.toBe(ownId(file([2, 3, 3])))
    expect(ownId(file([2, 3, 3]))).toMatch(/^own-[0-9a-f]{20}$/)
  })

  it('have the schools that are written for a shipped puzzle which is the same', async () => {
    const id = must(await addOwnPuzzle(profileId, file([2, 2, 2], 'Small')))
    expect(schoolsFor(id).map((school) => school.id)).toContain('one-trigger')
  })

  it('become known in a process that has not seen them, with the profile that is asked for', async () => {
    const definition = file([1, 2, 3], 'Stored elsewhere')
    const id = ownId(definition)
    await allRows.query(
      'insert into own_puzzles (profile_id, id, definition) values ($1, $2, $3)',
      [profileId, id, JSON.stringify(definition)],
    )
    expect(definitionById(id)).toBeUndefined()
    await learnOwnPuzzles(profileId, [id])
    expect(definitionById(id)?.name).toBe('Stored elsewhere')
  })

  it('leave nothing behind when what they came with is not stored', async () => {
    const definition = file([1, 3, 3], 'Half-written')
    await expect(
      transaction(profileId, async (client) => {
        await addOwnPuzzle(profileId, definition, client)
        throw new Error('the copy was not stored')
      }),
    ).rejects.toThrow('not stored')
    const stored = await ownPuzzleNames(profileId)
    expect(stored.map(({ name }) => name)).not.toContain('Half-written')
  })

  it('are forgotten only when no copy stands on the shelf', async () => {
    const definition = file([1, 1, 3], 'Brief')
    const puzzleId = must(await addOwnPuzzle(profileId, definition))
    const copy = { puzzleId, name: 'Brief one', scheme: definition.colours, remarks: '' }
    const copyId = await addCopy(profileId, copy)
    expect(await forgetOwnPuzzle(profileId, puzzleId)).toBe(false)
    expect(await removeCopy(profileId, copyId)).toBe(true)
    expect(await forgetOwnPuzzle(profileId, puzzleId)).toBe(true)
    expect(await forgetOwnPuzzle(profileId, puzzleId)).toBe(false)
  })

  it('have an end', async () => {
    const many = Array.from({ length: 200 }, (_, n) => file([1, 1, 2], `Box ${n}`))
    for (const definition of many)
      await allRows.query(
        `insert into own_puzzles (profile_id, id, definition) values ($1, $2, $3)
         on conflict do nothing`,
        [profileId, ownId(definition), JSON.stringify(definition)],
      )
    const refused = await addOwnPuzzle(profileId, file([1, 2, 2], 'One too many'))
    expect(refused).toMatchObject({ ok: false, problem: { code: 'too-many' } })
  })
})
