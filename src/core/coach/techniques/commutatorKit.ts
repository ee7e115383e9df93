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
import { IDENTITY, PRODUCT, ROTATION_COUNT } from '../../rotation'
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

/** What a stage has in its hand, the shortest first; that most are of no use is seen without looking at each. */
export interface Macros {
  readonly macros: readonly Macro[]
  /** In turns. */
  readonly lengths: Uint8Array
  /** The ways of the pieces' own places that each takes, one after another, and where those of each begin. */
  readonly ways: Int32Array
  readonly begins: Int32Array
  /** Those that go a way, from a place to where it takes what lies there, by their numbers. */
  readonly byWay: ReadonlyMap<number, readonly number[]>
}

/** The sequences for pieces whose places are `own`, where those in `asked` are asked about: 'own;asked'. */
export const commutatorKit = memoised((puzzle: Puzzle, key: string): Macros => {
  const [own, asked] = key.split(';').map((list) => list.split(',').map(Number))
  const kit = new Kit(puzzle, own, asked)
  const macros = kit.found()
  const begins = new Int32Array(macros.length + 1)
  const ways: number[] = []
  const byWay = new Map<number, number[]>()
  macros.forEach(({ places, rotations }, m) => {
    for (let i = 0; i < places.length; i++) {
      if (!kit.isOwn[places[i]]) continue
      const way = wayFrom(places[i], puzzle.place[24 * places[i] + rotations[i]])
      ways.push(way)
      const known = byWay.get(way)
      if (known) known.push(m)
      else byWay.set(way, [m])
    }
    begins[m + 1] = ways.length
  })
  const lengths = Uint8Array.from(macros, ({ turns }) => turns.length)
  return { macros, lengths, ways: Int32Array.from(ways), begins, byWay }
})

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

const made = (macros: readonly (Macro | undefined)[]): Macro[] =>
  macros.filter((macro) => macro !== undefined)

/** Of what is moved, as 24 place + rotation: its place, and a letter of its own. */
const MOVED = Array.from({ length: 256 * ROTATION_COUNT }, (_, each) => each)
const PLACE_OF = Uint8Array.from(MOVED, (each) => Math.floor(each / ROTATION_COUNT))
const LETTER = MOVED.map((each) => String.fromCharCode(each))

class Kit {
  private readonly turns: readonly Turn[]
  private readonly effects: ReadonlyMap<Turn, Effect>
  private readonly byDoing = new Map<string, Macro>()
  /** What a sequence moves, as 24 place + rotation: room that is used again for each. */
  private readonly moved: Uint16Array
  /** Whether a place is one of the stage's own. */
  readonly isOwn = new Uint8Array(256)

  constructor(
    private readonly puzzle: Puzzle,
    own: readonly number[],
    private readonly asked: readonly number[],
  ) {
    for (const place of own) this.isOwn[place] = 1
    this.moved = new Uint16Array(asked.length)
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
    return made(this.turns.map((turn) => this.addDoing([turn])))
  }

  private commutators(): Macro[] {
    const { puzzle, turns } = this
    const found: (Macro | undefined)[] = []
    const long: Parts[] = []
    for (const a of turns)
      for (const b of turns) {
        if (isParallel(puzzle, a, b)) continue
        const first = [a]
        found.push(this.addOf({ first, second: b }))
        const back = puzzle.turns[a.inverse]
        for (const c of turns) {
          if (!isParallel(puzzle, c, a)) long.push({ first: [a, b, back], second: c })
          if (!isParallel(puzzle, c, b))
            long.push({ first: [a, b, back, puzzle.turns[b.inverse]], second: c })
        }
      }
    // The long ones are worth their turns where they leave nearly all alone.
    for (const parts of long.sort((x, y) => x.first.length - y.first.length))
      found.push(this.addOf(parts, 3))
    return made(found)
  }

  private addOf(parts: Parts, most?: number): Macro | undefined {
    const { puzzle } = this
    const { first, second } = parts
    const turns = [...first, second, ...inverseOf(puzzle, first), puzzle.turns[second.inverse]]
    return this.addDoing(turns, parts, most)
  }

  /** Each with one more set-up turn, again and again. */
  private setUp(begun: readonly Macro[], goesOn: () => boolean): void {
    let level = begun
    while (level.length > 0 && goesOn()) {
      const next: (Macro | undefined)[] = []
      for (const macro of level)
        for (const turn of this.turns) {
          if (!goesOn()) return
          if (turn.grip !== macro.turns[0].grip) next.push(this.setUpBy(turn, macro))
        }
      level = made(next)
    }
  }

  /** What it takes from a place it takes then from where the set-up turn finds that; turns keep orbits apart. */
  private setUpBy(turn: Turn, { turns, parts, places, rotations }: Macro): Macro | undefined {
    const { puzzle, moved } = this
    const undo = puzzle.turns[turn.inverse]
    const [setUp, undone] = [this.effectOf(turn), this.effectOf(undo)]
    for (let i = 0; i < places.length; i++) {
      const [place, rotation] = [places[i], rotations[i]]
      const from = undone.to[place]
      const to = puzzle.place[24 * place + rotation]
      const by = PRODUCT[24 * undone.by[to] + PRODUCT[24 * rotation + setUp.by[from]]]
      moved[i] = 24 * from + by
    }
    moved.subarray(0, places.length).sort()
    return this.add(places.length, () => [turn, ...turns, undo], parts)
  }

  /** As it stands, if it moves no more than so many. */
  private addDoing(turns: readonly Turn[], parts?: Parts, most = Infinity): Macro | undefined {
    const { moved } = this
    const effects = turns.map((turn) => this.effectOf(turn))
    let count = 0
    for (const place of this.asked) {
      let [at, by] = [place, 0]
      for (const effect of effects) {
        by = PRODUCT[24 * effect.by[at] + by]
        at = effect.to[at]
      }
      if (by === 0) continue
      if (count === most) return undefined
      moved[count++] = 24 * place + by
    }
    return this.add(count, () => turns, parts)
  }

  /** Kept if it does what none before does: what it moves stands in order at the beginning of `moved`. */
  private add(count: number, turns: () => readonly Turn[], parts?: Parts): Macro | undefined {
    const { moved, isOwn } = this
    let isAny = false
    let does = ''
    for (let i = 0; i < count; i++) {
      isAny ||= isOwn[PLACE_OF[moved[i]]] === 1
      does += LETTER[moved[i]]
    }
    if (!isAny || this.byDoing.has(does)) return undefined
    const macro: Macro = { turns: turns(), ...(parts ? { parts } : {}), ...this.movedOnes(count) }
    this.byDoing.set(does, macro)
    return macro
  }

  private movedOnes(count: number): Pick<Macro, 'places' | 'rotations'> {
    const [places, rotations] = [new Uint8Array(count), new Uint8Array(count)]
    for (let i = 0; i < count; i++) {
      places[i] = PLACE_OF[this.moved[i]]
      rotations[i] = this.moved[i] % ROTATION_COUNT
    }
    return { places, rotations }
  }

  private effectOf = (turn: Turn): Effect => this.effects.get(turn) as Effect
}

function effectOf(puzzle: Puzzle, { name }: Turn): Effect {
  const { table } = sequence(puzzle, name)
  const by = Uint8Array.from(puzzle.pieces, (_, place) => table[24 * place])
  const to = Uint8Array.from(puzzle.pieces, (_, place) => puzzle.place[24 * place + by[place]])
  return { to, by }
}
