/** First pieces, triggers, counting, twisting, cases. */
import { lookClassesOf } from '../../analysis/lookAlikes'
import { piecesShowing, sideOpposite, turnSide } from '../../analysis/sides'
import type { Puzzle, Turn } from '../../puzzle/compile'
import {
  directionOfName,
  directionOfVector,
  opposite,
  type Direction,
} from '../../puzzle/directions'
import { IDENTITY, rotate } from '../../rotation'
import { isSolved, start, turnFreely, type State } from '../../state'
import { indexOf, type PieceId, type TriggersKind } from '../claim'
import {
  indices,
  isHome,
  lyingIn,
  placeFilled,
  waitsOutside,
  type Evidence,
  type Moment,
} from '../evidence'
import type { Judges } from './judge'

export const OF_TRIGGERS: Judges<TriggersKind> = {
  beginWith: ({ piece }, { glowing }) => glowing.includes(piece),
  noLayerYet({ side: name }, { puzzle, at }) {
    const moment = at(0)
    const side = directionOfName(name)
    const colour = puzzle.definition.faces[name]
    const own = piecesShowing(puzzle, side)
    const shown = new Set(
      own.map((p) => {
        const face = puzzle.pieces[p].faces.find((each) => each.colour === colour)
        return face && directionOfVector(rotate(moment.state[p], face.normal))?.name
      }),
    )
    return (
      shown.size === 1 && !shown.has(undefined) && new Set(own.map((p) => moment.state[p])).size > 1
    )
  },
  triggerRuns({ piece, times, isInSlot }, evidence) {
    const { puzzle, end, algorithm } = evidence
    const p = indexOf(puzzle, piece)
    const slot = placeFilled(puzzle, end, p)
    const before = beforeRuns(evidence)
    const isThere = placeFilled(puzzle, before, p) === slot
    const works = [1, 2, 3, 4, 5].filter((n) =>
      isHome(puzzle, { ...before, state: repeat(puzzle, before.state, algorithm, n) }, p),
    )
    return (
      isThere === (isInSlot === true) &&
      works.includes(times) &&
      works.every((n) => n % 2 === (isInSlot ? 0 : 1))
    )
  },
  lastTurnLeft: ({ turn }, { algorithm, turns }) =>
    algorithm[algorithm.length - 1] === turn && turns[turns.length - 1]?.name !== turn,
  slotDeceives({ piece, colour }, { puzzle, now }) {
    const p = indexOf(puzzle, piece)
    const there = lyingIn(puzzle, now, p)
    const { side } = sideOfColour(puzzle, colour)
    return (
      there >= 0 &&
      there !== p &&
      side !== undefined &&
      puzzle.pieces[there].faces.some(
        (face) =>
          face.colour === colour &&
          directionOfVector(rotate(now.state[there], face.normal)) ===
            turnSide(puzzle, now.frame, side),
      )
    )
  },
  noneWaits: ({ of }, { puzzle, now }) => !waitsOutside(puzzle, now, indices(puzzle, of)),
  placedCounts: ({ of, side, counts }, evidence) =>
    counts.join() ===
    positions(evidence, of, side)
      .map(({ length }) => length)
      .join(),
  meansPlaced: () => true,
  allPlacedSomewhere: ({ of, side }, evidence) =>
    positions(evidence, of, side).some(({ length }) => length === of.length),
  onePlaced({ of, side, piece }, evidence) {
    const { classOf } = lookClassesOf(evidence.puzzle)
    return positions(evidence, of, side).some(
      ([one, ...more]) =>
        more.length === 0 &&
        one !== undefined &&
        classOf[one] === classOf[indexOf(evidence.puzzle, piece)],
    )
  },
  nowhereOnePlaced: ({ of, side }, evidence) =>
    positions(evidence, of, side).every(({ length }) => length !== 1),
  somewhereOnePlaced: ({ of, side }, evidence) =>
    positions(evidence, of, side, evidence.readAt(evidence.turns.length)).some(
      ({ length }) => length === 1,
    ),
  staysAt: ({ piece, place, times }, { puzzle, end, runs }) => {
    const home = placeFilled(puzzle, end, indexOf(puzzle, piece))
    return home !== undefined && puzzle.pieces[home].id === place && runs?.times === times
  },
  twistedAt: ({ piece, place }, { puzzle, end, now, glowing }) => {
    if (!glowing.includes(piece)) return false
    const p = indexOf(puzzle, piece)
    const home = placeFilled(puzzle, end, p)
    if (home === undefined) return false
    return place === undefined
      ? home === placeFilled(puzzle, now, p)
      : puzzle.pieces[home].id === place
  },
  runs({ from, to, total, wholeAt }, { puzzle, algorithm, runs, base, end }) {
    const last = turnSide(puzzle, end.frame, sideOpposite(puzzle, base) ?? opposite(base))
    const inLast = piecesShowing(puzzle, last)
    const others = puzzle.pieces.flatMap((_, p) => (inLast.includes(p) ? [] : [p]))
    const isWhole = (n: number) => {
      const state = repeat(puzzle, start(puzzle), algorithm, n)
      return others.every((p) => state[p] === IDENTITY)
    }
    const between = Array.from({ length: wholeAt - to }, (_, i) => to + i)
    return (
      runs !== undefined &&
      from === runs.before + 1 &&
      to === runs.before + runs.times &&
      total === runs.total &&
      isWhole(wholeAt) &&
      !between.some(isWhole)
    )
  },
  finishRuns: ({ isOnceHeld }, { turns }) => (isOnceHeld === true) === (turns[0]?.role === 'hold'),
  twistsLeft({ of, count }, { puzzle, readAt, turns, base }) {
    const { state, frame } = readAt(turns.length)
    const side = sideOpposite(puzzle, base)
    const letter = side && turnSide(puzzle, frame, side).letter
    const ways = puzzle.turns.filter(
      (turn) => !turn.whole && puzzle.grips[turn.grip].name === letter,
    )
    const reached = [state, ...ways.map((turn) => made(puzzle, state, turn))]
    const left = indices(puzzle, of).filter((p) => reached.every((each) => each[p] !== frame))
    return left.length === count
  },
  endsEarly: ({}, { puzzle, at, turns }) => isSolved(puzzle, at(turns.length).state),
  doneButForTurn: ({}, { puzzle, end: { state } }) =>
    isSolved(puzzle, state) ||
    puzzle.turns.some((turn) => !turn.whole && isSolved(puzzle, made(puzzle, state, turn))),
  otherwise: () => true,
}

