/**
 * Join: parts of the pieces of a smaller box are brought together. A step turns outer layers, which part nothing,
 * then does one of the stage's sequences; of all it takes the one that brings the most together for its turns. What
 * came before is together again at the end of every step.
 */
import { joinedAs, shownIn, wholesIn, type Joined } from '../../analysis/joined'
import { asNamed, layersOf } from '../../analysis/layers'
import { lookAlikesOf, lookClassesOf } from '../../analysis/lookAlikes'
import { memoised } from '../../memo'
import { inverseOf, isParallel, mirror, rehold, simplify } from '../../notation/rewrite'
import { handCost, type Hand } from '../../notation/handCost'
import { doSequence, inARow, sequence, sequenceOf, type Sequence } from '../../notation/sequence'
import type { Puzzle, Turn } from '../../puzzle/compile'
import type { Direction } from '../../puzzle/directions'
import { IDENTITY, ROTATION_COUNT, type Rotation, type Vector } from '../../rotation'
import type { Condition, Selection, Technique } from '../../schools/school'
import { isSolved, turnFreely, type State } from '../../state'
import { selected } from '../selections'
import { doRest } from './universally'
import {
  asConjugate,
  preparing,
  type PlannedTurn,
  type StageContext,
  type Workpiece,
} from '../workpiece'

/** Turns of outer layers before a sequence. */
const PREFIX_TURNS = 2

/** More parts than this are hardly ever brought together by one step. */
const MOST_GAIN = 2

/** A stage brings together a few parts a step; more steps than this are a defect. */
const STEP_LIMIT = 60

/** Said where the rest goes piece by piece. */
export const NO_WAY_ON =
  'No sequence of this school leads on from here, so what is left goes piece by piece.'

type JoinTechnique = Extract<Technique, { kind: 'join' }>

export function joinParts(
  context: StageContext,
  work: Workpiece,
  technique: JoinTechnique,
  goalBefore: readonly Condition[],
): void {
  const { puzzle, stage, base, hand } = context
  const { joined, wholes } = wholesOf(puzzle, technique.select, base)
  if (isSolved(puzzle, work.held().state)) return
  for (let count = 0; count < STEP_LIMIT; count++) {
    const { state, frame } = work.held()
    const judge = judgeFor(puzzle, base, frame, wholes, stage.goal, goalBefore)
    const before = judge.partsTogether(state)
    if (wholes.every((whole, i) => before[i] === joined.partsOf[whole].length)) return
    const chosen = bestWay({ puzzle, technique, judge, hand }, state)
    // Equal parts can hide an exchange that no sequence of the stage mends.
    if (!chosen) return doRest(context, work, NO_WAY_ON)
    const done = asConjugate(puzzle, chosen.turns)
    work.step(
      {
        kind: 'join',
        size: technique.select.as as Vector,
        of: wholes,
        before,
        after: judge.partsTogether(chosen.end),
        ...openBetween(puzzle, done),
      },
      [...preparing(chosen.prefix), ...done],
    )
  }
  throw new Error(`the stage ${stage.id} does not come to an end`)
}

/** A slice that is set up and undone stands open meanwhile. */
function openBetween(puzzle: Puzzle, turns: readonly PlannedTurn[]) {
  const isInner = ({ turn }: PlannedTurn) => !/^[UDFBRL]/.test(puzzle.grips[turn.grip].name)
  const opening = turns.find((each) => each.role === 'setup' && isInner(each))
  const closing = turns.findLast((each) => each.role === 'undo' && isInner(each))
  return opening && closing ? { open: { from: opening.turn.name, to: closing.turn.name } } : {}
}

/** The pieces of the smaller box that a selection means. */
export function wholesOf(puzzle: Puzzle, select: Selection, base: Direction) {
  const joined = select.as && joinedAs(puzzle, select.as)
  if (!joined) throw new Error('a stage joins what is no smaller box')
  const wholes = [...new Set(selected(puzzle, select, base).map((p) => joined.wholeOf[p]))]
  return { joined, wholes }
}

interface Way {
  readonly prefix: readonly Turn[]
  readonly turns: readonly Turn[]
  readonly end: State
}

/** What the ways of a step are looked for with. */
interface Search {
  readonly puzzle: Puzzle
  readonly technique: JoinTechnique
  readonly judge: Judge
  readonly hand: Hand
}

