import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { compile, NO_PLACE, type Puzzle } from '../puzzle/compile'
import { must } from '../result'
import { blockOf, start, turnFreely, type State } from '../state'
import { anyGlued, glued, turnsIn } from '../testing'
import {
  blockedNow,
  coloursOf,
  factsOf,
  fillerOf,
  kindsIn,
  slotName,
  turnedInPlace,
} from './anatomy'
import { carriedBy, fitOf, hasShapes } from './fit'
import { frameOf } from './frame'
import { kinOf, kinPieces } from './kin'
import { keyWords, layersOf, turnMeant } from './layers'
import { lookAlikesOf } from './lookAlikes'
import { reachOf } from './placements'

const shipped = (id: string) => must(puzzleById(id))
const pieceOf = (puzzle: Puzzle, id: string) => puzzle.pieces.findIndex((piece) => piece.id === id)
const anyShipped = fc.constantFrom(...CATALOG_IDS.map(shipped))

/** Turns of layers against the core made one after the other, blocked ones left out. */
function walk(puzzle: Puzzle, picks: readonly number[]): State {
  const { turns } = frameOf(puzzle)
  return picks.reduce((state, pick) => {
    const turn = turns[pick % turns.length]
    if (blockOf(puzzle, state, turn)) return state
    return turnFreely(puzzle, state, turn, new Uint8Array(state.length))
  }, start(puzzle))
}

const picks = fc.array(fc.nat(10_000), { maxLength: 30 })

describe('kinds', () => {
  it.each(CATALOG_IDS)('of %s hold every piece once', (id) => {
    const puzzle = shipped(id)
    const all = kindsIn(puzzle).flatMap(({ pieces }) => pieces)
    expect([...all].sort((a, b) => a - b)).toEqual(puzzle.pieces.map((_, p) => p))
  })
})

describe('where a piece can go', () => {
  it('holds wherever turns take it', () => {
    fc.assert(
      fc.property(anyShipped, picks, (puzzle, made) => {
        const state = walk(puzzle, made)
        state.forEach((r, p) => {
          expect(factsOf(puzzle, p).slots).toContain(puzzle.slot[24 * p + r])
        })
      }),
      { numRuns: 60 },
    )
  })

  it('is the partner alone under a layer that only half-turns', () => {
    const puzzle = shipped('box-3x3x2')
    const { partners } = factsOf(puzzle, pieceOf(puzzle, 'UFR'))
    for (const { turn, slot } of partners) {
      const made = must(puzzleById('box-3x3x2')).turnByName.get(turn)
      if (!made) throw new Error(`${turn} is no turn`)
      const once = turnFreely(puzzle, start(puzzle), made, start(puzzle))
      expect(puzzle.slot[24 * pieceOf(puzzle, 'UFR') + once[pieceOf(puzzle, 'UFR')]]).toBe(slot)
      const twice = turnFreely(puzzle, once, made, start(puzzle))
      expect(Array.from(twice)).toEqual(Array.from(start(puzzle)))
    }
    expect(partners.length).toBeGreaterThan(1)
  })

  it('has a name for every slot, homes and others', () => {
    const tower = shipped('shift-3x3x5')
    const names = Array.from({ length: tower.slotCount }, (_, slot) => slotName(tower, slot))
    expect(new Set(names).size).toBe(names.length)
    names.forEach((_, slot) => {
      const { piece, rotation } = fillerOf(tower, slot)
      expect(tower.slot[24 * piece + rotation]).toBe(slot)
    })
  })

  it('counts colours, one name each', () => {
    const twin = shipped('twin-3')
    const shared = pieceOf(twin, 'shared')
    expect(coloursOf(twin, twin.definition.colours, shared)).toMatch(
      /blue and green|green and blue/,
    )
  })
})

describe('look-alikes', () => {
  it.each(CATALOG_IDS)('of %s agree with comparing every outline', (id) => {
    const puzzle = shipped(id)
    const { classes } = lookAlikesOf(puzzle)
    const reach = reachOf(puzzle)
    const outline = (p: number, r: number) => puzzle.look[24 * p + r]
    puzzle.pieces.forEach((_, p) =>
      puzzle.pieces.forEach((__, q) => {
        if (p === q) return
        const replaces = reach[p].some((r) => outline(p, r) === outline(q, 0))
        const isAlike = classes.some((each) => each.includes(p) && each.includes(q))
        expect(replaces).toBe(isAlike)
      }),
    )
  })
})

