/** Figures of the universal school: turns, time and how many states are led home, puzzle by puzzle. */
import fc from 'fast-check'
import { CATALOG_IDS, puzzleById } from '../src/core/catalog'
import { plan } from '../src/core/coach/plan'
import { compile, type Puzzle } from '../src/core/puzzle/compile'
import type { PuzzleDefinition } from '../src/core/puzzle/definition'
import { readDefinition } from '../src/core/puzzle/readDefinition'
import { must } from '../src/core/result'
import { scramble, scrambledState } from '../src/core/scramble/scramble'
import { pieceByPiece } from '../src/core/schools/piece-by-piece'
import { rotateState } from '../src/core/state'
import { anyDefinition, anyGlued, anySolid } from '../src/core/testing'
import { kitOf } from '../src/core/universal/solve'

const SETTINGS = ['none', 'up', 'up-front-right', 'up-down-front-back-left-right'].map(
  (setting) => `circle-3--${setting}`,
)

export function measureUniversal(states: number, ids = [...CATALOG_IDS, ...SETTINGS]): void {
  head()
  for (const id of ids) measure(id, must(puzzleById(id)), states)
}

/** Different definitions made at random, of every mechanism, with solids and with glue. */
export function measureRandom(count: number, states: number): void {
  head()
  const drawn = [
    ...fc.sample(anyDefinition, { numRuns: 2 * count, seed: 20261125 }),
    ...fc.sample(anySolid, { numRuns: count, seed: 20261125 }),
    ...fc.sample(anyGlued, { numRuns: count, seed: 20261125 }).map(({ definition }) => definition),
  ]
  const known = new Set<string>()
  for (const file of drawn) {
    const read = readDefinition(file)
    if (!read.ok) continue
    const name = nameOf(read.value)
    if (known.has(name)) continue
    known.add(name)
    measure(name, compile(read.value), states)
  }
  console.log(`${known.size} definitions`)
}

function nameOf({ mechanism, solid, glue }: PuzzleDefinition): string {
  const { kind, ...more } = mechanism
  const told = Object.values(more)
    .flat(3)
    .map((each) =>
      typeof each === 'object' ? Object.values(each as object).join('@') : String(each),
    )
  const cuts = (solid?.halfSpaces ?? [])
    .slice(6)
    .map(({ normal, at }) => `${normal.join()}@${at.toFixed(1)}`)
  const blocks = glue.map((cells) => cells.map((cell) => cell.join(',')).join('+'))
  return [kind, told.join('-'), ...cuts, ...blocks].join(' ')
}

const head = () =>
  console.log(
    'puzzle'.padEnd(60),
    ['tables ms', 'median ms', '99th ms', 'mean turns', 'worst', 'saved', 'solved']
      .map((name) => name.padStart(10))
      .join(' '),
  )

function measure(name: string, puzzle: Puzzle, states: number): void {
  const began = performance.now()
  kitOf(puzzle)
  const tablesMs = performance.now() - began
  const school = pieceByPiece(puzzle)
  if (!school) return console.log(`${name.padEnd(60)} not served`)
  const times: number[] = []
  const turns: number[] = []
  let saved = 0
  for (let seed = 0; seed < states; seed++) {
    const hold = puzzle.holds[seed % puzzle.holds.length]
    const state = rotateState(scrambledState(puzzle, scramble(puzzle, seed)), hold)
    const start = performance.now()
    const route = plan(puzzle, school, state)
    times.push(performance.now() - start)
    if (!route.ok) continue
    turns.push(route.value.turnCount)
    saved += route.value.saved ?? 0
  }
  times.sort((a, b) => a - b)
  const figures = [
    Math.round(tablesMs),
    times[Math.floor(states / 2)].toFixed(0),
    times[Math.floor(states * 0.99)].toFixed(0),
    (turns.reduce((a, b) => a + b, 0) / turns.length).toFixed(1),
    Math.max(...turns),
    (saved / turns.length).toFixed(1),
    `${((100 * turns.length) / states).toFixed(1)}%`,
  ]
  console.log(name.padEnd(60), figures.map((figure) => `${figure}`.padStart(10)).join(' '))
}
