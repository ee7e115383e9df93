/** The words of a step of the universal school. Every place and every count is read off the states. */
import { knownCyclesOf } from '../universal/baseCycles'
import { coordinatesFor } from '../analysis/invariants'
import { countedName, type GroupName } from '../analysis/groupNames'
import { lookAlikesOf } from '../analysis/lookAlikes'
import { placeNamesOf } from '../analysis/placeNames'
import { vectorOfState } from '../analysis/sums'
import type { Scheme } from '../puzzle/colours'
import type { Puzzle, Turn } from '../puzzle/compile'
import { INVERSE, multiply, type Rotation } from '../rotation'
import { inverseOf, looksHome, turnFreely, type State } from '../state'
import { effectOf } from '../universal/effects'
import { guessedPlan, knownPlanOf } from '../universal/orbitPlan'
import { groupOf } from '../universal/groups'
import { workOf } from '../universal/orbitsAtWork'
import type { UniversalStep } from '../universal/solve'
import { capital, inWords, kindPlural, listed, plural, shortKind } from '../phrases'
import { halfwayOf } from './halfway'
import { arriveWords, pieceAt, THIRDS } from './pieceWords'
import { asClaims, type RouteLine, type RouteStep, type RouteTurn, type StepDraft } from './route'
import { homeFilled, markClaim, marksIn, marksOf, whereNow, who, type Mark } from '../analysis/who'
import { asSaid, NOTHING_SAID, type Said } from '../claims/claim'
import { lies } from '../claims/isTrue'

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
    return asClaims({ ...common, ...cycleWords(scene, step, after, holdTurns, isFirst) })
  const turns = [...holdTurns, ...step.turns.map(({ name }): RouteTurn => ({ name, role: 'do' }))]
  if (step.kind === 'small') return asClaims({ ...common, ...smallWords(scene, step), turns })
  if (step.kind === 'shape')
    return asClaims({
      ...common,
      ...(scene.puzzle.definition.glue.length > 0 ? BLOCK_WORDS : shapeWords(scene, after)),
      turns,
      algorithm: [],
      places: [],
    })
  return asClaims({ ...common, ...sumsStepWords(scene, after), turns })
}

function holdWords({ puzzle, scheme, state, frame }: Scene, held: readonly Turn[]): Said {
  const marks = marksOf(puzzle, scheme, state, frame) ?? []
  return [
    { kind: 'holdBy', turns: held.map(({ name }) => name) },
    ...marks.map((mark) => markClaim(puzzle, mark)),
  ]
}

