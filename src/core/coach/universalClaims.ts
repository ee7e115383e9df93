/** What is claimed of a step of the universal school. Every place and every count is read off the states. */
import { knownCyclesOf } from '../universal/baseCycles'
import type { GroupName } from '../analysis/groupNames'
import { lookAlikesOf } from '../analysis/lookAlikes'
import type { Scheme } from '../puzzle/colours'
import type { Puzzle, Turn } from '../puzzle/compile'
import { INVERSE, multiply, type Rotation } from '../rotation'
import { inverseOf, looksHome, turnFreely, type State } from '../state'
import { effectOf } from '../universal/effects'
import { guessedPlan, knownPlanOf } from '../universal/orbitPlan'
import { groupOf } from '../universal/groups'
import { workOf } from '../universal/orbitsAtWork'
import type { UniversalStep } from '../universal/solve'
import { baseKind } from '../phrases'
import { goRound } from './goRound'
import { halfwayOf } from './halfway'
import { pieceAt, THIRDS } from './pieceClaims'
import { withoutEcho, type RouteLine, type RouteStep, type RouteTurn } from './route'
import { homeFilled, markClaim, marksIn, marksOf, who, type Mark } from '../analysis/who'
import { NOTHING_SAID, type Claim, type Said } from '../claims/claim'
import { lies, movedBetween } from '../claims/evidence'
import { outOf, sumsOff } from '../universal/unfinished'

export interface Scene {
  readonly puzzle: Puzzle
  readonly scheme: Scheme
  /** Before the step, once its hold is taken. */
  readonly state: State
  readonly frame: Rotation
  /** Set-up turns of the step before that are not undone. */
  readonly standing: readonly Turn[]
}

type CycleStep = Extract<UniversalStep, { kind: 'cycle' }>

/** @param isFirst whether no step of its stage came before */
export function explain(
  scene: Scene,
  step: Exclude<UniversalStep, { kind: 'hold' }>,
  after: Scene,
  id: string,
  held: readonly Turn[],
  isFirst: boolean,
): RouteStep {
  const holdTurns = held.map((turn): RouteTurn => ({ name: turn.name, role: 'hold' }))
  const common = {
    id,
    kind: step.kind,
    hold: holdWords(scene, held),
    others: [],
    frame: scene.frame,
  }
  if (step.kind === 'cycle')
    return withoutEcho({ ...common, ...cycleClaims(scene, step, after, holdTurns, isFirst) })
  const turns = [...holdTurns, ...step.turns.map(({ name }): RouteTurn => ({ name, role: 'do' }))]
  if (step.kind === 'small') return withoutEcho({ ...common, ...smallClaims(scene, step), turns })
  if (step.kind === 'shape')
    return withoutEcho({
      ...common,
      ...(scene.puzzle.definition.glue.length > 0 ? BLOCK_STEP : shapeStep(scene, after)),
      turns,
      algorithm: [],
      places: [],
    })
  return withoutEcho({ ...common, ...sumsStep(scene, after), turns })
}

function holdWords({ puzzle, scheme, state, frame }: Scene, held: readonly Turn[]): Said {
  const marks = marksOf(puzzle, scheme, state, frame) ?? []
  return [
    { kind: 'holdBy', turns: held.map(({ name }) => name) },
    ...marks.map((mark) => markClaim(puzzle, mark)),
  ]
}

