/** What is claimed of steps by which a block grows in a cap. */
import { growthsIn } from '../analysis/caps'
import type { Claim } from '../claims/claim'
import { directionOfName } from '../puzzle/directions'
import type { Aim } from './aim'
import { blockStory } from './blockStory'
import { commutatorClaims } from './commutatorClaims'
import { isFilled } from './goal'
import type { PieceScene } from './pieceClaims'
import type { StepClaims } from './route'
import { blocksIn, fillersOf } from './techniques/blocks'

type Blocks = Extract<Aim, { kind: 'blocks' }>

export function blockClaims(scene: PieceScene, aim: Blocks): StepClaims {
  const told = commutatorClaims(scene, { kind: 'commutator', of: aim.of })
  const { puzzle, end, endFrame } = scene
  const growths = growthsIn(puzzle, directionOfName(aim.side))
  const [grown] = blocksIn(puzzle, growths, end, endFrame)
  const isBlock = growths.some((growth) => growth.some(({ length }) => length === grown.length))
  const note = [...(told.note ?? []), ...storyOf(scene, aim, grown)]
  return {
    ...told,
    check: [
      ...told.check,
      ...(isBlock ? [{ kind: 'grown', side: aim.side, count: grown.length } as const] : []),
    ],
    ...(note.length > 0 ? { note } : {}),
  }
}

/** How the block is parked, and what comes lifted in. */
function storyOf(scene: PieceScene, { side }: Blocks, grown: readonly number[]): Claim[] {
  const { puzzle, state, frame, end, endFrame, step } = scene
  const turns = step.turns.flatMap(({ turn, role }) => (role === 'hold' ? [] : [turn]))
  const was = grown.filter((home) => isFilled(puzzle, state, home, frame))
  const coming = fillersOf(
    puzzle,
    grown.filter((home) => !was.includes(home)),
    end,
    endFrame,
  )
  const own = fillersOf(puzzle, was, state, frame)
  if (coming.length === 0) return []
  const story = blockStory(puzzle, directionOfName(side), own, coming, { state, frame }, turns)
  if (!story) return []
  const { gathers, parks, lifts, moves, leaving } = story
  return [
    ...(gathers === undefined ? [] : [{ kind: 'gathers', at: gathers } as const]),
    ...(parks && moves === 'nothing' ? [{ kind: 'parks', ...parks, lift: lifts } as const] : []),
    {
      ...{ kind: 'lifts', at: lifts, moves, coming: coming.length, leaving },
      ...(own.length > 0 ? { hasBlock: true } : {}),
    },
  ]
}
