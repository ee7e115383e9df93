import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '@/core/catalog'
import { must } from '@/core/result'
import { scramble, scrambledState } from '@/core/scramble/scramble'
import { start, writeState } from '@/core/state'
import { WINDOW_NAMES } from '../camera'
import { pictureAddress, readColours } from './address'
import { project } from './project'
import { pictureSvg } from './svg'

describe('a picture as a file', () => {
  it.each(CATALOG_IDS)('has every facet of both windows: %s', (id) => {
    const puzzle = must(puzzleById(id))
    const { colours } = puzzle.definition
    const state = scrambledState(puzzle, scramble(puzzle, 3))
    const facets = WINDOW_NAMES.flatMap((name) => project(puzzle, state, colours, name))
    const stickers = facets.filter(({ sticker }) => sticker).length
    const paths = (marks: boolean) =>
      pictureSvg(puzzle, state, colours, marks).match(/<path /g)?.length
    expect(paths(false)).toBe(facets.length + stickers)
    expect(paths(true)).toBe(facets.length + 2 * stickers)
  })

  it('is found by an address that has all of it', () => {
    const puzzle = must(puzzleById('cube-2'))
    const { colours } = puzzle.definition
    fc.assert(
      fc.property(fc.array(fc.nat(0xffffff), { minLength: 6, maxLength: 6 }), (shades) => {
        const scheme = colours.map((colour, i) => ({
          ...colour,
          shade: `#${shades[i].toString(16).padStart(6, '0')}`,
        }))
        const address = new URL(
          pictureAddress('cube-2', writeState(start(puzzle)), scheme, true),
          'http://localhost',
        )
        expect(must(readColours(address.searchParams.get('colours'), colours))).toEqual(scheme)
        expect(address.searchParams.get('marks')).toBe('1')
        const plain = new URL(
          pictureAddress('cube-2', undefined, undefined, false),
          'http://localhost',
        )
        expect(must(readColours(plain.searchParams.get('colours'), colours))).toEqual(colours)
        expect([...plain.searchParams.keys()]).toEqual(['by'])
      }),
    )
  })

  it('is refused where the colours are none, or not as many', () => {
    const { colours } = must(puzzleById('cube-2')).definition
    for (const bad of ['', 'ffffff', '"><script>', Array(6).fill('ffffffnothing').join('.')])
      expect(readColours(bad, colours)).toMatchObject({ ok: false, problem: { field: 'colours' } })
  })
})
