import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { puzzleById } from '../core/catalog'
import { must } from '../core/result'
import { start, writeState } from '../core/state'
import { schoolName, schoolsFor } from '../core/schools'
import { forgetSchool } from '../core/schools/ownSchools'
import { addCopy, removeCopy } from './copies'
import {} from './benchSessions'
import { forgetOwnSchool, keepSchool, keptSchools, learnOwnSchools } from './ownSchools'
import { allRows } from './pool'
import { firstProfile } from './named'
import { exampleSchool as example, freshDatabase, openAnew } from './testDatabase'

let discard: () => Promise<void>
let profileId: string

beforeAll(async () => {
  discard = await freshDatabase('own_schools')
  profileId = await firstProfile()
})
afterAll(() => discard())

const puzzle = must(puzzleById('cube-3'))
const ids = (puzzleId: string) => schoolsFor(puzzleId).map(({ id }) => id)

describe('schools of a person’s own', () => {
  it('are kept once, offered for their puzzle and no other, and known by name', async () => {
    const id = must(await keepSchool(profileId, 'cube-3', example()))
    expect(must(await keepSchool(profileId, 'cube-3', example()))).toBe(id)
    expect(await keptSchools(profileId, 'cube-3')).toHaveLength(1)
    expect(ids('cube-3')).toContain(id)
    expect(ids('tilt-3')).not.toContain(id)
    expect(schoolName(id)).toBe(example().name)
  })

  it('become known in a process that has not seen them', async () => {
    const [{ school }] = await keptSchools(profileId, 'cube-3')
    forgetSchool('cube-3', school.id)
    expect(ids('cube-3')).not.toContain(school.id)
    await learnOwnSchools(profileId, [{ puzzleId: 'cube-3', id: school.id }])
    expect(ids('cube-3')).toContain(school.id)
  })

  it('are refused where the form, the puzzle or the pieces are wrong, and nothing is stored', async () => {
    const before = await keptSchools(profileId, 'cube-3')
    const refused = async (puzzleId: string, input: unknown, why: RegExp) => {
      const kept = await keepSchool(profileId, puzzleId, input)
      expect(kept.ok ? '' : kept.problem.sentence).toMatch(why)
    }
    await refused('cube-3', { ...example(), stages: [] }, /stages/)
    await refused('cube-3', 7, /object with fields/)
    await refused('cube-2', example(), /not written for/)
    await refused('no-such', example(), /No puzzle/)
    expect(await keptSchools(profileId, 'cube-3')).toEqual(before)
  })

  it('take no list with them if one that is stored cannot be read any more', async () => {
    await allRows.query(
      `insert into own_schools (profile_id, puzzle_id, id, school) values ($1, 'cube-3', 'own-bad', '{}')`,
      [profileId],
    )
    expect((await keptSchools(profileId, 'cube-3')).map(({ school }) => school.id)).not.toContain(
      'own-bad',
    )
  })

  it('stay known while a bench follows them', async () => {
    const [{ school }] = await keptSchools(profileId, 'cube-3')
    const copyId = await addCopy(profileId, {
      puzzleId: 'cube-3',
      name: 'Quay cube',
      scheme: puzzle.definition.colours,
      remarks: '',
    })
    await openAnew(profileId, {
      copyId,
      school: school.id,
      variant: {},
      startState: writeState(start(puzzle)),
      scramble: '',
      laidBy: 'pieces',
    })
    expect(await forgetOwnSchool(profileId, 'cube-3', school.id)).toBe(false)
    await removeCopy(profileId, copyId)
    expect(await forgetOwnSchool(profileId, 'cube-3', school.id)).toBe(true)
    expect(ids('cube-3')).not.toContain(school.id)
  })
})
