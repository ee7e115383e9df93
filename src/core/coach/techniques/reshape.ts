/**
 * Reshape: the shape comes back, whatever the colours; what lies where is looked at afterwards. Piece by piece: a step
 * ends whenever fewer pieces stand out of the finished shape than ever before.
 */
import { INVERSE, type Rotation } from '../../rotation'
import type { Puzzle, Turn } from '../../puzzle/compile'
import { isInShape } from '../../scramble/scramble'
import { rehold, simplify } from '../../notation/rewrite'
import { rotateState, turnFreely, type State } from '../../state'
import { canTakeShape, reshape } from '../../universal/reshape'
import { outOf } from '../../universal/unfinished'
import { explain } from '../universalClaims'
import { after, doing, PlanProblem, type StageContext, type Workpiece } from '../workpiece'

/** @throws PlanProblem if no turns bring the shape back */
export function doReshape({ puzzle, scheme }: StageContext, work: Workpiece): void {
  const { state: begun, frame: framedAs } = work.held()
  const framed = rotateState(begun, INVERSE[framedAs])
  if (isInShape(puzzle, framed)) return
  const found = canTakeShape(puzzle, framed) ? reshape(puzzle, framed) : undefined
  if (!found)
    throw new PlanProblem({
      code: 'unreachable',
      sentence: 'No turns bring this back into shape.',
    })
  const all = rehold(puzzle, simplify(puzzle, found), framedAs)
  for (const turns of byPieces(puzzle, begun, framedAs, all)) {
    const { state, frame } = work.held()
    const scene = { puzzle, scheme, state, frame, standing: [] }
    const end = after(puzzle, state, frame, turns)
    const step = explain(scene, { kind: 'shape', turns }, { ...scene, ...end }, '', [], true)
    work.step({ kind: 'given', step }, doing(turns))
  }
}

/** The turns cut where fewer pieces stand out than ever before; blocks that are glued go back all at once. */
function byPieces(
  puzzle: Puzzle,
  begun: State,
  frame: Rotation,
  turns: readonly Turn[],
): (readonly Turn[])[] {
  if (puzzle.definition.glue.length > 0) return [turns]
  const parts: Turn[][] = [[]]
  let state = begun
  let least = outOf(puzzle, { state: begun, frame: frame }).length
  turns.forEach((turn, i) => {
    state = turnFreely(puzzle, state, turn, new Uint8Array(state.length))
    parts[parts.length - 1].push(turn)
    const out = outOf(puzzle, { state: state, frame: frame }).length
    if (out >= least || i === turns.length - 1) return
    least = out
    parts.push([])
  })
  return parts
}
