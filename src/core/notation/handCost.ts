/**
 * How easily turns lie in the hand. The cost of a sequence is in 'plain quarter turns':
 *
 * - each turn costs by its layer: what the right hand and a finger on the top do without looking
 *   costs 1, the front 1.3, the left 1.2, the bottom 1.4, the back 1.9; slices and ranges 1.6;
 * - a half turn costs 1.4 of that;
 * - the right hand holds the right layer: once its turns add up to more than a half turn either way
 *   it must re-grip, which costs 0.8 (the same for the left hand);
 * - a turn of the whole puzzle costs 0.8.
 *
 * The figures are a judgement, not a measurement; only their order matters to the searches.
 */
import type { Turn } from '../puzzle/compile'

/** The hand that turns most. For the left hand everything is as in a mirror. */
export type Hand = 'right' | 'left'

const LAYERS: Readonly<Record<Hand, Readonly<Record<string, number>>>> = {
  right: { R: 1, U: 1, L: 1.2, F: 1.3, D: 1.4, B: 1.9 },
  left: { L: 1, U: 1, R: 1.2, F: 1.3, D: 1.4, B: 1.9 },
}
const OTHER_LAYER = 1.6
const HALF_TURN = 1.4
const REGRIP = 0.8
const WHOLE = 0.8

/** The lowest cost that any single turn of a layer can have: a bound for searches. */
export const CHEAPEST_TURN = 1

interface TurnEase {
  readonly cost: number
  /** The hand that holds the layer: 0 right, 1 left, -1 neither. */
  readonly hand: number
}

const eases: Readonly<Record<Hand, Map<string, TurnEase>>> = { right: new Map(), left: new Map() }

/** Two thirds of a turn are a third the other way, not a half. */
const isHalf = ({ name }: Turn): boolean => name.endsWith('2')

function easeOf(turn: Turn, hand: Hand): TurnEase {
  const known = eases[hand].get(turn.name)
  if (known) return known
  const letter = turn.name.replace(/[2']$/, '')
  const layer = LAYERS[hand][letter] ?? OTHER_LAYER
  const cost = turn.whole ? WHOLE : isHalf(turn) ? layer * HALF_TURN : layer
  const ease = { cost, hand: ['R', 'L'].indexOf(letter) }
  eases[hand].set(turn.name, ease)
  return ease
}

export const turnCost = (turn: Turn, hand: Hand = 'right'): number => easeOf(turn, hand).cost

export function handCost(turns: readonly Turn[], hand: Hand = 'right'): number {
  let cost = 0
  const wrists = [0, 0]
  for (const turn of turns) {
    const ease = easeOf(turn, hand)
    cost += ease.cost
    if (turn.whole) wrists[0] = wrists[1] = 0
    if (ease.hand < 0) continue
    const wrist = wrists[ease.hand]
    const change = isHalf(turn) ? halfTurn(wrist, ease.hand) : turn.name.endsWith("'") ? -1 : 1
    if (Math.abs(wrist + change) > 2) {
      cost += REGRIP
      wrists[ease.hand] = change
    } else wrists[ease.hand] = wrist + change
  }
  return Math.round(cost * 1000) / 1000
}

/** A half turn goes back to where the wrist comes from; from rest upward, which mirrors the hands. */
const halfTurn = (wrist: number, hand: number): number =>
  wrist !== 0 ? -2 * Math.sign(wrist) : hand === 0 ? 2 : -2
