import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { grouped, magnitudeOf } from './magnitude'

describe('a number that a person can feel', () => {
  it('is rounded in words, written out, and compared with time', () => {
    expect(magnitudeOf(3_674_160n)).toEqual({
      rounded: '3.67 million',
      exact: '3,674,160',
      felt: 'Seen one a second, all of them take 42 days.',
    })
    const large = magnitudeOf(43_252_003_274_489_856_000n)
    expect(large.rounded).toBe('43.3 million million million')
    expect(large.felt).toMatch(/thousand million a second, all of them take 1,370 years/)
    expect(magnitudeOf(10n ** 45n * 7n).rounded).toBe('7.00 × 10⁴⁵, a number of 46 digits')
    expect(magnitudeOf(10n ** 45n).felt).toMatch(/times the age of the universe/)
    expect(magnitudeOf(1n).felt).toMatch(/a second\.$/)
  })

  it('keeps every digit, and is rounded to within a hundredth', () => {
    fc.assert(
      fc.property(fc.bigInt({ min: 1n, max: 10n ** 60n }), (n) => {
        const { exact, rounded, felt } = magnitudeOf(n)
        expect(BigInt(exact.replace(/,/g, ''))).toBe(n)
        expect(felt).toMatch(/^(Seen one|Even at)/)
        const [, front, power] = /^([\d.,]+)(?: × 10([⁰¹²³⁴⁵⁶⁷⁸⁹]+))?/.exec(rounded) ?? []
        const tens = [...(power ?? '')].map((digit) => '⁰¹²³⁴⁵⁶⁷⁸⁹'.indexOf(digit)).join('')
        const millions = rounded.match(/million/g)?.length ?? 0
        const value = Number(front.replace(/,/g, '')) * 10 ** (Number(tens) + 6 * millions)
        expect(Math.abs(value / Number(n) - 1)).toBeLessThan(0.01)
      }),
    )
    expect(grouped(1234567n)).toBe('1,234,567')
  })
})
