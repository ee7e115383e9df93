import { describe, expect, it } from 'vitest'
import { commandIn } from './speech'

describe('what is heard', () => {
  it.each([
    ['next', 'next'],
    ['Next please', 'next'],
    ['no, go back', 'back'],
    ['say it again', 'again'],
    ['next next', 'next'],
    ['back … no, next', 'next'],
    ['nextdoor', undefined],
    ['backwards', undefined],
    ['', undefined],
  ])('%s is %s', (heard, command) => {
    expect(commandIn(heard)).toBe(command)
  })
})
