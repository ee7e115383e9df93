/** What cards say of pairs, checked on the engine: how two come together, what is taken apart, strips, and what else may be. */
import { wholesIn, type Joined } from '../analysis/joined'
import { ORDINALS, placeNamesOf } from '../analysis/placeNames'
import { homeFilled, who } from '../analysis/who'
import type { Scheme } from '../puzzle/colours'
import type { Puzzle } from '../puzzle/compile'
import type { Rotation } from '../rotation'
import { turnFreely, type State } from '../state'
import { inWords, kindPlural, plural } from '../phrases'
import type { ReadStep } from './readStep.testing'

export interface Moment {
  readonly state: State
  readonly frame: Rotation
}

export interface PairsTold {
  readonly puzzle: Puzzle
  readonly scheme: Scheme
  readonly step: ReadStep
  readonly joined: Joined
  /** Pieces of the smaller box that the stage is about. */
  readonly own: readonly number[]
  /** After so many of the step's turns. */
  readonly at: (turns: number) => Moment
}

/** What does not hold. */
export function faultsOfPairs(told: PairsTold): string[] {
  const pairs = new Pairs(told)
  return [
    ...(told.step.lines ?? []).flatMap(({ sentence }) => pairs.joining(sentence)),
    ...pairs.takenApart(),
    ...pairs.parted(),
    ...pairs.strips(),
    ...pairs.offers(),
  ]
}

class Pairs {
  private readonly note: string
  private readonly held: Moment
  private readonly end: Moment

  constructor(private readonly told: PairsTold) {
    const { step, at } = told
    this.note = step.note ?? ''
    this.held = at(step.turns.filter(({ role }) => role === 'hold').length)
    this.end = at(step.turns.length)
  }

  /** The piece of the smaller box in whose home another lies. */
  private placeOf({ state, frame }: Moment, piece: number): number {
    const { puzzle, joined } = this.told
    const home = homeFilled(puzzle, frame, piece, state[piece])
    return home === undefined ? -1 : joined.wholeOf[home]
  }

  private nameOf = (moment: Moment, piece: number): string | undefined =>
    placeNamesOf(this.told.puzzle, moment.frame).names[
      homeFilled(this.told.puzzle, moment.frame, piece, moment.state[piece]) ?? -1
    ]

  private lyingIn(moment: Moment, place: number): number[] {
    return this.told.puzzle.pieces.flatMap((_, p) => (this.placeOf(moment, p) === place ? [p] : []))
  }

  private places = (): number[] =>
    this.told.own.filter((whole) => this.told.joined.partsOf[whole].length === 2)

  /** Whether the two in a place are parts of one, or look so. */
  private isPair(moment: Moment, place: number): boolean {
    const { puzzle, joined, own } = this.told
    const { small, partsOf } = joined
    const [a, b] = this.lyingIn(moment, place)
    const looks = (p: number) => {
      const at = 24 * p + moment.state[p]
      return `${puzzle.slot[at]} ${puzzle.look[at]}`
    }
    const seen = new Set([looks(a), looks(b)])
    return own.some((whole) =>
      joined.ways[whole].some(
        (r) =>
          homeFilled(small, moment.frame, whole, r) === place &&
          partsOf[whole].every((p) =>
            seen.has(`${puzzle.slot[24 * p + r]} ${puzzle.look[24 * p + r]}`),
          ),
      ),
    )
  }

  /** '… are X and Y. The second 2R2 joins them: it brings the first, by then Z, across to the second.' */
  joining(sentence: string): string[] {
    if (!sentence.includes('joins them')) return []
    const { puzzle, step, at } = this.told
    const wrong = [`it does not join them: ${sentence}`]
    const both =
      /^The .+? are (the .+?) and (the .+?)\./.exec(sentence) ??
      /^The .+? is (the .+?)\. Its partner is (the .+?)\./.exec(sentence)
    const said =
      /(?:The (\w+) )?(\S+) joins them: it brings the (first|second)(?:, by then (the .+?),)?( across)? to the (first|second)\.$/.exec(
        sentence,
      )
    if (!both || !said) return wrong
    const [, nth, name, one, then, across, other] = said
    const numbers = step.turns.flatMap((turn, i) =>
      turn.name === name && turn.role !== 'hold' ? [i] : [],
    )
    const number = numbers[nth === undefined ? 0 : ORDINALS.indexOf(nth)]
    if (number === undefined || (nth === undefined) !== (numbers.length === 1) || one === other)
      return wrong
    const pair = [both[1], both[2]].map((place) =>
      puzzle.pieces.findIndex((_, p) => this.nameOf(this.held, p) === place),
    )
    const [moves, waits] = one === 'first' ? pair : [pair[1], pair[0]]
    const before = at(number)
    const areJoined = (moment: Moment) =>
      this.placeOf(moment, moves) >= 0 &&
      this.placeOf(moment, moves) === this.placeOf(moment, waits)
    const afterwards = step.turns.slice(number).map((_, i) => at(number + i + 1))
    const slot = (moment: Moment, p: number) => puzzle.slot[24 * p + moment.state[p]]
    // What equal strips exchange is not seen: each lies in a pair all the same.
    const stays = this.note.includes('strips are made equal')
      ? (moment: Moment) =>
          [moves, waits].every((p) => this.isPair(moment, this.placeOf(moment, p)))
      : areJoined
    const isSo =
      !areJoined(before) &&
      areJoined(afterwards[0]) &&
      afterwards.every(stays) &&
      slot(before, waits) === slot(afterwards[0], waits) &&
      this.nameOf(before, moves) === (then ?? this.nameOf(this.held, moves)) &&
      (across !== undefined) ===
        (puzzle.turnByName.get(name)?.inverse === puzzle.turnByName.get(name)?.index)
    return isSo ? [] : wrong
  }

