/**
 * Writes src/core/algorithms/derived/shortest.json: the fewest turns that turn two pieces in place on a 3x3x3. It keeps
 * some 93 million positions (2.2 GB) and takes about an hour on one core.
 */
import { writeFileSync } from 'node:fs'
import { searchShortest } from '../src/core/algorithms/knownShortest'
import { canonicalText } from '../src/core/canonical'
import { puzzleById } from '../src/core/catalog'
import { must } from '../src/core/result'

const puzzle = must(puzzleById('cube-3'))
const began = performance.now()
const found = await searchShortest(puzzle, {
  near: 6,
  far: 7,
  room: 28,
  ways: 16,
  tell: (sentence) =>
    console.log(`${((performance.now() - began) / 1000).toFixed(0)} s: ${sentence}`),
})
writeFileSync(
  new URL('../src/core/algorithms/derived/shortest.json', import.meta.url),
  `${JSON.stringify({ [canonicalText(puzzle.definition.mechanism)]: found }, null, 2)}\n`,
)
