/** What a sequence must do to serve a case of a school: where the case begins, what stays, how the stage ends. */
import { piecesOf, sideOf } from '../coach/goal'
import { doSequence, sequence, sequenceOf } from '../notation/sequence'
import type { Puzzle, Turn } from '../puzzle/compile'
import { directionOfLetter } from '../puzzle/directions'
import { IDENTITY } from '../rotation'
import { stagesOf, variantsOf, type Condition, type School } from '../schools/school'
import { inverseOf, start } from '../state'
import type { End, Wish } from './repair'

export interface CaseWish {
  /** From the finished puzzle to the case. */
  readonly begins: readonly Turn[]
  readonly wish: Wish
}

/** What a repair can be asked for. */
const TOLD: ReadonlyMap<Condition['must'], End['must']> = new Map([
  ['home', 'home'],
  ['looks home', 'home'],
  ['placed', 'placed'],
  ['faced', 'faced'],
])

/**
 * Of a sequence that a stage asks to be known. What earlier stages have brought home stays; the stage's own goal is
 * met, be the rest as it likes. Where the goal says what a repair cannot be asked for, all comes home.
 */
export function caseWishOf(
  puzzle: Puzzle,
  school: School,
  stageId: string,
  text: string,
): CaseWish {
  const [variant] = variantsOf(school)
  const stages = stagesOf(school, variant)
  const index = stages.findIndex(({ id }) => id === stageId)
  const { goal, base: letter } = stages[index]
  const base = directionOfLetter(letter)
  const begins = inverseOf(puzzle, sequence(puzzle, text).turns)
  const from = doSequence(sequenceOf(puzzle, begins), start(puzzle))
  const before = new Set((stages[index - 1]?.goal ?? []).map((each) => JSON.stringify(each)))
  // What was home before and is home in the case stays where it is, whatever is exchanged that looks alike.
  const keep = goal
    .filter((each) => before.has(JSON.stringify(each)) && !each.spare && each.must === 'home')
    .flatMap((each) => [...piecesOf(puzzle, each, base)])
    .filter((p) => from[p] === IDENTITY)
  const ends = goal.flatMap((each): End[] => {
    const must = TOLD.get(each.must)
    const pieces = piecesOf(puzzle, each, base)
    if (!must || each.spare || each.select?.as) return []
    return [{ must, pieces, ...(must === 'faced' ? { side: sideOf(each.layer, base) } : {}) }]
  })
  const isAll = ends.length === goal.length
  const allHome: End = { must: 'home', pieces: puzzle.pieces.map((_, p) => p) }
  return {
    begins,
    wish: {
      keep: [...new Set(keep)].sort((a, b) => a - b),
      from,
      ends: isAll ? ends : [allHome],
    },
  }
}
