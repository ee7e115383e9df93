/** What a sequence must do to serve a case of a school: where the case begins, what stays, how the stage ends. */
import { piecesOf, sideOf } from '../coach/goal'
import { doSequence, sequence, sequenceOf } from '../notation/sequence'
import type { Puzzle, Turn } from '../puzzle/compile'
import { directionOfLetter } from '../puzzle/directions'
import { IDENTITY } from '../rotation'
import { stagesOf, variantsOf, type Condition, type School } from '../schools/school'
import { inverseOf, start } from '../state'
import type { Wish } from './repair'

export interface CaseWish {
  /** From the finished puzzle to the case. */
  readonly begins: readonly Turn[]
  readonly wish: Wish
}

/** Pieces that lie so in one place, or face a side. */
const TOLD: ReadonlyMap<Condition['must'], NonNullable<Wish['ends']>['must']> = new Map([
  ['home', 'home'],
  ['looks home', 'home'],
  ['placed', 'placed'],
  ['faced', 'faced'],
])

/**
 * Of a sequence that a stage asks to be known. What earlier stages have brought home stays; the stage's own goal is
 * met, be the rest as it likes where the stage says so.
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
  const { turns } = sequence(puzzle, text)
  const begins = inverseOf(puzzle, turns)
  const from = doSequence(sequenceOf(puzzle, begins), start(puzzle))
  const known = new Set((stages[index - 1]?.goal ?? []).map((each) => JSON.stringify(each)))
  const [before, own] = [true, false].map((isBefore) =>
    goal.filter((each) => known.has(JSON.stringify(each)) === isBefore),
  )
  const kept = before
    .filter(({ must, spare }) => TOLD.get(must) === 'home' && !spare)
    .flatMap((each) => [...piecesOf(puzzle, each, base)])
  const [first, ...others] = own.filter(({ must }) => TOLD.has(must))
  const must = first && others.length === 0 ? TOLD.get(first.must) : undefined
  return {
    begins,
    wish: {
      keep: [...new Set(kept)].filter((p) => from[p] === IDENTITY).sort((a, b) => a - b),
      from,
      ends:
        first && must
          ? {
              must,
              pieces: [...piecesOf(puzzle, first, base)],
              ...(must === 'faced' ? { side: sideOf(first.layer, base) } : {}),
            }
          : { must: 'home', pieces: puzzle.pieces.map((_, p) => p) },
    },
  }
}