function cycleClaims(
  scene: Scene,
  step: CycleStep,
  after: Scene,
  holdTurns: readonly RouteTurn[],
  isFirst: boolean,
) {
  const { puzzle } = scene
  const { setup, base, places } = step.cycle
  const as = (role: RouteTurn['role']) => (turn: Turn) => ({ name: turn.name, role })
  const settled: Scene = { ...after, state: withUndone(after) }
  const there = piecesAt(scene, step)
  const lines = linesOf(scene, step, there, settled)
  const made = setup.slice(scene.standing.length)
  const turns = [
    ...holdTurns,
    ...made.map(as('setup')),
    ...base.turns.map(as('do')),
    ...inverseOf(puzzle, setup.slice(after.standing.length)).map(as('undo')),
  ]
  const done = turns
    .slice(holdTurns.length)
    .flatMap(({ name }) => puzzle.turnByName.get(name) ?? [])
  const halfway = halfwayOf(puzzle, scene.state, scene.frame, done, there)
  const note: Said = [
    // While something stands, places are not what they will be.
    ...(scene.standing.length + after.standing.length === 0 ? goRound(puzzle, scene, lines) : []),
    ...(isFirst && step.thirds.length > 0 ? [{ kind: 'fewestTried' } as const] : []),
    ...lossOf(scene, step, settled),
    ...equalsOf(scene, there),
    ...setUpOf(isFirst ? made.length : 0, after.standing),
  ]
  return {
    lookFor: NOTHING_SAID,
    lines,
    check: cycleCheck(scene, step, there, after, settled),
    hints: {
      nudge: [{ kind: 'seek', piece: puzzle.pieces[there[0]].id } as const],
      pointer: lines[0].says,
    },
    ...(note.length > 0 ? { note } : {}),
    halfway: halfway && { ...halfway, after: halfway.after + holdTurns.length },
    turns,
    algorithm: base.turns.map(({ name: turn }) => turn),
    pieces: there.map((p) => puzzle.pieces[p].id),
    places: places.map((place) => puzzle.pieces[placeNow(scene, place)].id),
    others: scene.standing.length > 0 ? [] : thirdsOf(scene, step, there[0]),
  }
}

function linesOf(
  scene: Scene,
  { cycle }: CycleStep,
  there: readonly number[],
  settled: Scene,
): RouteLine[] {
  const { puzzle, state, frame } = scene
  const isOwed = scene.standing.length > 0 || settled.standing.length > 0
  return there.map((p, i): RouteLine => {
    const target = placeNow(scene, cycle.places[(i + 1) % 3])
    const ends = homeFilled(puzzle, settled.frame, p, settled.state[p]) ?? target
    const [{ id: piece }, { id: place }] = [puzzle.pieces[p], puzzle.pieces[ends]]
    const goes = { piece, place, lies: lies(puzzle, settled, p), line: ((i + 1) % 3) + 1 }
    return {
      piece,
      to: puzzle.pieces[target].id,
      says: [
        pieceAt(puzzle, frame, state, p),
        { kind: 'goesTo', ...goes, ...(isOwed ? { isOwed } : {}) },
      ],
    }
  })
}

const isHomeIn = ({ puzzle, state, frame }: Scene, piece: number): boolean =>
  looksHome(puzzle, piece, multiply(INVERSE[frame], state[piece]))

/** What can be seen when the turns are made, what it counts up to, and what else has moved. */
function cycleCheck(
  { puzzle, frame, state, standing }: Scene,
  step: CycleStep,
  [first, ...others]: readonly number[],
  after: Scene,
  settled: Scene,
): Said {
  const { places } = groupOf(puzzle, step.orbit)
  const isOwed = after.standing.length > 0
  const count = places.filter((p) => isFilledRight(settled, p)).length
  const seen = homeFilled(puzzle, after.frame, first, after.state[first])
  const before = { frame, state: withUndone({ puzzle, state, standing }) }
  const moved = movedBetween(puzzle, before, settled).filter(
    (p) => p !== first && !others.includes(p),
  )
  return [
    // Where it belongs has been said; while something is owed it is elsewhere.
    ...(seen === undefined || !isOwed ? [] : [pieceAt(puzzle, after.frame, after.state, first)]),
    {
      ...{ kind: 'homeCount', of: idsOf(puzzle, places), count, how: 'home' },
      ...(isOwed ? { isOwed } : {}),
    },
    { kind: 'movedBeside', kinds: kindsOf(puzzle, moved) },
  ]
}

const idsOf = (puzzle: Puzzle, pieces: readonly number[]) => pieces.map((p) => puzzle.pieces[p].id)

const kindsOf = (puzzle: Puzzle, pieces: readonly number[]): string[] => [
  ...new Set(pieces.map((p) => baseKind(puzzle.pieces[p].kind))),
]

/** Places that are right before the step and not after it, which must not come as a surprise. */
function lossOf(scene: Scene, { orbit }: CycleStep, settled: Scene): Claim[] {
  const before = { ...scene, state: withUndone(scene) }
  const lost = groupOf(scene.puzzle, orbit).places.filter(
    (p) => isFilledRight(before, p) && !isFilledRight(settled, p),
  )
  return lost.length === 0 ? [] : [{ kind: 'givenUp', places: idsOf(scene.puzzle, lost) }]
}

