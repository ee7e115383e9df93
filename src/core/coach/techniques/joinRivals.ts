/** What may be taken apart for a pair: other places whose two are no pair, each with the turns that join the same pair. */
import { exchangeOf, exchangesFrom, isJoined, type Filled } from '../../analysis/pairPlaces'
import { handCost } from '../../notation/handCost'
import { doSequence } from '../../notation/sequence'
import type { Vector } from '../../rotation'
import type { State } from '../../state'
import type { Rival } from '../aim'
import { macrosOf, prefixesFor } from './joinMacros'
import { areAllPairs, lengthOf, type JoinSearch, type JoinWay } from './joinSearch'

/** So many are named. */
const MOST_RIVALS = 4

/** One place taken apart, with the pair that is joined for it. */
interface Offer {
  readonly way: JoinWay
  readonly apart: Filled
  readonly cost: number
}

/** Best placed first; none where it is not about pairs, or where the way takes nothing apart. */
export function rivalsOf(search: JoinSearch, state: State, chosen: JoinWay): Rival[] {
  const { puzzle, joined, wholes } = search
  if (!areAllPairs(search)) return []
  const { makes, takesApart } = exchangeOf(puzzle, joined, wholes, state, chosen.end)
  if (takesApart.length === 0 || makes.length === 0) return []
  const [pair] = makes[0].pieces
  const taken = new Set(takesApart.map(({ id }) => id))
  const found = new Map<number, Offer>()
  for (const each of exchanges(search, state, pair)) {
    const { id } = each.apart
    const known = found.get(id)
    if (!taken.has(id) && (!known || compared(each, known) < 0)) found.set(id, each)
  }
  return [...found.values()]
    .sort(compared)
    .slice(0, MOST_RIVALS)
    .map(({ way, apart }) => ({
      pieces: apart.pieces,
      pair,
      turns: [...way.prefix, ...way.turns].map(({ name }) => name),
    }))
}

/** The best way to join a piece with its partner that takes apart the place where another lies. */
export const wayTakingApart = (
  search: JoinSearch,
  state: State,
  piece: number,
  apart: number,
): JoinWay | undefined =>
  exchanges(search, state, piece)
    .filter((each) => each.apart.pieces.includes(apart))
    .sort(compared)[0]?.way

const compared = (a: Offer, b: Offer): number =>
  lengthOf(a.way) - lengthOf(b.way) || a.cost - b.cost

/** The ways to join a piece with its partner that take one place apart and part no pair. */
function exchanges(search: JoinSearch, state: State, piece: number): Offer[] {
  const { puzzle, technique, judge, joined, wholes, hand } = search
  const macros = macrosOf(puzzle, technique.sequences.join('|'))
  const size = (technique.select.as as Vector).join()
  const now = judge.begin(state)
  const exchangeAt = exchangesFrom(puzzle, joined, wholes, state)
  return prefixesFor(puzzle, `${size} 1 ${judge.pieces.join()}`).flatMap((prefix) => {
    const from = doSequence(prefix, state)
    judge.begin(from)
    return macros.flatMap((macro): Offer[] => {
      if (judge.mostBy(macro) === 0 || judge.after(macro) <= now) return []
      const end = doSequence(macro, from)
      if (!isJoined(puzzle, joined, wholes, piece, end) || !judge.keeps(end)) return []
      const { takesApart, makes, lost } = exchangeAt(end)
      if (
        takesApart.length !== 1 ||
        lost > 0 ||
        makes.every(({ pieces }) => !pieces.includes(piece))
      )
        return []
      const way = { prefix: prefix.turns, turns: macro.turns, end }
      const cost = handCost([...prefix.turns, ...macro.turns], hand)
      return [{ way, apart: takesApart[0], cost }]
    })
  })
}