  /** Places whose two are no pair and lie in one place no longer, but for those that joined pairs come from. */
  private apart(end: Moment): number[] {
    const wasIn = new Set(
      this.places().flatMap((place) =>
        this.isPair(this.held, place) ? this.lyingIn(this.held, place) : [],
      ),
    )
    const joined = new Set(
      this.places()
        .flatMap((place) => (this.isPair(end, place) ? this.lyingIn(end, place) : []))
        .filter((p) => !wasIn.has(p)),
    )
    return this.places().filter((place) => {
      const both = this.lyingIn(this.held, place)
      const [a, b] = both.map((p) => this.placeOf(end, p))
      return !this.isPair(this.held, place) && a !== b && !both.some((p) => joined.has(p))
    })
  }

  private smallName = (moment: Moment, place: number): string | undefined =>
    placeNamesOf(this.told.joined.small, moment.frame).names[place]

  /** Pairs of one look and orbit that there are fewer of afterwards. */
  parted(): string[] {
    const one = /The pair at (the .+?) is parted for it\./.exec(this.note)
    const some = /(\w+) pairs? (?:is|are) parted for it\./.exec(this.note)
    if (!one && !some) return []
    const { own, puzzle, scheme } = this.told
    const orbitOf = (place: number) => {
      const whole = own.find((each) => this.reach(each).includes(place)) ?? -1
      return Math.min(...this.reach(whole))
    }
    const all = (moment: Moment) =>
      this.places()
        .filter((place) => this.isPair(moment, place))
        .map((place) => {
          const both = this.lyingIn(moment, place)
          const look = both.map((p) => who(puzzle, scheme, p)).sort()
          return { place, look: `${orbitOf(place)} ${look.join()}`, pieces: both.sort().join() }
        })
    const [before, after] = [all(this.held), all(this.end)]
    const fewer = [...new Set(before.map(({ look }) => look))].map((look) => {
      const count = (pairs: typeof before) => pairs.filter((each) => each.look === look).length
      return { look, by: Math.max(0, count(before) - count(after)) }
    })
    const lost = fewer.reduce((sum, { by }) => sum + by, 0)
    const gone = before.filter(
      (each) =>
        fewer.some(({ look, by }) => look === each.look && by > 0) &&
        after.every(({ pieces }) => pieces !== each.pieces),
    )
    const isSo = one
      ? lost === 1 && gone.length === 1 && this.smallName(this.held, gone[0].place) === one[1]
      : inWords(lost) === some?.[1].toLowerCase()
    return isSo ? [] : [`parted is something else: ${this.note}`]
  }

  /** Places of the smaller box that a piece of it can come to. */
  private reach(whole: number): number[] {
    const { joined } = this.told
    return (joined.ways[whole] ?? []).map(
      (r) => homeFilled(joined.small, this.end.frame, whole, r) ?? -1,
    )
  }

  takenApart(): string[] {
    const found =
      /Taken apart for it: what lies (?:at (.+?), no pair yet|in (\w+) places, no pairs yet)\./.exec(
        this.note,
      )
    if (!found) return []
    const places = this.apart(this.end)
    const isSo =
      found[1] === undefined
        ? inWords(places.length) === found[2]
        : found[1]
            .split(/, (?=the )| and (?=the )/)
            .every((name) => places.some((place) => this.smallName(this.held, place) === name))
    return isSo ? [] : [`taken apart is something else: ${this.note}`]
  }