/**
 * Turns of outer layers and a sequence; else the sequence set up by a turn of an inner layer; else two of these, one
 * after the other.
 */
function bestWay(search: Search, state: State): Way | undefined {
  const { puzzle, technique, judge } = search
  const own = macrosOf(puzzle, technique.sequences.join('|'))
  const size = (technique.select.as as Vector).join()
  const prefixes = (most: number) => prefixesFor(puzzle, `${size} ${most} ${judge.pieces.join()}`)
  return (
    bestAfter(search, state, prefixes(PREFIX_TURNS), own) ??
    bestAfter(search, state, prefixes(1), setUp(puzzle, technique)) ??
    bestAfter(search, state, prefixes(PREFIX_TURNS + 1), own) ??
    bestOfTwo(search, state) ??
    searched(search, state)
  )
}

/** What brings the most together for its turns; of equal ones the easiest in the hand. */
function bestAfter(
  { judge, hand }: Search,
  state: State,
  prefixes: readonly Sequence[],
  macros: readonly Macro[],
): Way | undefined {
  const now = judge.begin(state)
  const gains = Math.min(judge.partsInAll - now, MOST_GAIN)
  let best: Way | undefined
  let [bestValue, bestCost] = [Infinity, Infinity]
  for (const prefix of prefixes) {
    const from = doSequence(prefix, state)
    judge.begin(from)
    for (const macro of macros) {
      const length = prefix.turns.length + macro.turns.length
      if (length > bestValue * gains) break
      const gain = judge.after(macro) - now
      if (gain <= 0) continue
      const value = length / gain
      if (value > bestValue) continue
      const cost = handCost([...prefix.turns, ...macro.turns], hand)
      if (value === bestValue && cost >= bestCost) continue
      const end = doSequence(macro, from)
      if (!judge.keeps(end)) continue
      best = { prefix: prefix.turns, turns: macro.turns, end }
      ;[bestValue, bestCost] = [value, cost]
    }
  }
  return best
}

/**
 * Where two parts are exchanged: a block is meant another way round, so that five go round, and these are brought
 * together by two sequences that take three round each. The second is looked up by what it has to do.
 */
function bestOfTwo(search: Search, state: State): Way | undefined {
  const { puzzle, technique, judge } = search
  const now = judge.begin(state)
  const macros = setUp(puzzle, technique).filter(({ moved }) => moved.length === 3)
  const byCycle = new Map(macros.map((each) => [writtenCycle(goesBy(puzzle, each)), each] as const))
  let best: Way | undefined
  const firsts = macros.filter((each) => judge.after(each) >= now - 1)
  for (const first of firsts) {
    const middle = doSequence(first, state)
    for (const cycle of judge.cyclesLeft(middle)) {
      const second = byCycle.get(cycle)
      if (!second) continue
      const end = doSequence(second, middle)
      const turns = simplify(puzzle, [...first.turns, ...second.turns])
      const way = { prefix: [], turns, end }
      if (judge.begin(end) > now && judge.keeps(end) && (!best || lengthOf(way) < lengthOf(best)))
        best = way
    }
  }
  return best
}

/** Positions that are looked at where no sequence helps. */
const MOST_SEARCHED = 3000

/** The fewest turns of single layers that bring more together, where the parts have few ways to lie. */
function searched({ puzzle, judge }: Search, state: State): Way | undefined {
  const now = judge.begin(state)
  const turns = layersOf(puzzle).flatMap((grip) =>
    puzzle.turns.filter((turn) => turn.grip === grip),
  )
  const seen = new Set([judge.look(state)])
  interface Row {
    readonly state: State
    readonly turns: readonly Turn[]
  }
  const rows: Row[] = [{ state, turns: [] }]
  for (const row of rows)
    for (const turn of turns) {
      if (!isFresh(puzzle, row.turns.at(-1), turn)) continue
      const end = turnFreely(puzzle, row.state, turn, new Uint8Array(state.length))
      const look = judge.look(end)
      if (seen.has(look)) continue
      if (seen.size >= MOST_SEARCHED) return undefined
      seen.add(look)
      const made = [...row.turns, turn]
      if (judge.begin(end) > now && judge.keeps(end)) return { prefix: [], turns: made, end }
      rows.push({ state: end, turns: made })
    }
  return undefined
}

