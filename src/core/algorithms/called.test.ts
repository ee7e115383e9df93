import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { inverseOf, mirrorImage, mirrorImages, rehold } from '../notation/rewrite'
import type { Turn } from '../puzzle/compile'
import { must } from '../result'
import { start, turnFreely, type State } from '../state'
import { calledWords, Names } from './called'

const textOf = (turns: readonly Turn[]) => turns.map(({ name }) => name).join(' ')

describe('a sequence with a name', () => {
  it.each(CATALOG_IDS)('is known again from any side, mirrored and backwards: %s', (id) => {
    const puzzle = must(puzzleById(id))
    const layers = puzzle.turns.filter(({ whole }) => !whole)
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...layers), { minLength: 2, maxLength: 12 }),
        fc.constantFrom(...puzzle.holds),
        fc.boolean(),
        fc.boolean(),
        (turns, hold, isMirrored, isBack) => {
          const names = new Names(puzzle, [
            { name: 'Harbour swing', turns: textOf(turns) },
            { name: '', turns: `${textOf(turns)} ${layers[0].name}` },
          ])
          const image = isMirrored ? mirrorImage(puzzle, turns) : turns
          fc.pre(image !== undefined)
          const made = rehold(puzzle, isBack ? inverseOf(puzzle, image) : image, hold)
          const called = names.of(made.map(({ name }) => name))
          expect(called?.name).toBe('Harbour swing')
          // What is said of it leads back to the turns that have the name.
          const ways = called?.isMirrored ? mirrorImages(puzzle, made) : [made]
          const does = (all: readonly Turn[]) => [...all.reduce(turned, start(puzzle))].join()
          const turned = (state: State, turn: Turn) =>
            turnFreely(puzzle, state, turn, new Uint8Array(state.length))
          const holds = called?.isReheld ? puzzle.holds : [0]
          const done = ways.flatMap((own) => {
            const way = called?.isBack ? inverseOf(puzzle, own) : own
            return holds.map((each) => does(rehold(puzzle, way, each)))
          })
          expect(done).toContain(does(turns))
          expect(names.of([...made, layers[0]].map(({ name }) => name))).toBeUndefined()
        },
      ),
      { numRuns: 20 },
    )
  })

  it('is called with what is otherwise', () => {
    const puzzle = must(puzzleById('cube-3'))
    const names = new Names(puzzle, [{ name: 'Gangway', turns: "R U R' U'" }])
    const words = (text: string) => {
      const called = names.of(text.split(' '))
      return called && calledWords(called)
    }
    expect(words("R U R' U'")).toBe('Gangway')
    expect(words("L' U' L U")).toBe('Gangway, mirrored')
    expect(words("U R U' R'")).toBe('Gangway, backwards')
    expect(words("F U F' U'")).toBe('Gangway, from another side')
    expect(words("R U R' U")).toBeUndefined()
  })
})
