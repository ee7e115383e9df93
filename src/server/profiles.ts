/** Solvers who share the machine, each with a shelf, a log and settings of their own. */
import { object } from 'yup'
import { reachOfSchool } from '../core/catalog/reach'
import type { SmallMeaning } from '../core/notation/smallLetters'
import {
  DEFAULT_SETTINGS,
  MOST_SMALL_LETTERS,
  nicknameSchema,
  settingsSchema,
  type Settings,
} from '../core/settings'
import { fail, ok, type Result } from '../core/result'
import { askAnew, asker, type Profile } from './asking'
import { firstProfile } from './named'
import { isId } from './id'
import { learnOwnPuzzles } from './ownPuzzles'
import { learnOwnSchools } from './ownSchools'
import { allRows, rowsOf, transaction, type Queryable } from './pool'

/** Every page offers them all. */
const MOST = 500

/** One to choose from. */
export interface Solver {
  readonly id: string
  readonly nickname: string
  readonly copies: number
  readonly solves: number
  readonly lastSolvedAt?: Date
}

interface ProfileRow {
  id: string
  nickname: string
  puzzles: string[]
  schools: { puzzle: string; id: string }[]
}

const SELECT = `
  select p.id, p.nickname,
    array(select o.id from own_puzzles o where o.profile_id = p.id) as puzzles,
    coalesce((select jsonb_agg(jsonb_build_object('puzzle', s.puzzle_id, 'id', s.id))
      from own_schools s where s.profile_id = p.id), '[]') as schools
  from profiles p`

/** Whatever is done for a solver begins with it, so here the puzzles and schools of their own become known. */
async function arrived(row: ProfileRow): Promise<Profile> {
  const { id, nickname, puzzles, schools } = row
  await learnOwnPuzzles(id, puzzles)
  await learnOwnSchools(
    id,
    schools.map(({ puzzle, id: school }) => ({ puzzleId: puzzle, id: school })),
  )
  return {
    id,
    nickname,
    reach: {
      puzzles: new Set(puzzles),
      schools: new Set(schools.map((each) => reachOfSchool(each.puzzle, each.id))),
    },
  }
}

/**
 * Who asks: the solver whom the browser names or, where there is one solver only, that one. The first solver is
 * made at the first call. Undefined if someone has to be chosen first.
 *
 * @param named the id that the browser has kept, whatever it may be
 */
export const whoAsks = (named: string | undefined): Promise<Profile | undefined> =>
  asker(async () => {
    const known = isId(named) ? await profilesWhere('p.id = $1', [named]) : []
    if (known[0]) return arrived(known[0])
    const [first, second] = await profilesWhere('true order by p.created_at, p.id limit 2', [])
    if (second) return undefined
    if (first) return arrived(first)
    await firstProfile()
    return arrived((await profilesWhere('true order by p.created_at, p.id limit 1', []))[0])
  })

async function profilesWhere(condition: string, values: readonly string[]): Promise<ProfileRow[]> {
  const { rows } = await allRows.query<ProfileRow>(`${SELECT} where ${condition}`, [...values])
  return rows
}

/** All of them, by name. */
export async function solvers(): Promise<Solver[]> {
  const { rows } = await allRows.query<{
    id: string
    nickname: string
    copies: number
    solves: number
    last_solved_at: Date | null
  }>(
    `select p.id, p.nickname,
       (select count(*)::int from copies c where c.profile_id = p.id) as copies,
       (select count(*)::int from solves s where s.profile_id = p.id) as solves,
       (select max(finished_at) from solves s where s.profile_id = p.id) as last_solved_at
     from profiles p order by lower(p.nickname)`,
  )
  return rows.map(({ last_solved_at, ...solver }) => ({
    ...solver,
    lastSolvedAt: last_solved_at ?? undefined,
  }))
}

/** Only who they are, for a list to choose from. */
export async function nicknames(): Promise<Pick<Solver, 'id' | 'nickname'>[]> {
  const { rows } = await allRows.query<Pick<Solver, 'id' | 'nickname'>>(
    'select id, nickname from profiles order by lower(nickname)',
  )
  return rows
}

