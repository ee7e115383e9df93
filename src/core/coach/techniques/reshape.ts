/** Reshape: the shape comes back, whatever the colours; what lies where is looked at afterwards. */
import { INVERSE } from '../../rotation'
import { isInShape } from '../../scramble/scramble'
import { rehold, simplify } from '../../notation/rewrite'
import { rotateState } from '../../state'
import { canTakeShape, reshape } from '../../universal/reshape'
import { explain } from '../universalWords'
import { after, doing, PlanProblem, type StageContext, type Workpiece } from '../workpiece'

/** @throws PlanProblem if no turns bring the shape back */
export function doReshape({ puzzle, scheme }: StageContext, work: Workpiece): void {
  const { state, frame } = work.held()
  const framed = rotateState(state, INVERSE[frame])
  if (isInShape(puzzle, framed)) return
  const found = canTakeShape(puzzle, framed) ? reshape(puzzle, framed) : undefined
  if (!found)
    throw new PlanProblem({
      code: 'unreachable',
      sentence: 'No turns bring this back into shape.',
    })
  const turns = rehold(puzzle, simplify(puzzle, found), frame)
  const scene = { puzzle, scheme, state, frame, standing: [] }
  const end = after(puzzle, state, frame, turns)
  const step = explain(scene, { kind: 'shape', turns }, { ...scene, ...end }, '', [], true)
  work.step({ kind: 'given', step }, doing(turns))
}
