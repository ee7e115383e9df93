import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { itemsOf, pathWords, type Item, type Path, type Reading } from './items'
import { BadFile, textSource, type Source } from './source'

const WIDE = { depth: 50, values: 100_000, text: 1_000_000 }
const nothing: Reading = { opens: () => false, boundsOf: () => WIDE }

/** The same text in pieces of some bytes, cut wherever that is. */
const cut = (text: string, size: number): Source => {
  const bytes = new TextEncoder().encode(text)
  return {
    bytes: bytes.length,
    async *read() {
      for (let at = 0; at < bytes.length; at += size) yield bytes.subarray(at, at + size)
      await Promise.resolve()
    },
  }
}

async function all(source: Source, reading: Reading): Promise<Item[]> {
  const items: Item[] = []
  for await (const item of itemsOf(source.read(), reading)) items.push(item)
  return items
}

/** What the items say, put together again. */
function assembled(items: readonly Item[]): unknown {
  let root: unknown
  const at = new Map<string, unknown>()
  for (const { path, opened, value } of items) {
    const made = opened === 'list' ? [] : opened === 'object' ? {} : value
    at.set(JSON.stringify(path), made)
    if (path.length === 0) root = made
    else {
      const holder = at.get(JSON.stringify(path.slice(0, -1))) as Record<string | number, unknown>
      holder[path.at(-1) as string] = made
    }
  }
  return root
}

const plainJson = fc
  .jsonValue({ maxDepth: 5, stringUnit: fc.constantFrom('a', 'é', '灯', '🙂', '\n', '"', '\\') })
  .filter((value) => !JSON.stringify(value).includes('__proto__'))

describe('a JSON file read as it arrives', () => {
  it('says what JSON.parse says, wherever it is cut and whatever is opened', async () => {
    await fc.assert(
      fc.asyncProperty(
        plainJson,
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 0, max: 4 }),
        fc.boolean(),
        async (value, size, depth, isIndented) => {
          const text = JSON.stringify(value, null, isIndented ? 2 : 0)
          const reading = { opens: (path: Path) => path.length < depth, boundsOf: () => WIDE }
          const items = await all(cut(text, size), reading)
          expect(JSON.stringify(assembled(items))).toBe(JSON.stringify(JSON.parse(text)))
        },
      ),
      { numRuns: 400 },
    )
  })

  it('refuses what JSON.parse refuses, and says nothing that is not there', async () => {
    let refused = 0
    await fc.assert(
      fc.asyncProperty(
        plainJson,
        fc.nat(),
        fc.constantFrom('', '}', ']', ',', ':', '"', '1', 'x', '{', '['),
        async (value, where, sign) => {
          const whole = JSON.stringify(value)
          const at = where % (whole.length + 1)
          const text = whole.slice(0, at) + sign + whole.slice(at + 1)
          const isJson = (() => {
            try {
              JSON.parse(text)
              return true
            } catch {
              return false
            }
          })()
          const read = await all(textSource(text), nothing).then(
            () => true,
            (error: unknown) => !(error instanceof BadFile),
          )
          // A name that is there twice is refused only where it is opened, so what is JSON is read.
          expect(read).toBe(isJson)
          if (!read) refused++
        },
      ),
      { numRuns: 600 },
    )
    expect(refused).toBeGreaterThan(100)
  })

  it('knows on which line a member begins, and names what is too much', async () => {
    const text = '{"a":[\n{"n":1},\n\n{"n":[[[2]]]}],\n"b":7}'
    const reading = { opens: (path: Path) => path.length < 2, boundsOf: () => WIDE }
    for (const size of [1, 7, 1000]) {
      const items = await all(cut(text, size), reading)
      expect(items.map(({ path, line }) => [pathWords(path), line])).toEqual([
        ['', 1],
        ['a', 1],
        ['a[0]', 2],
        ['a[1]', 4],
        ['b', 5],
      ])
      const bound = { ...reading, boundsOf: () => ({ ...WIDE, depth: 3 }) }
      await expect(all(cut(text, size), bound)).rejects.toMatchObject({ field: 'a[1]', line: 4 })
    }
  })

  it('takes no more memory for a hundred million brackets than for a hundred, nor for a text without end', async () => {
    const endless = (sign: string, most: number): Source => ({
      bytes: most,
      async *read() {
        const piece = new TextEncoder().encode(sign.repeat(100_000))
        if (sign !== '[') yield new TextEncoder().encode('"')
        for (let n = 0; n < most; n += piece.length) yield piece
        await Promise.resolve()
      },
    })
    const few = { ...nothing, boundsOf: () => ({ ...WIDE, depth: 16 }) }
    const before = process.memoryUsage().rss
    await expect(all(endless('[', 100_000_000), few)).rejects.toThrow(/deep/)
    await expect(all(endless('x', 100_000_000), few)).rejects.toThrow(/no end/)
    expect(process.memoryUsage().rss - before).toBeLessThan(200_000_000)
  })
})
