/**
 * Everything that one solver owns as one file, and back (docs/backup-file.md): a list of the files that exist
 * for its parts. What comes back is a solver of its own, all of it or nothing.
 */
import { randomUUID } from 'node:crypto'
import { array, date, mixed, number, object, string, type Schema } from 'yup'
import { puzzleById } from '../core/catalog'
import { openBench, replay, type BenchEvent } from '../core/coach/bench'
import { readDefinition } from '../core/puzzle/readDefinition'
import { fail, ok, type Result } from '../core/result'
import { schoolNamed } from '../core/schools'
import { DEFAULT_SETTINGS, settingsSchema } from '../core/settings'
import { readState } from '../core/state'
import { exportAlgorithms, importAlgorithms, puzzlesWithAlgorithms } from './algorithms'
import { asNewSolver } from './asking'
import { eventSchema } from './benchEventSchema'
import { MOST_EVENTS } from './benchSessions'
import { addCare } from './care'
import { careSchema } from './careSchema'
import { addCopy } from './copies'
import { copySchema } from './copySchema'
import { exportCopy } from './exportCopy'
import { puzzlesOf, readLogFile, writeJson, type Say } from './logFile'
import { checked } from './outside'
import { addOwnPuzzle } from './ownPuzzles'
import { keepSchool } from './ownSchools'
import { pool, transaction, type Queryable } from './pool'
import { keepSettings, readSettings } from './profiles'
import { addNewSolves, listSolves } from './solves'

const FORMAT = 'merry-lantern-backup'
const VERSION = 1
/** Largest file that is read, in characters. */
export const BACKUP_LIMIT = 100_000_000
const MOST_SOLVES = 1_000_000

/** The file, as text; undefined if the solver is not there. */
export async function writeBackup(profileId: string): Promise<string | undefined> {
  const own = await pool().query<{ puzzles: unknown[]; schools: unknown[] }>(
    `select coalesce((select jsonb_agg(definition order by id) from own_puzzles where profile_id = p.id), '[]') as puzzles,
       coalesce((select jsonb_agg(jsonb_build_object('puzzle', puzzle_id, 'school', school) order by puzzle_id, id)
         from own_schools where profile_id = p.id), '[]') as schools
     from profiles p where p.id = $1`,
    [profileId],
  )
  if (!own.rows[0]) return undefined
  const { puzzles, schools } = own.rows[0]
  const ids = await pool().query<{ id: string }>(
    'select id from copies where profile_id = $1 order by created_at, id',
    [profileId],
  )
  const copies: unknown[] = []
  for (const { id } of ids.rows) copies.push(await exportCopy(profileId, id))
  const solves = await listSolves(profileId, MOST_SOLVES)
  const placeOf = new Map(ids.rows.map(({ id }, i) => [id, i]))
  const algorithms: unknown[] = []
  for (const id of await puzzlesWithAlgorithms(profileId))
    algorithms.push(await exportAlgorithms(profileId, id))
  return JSON.stringify({
    format: FORMAT,
    version: VERSION,
    settings: await readSettings(profileId),
    puzzles,
    schools,
    copies,
    log: JSON.parse(writeJson(solves, await puzzlesOf(profileId, solves))) as unknown,
    // On which of the copies each solve was made, because a log does not say it.
    solvedOn: solves.map(({ copyId }) => placeOf.get(copyId ?? '') ?? null),
    algorithms,
  })
}

interface Parts {
  /** With the nickname. */
  readonly settings: object
  readonly puzzles: readonly unknown[]
  readonly schools: readonly unknown[]
  readonly copies: readonly unknown[]
  readonly log: object
  readonly solvedOn: readonly unknown[]
  readonly algorithms: readonly unknown[]
}

const list = (most: number) => array().of(mixed().nullable()).max(most).required()
const partsSchema = object({
  format: string().oneOf([FORMAT], `format must be ${FORMAT}.`).required('format is missing.'),
  version: number()
    .oneOf([VERSION], `only version ${VERSION} is known.`)
    .required('version is missing.'),
  settings: object().required('settings are missing.'),
  puzzles: list(200),
  schools: list(50),
  copies: list(2000),
  log: object().required('log is missing.'),
  solvedOn: list(100_000),
  algorithms: list(500),
}).noUnknown('The file has a field that is not known: ${unknown}') as unknown as Schema<Parts>

