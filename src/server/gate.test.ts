import { afterEach, describe, expect, it, vi } from 'vitest'
import { foreignProblem } from './gate'

const asked = (method: string, headers: Record<string, string>) =>
  foreignProblem(method, new Headers(headers)) === undefined ? 'in' : 'out'

afterEach(() => vi.unstubAllEnvs())

describe('the gate', () => {
  it.each([
    ['GET', { host: 'localhost:3600' }, 'in'],
    ['GET', { host: '127.0.0.1:3600', 'sec-fetch-site': 'same-origin' }, 'in'],
    ['GET', { host: '[::1]:3600', 'sec-fetch-site': 'none' }, 'in'],
    ['POST', { host: 'LOCALHOST:3600', origin: 'http://localhost:3600' }, 'in'],
    // A program, not a page.
    ['POST', { host: 'localhost:3600' }, 'in'],
    // A link on another site may lead here.
    [
      'GET',
      { host: 'localhost:3600', 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'navigate' },
      'in',
    ],
    [
      'GET',
      { host: 'localhost:3600', 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'no-cors' },
      'out',
    ],
    // Another port of this machine is another site.
    [
      'GET',
      { host: 'localhost:3600', 'sec-fetch-site': 'same-site', 'sec-fetch-mode': 'cors' },
      'out',
    ],
    ['POST', { host: 'localhost:3600', origin: 'http://localhost:3601' }, 'out'],
    [
      'POST',
      { host: 'localhost:3600', 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'navigate' },
      'out',
    ],
    ['POST', { host: 'localhost:3600', origin: 'null' }, 'out'],
    ['POST', { host: 'localhost:3600', origin: 'http://harbour.example' }, 'out'],
    ['GET', { host: 'rebound.example:3600' }, 'out'],
    ['GET', { host: 'localhost.harbour.example' }, 'out'],
    ['POST', { host: 'rebound.example', origin: 'http://rebound.example' }, 'out'],
    ['GET', {}, 'out'],
  ])('%s with %o: %s', (method, headers, where) => {
    expect(asked(method, headers)).toBe(where)
  })

  it('lets in the names that it is given', () => {
    vi.stubEnv('MERRY_HOSTS', 'lantern.library.test, other')
    expect(asked('GET', { host: 'lantern.library.test' })).toBe('in')
    expect(asked('GET', { host: 'library.test' })).toBe('out')
    vi.stubEnv('MERRY_HOSTS', '')
    expect(asked('GET', { host: '' })).toBe('out')
  })
})
