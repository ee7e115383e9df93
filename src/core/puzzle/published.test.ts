/** What `docs/` publishes about the puzzle file, against the program. */
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import Ajv from 'ajv'
import { describe, expect, it } from 'vitest'
import { compile } from './compile'
import { readDefinition } from './readDefinition'
import { must } from '../result'

const schema = JSON.parse(readFileSync('docs/puzzle-file.schema.json', 'utf8')) as object
const isInForm = new Ajv({ allowUnionTypes: true }).compile(schema)

const files = ['boxes', 'capped', 'solids', 'others'].flatMap((folder) =>
  readdirSync(join('src/core/catalog', folder)).map((name) =>
    join('src/core/catalog', folder, name),
  ),
)
const examples = [
  ...readFileSync('docs/puzzle-file.md', 'utf8').matchAll(/```json\n([\s\S]*?)```/g),
].map(([, text]) => text)

describe('the published schema', () => {
  it.each(files)('accepts %s', (file) => {
    expect(isInForm(JSON.parse(readFileSync(file, 'utf8'))), JSON.stringify(isInForm.errors)).toBe(
      true,
    )
  })

  it('has examples that are puzzles', () => {
    expect(examples.length).toBeGreaterThan(2)
    for (const text of examples) {
      const file: unknown = JSON.parse(text)
      expect(isInForm(file), JSON.stringify(isInForm.errors)).toBe(true)
      expect(compile(must(readDefinition(file))).pieces.length).toBeGreaterThan(1)
    }
  })

  it.each([
    ['an unknown field', { size: 3 }],
    ['another version', { schema: 2 }],
    ['an id with capitals', { id: 'Box' }],
    ['a mechanism of no kind', { mechanism: { kind: 'gears' } }],
    ['a side of eight', { mechanism: { kind: 'box', size: [3, 8, 3] } }],
    ['a cap that is no face', { mechanism: { kind: 'capped', caps: ['top'] } }],
    ['a shade that is none', { colours: [{ id: 'a', name: 'a', shade: 'red', mark: 'dot' }] }],
    ['a mark that is none', { colours: [{ id: 'a', name: 'a', shade: '#ff0000', mark: 'x' }] }],
    ['three half-spaces', { solid: { halfSpaces: [1, 2, 3].map(() => ({})) } }],
  ])('and the program refuse %s alike', (_, change) => {
    const file = {
      schema: 1,
      id: 'box',
      name: 'box',
      mechanism: { kind: 'box', size: [2, 2, 2] },
      ...change,
    }
    expect(isInForm(file)).toBe(false)
    expect(readDefinition(file).ok).toBe(false)
  })
})