const schoolEntrySchema = object({
  puzzle: string().max(80).required(),
  school: object().required(),
}).noUnknown()

const benchSchema = object({
  school: string().max(80).nullable().default(null),
  variant: object().default({}),
  start_state: string().max(400).required(),
  scramble: string().max(4000).default(''),
  seed: number().integer().min(0).max(Number.MAX_SAFE_INTEGER).nullable().default(null),
  laid_by: string().oneOf(['scramble', 'colours', 'pieces']).required(),
  status: string().oneOf(['open', 'finished', 'aside']).required(),
  created_at: date().required(),
  ended_at: date().nullable().default(null),
  events: array()
    .of(eventSchema as unknown as Schema<BenchEvent>)
    .max(MOST_EVENTS)
    .required(),
})

/** A bench has many events, and a plan among them many steps. */
const BENCH_BOUNDS = { depth: 16, values: 2_000_000, text: 50_000, list: MOST_EVENTS }

class Refused extends Error {
  constructor(readonly result: Result<never>) {
    super()
  }
}

/** What was read; a problem ends the whole, with the part of the file named. */
function need<T>(part: string, result: Result<T>): T {
  if (result.ok) return result.value
  const { code, sentence, field } = result.problem
  throw new Refused(
    fail(code, `${part}: ${sentence} Nothing was restored.`, {
      field: [part, field].filter(Boolean).join('.'),
    }),
  )
}

/**
 * Makes a solver of a backup; the id is returned. The nickname is the file's, or with a number where it is taken.
 *
 * @param say is told how much is done, 0 to 1
 * @param end is done together with what is stored, or not at all
 */
export async function restore(
  text: string,
  say: Say,
  end: (id: string, client: Queryable) => Promise<void>,
): Promise<Result<string>> {
  let input: unknown
  try {
    input = JSON.parse(text)
  } catch (error) {
    return fail('bad-file', `This is no JSON: ${(error as Error).message}.`, { field: 'file' })
  }
  try {
    const parts = await partsSchema
      .validate(input, { stripUnknown: false })
      .catch((error: Error & { path?: string }) => {
        throw new Refused(fail('bad-file', error.message, { field: error.path ?? 'file' }))
      })
    return ok(await asNewSolver(() => transaction((client) => restored(parts, say, end, client))))
  } catch (error) {
    if (error instanceof Refused) return error.result
    throw error
  }
}

async function restored(
  parts: Parts,
  say: Say,
  end: (id: string, client: Queryable) => Promise<void>,
  client: Queryable,
): Promise<string> {
  const { nickname, ...settings } = need(
    'settings',
    await checked(settingsSchema, { ...DEFAULT_SETTINGS, ...parts.settings }),
  )
  const id = await newProfile(nickname, client)
  await keepSettings(id, settings, client)
  for (const [i, given] of parts.puzzles.entries()) {
    const part = `puzzles[${i}]`
    const definition = need(part, readDefinition(given))
    need(part, await addOwnPuzzle(id, definition, client))
    await say(0.1 * (i / parts.puzzles.length))
  }
  for (const [i, given] of parts.schools.entries()) {
    const part = `schools[${i}]`
    const { puzzle, school } = need(part, await checked(schoolEntrySchema, given))
    need(part, await keepSchool(id, puzzle, school, client))
  }
  const copies: string[] = []
  for (const [i, given] of parts.copies.entries()) {
    copies.push(await restoredCopy(id, `copies[${i}]`, given, client))
    await say(0.1 + 0.4 * (i / parts.copies.length))
  }
  const log = need(
    'log',
    await readLogFile(JSON.stringify(parts.log), (share) => say(0.5 + share / 2)),
  )
  if (log.solves.length !== parts.solvedOn.length)
    need('solvedOn', fail('bad-file', 'it must have one entry for each solve of the log.'))
  const solves = log.solves.map((solve, i) => ({
    ...solve,
    copyId: copies[Number(parts.solvedOn[i] ?? NaN)],
  }))
  await addNewSolves(id, solves, client)
  for (const [i, given] of parts.algorithms.entries()) {
    const puzzle = (Object(given) as { puzzle?: unknown }).puzzle
    need(
      `algorithms[${i}]`,
      await importAlgorithms(id, typeof puzzle === 'string' ? puzzle : '', given, client),
    )
  }
  await end(id, client)
  return id
}

