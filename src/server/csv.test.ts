import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { decoded, readTable, writeHead, writeRows, type CsvRow } from './csv'
import { BadFile, textSource } from './files/source'

const COLUMNS = ['name', 'remark', 'note']
/** @param size of the pieces in which it comes; as files come if none is given */
const read = async (text: string, size?: number): Promise<CsvRow[]> => {
  const rows: CsvRow[] = []
  const pieces = size === undefined ? decoded(textSource(text).read()) : inPieces(text, size)
  for await (const row of readTable(pieces, COLUMNS)) rows.push(row)
  return rows
}
async function* inPieces(text: string, size: number): AsyncGenerator<string> {
  for (let at = 0; at < text.length; at += size)
    yield await Promise.resolve(text.slice(at, at + size))
}
const sentence = (text: string) =>
  read(text).then(
    (rows) => `${rows.length} rows`,
    (error: unknown) => {
      if (!(error instanceof BadFile)) throw error
      return `${error.line}, ${error.field}: ${error.sentence}`
    },
  )
const writeTable = (columns: readonly string[], rows: readonly (readonly string[])[]) =>
  writeHead(columns) + writeRows(rows)

/** Cells that spreadsheets and parsers stumble over. */
const cell = fc
  .array(
    fc.constantFrom(
      '=',
      '+',
      '-',
      '@',
      "'",
      '"',
      ',',
      ';',
      '\t',
      '\n',
      '\r\n',
      '\r',
      'a',
      ' ',
      '1',
      'ü',
    ),
    {
      maxLength: 6,
    },
  )
  .map((signs) => signs.join(''))

describe('a table', () => {
  it('comes back as it went out, whatever stands in its cells', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.constantFrom('R', 'U'), cell, cell), { maxLength: 5 }),
        fc.integer({ min: 1, max: 9 }),
        async (rows, size) => {
          const text = writeTable(COLUMNS, rows)
          const table = await read(text)
          expect(table.map(({ cells }) => [...cells.values()])).toEqual(rows)
          // However it is cut into pieces on its way.
          expect(await read(text, size)).toEqual(table)
        },
      ),
      { numRuns: 300 },
    )
  })

  it('has no cell that a spreadsheet takes for a formula', () => {
    fc.assert(
      fc.property(cell, (text) => {
        const written = writeTable(['name'], [[text]])
          .split('\r\n')
          .slice(1)
          .join('\r\n')
        expect(written).not.toMatch(/^"?[=+\-@\t\r\n]./)
      }),
    )
    expect(writeTable(['name'], [['=1+1\n']])).toContain("'=1+1")
  })

  it('is refused by its first line before anything else is looked at', async () => {
    expect(await sentence(','.repeat(19_000_000))).toMatch(/1, row: the first line is too long/)
    expect(await sentence('name,remark\nx,y')).toBe('1, note: this column is missing.')
    expect(await sentence('name,remark,note,mood\n')).toMatch(/1, mood: .*not known/)
    expect(await sentence('name,remark,note,note\n')).toMatch(/there twice/)
  })

  it('is refused at the first row that is too wide, too long, or has no end', async () => {
    const head = 'name,remark,note\n'
    expect(await sentence(`${head}a,b,c\n\n${','.repeat(90_000)}\n`)).toMatch(
      /^4, row: it has 90001/,
    )
    expect(await sentence(`${head}"${'a,\n'.repeat(500_000)}`)).toMatch(/never closed/)
    expect(await sentence(`${head}"a\nb",x,y\na,b\n`)).toMatch(/^4, row: it has 2 cells/)
    expect(await sentence(`${head}${'a,b,c\n'.repeat(90_000)}`)).toBe('90000 rows')
    // A quotation mark within a cell opens nothing.
    const rows = await read(`${head}a"b,c,d\n\n"e\nf",g,"h ""i"""\n`, 1)
    expect(rows.map(({ line, cells }) => [line, ...cells.values()])).toEqual([
      [2, 'a"b', 'c', 'd'],
      [4, 'e\nf', 'g', 'h "i"'],
    ])
  })

  it('is read with the divider and the line ends that spreadsheets of other countries write', async () => {
    expect(await sentence('name;remark;note\r\na;b,c;d\r\n')).toBe('1 rows')
    expect(await sentence('note\tname\tremark\na\tb\tc')).toBe('1 rows')
  })
})
