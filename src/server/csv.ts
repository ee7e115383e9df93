/**
 * Tables as CSV, in and out. What comes in is read as it arrives and with limits: the first line must name the
 * columns before anything else is looked at, and no row may be wider than it.
 */
import { pipeline, Readable } from 'node:stream'
import Papa from 'papaparse'
import { BadFile } from './files/source'

/** Longest first line, and longest row, in characters. */
const LONGEST_HEAD = 2000
const LONGEST_ROW = 600_000
const DELIMITERS = [',', ';', '\t']

export interface CsvRow {
  /** The line on which the row begins, from 1. */
  readonly line: number
  readonly cells: ReadonlyMap<string, string>
}

/** A spreadsheet takes a cell that begins so for a formula; quotes before it are taken off when it is read. */
const FORMULA = /^'*[=+\-@\t\r\n]/

const escaped = (cell: string): string => (FORMULA.test(cell) ? `'${cell}` : cell)

const unescaped = (cell: string): string =>
  cell.startsWith("'") && FORMULA.test(cell) ? cell.slice(1) : cell

/** The first line. */
export const writeHead = (columns: readonly string[]): string =>
  `${Papa.unparse([[...columns]])}\r\n`

/** Lines after it. */
export const writeRows = (rows: readonly (readonly (string | number)[])[]): string =>
  rows.length === 0
    ? ''
    : `${Papa.unparse(rows.map((row) => row.map((cell) => escaped(`${cell}`))))}\r\n`

const NEVER_CLOSED = 'a quotation mark is never closed, or a row is too long.'

/**
 * The rows of a table, one after another.
 *
 * @param columns every one of them must be there, in any order; others are refused
 * @throws BadFile with the line
 */
export async function* readTable(
  text: AsyncIterable<string>,
  columns: readonly string[],
): AsyncGenerator<CsvRow> {
  const pieces = text[Symbol.asyncIterator]()
  let begun = ''
  for (;;) {
    const next = await pieces.next()
    begun += next.done ? '' : next.value
    if (next.done || begun.length > LONGEST_HEAD) break
  }
  const { names, delimiter, newline } = headOf(begun, columns)
  const rest = async function* () {
    yield begun
    yield* { [Symbol.asyncIterator]: () => pieces }
  }
  const parsed = Papa.parse(Papa.NODE_STREAM_INPUT, { delimiter, newline })
  // An error of the text ends the rows too, and is met there.
  pipeline(Readable.from(closedRows(rest())), parsed, () => undefined)
  let line = 1
  for await (const cells of parsed as AsyncIterable<string[]>) {
    const at = line
    line += 1 + cells.reduce((sum, cell) => sum + (cell.match(/\r\n|\n|\r/g)?.length ?? 0), 0)
    if (at === 1 || (cells.length === 1 && cells[0] === '')) continue
    if (cells.length !== names.length)
      throw new BadFile('row', `it has ${cells.length} cells for ${names.length} columns.`, at)
    yield { line: at, cells: new Map(cells.map((cell, i) => [names[i], unescaped(cell)])) }
  }
}

function headOf(begun: string, columns: readonly string[]) {
  const end = /\r\n|\n|\r/.exec(begun.slice(0, LONGEST_HEAD))
  const head = end ? begun.slice(0, end.index) : begun
  if (head.length > LONGEST_HEAD)
    throw new BadFile('row', 'the first line is too long to be the names of the columns.', 1)
  const delimiter = DELIMITERS.find((each) => head.split(each).length >= columns.length) ?? ','
  const names = Papa.parse<string[]>(head, { delimiter }).data[0] ?? []
  const missing = columns.find((column) => !names.includes(column))
  if (missing) throw new BadFile(missing, 'this column is missing.', 1)
  const strange = names.find((name, i) => !columns.includes(name) || names.indexOf(name) < i)
  if (strange !== undefined)
    throw new BadFile(strange.slice(0, 40), 'this column is not known, or there twice.', 1)
  return { names, delimiter, newline: (end?.[0] ?? '\n') as '\r\n' | '\n' | '\r' }
}

/** The same text, as long as its rows have ends: one that has none is never gathered. */
async function* closedRows(text: AsyncIterable<string>): AsyncGenerator<string> {
  let isQuoted = false
  let [line, begunOn, length] = [1, 1, 0]
  for await (const piece of text) {
    for (let at = 0; at < piece.length; at++) {
      const sign = piece.charCodeAt(at)
      if (sign === 34) isQuoted = !isQuoted
      if (sign === 10) line++
      if ((sign === 10 || sign === 13) && !isQuoted) [length, begunOn] = [0, line]
      else if (++length > LONGEST_ROW) throw new BadFile('row', NEVER_CLOSED, begunOn)
    }
    yield piece
  }
  if (isQuoted) throw new BadFile('row', NEVER_CLOSED, begunOn)
}

/** Bytes as the text that they are. @throws BadFile where they are none */
export async function* decoded(bytes: AsyncIterable<Uint8Array>): AsyncGenerator<string> {
  const decoder = new TextDecoder('utf-8', { fatal: true })
  try {
    for await (const piece of bytes) yield decoder.decode(piece, { stream: true })
    yield decoder.decode()
  } catch (error) {
    if (!(error instanceof TypeError)) throw error
    throw new BadFile('file', 'this is no text in UTF-8.')
  }
}
