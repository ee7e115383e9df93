/**
 * Tables as CSV, in and out. What comes in is read in pieces and with limits: the first line must name the
 * columns before anything else is looked at, and no row may be wider than it.
 */
import Papa from 'papaparse'
import { fail, ok, type Result } from '../core/result'

/** Characters that are read at a time. */
const PIECE = 200_000
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

export function writeTable(
  columns: readonly string[],
  rows: readonly (readonly (string | number)[])[],
): string {
  const data = rows.map((row) => row.map((cell) => escaped(`${cell}`)))
  return `${Papa.unparse({ fields: [...columns], data })}\r\n`
}

/** Where it goes wrong, and on which line. */
export type CsvFailure = (line: number, field: string, why: string) => Result<never>

/**
 * @param columns every one of them must be there, in any order; others are refused
 * @param most rows at most
 */
export async function readTable(
  text: string,
  columns: readonly string[],
  most: number,
  rest: () => Promise<void>,
  refuse: CsvFailure,
): Promise<Result<CsvRow[]>> {
  const given = text.replace(/^\uFEFF/, '')
  const end = /\r\n|\n|\r/.exec(given.slice(0, LONGEST_HEAD))
  const head = end ? given.slice(0, end.index) : given
  if (head.length > LONGEST_HEAD)
    return refuse(1, 'row', 'the first line is too long to be the names of the columns.')
  const delimiter = DELIMITERS.find((each) => head.split(each).length >= columns.length) ?? ','
  const names = Papa.parse<string[]>(head, { delimiter }).data[0] ?? []
  const missing = columns.find((column) => !names.includes(column))
  if (missing) return refuse(1, missing, 'this column is missing.')
  const strange = names.find((name, i) => !columns.includes(name) || names.indexOf(name) < i)
  if (strange !== undefined)
    return refuse(1, strange.slice(0, 40), 'this column is not known, or there twice.')
  return rowsOf(given, names, delimiter, most, rest, refuse)
}

function rowsOf(
  text: string,
  names: readonly string[],
  delimiter: string,
  most: number,
  rest: () => Promise<void>,
  refuse: CsvFailure,
): Promise<Result<CsvRow[]>> {
  const rows: CsvRow[] = []
  let line = 1
  let pieces = 0
  let failure: Result<never> | undefined
  const take = (cells: readonly string[]) => {
    const begun = line
    line += 1 + cells.reduce((sum, cell) => sum + (cell.match(/\r\n|\n|\r/g)?.length ?? 0), 0)
    if (begun === 1 || (cells.length === 1 && cells[0] === '')) return
    if (cells.length !== names.length)
      failure = refuse(begun, 'row', `it has ${cells.length} cells for ${names.length} columns.`)
    else if (rows.length >= most) failure = refuse(begun, 'row', `a file takes ${most} solves.`)
    else
      rows.push({
        line: begun,
        cells: new Map(cells.map((cell, i) => [names[i], unescaped(cell)])),
      })
  }
  return new Promise((resolve, reject) => {
    Papa.parse<string[]>(text, {
      delimiter,
      chunkSize: PIECE,
      chunk: ({ data, errors, meta }: Papa.ParseResult<string[]>, parser: Papa.Parser) => {
        pieces++
        for (const cells of data) {
          if (failure) break
          take(cells)
        }
        const isOpen = errors.some(({ type }) => type === 'Quotes')
        if (!failure && (isOpen || pieces * PIECE - meta.cursor > LONGEST_ROW))
          failure = refuse(line, 'row', 'a quotation mark is never closed, or a row is too long.')
        if (failure) return parser.abort()
        parser.pause()
        rest().then(() => parser.resume(), reject)
      },
      complete: () => resolve(failure ?? ok(rows)),
      error: (error: Error) => resolve(fail('bad-file', error.message)),
    })
  })
}
