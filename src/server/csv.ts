/**
 * Tables as CSV, in and out. What comes in is read as it arrives and with limits: the first line must name the
 * columns before anything else is looked at, and no row may be wider than it.
 */
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
  let line = 1
  for await (const rows of wholeRows(rest(), delimiter, newline))
    for (const cells of rowsIn(rows, delimiter, newline)) {
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

/** The cells of whole rows; an empty text is one empty row, for which the parser has none. */
const rowsIn = (rows: string, delimiter: string, newline: '\r\n' | '\n' | '\r'): string[][] =>
  rows === '' ? [['']] : Papa.parse<string[]>(rows, { delimiter, newline }).data

/** Where in a row one is: at the beginning of a cell, in one, in quotes, or behind what may be their end. */
type At = 'begin' | 'cell' | 'quotes' | 'quote'

/**
 * The same text in pieces that end where a row ends, without that end: a row that has none is never gathered. What
 * reads the cells takes a piece at once; given row by row it would copy what is left of a piece at each.
 */
async function* wholeRows(
  text: AsyncIterable<string>,
  delimiter: string,
  newline: string,
): AsyncGenerator<string> {
  let at: At = 'begin'
  let [line, begunOn, length, begun, before] = [1, 1, 0, '', '']
  for await (const piece of text) {
    let end = 0
    for (let i = 0; i < piece.length; i++) {
      const sign = piece[i]
      const isEnd = before + sign === newline || sign === newline
      if (sign === '\n') line++
      if (at !== 'quotes' && isEnd) [at, length, begunOn, end] = ['begin', 0, line, i + 1]
      else if (++length > LONGEST_ROW) throw new BadFile('row', NEVER_CLOSED, begunOn)
      else at = after(at, sign, delimiter)
      before = sign
    }
    begun += piece
    const left = piece.length - end
    if (end > 0) yield begun.slice(0, begun.length - left - newline.length)
    if (end > 0) begun = piece.slice(end)
  }
  if (at === 'quotes') throw new BadFile('row', NEVER_CLOSED, begunOn)
  if (begun !== '') yield begun
}

function after(at: At, sign: string, delimiter: string): At {
  if (at === 'quotes') return sign === '"' ? 'quote' : 'quotes'
  if (sign === delimiter) return 'begin'
  if (sign === '"') return at === 'cell' ? 'cell' : 'quotes'
  // Between a cell and the end of its row; anything else behind a quotation mark belongs to the cell still.
  return at === 'quote' && sign !== '\r' ? 'quotes' : 'cell'
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
