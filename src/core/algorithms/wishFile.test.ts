import { describe, expect, it } from 'vitest'
import { must } from '../result'
import { cube3 } from '../testing'
import { completed, readWish, writeWish } from './wish'
import { readWishFile } from './wishFile'

const at = (id: string) => cube3.pieces.findIndex((piece) => piece.id === id)
const refused = (input: unknown) => {
  const read = readWishFile(cube3, input)
  return read.ok ? '' : `${read.problem.field}: ${read.problem.sentence}`
}

describe('a wish as a file', () => {
  it('says where pieces go, in which of the ways they lie there, and what the rest does', () => {
    const goes = [
      { piece: 'UF', to: 'UB', way: 2 },
      { piece: 'UB', to: 'DF' },
    ]
    const wish = must(readWishFile(cube3, { goes, free: ['UL'], rest: 'free' }))
    const placeOf = (id: string) => cube3.place[24 * at(id) + (wish.goes.get(at(id)) ?? -1)]
    expect(placeOf('UF')).toBe(at('UB'))
    expect(placeOf('UB')).toBe(at('DF'))
    expect([...wish.free]).toEqual([at('UL')])
    expect(must(readWish(cube3, writeWish(cube3, wish)))).toEqual(wish)
    expect(must(completed(cube3, wish)).driven).toEqual([at('DF')])
  })

  it('of a piece in its own place turns it there', () => {
    const wish = must(readWishFile(cube3, { goes: [{ piece: 'UF', to: 'UF' }] }))
    expect(wish.goes.get(at('UF'))).not.toBe(0)
  })

  it('is refused with the field that is wrong', () => {
    expect(refused({ goes: [{ piece: 'UF', to: 'UFR' }] })).toMatch(
      /^goes\[0\]\.to: .*no turns take/,
    )
    expect(refused({ goes: [{ piece: 'XY', to: 'UF' }] })).toMatch(/^goes\[0\]\.piece/)
    expect(refused({ goes: [{ piece: 'UF', to: 'UB', way: 3 }] })).toMatch(/in 2 ways only/)
    expect(refused({ goes: [{ piece: 'UF' }] })).toMatch(/^goes\[0\]\.to/)
    expect(
      refused({
        goes: [
          { piece: 'UF', to: 'UB' },
          { piece: 'UF', to: 'UL' },
        ],
      }),
    ).toMatch(/a second time/)
    expect(refused({ goes: [{ piece: 'UF', to: 'UB' }], free: ['UF'] })).toMatch(/^free\[0\]/)
    expect(refused({ rest: 'maybe' })).toMatch(/^rest/)
    expect(refused({ more: 1 })).toMatch(/not known/)
    expect(refused(7)).not.toBe('')
  })
})
