/**
 * Ways that are built as sequences of this kind are: a commutator A B A' B', or a part done twice or more. All with parts of a few turns are gone through, the shortest first; that none is shorter is not proven by it.
 *
 * [A, B] = W exactly if A B A' = W B. What A B A' does is found from the inside out, each turn of A put before and taken
 * back after, and of the last turn only as much as it takes to refuse it.
 */
import { IN, NO_PLACE, type Puzzle, type Turn } from '../puzzle/compile'
import { isParallel, simplify } from '../notation/rewrite'
import { PRODUCT, ROTATION_COUNT } from '../rotation'
import { inverseOf, start, turnFreely, type State } from '../state'
import { followedBy, undoing } from './moves'
import type { Completed } from './wish'

export interface Building {
  readonly turns: readonly Turn[]
  /** Only ways with fewer turns are of use. */
  readonly fewerThan: number
  /** Called every few milliseconds; true ends it. */
  readonly rest: () => Promise<boolean>
  readonly onBetter: (way: readonly Turn[]) => void
  /** Whether a way does what is wished, made on the engine. */
  readonly does: (way: readonly Turn[]) => boolean
}

/** Turns of A and B together, at most, and of the part that is done some times over. */
const MOST = { both: 6, inner: 3, repeated: 3, times: 4 }

/** Candidates between two rests. */
const BETWEEN_RESTS = 60_000

/** For puzzles whose turns are never blocked and never lead out of shape. */
export async function builtWays(
  puzzle: Puzzle,
  wanted: Pick<Completed, 'position' | 'pieces'> & { readonly isExact: boolean },
  building: Building,
): Promise<void> {
  await new Builder(puzzle, wanted, building).run()
}

/** What a turn makes of the piece of each place: its rotation and where it is then; and every rotation taken back. */
interface TurnTable {
  readonly rotations: Uint8Array
  readonly places: Uint8Array
  readonly back: Uint8Array
}

class Builder {
  private best: number
  private untilRest = BETWEEN_RESTS
  private isOver = false
  /** Pieces in the order in which they refuse soonest. */
  private readonly order: readonly number[]
  /** Turns that need not follow one: of its layer, and of two that can be exchanged the later. */
  private readonly idle: readonly Uint8Array[]
  private readonly moves: readonly State[]
  private readonly tables: readonly TurnTable[]
  /** Of the first piece that is looked at, by turn. */
  private readonly first: TurnTable
  /** Rotations in which that piece is where it shall be. */
  private readonly allowed = new Uint8Array(ROTATION_COUNT)

  constructor(
    private readonly puzzle: Puzzle,
    private readonly wanted: Pick<Completed, 'position' | 'pieces'> & {
      readonly isExact: boolean
    },
    private readonly building: Building,
  ) {
    this.best = building.fewerThan
    const { turns } = building
    const moved = wanted.pieces.filter((p) => wanted.position[p] !== 0)
    this.order = [...moved, ...wanted.pieces.filter((p) => wanted.position[p] === 0)]
    this.idle = turns.map((first) =>
      Uint8Array.from(turns, (second) =>
        Number(
          first.grip === second.grip ||
            (isParallel(puzzle, first, second) && second.grip < first.grip),
        ),
      ),
    )
    this.moves = turns.map((turn) =>
      turnFreely(puzzle, start(puzzle), turn, new Uint8Array(puzzle.pieces.length)),
    )
    this.tables = turns.map((turn, t) => ({
      rotations: this.moves[t],
      places: this.moves[t].map((r, p) => puzzle.place[ROTATION_COUNT * p + r]),
      back: Uint8Array.from({ length: ROTATION_COUNT * puzzle.pieces.length }, (_, at) => {
        const taken = puzzle.turns[turn.inverse]
        const r = at % ROTATION_COUNT
        return puzzle.carry[taken.grip][at] === IN
          ? PRODUCT[ROTATION_COUNT * taken.rotation + r]
          : r
      }),
    }))
    const [piece = 0] = this.order
    const at = ROTATION_COUNT * piece
    this.first = {
      rotations: Uint8Array.from(this.tables, ({ rotations }) => rotations[piece]),
      places: Uint8Array.from(this.tables, ({ places }) => places[piece]),
      back: Uint8Array.from(
        this.tables.flatMap(({ back }) => [...back.subarray(at, at + ROTATION_COUNT)]),
      ),
    }
  }

  async run(): Promise<void> {
    const isWhole = this.moves.every((move) =>
      move.every((r, p) => this.puzzle.place[ROTATION_COUNT * p + r] !== NO_PLACE),
    )
    if (!isWhole || this.order.length === 0) return
    const { position } = this.wanted
    const back = undoing(this.puzzle, position)
    for (let parts = 2; parts <= MOST.both && !this.isOver; parts++) {
      if (parts <= MOST.repeated) await this.repeats(parts)
      for (let inner = Math.min(MOST.inner, parts - 1); inner >= 1 && !this.isOver; inner--) {
        const outer = parts - inner
        if (outer < inner || 2 * parts >= this.best + 2) continue
        await this.commutators(position, outer, inner, false)
        // [A, B] taken back is [B, A]: so A is never the shorter one.
        if (outer > inner) await this.commutators(back, outer, inner, true)
      }
    }
  }

