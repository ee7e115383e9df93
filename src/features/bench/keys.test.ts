import { describe, expect, it } from 'vitest'
import { BENCH_KEYS, readPress } from './keys'

const press = (key: string, shiftKey = false) => readPress({ key, shiftKey })

describe('keys of the bench', () => {
  it('turn by letters, with Shift the other way, capitals or not', () => {
    expect(press('r')).toEqual({ turn: 'R' })
    expect(press('R', true)).toEqual({ turn: "R'" })
    expect(press('X', true)).toEqual({ turn: "x'" })
    expect(press('m')).toEqual({ turn: 'M' })
  })

  it('act by the key that is shown', () => {
    expect(press(' ')).toEqual({ act: 'next' })
    expect(press(' ', true)).toEqual({ act: 'back' })
    expect(press('Enter')).toEqual({ act: 'step' })
    expect(press('H')).toEqual({ act: 'hint' })
    expect(press('?', true)).toEqual({ act: 'keys' })
  })

  it('never mean two things: no acting key is a letter that turns', () => {
    const acting = BENCH_KEYS.map(({ key }) => key).filter((key) => /^[a-z]$/.test(key))
    for (const key of acting) expect('udfbrlmesxyz').not.toContain(key)
    expect(new Set(BENCH_KEYS.map(({ key }) => key)).size).toBe(BENCH_KEYS.length)
  })

  it('leave other keys alone', () => {
    for (const key of ['Tab', 'q', '1', 'F5', 'ArrowLeft']) expect(press(key)).toBeUndefined()
  })
})
