/** Parts of pieces of a smaller box: where they lie, how they come together, what it costs. */
import { wholesIn, type Joined } from '../../analysis/joined'
import { lookClassesOf } from '../../analysis/lookAlikes'
import { homeFilled } from '../../analysis/who'
import type { Puzzle } from '../../puzzle/compile'
import type { Vector } from '../../rotation'
import { turnFreely } from '../../state'
import { indexOf, smallOf, type JoinsKind, type PieceId } from '../claim'
import { indices, placeFilled, type Moment } from '../evidence'
import type { Judges } from './judge'

export const OF_JOINS: Judges<JoinsKind> = {
  partsAt({ as, piece, partner, place, partnerPlace }, { puzzle, now }) {
    const { partsOf } = smallOf(puzzle, as)
    const { classOf } = lookClassesOf(puzzle)
    const [p, q] = indices(puzzle, [piece, partner])
    const at = (id: number) => {
      const home = placeFilled(puzzle, now, id)
      return home === undefined ? undefined : puzzle.pieces[home].id
    }
    const arePartners = partsOf.some(
      (parts) =>
        parts.length === 2 &&
        [parts, [...parts].reverse()].some(
          ([one, other]) => classOf[one] === classOf[p] && classOf[other] === classOf[q],
        ),
    )
    return p !== q && at(p) === place && at(q) === partnerPlace && arePartners
  },
  joinsBy({ as, of, at: n, pieces, moves, from, isAcross, isByStrips }, evidence) {
    const { puzzle, at, held, turns, now } = evidence
    const pairs = new Pairs(puzzle, as, of)
    const turn = puzzle.turnByName.get(turns[held + n]?.name ?? '')
    const moved = indexOf(puzzle, moves)
    const waits = indices(puzzle, pieces).find((p) => p !== moved)
    if (!turn || waits === undefined || !pieces.includes(moves)) return false
    const [before, after] = [at(held + n), at(held + n + 1)]
    const areJoined = (moment: Moment) =>
      pairs.placeOf(moment, moved) >= 0 &&
      pairs.placeOf(moment, moved) === pairs.placeOf(moment, waits)
    const afterwards = turns.slice(held + n).map((_, i) => at(held + n + i + 1))
    const slot = (moment: Moment, p: number) => puzzle.slot[24 * p + moment.state[p]]
    // What equal strips exchange is not seen: each lies in a pair all the same.
    const stays = isByStrips
      ? (moment: Moment) =>
          [moved, waits].every((p) => pairs.isPair(moment, pairs.placeOf(moment, p)))
      : areJoined
    const was = placeFilled(puzzle, before, moved)
    const place = was === undefined ? undefined : puzzle.pieces[was].id
    const isFromWhereItLay = was === placeFilled(puzzle, now, moved)
    return (
      !areJoined(before) &&
      areJoined(after) &&
      afterwards.every(stays) &&
      slot(before, waits) === slot(after, waits) &&
      (from === undefined ? isFromWhereItLay : from === place) &&
      (isAcross === true) === (turn.inverse === turn.index)
    )
  },
  together({ as, pieces, place }, { puzzle, now }) {
    const { small } = smallOf(puzzle, as)
    const pairs = new Pairs(
      puzzle,
      as,
      small.pieces.map(({ id }) => id),
    )
    const home = place === undefined ? -1 : indexOf(small, place)
    // What equal strips exchange is not seen.
    const looks = (all: readonly number[]) =>
      all
        .map((p) => lookKey(puzzle, p))
        .sort()
        .join()
    return (
      pairs.isPair(now, home) && looks(pairs.lyingIn(now, home)) === looks(indices(puzzle, pieces))
    )
  },
  partsIn({ as, whole, place, count, of }, { puzzle, now }) {
    const { small, partsOf } = smallOf(puzzle, as)
    const [w, at] = [indexOf(small, whole), place === undefined ? -1 : indexOf(small, place)]
    return partsOf[w].length === of && partsAt(puzzle, as, now, w, at) === count
  },
  openFrom: ({ from, to }, { turns }) => {
    const names = turns.map(({ name }) => name)
    return names.includes(from) && names.lastIndexOf(to) > names.indexOf(from)
  },
  takenApart({ as, of, places }, { puzzle, at, held, turns }) {
    const pairs = new Pairs(puzzle, as, of)
    const apart = pairs.apart(at(held), at(turns.length))
    return places.length > 0 && indices(pairs.small, places).every((place) => apart.includes(place))
  },
  pairsParted({ as, of, count, place }, { puzzle, at, held, turns }) {
    const pairs = new Pairs(puzzle, as, of)
    const { lost, gone } = pairs.parted(at(held), at(turns.length))
    return (
      lost === count &&
      count > 0 &&
      (place === undefined || (gone.length === 1 && pairs.small.pieces[gone[0]].id === place))
    )
  },
  lastTwo({ as, of }, { puzzle, at, held, turns }) {
    const pairs = new Pairs(puzzle, as, of)
    return pairs.apartIn(at(held)) === 2 && pairs.apartIn(at(turns.length)) === 0
  },
  stripsEqual({ as, of, turn: name, first, second }, evidence) {
    const { puzzle, turns, held } = evidence
    const pairs = new Pairs(puzzle, as, of)
    const turn = puzzle.turnByName.get(name)
    const numbers = turns.flatMap((each, i) => (each.name === name ? [i] : []))
    if (!turn || turn.inverse !== turn.index || numbers.length !== 2) return false
    const kind = pairs.sharing(evidence.at(held), evidence.at(numbers[0] + 1))
    const split = (i: number) =>
      pairs.split(evidence.at(numbers[i]), turn).filter(({ place }) => kind.includes(place))
    return (
      split(0).length === 2 * first + 2 &&
      split(1).length === 2 * second &&
      pairs.apartIn(evidence.at(numbers[0] + 1), kind) === 0
    )
  },
  equalStrip({ as, of, turn: name, nth, places, holds }, { puzzle, turns, at }) {
    const pairs = new Pairs(puzzle, as, of)
    const turn = puzzle.turnByName.get(name)
    const number = turns.flatMap((each, i) => (each.name === name ? [i] : []))[nth - 1]
    if (!turn || number === undefined || places.length !== 2) return false
    const all = pairs.split(at(number), turn)
    const [one, other] = indices(pairs.small, places).map((place) =>
      all.find((each) => each.place === place),
    )
    const alike = (p: number) => lookKey(puzzle, p) === lookKey(puzzle, indexOf(puzzle, holds))
    return (
      one !== undefined &&
      other !== undefined &&
      one.to === other.place &&
      [...one.both, ...other.both].every(alike)
    )
  },
  pairsLeft: ({ as, of, count }, { puzzle, at, turns }) =>
    new Pairs(puzzle, as, of).apartIn(at(turns.length)) === count,
  partsMissing({ as, of, count }, { puzzle, at, turns }) {
    const { small, partsOf } = smallOf(puzzle, as)
    const end = at(turns.length)
    const missing = indices(small, of).reduce(
      (sum, w) => sum + partsOf[w].length - Math.max(0, partsAt(puzzle, as, end, w, w)),
      0,
    )
    return missing === count
  },
  joins({ as, wholes }, { puzzle, glowing }) {
    const { small, partsOf } = smallOf(puzzle, as)
    const lit = new Set(indices(puzzle, glowing).map((p) => lookKey(puzzle, p)))
    return (
      wholes.length > 0 &&
      indices(small, wholes).every((w) => partsOf[w].some((p) => lit.has(lookKey(puzzle, p))))
    )
  },
  offeredApart({ as, of, place, pieces, pair, turns: names }, { puzzle, at, held, turns }) {
    const pairs = new Pairs(puzzle, as, of)
    const [before, made] = [at(held), at(turns.length)]
    const state = new Uint8Array(before.state)
    for (const name of names) {
      const turn = puzzle.turnByName.get(name)
      if (!turn) return false
      turnFreely(puzzle, state, turn, state)
    }
    const end = { state, frame: before.frame }
    const [own] = indices(puzzle, pieces)
    const paired = indexOf(puzzle, pair)
    const from = pairs.placeOf(before, own)
    const isWhole = (moment: Moment) => pairs.isPair(moment, pairs.placeOf(moment, paired))
    return (
      pairs.small.pieces[from]?.id === place &&
      pairs.apart(before, end).includes(from) &&
      !isWhole(before) &&
      isWhole(end) &&
      isWhole(made) &&
      pairs.apartIn(end) < pairs.apartIn(before)
    )
  },
  countsAsOne: () => true,
}