describe('fit', () => {
  it('is home for every piece of the finished puzzle, and shape is never worse than colour', () => {
    fc.assert(
      fc.property(anyShipped, picks, (puzzle, made) => {
        puzzle.pieces.forEach((_, p) => expect(fitOf(puzzle, p, 0)).toBe('home'))
        const state = walk(puzzle, made)
        state.forEach((r, p) => {
          const home = puzzle.slot[24 * p + r]
          const fit = fitOf(puzzle, p, r)
          if (home >= puzzle.pieces.length) expect(fit).toBe('out')
          else expect(fit === 'home').toBe(puzzle.look[24 * p + r] === puzzle.look[24 * home])
        })
      }),
      { numRuns: 40 },
    )
  })

  it('matters on mods and on puzzles that change shape only', () => {
    const shaped = CATALOG_IDS.filter((id) => hasShapes(shipped(id), reachOf(shipped(id))))
    for (const id of ['cube-3', 'cube-4', 'box-3x3x5', 'twin-3', 'tetra-3', 'circle-3'])
      expect(shaped).not.toContain(id)
    for (const id of ['tilt-3', 'prism-6', 'bipyramid-6', 'shift-3x3x5', 'plus-3x3x3'])
      expect(shaped).toContain(id)
  })

  it('is asked of what a turn carries now', () => {
    const circles = shipped('circle-3')
    const turn = circles.turnByName.get('R')
    if (!turn) throw new Error('R is no turn')
    const carried = carriedBy(circles, start(circles), turn).map((p) => circles.pieces[p].id)
    // Right is free: its own circle stays, the neighbours' bits in its layer go along.
    expect(carried).toContain('UFR')
    expect(carried).toContain('UFR-U')
    expect(carried).not.toContain('UFR-R')
    expect(carried).not.toContain('R')
  })
})

describe('turns in place', () => {
  it('are told with their sense, and whether they show', () => {
    const tilt = shipped('tilt-3')
    const cube = shipped('cube-3')
    for (const [puzzle, isSeen] of [
      [tilt, true],
      [cube, false],
    ] as const) {
      const state = ['R', "L'"].reduce((now, name) => {
        const turn = puzzle.turnByName.get(name)
        if (!turn) throw new Error(`${name} is no turn`)
        return turnFreely(puzzle, now, turn, now)
      }, start(puzzle))
      const told = turnedInPlace(puzzle, state).map(({ piece, sense, isSeen: seen }) => [
        puzzle.pieces[piece].id,
        sense,
        seen,
      ])
      expect(told).toContainEqual(['R', { degrees: 90, isClockwise: true }, isSeen])
      expect(told).toContainEqual(['L', { degrees: 90, isClockwise: false }, isSeen])
    }
  })
})

describe('blocked turns', () => {
  it('are those that the state does not allow, one a layer', () => {
    const tower = shipped('shift-3x3x5')
    expect(blockedNow(tower, start(tower))).toEqual([])
    const turn = tower.turnByName.get('R')
    if (!turn) throw new Error('R is no turn')
    const state = turnFreely(tower, start(tower), turn, start(tower))
    expect(blockedNow(tower, state).map((index) => tower.turns[index].name)).toEqual(['1U', '1D'])
  })

  it('names every layer that a block keeps from turning once', () => {
    const names = (puzzle: Puzzle) =>
      blockedNow(puzzle, start(puzzle)).map((index) => puzzle.turns[index].name)
    // A bar across the two upper layers, of four.
    expect(
      names(
        glued(
          [3, 4, 3],
          [
            [1, 0.5, 0],
            [1, 1.5, 0],
          ],
        ),
      ),
    ).toEqual(['U', '2U'])
    fc.assert(
      fc.property(anyGlued, (puzzle) => {
        // Told from either side it carries and cuts the same.
        const carried = blockedNow(puzzle, start(puzzle)).map((index) =>
          puzzle.carry[puzzle.turns[index].grip].join(''),
        )
        expect(new Set(carried).size).toBe(carried.length)
        const isBlocked = puzzle.turns.some(
          (turn) => !turn.whole && blockOf(puzzle, start(puzzle), turn),
        )
        expect(carried.length > 0).toBe(isBlocked)
      }),
      { numRuns: 30 },
    )
  })
})

