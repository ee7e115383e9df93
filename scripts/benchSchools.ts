/** The written schools of puzzles other than the 2x2x2: proven from many states, with what they cost. */
import { CATALOG_IDS, puzzleById } from '../src/core/catalog'
import { byHeart } from '../src/core/coach/byHeart'
import { plan } from '../src/core/coach/plan'
import { prove } from '../src/core/coach/prove'
import { compile, type Puzzle } from '../src/core/puzzle/compile'
import { readDefinition } from '../src/core/puzzle/readDefinition'
import { seededRandom, type Random } from '../src/core/random'
import { must } from '../src/core/result'
import { SCHOOLS, schoolNamed, schoolsOf } from '../src/core/schools'
import { fits } from '../src/core/schools/fits'
import type { School } from '../src/core/schools/school'
import { SHORTEST_ID } from '../src/core/schools/shortest'
import { scramble, scrambledState } from '../src/core/scramble/scramble'
import { whyNotServed } from '../src/core/universal/solve'

export function measureSchools(states: number): void {
  for (const id of CATALOG_IDS.filter((each) => each !== 'cube-2')) {
    const puzzle = must(puzzleById(id))
    const own = SCHOOLS.filter((each) => fits(each, puzzle.definition))
    if (own.length === 0) continue
    for (const school of own) tell(puzzle, school, states)
    tell(puzzle, must(schoolNamed(id, 'piece-by-piece')), Math.ceil(states / 10))
  }
}

/** Boxes that are not shipped: with a belt and without, ends above, in front and on the right. */
const SIZES = [
  [3, 4, 3],
  [3, 3, 5],
  [3, 6, 3],
  [3, 7, 3],
  [7, 3, 3],
  [3, 3, 6],
  [4, 4, 5],
  [5, 4, 4],
  [4, 7, 4],
  [4, 6, 4],
  [4, 3, 4],
  [4, 4, 2],
].map((size) => ({ kind: 'box', size }))

/** The sets of locked circles that no turn of the whole and no mirror takes into each other, but for the shipped one. */
const CIRCLES = [
  [],
  ['down'],
  ['down', 'front'],
  ['front', 'back'],
  ['down', 'front', 'right'],
  ['front', 'back', 'down', 'left'],
  ['front', 'back', 'left', 'right'],
  ['front', 'back', 'down', 'left', 'right'],
  ['up', 'down', 'front', 'back', 'left', 'right'],
].map((locked) => ({ kind: 'circles', locked }))

/** The same for caps. */
const CAPS = [
  ['up'],
  ['up', 'front'],
  ['up', 'down'],
  ['up', 'front', 'right'],
  ['up', 'front', 'down'],
  ['up', 'down', 'front', 'left'],
  ['front', 'back', 'down', 'left', 'right'],
  ['up', 'down', 'front', 'back', 'left', 'right'],
].map((caps) => ({ kind: 'capped', caps }))

/** What is written for boxes, circles and caps, on others than those that are shipped, beside the universal school. */
export function measureKin(states: number): void {
  for (const mechanism of [...SIZES, ...CIRCLES, ...CAPS]) {
    const { kind, ...setting } = mechanism
    const id = [kind, ...Object.values(setting).flat()].join('-')
    const puzzle = compile(must(readDefinition({ schema: 1, id, name: id, mechanism })))
    whyNotServed(puzzle)
    for (const school of schoolsOf(puzzle).filter((each) => each.id !== SHORTEST_ID))
      tell(puzzle, school, states)
  }
}

function tell(puzzle: Puzzle, school: School, states: number): void {
  const { meanTurns, mostTurns, meanLooks } = must(prove(puzzle, school, states))
  const [median, late] = planTimes(puzzle, school, Math.min(states, 300))
  console.log(
    `${puzzle.definition.id} ${school.id}: all of ${states} states, ${meanTurns} turns on average, ${mostTurns} at most, ${meanLooks} looks, ${byHeart(puzzle, school).length} by heart, plan ${median} ms, 99th ${late} ms`,
  )
}

/** Median and 99th percentile of a plan, once warm. */
function planTimes(puzzle: Puzzle, school: School, count: number): [string, string] {
  const times = Array.from({ length: count }, (_, i) => {
    const from = scrambledState(puzzle, scramble(puzzle, 100_000 + i))
    const began = performance.now()
    must(plan(puzzle, school, from))
    return performance.now() - began
  }).sort((a, b) => a - b)
  return [times[count >> 1].toFixed(0), times[Math.floor(0.99 * count)].toFixed(0)]
}

const NORMALS = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
  [1, 1, 0],
  [1, -1, 0],
  [1, 0, 1],
  [0, 1, 1],
  [0, 1, -1],
  [1, 1, 1],
  [1, 1, -1],
  [-1, 1, 1],
  [2, 1, 0],
  [1, 2, 2],
  [2, 2, 1],
] as const
const COLOURS = [
  'white',
  'yellow',
  'red',
  'orange',
  'blue',
  'green',
  'violet',
  'grey',
  'pink',
  'brown',
]
const MARKS = ['dot', 'ring', 'bar', 'wave', 'cross', 'leaf']

/** Some pairs of parallel cuts over a cube; undefined where they do not make a puzzle. */
export function randomSolid(size: number, random: Random): Puzzle | undefined {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random.unit() * list.length)]
  const normals = [...new Set(Array.from({ length: 5 }, () => pick(NORMALS)))]
  const halfSpaces = normals.flatMap((normal, i) => {
    const at = (pick([3, 4, 5, 6, 8, 10, 12, 16, 18]) * size) / 12
    return [1, -1].map((sign, side) => ({
      normal: normal.map((c) => c * sign + 0),
      at: Math.round(at * 4) / 4,
      colour: COLOURS[(2 * i + side) % COLOURS.length],
    }))
  })
  const colours = [...new Set(halfSpaces.map(({ colour }) => colour))].map((id, i) => ({
    id,
    name: id,
    shade: `#${(0x303030 + 0x0f1f2f * i).toString(16)}`,
    mark: MARKS[i % MARKS.length],
  }))
  const read = readDefinition({
    schema: 1,
    id: `solid-${size}`,
    name: `A solid over ${size}x${size}x${size}`,
    mechanism: { kind: 'box', size: [size, size, size] },
    solid: { halfSpaces },
    colours,
  })
  if (!read.ok) return undefined
  try {
    return compile(read.value)
  } catch {
    // A cut that leaves a piece with nothing: the file would be refused.
    return undefined
  }
}

/** Every school of solids that nobody has seen, from some states each. */
export function measureSolids(count: number, states: number): void {
  const random = seededRandom(11)
  for (const size of [3, 2, 4]) {
    const made: Puzzle[] = []
    while (made.length < count) {
      const puzzle = randomSolid(size, random)
      if (puzzle) made.push(puzzle)
    }
    const schools = SCHOOLS.filter((school) => fits(school, made[0].definition))
    for (const school of schools) {
      const proofs = made.map((puzzle) => must(prove(puzzle, school, states)))
      const mean = proofs.reduce((sum, { meanTurns }) => sum + meanTurns, 0) / count
      const most = Math.max(...proofs.map(({ mostTurns }) => mostTurns))
      console.log(
        `${count} solids over ${size}x${size}x${size} ${school.id}: all of ${states} states of each, ${mean.toFixed(1)} turns on average, ${most} at most`,
      )
    }
  }
}
