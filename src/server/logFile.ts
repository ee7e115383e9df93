/**
 * The log as a file: JSON or CSV (docs/log-file.md). What comes in is checked as a whole, every
 * solution replayed on the engine, and either all of it is stored or nothing.
 */
import { array, date, number, object, string, ValidationError } from 'yup'
import { splitId } from '../core/catalog/setting'
import {
  compiledFrom,
  definitionById,
  forgetDefinition,
  isLearned,
  learnDefinitions,
  puzzleById,
} from '../core/catalog'
import type { PuzzleDefinition } from '../core/puzzle/definition'
import { readDefinition } from '../core/puzzle/readDefinition'
import { countJoined, countQuarters, countTurns } from '../core/notation/rewrite'
import { readTurns } from '../core/notation/read'
import { plainProblem } from '../core/plain'
import { fail, ok, type Problem, type Result } from '../core/result'
import { schoolNamed } from '../core/schools'
import { isSolved, readState, turnAll } from '../core/state'
import { noLongerInReach, nowInReach } from './asking'
import { readTable, writeTable } from './csv'
import { addOwnPuzzle, ownId, ownPuzzleFiles } from './ownPuzzles'
import { transaction, type Queryable } from './pool'
import { rests } from './rest'
import { addNewSolves, type NewSolve, type Solve } from './solves'

const FORMAT = 'merry-lantern-log'
const VERSION = 1
/** Largest file that is read, in characters. */
export const FILE_LIMIT = 20_000_000
/** More than a lifetime of solves; a file that asks for more work than that is refused. */
const MOST_SOLVES = 100_000
const MOST_PUZZLES = 200
const MOST_TURNS = 5_000_000
/** Letters that the turns of the longest bench may take. */
const LONGEST_SOLUTION = 150_000

const whole = () => number().integer().min(0).max(2_000_000_000).required()

const splitSchema = object({
  stageId: string().min(1).max(80).required(),
  name: string().min(1).max(80).required(),
  turnCount: whole(),
  elapsedMs: whole(),
}).noUnknown()

const solveSchema = object({
  puzzle: string().min(1).max(80).required(),
  school: string().max(80).default(''),
  variant: object().default({}),
  solver: string().max(80).default(''),
  startState: string().min(1).max(400).required(),
  scramble: string().max(4000).default(''),
  solution: string().max(LONGEST_SOLUTION).default(''),
  finishedAt: date()
    .min(new Date('1970-01-01T00:00:00Z'), '${path} must be after 1969')
    .max(new Date('2200-01-01T00:00:00Z'), '${path} must be before 2200')
    .required(),
  elapsedMs: whole(),
  turnCount: whole(),
  quarterCount: whole(),
  slips: whole().default(0),
  hints: whole().default(0),
  remark: string().max(2000).default(''),
  splits: array().of(splitSchema).max(100).default([]),
}).noUnknown('${path} has a field that is not known: ${unknown}')

const COLUMNS = Object.keys(solveSchema.fields)

type Entry = ReturnType<typeof toEntry>

function toEntry(solve: Solve) {
  return {
    puzzle: solve.puzzleId,
    school: solve.school ?? '',
    variant: solve.variant,
    solver: solve.solver,
    startState: solve.startState,
    scramble: solve.scramble,
    solution: solve.solution,
    finishedAt: solve.finishedAt.toISOString(),
    elapsedMs: solve.elapsedMs,
    turnCount: solve.turnCount,
    quarterCount: solve.quarterCount,
    slips: solve.slips,
    hints: solve.hints,
    remark: solve.remark,
    splits: solve.splits,
  }
}

/**
 * One solve a line, so that a line number in an error leads to it; then the puzzles of the solver's own that
 * they are of, so that the file can be read elsewhere.
 */
export function writeJson(
  solves: readonly Solve[],
  puzzles: readonly PuzzleDefinition[] = [],
): string {
  const lines = (list: readonly unknown[]) => list.map((each) => JSON.stringify(each)).join(',\n')
  const own = puzzles.length > 0 ? `,"puzzles":[\n${lines(puzzles)}\n]` : ''
  return `{"format":"${FORMAT}","version":${VERSION},"solves":[\n${lines(solves.map(toEntry))}\n]${own}}\n`
}

/** The puzzles of the solver's own that solves are of. */
export const puzzlesOf = (
  profileId: string,
  solves: readonly Solve[],
): Promise<PuzzleDefinition[]> =>
  ownPuzzleFiles(profileId, [...new Set(solves.map(({ puzzleId }) => splitId(puzzleId).file))])

/** Variant and splits are JSON inside their cells. */
export const writeCsv = (solves: readonly Solve[]): string =>
  writeTable(
    COLUMNS,
    solves.map(toEntry).map((entry) => {
      const cells = {
        ...entry,
        variant: JSON.stringify(entry.variant),
        splits: JSON.stringify(entry.splits),
      }
      return COLUMNS.map((column) => cells[column as keyof typeof cells])
    }),
  )

