/**
 * The log as a file, read piece by piece (docs/log-file.md): checked as a whole, every solution replayed on the engine,
 * and either all of it is stored or nothing.
 */
import { ValidationError } from 'yup'
import {
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
import { plain } from '../core/plain'
import { fail, ok, type Result } from '../core/result'
import { schoolNamed } from '../core/schools'
import { isSolved, readState, turnAll } from '../core/state'
import { noLongerInReach, nowInReach } from './asking'
import { decoded, readTable } from './csv'
import { itemsOf, type Item, type Path } from './files/items'
import { BadFile, told, type Source } from './files/source'
import { LONGEST_FILE, MOST_SOLVES, MOST_TURNS, sizeWords } from './limits'
import { COLUMNS, FORMAT, LONGEST_SOLUTION, solveSchema, VERSION, type Entry } from './logFile'
import { addOwnPuzzle, ownId } from './ownPuzzles'
import { transaction, type Queryable } from './pool'
import { rests } from './rest'
import { addNewSolves, type NewSolve } from './solves'
import { compiledFrom } from '../core/puzzle/compile'

const MOST_PUZZLES = 200

/** Is told how much is done, 0 to 1; throws where nobody wants it any more. */
export type Say = (share: number) => Promise<void>

/** Takes what a file holds, one after another, each of it checked. */
export interface LogSink {
  /** Whether the puzzles stay known when all is read. */
  readonly keepsPuzzles: boolean
  readonly puzzle: (definition: PuzzleDefinition) => Promise<Result<unknown>>
  readonly solve: (solve: NewSolve) => Promise<void>
}

/** One solve in a file: nothing of it lies deeper, and none has more splits than a school has stages. */
const ENTRY_BOUNDS = { depth: 5, values: 3000, text: LONGEST_SOLUTION }
const PUZZLE_BOUNDS = { depth: 8, values: 12_000, text: 1000 }

/** What lies in a log in JSON, wherever in a file that is: members of its two lists come one after another. */
export const LOG_READING = {
  opens: (path: Path) =>
    path.length === 0 || (path.length === 1 && ['solves', 'puzzles'].includes(`${path[0]}`)),
  boundsOf: (path: Path) => (path[0] === 'puzzles' ? PUZZLE_BOUNDS : ENTRY_BOUNDS),
}

/** A log that is being read: takes its items in whatever order they come. */
export class LogReading {
  private readonly rest = rests()
  private readonly schools = new Map<string, Result<unknown>>()
  private readonly seen = new Set<string>()
  private readonly hidden: string[] = []
  private readonly unknown: string[] = []
  private turns = 0
  private isEnded = false
  solves = 0
  private puzzles = 0

  constructor(private readonly sink: LogSink) {}

  async take({ path, value, opened, line }: Item): Promise<void> {
    const [field] = path
    if (field === undefined) {
      if (opened !== 'object') throw new BadFile('file', 'it must be an object with fields.', line)
      return
    }
    if (path.length === 1) {
      this.seen.add(`${field}`)
      if (field === 'format' && value !== FORMAT)
        throw new BadFile('format', `it must be "${FORMAT}".`, line)
      if (field === 'version' && value !== VERSION)
        throw new BadFile('version', `only version ${VERSION} is known.`, line)
      if (field === 'solves' && opened !== 'list')
        throw new BadFile('solves', 'a list of solves is missing.', line)
      if (field === 'puzzles' && opened !== 'list')
        throw new BadFile('puzzles', 'it must be a list of puzzle files.', line)
      return
    }
    if (field === 'puzzles') await this.takePuzzle(value, line)
    else await this.takeSolve(value, line)
  }

  async takePuzzle(value: unknown, line: number): Promise<void> {
    const refuse = ({ problem }: { problem: { sentence: string } }) =>
      new BadFile('puzzles', problem.sentence, line)
    if (++this.puzzles > 2 * MOST_PUZZLES)
      throw new BadFile('puzzles', `a file takes ${MOST_PUZZLES} puzzles.`, line)
    const read = readDefinition(value)
    if (!read.ok) throw refuse(read)
    const built = compiledFrom(read.value)
    if (!built.ok) throw refuse(built)
    const id = ownId(read.value)
    if (!definitionById(id)) {
      this.hidden.push(id)
      if (!isLearned(id)) this.unknown.push(id)
      learnDefinitions([{ ...read.value, id }])
      nowInReach('puzzles', id)
    }
    const kept = await this.sink.puzzle(read.value)
    if (!kept.ok) throw refuse(kept)
    await this.rest()
  }

  async takeSolve(value: unknown, line: number): Promise<void> {
    if (++this.solves > MOST_SOLVES)
      throw new BadFile('solves', `a file takes ${MOST_SOLVES} solves.`, line)
    const solve = readEntry(value, line, this.schools)
    this.turns += solve.turnCount
    if (this.turns > MOST_TURNS)
      throw new BadFile('solution', `a file takes ${MOST_TURNS} turns in all.`, line)
    await this.sink.solve(solve)
    await this.rest()
  }

  /** All of it has been taken. */
  end(isJson: boolean): void {
    for (const field of isJson ? ['format', 'version', 'solves'] : [])
      if (!this.seen.has(field))
        throw new BadFile(
          field,
          field === 'solves' ? 'a list of solves is missing.' : 'it is missing.',
          1,
        )
    this.isEnded = true
  }

  /** Whatever came of it: puzzles that nobody keeps are not known any more. */
  leave(): void {
    if (this.isEnded && this.sink.keepsPuzzles) return
    this.hidden.forEach((id) => noLongerInReach('puzzles', id))
    this.unknown.forEach((id) => forgetDefinition(id))
  }
}

/**
 * Reads either kind; which one is told by the first character. It rests now and then, so that others are served.
 *
 * @param say is told how much is done, 0 to 1
 * @throws BadFile with the line, and what was taken before is not to be kept
 */
export async function readLog(source: Source, sink: LogSink, say: Say): Promise<void> {
  if (source.bytes > LONGEST_FILE)
    throw new BadFile('file', `the file is larger than ${sizeWords(LONGEST_FILE)}.`)
  const isJson = await beginsAsJson(source)
  const reading = new LogReading(sink)
  try {
    if (isJson) {
      if (!(await puzzlesComeFirst(source))) await takeJson(source, reading, () => say(0), true)
      await takeJson(source, reading, say, false)
    } else await takeCsv(source, reading, say)
    reading.end(isJson)
  } finally {
    reading.leave()
  }
}

async function beginsAsJson(source: Source): Promise<boolean> {
  for await (const text of decoded(source.read())) {
    const begun = text.replace(/^\uFEFF/, '').trimStart()
    if (begun !== '') return begun.startsWith('{')
  }
  throw new BadFile('file', 'the file is empty.')
}

/** Else they stand behind the solves, as in files of earlier programs, and are to be read before them. */
async function puzzlesComeFirst(source: Source): Promise<boolean> {
  for await (const { path } of itemsOf(source.read(), LOG_READING)) {
    if (path[0] === 'puzzles') return true
    if (path[0] === 'solves' && path.length > 1) return false
  }
  return true
}

async function takeJson(
  source: Source,
  reading: LogReading,
  say: Say,
  onlyPuzzles: boolean,
): Promise<void> {
  for await (const item of itemsOf(told(source, say).read(), LOG_READING))
    if (!onlyPuzzles || (item.path[0] === 'puzzles' && item.path.length > 1))
      await reading.take(item)
}

async function takeCsv(source: Source, reading: LogReading, say: Say): Promise<void> {
  for await (const { line, cells } of readTable(
    withoutMark(decoded(told(source, say).read())),
    COLUMNS,
  )) {
    const value: Record<string, unknown> = Object.fromEntries(cells)
    for (const field of ['variant', 'splits'])
      try {
        value[field] = JSON.parse(cells.get(field) ?? '')
      } catch {
        throw new BadFile(field, 'this is not well-formed JSON.', line)
      }
    await reading.takeSolve(value, line)
  }
}

/** Spreadsheets put a mark of their own before the text. */
async function* withoutMark(text: AsyncIterable<string>): AsyncGenerator<string> {
  let isFirst = true
  for await (const piece of text) {
    yield isFirst ? piece.replace(/^\uFEFF/, '') : piece
    isFirst &&= piece === ''
  }
}

function readEntry(value: unknown, line: number, schools: Map<string, Result<unknown>>): NewSolve {
  const refuseHere = (field: string, why: string) => new BadFile(field, why, line)
  const given = plain(value, ENTRY_BOUNDS)
  if (!given.ok) throw refuseHere(given.problem.field || 'solve', given.problem.sentence)
  let entry: Entry
  try {
    entry = solveSchema.validateSync(given.value) as unknown as Entry
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error
    throw refuseHere(error.path || 'solve', `${error.errors[0].slice(0, 300)}.`)
  }
  const puzzle = puzzleById(entry.puzzle)
  if (!puzzle.ok) throw refuseHere('puzzle', puzzle.problem.sentence)
  if (entry.school !== '') {
    const key = `${entry.puzzle} ${entry.school}`
    const school = schools.get(key) ?? schoolNamed(entry.puzzle, entry.school)
    schools.set(key, school)
    if (!school.ok) throw refuseHere('school', school.problem.sentence)
  }
  const from = readState(puzzle.value, entry.startState)
  if (!from.ok) throw refuseHere('startState', from.problem.sentence)
  const scramble = readTurns(puzzle.value, entry.scramble)
  if (!scramble.ok) throw refuseHere('scramble', scramble.problem.sentence)
  const solution = readTurns(puzzle.value, entry.solution)
  if (!solution.ok) throw refuseHere('solution', solution.problem.sentence)
  const end = turnAll(puzzle.value, from.value, solution.value)
  if (!end.ok || !isSolved(puzzle.value, end.value))
    throw refuseHere('solution', 'these turns do not solve the start state.')
  // Older files count every turn for itself.
  const { turnCount, quarterCount } = countJoined(puzzle.value, solution.value)
  if (![turnCount, countTurns(solution.value)].includes(entry.turnCount))
    throw refuseHere('turnCount', `the solution has ${turnCount} turns.`)
  if (![quarterCount, countQuarters(solution.value)].includes(entry.quarterCount))
    throw refuseHere('quarterCount', `the solution has ${quarterCount} quarter turns.`)
  const { puzzle: puzzleId, school, finishedAt, ...rest } = entry
  return { ...rest, puzzleId, school: school || undefined, finishedAt: new Date(finishedAt) }
}

/** Stores solves as they come; those that are in the log already (same start, solution and moment) are passed over. */
export class SolveStore {
  private waiting: NewSolve[] = []
  stored = 0

  constructor(
    private readonly profileId: string,
    private readonly client: Queryable,
  ) {}

  async add(solve: NewSolve): Promise<void> {
    this.waiting.push(solve)
    if (this.waiting.length >= BATCH) await this.flush()
  }

  async flush(): Promise<void> {
    this.stored += await addNewSolves(this.profileId, this.waiting, this.client)
    this.waiting = []
  }
}

/** Solves stored by one statement. */
const BATCH = 400

/**
 * Reads a log and stores it, with the puzzles that it brings, or nothing of it. The number of solves stored is returned.
 *
 * @param end is done together with what is stored, or not at all
 */
export async function importLog(
  profileId: string,
  source: Source,
  say: Say = () => Promise.resolve(),
  end: (count: number, client: Queryable) => Promise<void> = () => Promise.resolve(),
): Promise<Result<number>> {
  try {
    return ok(
      await transaction(profileId, async (client) => {
        const store = new SolveStore(profileId, client)
        const sink: LogSink = {
          keepsPuzzles: true,
          puzzle: (definition) => addOwnPuzzle(profileId, definition, client),
          solve: (solve) => store.add(solve),
        }
        await readLog(source, sink, say)
        await store.flush()
        await end(store.stored, client)
        return store.stored
      }),
    )
  } catch (error) {
    if (error instanceof BadFile)
      return fail('bad-file', badFileWords(error), { field: error.field })
    throw error
  }
}

/** `Line 4, slips: …` */
const badFileWords = ({ line, field, sentence }: BadFile): string =>
  line === undefined
    ? `${sentence[0].toUpperCase()}${sentence.slice(1)} Nothing was imported.`
    : `Line ${line}, ${field}: ${sentence} Nothing was imported.`
