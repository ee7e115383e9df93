/** What tests of the core share: puzzles, and arbitrary turns and states of them. */
import fc from 'fast-check'
import { puzzleById } from './catalog'
import { compile, type Puzzle, type Turn } from './puzzle/compile'
import { readDefinition } from './puzzle/readDefinition'
import { must } from './result'
import { scramble, scrambledState } from './scramble/scramble'
import { rotateState, start, turnFreely, type State } from './state'

export const cube2 = must(puzzleById('cube-2'))
export const cube3 = must(puzzleById('cube-3'))

const boxes = new Map<string, Puzzle>()

export function box(...size: [number, number, number]): Puzzle {
  const key = size.join('x')
  const known = boxes.get(key)
  if (known) return known
  const definition = { schema: 1, id: `box-${key}`, name: key, mechanism: { kind: 'box', size } }
  const puzzle = compile(must(readDefinition(definition)))
  boxes.set(key, puzzle)
  return puzzle
}

/** A box with blocks of cells glued together. */
export const glued = (size: readonly number[], ...glue: number[][][]): Puzzle =>
  compile(
    must(
      readDefinition({
        schema: 1,
        id: 'glued',
        name: 'glued',
        mechanism: { kind: 'box', size },
        glue,
      }),
    ),
  )

/** A 3x3x3 with a corner glued to an edge. */
export const gluedCube = glued(
  [3, 3, 3],
  [
    [1, 1, 1],
    [1, 1, 0],
  ],
)

/** A 5x5x5 with six loose blocks: they can lie in more ways than are listed. */
export const looseBlocks = compile(
  must(
    readDefinition({
      schema: 1,
      id: 'loose-blocks',
      name: 'loose blocks',
      mechanism: { kind: 'box', size: [5, 5, 5] },
      glue: [
        [2, 2, 2],
        [-2, -2, -1],
        [2, -2, 1],
        [-2, 2, 1],
        [2, 1, 1],
        [-2, -1, 1],
      ].map(([x, y, z]) => [
        [x, y, z],
        [x, y, z - 1],
      ]),
    }),
  ),
)

/** A box with some cells glued along its edges. */
export const anyGlued: fc.Arbitrary<Puzzle> = fc
  .tuple(
    fc.constantFrom<[number, number, number]>([2, 2, 2], [3, 3, 3], [2, 3, 4], [3, 2, 3]),
    fc.array(fc.tuple(fc.nat(2), fc.nat(63)), { minLength: 1, maxLength: 4 }),
  )
  .map(([size, picks]) => {
    const used = new Set<string>()
    const glue = picks.flatMap(([axis, at]) => {
      const index = size.map((n, i) => Math.floor(at / [1, 4, 16][i]) % n)
      const next = index.map((c, i) => (i === axis ? c + 1 : c))
      if (next[axis] >= size[axis]) return []
      const pair = [index, next].map((cell) => cell.map((c, i) => c - (size[i] - 1) / 2))
      if (pair.some((cell) => used.has(cell.join()))) return []
      pair.forEach((cell) => used.add(cell.join()))
      return [pair]
    })
    return glued(size, ...glue)
  })

/** What is cut off a cube of side 4: where the plane looks, and how far it is from the middle, in twelfths. */
export interface Cut {
  readonly normal: readonly number[]
  readonly twelfths: number
}

/** A 3x3x3 in a cube with some of its vertices and edges cut off; not every one can be made. */
export const cutOff = (cuts: readonly Cut[]) => ({
  schema: 1,
  id: 'a-solid',
  name: 'A solid',
  mechanism: { kind: 'box', size: [3, 3, 3] },
  solid: {
    halfSpaces: [
      ...[0, 1, 2].flatMap((axis) =>
        [1, -1].map((sign) => ({
          normal: [0, 1, 2].map((i) => (i === axis ? sign : 0)),
          at: 2,
          colour: 'white',
        })),
      ),
      ...cuts.map(({ normal, twelfths }) => ({ normal, at: twelfths / 12, colour: 'red' })),
    ],
  },
})

