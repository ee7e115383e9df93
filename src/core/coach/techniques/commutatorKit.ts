/**
 * What a stage that works by commutators has in its hand: single turns, A B A' B', A B A' C A B' A' C' and
 * [A, B] C [B, A] C', each set up by some turns and undone. Of those that do the same to the pieces that are asked
 * about the shortest is kept. Sequences that take just three of these round are set up until all are found, or as many
 * as anyone needs, so that there is nearly always a way on.
 */
import { layersOf } from '../../analysis/layers'
import { holdOf } from '../../analysis/placements'
import { memoised } from '../../memo'
import { inverseOf, isParallel, simplify } from '../../notation/rewrite'
import { sequence } from '../../notation/sequence'
import type { Puzzle, Turn } from '../../puzzle/compile'
import { IDENTITY, PRODUCT } from '../../rotation'
import { isInShape } from '../../scramble/scramble'
import { start, turnFreely } from '../../state'

/** What is done and what then, before both are taken back. */
export interface Parts {
  readonly first: readonly Turn[]
  readonly second: Turn
}

export interface Macro {
  readonly turns: readonly Turn[]
  /** Where it is a commutator that is set up. */
  readonly parts?: Parts
  /** The asked places from which it takes what lies there, and the rotations with which it does. */
  readonly places: Uint8Array
  readonly rotations: Uint8Array
}

/** By place: where a sequence takes what lies there, and with which rotation. */
interface Effect {
  readonly to: Uint8Array
  readonly by: Uint8Array
}

/** Sequences of all kinds that are kept. */
const MOST = 12_000
/** Beyond these, of those that take three round: where pieces can be turned in their places there are more than anyone needs. */
const MOST_THREE = 16_000

/** The sequences for pieces whose places are `own`, where those in `asked` are asked about: 'own;asked'. */
export const commutatorKit = memoised((puzzle: Puzzle, key: string): MacrosByWay => {
  const [own, asked] = key.split(';').map((list) => list.split(',').map(Number))
  const byWay = new Map<number, { macro: Macro; ways: readonly number[] }[]>()
  for (const macro of new Kit(puzzle, new Set(own), asked).found()) {
    const ways = [...macro.places].flatMap((from, i) =>
      own.includes(from) ? [wayFrom(from, puzzle.place[24 * from + macro.rotations[i]])] : [],
    )
    for (const way of ways) {
      const known = byWay.get(way)
      if (known) known.push({ macro, ways })
      else byWay.set(way, [{ macro, ways }])
    }
  }
  return new Map([...byWay].map(([way, list]) => [way, inARow(list)]))
})

const inARow = (list: readonly { macro: Macro; ways: readonly number[] }[]): MacrosOfWay => {
  const begins = new Int32Array(list.length + 1)
  list.forEach(({ ways }, m) => (begins[m + 1] = begins[m] + ways.length))
  return {
    macros: list.map(({ macro }) => macro),
    lengths: Uint8Array.from(list, ({ macro }) => macro.turns.length),
    begins,
    ways: Int32Array.from(list.flatMap(({ ways }) => [...ways])),
  }
}

/** The shortest first; that most of them are of no use is seen without looking at each. */
export interface MacrosOfWay {
  readonly macros: readonly Macro[]
  /** In turns. */
  readonly lengths: Uint8Array
  /** The ways of the pieces' own places that each takes, one after another, and where those of each begin. */
  readonly ways: Int32Array
  readonly begins: Int32Array
}

/** By a place and where it takes what lies there. */
export type MacrosByWay = ReadonlyMap<number, MacrosOfWay>

export const wayFrom = (from: number, to: number): number => 256 * from + to

/** Room for a mark at every way. */
export const WAYS = 256 * 256

/** Turns of layers that leave the finished puzzle in its shape and in its hold, so that they can follow each other. */
export const steadyTurns = (puzzle: Puzzle): readonly Turn[] => steadyTurnsOf(puzzle, '')

const steadyTurnsOf = memoised((puzzle: Puzzle): readonly Turn[] => {
  const finished = start(puzzle)
  const isSteady = (turn: Turn) => {
    const turned = turnFreely(puzzle, finished, turn, new Uint8Array(finished.length))
    return isInShape(puzzle, turned) && holdOf(puzzle, turned) === IDENTITY
  }
  return layersOf(puzzle).flatMap((grip) =>
    puzzle.turns.filter((turn) => turn.grip === grip && isSteady(turn)),
  )
})

class Kit {
  private readonly turns: readonly Turn[]
  private readonly effects: ReadonlyMap<Turn, Effect>
  private readonly byDoing = new Map<string, Macro>()

  constructor(
    private readonly puzzle: Puzzle,
    private readonly own: ReadonlySet<number>,
    private readonly asked: readonly number[],
  ) {
    this.turns = steadyTurns(puzzle)
    this.effects = new Map(this.turns.map((turn) => [turn, effectOf(puzzle, turn)]))
  }

