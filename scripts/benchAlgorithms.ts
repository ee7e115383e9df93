/** Sequences put to the test: how long it takes to find one with an effect, and what was meant by one that was misheard. */
import { find } from '../src/core/algorithms/find'
import { repair } from '../src/core/algorithms/repair'
import { puzzleById } from '../src/core/catalog'
import { readTurns } from '../src/core/notation/read'
import { inverseOf } from '../src/core/notation/rewrite'
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

export async function measureAlgorithms(): Promise<void> {
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
    const ends = { must: 'home', pieces: puzzle.pieces.map((_, p) => p) } as const
    for (const [slips, text] of HEARD) {
      const began = performance.now()
      const { edits, readings } = repair(puzzle, read(text), { keep: [], from, ends }, slips)
      console.log(
        `${id}, ${slips} of ${read(MEANT).length} turns misheard: ${readings.length} readings with ${edits} edits in ${Math.round(performance.now() - began)} ms`,
      )
    }
  }
}
