/**
 * Join: parts of the pieces of a smaller box are brought together. A step turns outer layers, which part nothing,
 * then does one of the stage's sequences; of all it takes the one that brings the most together for its turns. What
 * came before is together again at the end of every step.
 */
import { joinedAs, type Joined } from '../../analysis/joined'
import { layersOf } from '../../analysis/layers'
import { lookAlikesOf, lookClassesOf } from '../../analysis/lookAlikes'
import { memoised } from '../../memo'
import { inverseOf, isParallel, mirror, rehold } from '../../notation/rewrite'
import { handCost, type Hand } from '../../notation/handCost'
import { doSequence, sequence, sequenceOf, type Sequence } from '../../notation/sequence'
import type { Puzzle, Turn } from '../../puzzle/compile'
import type { Direction } from '../../puzzle/directions'
import { ROTATION_COUNT, type Rotation, type Vector } from '../../rotation'
import type { Condition, Selection, Technique } from '../../schools/school'
import type { State } from '../../state'
import { selected } from '../selections'
import { asConjugate, preparing, type StageContext, type Workpiece } from '../workpiece'

/** Turns of outer layers before a sequence. */
const PREFIX_TURNS = 2

/** More parts than this are hardly ever brought together by one step. */
const MOST_GAIN = 2

/** A stage brings together a few parts a step; more steps than this are a defect. */
const STEP_LIMIT = 60

type JoinTechnique = Extract<Technique, { kind: 'join' }>

export function joinParts(
  context: StageContext,
  work: Workpiece,
  technique: JoinTechnique,
  goalBefore: readonly Condition[],
): void {
  const { puzzle, stage, base, hand } = context
  const { joined, wholes } = wholesOf(puzzle, technique.select, base)
  for (let count = 0; count < STEP_LIMIT; count++) {
    const { state, frame } = work.held()
    const judge = judgeFor(puzzle, base, frame, stage.goal, goalBefore)
    const before = judge.partsTogether(state, wholes)
    if (wholes.every((whole, i) => before[i] === joined.partsOf[whole].length)) return
    const chosen = bestWay({ puzzle, technique, judge, wholes, hand }, state)
    if (!chosen) throw new Error(`the stage ${stage.id} brings nothing more together`)
    const after = judge.partsTogether(chosen.end, wholes)
    work.step(
      {
        kind: 'join',
        size: technique.select.as as Vector,
        of: wholes,
        before,
        after,
      },
      [...preparing(chosen.prefix), ...asConjugate(puzzle, chosen.turns)],
    )
  }
  throw new Error(`the stage ${stage.id} does not come to an end`)
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
  readonly wholes: readonly number[]
  readonly hand: Hand
}

/**
 * Turns of outer layers and a sequence; else the sequence set up by a turn of an inner layer; else two of these, one
 * after the other.
 */
function bestWay(search: Search, state: State): Way | undefined {
  const { puzzle, technique } = search
  const own = macrosOf(puzzle, technique.sequences.join('|'))
  const prefixes = (most: number) =>
    prefixesOf(puzzle, `${(technique.select.as as Vector).join()} ${most}`)
  return (
    bestAfter(search, state, prefixes(PREFIX_TURNS), own) ??
    bestAfter(search, state, prefixes(1), setUp(puzzle, technique)) ??
    bestOfTwo(search, state)
  )
}

