/** The universal school as a route: each step in words, with what is set up, done and undone. */
import { coloursOf } from '../analysis/anatomy'
import { coordinatesFor } from '../analysis/invariants'
import { holdOf } from '../analysis/placements'
import { vectorOfState } from '../analysis/sums'
import { countQuarters, countTurns } from '../notation/rewrite'
import type { Scheme } from '../puzzle/colours'
import type { Puzzle, Turn } from '../puzzle/compile'
import { ok, type Result } from '../result'
import { INVERSE, multiply, type Rotation } from '../rotation'
import { pieceByPiece } from '../schools/piece-by-piece'
import type { School, Stage } from '../schools/school'
import { inverseOf, looksHome, turnFreely, writeState, type State } from '../state'
import { disturbedBy } from '../universal/baseCycles'
import { effectOf } from '../universal/effects'
import { guessedPlan, knownPlanOf } from '../universal/orbitPlan'
import { workOf } from '../universal/orbitsAtWork'
import { joined } from '../universal/joints'
import { solveUniversally, type UniversalStep } from '../universal/solve'
import { capital, inWords, kindPlural, listed, plural, shortKind } from '../words'
import type { Route, RouteStage, RouteStep, RouteTurn } from './route'

interface Scene {
  readonly puzzle: Puzzle
  readonly scheme: Scheme
  /** Before the step. */
  readonly state: State
  readonly frame: Rotation
  /** Set-up turns of the step before that are not undone. */
  readonly standing: readonly Turn[]
}

/**
 * A route in the universal school; it still has to be replayed. Set-up turns that the next step of the
 * same stage would make again are left standing between the two.
 *
 * @param prefer a piece that shall be the third of the first series, if it can
 */
export function planUniversally(
  puzzle: Puzzle,
  given: School,
  from: State,
  scheme: Scheme,
  prefer?: number,
): Result<Route> {
  const solved = solveUniversally(puzzle, from, prefer)
  if (!solved.ok) return solved
  // Solving may have found another order of the work than the one that was guessed before.
  const school = pieceByPiece(puzzle) ?? given
  const steps: { stage: number; step: RouteStep }[] = []
  let state = from
  let frame = holdOf(puzzle, from) ?? 0
  let { saved } = solved.value
  const turns: Turn[] = []
  let held: readonly Turn[] = []
  let frameBefore = frame
  for (const { step, standing, left, turns: made } of joined(puzzle, solved.value.steps)) {
    turns.push(...made)
    saved += 2 * left.length
    if (held.length === 0) frameBefore = frame
    const before = { puzzle, scheme, state, frame, standing }
    for (const turn of made) {
      state = turnFreely(puzzle, state, turn, new Uint8Array(state.length))
      if (turn.whole) frame = multiply(turn.rotation, frame)
    }
    // A hold is taken at the beginning of the step that follows.
    if (step.kind === 'hold') {
      held = made
      continue
    }
    const stage = stageFor(school, step)
    const id = `${school.stages[stage].id}.${steps.filter((each) => each.stage === stage).length + 1}`
    const after = { puzzle, scheme, state, frame, standing: left }
    const explained = explain(before, step, after, id, held)
    steps.push({ stage, step: { ...explained, frame: frameBefore } })
    held = []
  }
  const stages = school.stages.map((stage, at): RouteStage => {
    const own = steps.filter((each) => each.stage === at).map(({ step }) => step)
    return { id: stage.id, name: stage.name, aim: stage.aim, done: own.length === 0, steps: own }
  })
  const algorithms = steps.map(({ step }) => step.algorithm.join(' ')).filter(Boolean)
  return ok({
    puzzle: puzzle.definition.id,
    school: school.id,
    variant: {},
    from: writeState(from),
    base: 'up',
    baseColour: '',
    stages,
    turnCount: countTurns(turns),
    quarterCount: countQuarters(turns),
    algorithms: [...new Set(algorithms)],
    looks: steps.length,
    saved,
    orbitPlan: knownPlanOf(puzzle),
  })
}

const stageFor = ({ stages }: School, step: UniversalStep): number =>
  stages.findIndex(({ technique }) =>
    step.kind === 'shape'
      ? technique.kind === 'shape'
      : step.kind === 'sums' || step.kind === 'hold'
        ? technique.kind === 'sums'
        : technique.kind === 'cycles' &&
          technique.orbit === (step.kind === 'cycle' ? step.orbit : step.orbits[0]),
  )

