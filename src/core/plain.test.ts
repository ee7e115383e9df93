import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { BOUNDS, plain, plainProblem } from './plain'

const deep = (depth: number): unknown => {
  let value: unknown = 1
  for (let i = 0; i < depth; i++) value = [value]
  return value
}

describe('plain values', () => {
  it('are what JSON can say, if it is neither too deep nor too much', () => {
    fc.assert(
      fc.property(
        fc.jsonValue({ maxDepth: 6, stringUnit: fc.constantFrom('a', 'é', '灯', '🙂', ' ', '\n') }),
        (value) => {
          expect(plainProblem(value)).toBeUndefined()
        },
      ),
    )
  })

  it('have no field that an object has by birth, and inherit none', () => {
    const names = Object.getOwnPropertyNames(Object.prototype)
    for (const name of names) {
      const value: unknown = JSON.parse(`{"a":[{"${name}":1}]}`)
      expect(plainProblem(value)?.field).toBe(`a[0].${name}`)
    }
    fc.assert(
      fc.property(fc.jsonValue({ maxDepth: 4, stringUnit: fc.constantFrom('a', 'b') }), (value) => {
        const read = plain(value)
        expect(read).toEqual({ ok: true, value })
        const open: unknown[] = read.ok ? [read.value] : []
        for (let each = open.pop(); open.length > 0 || each !== undefined; each = open.pop()) {
          if (typeof each !== 'object' || each === null) continue
          // Only how it is written, where a text is asked for.
          if (!Array.isArray(each)) {
            expect(names.filter((name) => name in each)).toEqual(['toString'])
            expect(String(each)).toBe('[object Object]')
          }
          open.push(...(Object.values(each) as unknown[]))
        }
      }),
    )
  })

  it('are told with the path of what is wrong', () => {
    const cases: [unknown, string][] = [
      [{ a: [1, { b: 'x\u0000' }] }, 'a[1].b'],
      [{ name: '\ud800' }, 'name'],
      [{ name: '\udc00 after' }, 'name'],
      [JSON.parse('{"a":{"__proto__":{"b":1}}}'), 'a.__proto__'],
      [{ a: { constructor: 1 } }, 'a.constructor'],
      [[Number.NaN], '[0]'],
      [{ a: [1, undefined] }, 'a[1]'],
      [{ when: new Date() }, 'when'],
      [{ n: 1n }, 'n'],
      [{ f: () => 1 }, 'f'],
      [{ m: new Map() }, 'm'],
      ['x'.repeat(BOUNDS.text + 1), ''],
    ]
    for (const [value, field] of cases) expect(plainProblem(value)?.field).toBe(field)
  })

  it('end somewhere: five thousand deep, a million in a list, a name without end', () => {
    expect(plainProblem(deep(BOUNDS.depth - 1))).toBeUndefined()
    expect(plainProblem(deep(5000))?.sentence).toMatch(/deep/)
    expect(plainProblem(Array.from({ length: 1_000_000 }, () => []))?.sentence).toMatch(
      /2000 entries/,
    )
    const wide = Array.from({ length: 500 }, () => Array.from({ length: 500 }, () => 1))
    expect(plainProblem(wide)?.sentence).toMatch(/200000 values/)
    expect(plainProblem({ a: [1, 2, 3] }, { ...BOUNDS, list: 2 })?.field).toBe('a')
    expect(plainProblem({ ['k'.repeat(500)]: 1 })?.sentence).toMatch(/too long/)
  })
})
