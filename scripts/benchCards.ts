/** Claims of cards that are false, or put in a code, over many cards of every puzzle and school. */
import { CATALOG_IDS, puzzleById } from '../src/core/catalog'
import { plan } from '../src/core/coach/plan'
import { faultsOf } from '../src/core/coach/truth.testing'
import { must } from '../src/core/result'
import { schoolsFor } from '../src/core/schools'
import { variantsOf } from '../src/core/schools/school'
import { scramble, scrambledState } from '../src/core/scramble/scramble'
import { rotateState } from '../src/core/state'

/** Faults that are printed. */
const SHOWN = 20

export function measureCards(most: number): void {
  const began = performance.now()
  let cards = 0
  let faults = 0
  const ways = CATALOG_IDS.flatMap((id) =>
    schoolsFor(id).flatMap((school) =>
      variantsOf(school).map((variant) => ({ id, school, variant })),
    ),
  )
  // Puzzles share the cards evenly, whatever number of ways they have.
  const share = most / CATALOG_IDS.length
  for (const id of CATALOG_IDS) {
    const puzzle = must(puzzleById(id))
    const own = ways.filter((way) => way.id === id)
    let made = 0
    for (let seed = 1; made < share; seed++) {
      const { school, variant } = own[seed % own.length]
      const scrambled = scrambledState(puzzle, scramble(puzzle, 1_000_000 + seed))
      const from = rotateState(scrambled, puzzle.holds[seed % puzzle.holds.length])
      const route = must(plan(puzzle, school, from, { variant }))
      made += route.looks
      for (const { step, what } of faultsOf(puzzle, puzzle.definition.colours, route))
        if (faults++ < SHOWN) console.log(`${step}: ${what}`)
    }
    cards += made
  }
  const seconds = ((performance.now() - began) / 1000).toFixed(0)
  console.log(`${faults} faults on ${cards} cards, in ${seconds} s`)
}