function cycleWords(
  scene: Scene,
  step: CycleStep,
  after: Scene,
  holdTurns: readonly RouteTurn[],
  isFirst: boolean,
) {
  const { puzzle, scheme } = scene
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
  const first = who(puzzle, scheme, there[0])
  const check = cycleCheck(scene, step, there, after, settled)
  const halfway = halfwayOf(puzzle, scene.state, scene.frame, done, there)
  return {
    lookFor: NOTHING_SAID,
    lines,
    check,
    hints: {
      nudge: `Look for ${first}: it is the next.`,
      pointer: lines[0].says,
    },
    note:
      [
        ...(isFirst && step.thirds.length > 0
          ? ['Of the ways that were tried through this stage, this one has the fewest turns.']
          : []),
        ...lossWords(scene, step, settled),
        ...equalWords(scene, there),
        ...setupNote(made.length, after.standing),
      ].join(' ') || undefined,
    halfway: halfway && { ...halfway, after: halfway.after + holdTurns.length },
    turns,
    algorithm: base.turns.map(({ name: turn }) => turn),
    pieces: there.map((p) => puzzle.pieces[p].id),
    places: places.map((place) => puzzle.pieces[placeNow(scene, place)].id),
    others: scene.standing.length > 0 ? [] : thirdWords(scene, step, there[0]),
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
  scene: Scene,
  step: CycleStep,
  there: readonly number[],
  after: Scene,
  settled: Scene,
): string {
  const { puzzle, scheme } = scene
  const { names } = placeNamesOf(puzzle, after.frame)
  const first = homeFilled(puzzle, after.frame, there[0], after.state[there[0]])
  const seen = first === undefined ? '' : `${who(puzzle, scheme, there[0])} is ${names[first]}. `
  const group = groupOf(puzzle, step.orbit)
  const right = group.places.filter((p) => isFilledRight(settled, p)).length
  const count = homeWords(right, group)
  const once =
    after.standing.length > 0 ? `Once what is owed is undone, ${count}.` : `${capital(count)}.`
  return `${seen}${once} ${movedWords(scene, settled, there)}`
}

/** Fewer are home after the step than before it, which must not come as a surprise. */
function lossWords(scene: Scene, { orbit }: CycleStep, settled: Scene): string[] {
  const { places } = groupOf(scene.puzzle, orbit)
  const before = { ...scene, state: withUndone(scene) }
  const lost = places.filter((p) => isFilledRight(before, p) && !isFilledRight(settled, p))
  if (lost.length === 0) return []
  return [
    `${capital(plural(lost.length, 'place'))} that ${lost.length === 1 ? 'was' : 'were'} right ${lost.length === 1 ? 'is' : 'are'} given up here, and right again later in this stage.`,
  ]
}

/** Whether a place of the finished puzzle shows what it should. */
function isFilledRight(scene: Scene, place: number): boolean {
  const piece = pieceIn(scene, place)
  return piece >= 0 && isHomeIn(scene, piece)
}

function smallWords(
  scene: Scene,
  step: Extract<UniversalStep, { kind: 'small' }>,
): Omit<StepDraft, 'id' | 'kind' | 'hold' | 'others' | 'frame' | 'turns'> {
  const { puzzle } = scene
  const groups = step.orbits.map((o) => groupOf(puzzle, o))
  const places = groups.flatMap((group) => group.places)
  const name = listed(groups.map(({ name: each }) => each))
  // That three of them cannot go round alone is said only where it has been looked for.
  const cycles = knownCyclesOf(puzzle)
  const canCycle = !cycles || step.orbits.some((o) => cycles.has(o))
  return {
    lookFor: canCycle
      ? `the ${places.length} ${name}, all together: they are few enough for that.`
      : `the ${places.length} ${name}, all together. Turns bring them into few arrangements, never three of them round alone, so they come home first.`,
    check: `${listed(groups.map(countedName))} are home. Others may have moved; their turn comes later.`,
    hints: {
      nudge: `The ${name} come home all together.`,
      pointer: canCycle
        ? `Each position of the ${name} has its own shortest way.`
        : `Only a few positions of the ${name} can be reached; each has its own shortest way.`,
    },
    algorithm: step.turns.map(({ name: turn }) => turn),
    pieces: places.map((place) => puzzle.pieces[pieceIn(scene, place)].id),
    places: [],
  }
}

/** Longer lists of groups are not read out. */
const LONGEST_LIST = 80

function sumsStepWords(scene: Scene, after: Scene) {
  const { puzzle } = scene
  const settled = settledGroups(puzzle)
  const told = listed(settled.map(({ name }) => name))
  const isLong = told.length > LONGEST_LIST
  const kinds = kindWords(
    puzzle,
    settled.flatMap(({ places }) => [...places]),
  )
  const names = isLong ? `${kinds} of ${inWords(settled.length)} groups` : told
  const owing = sumsWords(scene)
  const singles = singlesOf(puzzle)
  const straight = singles.filter((p) => isFilledRight(after, p))
  const seen = [
    ...(isLong
      ? [`the ${kinds} of these groups are home`]
      : settled.map((group) => `${countedName(group)} are home`)),
    ...(singles.length > 0 && straight.length === singles.length
      ? [`all ${singles.length} ${kindWords(puzzle, singles)} lie straight`]
      : []),
  ]
  const lookFor =
    settled.length === 0
      ? 'nothing in particular: these turns make the rest possible.'
      : `the ${names}. They come home all together, because turns bring them into few arrangements.`
  return {
    lookFor: [lookFor, owing].filter(Boolean).join(' '),
    check: [
      ...(seen.length > 0 ? [`${capital(listed(seen))}.`] : []),
      ...movedTo(scene, after),
    ].join(' '),
    hints: {
      nudge: 'Odd and even come first.',
      pointer:
        owing ||
        (settled.length > 0 ? `The ${names} come home together.` : 'The rest depends on it.'),
    },
    note: 'Three pieces going round never change this, so it is settled before that begins.',
    algorithm: [],
    pieces: [],
    places: [],
  }
}

/** A piece that can be seen to have moved, and where it is now. */
function movedTo(scene: Scene, after: Scene): string[] {
  const { puzzle, scheme } = scene
  const isNew = ({ piece, place }: Pick<Mark, 'piece' | 'place'>) =>
    puzzle.pieces.every(
      (_, p) =>
        who(puzzle, scheme, p) !== who(puzzle, scheme, piece) ||
        whereNow(puzzle, scene.frame, p, scene.state[p]) !== place,
    )
  // Where only pieces that have equals have moved, one of them will do.
  const equals = puzzle.pieces.flatMap(({ faces }, piece) => {
    const place = whereNow(puzzle, after.frame, piece, after.state[piece])
    return faces.length === 0 || place === undefined ? [] : [{ piece, place }]
  })
  const moved = marksIn(puzzle, scheme, after.state, after.frame).find(isNew) ?? equals.find(isNew)
  return moved ? [`Now ${who(puzzle, scheme, moved.piece)} is ${moved.place}.`] : []
}

/** Places of pieces that only turn in them, so that it can be seen how. */
const singlesOf = (puzzle: Puzzle): number[] =>
  workOf(puzzle).orbits.flatMap(({ orbit }) =>
    orbit.places.length === 1 && orbit.orientations.length > 1 ? [...orbit.places] : [],
  )

/** 'corners and edges', whatever else tells them apart. */
const kindWords = (puzzle: Puzzle, pieces: readonly number[]): string =>
  listed([...new Set(pieces.map((p) => kindPlural(shortKind(puzzle.pieces[p].kind))))])

/** The groups that are settled together with odd and even. */
const settledGroups = (puzzle: Puzzle): GroupName[] =>
  (knownPlanOf(puzzle) ?? guessedPlan(puzzle)).settled
    .filter((o) => workOf(puzzle).orbits[o].orbit.places.length > 1)
    .map((o) => groupOf(puzzle, o))

/** 'three of the 8 corners are home' */
function homeWords(right: number, { places, name }: GroupName): string {
  if (right === places.length) return `all ${places.length} ${name} are home`
  if (right === 0) return `none of the ${places.length} ${name} is home yet`
  return `${inWords(right)} of the ${places.length} ${name} ${right === 1 ? 'is' : 'are'} home`
}

/** More pieces that come into the shape at once are not named. */
const MOST_CAME = 2

/** Pieces that lie in no place of the finished shape, as it is held. */
export const standingOut = (puzzle: Puzzle, state: State, frame: Rotation): number[] =>
  puzzle.pieces.flatMap(({ faces }, p) =>
    faces.length > 0 && homeFilled(puzzle, frame, p, state[p]) === undefined ? [p] : [],
  )

/** By shape alone: what stands out of the finished shape glows, whatever its colours. */
function shapeWords({ puzzle, scheme, state, frame }: Scene, after: Scene) {
  const out = standingOut(puzzle, state, frame)
  const left = standingOut(puzzle, after.state, after.frame)
  const came = out.filter((p) => !left.includes(p))
  const next =
    left.length === 0 || came.length === 0 || came.length > MOST_CAME
      ? ''
      : ` ${capital(listed(came.map((p) => who(puzzle, scheme, p))))} ${came.length === 1 ? 'comes' : 'come'} into it next.`
  return {
    lookFor: `the shape alone; colours do not matter yet. ${capital(plural(out.length, 'piece'))} ${out.length === 1 ? 'stands' : 'stand'} out of the finished shape.${left.length === 0 ? ' Every piece goes to some place in it.' : next}`,
    check:
      left.length === 0
        ? 'the puzzle has its finished shape again.'
        : `${plural(left.length, 'piece')} still ${left.length === 1 ? 'stands' : 'stand'} out of the finished shape.`,
    hints: {
      nudge: 'The shape comes first.',
      pointer: 'These turns bring the shape back, colours left out of account.',
    },
    pieces: out.map((p) => puzzle.pieces[p].id),
  }
}

const BLOCK_WORDS = {
  lookFor:
    'the glued blocks alone; other colours do not matter yet. They decide which turns are free, so they go back first.',
  check: 'every block lies where the finished puzzle has one, so the same turns are free as there.',
  pieces: [],
  hints: {
    nudge: 'The blocks come first.',
    pointer: 'These turns bring the blocks back to where the finished puzzle has blocks.',
  },
}

function setupNote(count: number, left: readonly Turn[]): string[] {
  const names = listed(left.map(({ name }) => name))
  if (left.length > 0)
    return [
      `${names} ${left.length === 1 ? 'is' : 'are'} left standing: the next step would begin with ${left.length === 1 ? 'it' : 'them'} again.`,
    ]
  if (count === 0) return []
  return [
    `The ${plural(count, 'set-up turn')} may disturb anything; undoing ${count === 1 ? 'it' : 'them'} brings it all back.`,
  ]
}

/** Of the first piece, where another looks the same: it may be either. */
function equalWords({ puzzle }: Scene, there: readonly number[]): string[] {
  const { classes } = lookAlikesOf(puzzle)
  const alike = classes.find((each) => each.includes(there[0]))
  if (!alike) return []
  return [
    `${capital(inWords(alike.length))} pieces look like 1; the one that lies there is meant, though any of them may end in its place.`,
  ]
}

/** What else shows itself otherwise than before: pieces of groups that come later. */
function movedWords(scene: Scene, settled: Scene, there: readonly number[]): string {
  const { puzzle, frame } = scene
  const before = withUndone(scene)
  const [was, is] = [INVERSE[frame], INVERSE[settled.frame]]
  const lookOf = (p: number, r: Rotation) => puzzle.look[24 * p + r]
  const moved = puzzle.pieces.flatMap((_, p) =>
    there.includes(p) ||
    lookOf(p, multiply(was, before[p])) === lookOf(p, multiply(is, settled.state[p]))
      ? []
      : [p],
  )
  if (moved.length === 0) return 'Nothing else has moved.'
  return `Some ${kindWords(puzzle, moved)} have moved too; their turn comes later.`
}

/** The state with what is left standing undone. */
function withUndone({ puzzle, state, standing }: Scene): State {
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

function thirdWords(scene: Scene, { thirds }: CycleStep, first: number): RouteStep['others'] {
  const { puzzle, scheme, frame } = scene
  const { names } = placeNamesOf(puzzle, frame)
  return thirds.slice(0, THIRDS).map(({ place, arrive, length }) => {
    const piece = pieceIn(scene, place)
    return {
      piece: puzzle.pieces[piece].id,
      first: puzzle.pieces[first].id,
      says: asSaid(
        `${capital(who(puzzle, scheme, piece))}, now ${names[place]}. ${arriveWords(arrive)}, in ${plural(length, 'turn')}.`,
      ),
    }
  })
}

/** Which sums are not nothing yet. */
function sumsWords({ puzzle, state, frame }: Scene): string {
  const { sums, columns } = workOf(puzzle)
  const back = INVERSE[frame]
  const vector = vectorOfState(
    puzzle,
    sums,
    state.map((r) => multiply(back, r)),
  )
  const coordinates = coordinatesFor(sums.orbits)
  const off = columns.filter((c) => vector[c] !== 0).map((c) => coordinates[c])
  const isSingle = (orbit: number) => sums.orbits[orbit].places.length === 1
  const named = (each: typeof off) =>
    kindWords(
      puzzle,
      each.map(({ orbit }) => sums.orbits[orbit].places[0]),
    )
  const odd = off.filter(({ orbit, what }) => !isSingle(orbit) && what === 'parity')
  const twisted = off.filter(({ orbit, what }) => !isSingle(orbit) && what === 'twist')
  const turned = off.filter(({ orbit }) => isSingle(orbit))
  const told = [
    ...(odd.length > 0 ? [`the exchanges of ${named(odd)} are odd`] : []),
    ...(twisted.length > 0 ? [`the twists of ${named(twisted)} do not add up`] : []),
    ...(turned.length > 0
      ? [
          `${inWords(turned.length)} of the ${named(turned)} ${turned.length === 1 ? 'is' : 'are'} turned in place`,
        ]
      : []),
  ]
  return told.length === 0 ? '' : `${capital(listed(told))}.`
}
