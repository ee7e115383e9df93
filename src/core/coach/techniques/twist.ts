/**
 * Twist: repeat a trigger at one spot until the piece there is turned right, turn the last layer to
 * fetch the next, and so on. The base layer is disturbed on the way; it is whole again because the
 * repeats add up to a multiple of the trigger's order.
 */
import { anchorsOf } from '../../analysis/anchors'
import { memoised } from '../../memo'
import { inverseOf, mirror, rehold } from '../../notation/rewrite'
import type { Puzzle, Turn } from '../../puzzle/compile'
import { directionOfLetter, type Direction } from '../../puzzle/directions'
import { IDENTITY, INVERSE, multiply } from '../../rotation'
import { handCost, type Hand } from '../../notation/handCost'
import { doSequence, repeated, sequence, sequenceOf, type Sequence } from '../../notation/sequence'
import { looksHome, placeOf, start } from '../../state'
import type { Aim } from '../aim'
import { piecesOfSide, sameImage, sideOf } from '../goal'
import {
  held,
  holding,
  isOnSide,
  layerTurns,
  placeNamed,
  preparing,
  proceed,
  runsOf,
  spins,
  type Position,
  type StageContext,
  type Workpiece,
} from '../workpiece'

/** One stop of the round: the turn that fetches the piece and the runs it takes. */
interface Visit {
  /** Undefined for the last turn of the layer, which only aligns. */
  readonly piece?: number
  readonly runs: number
  readonly fetch: Sequence
}

export function twistInPlace(
  context: StageContext,
  work: Workpiece,
  triggerText: string,
  spotName: string,
): void {
  const { puzzle, stage, hand } = context
  const { base, last } = held(stage)
  const side = sideOf('last', context.base)
  const pieces = piecesOfSide(puzzle, side)
  const { trigger, spot } = rewritten(puzzle, [triggerText, spotName, last.letter, hand].join('|'))
  const isWrong = ({ state, frame }: Position, p: number) => !sameImage(state[p], frame, side)
  const wrong = pieces.filter((p) => isWrong(work.held(), p))
  const lastTurns = layerTurns(puzzle, last.letter)
  // What stays in its place may be turned unseen; all else is home under its own name.
  const anchored = new Set(anchorsOf(puzzle))

  const plans = spins(puzzle, base).flatMap((spin) =>
    [lastTurns[1], lastTurns[3]].flatMap((fetch) => {
      const visits = visitAll(spin, fetch)
      return visits ? [{ spin, visits, cost: costOf(spin, visits) }] : []
    }),
  )
  if (plans.length === 0) throw new Error('the trigger does not twist every piece right')
  const { spin: chosenSpin, visits } = plans.reduce((a, b) => (b.cost < a.cost ? b : a))
  const runsTotal = totalRuns(visits)
  let runsBefore = 0
  visits.forEach(({ piece, runs, fetch }, index) => {
    const aim: Aim =
      piece === undefined
        ? { kind: 'align' }
        : {
            kind: 'twist',
            piece,
            trigger: trigger.turns.map(({ name }) => name),
            runs,
            runsBefore,
            runsTotal,
            left: visits.filter((visit, i) => i > index && visit.piece !== undefined).length,
          }
    work.step(aim, [
      ...(index === 0 ? holding(chosenSpin.turns) : []),
      ...preparing(fetch.turns),
      ...runsOf(trigger.turns, runs, runsBefore + 1),
    ])
    runsBefore += runs
  })

  /** One round of the last layer in one direction; undefined if the base layer does not return. */
  function visitAll(spin: Sequence, fetch: Sequence): Visit[] | undefined {
    let position = proceed(work.held(), spin)
    const found: Visit[] = []
    let carried = 0
    for (let quarter = 0; quarter < pieces.length && found.length < wrong.length; quarter++) {
      const piece = pieces.find((p) => placeOf(puzzle, position.state, p) === spot) as number
      if (wrong.includes(piece)) {
        const runs = runsUntilRight(position, piece)
        if (runs === undefined) return undefined
        position = proceed(position, repeated(puzzle, trigger, runs))
        found.push({ piece, runs, fetch: lastTurns[(carried * amountOf(fetch)) % 4] })
        carried = 0
        if (found.length === wrong.length) break
      } else if (found.length === 0) return undefined // The hold must bring a wrong one to the spot.
      position = proceed(position, fetch)
      carried++
    }
    if (found.length < wrong.length) return undefined
    const align = lastTurns.find((turn) => {
      const { state, frame } = proceed(position, turn)
      return state.every((r, p) =>
        anchored.has(p) ? looksHome(puzzle, p, multiply(INVERSE[frame], r)) : r === frame,
      )
    })
    if (!align) return undefined
    return align.turns.length > 0 ? [...found, { runs: 0, fetch: align }] : found
  }

  function runsUntilRight(position: Position, piece: number): number | undefined {
    for (let runs = 1; runs <= RUN_LIMIT; runs++) {
      const tried = proceed(position, repeated(puzzle, trigger, runs))
      if (placeOf(puzzle, tried.state, piece) === spot && !isWrong(tried, piece)) return runs
    }
    return undefined
  }

  function costOf(spin: Sequence, round: readonly Visit[]): number {
    return round.reduce(
      (sum, { fetch, runs }) =>
        sum + fetch.costs[hand] + repeated(puzzle, trigger, runs).costs[hand],
      spin.costs[hand],
    )
  }
}