  private async rests(): Promise<boolean> {
    if (--this.untilRest > 0) return this.isOver
    this.untilRest = BETWEEN_RESTS
    if (await this.building.rest()) this.isOver = true
    return this.isOver
  }

  /** Each row of so many turns, the numbers of its turns and what it does. */
  private *rows(length: number, last = -1): Generator<readonly number[]> {
    for (let t = 0; t < this.moves.length; t++) {
      if (last >= 0 && this.idle[last][t]) continue
      if (length === 1) yield [t]
      else for (const rest of this.rows(length - 1, t)) yield [t, ...rest]
    }
  }

  private moveOf(row: readonly number[]): State {
    return row.reduce<State>(
      (state, t) => followedBy(this.puzzle, state, this.moves[t]),
      start(this.puzzle),
    )
  }

  private async repeats(length: number): Promise<void> {
    const { position } = this.wanted
    for (const row of this.rows(length)) {
      this.untilRest -= 4
      if (await this.rests()) return
      const once = this.moveOf(row)
      let state = once
      for (let times = 2; times <= MOST.times && times * length < this.best; times++) {
        state = followedBy(this.puzzle, state, once)
        if (this.order.every((p) => this.isThere(p, state[p], position)))
          this.tell(Array.from({ length: times }, () => row).flat())
      }
    }
  }

  private isThere(piece: number, rotation: number, wished: State): boolean {
    if (this.wanted.isExact) return rotation === wished[piece]
    const { look } = this.puzzle
    return look[ROTATION_COUNT * piece + rotation] === look[ROTATION_COUNT * piece + wished[piece]]
  }

  /** All [A, B] that do what is wished, A of so many turns outside and B of so many inside. */
  private async commutators(
    wished: State,
    outer: number,
    inner: number,
    isBack: boolean,
  ): Promise<void> {
    const insides = Array.from({ length: outer }, () => new Uint8Array(wished.length))
    for (const row of this.rows(inner)) {
      insides[0].set(this.moveOf(row))
      const target = followedBy(this.puzzle, wished, insides[0])
      const [piece] = this.order
      for (let r = 0; r < ROTATION_COUNT; r++)
        this.allowed[r] = Number(this.isThere(piece, r, target))
      this.conjugates(insides, 0, target, row, [], outer, isBack)
      if (await this.rests()) return
    }
  }

  /**
   * @param insides room for what is inside, at each depth; that of this depth is filled
   * @param around turns of A that stand next to B, the innermost last
   */
  private conjugates(
    insides: readonly State[],
    depth: number,
    target: State,
    row: readonly number[],
    around: readonly number[],
    left: number,
    isBack: boolean,
  ): void {
    const inside = insides[depth]
    const next = around[0]
    this.untilRest -= this.moves.length
    const size = this.moves.length
    const { places, rotations, back } = this.first
    for (let t = 0; t < size; t++) {
      // A turn stands before the one that was put there before it.
      if (next === undefined ? row.length === 1 && this.isOneLayer(t, row[0]) : this.idle[t][next])
        continue
      if (left > 1) {
        this.put(inside, t, insides[depth + 1])
        this.conjugates(insides, depth + 1, target, row, [t, ...around], left - 1, isBack)
        continue
      }
      // What one piece comes to refuses nearly all.
      const moved = PRODUCT[ROTATION_COUNT * inside[places[t]] + rotations[t]]
      if (this.allowed[back[ROTATION_COUNT * t + moved]] === 0) continue
      if (this.meets(inside, target, t)) this.tellCommutator([t, ...around], row, isBack)
    }
  }

  private isOneLayer(a: number, b: number): boolean {
    const { turns } = this.building
    return turns[a].grip === turns[b].grip
  }

  /** A turn, then what is inside, then the turn taken back. */
  private put(inside: State, t: number, into: State): void {
    const { rotations, places, back } = this.tables[t]
    for (let p = 0; p < into.length; p++)
      into[p] =
        back[ROTATION_COUNT * p + PRODUCT[ROTATION_COUNT * inside[places[p]] + rotations[p]]]
  }

  /** What a turn, what is inside, and the turn taken back make of the piece of a place. */
  private through(inside: State, place: number, t: number): number {
    const { rotations, places, back } = this.tables[t]
    const moved = PRODUCT[ROTATION_COUNT * inside[places[place]] + rotations[place]]
    return back[ROTATION_COUNT * place + moved]
  }

  private meets(inside: State, target: State, t: number): boolean {
    for (const p of this.order)
      if (!this.isThere(p, this.through(inside, p, t), target)) return false
    return true
  }

  private tellCommutator(
    outer: readonly number[],
    inner: readonly number[],
    isBack: boolean,
  ): void {
    const named = (all: readonly number[]) => all.map((t) => this.building.turns[t])
    const taken = (all: readonly Turn[]) => inverseOf(this.puzzle, all)
    const [a, b] = isBack ? [named(inner), named(outer)] : [named(outer), named(inner)]
    this.tellTurns([...a, ...b, ...taken(a), ...taken(b)])
  }

  private tell(row: readonly number[]): void {
    this.tellTurns(row.map((t) => this.building.turns[t]))
  }

  private tellTurns(all: readonly Turn[]): void {
    const way = simplify(this.puzzle, all)
    if (way.length >= this.best || !this.building.does(way)) return
    this.best = way.length
    this.building.onBetter(way)
  }
}