function explain(
  scene: Scene,
  step: Exclude<UniversalStep, { kind: 'hold' }>,
  after: Scene,
  id: string,
  held: readonly Turn[],
): RouteStep {
  const { puzzle } = scene
  const holdTurns = held.map((turn): RouteTurn => ({ name: turn.name, role: 'hold' }))
  const frame = scene.frame
  const common = {
    id,
    kind: step.kind,
    hold:
      held.length > 0
        ? `Turn the whole puzzle first: ${held.map(({ name }) => name).join(' ')}. Keep that hold to the end`
        : 'as it is',
    others: [],
    frame,
  }
  if (step.kind === 'cycle') {
    const { setup, base } = step.cycle
    const as = (role: RouteTurn['role']) => (turn: Turn) => ({ name: turn.name, role })
    const path = pathWords(scene, step)
    const { orbit, kinds } = workOf(puzzle).orbits[step.orbit]
    const settled = { ...after, state: withUndone(after) }
    const right = rightIn(settled, orbit.places)
    const name = kindWords(kinds)
    const made = setup.slice(scene.standing.length)
    return {
      ...common,
      lookFor: path,
      check: `${after.standing.length > 0 ? 'once what is owed is undone, ' : ''}${homeWords(right, orbit.places.length, name)}. ${movedWords(puzzle, step)}`,
      hints: {
        nudge: `Three ${name} are next.`,
        pointer: path,
      },
      note: setupNote(made.length, after.standing),
      turns: [
        ...holdTurns,
        ...made.map(as('setup')),
        ...base.turns.map(as('do')),
        ...inverseOf(puzzle, setup.slice(after.standing.length)).map(as('undo')),
      ],
      algorithm: base.turns.map(({ name: turn }) => turn),
      pieces: piecesAt(scene, step).map((p) => puzzle.pieces[p].id),
      places: step.cycle.places.map((place) => puzzle.pieces[placeNow(scene, place)].id),
      others: scene.standing.length > 0 ? [] : thirdWords(scene, step),
    }
  }
  const turns = [...holdTurns, ...step.turns.map(({ name }): RouteTurn => ({ name, role: 'do' }))]
  if (step.kind === 'small') {
    const group = step.orbits.map((o) => workOf(puzzle).orbits[o])
    const places = group.flatMap(({ orbit }) => [...orbit.places])
    const name = kindWords(group.flatMap(({ kinds }) => kinds))
    return {
      ...common,
      lookFor: `the ${places.length} ${name}, all together. Turns bring them into few arrangements, never three of them round alone, so they come home first.`,
      check: `the ${places.length} ${name} are home. Others may have moved; their turn comes later.`,
      hints: {
        nudge: `The ${name} come home all together.`,
        pointer: `Only a few positions of the ${name} can be reached; each has its own shortest way.`,
      },
      turns,
      algorithm: step.turns.map(({ name: turn }) => turn),
      pieces: places.map((place) => puzzle.pieces[pieceIn(scene, place)].id),
      places: [],
    }
  }
  if (step.kind === 'shape')
    return {
      ...common,
      ...(puzzle.definition.glue.length > 0 ? BLOCK_WORDS : SHAPE_WORDS),
      turns,
      algorithm: [],
      pieces: [],
      places: [],
    }
  const settled = settledKinds(puzzle)
  const owing = [
    ...(settled === ''
      ? []
      : [`The ${settled} come home all together: they move in a small group.`]),
    sumsWords(scene),
  ]
    .filter(Boolean)
    .join(' ')
  const seen = [
    ...(settled === '' ? [] : [`the ${settled} are home`]),
    ...(hasSingles(puzzle) ? [`the ${singlesOf(puzzle)} lie straight`] : []),
  ]
  return {
    ...common,
    lookFor:
      settled === ''
        ? `nothing in particular: these turns make the rest possible. ${owing}`.trim()
        : owing,
    check:
      seen.length > 0
        ? `${listed(seen)}.`
        : 'nothing that can be seen yet; the next step shows it.',
    hints: { nudge: 'Odd and even come first.', pointer: owing },
    note: 'Three pieces going round never change this, so it is settled before that begins.',
    turns,
    algorithm: [],
    pieces: [],
    places: [],
  }
}

const singleKinds = (puzzle: Puzzle): string[] =>
  workOf(puzzle)
    .orbits.filter(({ orbit }) => orbit.places.length === 1 && orbit.orientations.length > 1)
    .flatMap(({ kinds }) => kinds)

/** Pieces that only turn in their places, so that it can be seen how. */
const hasSingles = (puzzle: Puzzle): boolean => singleKinds(puzzle).length > 0
const singlesOf = (puzzle: Puzzle): string => kindWords(singleKinds(puzzle))

/** 'corners and edges', whatever else tells them apart. */
const kindWords = (kinds: readonly string[]): string =>
  listed([...new Set(kinds.map((kind) => kindPlural(shortKind(kind))))])

/** 'three of the 8 corners are home' */
function homeWords(right: number, count: number, name: string): string {
  if (right === count) return count === 1 ? `the ${name} are home` : `all ${count} ${name} are home`
  if (right === 0) return `none of the ${count} ${name} is home yet`
  return `${inWords(right)} of the ${count} ${name} ${right === 1 ? 'is' : 'are'} home`
}