const movedBy = (puzzle: Puzzle, table: Uint8Array): number[] =>
  puzzle.pieces.flatMap((_, p) => (table[24 * p] === IDENTITY ? [] : [p]))

/** A round of three places, from the lowest. */
function writtenCycle(next: ReadonlyMap<number, number>): string {
  const first = Math.min(...next.keys())
  const second = next.get(first) as number
  return `${first},${second},${next.get(second)}`
}

const lengthOf = ({ prefix, turns }: Way): number => prefix.length + turns.length

/** A stage's sequences, and for every round of three places the shortest that takes it round and moves nothing else. */
const setUp = (puzzle: Puzzle, { sequences }: JoinTechnique): readonly Macro[] =>
  setUpMacros(puzzle, sequences.join('|'))

/** Turns of set-ups, each a turn of one layer. */
const SETUP_TURNS = 2

const setUpMacros = memoised((puzzle: Puzzle, texts: string): readonly Macro[] => {
  const own = macrosOf(puzzle, texts)
  const exact = own.filter(({ moved }) => moved.length === 3)
  const found = new Map(exact.map((each) => [writtenCycle(goesBy(puzzle, each)), each]))
  const single = layersOf(puzzle).flatMap((grip) =>
    puzzle.turns.filter((turn) => turn.grip === grip).map((turn) => sequence(puzzle, turn.name)),
  )
  let last = [...found.values()]
  for (let depth = 0; depth < SETUP_TURNS; depth++) {
    const next: Macro[] = []
    for (const turn of single) {
      const { table } = sequence(puzzle, puzzle.turns[turn.turns[0].inverse].name)
      const back = (place: number) => puzzle.place[24 * place + table[24 * place]]
      for (const macro of last) {
        // What lies where the set-up takes from, it takes to where the sequence does its work.
        const goes = [...goesBy(puzzle, macro)].map(([from, to]) => [back(from), back(to)] as const)
        const key = writtenCycle(new Map(goes))
        if (found.has(key)) continue
        const undo = sequence(puzzle, puzzle.turns[turn.turns[0].inverse].name)
        const turns = simplify(puzzle, [...turn.turns, ...macro.turns, ...undo.turns])
        const made = macroOf(puzzle, { ...inARow([turn, macro, undo]), turns })
        found.set(key, made)
        next.push(made)
      }
    }
    last = next
  }
  return [...new Set([...own, ...found.values()])].sort((a, b) => a.turns.length - b.turns.length)
})

/** For each place that a sequence empties, where it takes what lies there. */
const goesBy = (puzzle: Puzzle, { moved, table }: Macro): Map<number, number> =>
  new Map(moved.map((p) => [p, puzzle.place[24 * p + table[24 * p]]]))

/** A sequence with the places from which it takes what lies there. */
interface Macro extends Sequence {
  readonly moved: readonly number[]
}

const macroOf = (puzzle: Puzzle, made: Sequence): Macro => ({
  ...made,
  moved: movedBy(puzzle, made.table),
})

/** The sequences, back and forth, mirrored, in every hold; each once. */
const macrosOf = memoised((puzzle: Puzzle, texts: string): readonly Macro[] => {
  const found = new Map<string, Macro>()
  for (const text of texts.split('|')) {
    const written = sequence(puzzle, text).turns
    for (const turns of [written, mirror(puzzle, written)])
      for (const way of [turns, inverseOf(puzzle, turns)])
        for (const hold of puzzle.holds) {
          const held = rehold(puzzle, way, hold).map((turn) => asNamed(puzzle, turn))
          const name = held.map((turn) => turn.name).join(' ')
          if (!found.has(name)) found.set(name, macroOf(puzzle, sequenceOf(puzzle, held)))
        }
  }
  return [...found.values()].sort((a, b) => a.turns.length - b.turns.length)
})

/** Turns of the smaller box's layers, but for those that are several of the real one, which others make too. */
function freeTurns({ small }: Joined): Turn[] {
  const { mechanism } = small.definition
  const middles = (mechanism.kind === 'box' && mechanism.middles) || [1, 1, 1]
  return layersOf(small).flatMap((grip) => {
    const { name, axis } = small.grips[grip]
    const isThin = middles[axis.findIndex((c) => c !== 0)] === 1
    return isThin || /^[UDFBRL]/.test(name) ? small.turns.filter((t) => t.grip === grip) : []
  })
}

