import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ACTS, DEFAULT_KEYS, keyOf, keyProblem, readPress, showKey, type Keys } from './keys'
import { DEFAULT_SETTINGS, settingsSchema } from './settings'

const press = (key: string, shiftKey = false, keys?: Keys) => readPress({ key, shiftKey }, keys)

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
    expect([' ', 'Shift+ ', 'h', 'Enter'].map(showKey)).toEqual([
      'Space',
      'Shift+Space',
      'H',
      'Enter',
    ])
  })

  it('take a digit for the layer of the letter that follows', () => {
    expect(press('2')).toEqual({ layer: 2 })
    expect(press('2', false, { ...DEFAULT_KEYS, hint: '2' })).toEqual({ act: 'hint' })
  })

  it('leave other keys alone', () => {
    for (const key of ['Tab', 'q', '8', 'F5', 'ArrowLeft']) expect(press(key)).toBeUndefined()
  })

  it('stay one key an act, however they are changed', () => {
    const change = fc.tuple(
      fc.constantFrom(...ACTS.map(({ id }) => id)),
      fc.constantFrom(...'abcghknopqtvw[]0123?.,'.split(''), ' ', 'Shift+ ', 'Enter', 'Tab', 'F1'),
    )
    fc.assert(
      fc.property(fc.array(change, { maxLength: 12 }), (changes) => {
        let keys = DEFAULT_KEYS
        for (const [id, key] of changes)
          if (keyProblem(keys, id, key) === undefined) keys = { ...keys, [id]: key }
        expect(new Set(Object.values(keys)).size).toBe(ACTS.length)
        for (const { id } of ACTS) {
          const shiftKey = keys[id].startsWith('Shift+')
          expect(press(shiftKey ? ' ' : keys[id], shiftKey, keys)).toEqual({ act: id })
        }
        expect(settingsSchema.isValidSync({ ...DEFAULT_SETTINGS, keys })).toBe(true)
      }),
    )
  })

  it('are refused with the reason when they would mean two things', () => {
    expect(keyProblem(DEFAULT_KEYS, 'hint', 'r')).toBe('R turns the puzzle already.')
    expect(keyProblem(DEFAULT_KEYS, 'hint', 'o')).toMatch(/^O is taken/)
    expect(keyProblem(DEFAULT_KEYS, 'hint', 'Tab')).toMatch(/cannot be used/)
    expect(keyProblem(DEFAULT_KEYS, 'hint', keyOf({ key: 'J', shiftKey: true }))).toBeUndefined()
    const twice = { ...DEFAULT_KEYS, hint: 'o' }
    expect(() => settingsSchema.validateSync({ ...DEFAULT_SETTINGS, keys: twice })).toThrow(
      'O is taken',
    )
    expect(() => settingsSchema.validateSync({ ...DEFAULT_SETTINGS, keys: {} })).toThrow('keys')
  })
})
