/** The sequences of a stage that joins parts, in every hold, with what is done before them; made once a puzzle. */
import { joinedAs, type Joined } from '../../analysis/joined'
import { asNamed, layersOf } from '../../analysis/layers'
import { memoised } from '../../memo'
import { inverseOf, isParallel, mirror, rehold, simplify } from '../../notation/rewrite'
import { inARow, sequence, sequenceOf, type Sequence } from '../../notation/sequence'
import type { Puzzle, Turn } from '../../puzzle/compile'
import { IDENTITY, ROTATION_COUNT, type Vector } from '../../rotation'

const movedBy = (puzzle: Puzzle, table: Uint8Array): number[] =>
  puzzle.pieces.flatMap((_, p) => (table[24 * p] === IDENTITY ? [] : [p]))

/** A round of three places, from the lowest. */
export function writtenCycle(next: ReadonlyMap<number, number>): string {
  const first = Math.min(...next.keys())
  const second = next.get(first) as number
  return `${first},${second},${next.get(second)}`
}

/** Turns of set-ups, each a turn of one layer. */
const SETUP_TURNS = 2

/** A stage's sequences, and what set-ups of two turns make of those that take three round: each round once, the shortest. */
export const setUpMacros = memoised((puzzle: Puzzle, texts: string): readonly Macro[] => {
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
export const goesBy = (puzzle: Puzzle, { moved, table }: Macro): Map<number, number> =>
  new Map(moved.map((p) => [p, puzzle.place[24 * p + table[24 * p]]]))

/** A sequence with the places from which it takes what lies there. */
export interface Macro extends Sequence {
  readonly moved: readonly number[]
}

const macroOf = (puzzle: Puzzle, made: Sequence): Macro => ({
  ...made,
  moved: movedBy(puzzle, made.table),
})

/** The sequences, back and forth, mirrored, in every hold; each once. */
export const macrosOf = memoised((puzzle: Puzzle, texts: string): readonly Macro[] => {
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
export const prefixesFor = memoised((puzzle: Puzzle, key: string): readonly Sequence[] => {
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
export const isFresh = (puzzle: Puzzle, before: Turn | undefined, turn: Turn): boolean =>
  before === undefined || !isParallel(puzzle, before, turn) || before.grip < turn.grip