/** Under the first name that is free: two machines may each have had a Gull. */
async function newProfile(nickname: string, client: Queryable): Promise<string> {
  for (let number = 1; ; number++) {
    const name = number === 1 ? nickname : `${nickname.slice(0, 74)} ${number}`
    const { rows } = await client.query(
      'insert into profiles (nickname) values ($1) on conflict do nothing returning id',
      [name],
    )
    if (rows[0]) return (rows[0] as { id: string }).id
  }
}

async function restoredCopy(
  profileId: string,
  part: string,
  given: unknown,
  client: Queryable,
): Promise<string> {
  const { copy, care = [], benches = [] } = Object(given) as Record<string, unknown>
  const { puzzle_id, name, scheme, remarks } = Object(copy) as Record<string, unknown>
  const read = need(
    `${part}.copy`,
    await checked(copySchema, { puzzleId: puzzle_id, name, scheme, remarks }),
  )
  const puzzle = need(`${part}.copy`, puzzleById(read.puzzleId))
  const colours = puzzle.definition.colours.map((each) => each.id).join()
  if (read.scheme.map((each) => each.id).join() !== colours)
    need(`${part}.copy`, fail('bad-file', 'its colours are not those of its puzzle.'))
  const id = await addCopy(profileId, read, client)
  if (!Array.isArray(care) || !Array.isArray(benches))
    throw new Refused(fail('bad-file', `${part}: care and benches must be lists.`, { field: part }))
  for (const [i, entry] of (care as unknown[]).entries()) {
    const { happened_on, kind, note } = Object(entry) as Record<string, unknown>
    const known = need(
      `${part}.care[${i}]`,
      await checked(careSchema, { happenedOn: happened_on, kind, note }),
    )
    await addCare(profileId, id, known, client)
  }
  for (const [i, bench] of (benches as unknown[]).entries()) {
    const at = `${part}.benches[${i}]`
    const known = need(
      at,
      await checked(benchSchema as unknown as Schema<Bench>, bench, BENCH_BOUNDS),
    )
    const start = need(at, readState(puzzle, known.start_state))
    if (known.school !== null) need(at, schoolNamed(read.puzzleId, known.school))
    replayable(at, () => replay(openBench(puzzle, start), known.events))
    await restoredBench(profileId, id, known, client)
  }
  return id
}

interface Bench {
  readonly school: string | null
  readonly variant: object
  readonly start_state: string
  readonly scramble: string
  readonly seed: number | null
  readonly laid_by: string
  readonly status: string
  readonly created_at: Date
  readonly ended_at: Date | null
  readonly events: readonly BenchEvent[]
}

function replayable(part: string, work: () => unknown): void {
  try {
    work()
  } catch (error) {
    need(part, fail('bad-file', `what happened cannot be replayed: ${(error as Error).message}.`))
  }
}

async function restoredBench(
  profileId: string,
  copyId: string,
  { events, ...bench }: Bench,
  client: Queryable,
): Promise<void> {
  const id = randomUUID()
  await client.query(
    `insert into bench_sessions (id, profile_id, copy_id, school, variant, start_state, scramble, seed,
       laid_by, status, created_at, ended_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12)`,
    [
      ...[id, profileId, copyId, bench.school, JSON.stringify(bench.variant), bench.start_state],
      ...[
        bench.scramble,
        bench.seed,
        bench.laid_by,
        bench.status,
        bench.created_at,
        bench.ended_at,
      ],
    ],
  )
  await client.query(
    `insert into bench_events (session_id, seq, event)
     select $1, ordinality - 1, value from jsonb_array_elements($2::jsonb) with ordinality`,
    [id, JSON.stringify(events)],
  )
}
