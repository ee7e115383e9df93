import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { limitReach } from '../core/catalog/reach'
import { definitionById, ownDefinitions, puzzleById } from '../core/catalog'
import { must } from '../core/result'
import { schoolsFor } from '../core/schools'
import { DEFAULT_SETTINGS, MOST_SMALL_LETTERS, settingsFor } from '../core/settings'
import { asRequest, keepRequestsApart } from './asking'
import { addOwnPuzzle } from './ownPuzzles'
import { keepSchool } from './ownSchools'
import { isSolver } from './named'
import {
  keepSmallLetters,
  makeSolver,
  nicknames,
  readSettings,
  removeSolver,
  solvers,
  whoAsks,
  writeSettings,
} from './profiles'
import { exampleFile, exampleSchool as example, freshDatabase } from './testDatabase'

let discard: () => Promise<void>

beforeAll(async () => {
  discard = await freshDatabase('profiles')
  keepRequestsApart()
})
afterAll(async () => {
  limitReach(undefined)
  await discard()
})

const asks = (named?: string) => asRequest(() => whoAsks(named))

describe('who asks', () => {
  it('is the one who is there, made at the first call, whatever the browser says', async () => {
    const first = await asks()
    expect(first?.nickname).toBe('Me')
    for (const named of [first?.id, 'junk', '00000000-0000-4000-8000-000000000000'])
      expect((await asks(named))?.id).toBe(first?.id)
    expect(await nicknames()).toHaveLength(1)
  })

  it('is the one whom the browser names among several, and nobody where it names none of them', async () => {
    const kelp = must(await makeSolver('Kelp'))
    expect((await asks(kelp))?.nickname).toBe('Kelp')
    expect(await asks()).toBeUndefined()
    expect(await asks('00000000-0000-4000-8000-000000000000')).toBeUndefined()
  })

  it('is found out once a request', async () => {
    const [one] = await nicknames()
    await asRequest(async () => {
      const known = await whoAsks(one.id)
      expect(await whoAsks('somebody else')).toBe(known)
      // But for a name that was changed meanwhile.
      must(await writeSettings(one.id, { ...DEFAULT_SETTINGS, nickname: 'Sandpiper' }))
      expect((await whoAsks(one.id))?.nickname).toBe('Sandpiper')
      must(await writeSettings(one.id, { ...DEFAULT_SETTINGS, nickname: one.nickname }))
    })
  })
})

describe('solvers', () => {
  it('have names that tell them apart, be they written large or small', async () => {
    const tern = must(await makeSolver('Tern'))
    expect(await makeSolver('tern')).toMatchObject({
      ok: false,
      problem: { code: 'taken', field: 'nickname' },
    })
    expect(await writeSettings(tern, { ...DEFAULT_SETTINGS, nickname: 'KELP' })).toMatchObject({
      ok: false,
      problem: { field: 'nickname' },
    })
    expect((await readSettings(tern)).nickname).toBe('Tern')
    must(await writeSettings(tern, { ...DEFAULT_SETTINGS, nickname: 'Plover', theme: 'daylight' }))
    expect(await readSettings(tern)).toMatchObject({ nickname: 'Plover', theme: 'daylight' })
    expect((await solvers()).map(({ nickname }) => nickname)).toEqual(['Kelp', 'Me', 'Plover'])
  })

  it('say once a puzzle what small letters mean, of three hundred puzzles', async () => {
    const dunlin = must(await makeSolver('Dunlin'))
    must(await writeSettings(dunlin, { ...DEFAULT_SETTINGS, nickname: 'Dunlin', marks: true }))
    await Promise.all([
      keepSmallLetters(dunlin, 'cube-4', 'wide'),
      keepSmallLetters(dunlin, 'box-4x4x5', 'inner'),
    ])
    await keepSmallLetters(dunlin, 'cube-4', 'inner')
    const settings = await readSettings(dunlin)
    expect(settings).toMatchObject({
      marks: true,
      smallLetters: { 'cube-4': 'inner', 'box-4x4x5': 'inner' },
    })
    const small = { ...settings, writeDialect: 'small-wide' as const }
    expect(settingsFor(small, 'cube-4').writeDialect).toBe('small-inner')
    expect(settingsFor(small, 'cube-3').writeDialect).toBe('small-wide')
    expect(settingsFor(settings, 'cube-4').writeDialect).toBe('prime')
    for (let n = 0; n < MOST_SMALL_LETTERS; n++) await keepSmallLetters(dunlin, `box-${n}`, 'wide')
    const { smallLetters } = await readSettings(dunlin)
    expect(Object.keys(smallLetters)).toHaveLength(MOST_SMALL_LETTERS)
    expect(smallLetters).toHaveProperty(`box-${MOST_SMALL_LETTERS - 1}`)
  })

  it('go with everything, and the last one stays', async () => {
    const all = await nicknames()
    for (const { id } of all.slice(1)) must(await removeSolver(id))
    expect(await isSolver(all[1].id)).toBe(false)
    expect(await removeSolver(all[0].id)).toMatchObject({ ok: false, problem: { code: 'last' } })
  })
})

describe('puzzles and schools of a solver’s own', () => {
  it('are known to that solver’s requests and to no other’s, whatever this process has learned', async () => {
    const definition = exampleFile('Mine')
    const gull = must(await makeSolver('Gull'))
    const heron = must(await makeSolver('Heron'))
    const [id, school] = await asRequest(async () => {
      await whoAsks(gull)
      const puzzleId = must(await addOwnPuzzle(gull, definition))
      const schoolId = must(await keepSchool(gull, 'cube-3', example()))
      // At once, in the request that has brought it.
      expect(puzzleById(puzzleId).ok).toBe(true)
      return [puzzleId, schoolId] as const
    })
    const sees = (solver: string) =>
      asRequest(async () => {
        await whoAsks(solver)
        return [
          definitionById(id)?.name,
          ownDefinitions().length,
          schoolsFor('cube-3').some((each) => each.id === school),
        ]
      })
    // Side by side, as requests come.
    expect(await Promise.all([sees(gull), sees(heron), sees(gull)])).toEqual([
      ['Mine', 1, true],
      [undefined, 0, false],
      ['Mine', 1, true],
    ])
    // Before anyone is known, nothing is in reach.
    expect(await asRequest(async () => definitionById(id))).toBeUndefined()
  })
})
