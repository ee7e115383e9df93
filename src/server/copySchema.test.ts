import { describe, expect, it } from 'vitest'
import { catalog } from '../core/catalog'
import { copySchema } from './copySchema'

const errorOf = (value: unknown): string => {
  try {
    copySchema.validateSync(value, { abortEarly: false })
    return ''
  } catch (error) {
    return (error as { errors: string[] }).errors.join(' ')
  }
}

const [definition] = catalog()
const good = {
  puzzleId: definition.id,
  name: 'Pilot cube',
  remarks: '',
  scheme: definition.colours.map((colour) => ({ ...colour })),
}

describe('a copy on the shelf', () => {
  it('may be of every puzzle in its usual colours', () => {
    for (const { id, colours } of catalog())
      expect(errorOf({ ...good, puzzleId: id, scheme: colours })).toBe('')
  })

  const withColour = (change: object) => ({
    ...good,
    scheme: good.scheme.map((colour, i) => (i === 0 ? { ...colour, ...change } : colour)),
  })

  it.each([
    ['a name', { ...good, name: '  ' }, 'name of your own'],
    ['a shorter name', { ...good, name: 'x'.repeat(81) }, '80 letters'],
    ['shorter remarks', { ...good, remarks: 'x'.repeat(2001) }, '2000 letters'],
    ['a puzzle', { ...good, puzzleId: '' }, 'Choose a puzzle'],
    ['colours', { ...good, scheme: [] }, 'scheme'],
    ['a colour name', withColour({ name: ' ' }), 'needs a name'],
    ['a shade', withColour({ shade: 'red' }), '#rrggbb'],
    ['a mark that there is', withColour({ mark: 'smile' }), 'mark'],
    ['names that differ', withColour({ name: good.scheme[1].name.toUpperCase() }), 'same name'],
  ])('needs %s', (_, value, sentence) => {
    expect(errorOf(value)).toContain(sentence)
  })

  it('is stored without blanks around its name, and without fields that are not known', () => {
    const stored = copySchema.validateSync({ ...good, name: '  Pilot  ', price: 3 })
    expect(stored.name).toBe('Pilot')
    expect(stored).not.toHaveProperty('price')
  })
})