const SHAPE_WORDS = {
  lookFor:
    'the shape alone; colours do not matter yet. Every piece goes to some place of the finished shape.',
  check: 'the puzzle has its finished shape again.',
  hints: {
    nudge: 'The shape comes first.',
    pointer: 'These turns bring the shape back, colours left out of account.',
  },
}

const BLOCK_WORDS = {
  lookFor:
    'the glued blocks alone; other colours do not matter yet. They decide which turns are free, so they go back first.',
  check: 'every block lies where the finished puzzle has one, so the same turns are free as there.',
  hints: {
    nudge: 'The blocks come first.',
    pointer: 'These turns bring the blocks back to where the finished puzzle has blocks.',
  },
}

/** The pieces that are settled together with odd and even. */
function settledKinds(puzzle: Puzzle): string {
  const { settled } = knownPlanOf(puzzle) ?? guessedPlan(puzzle)
  return kindWords(settled.flatMap((o) => workOf(puzzle).orbits[o].kinds))
}

function setupNote(count: number, left: readonly Turn[]): string | undefined {
  if (left.length > 0)
    return `${listed(left.map(({ name }) => name))} ${left.length === 1 ? 'is' : 'are'} left standing: the next step would begin with ${left.length === 1 ? 'it' : 'them'} again.`
  if (count === 0) return undefined
  return `The ${plural(count, 'set-up turn')} may disturb anything; undoing ${count === 1 ? 'it' : 'them'} brings it all back.`
}

/** Of a cycle that moves orbits which come later. */
function movedWords(puzzle: Puzzle, { orbit, cycle }: Extract<UniversalStep, { kind: 'cycle' }>) {
  const others = disturbedBy(puzzle, [cycle.base], orbit)
  if (others.length === 0) return 'Nothing else has moved.'
  const kinds = others.flatMap((o) => workOf(puzzle).orbits[o].kinds)
  return `Some ${kindWords(kinds)} have moved too; their turn comes later.`
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
const piecesAt = (scene: Scene, { cycle }: Extract<UniversalStep, { kind: 'cycle' }>): number[] =>
  cycle.places.map((place) => pieceIn(scene, placeNow(scene, place)))

/** Most third pieces that are offered. */
const THIRDS = 12

function thirdWords(
  { puzzle, scheme }: Scene,
  { thirds }: Extract<UniversalStep, { kind: 'cycle' }>,
): RouteStep['others'] {
  return thirds.slice(0, THIRDS).map(({ piece, arrive, length }) => {
    const who = `the ${shortKind(puzzle.pieces[piece].kind)} with ${coloursOf(puzzle, scheme, piece)}`
    const how =
      arrive === 3
        ? 'all three arrive right'
        : arrive === 2
          ? 'two of the three arrive right'
          : 'only the first arrives right'
    return { piece: puzzle.pieces[piece].id, sentence: `${who}: ${how}, ${length} turns` }
  })
}

/** 'the corner with red and blue, at UFR, goes to DFL; …' */
function pathWords(scene: Scene, step: Extract<UniversalStep, { kind: 'cycle' }>): string {
  const { cycle, pieces } = step
  const { puzzle, scheme, standing } = scene
  const there = piecesAt(scene, step)
  const told = pieces.map((p, i) => {
    const [from, to] = [cycle.places[i], cycle.places[(i + 1) % 3]]
    const name = (place: number) => puzzle.pieces[placeNow(scene, place)].id
    const isHome = to === p
    const home = !isHome
      ? ''
      : standing.length > 0
        ? ', and so home when all is undone'
        : ', its own place'
    return `the ${shortKind(puzzle.pieces[there[i]].kind)} with ${coloursOf(puzzle, scheme, there[i])} goes from ${name(from)} to ${name(to)}${home}`
  })
  const first =
    standing.length > 0 ? `with ${standing.map(({ name }) => name).join(' ')} still standing, ` : ''
  return `${first}${told.join('; ')}.`
}

/** How many pieces of an orbit look home. */
const rightIn = ({ puzzle, state, frame }: Scene, places: readonly number[]): number =>
  places.filter((p) => looksHome(puzzle, p, multiply(INVERSE[frame], state[p]))).length

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
  const kindOf = (orbit: number) => shortKind(puzzle.pieces[sums.orbits[orbit].places[0]].kind)
  const isSingle = (orbit: number) => sums.orbits[orbit].places.length === 1
  const named = (each: typeof off) =>
    listed([...new Set(each.map(({ orbit }) => kindPlural(kindOf(orbit))))])
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

export const isUniversal = (stages: readonly Stage[]): boolean =>
  stages.some(({ technique }) => ['cycles', 'sums', 'shape'].includes(technique.kind))
