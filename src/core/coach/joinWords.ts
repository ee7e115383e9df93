/** The words of steps that join the parts of a smaller box, and of what that one alone cannot mend. */
import { joinedAs, joinedState, shownIn, togetherIn, type Joined } from '../analysis/joined'
import { whereNow, who } from '../analysis/who'
import { hasColouredSides } from '../analysis/sides'
import type { Rotation, Vector } from '../rotation'
import { baseKind, capital, inWords, kindPlural, listed, plural } from '../words'
import type { State } from '../state'
import type { Aim } from './aim'
import { holdOfScene, ids, placeIn, type PieceScene, type PieceWords } from './pieceWords'
import type { RouteLine } from './route'

type Join = Extract<Aim, { kind: 'join' }>
type Remedy = Extract<Aim, { kind: 'remedy' }>

/** So many parts are told one by one. */
const MOST_LINES = 4

export function joinWords(scene: PieceScene, aim: Join): PieceWords {
  const { puzzle, scheme } = scene
  const joined = joinedAs(puzzle, aim.size) as Joined
  const grown = aim.of.flatMap((whole, i) =>
    aim.after[i] > aim.before[i] ? [{ whole, before: aim.before[i], after: aim.after[i] }] : [],
  )
  const name = (whole: number) => who(joined.small, scheme, whole)
  const first = grown[0]
  const kind = baseKind(joined.small.pieces[first.whole].kind)
  const members = grown.map(({ whole, after }) => lyingTogether(scene, joined, whole, after))
  const all = members.flat()
  const lines = all.length > MOST_LINES ? [] : linesOf(scene, all)
  const goal = grown.map(({ whole, after }, i) => {
    const size = joined.partsOf[whole].length
    const where = placeIn(scene, scene.endFrame, scene.end, members[i][0])
    return after === size
      ? `${inWords(size)} parts of ${name(whole)} lie together, one of them at ${where}`
      : `${inWords(after)} of the ${inWords(size)} parts of ${name(whole)} lie together, one of them at ${where}`
  })
  const left = aim.of.filter((whole, i) => aim.after[i] < joined.partsOf[whole].length).length
  const status =
    left === 0
      ? `All ${inWords(aim.of.length)} ${kindPlural(kind)} are whole then.`
      : `${capital(plural(left, kind))} still to be made whole after this.`
  return {
    lookFor: `parts of ${listed(grown.map(({ whole }) => name(whole)))}.`,
    ...(lines.length > 0 ? { lines } : {}),
    hold: holdOfScene(scene),
    check: `${listed(goal)}.`,
    ifNot: 'Take the turns back, the last first, and look again where the parts lie.',
    note: [...openWords(scene), status].join(' '),
    hints: {
      nudge: `Find parts of one ${kind} that can be brought together.`,
      pointer: `Bring ${inWords(first.after)} parts of ${name(first.whole)} together.`,
    },
    pieces: ids(puzzle, all),
  }
}

/** The parts that lie together at the end, most of one kind of way: as indices of pieces. */
function lyingTogether(
  { puzzle, end }: PieceScene,
  { partsOf }: Joined,
  whole: number,
  after: number,
): number[] {
  const shown = shownIn(puzzle, end)
  const bySlot = new Map([...end].map((r, p) => [puzzle.slot[24 * p + r], p]))
  const parts = partsOf[whole]
  let best: number[] = []
  for (let r = 0; r < 24; r++) {
    const own = parts.flatMap((p) => {
      const slot = puzzle.slot[24 * p + r]
      return shown[slot] === 1 + puzzle.look[24 * p + r] ? [bySlot.get(slot) as number] : []
    })
    if (own.length > best.length) best = own
    if (own.length === after) return own
  }
  return best
}

function linesOf(scene: PieceScene, pieces: readonly number[]): RouteLine[] {
  const { puzzle, scheme, state, frame, end, endFrame } = scene
  return pieces.map((p) => {
    const to = whereNow(puzzle, endFrame, p, end[p])
    const now = placeIn(scene, frame, state, p)
    return {
      piece: puzzle.pieces[p].id,
      sentence: `${capital(who(puzzle, scheme, p))} is ${now}${to === undefined || to === now ? '' : `. It goes to ${to}`}.`,
    }
  })
}

/** A slice stands open between its two turns. */
function openWords(_: PieceScene): string[] {
  return []
}

export function remedyWords(scene: PieceScene, aim: Remedy): PieceWords {
  const { puzzle, stage } = scene
  const { technique } = stage
  const size = technique.kind === 'remedy' ? technique.select.as : undefined
  const joined = joinedAs(puzzle, size as Vector) as Joined
  return {
    lookFor: 'what turns of outer layers alone can never mend.',
    hold: holdOfScene(scene),
    check: 'as before, but what is left can be finished by outer layers.',
    ifNot: 'Take the turns back, the last first, and look again how it is held.',
    hints: { nudge: 'Count.', pointer: 'Inner layers must turn once more.' },
    algorithm: aim.sequence,
    pieces: ids(
      puzzle,
      aim.of.flatMap((whole) => [...joined.partsOf[whole]]),
    ),
  }
}