/** Whether a place of the finished puzzle shows what it should. */
function isFilledRight(scene: Scene, place: number): boolean {
  const piece = pieceIn(scene, place)
  return piece >= 0 && isHomeIn(scene, piece)
}

function smallClaims(
  scene: Scene,
  step: Extract<UniversalStep, { kind: 'small' }>,
): Omit<RouteStep, 'id' | 'kind' | 'hold' | 'others' | 'frame' | 'turns'> {
  const { puzzle } = scene
  const groups = step.orbits.map((o) => groupOf(puzzle, o))
  const places = groups.flatMap((group) => group.places)
  const of = idsOf(puzzle, places)
  // That three of them cannot go round alone is said only where it has been looked for.
  const cycles = knownCyclesOf(puzzle)
  const isNeverThree = cycles !== undefined && step.orbits.every((o) => !cycles.has(o))
  return {
    lookFor: [{ kind: 'allTogether', of, ...(isNeverThree ? { isNeverThree } : {}) }],
    check: groups.map((group) => allHome(puzzle, group.places)),
    hints: {
      nudge: [{ kind: 'seekAmong', of, what: 'all' }],
      pointer: [{ kind: 'ownWay', of }],
    },
    algorithm: step.turns.map(({ name: turn }) => turn),
    pieces: places.map((place) => puzzle.pieces[pieceIn(scene, place)].id),
    places: [],
  }
}

const allHome = (puzzle: Puzzle, places: readonly number[]): Claim => ({
  ...{ kind: 'homeCount', of: idsOf(puzzle, places), count: places.length, how: 'home' },
})

/** More groups are not told one by one. */
const MOST_GROUPS = 3

function sumsStep(scene: Scene, after: Scene) {
  const { puzzle } = scene
  const settled = settledGroups(puzzle)
  const off = sumsOff(puzzle, scene)
  const owing: Claim[] =
    off.odd.length + off.twisted.length + off.turned === 0
      ? []
      : [
          {
            ...{ kind: 'sumsOff', odd: off.odd, twisted: off.twisted },
            ...(off.turned > 0 ? { turned: off.turned, turnedKinds: off.turnedKinds } : {}),
          },
        ]
  const singles = singlesOf(puzzle)
  const straight = singles.filter((p) => isFilledRight(after, p))
  const told =
    settled.length > MOST_GROUPS
      ? [settled.flatMap(({ places }) => [...places])]
      : settled.map(({ places }) => places)
  const of = idsOf(
    puzzle,
    settled.flatMap(({ places }) => [...places]),
  )
  const isStraight = singles.length > 0 && straight.length === singles.length
  return {
    lookFor: [
      settled.length === 0
        ? ({ kind: 'oddFirst' } as const)
        : ({ kind: 'allTogether', of } as const),
      ...owing,
    ],
    check: [
      ...told.map((places) => allHome(puzzle, places)),
      ...(isStraight ? [allHome(puzzle, singles)] : []),
      ...movedTo(scene, after),
    ],
    hints: {
      nudge: [{ kind: 'oddFirst' } as const],
      pointer:
        owing.length > 0
          ? owing
          : settled.length > 0
            ? [{ kind: 'seekAmong', of, what: 'all' } as const]
            : [{ kind: 'restDepends' } as const],
    },
    note: [{ kind: 'sumsFirst' } as const],
    algorithm: [],
    pieces: [],
    places: [],
  }
}

/** A piece that can be seen to have moved, and where it is now. */
function movedTo({ puzzle, scheme, state, frame }: Scene, after: Scene): Claim[] {
  const isNew = ({ piece, home }: Pick<Mark, 'piece' | 'home'>) =>
    puzzle.pieces.every(
      (_, p) =>
        who(puzzle, scheme, p) !== who(puzzle, scheme, piece) ||
        homeFilled(puzzle, frame, p, state[p]) !== home,
    )
  // Where only pieces that have equals have moved, one of them will do.
  const equals = puzzle.pieces.flatMap(({ faces }, piece) => {
    const home = homeFilled(puzzle, after.frame, piece, after.state[piece])
    return faces.length === 0 || home === undefined ? [] : [{ piece, home }]
  })
  const moved = marksIn(puzzle, scheme, after.state, after.frame).find(isNew) ?? equals.find(isNew)
  return moved ? [pieceAt(puzzle, after.frame, after.state, moved.piece)] : []
}

