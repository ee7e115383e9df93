import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ownAddress } from './address'

const PAGE = 'http://localhost:3600/solvers'

/** What addresses are made of, and what has led browsers elsewhere. */
const PARTS = ['/', '//', '\\', '.', '..', '\t', '\n', '\r', ' ', '@', ':', '?', '#', '%09', '%2f']
const WORDS = [
  'other.site',
  'shelf',
  'http:',
  'https:',
  'javascript:',
  'bench',
  'localhost',
  '3601',
]

describe('an address to go on to', () => {
  it('never leads to another site, whatever it is made of', () => {
    let kept = 0
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...PARTS, ...WORDS), { maxLength: 8 }),
        fc.boolean(),
        (parts, isRooted) => {
          const own = ownAddress(`${isRooted ? '/' : ''}${parts.join('')}`)
          if (own === undefined) return
          kept++
          expect(new URL(own, PAGE).origin).toBe(new URL(PAGE).origin)
        },
      ),
      { numRuns: 3000 },
    )
    expect(kept).toBeGreaterThan(200)
  })

  it('is kept as it is where it is one of ours', () => {
    for (const address of ['/shelf', '/bench/7?all=1', '/log?page=2#end'])
      expect(ownAddress(address)).toBe(address)
    for (const address of ['//other.site', '/\t/other.site', '/\n/other.site', '/.//other.site'])
      expect(ownAddress(address)).toBeUndefined()
  })
})
