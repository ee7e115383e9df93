import { describe, expect, it } from 'vitest'
import { entrySchema } from './sessionSchema'

const errorOf = (value: unknown): string => {
  try {
    entrySchema.validateSync(value, { strict: true, abortEarly: false })
    return ''
  } catch (error) {
    return (error as { errors: string[] }).errors.join(' ')
  }
}

const common = { copyId: 'a', school: 'shortest', variant: {} }

describe('what is put on the bench', () => {
  it('is a scramble, colours or pieces', () => {
    expect(errorOf({ ...common, laidBy: 'scramble', scramble: 'R U' })).toBe('')
    expect(errorOf({ ...common, laidBy: 'colours', marked: { UFR: 'white' } })).toBe('')
    expect(errorOf({ ...common, laidBy: 'pieces', state: 'abc' })).toBe('')
  })

  it.each([
    ['another kind', { ...common, laidBy: 'guess' }, 'laidBy'],
    ['nothing at all', null, 'laidBy'],
    ['no copy', { ...common, copyId: '', laidBy: 'pieces', state: 'abc' }, 'copyId'],
    ['no state', { ...common, laidBy: 'pieces' }, 'state'],
    ['no colours', { ...common, laidBy: 'colours' }, 'marked'],
    ['too long a scramble', { ...common, laidBy: 'scramble', scramble: 'R'.repeat(5000) }, '4000'],
    ['a broken seed', { ...common, laidBy: 'scramble', scramble: '', seed: 0.5 }, 'seed'],
    ['a seed below nothing', { ...common, laidBy: 'scramble', scramble: '', seed: -1 }, 'seed'],
    [
      'a field of another kind',
      { ...common, laidBy: 'pieces', state: 'a', scramble: 'R' },
      'scramble',
    ],
  ])('is refused with %s, and the field is named', (_, value, field) => {
    expect(errorOf(value)).toContain(field)
  })

  it('has no more colours than a puzzle has stickers', () => {
    const marked = Object.fromEntries(Array.from({ length: 401 }, (_, i) => [`s${i}`, 'white']))
    expect(errorOf({ ...common, laidBy: 'colours', marked })).toContain('more stickers')
  })
})
