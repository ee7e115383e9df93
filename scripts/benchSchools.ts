/** The written schools of puzzles other than the 2x2x2: proven from many states, with what they cost. */
import { CATALOG_IDS, puzzleById } from '../src/core/catalog'
import { byHeart } from '../src/core/coach/byHeart'
import { prove } from '../src/core/coach/prove'
import { must } from '../src/core/result'
import { SCHOOLS } from '../src/core/schools'
import { fits } from '../src/core/schools/fits'

export function measureSchools(states: number): void {
  for (const id of CATALOG_IDS.filter((each) => each !== 'cube-2')) {
    const puzzle = must(puzzleById(id))
    for (const school of SCHOOLS.filter((each) => fits(each, puzzle.definition))) {
      const began = performance.now()
      const { meanTurns, mostTurns, meanLooks } = must(prove(puzzle, school, states))
      const each = (performance.now() - began) / states
      console.log(
        `${id} ${school.id}: all of ${states} states, ${meanTurns} turns on average, ${mostTurns} at most, ${meanLooks} looks, ${byHeart(puzzle, school).length} by heart, ${each.toFixed(1)} ms each with its proof`,
      )
    }
  }
}
