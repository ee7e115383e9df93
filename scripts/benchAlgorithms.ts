/** Sequences put to the test: how long it takes to find one with an effect, and what was meant by one that was misheard. */
import { find } from '../src/core/algorithms/find'
import { repair } from '../src/core/algorithms/repair'
import { waysFor } from '../src/core/algorithms/ways'
import { completed, waysInto } from '../src/core/algorithms/wish'
import { puzzleById } from '../src/core/catalog'
import { readTurns } from '../src/core/notation/read'
import { inverseOf } from '../src/core/notation/rewrite'
import { seededRandom } from '../src/core/random'
import { must } from '../src/core/result'
import { start, turnAll } from '../src/core/state'

const MEANT = "R U R' U' R' F R2 U' R' U' R U R' F'"

/** The same with slips of the tongue. */
const HEARD = [
  [1, "R U R' U' R' F R2 U' R' U' R U R' F"],
  [2, "R U R' U R' F R2 U' R' U R U R' F'"],
  [3, "R U R' U R' F R2 U' R' U R U R' F"],
] as const

/** Effects that people ask for on a 3x3x3: three corners, three edges, two flips, as sequences that are known. */
const EFFECTS = [
  "R U R' D R U' R' D'",
  "R2 U R U R2 U2 R2 U2 R2 U R U' R2",
  "R U' R U R U R U' R' U' R2",
]

/** Three-cycles that are wished, drawn by seed, and how long each may take. */
const CYCLES = { count: 15, seconds: 20 }

/** All nine layers may turn. */
async function measureFinder(kind: string): Promise<void> {
  const cube3 = must(puzzleById('cube-3'))
  const random = seededRandom(7)
  const all = cube3.pieces.flatMap((piece, p) => (piece.kind === kind ? [p] : []))
  const times: number[] = []
  let most = 0
  let open = 0
  for (let n = 0; n < CYCLES.count; n++) {
    const drawn = all.slice()
    const [a, b, c] = [0, 1, 2].map(() => drawn.splice(random.below(drawn.length), 1)[0])
    const way = (from: number, to: number) => {
      const ways = waysInto(cube3, from, to)
      return ways[random.below(ways.length)]
    }
    const goes = new Map([
      [a, way(a, b)],
      [b, way(b, c)],
    ])
    const whole = must(completed(cube3, { goes, free: new Set(), rest: 'stays' }))
    const began = performance.now()
    const ways = await waysFor(cube3, whole, {
      most: 14,
      scheme: cube3.definition.colours,
      rest: () => Promise.resolve(performance.now() - began > 1000 * CYCLES.seconds),
    })
    times.push(performance.now() - began)
    const fewest = must(ways)[0]?.turnCount
    if (fewest === undefined) open++
    else most = Math.max(most, fewest)
  }
  times.sort((x, y) => x - y)
  console.log(
    `cube-3, ${CYCLES.count} cycles of three ${kind}s: shortest found in ${Math.round(times[CYCLES.count >> 1])} ms at the median, ${Math.round(times[CYCLES.count - 1])} ms at most, up to ${most} turns; ${open} not within ${CYCLES.seconds} s`,
  )
}

export async function measureAlgorithms(): Promise<void> {
  await measureFinder('corner')
  await measureFinder('edge')
  const cube3 = must(puzzleById('cube-3'))
  for (const text of EFFECTS) {
    const turns = must(readTurns(cube3, text))
    const began = performance.now()
    const found = await find(cube3, {
      position: must(turnAll(cube3, start(cube3), turns)),
      layers: [...'UDFBRL'],
      most: turns.length,
    })
    const [best] = found.ok ? found.value : []
    console.log(
      `cube-3, the effect of ${text}: ${best ? `${best.turns.length} turns` : 'nothing'} in ${Math.round(performance.now() - began)} ms`,
    )
  }
  for (const id of ['cube-2', 'cube-3']) {
    const puzzle = must(puzzleById(id))
    const read = (text: string) => must(readTurns(puzzle, text))
    const from = must(turnAll(puzzle, start(puzzle), inverseOf(puzzle, read(MEANT))))
    const ends = [{ must: 'home', pieces: puzzle.pieces.map((_, p) => p) }] as const
    for (const [slips, text] of HEARD) {
      const began = performance.now()
      const { edits, readings } = repair(puzzle, read(text), { keep: [], from, ends }, slips)
      console.log(
        `${id}, ${slips} of ${read(MEANT).length} turns misheard: ${readings.length} readings with ${edits} edits in ${Math.round(performance.now() - began)} ms`,
      )
    }
  }
}
