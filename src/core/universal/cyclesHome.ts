/** Three-cycles that bring all pieces of an orbit home, each by set up, cycle, undo. */
import type { Puzzle, Turn } from '../puzzle/compile'
import { seededRandom, type Random } from '../random'
import { IDENTITY, INVERSE, PRODUCT, type Rotation } from '../rotation'
import { inverseOf, type State } from '../state'
import { workOf } from './orbitsAtWork'
import type { Cycle, Found, Setups } from './setups'

/** A piece that could be the third of a series. */
export interface ThirdChoice {
  /** Where it lies. */
  readonly place: number
  /** How many of the three come home. */
  readonly arrive: number
  /** Turns of the series. */
  readonly length: number
}

export interface CycleStep {
  readonly cycle: Cycle
  /** What lies in its three places before, in their order. */
  readonly pieces: readonly number[]
  /** Other third pieces for the same first one, those with most arriving first. */
  readonly thirds: readonly ThirdChoice[]
}

export function turnsOfCycle(puzzle: Puzzle, { setup, base }: Cycle): Turn[] {
  return [...setup, ...base.turns, ...inverseOf(puzzle, setup)]
}

/** Which pieces the first series shall take, by the places in which they lie. */
export interface Wish {
  readonly first: number
  readonly third: number
}

/** A part of an orbit. */
export interface Part {
  readonly wanted: readonly number[]
  readonly kept: readonly number[]
}

/** Cycles looked at, over all attempts to find a shorter way. */
const BUDGET = 30_000
/** How far chance may prefer a worse cycle in later attempts. */
const CHANCE = 0.5

/**
 * The shortest of several attempts: the best cycle each time, then with chance in the choice.
 *
 * @param wish what the first series shall take, if there is one that does
 * @param part where only a part of the orbit shall be right: which places, and which of them are right
 *   already and stay so; what lies elsewhere may go anywhere
 * @returns undefined if they do not get there; `first` is the length of the first attempt
 */
export function cyclesHome(
  puzzle: Puzzle,
  orbit: number,
  setups: Setups,
  from: State,
  wish?: Wish,
  part?: Part,
  budget = BUDGET,
): { steps: CycleStep[]; first: number } | undefined {
  const begun = new Attempt(puzzle, orbit, setups, from, undefined, part)
  let best = begun.run(wish)
  if (!best) return undefined
  const first = lengthOf(best)
  let looked = begun.looked
  for (let seed = 1; looked < budget && best.length > 1 && wish === undefined; seed++) {
    const attempt = new Attempt(puzzle, orbit, setups, from, seededRandom(seed), part)
    const tried = attempt.run()
    looked += attempt.looked + 1
    if (tried && lengthOf(tried) < lengthOf(best)) best = tried
  }
  const offered = new Attempt(puzzle, orbit, setups, from).withThirds(best)
  return { steps: offered, first }
}

const lengthOf = (steps: readonly CycleStep[]): number =>
  steps.reduce((sum, { cycle }) => sum + cycle.length, 0)

class Attempt {
  looked = 0
  private readonly content = new Map<number, { home: number; rotation: Rotation }>()
  private readonly places: readonly number[]
  private readonly found: CycleStep[] = []

  constructor(
    puzzle: Puzzle,
    orbit: number,
    private readonly setups: Setups,
    from: State,
    private readonly random?: Random,
    private readonly part?: Part,
  ) {
    this.places = workOf(puzzle).orbits[orbit].orbit.places
    for (const p of this.places)
      this.content.set(puzzle.place[24 * p + from[p]], { home: p, rotation: from[p] })
  }

  run(wish?: Wish): CycleStep[] | undefined {
    const limit = 4 * this.places.length + 8
    while (this.found.length < limit) {
      const wrong = this.wrong()
      if (!wrong.some((place) => this.isWanted(place))) return this.found
      const wished = wish && this.found.length === 0 ? this.wished(wish, wrong) : undefined
      const next = wished ?? this.best(wrong)
      if (next) {
        this.make(next)
        continue
      }
      const pair = this.twistPair(wrong)
      if (!pair) return undefined
      pair.forEach((cycle) => this.make(cycle))
    }
    return undefined
  }

  /** The same steps, each with what could be its third piece instead. */
  withThirds(steps: readonly CycleStep[]): CycleStep[] {
    return steps.map((step) => {
      const open = new Set(this.wrong())
      const thirds = this.thirdsFor(step.cycle, open)
      this.move(step.cycle)
      return { ...step, thirds }
    })
  }

  private wrong(): number[] {
    return this.places.filter((place) => !this.isHome(place))
  }

  private isHome(place: number): boolean {
    const here = this.content.get(place)
    return here?.home === place && here.rotation === IDENTITY
  }

  private at(place: number) {
    const here = this.content.get(place)
    if (!here) throw new Error('a place of the orbit is empty')
    return here
  }

  private make(cycle: Found): void {
    const pieces = cycle.places.map((place) => this.at(place).home)
    this.move(cycle)
    this.found.push({ cycle: this.setups.cycle(cycle), pieces, thirds: [] })
  }

  private move(cycle: Pick<Found, 'places' | 'rotations'>): void {
    const before = cycle.places.map((place) => this.at(place))
    cycle.places.forEach((_, i) => {
      const { home, rotation } = before[i]
      this.content.set(cycle.places[(i + 1) % 3], {
        home,
        rotation: PRODUCT[24 * cycle.rotations[i] + rotation],
      })
    })
  }

