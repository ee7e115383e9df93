/** The fewest turns home, from the table of all states, and among those the easiest in the hand. */
import { frameOf, inFrame } from '../analysis/frame'
import { holdOf } from '../analysis/placements'
import { countQuarters, countTurns, rehold } from '../notation/rewrite'
import { NO_PLACE, type Puzzle, type Turn } from '../puzzle/compile'
import { fail, ok, type Result } from '../result'
import { IDENTITY, INVERSE, multiply, type Rotation } from '../rotation'
import type { School } from '../schools/school'
import { handCost, type Hand } from '../notation/handCost'
import { shortestHome } from '../universal/shortestHome'
import { rotateState, writeState, type State } from '../state'
import { pieceFor, relativeTo } from './goal'
import { leavesOpen } from './naming'
import { withoutEcho, type Route, type RouteStage } from './route'

/** Shortest ways that are compared from each choice of the piece that stays still. */
const WAYS_LIMIT = 12

interface Way {
  readonly turns: readonly Turn[]
  /** The rotation that every piece has at its end. */
  readonly frame: Rotation
}

/** A route of one stage and one step; it still has to be replayed. */
export function planShortest(
  puzzle: Puzzle,
  school: School,
  state: State,
  hand: Hand = 'right',
): Result<Route> {
  const ways = waysHome(puzzle, state)
  if (ways.length === 0)
    return fail('unreachable', 'No turns lead from here to the finished puzzle.')
  const { turns, frame } = ways.reduce((a, b) =>
    handCost(b.turns, hand) < handCost(a.turns, hand) ? b : a,
  )
  const [{ id, name, aim }] = school.stages
  const quarters = countQuarters(turns)
  const step = withoutEcho({
    id: `${id}.1`,
    kind: 'optimal',
    lookFor: [{ kind: 'least', turns: turns.length, quarters }],
    hold: [{ kind: 'holdBy', turns: [] }],
    check: [{ kind: 'solved' }],
    hints: {
      nudge: [{ kind: 'distance', turns: turns.length }],
      pointer: turns.length > 0 ? [{ kind: 'firstTurn', turn: turns[0].name }] : [],
    },
    turns: turns.map((turn) => ({ name: turn.name, role: 'do' as const })),
    algorithm: [],
    pieces: puzzle.pieces.map((piece) => piece.id),
    places: [],
    others: [],
    frame,
  })
  const stage: RouteStage = {
    id,
    name,
    aim,
    done: turns.length === 0,
    steps: turns.length === 0 ? [] : [step],
  }
  return ok({
    puzzle: puzzle.definition.id,
    school: school.id,
    variant: {},
    from: writeState(state),
    base: 'up',
    baseColour: '',
    stages: [stage],
    turnCount: countTurns(turns),
    quarterCount: quarters,
    algorithms: [],
    looks: stage.steps.length,
  })
}

/** Every choice of the piece that stays still, with some of its shortest ways; R becomes L, and so on. */
function waysHome(puzzle: Puzzle, state: State): Way[] {
  const hold = holdOf(puzzle, state)
  if (hold === undefined) return []
  const { piece } = frameOf(puzzle)
  const waysFrom = (still: State, back: Rotation, frame: Rotation): Way[] =>
    (shortestHome(puzzle, still, WAYS_LIMIT) ?? []).map((turns) => ({
      turns: rehold(puzzle, turns, back),
      frame,
    }))
  if (piece === undefined) return waysFrom(rotateState(state, INVERSE[hold]), hold, hold)
  const seen = new Set<number>()
  // Where pieces look alike they cannot be called after other homes: those would be alike that are not.
  const all = (leavesOpen(puzzle) ? [IDENTITY] : puzzle.holds)
    .filter((frame) => puzzle.pieces.every((_, p) => puzzle.place[24 * p + frame] !== NO_PLACE))
    .flatMap((frame) => {
      const stillPiece = pieceFor(puzzle, piece, frame)
      if (seen.has(stillPiece)) return []
      seen.add(stillPiece)
      // Called after their homes in another frame, another piece stays still.
      const relative = relativeTo(puzzle, state, frame)
      const still = inFrame(puzzle, relative)
      const back = multiply(relative[piece], INVERSE[still[piece]])
      return waysFrom(still, back, multiply(relative[piece], frame))
    })
  const least = Math.min(...all.map(({ turns }) => turns.length))
  return all.filter(({ turns }) => turns.length === least)
}
