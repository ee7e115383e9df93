import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { DEFAULT_COLOURS } from '@/core/puzzle/colours'
import { faded } from './faded'

describe('faded colours', () => {
  it('keep their order from dark to light, and lie nearer to grey', () => {
    const light = (shade: string) => {
      const [r, g, b] = [1, 3, 5].map((at) => parseInt(shade.slice(at, at + 2), 16))
      return { light: 0.3 * r + 0.59 * g + 0.11 * b, spread: Math.max(r, g, b) - Math.min(r, g, b) }
    }
    const hex = fc
      .integer({ min: 0, max: 0xffffff })
      .map((n) => `#${n.toString(16).padStart(6, '0')}`)
    fc.assert(
      fc.property(hex, (shade) => {
        const [{ shade: pale }] = faded([{ ...DEFAULT_COLOURS[0], shade }])
        expect(pale).toMatch(/^#[0-9a-f]{6}$/)
        expect(Math.abs(light(pale).light - light(shade).light)).toBeLessThanOrEqual(1)
        expect(light(pale).spread).toBeLessThanOrEqual(0.22 * light(shade).spread + 1)
      }),
    )
  })
})
