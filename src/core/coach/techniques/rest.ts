/** Rest: what is left, piece by piece, by the universal school. */
import type { Turn } from '../../puzzle/compile'
import { pieceByPiece } from '../../schools/piece-by-piece'
import { planUniversally } from '../universal'
import { stepsOf } from '../route'
import type { StageContext, Workpiece } from '../workpiece'

/** @throws a sentence where the universal school does not serve the puzzle */
export function doRest({ puzzle, scheme }: StageContext, work: Workpiece): void {
  const school = pieceByPiece(puzzle)
  if (!school) throw new Error('what is left cannot be planned piece by piece')
  const route = planUniversally(puzzle, school, work.state, scheme)
  if (!route.ok) throw new Error(route.problem.sentence)
  for (const step of stepsOf(route.value))
    work.step(
      { kind: 'given', step },
      step.turns.map(({ name, role, run }) => ({
        turn: puzzle.turnByName.get(name) as Turn,
        role,
        ...(run === undefined ? {} : { run }),
      })),
    )
}