/** What a piece shows, whichever of its equals it is. */
/** Equal for pieces that look alike. */
export const lookKey = ({ pieces }: Puzzle, p: number): string =>
  `${pieces[p].kind} ${pieces[p].faces
    .map(({ colour }) => colour)
    .sort()
    .join()}`

/** How many parts of a piece of the smaller box, or of its equals, lie in a place of it as they belong together. */
function partsAt(
  puzzle: Puzzle,
  as: Vector,
  { state, frame }: Moment,
  whole: number,
  place: number,
) {
  const { small, partsOf } = smallOf(puzzle, as)
  const shown = new Set(
    [...state].map((r, p) => `${puzzle.slot[24 * p + r]} ${puzzle.look[24 * p + r]}`),
  )
  const looks = (w: number) => JSON.stringify(partsOf[w].map((p) => lookKey(puzzle, p)).sort())
  const counts = small.pieces.flatMap((_, w) =>
    w !== whole && looks(w) !== looks(whole)
      ? []
      : Array.from({ length: 24 }, (__, r) => r).flatMap((r) =>
          homeFilled(small, frame, w, r) !== place
            ? []
            : [
                partsOf[w].filter((part) =>
                  shown.has(`${puzzle.slot[24 * part + r]} ${puzzle.look[24 * part + r]}`),
                ).length,
              ],
        ),
  )
  return Math.max(-1, ...counts)
}

/** The places of a smaller box that two parts fill each. */
class Pairs {
  private readonly joined: Joined
  readonly small: Puzzle
  private readonly own: readonly number[]

