/** Figures of the universal school: turns, time and how many states are led home, puzzle by puzzle. */
import { CATALOG_IDS, shippedPuzzle } from '../src/core/catalog'
import { plan } from '../src/core/coach/plan'
import { must } from '../src/core/result'
import { scramble, scrambledState } from '../src/core/scramble/scramble'
import { pieceByPiece } from '../src/core/schools/piece-by-piece'
import { rotateState } from '../src/core/state'
import { kitOf } from '../src/core/universal/solve'

const SETTINGS = ['none', 'up', 'up-front-right', 'up-down-front-back-left-right'].map(
  (setting) => `circle-3--${setting}`,
)

export function measureUniversal(states: number): void {
  console.log(
    'puzzle'.padEnd(40),
    ['tables ms', 'median ms', '99th ms', 'mean turns', 'worst', 'saved', 'solved']
      .map((name) => name.padStart(10))
      .join(' '),
  )
  for (const id of [...CATALOG_IDS, ...SETTINGS]) {
    const puzzle = must(shippedPuzzle(id))
    const began = performance.now()
    kitOf(puzzle)
    const tablesMs = performance.now() - began
    const school = pieceByPiece(puzzle)
    if (!school) {
      console.log(`${id.padEnd(40)} not served`)
      continue
    }
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
    console.log(id.padEnd(40), figures.map((figure) => `${figure}`.padStart(10)).join(' '))
  }
}
