/** Ways out of a position, each replayed on the engine, with its cost and what it makes due again. */
import { stagesMet, type Following } from '../coach/standing'
import { countTurns, rehold, simplify } from '../notation/rewrite'
import type { Puzzle, Turn } from '../puzzle/compile'
import { stagesOf, type School } from '../schools/school'
import { isSolved, rotateState, turnAll, type State } from '../state'
import { isNothing } from '../analysis/invariants'
import { holdOf } from '../analysis/placements'
import { INVERSE } from '../rotation'
import { accountOf } from '../universal/account'
import { namedInOrbits } from '../universal/namedInOrbits'
import { kindPlural, listed, shortKind } from '../phrases'
import { hasMoves } from '../universal/moves'
import { joined } from '../universal/joints'
import { solveUniversally } from '../universal/solve'
import type { Diagnosis } from './diagnose'

export interface Remedy {
  readonly kind: 'register' | 'settle' | 'trade' | 'home'
  readonly name: string
  /** Names of the turns, in order. */
  readonly turns: readonly string[]
  readonly turnCount: number
  /** Stages of the school on the bench that are lit now and due again afterwards. */
  readonly dueAgain: readonly string[]
}

/** Where the solver stands: the school, and the side that it began with. */
export interface Standing extends Following {
  readonly school: School
}

/** The shortest first. None where no turns are known that lead home. */
export function remediesFor(
  puzzle: Puzzle,
  { finding, state }: Diagnosis,
  at?: Standing,
): Remedy[] {
  if (!state || finding.kind === 'home') return []
  const found: Remedy[] = []
  const offer = (kind: Remedy['kind'], name: string, given: readonly Turn[]) => {
    const turns = asMade(puzzle, state, given)
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
  const trade = finding.kind === 'look-alike' ? cheapestTrade(puzzle, state) : undefined
  const home = found.find(({ kind }) => kind === 'home')
  if (trade && home && countTurns(asMade(puzzle, state, trade.turns)) < home.turnCount)
    offer('trade', `Trade ${trade.name} on the way: that costs least`, trade.turns)
  return found.sort((a, b) => a.turnCount - b.turnCount)
}

/** Turns of one layer that follow each other as one, wherever that one can be made too. */
function asMade(puzzle: Puzzle, state: State, turns: readonly Turn[]): readonly Turn[] {
  const short = simplify(puzzle, turns)
  return turnAll(puzzle, state, short).ok ? short : turns
}

/** Trades that are compared. */
const TRADES = 12

/**
 * Of all trades of two equal pieces, or unseen turns of one, that make the sums come out, the one from which
 * the way home is shortest.
 */
function cheapestTrade(
  puzzle: Puzzle,
  given: State,
): { readonly name: string; readonly turns: readonly Turn[] } | undefined {
  const hold = holdOf(puzzle, given)
  if (hold === undefined) return undefined
  const framed = namedInOrbits(puzzle, rotateState(given, INVERSE[hold]))
  const { changes, vectorOf, span } = accountOf(puzzle)
  const ways = changes
    .filter(({ pieces }) => pieces.length === 2)
    .map(({ pieces, make }) => ({ pieces, state: make(framed) }))
    .filter(({ state }) => isNothing(span, vectorOf(state)))
    .slice(0, TRADES)
    .flatMap(({ pieces, state }) => {
      const way = solveUniversally(puzzle, state, undefined, true)
      if (!way.ok) return []
      const turns = joined(puzzle, way.value.steps).flatMap((step) => [...step.turns])
      return [{ pieces, turns: rehold(puzzle, turns, hold) }]
    })
  if (ways.length === 0) return undefined
  const { pieces, turns } = ways.reduce((a, b) => (b.turns.length < a.turns.length ? b : a))
  const kind = shortKind(puzzle.pieces[pieces[0]].kind)
  return {
    name: `two equal ${kindPlural(kind)} (of ${listed(pieces.map((p) => puzzle.pieces[p].id))})`,
    turns,
  }
}

function dueAgain(puzzle: Puzzle, standing: Standing, before: State, after: State): string[] {
  const { school, variant } = standing
  const met = (state: State) => stagesMet(puzzle, school, standing, state)
  return stagesOf(school, variant)
    .slice(met(after), met(before))
    .map(({ name }) => name)
}