const made = (puzzle: Puzzle, state: State, turn: Turn): State =>
  turnFreely(puzzle, state, turn, new Uint8Array(state.length))

function repeat(puzzle: Puzzle, from: State, names: readonly string[], times: number): State {
  const turns = names.flatMap((name) => puzzle.turnByName.get(name) ?? [])
  let state = from
  for (let n = 0; n < times; n++) for (const turn of turns) state = made(puzzle, state, turn)
  return state
}

/** Before the first run of the trigger; a single one without its last turn begins with a set-up turn of its own. */
function beforeRuns({ turns, at }: Evidence): Moment {
  const first = turns.findIndex(({ role }) => role === 'do' || role === 'setup')
  return at(first < 0 ? turns.length : first)
}

const sideOfColour = (puzzle: Puzzle, colour: string): { side?: Direction } => {
  const [name] = Object.entries(puzzle.definition.faces).find(([, id]) => id === colour) ?? []
  return name === undefined ? {} : { side: directionOfName(name as Direction['name']) }
}

/** Which of some places are filled by what the plan takes for their own, in each of the four positions of a layer. */
function positions(
  { puzzle, readAt, held }: Evidence,
  of: readonly PieceId[],
  name: Direction['name'],
  from: Moment = readAt(held),
): number[][] {
  const { letter } = turnSide(puzzle, from.frame, directionOfName(name))
  const quarter = puzzle.turns.find(
    ({ grip, whole, amount }) => !whole && amount === 1 && puzzle.grips[grip].name === letter,
  )
  const own = indices(puzzle, of)
  const found: number[][] = []
  let { state } = from
  for (let n = 0; n < 4; n++) {
    found.push(own.filter((home) => lyingIn(puzzle, { ...from, state }, home) === home))
    if (quarter) state = made(puzzle, state, quarter)
  }
  return found
}
