/**
 * What was meant by a sequence that does not do what it should: of all readings that do, those with the fewest edits.
 * An edit is what goes wrong when a sequence is told by mouth: a turn left out or added, turned the other way, half
 * instead of a quarter round, with or without its neighbour, of another layer, two neighbours exchanged, a part done
 * once too often or too seldom.
 *
 * All places for the edits are gone through, so what is found is all there is. Turns before an edit are done once for
 * all that follows, and turns after the last one are looked up in tables of what is left of the sequence.
 */
import { layersOf, slabsOf } from '../analysis/layers'
import { memoised } from '../memo'
import { isParallel, simplify } from '../notation/rewrite'
import { sequenceOf } from '../notation/sequence'
import { NO_PLACE, type Puzzle, type Turn } from '../puzzle/compile'
import type { Direction } from '../puzzle/directions'
import { INVERSE, multiply, type Rotation } from '../rotation'
import { blockOf, start, turnFreely, type State } from '../state'
import { sameImage } from '../coach/goal'

export type EditKind =
  'back' | 'half' | 'left out' | 'added' | 'exchanged' | 'with neighbour' | 'other layer' | 'part'

export interface Edit {
  /** Which turn of what was heard, from 0; that before which a turn was left out. */
  readonly at: number
  readonly kind: EditKind
  readonly was: readonly string[]
  readonly is: readonly string[]
}

export interface Reading {
  readonly turns: readonly Turn[]
  /** In the order of the sequence. */
  readonly edits: readonly Edit[]
}

export interface Wish {
  /** Pieces that lie at the end as they lay before, up to the hold. */
  readonly keep: readonly number[]
  /** Where the sequence begins; the finished puzzle if not given. */
  readonly from?: State
  /** What pieces shall be at the end, all of it in one hold. */
  readonly ends?: readonly End[]
}

export interface End {
  readonly must: 'home' | 'faced' | 'placed'
  readonly pieces: readonly number[]
  /** Where `faced` looks. */
  readonly side?: Direction
}

/** How far from what was heard: of as many edits those are told first that are slips of the tongue. */
const UNLIKELY: Readonly<Record<EditKind, number>> = {
  back: 1,
  half: 2,
  'left out': 3,
  added: 3,
  'with neighbour': 3,
  exchanged: 4,
  part: 4,
  'other layer': 5,
}

/** Turns of a part that is done once too often or too seldom. */
const LONGEST_PART = 8

/** Longest sequence that is repaired, and most edits. */
export const REPAIR_LIMITS = { turns: 40, edits: 3 }

export interface Repaired {
  /** Fewest edits with which there is a reading; undefined if there is none up to as many as were asked for. */
  readonly edits?: number
  /** The likeliest first. */
  readonly readings: readonly Reading[]
}

/**
 * All readings with the fewest edits, at most `most`.
 *
 * @param goesOn asked now and then with the share of the work that is done; if it answers no, the search ends with
 *   nothing found
 */
export function repair(
  puzzle: Puzzle,
  heard: readonly Turn[],
  wish: Wish,
  most: number = REPAIR_LIMITS.edits,
  goesOn: (share: number) => boolean = () => true,
): Repaired {
  const search = new Search(puzzle, heard, wish, goesOn)
  for (let edits = 0; edits <= most; edits++) {
    const readings = search.withEdits(edits)
    if (readings.length > 0) return { edits, readings }
    if (search.isStopped) break
  }
  return { readings: [] }
}

/** Readings that make different turns once those of one layer are joined: of equal ones the likeliest. */
export function distinct(puzzle: Puzzle, readings: readonly Reading[]): Reading[] {
  const known = new Map<string, Reading>()
  for (const reading of readings) {
    const joined = simplify(puzzle, reading.turns)
    const name = joined.map((turn) => turn.name).join(' ')
    if (!known.has(name)) known.set(name, reading)
  }
  return [...known.values()]
}

/** What could have been meant at a place: how many turns it stands for, and what they are instead. */
interface Choice {
  readonly kind: EditKind
  readonly takes: number
  readonly turns: readonly Turn[]
  readonly table: Uint8Array
}

/** A choice for turns of the sequence that starts at some turn. */
interface Made {
  readonly at: number
  readonly choice: Choice
}