  /** How many of its three a cycle brings home: of those that are wanted, or of all. */
  private arrive({ places, rotations }: Found, ofAll = false): number {
    return places.filter((place, i) => {
      const { home, rotation } = this.at(place)
      if (!ofAll && !this.isWanted(home)) return false
      return home === places[(i + 1) % 3] && PRODUCT[24 * rotations[i] + rotation] === IDENTITY
    }).length
  }

  private isWanted(place: number): boolean {
    return this.part === undefined || this.part.wanted.includes(place)
  }

  /** Places whose pieces may be moved: what is wrong, and what no one has asked for. */
  private open(wrong: readonly number[]): ReadonlySet<number> {
    const { part } = this
    return new Set(
      part
        ? this.places.filter(
            (place) =>
              !part.kept.includes(place) && (!part.wanted.includes(place) || wrong.includes(place)),
          )
        : wrong,
    )
  }

  /** What a cycle brings home, per turn. */
  private best(wrong: readonly number[]): Found | undefined {
    const open = this.open(wrong)
    let best: Found | undefined
    let bestScore = -Infinity
    for (const place of wrong) {
      const { home, rotation } = this.at(place)
      if (home === place || !this.isWanted(home)) continue
      for (const cycle of this.setups.taking(place, home, INVERSE[rotation])) {
        if (!open.has(cycle.places[2])) continue
        this.looked++
        const chance = this.random ? 1 + CHANCE * this.random.unit() : 1
        const score = (chance * this.arrive(cycle)) / (cycle.length + 2)
        if (score > bestScore) {
          bestScore = score
          best = cycle
        }
      }
    }
    return best
  }

  /** The best cycle that takes a piece home with a certain third one. */
  private wished({ first, third }: Wish, wrong: readonly number[]): Found | undefined {
    return this.cyclesFrom(first, new Set(wrong))
      .filter(({ places }) => places[2] === third)
      .reduce<Found | undefined>(
        (best, cycle) =>
          best === undefined || isBetter(this.choiceOf(cycle), this.choiceOf(best)) ? cycle : best,
        undefined,
      )
  }

  /** Cycles that bring home what lies in a place, with a third piece that is not right yet. */
  private cyclesFrom(place: number, open: ReadonlySet<number>): readonly Found[] {
    if (!this.places.includes(place)) return []
    const { home, rotation } = this.at(place)
    if (home === place) return []
    return this.setups
      .taking(place, home, INVERSE[rotation])
      .filter(({ places }) => open.has(places[2]))
  }

  private choiceOf(cycle: Found): ThirdChoice {
    return { place: cycle.places[2], arrive: this.arrive(cycle, true), length: cycle.length }
  }

  /** For the first piece and place of a cycle, every other piece that could be the third. */
  private thirdsFor({ places }: Pick<Found, 'places'>, open: ReadonlySet<number>): ThirdChoice[] {
    const byPlace = new Map<number, ThirdChoice>()
    for (const cycle of this.cyclesFrom(places[0], open)) {
      if (cycle.places[2] === places[2]) continue
      const choice = this.choiceOf(cycle)
      const known = byPlace.get(choice.place)
      if (!known || isBetter(choice, known)) byPlace.set(choice.place, choice)
    }
    return [...byPlace.values()].sort((a, b) => (isBetter(a, b) ? -1 : 1))
  }

  /**
   * Two cycles of three places, one way round and back, that turn one piece in its place, leave one as
   * it is and turn the third by what is left. Or all three where that makes all of them right.
   */
  private twistPair(wrong: readonly number[]): [Found, Found] | undefined {
    const a =
      wrong.find((place) => this.at(place).home === place && this.isWanted(place)) ??
      wrong.find((place) => this.isWanted(place)) ??
      wrong[0]
    let best: [Found, Found] | undefined
    let bestScore = -Infinity
    const others = this.places.filter((place) => place !== a)
    for (const b of wrong.filter((place) => place !== a).slice(0, 4))
      for (const c of others.filter((place) => place !== b).slice(0, 8))
        for (const one of this.setups.through(a, b, c))
          for (const other of this.setups.through(a, c, b)) {
            this.looked++
            const gain = this.gainOfPair(one, other)
            if (gain <= 0) continue
            const chance = this.random ? 1 + CHANCE * this.random.unit() : 1
            const score = (chance * gain) / (one.length + other.length)
            if (score > bestScore) {
              bestScore = score
              best = [one, other]
            }
          }
    return best
  }

  /** a to b and back, b to c and back, c to a and back: what comes right less what goes wrong. */
  private gainOfPair(one: Found, other: Found): number {
    const back = new Map(other.places.map((place, i) => [place, other.rotations[i]]))
    return one.places.reduce((sum, place, i) => {
      const turn = PRODUCT[24 * (back.get(one.places[(i + 1) % 3]) ?? 0) + one.rotations[i]]
      const { home, rotation } = this.at(place)
      // What is wrong anyway may go anywhere, where only some places are asked for.
      if (home !== place) return this.part ? sum : sum - 1
      const was = rotation === IDENTITY
      const is = PRODUCT[24 * turn + rotation] === IDENTITY
      return sum + Number(is) - Number(was)
    }, 0)
  }
}

const isBetter = (a: ThirdChoice, b: ThirdChoice): boolean =>
  a.arrive !== b.arrive ? a.arrive > b.arrive : a.length < b.length