  /** Strips that look the same before the first half turn and before the second. */
  strips(): string[] {
    if (!this.note.includes('strips are made equal')) return []
    const { puzzle, joined, step, own, at } = this.told
    const said =
      /Before the first (\S+): (.+?); so it changes the two pairs alone\. Before the second: (.+?); so it only mends the rest\./.exec(
        this.note,
      )
    if (!said) return [`no strips: ${this.note}`]
    const [, name, first, second] = said
    const numbers = step.turns.flatMap((turn, i) => (turn.name === name ? [i] : []))
    if (numbers.length !== 2) return [`not twice: ${this.note}`]
    const turn = puzzle.turnByName.get(name)
    if (!turn || turn.inverse !== turn.index) return [`no half turn: ${this.note}`]
    /** The places of the kind that are told, of which the turn moves just one of two. */
    const split = (moment: Moment) => {
      const next = turnFreely(puzzle, moment.state, turn, new Uint8Array(moment.state.length))
      return this.places().flatMap((place) => {
        const both = this.lyingIn(moment, place)
        const moved = both.filter((p) => next[p] !== moment.state[p])
        return moved.length === 1
          ? [{ place, both, to: this.placeOf({ ...moment, state: next }, moved[0]) }]
          : []
      })
    }
    const problems: string[] = []
    const told = [first, second].map((list) =>
      list
        .split('; ')
        .map((each) => [...(/^(the .+?) and (the .+?) both hold (.+)$/.exec(each) ?? [])]),
    )
    told.forEach((list, i) => {
      const moment = at(numbers[i])
      const all = split(moment)
      for (const [text, a, b, noun] of list) {
        const [one, other] = [a, b].map((place) =>
          all.find((each) => this.smallName(moment, each.place) === place),
        )
        const isSo =
          one !== undefined &&
          other !== undefined &&
          one.to === other.place &&
          [...one.both, ...other.both].every(
            (p) => kindPlural(who(puzzle, this.told.scheme, p)) === `the ${noun}`,
          )
        if (!isSo) problems.push(`these strips differ: ${text}`)
      }
    })
    // Of the kind no more is exchanged than is told, but for the two pairs at first.
    const named = (i: number) => told[i].flatMap(([, a, b]) => [a, b])
    const kind = new Set(
      own.flatMap((whole) => {
        const reach = this.reach(whole)
        const isTold = reach.some((place) =>
          named(0).includes(this.smallName(this.held, place) ?? ''),
        )
        return isTold ? reach : []
      }),
    )
    const count = (i: number) =>
      split(at(numbers[i])).filter(({ place }) => kind.has(place)).length - named(i).length
    if (count(0) !== 2 || count(1) !== 0)
      problems.push(`other strips are exchanged too: ${this.note}`)
    const opened = wholesIn(puzzle, joined, at(numbers[0] + 1).state, own)
    if (own.some((whole) => kind.has(whole) && !opened.has(whole)))
      problems.push(`the first does not join the two: ${this.note}`)
    return problems
  }

  /** 'What lies at X: five turns, 2R2 …': these join the same pair and part no other. */
  offers(): string[] {
    const { puzzle, step } = this.told
    const counts: number[] = []
    const wrong = step.others.flatMap(({ piece, first, sentence }) => {
      const said = /^What lies at (the .+?): (\w+ turns?), (.+)\.$/.exec(sentence)
      if (!said) return [`an offer of another kind: ${sentence}`]
      const names = said[3].split(' ')
      counts.push(names.length)
      const state = new Uint8Array(this.held.state)
      for (const name of names) {
        const turn = puzzle.turnByName.get(name)
        if (!turn) return [`no turn ${name}: ${sentence}`]
        turnFreely(puzzle, state, turn, state)
      }
      const end = { state, frame: this.held.frame }
      const index = (id: string | undefined) => puzzle.pieces.findIndex((each) => each.id === id)
      const [own, paired] = [index(piece), index(first)]
      const place = this.placeOf(this.held, own)
      const whole = (moment: Moment, p: number) =>
        this.places().includes(this.placeOf(moment, p)) &&
        this.isPair(moment, this.placeOf(moment, p))
      const pairs = (moment: Moment) =>
        wholesIn(puzzle, this.told.joined, moment.state, this.told.own).size
      const isSo =
        said[2] === plural(names.length, 'turn') &&
        this.smallName(this.held, place) === said[1] &&
        this.apart(end).includes(place) &&
        !whole(this.held, paired) &&
        whole(end, paired) &&
        whole(this.end, paired) &&
        pairs(end) > pairs(this.held)
      return isSo ? [] : [`no such offer: ${sentence}`]
    })
    if (counts.some((count, i) => i > 0 && count < counts[i - 1]))
      wrong.push('what is offered is not in order')
    return wrong
  }
}