/** No trigger is repeated more often than this at one spot. */
const RUN_LIMIT = 6

const amountOf = ({ turns }: Sequence): number => turns[0].amount

const totalRuns = (visits: readonly Visit[]) => visits.reduce((sum, { runs }) => sum + runs, 0)

const rewritten = memoised((puzzle: Puzzle, key: string) => {
  const [trigger, spot, letter, hand] = key.split('|')
  const found = rewriteTrigger(puzzle, trigger, spot, directionOfLetter(letter), hand as Hand)
  return { trigger: sequenceOf(puzzle, found.trigger), spot: found.spot }
})

/**
 * The trigger rewritten for a last layer held elsewhere. Of all rotations of the trigger, its mirror
 * and their inverses, those that touch the last layer at one place only, the easiest in the hand.
 */
export function rewriteTrigger(
  puzzle: Puzzle,
  triggerText: string,
  spotName: string,
  last: Direction,
  hand: Hand = 'right',
): { trigger: Turn[]; spot: number } {
  const original = sequence(puzzle, triggerText).turns
  const spot = placeNamed(puzzle, spotName)
  const touched = (trigger: readonly Turn[]) =>
    placesMoved(puzzle, trigger).filter((place) => isOnSide(puzzle, place, last))
  if (touched(original).join() === `${spot}`) return { trigger: [...original], spot }
  const forms = [original, mirror(puzzle, original)].flatMap((form) => [
    form,
    inverseOf(puzzle, form),
  ])
  const candidates = forms.flatMap((form) =>
    puzzle.holds.flatMap((hold) => {
      const trigger = rehold(puzzle, form, hold)
      const moved = touched(trigger)
      return moved.length === 1 ? [{ trigger, spot: moved[0] }] : []
    }),
  )
  if (candidates.length === 0) throw new Error('the trigger cannot be held that way')
  return candidates.reduce((a, b) =>
    handCost(b.trigger, hand) < handCost(a.trigger, hand) ? b : a,
  )
}

/** Places whose piece is moved or turned. */
function placesMoved(puzzle: Puzzle, turns: readonly Turn[]): number[] {
  const state = doSequence(sequenceOf(puzzle, turns), start(puzzle))
  return puzzle.pieces.flatMap((_, p) => (state[p] === IDENTITY ? [] : [p]))
}