class Search {
  isStopped = false
  /** Pieces that are looked at, and where they begin. */
  private readonly pieces: readonly number[]
  private readonly begin: Uint8Array
  private readonly choices: readonly (readonly Choice[])[]
  private readonly tables: readonly Uint8Array[]
  /** What is left of the sequence from each turn on. */
  private readonly rests: readonly Uint8Array[]
  private found: Made[][] = []
  private readonly before: State

  constructor(
    private readonly puzzle: Puzzle,
    private readonly heard: readonly Turn[],
    private readonly wish: Wish,
    private readonly goesOn: (share: number) => boolean,
  ) {
    this.before = wish.from ?? start(puzzle)
    this.pieces = [...new Set([...wish.keep, ...(wish.ends ?? []).flatMap((end) => end.pieces)])]
    this.begin = Uint8Array.from(this.pieces, (p) => this.before[p])
    this.tables = heard.map((turn) => tableOf(puzzle, turn.name))
    this.rests = Array.from(
      { length: heard.length + 1 },
      (_, at) => sequenceOf(puzzle, heard.slice(at)).table,
    )
    this.choices = Array.from({ length: heard.length + 1 }, (_, at) => this.choicesAt(at))
  }

  withEdits(edits: number): Reading[] {
    this.found = []
    this.extend(0, this.begin, edits, [])
    const byTurns = new Map<string, Reading>()
    for (const made of this.found) {
      const reading = this.readingOf(made)
      const name = reading.turns.map((turn) => turn.name).join(' ')
      const known = byTurns.get(name)
      if (!known || unlikely(reading) < unlikely(known)) byTurns.set(name, reading)
    }
    return [...byTurns.values()]
      .filter(({ turns }) => this.isPossible(turns))
      .sort((a, b) => unlikely(a) - unlikely(b))
  }

  /** All ways to make so many edits from some turn on. */
  private extend(from: number, rotations: Uint8Array, edits: number, made: readonly Made[]): void {
    if (edits === 0) {
      if (this.isMet(rotations, this.rests[from])) this.found.push([...made])
      return
    }
    let now = rotations
    for (let at = from; at <= this.heard.length && !this.isStopped; at++) {
      if (made.length === 0 && !this.goesOn(at / (this.heard.length + 1))) {
        this.isStopped = true
        return
      }
      for (const choice of this.choices[at]) {
        // Of turns left out at one place each row once: as they stand.
        const next = at + choice.takes
        if (edits === 1 && !this.isMet(now, choice.table, this.rests[next])) continue
        this.extend(next, this.after(now, choice.table), edits - 1, [...made, { at, choice }])
      }
      if (at < this.heard.length) now = this.after(now, this.tables[at])
    }
  }

  private after(rotations: Uint8Array, table: Uint8Array): Uint8Array {
    const next = new Uint8Array(rotations.length)
    for (let i = 0; i < next.length; i++) next[i] = table[24 * this.pieces[i] + rotations[i]]
    return next
  }

  /** Whether what is wished for holds after one or two tables. */
  private isMet(rotations: Uint8Array, first: Uint8Array, second?: Uint8Array): boolean {
    const { pieces, begin, wish } = this
    const end = (i: number) => {
      const r = first[24 * pieces[i] + rotations[i]]
      return second ? second[24 * pieces[i] + r] : r
    }
    const kept = wish.keep.length
    const hold = kept > 0 ? multiply(end(0), INVERSE[begin[0]]) : undefined
    if (hold !== undefined && !this.puzzle.holds.includes(hold)) return false
    for (let i = 1; i < kept; i++) if (end(i) !== multiply(hold as Rotation, begin[i])) return false
    const { ends = [] } = wish
    if (ends.length === 0) return true
    // Home is where what is kept is; without it any hold will do.
    const holds = hold === undefined ? this.puzzle.holds : [hold]
    return holds.some((frame) =>
      ends.every(({ must, pieces: asked, side }) =>
        asked.every((p) => this.isAt(p, end(pieces.indexOf(p)), frame, must, side)),
      ),
    )
  }

