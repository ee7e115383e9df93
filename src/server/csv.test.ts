import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { decoded, readTable, writeHead, writeRows, type CsvRow } from './csv'
import { BadFile, textSource } from './files/source'

const COLUMNS = ['name', 'remark', 'note']
const read = async (text: string): Promise<CsvRow[]> => {
  const rows: CsvRow[] = []
  for await (const row of readTable(decoded(textSource(text).read()), COLUMNS)) rows.push(row)
  return rows
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
        async (rows) => {
          const table = await read(writeTable(COLUMNS, rows))
          expect(table.map(({ cells }) => [...cells.values()])).toEqual(rows)
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
  })

  it('is read with the divider and the line ends that spreadsheets of other countries write', async () => {
    expect(await sentence('name;remark;note\r\na;b,c;d\r\n')).toBe('1 rows')
    expect(await sentence('note\tname\tremark\na\tb\tc')).toBe('1 rows')
  })
})