/** Is told how much is done, 0 to 1; throws where nobody wants it any more. */
export type Say = (share: number) => Promise<void>

interface Placed {
  /** Found only when it is asked for: in JSON that takes a walk through the text. */
  readonly line: () => number
  readonly value: unknown
}

/** What a file holds, all of it checked. */
export interface LogFile {
  readonly solves: readonly NewSolve[]
  /** Puzzles of the writer's own. */
  readonly puzzles: readonly PuzzleDefinition[]
}

/**
 * Reads either kind; which one is told by the first character. It rests now and then, so that a large file
 * lets others through.
 *
 * @param say is told how much is done, 0 to 1
 */
export async function readLogFile(
  text: string,
  say: Say = () => Promise.resolve(),
): Promise<Result<LogFile>> {
  if (text.length > FILE_LIMIT) return fail('bad-file', 'The file is larger than 20 MB.')
  if (text.trim() === '') return fail('bad-file', 'The file is empty.')
  const rest = rests()
  const placed = text.trimStart().startsWith('{') ? readJson(text) : await readCsv(text, rest)
  if (!placed.ok) return placed
  const puzzles: PuzzleDefinition[] = []
  for (const { line, value } of placed.value.puzzles) {
    const read = readDefinition(value)
    if (!read.ok) return refuse(line(), 'puzzles', read.problem.sentence)
    const built = compiledFrom(read.value)
    if (!built.ok) return refuse(line(), 'puzzles', built.problem.sentence)
    puzzles.push(read.value)
    await rest()
  }
  return withDefinitions(puzzles, async () => {
    const solves: NewSolve[] = []
    const schools = new Map<string, Result<unknown>>()
    let turns = 0
    for (const [i, entry] of placed.value.solves.entries()) {
      await say(i / placed.value.solves.length)
      const solve = readEntry(entry, schools)
      if (!solve.ok) return solve
      turns += solve.value.turnCount
      if (turns > MOST_TURNS)
        return refuse(entry.line(), 'solution', `a file takes ${MOST_TURNS} turns in all.`)
      solves.push(solve.value)
      await rest()
    }
    return ok({ solves, puzzles })
  })
}

/** Does something with puzzles known that need not stay so. */
async function withDefinitions<T>(
  puzzles: readonly PuzzleDefinition[],
  work: () => Promise<T>,
): Promise<T> {
  const named = puzzles.map((definition) => ({ ...definition, id: ownId(definition) }))
  const hidden = named.filter(({ id }) => !definitionById(id))
  const unknown = hidden.filter(({ id }) => !isLearned(id))
  learnDefinitions(unknown)
  hidden.forEach(({ id }) => nowInReach('puzzles', id))
  try {
    return await work()
  } finally {
    hidden.forEach(({ id }) => noLongerInReach('puzzles', id))
    unknown.forEach(({ id }) => forgetDefinition(id))
  }
}

const refuse = (line: number, field: string, why: string) =>
  fail('bad-file', `Line ${line}, ${field}: ${why} Nothing was imported.`, { field })

interface Contents {
  readonly solves: readonly Placed[]
  readonly puzzles: readonly Placed[]
}

function readJson(text: string): Result<Contents> {
  let file: { format?: unknown; version?: unknown; solves?: unknown; puzzles?: unknown }
  try {
    file = JSON.parse(text) as typeof file
  } catch (error) {
    const at = /position (\d+)/.exec((error as Error).message)?.[1]
    const line = at === undefined ? 1 : lineAt(text, Number(at))
    return refuse(line, 'file', 'this is not well-formed JSON.')
  }
  if (file.format !== FORMAT) return refuse(1, 'format', `it must be "${FORMAT}".`)
  if (file.version !== VERSION) return refuse(1, 'version', `only version ${VERSION} is known.`)
  if (!Array.isArray(file.solves)) return refuse(1, 'solves', 'a list of solves is missing.')
  const puzzles = file.puzzles ?? []
  if (!Array.isArray(puzzles)) return refuse(1, 'puzzles', 'it must be a list of puzzle files.')
  if (file.solves.length > MOST_SOLVES || puzzles.length > MOST_PUZZLES)
    return refuse(1, 'solves', `a file takes ${MOST_SOLVES} solves and ${MOST_PUZZLES} puzzles.`)
  const placed = (list: 'solves' | 'puzzles') => (value: unknown, i: number) => ({
    value,
    line: () => elementLines(text, list)[i] ?? 1,
  })
  return ok({
    solves: file.solves.map(placed('solves')),
    puzzles: puzzles.map(placed('puzzles')),
  })
}

const lineAt = (text: string, position: number): number =>
  text.slice(0, position).split('\n').length

