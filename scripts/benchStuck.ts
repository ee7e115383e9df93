/**
 * The confusion table of Stuck: states that turns make, alone and with one fault made by hand, against
 * the group itself, whose members are decided by a strong generating set.
 */
import { lookAlikesOf, unseenChanges } from '../src/core/analysis/lookAlikes'
import { membershipOf } from '../src/core/analysis/order'
import { holdOf } from '../src/core/analysis/placements'
import { CATALOG_IDS, puzzleById } from '../src/core/catalog'
import type { Puzzle } from '../src/core/puzzle/compile'
import { seededRandom } from '../src/core/random'
import { must } from '../src/core/result'
import { INVERSE } from '../src/core/rotation'
import { isInShape, scramble, scrambledState } from '../src/core/scramble/scramble'
import { isSolved, rotateState, turnAll, type State } from '../src/core/state'
import { diagnose } from '../src/core/stuck/diagnose'
import { FAULTS, withFault } from '../src/core/stuck/faults'
import { canTakeShape, reshape } from '../src/core/universal/reshape'
import { solveUniversally, turnsOfStep } from '../src/core/universal/solve'

/** Classes whose exchanges are tried together, and single turns in place beside them. */
const TRADES = 7
const SPINS = 12

/** Whether some way of telling look-alikes apart is a member; undefined where it cannot be decided. */
function truthOf(puzzle: Puzzle): (state: State) => boolean | undefined {
  const isMember = membershipOf(puzzle)
  const { classes } = lookAlikesOf(puzzle)
  const changes = unseenChanges(puzzle)
  const trades = classes.flatMap((own) =>
    changes.filter(({ pieces }) => pieces.length === 2 && own.includes(pieces[0])).slice(0, 1),
  )
  const spins = changes.filter(({ pieces }) => pieces.length === 1).slice(0, SPINS)
  return (given) => {
    const hold = holdOf(puzzle, given)
    if (hold === undefined) return false
    let state = rotateState(given, INVERSE[hold])
    if (!isMember) return undefined
    if (!isInShape(puzzle, state)) {
      const back = canTakeShape(puzzle, state) ? reshape(puzzle, state) : undefined
      if (!back) return undefined
      state = must(turnAll(puzzle, state, back))
    }
    const used = trades.slice(0, TRADES)
    for (let mask = 0; mask < 1 << used.length; mask++) {
      const traded = used.reduce((now, { make }, i) => ((mask >> i) & 1 ? make(now) : now), state)
      if (isMember(traded)) return true
      if (mask < 4 && spins.some(({ make }) => isMember(make(traded)))) return true
    }
    // Not every naming was tried; turns that lead home prove that there is one.
    return isLedHome(puzzle, given)
  }
}

function isLedHome(puzzle: Puzzle, state: State): boolean {
  const way = solveUniversally(puzzle, state)
  if (!way.ok) return false
  const turns = way.value.steps.flatMap((step) => [...turnsOfStep(puzzle, step)])
  return isSolved(puzzle, must(turnAll(puzzle, state, turns)))
}

export function measureStuck(states: number): void {
  const names = ['none', ...FAULTS] as const
  console.log(
    'puzzle'.padEnd(22),
    'found / called fine / not known, of each kind; wrong verdicts; mean ms',
  )
  for (const id of CATALOG_IDS) {
    const puzzle = must(puzzleById(id))
    const truth = truthOf(puzzle)
    const random = seededRandom(20261125)
    let wrong = 0
    let spentMs = 0
    let judged = 0
    const told = names.map((fault) => {
      let [found, fine, open] = [0, 0, 0]
      for (let seed = 0; seed < states; seed++) {
        const made = rotateState(
          scrambledState(puzzle, scramble(puzzle, seed)),
          puzzle.holds[seed % puzzle.holds.length],
        )
        const state = fault === 'none' ? made : withFault(puzzle, made, fault, random)
        if (!state) continue
        const began = performance.now()
        const { verdict } = diagnose(puzzle, state)
        spentMs += performance.now() - began
        judged++
        if (verdict === 'assembly') found++
        else if (verdict === 'not known') open++
        else fine++
        if (verdict === 'not known') continue
        const isFine = fault === 'none' || truth(state)
        if (isFine !== undefined && isFine !== (verdict !== 'assembly')) wrong++
      }
      return `${fault} ${found}/${fine}/${open}`
    })
    console.log(
      id.padEnd(22),
      told.join(', '),
      `; wrong ${wrong}; ${(spentMs / judged).toFixed(1)}`,
    )
  }
}