/** What brings the most together for its turns; of equal ones the easiest in the hand. */
function bestAfter(
  { judge, wholes, hand }: Search,
  state: State,
  prefixes: readonly Sequence[],
  macros: readonly Sequence[],
): Way | undefined {
  const now = judge.measure(state, wholes)
  const missing = wholes.reduce((sum, whole) => sum + judge.partsIn(whole), -now)
  const gains = Math.min(missing, MOST_GAIN)
  let best: Way | undefined
  let [bestValue, bestCost] = [Infinity, Infinity]
  for (const prefix of prefixes) {
    const from = doSequence(prefix, state)
    for (const macro of macros) {
      const length = prefix.turns.length + macro.turns.length
      if (length > bestValue * gains) break
      const gain = judge.measureAfter(from, macro.table, wholes) - now
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
 * So many first sequences are tried that lose at most one part: a block that is to be meant another way round
 * loses what lies well in it.
 */
const MOST_DETOURS = 400

function bestOfTwo(search: Search, state: State): Way | undefined {
  const { puzzle, technique, judge, wholes } = search
  const now = judge.measure(state, wholes)
  const macros = setUp(puzzle, technique)
  const none = [sequence(puzzle, '')]
  const seen = new Set<string>()
  let best: Way | undefined
  for (const macro of macros) {
    if (seen.size >= MOST_DETOURS) break
    if (judge.measureAfter(state, macro.table, wholes) < now - 1) continue
    const end = doSequence(macro, state)
    if (!judge.keeps(end) || seen.has(end.join())) continue
    seen.add(end.join())
    const second = bestAfter(search, end, none, macros)
    if (!second || judge.measure(second.end, wholes) <= now) continue
    const way = { ...second, prefix: [...macro.turns, ...second.prefix] }
    if (!best || lengthOf(way) < lengthOf(best)) best = way
  }
  return best
}

const lengthOf = ({ prefix, turns }: Way): number => prefix.length + turns.length

/** A stage's sequences, and each of them set up by a turn of an inner layer. */
const setUp = (puzzle: Puzzle, { sequences }: JoinTechnique): readonly Sequence[] =>
  setUpMacros(puzzle, sequences.join('|'))

const setUpMacros = memoised((puzzle: Puzzle, texts: string): readonly Sequence[] => {
  const own = macrosOf(puzzle, texts)
  const outer = /^[UDFBRL]/
  const inner = layersOf(puzzle).flatMap((grip) =>
    outer.test(puzzle.grips[grip].name) ? [] : puzzle.turns.filter((turn) => turn.grip === grip),
  )
  const found = new Map<string, Sequence>(own.map((each) => [each.table.join(), each]))
  for (const macro of own)
    for (const turn of inner) {
      const turns = [turn, ...macro.turns, puzzle.turns[turn.inverse]]
      const made = sequenceOf(puzzle, turns)
      const key = made.table.join()
      if (!found.has(key)) found.set(key, made)
    }
  return [...found.values()].sort((a, b) => a.turns.length - b.turns.length)
})

/** The sequences, back and forth, mirrored, in every hold; each once. */
const macrosOf = memoised((puzzle: Puzzle, texts: string): readonly Sequence[] => {
  const found = new Map<string, Sequence>()
  for (const text of texts.split('|')) {
    const written = sequence(puzzle, text).turns
    for (const turns of [written, mirror(puzzle, written)])
      for (const way of [turns, inverseOf(puzzle, turns)])
        for (const hold of puzzle.holds) {
          const held = rehold(puzzle, way, hold)
          const name = held.map((turn) => turn.name).join(' ')
          if (!found.has(name)) found.set(name, sequenceOf(puzzle, held))
        }
  }
  return [...found.values()].sort((a, b) => a.turns.length - b.turns.length)
})

/** Nothing, and up to so many turns of the smaller box's outer layers: 'size most'. */
const prefixesOf = memoised((puzzle: Puzzle, key: string): readonly Sequence[] => {
  const [size, most] = key.split(' ')
  const joined = joinedAs(puzzle, size.split(',').map(Number) as unknown as Vector)
  const turns = (joined?.small.turns ?? [])
    .filter((turn) => /^[UDFBRL]/.test(turn.name) && !turn.whole)
    .map((turn) => joined?.turnFor(turn) as Turn)
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

/** Not the same layer twice, and of two parallel layers in one order only. */
const isFresh = (puzzle: Puzzle, before: Turn | undefined, turn: Turn): boolean =>
  before === undefined || !isParallel(puzzle, before, turn) || before.grip < turn.grip

interface Judge {
  /** For each whole how many of its parts lie together, in a place that they may take. */
  readonly partsTogether: (state: State, wholes: readonly number[]) => number[]
  readonly partsIn: (whole: number) => number
  readonly measure: (state: State, wholes: readonly number[]) => number
  readonly measureAfter: (state: State, table: Uint8Array, wholes: readonly number[]) => number
  /** Whether all is together that came before. */
  readonly keeps: (state: State) => boolean
}

/** The ways in which a piece of the smaller box may lie where it is judged. */
interface Ways {
  readonly parts: readonly number[]
  /** Flags by rotation. */
  readonly allowed: Uint8Array
  /** Its parts cannot be taken for others, so their rotations tell all. */
  readonly isDistinct: boolean
  /** For each different way slot and look of each part, in turn. */
  readonly rows: readonly (readonly number[])[]
}

function judgeFor(
  puzzle: Puzzle,
  base: Direction,
  frame: Rotation,
  goal: readonly Condition[],
  goalBefore: readonly Condition[],
): Judge {
  const asked = [...goal, ...goalBefore].flatMap((condition) =>
    condition.select?.as ? [{ condition, ...wholesOf(puzzle, condition.select, base) }] : [],
  )
  const joined = asked[0]?.joined as Joined
  const placed = new Set(
    asked.flatMap(({ condition: { must }, wholes }) => (must === 'together' ? [] : wholes)),
  )
  const kept = [
    ...new Set(
      goalBefore.flatMap(({ select }) => (select?.as ? wholesOf(puzzle, select, base).wholes : [])),
    ),
  ]
  const waysAt: Ways[] = []
  for (const whole of new Set(asked.flatMap(({ wholes }) => wholes)))
    waysAt[whole] = waysOf(puzzle, joined, whole, placed.has(whole) ? frame : undefined)
  const moving = new Set(
    [...new Set(asked.flatMap(({ wholes }) => wholes))].flatMap((whole) => [
      ...reachedBy(puzzle, joined.partsOf[whole]),
    ]),
  )
  const pieces = Uint16Array.from(moving)
  const { slot, look } = puzzle
  const shown = new Uint16Array(puzzle.slotCount)
  const isShown = waysAt.some(({ isDistinct }) => !isDistinct)
  const count = ({ parts, allowed, isDistinct, rows }: Ways, rotations: State): number => {
    let most = 0
    if (isDistinct) {
      if (parts.length === 2) {
        const [a, b] = [rotations[parts[0]], rotations[parts[1]]]
        return a === b && allowed[a] ? 2 : allowed[a] || allowed[b] ? 1 : 0
      }
      for (let i = 0; i < parts.length && parts.length - i > most; i++) {
        const r = rotations[parts[i]]
        if (!allowed[r]) continue
        let own = 1
        for (let j = i + 1; j < parts.length; j++) if (rotations[parts[j]] === r) own++
        if (own > most) most = own
      }
      return most
    }
    for (const row of rows) {
      let own = 0
      for (let i = 0; i < row.length; i += 2) if (shown[row[i]] === row[i + 1]) own++
      if (own > most) most = own
    }
    return most
  }
  const turned = new Uint8Array(puzzle.pieces.length)
  const show = (rotations: State) => {
    for (const p of pieces) {
      const at = 24 * p + rotations[p]
      shown[puzzle.slot[at]] = 1 + puzzle.look[at]
    }
  }
  const sum = (wholes: readonly number[], rotations: State) => {
    let total = 0
    for (const whole of wholes) total += count(waysAt[whole], rotations)
    return total
  }
  return {
    partsTogether: (state, wholes) => {
      show(state)
      return wholes.map((whole) => count(waysAt[whole], state))
    },
    partsIn: (whole) => joined.partsOf[whole].length,
    measure: (state, wholes) => {
      show(state)
      return sum(wholes, state)
    },
    measureAfter: (state, table, wholes) => {
      for (let i = 0; i < pieces.length; i++) {
        const p = pieces[i]
        const r = table[24 * p + state[p]]
        turned[p] = r
        if (isShown) shown[slot[24 * p + r]] = 1 + look[24 * p + r]
      }
      return sum(wholes, turned)
    },
    keeps: (state) => {
      show(state)
      return kept.every((whole) => count(waysAt[whole], state) === joined.partsOf[whole].length)
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
  const rows = new Map<string, readonly number[]>()
  for (let r = 0; r < ROTATION_COUNT; r++) {
    if (!allowed[r]) continue
    const row = parts
      .map((p) => [puzzle.slot[24 * p + r], 1 + puzzle.look[24 * p + r]])
      .sort(([a], [b]) => a - b)
      .flat()
    rows.set(row.join(), row)
  }
  return {
    parts,
    allowed,
    isDistinct: parts.every((p) => classSize[classOf[p]] === 1 && unseen[p].length === 1),
    rows: [...rows.values()],
  }
}

/** The pieces that can come to lie where these do. */
function reachedBy(puzzle: Puzzle, parts: readonly number[]): number[] {
  const slots = new Set(
    parts.flatMap((p) => Array.from({ length: ROTATION_COUNT }, (_, r) => puzzle.slot[24 * p + r])),
  )
  return puzzle.pieces.flatMap((_, p) => (slots.has(puzzle.slot[24 * p]) ? [p] : []))
}
