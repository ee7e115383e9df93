/** Ways out of a position, each replayed on the engine, with its cost and what it makes due again. */
import { stagesMet } from '../coach/standing'
import { countTurns } from '../notation/rewrite'
import type { Direction } from '../puzzle/directions'
import type { Puzzle, Turn } from '../puzzle/compile'
import { stagesOf, type School, type Variant } from '../schools/school'
import { isSolved, turnAll, type State } from '../state'
import { hasMoves } from '../universal/moves'
import { joined } from '../universal/joints'
import { solveUniversally } from '../universal/solve'
import type { Diagnosis } from './diagnose'

export interface Remedy {
  readonly kind: 'register' | 'settle' | 'home'
  readonly name: string
  /** Names of the turns, in order. */
  readonly turns: readonly string[]
  readonly turnCount: number
  /** Stages of the school on the bench that are lit now and due again afterwards. */
  readonly dueAgain: readonly string[]
}

/** Where the solver stands: the school, and the side that it began with. */
export interface Standing {
  readonly school: School
  readonly variant: Variant
  readonly base: Direction
}

/** The shortest first. None where no turns are known that lead home. */
export function remediesFor(
  puzzle: Puzzle,
  { finding, state }: Diagnosis,
  at?: Standing,
): Remedy[] {
  if (!state || finding.kind === 'home') return []
  const found: Remedy[] = []
  const offer = (kind: Remedy['kind'], name: string, turns: readonly Turn[]) => {
    const end = turnAll(puzzle, state, turns)
    if (!end.ok || (kind !== 'settle' && !isSolved(puzzle, end.value))) return
    found.push({
      kind,
      name,
      turns: turns.map((turn) => turn.name),
      turnCount: countTurns(turns),
      dueAgain: at ? dueAgain(puzzle, at, state, end.value) : [],
    })
  }
  if (finding.kind === 'frame' && finding.turn) {
    offer('register', 'Turn it into register', [finding.turn])
    return found
  }
  const way = hasMoves(puzzle) ? solveUniversally(puzzle, state) : undefined
  if (!way?.ok) return found
  const sums = way.value.steps.findIndex(({ kind }) => kind === 'sums')
  const turnsUpTo = (end: number) =>
    joined(puzzle, way.value.steps.slice(0, end)).flatMap(({ turns }) => [...turns])
  if (sums >= 0 && (finding.kind === 'look-alike' || finding.kind === 'reduction parity'))
    offer('settle', 'Settle odd and even, then go on', turnsUpTo(sums + 1))
  offer('home', 'All the way home, piece by piece', turnsUpTo(way.value.steps.length))
  return found
}

function dueAgain(
  puzzle: Puzzle,
  { school, variant, base }: Standing,
  before: State,
  after: State,
): string[] {
  const met = (state: State) => stagesMet(puzzle, school, variant, base, state)
  return stagesOf(school, variant)
    .slice(met(after), met(before))
    .map(({ name }) => name)
}
