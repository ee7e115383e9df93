import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { moment } from './moment'

describe('a moment', () => {
  it('is read to the millisecond, however many zeros are left out', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 4_000_000_000_000 }), fc.boolean(), (ms, isShort) => {
        const whole = new Date(ms).toISOString()
        const text = isShort ? whole.replace(/\.?0*Z$/, '+00:00') : whole
        expect(moment().cast(text)?.getTime()).toBe(ms)
      }),
    )
  })

  it.each(['yesterday', '2026-13-40', ''])('is refused where it is none: %j', async (text) => {
    await expect(moment().required().validate(text)).rejects.toThrow()
  })
})