  private isAt(
    p: number,
    r: Rotation,
    frame: Rotation,
    must: 'home' | 'faced' | 'placed',
    side: Direction | undefined,
  ): boolean {
    const { place, look } = this.puzzle
    if (must === 'faced') return side !== undefined && sameImage(r, frame, side)
    const home = multiply(INVERSE[frame], r)
    if (must === 'placed') return place[24 * p + home] === p
    return place[24 * p + home] !== NO_PLACE && look[24 * p + home] === look[24 * p]
  }

  /** Turn after turn: nothing is blocked on the way. */
  private isPossible(turns: readonly Turn[]): boolean {
    const state = new Uint8Array(this.before)
    return turns.every((turn) => {
      if (blockOf(this.puzzle, state, turn)) return false
      turnFreely(this.puzzle, state, turn, state)
      return true
    })
  }

  private readingOf(made: readonly Made[]): Reading {
    const turns: Turn[] = []
    let at = 0
    for (const { at: begin, choice } of made) {
      turns.push(...this.heard.slice(at, begin), ...choice.turns)
      at = begin + choice.takes
    }
    turns.push(...this.heard.slice(at))
    const names = (list: readonly Turn[]) => list.map(({ name }) => name)
    return {
      turns,
      edits: made.map(({ at: begin, choice: { kind, takes, turns: is } }) => ({
        at: begin,
        kind,
        was: names(this.heard.slice(begin, begin + takes)),
        is: names(is),
      })),
    }
  }

  private choicesAt(at: number): Choice[] {
    const { puzzle, heard } = this
    const choice = (kind: EditKind, takes: number, turns: readonly Turn[]): Choice => ({
      kind,
      takes,
      turns,
      table: sequenceOf(puzzle, turns).table,
    })
    const found = addable(puzzle, heard).map((turn) => choice('left out', 0, [turn]))
    const turn = heard.at(at)
    if (at === heard.length || !turn) return found
    found.push(choice('added', 1, []))
    for (const [kind, other] of othersFor(puzzle, turn)) found.push(choice(kind, 1, [other]))
    const next = heard.at(at + 1)
    if (next && at + 1 < heard.length && !isParallel(puzzle, turn, next))
      found.push(choice('exchanged', 2, [next, turn]))
    for (let size = 2; size <= LONGEST_PART && at + size <= heard.length; size++) {
      const part = heard.slice(at, at + size)
      found.push(choice('part', size, [...part, ...part]))
      const again = heard.slice(at + size, at + 2 * size)
      if (again.length === size && again.every((each, i) => each === part[i]))
        found.push(choice('part', 2 * size, part))
    }
    return found
  }
}

const unlikely = ({ edits }: Reading): number =>
  edits.reduce((sum, { kind }) => sum + UNLIKELY[kind], 0)

const tableOf = memoised((puzzle: Puzzle, name: string): Uint8Array => {
  const turn = puzzle.turnByName.get(name)
  if (!turn) throw new Error(`there is no turn ${name}`)
  return sequenceOf(puzzle, [turn]).table
})

/** Turns that may have been left out: those of single layers, and of what else is turned in the sequence. */
function addable(puzzle: Puzzle, heard: readonly Turn[]): Turn[] {
  const grips = new Set([...layersOf(puzzle), ...heard.map(({ grip }) => grip)])
  return puzzle.turns.filter((turn) => grips.has(turn.grip))
}

/** What a turn may be heard for: the same layer otherwise, with or without its neighbours, another one of the axis. */
function othersFor(puzzle: Puzzle, turn: Turn): [EditKind, Turn][] {
  const { grips, turns } = puzzle
  const own = grips[turn.grip]
  const letter = /[A-Za-z]/.exec(own.name)?.[0]
  const same = turns
    .filter((other) => other !== turn && other.grip === turn.grip)
    .map((other): [EditKind, Turn] => [other.index === turn.inverse ? 'back' : 'half', other])
  const slabs = new Set(slabsOf(puzzle))
  const others = turns
    .filter(
      (other) =>
        other.grip !== turn.grip &&
        slabs.has(other.grip) &&
        other.amount === turn.amount &&
        isParallel(puzzle, turn, other),
    )
    .map((other): [EditKind, Turn] => [
      /[A-Za-z]/.exec(grips[other.grip].name)?.[0] === letter ? 'with neighbour' : 'other layer',
      other,
    ])
  return [...same, ...others]
}