  found(): readonly Macro[] {
    const begun = [...this.singles(), ...this.commutators()]
    this.setUp(begun, () => this.byDoing.size < MOST)
    const three = [...this.byDoing.values()].filter(({ places }) => places.length === 3)
    const most = this.byDoing.size + MOST_THREE
    this.setUp(three, () => this.byDoing.size < most)
    return [...this.byDoing.values()]
      .map((macro) => {
        const turns = simplify(this.puzzle, macro.turns)
        // A set-up that meets what it sets up is no longer told from it.
        const isWhole = turns.length === macro.turns.length
        return { ...macro, turns, parts: isWhole ? macro.parts : undefined }
      })
      .sort((a, b) => a.turns.length - b.turns.length)
  }

  private singles(): Macro[] {
    return this.turns.flatMap((turn) => this.addDoing([turn], this.effectOf(turn)))
  }

  private commutators(): Macro[] {
    const { puzzle, turns } = this
    const made: Macro[] = []
    const long: Parts[] = []
    for (const a of turns)
      for (const b of turns) {
        if (isParallel(puzzle, a, b)) continue
        const first = [a]
        made.push(...this.addOf({ first, second: b }))
        const back = puzzle.turns[a.inverse]
        for (const c of turns) {
          if (!isParallel(puzzle, c, a)) long.push({ first: [a, b, back], second: c })
          if (!isParallel(puzzle, c, b))
            long.push({ first: [a, b, back, puzzle.turns[b.inverse]], second: c })
        }
      }
    // The long ones are worth their turns where they leave nearly all alone.
    for (const parts of long.sort((x, y) => x.first.length - y.first.length))
      made.push(...this.addOf(parts, 3))
    return made
  }

  private addOf(parts: Parts, most = Infinity): Macro[] {
    const { puzzle } = this
    const { first, second } = parts
    const turns = [...first, second, ...inverseOf(puzzle, first), puzzle.turns[second.inverse]]
    const effect = turns.map((turn) => this.effectOf(turn)).reduce((a, b) => this.then(a, b))
    return this.addDoing(turns, effect, parts, most)
  }

  /** Each with one more set-up turn, again and again. */
  private setUp(begun: readonly Macro[], goesOn: () => boolean): void {
    let level = begun
    while (level.length > 0 && goesOn()) {
      const next: Macro[] = []
      for (const macro of level)
        for (const turn of this.turns) {
          if (!goesOn()) return
          if (turn.grip !== macro.turns[0].grip) next.push(...this.setUpBy(turn, macro))
        }
      level = next
    }
  }

  /** What it takes from a place it takes then from where the set-up turn finds that; turns keep orbits apart. */
  private setUpBy(turn: Turn, { turns, parts, places, rotations }: Macro): Macro[] {
    const { puzzle } = this
    const undo = puzzle.turns[turn.inverse]
    const [setUp, undone] = [this.effectOf(turn), this.effectOf(undo)]
    const moved = Array.from(places, (place, i) => {
      const from = undone.to[place]
      const to = puzzle.place[24 * place + rotations[i]]
      const by = PRODUCT[24 * undone.by[to] + PRODUCT[24 * rotations[i] + setUp.by[from]]]
      return 24 * from + by
    }).sort((a, b) => a - b)
    return this.add([turn, ...turns, undo], moved, parts)
  }

  private addDoing(
    turns: readonly Turn[],
    { by }: Effect,
    parts?: Parts,
    most = Infinity,
  ): Macro[] {
    const moved = this.asked.flatMap((place) => (by[place] === 0 ? [] : [24 * place + by[place]]))
    return moved.length > most ? [] : this.add(turns, moved, parts)
  }

  /** Kept if it does what none before does; what it moves as 24 place + rotation, in order. */
  private add(turns: readonly Turn[], moved: readonly number[], parts?: Parts): Macro[] {
    const places = moved.map((each) => Math.floor(each / 24))
    if (!places.some((place) => this.own.has(place))) return []
    const does = String.fromCharCode(...moved)
    if (this.byDoing.has(does)) return []
    const made: Macro = {
      turns,
      ...(parts ? { parts } : {}),
      places: Uint8Array.from(places),
      rotations: Uint8Array.from(moved, (each) => each % 24),
    }
    this.byDoing.set(does, made)
    return [made]
  }

  private effectOf = (turn: Turn): Effect => this.effects.get(turn) as Effect

  private then(a: Effect, b: Effect): Effect {
    const count = a.to.length
    const to = new Uint8Array(count)
    const by = new Uint8Array(count)
    for (let place = 0; place < count; place++) {
      const middle = a.to[place]
      to[place] = b.to[middle]
      by[place] = PRODUCT[24 * b.by[middle] + a.by[place]]
    }
    return { to, by }
  }
}

function effectOf(puzzle: Puzzle, { name }: Turn): Effect {
  const { table } = sequence(puzzle, name)
  const by = Uint8Array.from(puzzle.pieces, (_, place) => table[24 * place])
  const to = Uint8Array.from(puzzle.pieces, (_, place) => puzzle.place[24 * place + by[place]])
  return { to, by }
}