/** Lines on which the elements of one of the outermost lists begin. */
function elementLines(text: string, list: string): number[] {
  const lines: number[] = []
  let depth = 0
  let line = 1
  let stringAt = -1
  let field = ''
  for (let i = 0; i < text.length; i++) {
    const c = text[i]
    if (c === '\n') line++
    if (stringAt >= 0) {
      if (c === '\\') i++
      else if (c === '"') {
        if (depth === 1) field = text.slice(stringAt, i)
        stringAt = -1
      }
    } else if (c === '"') stringAt = i + 1
    else if (c === '{' || c === '[') {
      if (depth === 2 && c === '{' && field === list) lines.push(line)
      depth++
    } else if (c === '}' || c === ']') depth--
  }
  return lines
}

async function readCsv(text: string, rest: () => Promise<void>): Promise<Result<Contents>> {
  const table = await readTable(text, COLUMNS, MOST_SOLVES, rest, refuse)
  if (!table.ok) return table
  const placed: Placed[] = []
  for (const { line, cells } of table.value) {
    const value: Record<string, unknown> = Object.fromEntries(cells)
    for (const field of ['variant', 'splits'])
      try {
        value[field] = JSON.parse(cells.get(field) ?? '')
      } catch {
        return refuse(line, field, 'this is not well-formed JSON.')
      }
    placed.push({ line: () => line, value })
    await rest()
  }
  return ok({ solves: placed, puzzles: [] })
}

/** One solve in a file: nothing of it lies deeper, and none has more splits than a school has stages. */
const ENTRY_BOUNDS = { depth: 5, values: 3000, text: LONGEST_SOLUTION }

function readEntry(
  { line: lineOf, value }: Placed,
  schools: Map<string, Result<unknown>>,
): Result<NewSolve> {
  const refuseHere = (field: string, why: string) => refuse(lineOf(), field, why)
  const unplain = plainProblem(value, ENTRY_BOUNDS)
  if (unplain) return refuseHere(unplain.field || 'solve', unplain.sentence)
  let entry: Entry
  try {
    entry = solveSchema.validateSync(value) as unknown as Entry
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error
    return refuseHere(error.path || 'solve', `${error.errors[0].slice(0, 300)}.`)
  }
  const puzzle = puzzleById(entry.puzzle)
  if (!puzzle.ok) return refuseHere('puzzle', puzzle.problem.sentence)
  if (entry.school !== '') {
    const key = `${entry.puzzle} ${entry.school}`
    const school = schools.get(key) ?? schoolNamed(entry.puzzle, entry.school)
    schools.set(key, school)
    if (!school.ok) return refuseHere('school', school.problem.sentence)
  }
  const from = readState(puzzle.value, entry.startState)
  if (!from.ok) return refuseHere('startState', from.problem.sentence)
  const scramble = readTurns(puzzle.value, entry.scramble)
  if (!scramble.ok) return refuseHere('scramble', scramble.problem.sentence)
  const solution = readTurns(puzzle.value, entry.solution)
  if (!solution.ok) return refuseHere('solution', solution.problem.sentence)
  const end = turnAll(puzzle.value, from.value, solution.value)
  if (!end.ok || !isSolved(puzzle.value, end.value))
    return refuseHere('solution', 'these turns do not solve the start state.')
  // Older files count every turn for itself.
  const { turnCount, quarterCount } = countJoined(puzzle.value, solution.value)
  if (![turnCount, countTurns(solution.value)].includes(entry.turnCount))
    return refuseHere('turnCount', `the solution has ${turnCount} turns.`)
  if (![quarterCount, countQuarters(solution.value)].includes(entry.quarterCount))
    return refuseHere('quarterCount', `the solution has ${quarterCount} quarter turns.`)
  const { puzzle: puzzleId, school, finishedAt, ...rest } = entry
  return ok({ ...rest, puzzleId, school: school || undefined, finishedAt: new Date(finishedAt) })
}

/**
 * Stores solves, and the puzzles that they need; solves that are in the log already (same start, solution and
 * moment) are passed over. The number of solves stored is returned.
 *
 * @param end is done together with what is stored, or not at all
 */
export async function importSolves(
  profileId: string,
  { solves, puzzles }: LogFile,
  end: (count: number, client: Queryable) => Promise<void> = () => Promise.resolve(),
): Promise<Result<number>> {
  class Refused extends Error {
    constructor(readonly problem: Problem) {
      super(problem.sentence)
    }
  }
  try {
    return ok(
      await transaction(async (client) => {
        for (const definition of puzzles) {
          const added = await addOwnPuzzle(profileId, definition, client)
          // Thrown, so that nothing of the file is kept.
          if (!added.ok) throw new Refused(added.problem)
        }
        const stored = await addNewSolves(profileId, solves, client)
        await end(stored, client)
        return stored
      }),
    )
  } catch (error) {
    if (error instanceof Refused) return { ok: false, problem: error.problem }
    throw error
  }
}