describe('layers', () => {
  it.each(CATALOG_IDS)('of %s are different slabs, and make all single turns', (id) => {
    const puzzle = shipped(id)
    // What a grip takes of pieces that lie in places of the finished puzzle.
    const taken = (grip: number) =>
      puzzle.carry[grip].filter((_, at) => puzzle.place[at] !== NO_PLACE).join('')
    const slabs = layersOf(puzzle).map(taken)
    expect(new Set(slabs).size).toBe(slabs.length)
    puzzle.grips.forEach((grip, g) => {
      if ((grip.from === null && grip.to === null) || grip.name.includes('-')) return
      expect(slabs).toContain(taken(g))
    })
  })

  it.each(CATALOG_IDS)('of %s are turned by a key, or it is said why not', (id) => {
    const puzzle = shipped(id)
    for (const letter of 'UDFBRLMESxyz')
      for (const digit of ['', '2', '7'])
        for (const mark of ['', "'"]) {
          const name = digit + letter + mark
          const turn = turnMeant(puzzle, name)
          const words = keyWords(puzzle, name)
          if (turn?.name === name) expect(words).toBe('')
          else expect(words, name).toMatch(/^[A-Z][^{}]*\.$/)
          const amounts = turn && puzzle.grips[turn.grip].amounts
          expect(/by halves only|A quarter round/.test(words), name).toBe(
            amounts !== undefined && !amounts.includes(1),
          )
          if (words.startsWith('Nothing turns by'))
            expect(puzzle.grips.filter((grip) => grip.name.includes(letter))).toEqual([])
        }
  })

  it('are meant by a letter, with a number before it', () => {
    const name = (id: string, written: string) => turnMeant(shipped(id), written)?.name
    expect(name('cube-3', 'R')).toBe('R')
    expect(name('cube-3', "R'")).toBe("R'")
    expect(name('box-3x3x2', 'R')).toBe('R2')
    expect(name('box-3x3x2', "R'")).toBe('R2')
    expect(name('shift-3x3x5', '1U')).toBe('1U')
    expect(name('shift-3x3x5', "U'")).toBe("U'")
    expect(name('tetra-3', "1U'")).toBe("u'")
    expect(name('cube-4', '2R')).toBe('2R')
    expect(name('cube-3', '1R')).toBe('R')
    expect(name('twin-3', 'F')).toBeUndefined()
  })
})

describe('kin', () => {
  it.each([
    'prism-6',
    'tilt-3',
    'bipyramid-6',
    'diagonal-3x3x5',
    'diagonal-3x3x5-half',
    // The cube that turns as the outer parts of circles do: 8 corners and 12 edges of many more pieces.
    'circle-3',
    'circle-3--none',
  ])('of %s turns as it does, piece by piece', (id) => {
    const puzzle = shipped(id)
    const definition = kinOf(puzzle.definition)
    if (!definition) throw new Error(`${id} has no kin`)
    const kin = compile(definition)
    const links = kinPieces(puzzle, kin)
    const linked = links.filter((k) => k !== undefined)
    expect(linked).toHaveLength(id.startsWith('circle') ? 20 : puzzle.pieces.length)
    expect(new Set(linked).size).toBe(linked.length)
    fc.assert(
      fc.property(turnsIn(puzzle, 20), (turns) => {
        let [mod, plain] = [start(puzzle), start(kin)]
        for (const turn of turns) {
          const same = kin.turnByName.get(turn.name)
          if (!same) throw new Error(`${turn.name} is no turn of the kin`)
          expect(blockOf(kin, plain, same) === undefined).toBe(
            blockOf(puzzle, mod, turn) === undefined,
          )
          if (blockOf(puzzle, mod, turn)) continue
          mod = turnFreely(puzzle, mod, turn, new Uint8Array(mod.length))
          plain = turnFreely(kin, plain, same, new Uint8Array(plain.length))
        }
        links.forEach((k, p) => k !== undefined && expect(mod[p]).toBe(plain[k]))
      }),
      { numRuns: 10 },
    )
  })

  it('is none for a puzzle that is plain', () => {
    expect(kinOf(shipped('cube-3').definition)).toBeUndefined()
  })
})