export const anySolid = fc
  .array(
    fc.record({
      normal: fc
        .tuple(
          fc.constantFrom([1, 1, 1], [1, 1, 0], [2, 1, 0], [-1, 1, 1], [0, 1, -1], [3, -1, 2]),
          fc.constantFrom(1, -1),
        )
        .map(([normal, sign]) => normal.map((c) => c * sign + 0)),
      twelfths: fc.integer({ min: 24, max: 60 }),
    }),
    { minLength: 1, maxLength: 4 },
  )
  .map(cutOff)

/** A solid over a mechanism of that size, if it can be made. */
export function solidOf(drawn: unknown, size: number): Puzzle | undefined {
  const read = readDefinition({
    ...(drawn as object),
    mechanism: { kind: 'box', size: [size, size, size] },
  })
  if (!read.ok) return undefined
  try {
    return compile(read.value)
  } catch {
    // Some cut leaves a piece with nothing: such a solid is refused.
    return undefined
  }
}

/** Those that can be made. */
export const solids = (size: number) =>
  anySolid
    .map((drawn) => solidOf(drawn, size))
    .filter((puzzle): puzzle is Puzzle => puzzle !== undefined)

const side = fc.integer({ min: 1, max: 5 })

const FACES = ['up', 'down', 'right', 'left', 'front', 'back'] as const

/** Definitions of every mechanism; some cannot be made. */
export const anyDefinition: fc.Arbitrary<{ id: string; mechanism: { kind: string } }> = fc
  .oneof(
    fc.tuple(side, side, side).map((size) => ({ kind: 'box', size })),
    fc.subarray([...FACES], { minLength: 1 }).map((caps) => ({ kind: 'capped', caps })),
    fc.subarray([...FACES]).map((locked) => ({ kind: 'circles', locked })),
    fc.constant({ kind: 'tetrahedron' }),
    fc
      .tuple(fc.constantFrom(2, 3), fc.constantFrom(-1, 1), fc.constantFrom(-1, 1))
      .map(([n, across, up]) => ({
        kind: 'conjoined',
        boxes: [
          { size: [n, n, n], centre: [0, 0, 0] },
          { size: [n, n, n], centre: [across * (n - 1), up * (n - 1), 0] },
        ],
      })),
  )
  .map((mechanism) => ({ schema: 1, id: 'any', name: 'any', mechanism }))

/** A 3x3x3 with caps beyond some faces: it changes shape. */
export const capped = (...caps: string[]): Puzzle =>
  compile(
    must(
      readDefinition({
        schema: 1,
        id: 'capped',
        name: 'capped',
        mechanism: { kind: 'capped', caps },
      }),
    ),
  )

/** Layered boxes up to five a side, the 1x1x1 left out. */
export const anyBox = fc
  .tuple(side, side, side)
  .filter((size) => Math.max(...size) > 1)
  .map((size) => box(...size))

export const turnsIn = (puzzle: Puzzle, most = 40): fc.Arbitrary<Turn[]> =>
  fc
    .array(fc.nat(puzzle.turns.length - 1), { maxLength: most })
    .map((indices) => indices.map((index) => puzzle.turns[index]))

export const boxAndTurns = anyBox.chain((puzzle) => fc.tuple(fc.constant(puzzle), turnsIn(puzzle)))

export const after = (puzzle: Puzzle, turns: readonly Turn[], from = start(puzzle)): State =>
  turns.reduce((state, turn) => turnFreely(puzzle, state, turn, new Uint8Array(state.length)), from)

/** States of a puzzle reached by random turns, in any hold. */
export const stateOf = (puzzle: Puzzle): fc.Arbitrary<State> =>
  turnsIn(puzzle, 60).map((turns) => after(puzzle, turns))

/** A drawn state, its seed telling the hold as well. */
export const drawn = (puzzle: Puzzle, seed: number): State =>
  rotateState(
    scrambledState(puzzle, scramble(puzzle, seed)),
    puzzle.holds[seed % puzzle.holds.length],
  )