/** Nothing, and up to so many turns of the smaller box's outer layers: 'size most'. */
const prefixesOf = memoised((puzzle: Puzzle, key: string): readonly Sequence[] => {
  const [size, most] = key.split(' ')
  const joined = joinedAs(puzzle, size.split(',').map(Number) as unknown as Vector)
  const turns = joined ? freeTurns(joined).map((turn) => asNamed(puzzle, joined.turnFor(turn))) : []
  let rows: Turn[][] = [[]]
  const all = [...rows]
  for (let n = 0; n < Number(most); n++) {
    rows = rows.flatMap((row) =>
      turns.flatMap((turn) => (isFresh(puzzle, row.at(-1), turn) ? [[...row, turn]] : [])),
    )
    all.push(...rows)
  }
  return all.map((row) => sequenceOf(puzzle, row))
})

/** Of these, each that does something else to some pieces once, the shortest. */
const prefixesFor = memoised((puzzle: Puzzle, key: string): readonly Sequence[] => {
  const [size, most, pieces] = key.split(' ')
  const own = pieces.split(',').map(Number)
  const seen = new Set<string>()
  return prefixesOf(puzzle, `${size} ${most}`).filter(({ table }) => {
    const does = own.map((p) => table.subarray(24 * p, 24 * p + ROTATION_COUNT).join()).join('|')
    if (seen.has(does)) return false
    seen.add(does)
    return true
  })
})

/** Not the same layer twice, and of two parallel layers in one order only. */
const isFresh = (puzzle: Puzzle, before: Turn | undefined, turn: Turn): boolean =>
  before === undefined || !isParallel(puzzle, before, turn) || before.grip < turn.grip

/** Judges positions of one stage; each position that is asked about is the one after a sequence from `begin`. */
interface Judge {
  /** For each whole of the stage how many of its parts lie together, in a place that they may take. */
  readonly partsTogether: (state: State) => number[]
  readonly partsInAll: number
  /** Those that matter: the parts, and what can be taken for them. */
  readonly pieces: readonly number[]
  /** How many parts lie together in a state, from which sequences are then tried. */
  readonly begin: (state: State) => number
  /** The same after a sequence. */
  readonly after: (macro: Macro) => number
  /** Whether all is together that came before. */
  readonly keeps: (state: State) => boolean
  /** What is seen of all that the stage asks about. */
  readonly look: (state: State) => string
  /** How three places may have to go round, if no more is wrong. */
  readonly cyclesLeft: (state: State) => readonly string[]
}

/** The ways in which a piece of the smaller box may lie where it is judged. */
interface Ways {
  readonly whole: number
  readonly parts: readonly number[]
  /** Flags by rotation. */
  readonly allowed: Uint8Array
  /** Its parts cannot be taken for others, so their rotations tell all. */
  readonly isDistinct: boolean
  /** For each different way slot and look of each part, in turn. */
  readonly rows: readonly (readonly number[])[]
  /** The same by rotation. */
  readonly rowIn: readonly (readonly number[])[]
}