export const newSolverSchema = object({ nickname: nicknameSchema() }).required().noUnknown()

const TAKEN = fail('taken', 'Another solver here has this nickname.', { field: 'nickname' })

/** Does what may meet a nickname that is taken: two may choose it in the same moment. */
async function unlessTaken<T>(work: () => Promise<Result<T>>): Promise<Result<T>> {
  try {
    return await work()
  } catch (error) {
    if ((error as { constraint?: string }).constraint === 'profiles_nickname') return TAKEN
    throw error
  }
}

/** Makes a solver; the id is returned. */
export const makeSolver = (name: string): Promise<Result<string>> =>
  unlessTaken(async () => {
    const { rows } = await allRows.query<{ id: string }>(
      `insert into profiles (nickname) select $1 where (select count(*) from profiles) < ${MOST}
       returning id`,
      [name],
    )
    return rows[0]
      ? ok(rows[0].id)
      : fail('too-many', `At most ${MOST} solvers share a machine. Remove one first.`)
  })

/** Removes a solver with everything; the last one stays. */
export async function removeSolver(id: string): Promise<Result<true>> {
  const { rowCount } = await allRows.query(
    'delete from profiles where id = $1 and (select count(*) from profiles) > 1',
    [id],
  )
  return rowCount === 1
    ? ok(true)
    : fail('last', 'This solver is the only one here, so there is nobody to hand the shelf to.')
}

/** Stored settings over the defaults, so that a new setting needs no migration. */
export async function readSettings(
  profileId: string,
  client: Queryable = rowsOf(profileId),
): Promise<Settings> {
  const { rows } = await client.query<{ nickname: string; value: Partial<Settings> | null }>(
    `select p.nickname, s.value from profiles p left join settings s on s.profile_id = p.id
     where p.id = $1`,
    [profileId],
  )
  const stored = rows[0]?.value
  const keys = { ...DEFAULT_SETTINGS.keys, ...stored?.keys }
  const all = {
    ...DEFAULT_SETTINGS,
    ...stored,
    nickname: rows[0]?.nickname ?? DEFAULT_SETTINGS.nickname,
    keys,
  }
  return settingsSchema.cast(all, { stripUnknown: true })
}

/** The nickname is the solver's name for all. */
export const writeSettings = (
  profileId: string,
  { nickname: name, ...value }: Settings,
): Promise<Result<true>> =>
  unlessTaken(() =>
    transaction(profileId, async (client) => {
      await client.query('update profiles set nickname = $2 where id = $1 and nickname <> $2', [
        profileId,
        name,
      ])
      await keepSettings(profileId, value, client)
      askAnew()
      return ok(true)
    }),
  )

/** What small letters mean on a puzzle; where they become too many, one of the others is asked for again. */
export const keepSmallLetters = (
  profileId: string,
  puzzleId: string,
  means: SmallMeaning,
): Promise<void> =>
  transaction(profileId, async (client) => {
    // One after another, so that none overwrites what another has just said.
    await client.query('select 1 from profiles where id = $1 for update', [profileId])
    const { smallLetters: known } = await readSettings(profileId, client)
    const others = Object.entries(known).filter(([id]) => id !== puzzleId)
    const smallLetters = Object.fromEntries([
      ...others.slice(1 - MOST_SMALL_LETTERS),
      [puzzleId, means],
    ])
    await client.query(
      `insert into settings (profile_id, value) values ($1, $2)
       on conflict (profile_id) do update
       set value = settings.value || excluded.value, updated_at = now()`,
      [profileId, JSON.stringify({ smallLetters })],
    )
  })

/** Stores settings without a nickname. */
export const keepSettings = (profileId: string, value: object, client: Queryable) =>
  client.query(
    `insert into settings (profile_id, value) values ($1, $2)
     on conflict (profile_id) do update set value = excluded.value, updated_at = now()`,
    [profileId, JSON.stringify(value)],
  )
