/** The words of steps by which a block grows in a cap. */
import { growthsIn } from '../analysis/caps'
import { directionOfName } from '../puzzle/directions'
import { capital, plural } from '../phrases'
import type { Aim } from './aim'
import { blockStory } from './blockStory'
import { commutatorWords } from './commutatorWords'
import { isFilled } from './goal'
import { nthTurn } from './nthTurn'
import type { PieceScene, PieceWords } from './pieceWords'
import { blocksIn, fillersOf } from './techniques/blocks'

type Blocks = Extract<Aim, { kind: 'blocks' }>

/** What a block is called, by the number of its pieces but for the centre. */
const BLOCKS: Readonly<Record<number, string>> = {
  2: 'a corner with its edge',
  3: 'a block of two by two',
  5: 'a block of two by three',
  8: 'the whole cap',
}

export function blockWords(scene: PieceScene, aim: Blocks): PieceWords {
  const told = commutatorWords(scene, { kind: 'commutator', of: aim.of })
  const { puzzle, end, endFrame } = scene
  const growths = growthsIn(puzzle, directionOfName(aim.side))
  const [grown] = blocksIn(puzzle, growths, end, endFrame)
  const size = BLOCKS[grown.length]
  const note = [...(told.note ? [told.note] : []), ...storyWords(scene, aim, grown)].join(' ')
  return {
    ...told,
    ...(size ? { check: `${told.check.replace(/\.$/, '')}, ${size} among them.` } : {}),
    ...(note === '' ? {} : { note }),
  }
}

/** How the block is parked, and what comes lifted in. */
function storyWords(scene: PieceScene, { side }: Blocks, grown: readonly number[]): string[] {
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
  const named = (at: number) => capital(nthTurn(turns, at))
  const { gathers, parks, lifts, moves, leaving } = story
  const [it, lift] = [coming.length > 1 ? 'them' : 'it', nthTurn(turns, lifts)]
  const leave = `${plural(leaving, 'piece')} ${leaving === 1 ? 'leaves' : 'leave'} the cap for ${it}`
  const parking = {
    apart: `parks the block: ${lift} would take it apart`,
    along: `parks the block: ${lift} would take it along`,
    clear: `turns the open place to ${lift}`,
  }
  const lifting = {
    nothing: `lifts ${it} in${own.length > 0 ? ' beside the block' : ''}; ${leave}`,
    some: `puts the block together again, with ${it}`,
    all: `brings the block to ${it}`,
  }
  return [
    ...(gathers === undefined ? [] : [`${named(gathers)} brings them together.`]),
    ...(parks && moves === 'nothing' ? [`${named(parks.at)} ${parking[parks.from]}.`] : []),
    `${capital(lift)} ${lifting[moves]}.`,
  ]
}