function judgeFor(
  puzzle: Puzzle,
  base: Direction,
  frame: Rotation,
  wholes: readonly number[],
  goal: readonly Condition[],
  goalBefore: readonly Condition[],
): Judge {
  const asked = [...goal, ...goalBefore].flatMap((condition) =>
    condition.select?.as ? [{ condition, ...wholesOf(puzzle, condition.select, base) }] : [],
  )
  const joined = asked[0].joined
  const placed = new Set(
    asked.flatMap(({ condition: { must }, wholes: own }) => (must === 'together' ? [] : own)),
  )
  const waysAt = joined.partsOf.map((_, whole) =>
    waysOf(puzzle, joined, whole, placed.has(whole) ? frame : undefined),
  )
  const kept = goalBefore.flatMap(({ select }) =>
    select?.as ? wholesOf(puzzle, select, base).wholes : [],
  )
  const isFull = (whole: number, shown: Uint16Array) =>
    waysAt[whole].rows.some((row) => matches(row, shown) === joined.partsOf[whole].length)
  // Equal ones that may lie anywhere are whole only if each has a place of its own.
  const loose = kept.filter((whole) => !placed.has(whole) && !waysAt[whole].isDistinct)
  const areKept = (state: State) =>
    loose.length === 0 || wholesIn(puzzle, joined, state, loose).size === new Set(loose).size
  const own = wholes.map((whole) => waysAt[whole])
  const judged = [...own, ...kept.map((whole) => waysAt[whole])]
  const slots = [
    ...new Set(
      judged.flatMap(({ parts }) =>
        parts.flatMap((p) =>
          Array.from({ length: ROTATION_COUNT }, (_, r) => puzzle.slot[24 * p + r]),
        ),
      ),
    ),
  ].filter((each) => each < puzzle.pieces.length)
  const counter = own.every(({ isDistinct }) => isDistinct)
    ? countingPieces(puzzle, own)
    : countingLooks(puzzle, own, rowsByPlace(joined, own))
  return {
    partsTogether: (state) => {
      const shown = shownIn(puzzle, state)
      const full = wholesIn(puzzle, joined, state, wholes)
      return own.map(({ rows, parts }, w) => {
        const most = Math.max(...rows.map((row) => matches(row, shown)))
        // Of equal ones another may be the one that is whole; a whole one may lie elsewhere than it should.
        return full.has(wholes[w]) || most < parts.length ? most : most - 1
      })
    },
    pieces: piecesLike(puzzle, own),
    partsInAll: own.reduce((sum, { parts }) => sum + parts.length, 0),
    ...counter,
    look: (state) => {
      const shown = shownIn(puzzle, state)
      return String.fromCharCode(...slots.map((each) => shown[each]))
    },
    cyclesLeft: (state) => cyclesLeft(puzzle, own, state),
    keeps: (state) => {
      const shown = shownIn(puzzle, state)
      return kept.every((whole) => isFull(whole, shown)) && areKept(state)
    },
  }
}

function matches(row: readonly number[], shown: Uint16Array): number {
  let own = 0
  for (let i = 0; i < row.length; i += 2) if (shown[row[i]] === row[i + 1]) own++
  return own
}

/** Where every part is the only one of its look, rotations tell all; what a sequence leaves alone is not counted again. */
function countingPieces(puzzle: Puzzle, own: readonly Ways[]): Pick<Judge, 'begin' | 'after'> {
  const counts = new Uint8Array(own.length)
  let [from, total]: [State, number] = [new Uint8Array(0), 0]
  /** Which whole of the stage a piece is part of, and what lies in each place. */
  const wholeOf = new Int16Array(puzzle.pieces.length).fill(-1)
  own.forEach(({ parts }, w) => parts.forEach((p) => (wholeOf[p] = w)))
  const at = new Int16Array(puzzle.pieces.length)
  const touched = new Uint8Array(own.length)
  const turned = new Uint8Array(Math.max(...own.map(({ parts }) => parts.length)))
  const count = (allowed: Uint8Array, n: number): number => {
    let most = 0
    for (let i = 0; i < n && n - i > most; i++) {
      const r = turned[i]
      if (!allowed[r]) continue
      let same = 1
      for (let j = i + 1; j < n; j++) if (turned[j] === r) same++
      if (same > most) most = same
    }
    return most
  }
  return {
    begin: (state) => {
      from = state
      total = 0
      state.forEach((r, p) => (at[puzzle.place[24 * p + r]] = p))
      own.forEach(({ parts, allowed }, w) => {
        parts.forEach((p, i) => (turned[i] = state[p]))
        counts[w] = count(allowed, parts.length)
        total += counts[w]
      })
      return total
    },
    after: ({ table, moved }) => {
      let sum = total
      for (let m = 0; m < moved.length; m++) {
        const w = wholeOf[at[moved[m]]]
        if (w >= 0) touched[w] = 1
      }
      for (let w = 0; w < own.length; w++) {
        if (touched[w] === 0) continue
        touched[w] = 0
        const { parts, allowed } = own[w]
        for (let i = 0; i < parts.length; i++) turned[i] = table[24 * parts[i] + from[parts[i]]]
        sum += count(allowed, parts.length) - counts[w]
      }
      return sum
    },
  }
}

/**
 * Rounds of three places, either way, where no more than these show anything wrong, for every way in which the
 * pieces of the smaller box can be meant to lie.
 */
