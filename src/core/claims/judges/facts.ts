/** What there is to know about one piece, and how the puzzle stands. */
import { fitOf } from '../../analysis/fit'
import { lookClassesOf } from '../../analysis/lookAlikes'
import { handReachOf } from '../../analysis/placements'
import { IN, type Puzzle } from '../../puzzle/compile'
import { blockOf, turnFreely } from '../../state'
import { indexOf, type FactsKind } from '../claim'
import { indices } from '../evidence'
import type { Judges } from './judge'

/** Every slot that hands can turn it into, its own among them, and how often. */
const slotsOf = (puzzle: Puzzle, piece: number): number[] =>
  handReachOf(puzzle)[piece].map((r) => puzzle.slot[24 * piece + r])

const placesOf = (puzzle: Puzzle, piece: number) => {
  const slots = [...new Set(slotsOf(puzzle, piece))]
  const homes = slots.filter((slot) => slot < puzzle.pieces.length)
  return { homes, outside: slots.length - homes.length }
}

const kindsOf = ({ pieces }: Puzzle, places: readonly number[]): string[] => [
  ...new Set(places.map((p) => pieces[p].kind)),
]

export const OF_FACTS: Judges<FactsKind> = {
  isCore: ({ piece }, { puzzle }) => handReachOf(puzzle)[indexOf(puzzle, piece)].length === 1,
  onlyTurns({ piece }, { puzzle }) {
    const p = indexOf(puzzle, piece)
    const slots = slotsOf(puzzle, p)
    return slots.length > 1 && slots.every((slot) => slot === p)
  },
  reaches({ piece, count, kinds }, { puzzle }) {
    const { homes } = placesOf(puzzle, indexOf(puzzle, piece))
    return (
      homes.length === count && kindsOf(puzzle, homes).sort().join() === [...kinds].sort().join()
    )
  },
  reachesOutside: ({ piece, count }, { puzzle }) =>
    placesOf(puzzle, indexOf(puzzle, piece)).outside === count,
  tradedBy({ piece, turn, place }, { puzzle }) {
    const p = indexOf(puzzle, piece)
    const made = puzzle.turnByName.get(turn)
    if (!made || puzzle.carry[made.grip][24 * p] !== IN) return false
    const { amounts } = puzzle.grips[made.grip]
    const to = puzzle.slot[24 * p + made.rotation]
    const isThere = to < puzzle.pieces.length ? puzzle.pieces[to].id === place : place === undefined
    return amounts.length === 1 && isThere && to !== p
  },
  waysToLie({ piece, ways, seen }, { puzzle }) {
    const p = indexOf(puzzle, piece)
    const own = handReachOf(puzzle)[p].filter((r) => puzzle.slot[24 * p + r] === p)
    const shown = new Set(own.map((r) => puzzle.look[24 * p + r]))
    return own.length === ways && shown.size === seen
  },
  likeThose({ piece, of }, { puzzle }) {
    const { classOf } = lookClassesOf(puzzle)
    const p = indexOf(puzzle, piece)
    const alike = puzzle.pieces.flatMap((_, q) => (q !== p && classOf[q] === classOf[p] ? [q] : []))
    return (
      alike.join() ===
      indices(puzzle, of)
        .sort((a, b) => a - b)
        .join()
    )
  },
  liesNow({ piece, place, fit }, { puzzle, now: { state } }) {
    const p = indexOf(puzzle, piece)
    const slot = puzzle.slot[24 * p + state[p]]
    const is = slot < puzzle.pieces.length ? puzzle.pieces[slot].id : undefined
    return is === place && (is === undefined || fitOf(puzzle, p, state[p]) === fit)
  },
  misfits: ({ count }, { puzzle, now: { state } }) =>
    [...state].filter((r, p) => fitOf(puzzle, p, r) === 'out').length === count,
  wouldCarry({ turn, count, out = 0, home }, { puzzle, now: { state } }) {
    const made = puzzle.turnByName.get(turn)
    if (!made || blockOf(puzzle, state, made)) return false
    const after = turnFreely(puzzle, state, made, new Uint8Array(state.length))
    const carried = [...state].flatMap((r, p) =>
      puzzle.carry[made.grip][24 * p + r] === IN ? [p] : [],
    )
    const of = (fit: string) => carried.filter((p) => fitOf(puzzle, p, after[p]) === fit).length
    return carried.length === count && of('out') === out && of('home') === home
  },
}