/** Places of pieces that only turn in them, so that it can be seen how. */
const singlesOf = (puzzle: Puzzle): number[] =>
  workOf(puzzle).orbits.flatMap(({ orbit }) =>
    orbit.places.length === 1 && orbit.orientations.length > 1 ? [...orbit.places] : [],
  )

/** The groups that are settled together with odd and even. */
const settledGroups = (puzzle: Puzzle): GroupName[] =>
  (knownPlanOf(puzzle) ?? guessedPlan(puzzle)).settled
    .filter((o) => workOf(puzzle).orbits[o].orbit.places.length > 1)
    .map((o) => groupOf(puzzle, o))

/** More pieces that come into the shape at once are not named. */
const MOST_CAME = 2

/** By shape alone: what stands out of the finished shape glows, whatever its colours. */
function shapeStep(scene: Scene, after: Scene) {
  const { puzzle } = scene
  const [out, left] = [outOf(puzzle, scene), outOf(puzzle, after)]
  const came = out.filter((p) => !left.includes(p))
  const isNamed = left.length > 0 && came.length > 0 && came.length <= MOST_CAME
  return {
    lookFor: [
      { kind: 'shapeFirst' } as const,
      { kind: 'standOut', count: out.length } as const,
      ...(isNamed ? [{ kind: 'intoShape', pieces: idsOf(puzzle, came) } as const] : []),
    ],
    check: [
      left.length === 0
        ? ({ kind: 'inShape' } as const)
        : ({ kind: 'standOut', count: left.length } as const),
    ],
    hints: {
      nudge: [{ kind: 'shapeFirst' } as const],
      pointer: [{ kind: 'standOut', count: out.length } as const],
    },
    pieces: idsOf(puzzle, out),
  }
}

const BLOCK_STEP = {
  lookFor: [{ kind: 'blocksFirst' }],
  check: [{ kind: 'blocksPlaced' }],
  pieces: [],
  hints: { nudge: [{ kind: 'blocksFirst' }], pointer: [{ kind: 'blocksBack' }] },
} as const

function setUpOf(count: number, left: readonly Turn[]): Claim[] {
  if (left.length > 0) return [{ kind: 'leftStanding', turns: left.map(({ name }) => name) }]
  return count === 0 ? [] : [{ kind: 'setUp', count }]
}

/** Of the first piece, where another looks the same: it may be either. */
function equalsOf({ puzzle }: Scene, there: readonly number[]): Claim[] {
  const alike = lookAlikesOf(puzzle).classes.find((each) => each.includes(there[0]))
  return alike
    ? [{ kind: 'lookAlike', piece: puzzle.pieces[there[0]].id, count: alike.length }]
    : []
}

/** The state with what is left standing undone. */
function withUndone({
  puzzle,
  state,
  standing,
}: Pick<Scene, 'puzzle' | 'state' | 'standing'>): State {
  let now = state
  for (const turn of inverseOf(puzzle, standing))
    now = turnFreely(puzzle, now, turn, new Uint8Array(now.length))
  return now
}

/** Where what belongs in a place is while some set-up turns stand. */
function placeNow({ puzzle, standing }: Scene, place: number): number {
  const effect = effectOf(puzzle, standing)
  return puzzle.place[24 * place + effect[place]]
}

/**
 * The piece that lies in a place of the frame. The plan tells look-alikes apart in a way of its own, so the
 * piece that it names there may be another: what is lit must be what lies there.
 */
function pieceIn({ puzzle, state, frame }: Scene, place: number): number {
  const slot = puzzle.slot[24 * place + frame]
  return state.findIndex((r, p) => puzzle.slot[24 * p + r] === slot)
}

/** The three that a series moves, as they lie before it. */
const piecesAt = (scene: Scene, { cycle }: CycleStep): number[] =>
  cycle.places.map((place) => pieceIn(scene, placeNow(scene, place)))

function thirdsOf(scene: Scene, { thirds }: CycleStep, first: number): RouteStep['others'] {
  const { puzzle } = scene
  return thirds.slice(0, THIRDS).map(({ place, arrive, length }) => {
    const { id } = puzzle.pieces[pieceIn(scene, place)]
    const at = puzzle.pieces[place].id
    return {
      piece: id,
      first: puzzle.pieces[first].id,
      says: [{ kind: 'offeredThird', piece: id, place: at, arrive, turns: length }],
    }
  })
}
