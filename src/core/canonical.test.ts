import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { canonicalText } from './canonical'

/** The same value with its fields written the other way round, all the way down. */
const reversed = (value: unknown): unknown =>
  Array.isArray(value)
    ? value.map(reversed)
    : typeof value === 'object' && value !== null
      ? Object.fromEntries(
          Object.entries(value)
            .reverse()
            .map(([key, each]) => [key, reversed(each)]),
        )
      : value

describe('the canonical text', () => {
  it('is the same whatever the order of the fields, and reads back as the value', () => {
    fc.assert(
      fc.property(fc.jsonValue(), (value) => {
        const text = canonicalText(value)
        expect(canonicalText(reversed(value))).toBe(text)
        expect(JSON.parse(text)).toEqual(JSON.parse(JSON.stringify(value)))
      }),
    )
  })

  it('tells different values apart, and lists in another order too', () => {
    expect(canonicalText([1, 2])).not.toBe(canonicalText([2, 1]))
    expect(canonicalText({ a: 1 })).not.toBe(canonicalText({ a: 2 }))
    expect(canonicalText({ a: undefined, b: 1 })).toBe(canonicalText({ b: 1 }))
  })
})
