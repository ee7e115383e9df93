/** The log as a file: JSON or CSV (docs/log-file.md), written piece by piece, however long it is. */
import { array, number, object, string } from 'yup'
import { splitId } from '../core/catalog/setting'
import type { PuzzleDefinition } from '../core/puzzle/definition'
import { writeHead, writeRows } from './csv'
import { jsonLines } from './files/write'
import { LONGEST_MS } from './limits'
import { moment } from './moment'
import { ownPuzzleFiles } from './ownPuzzles'
import type { Solve } from './solves'

export const FORMAT = 'merry-lantern-log'
export const VERSION = 1
/** Letters that the turns of the longest bench may take. */
export const LONGEST_SOLUTION = 150_000

const whole = (most = 2_000_000_000) => number().integer().min(0).max(most).required()

const splitSchema = object({
  stageId: string().min(1).max(80).required(),
  name: string().min(1).max(80).required(),
  turnCount: whole(),
  elapsedMs: whole(LONGEST_MS),
}).noUnknown()

export const solveSchema = object({
  puzzle: string().min(1).max(80).required(),
  school: string().max(80).default(''),
  variant: object().default({}),
  solver: string().max(80).default(''),
  startState: string().min(1).max(400).required(),
  scramble: string().max(4000).default(''),
  solution: string().max(LONGEST_SOLUTION).default(''),
  finishedAt: moment()
    .min(new Date('1970-01-01T00:00:00Z'), '${path} must be after 1969')
    .max(new Date('2200-01-01T00:00:00Z'), '${path} must be before 2200')
    .required(),
  elapsedMs: whole(LONGEST_MS),
  turnCount: whole(),
  quarterCount: whole(),
  slips: whole().default(0),
  hints: whole().default(0),
  remark: string().max(2000).default(''),
  splits: array().of(splitSchema).max(100).default([]),
}).noUnknown('${path} has a field that is not known: ${unknown}')

export const COLUMNS = Object.keys(solveSchema.fields)

export type Entry = ReturnType<typeof toEntry>

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

type Solves = Iterable<Solve> | AsyncIterable<Solve>

async function* entriesOf(solves: Solves): AsyncGenerator<Entry> {
  for await (const solve of solves) yield toEntry(solve)
}

/**
 * One solve a line, so that a line number in an error leads to it; before them the puzzles of the solver's own that
 * they are of, so that the file can be read elsewhere.
 */
export async function* writeJson(
  solves: Solves,
  puzzles: readonly PuzzleDefinition[] = [],
): AsyncGenerator<string> {
  yield `{"format":"${FORMAT}","version":${VERSION},"puzzles":[`
  yield* jsonLines(puzzles)
  yield '],"solves":[\n'
  yield* jsonLines(entriesOf(solves))
  yield '\n]}\n'
}

/** The puzzles of the solver's own that solves are of. */
export const puzzlesOf = (
  profileId: string,
  puzzleIds: readonly string[],
): Promise<PuzzleDefinition[]> =>
  ownPuzzleFiles(profileId, [...new Set(puzzleIds.map((id) => splitId(id).file))])

/** Variant and splits are JSON inside their cells. */
export async function* writeCsv(solves: Solves): AsyncGenerator<string> {
  yield writeHead(COLUMNS)
  let rows: (string | number)[][] = []
  for await (const entry of entriesOf(solves)) {
    const cells = {
      ...entry,
      variant: JSON.stringify(entry.variant),
      splits: JSON.stringify(entry.splits),
    }
    rows.push(COLUMNS.map((column) => cells[column as keyof typeof cells]))
    if (rows.length < 100) continue
    yield writeRows(rows)
    rows = []
  }
  yield writeRows(rows)
}