function cyclesLeft(puzzle: Puzzle, own: readonly Ways[], state: State): string[] {
  const shown = shownIn(puzzle, state)
  const found: string[] = []
  const visit = (w: number, wrong: readonly number[]) => {
    if (wrong.length > 3) return
    if (w === own.length) {
      if (wrong.length < 3) return
      const [a, b, c] = [...wrong].sort((x, y) => x - y)
      found.push(`${a},${b},${c}`, `${a},${c},${b}`)
      return
    }
    const { rows } = own[w]
    const full = rows.some((row) => matches(row, shown) * 2 === row.length)
    if (full) return visit(w + 1, wrong)
    for (const row of rows)
      visit(w + 1, [
        ...wrong,
        ...row.filter((slot, i) => i % 2 === 0 && shown[slot] !== row[i + 1]),
      ])
  }
  visit(0, [])
  return found
}

function piecesLike(puzzle: Puzzle, own: readonly Ways[]): number[] {
  const { classOf } = lookClassesOf(puzzle)
  const classes = new Set(own.flatMap(({ parts }) => parts.map((p) => classOf[p])))
  return puzzle.pieces.flatMap((_, p) => (classes.has(classOf[p]) ? [p] : []))
}

/** The same ways by the place that they fill: equal ones may not all be the one that lies there. */
function rowsByPlace(
  { small }: Joined,
  own: readonly Ways[],
): readonly (readonly (readonly number[])[])[] {
  const places = new Map<number, Map<string, readonly number[]>>()
  for (const { whole, allowed, rowIn } of own)
    rowIn.forEach((row, r) => {
      if (!allowed[r]) return
      const place = small.slot[24 * whole + r]
      const rows = places.get(place) ?? new Map<string, readonly number[]>()
      places.set(place, rows.set(row.join(), row))
    })
  return [...places.values()].map((rows) => [...rows.values()])
}

/** Else by what is seen where the parts should lie. */
function countingLooks(
  puzzle: Puzzle,
  own: readonly Ways[],
  places: readonly (readonly (readonly number[])[])[],
): Pick<Judge, 'begin' | 'after'> {
  const { slot, look } = puzzle
  const pieces = piecesLike(puzzle, own)
  const slots = [
    ...new Set(
      own.flatMap(({ rows }) => rows.flatMap((row) => row.filter((__, i) => i % 2 === 0))),
    ),
  ]
  const shown = new Uint16Array(puzzle.slotCount)
  let from: State = new Uint8Array(0)
  const sum = () => {
    let total = 0
    for (const rows of places) {
      let most = 0
      for (const row of rows) {
        const seen = matches(row, shown)
        if (seen > most) most = seen
      }
      total += most
    }
    return total
  }
  const clear = () => {
    for (const each of slots) shown[each] = 0
  }
  return {
    begin: (state) => {
      from = state
      clear()
      for (const p of pieces) shown[slot[24 * p + state[p]]] = 1 + look[24 * p + state[p]]
      return sum()
    },
    after: ({ table }) => {
      clear()
      for (let i = 0; i < pieces.length; i++) {
        const at = 24 * pieces[i] + table[24 * pieces[i] + from[pieces[i]]]
        shown[slot[at]] = 1 + look[at]
      }
      return sum()
    },
  }
}

function waysOf(
  puzzle: Puzzle,
  { small, partsOf }: Joined,
  whole: number,
  frame: Rotation | undefined,
): Ways {
  const parts = partsOf[whole]
  const allowed = Uint8Array.from({ length: ROTATION_COUNT }, (_, r) =>
    Number(frame === undefined || small.place[24 * whole + r] === small.place[24 * whole + frame]),
  )
  const { classSize, classOf } = lookClassesOf(puzzle)
  const { unseen } = lookAlikesOf(puzzle)
  const rowIn = Array.from({ length: ROTATION_COUNT }, (_, r) =>
    parts
      .map((p) => [puzzle.slot[24 * p + r], 1 + puzzle.look[24 * p + r]])
      .sort(([a], [b]) => a - b)
      .flat(),
  )
  const rows = new Map(rowIn.flatMap((row, r) => (allowed[r] ? [[row.join(), row] as const] : [])))
  return {
    whole,
    parts,
    rowIn,
    allowed,
    isDistinct: parts.every((p) => classSize[classOf[p]] === 1 && unseen[p].length === 1),
    rows: [...rows.values()],
  }
}
