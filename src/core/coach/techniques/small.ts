/**
 * Small: an orbit whose pieces turns bring into few arrangements, never three of them round alone: all that
 * can be reached is listed, so every position has its shortest way. What came before is left as it is.
 */
import { INVERSE } from '../../rotation'
import { memoised } from '../../memo'
import { rehold, simplify } from '../../notation/rewrite'
import type { Puzzle } from '../../puzzle/compile'
import type { Technique } from '../../schools/school'
import { rotateState } from '../../state'
import { movesOf } from '../../universal/moves'
import { orbitsWith, workOf } from '../../universal/orbitsAtWork'
import { settler, type Settler } from '../../universal/settle'
import { selected } from '../selections'
import { explain } from '../universalClaims'
import { after, doing, PlanProblem, type StageContext, type Workpiece } from '../workpiece'

/** @throws PlanProblem if there is too much to list, or no turns bring them home */
export function doSmall(
  { puzzle, base, scheme }: StageContext,
  work: Workpiece,
  { select, keeping }: Extract<Technique, { kind: 'small' }>,
): void {
  const own = orbitsWith(puzzle, selected(puzzle, select, base))
  const before = keeping ? orbitsWith(puzzle, selected(puzzle, keeping, base)) : []
  const known = settlerFor(puzzle, `${before.join()};${own.join()}`)
  const { state, frame } = work.held()
  const found = known?.settle(rotateState(state, INVERSE[frame]))
  if (!found)
    throw new PlanProblem({
      code: 'not-served',
      sentence: 'Some pieces are permuted by a group that is too large to list.',
    })
  // Loops that follow each other can turn one layer twice.
  const turns = rehold(puzzle, simplify(puzzle, found), frame)
  if (turns.length === 0) return
  const scene = { puzzle, scheme, state, frame, standing: [] }
  const end = after(puzzle, state, frame, turns)
  const step = explain(
    scene,
    { kind: 'small', orbits: own, turns },
    { ...scene, ...end },
    '',
    [],
    true,
  )
  work.step({ kind: 'given', step }, doing(turns))
}

const settlerFor = memoised((puzzle: Puzzle, key: string): Settler | undefined => {
  const [before, own] = key.split(';').map((list) => list.split(',').filter(Boolean).map(Number))
  const { orbits } = workOf(puzzle)
  const placesOf = (list: readonly number[]) => list.flatMap((o) => [...orbits[o].orbit.places])
  let moves = movesOf(puzzle)
  if (before.length > 0) {
    const first = settler(puzzle, placesOf(before), moves, false)
    if (!first) return undefined
    moves = first.leaving(placesOf(own))
  }
  return settler(puzzle, placesOf(own), moves, false)
})