  constructor(
    private readonly puzzle: Puzzle,
    as: Vector,
    of: readonly PieceId[],
  ) {
    this.joined = smallOf(puzzle, as)
    this.small = this.joined.small
    this.own = indices(this.small, of)
  }

  /** The piece of the smaller box in whose home another lies. */
  placeOf(moment: Moment, piece: number): number {
    const home = placeFilled(this.puzzle, moment, piece)
    return home === undefined ? -1 : this.joined.wholeOf[home]
  }

  private places = (): number[] =>
    this.own.filter((whole) => this.joined.partsOf[whole].length === 2)

  lyingIn = (moment: Moment, place: number): number[] =>
    this.puzzle.pieces.flatMap((_, p) => (this.placeOf(moment, p) === place ? [p] : []))

  /** Whether the two in a place are parts of one, or look so. */
  isPair(moment: Moment, place: number): boolean {
    if (!this.places().includes(place)) return false
    const { puzzle, small } = this
    const { partsOf, ways } = this.joined
    const key = (p: number, r: number) => `${puzzle.slot[24 * p + r]} ${puzzle.look[24 * p + r]}`
    const seen = new Set(this.lyingIn(moment, place).map((p) => key(p, moment.state[p])))
    return this.own.some((whole) =>
      ways[whole].some(
        (r) =>
          homeFilled(small, moment.frame, whole, r) === place &&
          partsOf[whole].every((p) => seen.has(key(p, r))),
      ),
    )
  }

  /** How many are not joined. */
  apartIn = ({ state }: Moment, of: readonly number[] = this.own): number =>
    of.length - wholesIn(this.puzzle, this.joined, state, of).size

  /** Places whose two are no pair and lie in one place no longer, but for those that joined pairs come from. */
  apart(before: Moment, end: Moment): number[] {
    const inPairs = (moment: Moment) =>
      this.places().flatMap((place) =>
        this.isPair(moment, place) ? this.lyingIn(moment, place) : [],
      )
    const were = new Set(inPairs(before))
    const come = new Set(inPairs(end).filter((p) => !were.has(p)))
    return this.places().filter((place) => {
      const both = this.lyingIn(before, place)
      const [a, b] = both.map((p) => this.placeOf(end, p))
      return !this.isPair(before, place) && a !== b && !both.some((p) => come.has(p))
    })
  }

  /** How many pairs there are fewer of one look and orbit, and from which places. */
  parted(before: Moment, end: Moment): { lost: number; gone: number[] } {
    const orbitOf = (place: number) =>
      Math.min(
        ...this.reach(this.own.find((each) => this.reach(each, end).includes(place)) ?? -1, end),
      )
    const all = (moment: Moment) =>
      this.places().flatMap((place) => {
        if (!this.isPair(moment, place)) return []
        const both = this.lyingIn(moment, place)
        const look = both.map((p) => lookKey(this.puzzle, p)).sort()
        return [{ place, look: `${orbitOf(place)} ${look.join()}`, pieces: both.sort().join() }]
      })
    const [were, are] = [all(before), all(end)]
    const count = (pairs: typeof were, look: string) =>
      pairs.filter((each) => each.look === look).length
    const fewer = new Map(
      were.map(({ look }) => [look, Math.max(0, count(were, look) - count(are, look))]),
    )
    return {
      lost: [...fewer.values()].reduce((sum, by) => sum + by, 0),
      gone: were
        .filter(
          ({ look, pieces }) =>
            (fewer.get(look) ?? 0) > 0 && are.every((each) => each.pieces !== pieces),
        )
        .map(({ place }) => place),
    }
  }

  /** Places of the smaller box that a piece of it can come to. */
  private reach(
    whole: number,
    { frame }: Moment = { state: new Uint8Array(), frame: 0 },
  ): number[] {
    return (this.joined.ways[whole] ?? []).map((r) => homeFilled(this.small, frame, whole, r) ?? -1)
  }

  /** Of the stage those of the kind that is joined between two moments. */
  sharing(before: Moment, after: Moment): number[] {
    const { puzzle, joined } = this
    const were = wholesIn(puzzle, joined, before.state, this.own)
    const are = wholesIn(puzzle, joined, after.state, this.own)
    const come = this.own.filter((whole) => are.has(whole) && !were.has(whole))
    const wanted = new Set(come.flatMap((whole) => this.reach(whole, after)))
    return this.own.filter((whole) => this.reach(whole, after).some((place) => wanted.has(place)))
  }

  /** The places of which a turn moves just one of two. */
  split(moment: Moment, turn: Parameters<typeof turnFreely>[2]) {
    const next = turnFreely(this.puzzle, moment.state, turn, new Uint8Array(moment.state.length))
    return this.places().flatMap((place) => {
      const both = this.lyingIn(moment, place)
      const moved = both.filter((p) => next[p] !== moment.state[p])
      return moved.length === 1
        ? [{ place, both, to: this.placeOf({ ...moment, state: next }, moved[0]) }]
        : []
    })
  }
}
