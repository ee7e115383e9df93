/** What is claimed of steps that work on pieces by selection: spin, bring, known, series. All read off the states. */
import { anchorsOf } from '../analysis/anchors'
import { hasColouredSides, turnSide } from '../analysis/sides'
import type { Claim, Of, Said } from '../claims/claim'
import { lies, lyingIn, showsRight, waitsOutside, type Moment } from '../claims/evidence'
import { lookClassesOf } from '../analysis/lookAlikes'
import { homeFilled, looksOf, markBeside, markClaim, marksOf } from '../analysis/who'
import type { Scheme } from '../puzzle/colours'
import type { Direction } from '../puzzle/directions'
import type { Puzzle } from '../puzzle/compile'
import { INVERSE, multiply, type Rotation } from '../rotation'
import type { Must, Role, Stage } from '../schools/school'
import { looksHome, type State } from '../state'
import { baseKind } from '../phrases'
import type { Aim, OtherPiece } from './aim'
import { goRound } from './goRound'
import { sameImage, sideOf } from './goal'
import type { PlannedStep } from './workpiece'
import { holdTurnsOf, MOST_LINES, type RouteLine, type RouteStep, type StepClaims } from './route'
import { selected } from './selections'
import { couldFit, deceptions } from './unseen'

/** What the words are made from: once the hold is taken, and after the last turn. */
export interface PieceScene {
  readonly puzzle: Puzzle
  readonly scheme: Scheme
  readonly stage: Stage
  readonly base: Direction
  readonly state: State
  readonly frame: Rotation
  readonly end: State
  readonly endFrame: Rotation
  /** Whether no step of the stage came before. */
  readonly isFirst: boolean
  readonly step: Pick<PlannedStep, 'endsEarly' | 'turns'>
}

/** How the whole puzzle is turned before anything else. */
export const holdBy = ({ step }: Pick<PieceScene, 'step'>): Said => {
  const opening = step.turns.slice(0, holdTurnsOf(step))
  return [{ kind: 'holdBy', turns: opening.map(({ turn }) => turn.name) }]
}

/** Two pieces and their places, by which a hold is known where sides have no colours. */
export const holdByMarks = (
  scene: Pick<PieceScene, 'puzzle' | 'scheme' | 'state' | 'frame' | 'step'>,
): Said => {
  const { puzzle, scheme, state, frame } = scene
  const marks = marksOf(puzzle, scheme, state, frame) ?? []
  return [...holdBy(scene), ...marks.map((mark) => markClaim(puzzle, mark))]
}

/** Where the base colour is, or the vertex that lacks it; and a piece with its place. */
export function holdOfScene(scene: PieceScene): Said {
  const { puzzle, scheme, base, state, frame } = scene
  if (!hasColouredSides(puzzle)) return holdByMarks(scene)
  const lacking = lackingCentre(scene)
  if (lacking === undefined) {
    const side = turnSide(puzzle, frame, base)
    const mark = markBeside(puzzle, scheme, state, frame, side)
    return [
      ...holdBy(scene),
      { kind: 'sideHeld', side: base.name, at: side.name },
      ...(mark ? [markClaim(puzzle, mark)] : []),
    ]
  }
  const mark = marksOf(puzzle, scheme, state, frame)?.find(({ piece }) => piece !== lacking)
  return [
    ...holdBy(scene),
    pieceAt(puzzle, frame, state, lacking),
    ...(mark ? [markClaim(puzzle, mark)] : []),
  ]
}

export const takenOut = ({ pieces }: Puzzle, piece: number): Claim => ({
  kind: 'takenOut',
  piece: pieces[piece].id,
})

/** Which way its faces look. */
export const shows = (
  { puzzle, state }: Pick<PieceScene, 'puzzle' | 'state'>,
  piece: number,
): Claim => ({
  kind: 'shows',
  piece: puzzle.pieces[piece].id,
  looks: looksOf(puzzle, piece, state[piece]),
})

/** How it lies in its place before, and afterwards. */
export const turnsThere = (
  { puzzle, state, frame, end, endFrame }: Omit<PieceScene, 'isFirst' | 'stage' | 'base' | 'step'>,
  p: number,
): Claim => ({
  kind: 'turnsThere',
  piece: puzzle.pieces[p].id,
  was: lies(puzzle, { state, frame }, p),
  lies: lies(puzzle, { state: end, frame: endFrame }, p),
})

/** Where it goes; that it is turned there if it stays. */
export function goesTo(scene: Omit<PieceScene, 'isFirst'>, p: number): Claim {
  const { puzzle, state, frame, end, endFrame } = scene
  const piece = puzzle.pieces[p].id
  const home = homeFilled(puzzle, endFrame, p, end[p])
  if (home === undefined) return takenOut(puzzle, p)
  if (home === homeFilled(puzzle, frame, p, state[p])) return turnsThere(scene, p)
  const how = lies(puzzle, { state: end, frame: endFrame }, p)
  return { kind: 'goesTo', piece, place: puzzle.pieces[home].id, lies: how }
}

/** Where a piece lies. */
export function pieceAt(puzzle: Puzzle, frame: Rotation, state: State, piece: number): Claim {
  const home = homeFilled(puzzle, frame, piece, state[piece])
  const { id } = puzzle.pieces[piece]
  return {
    kind: 'pieceAt',
    piece: id,
    ...(home === undefined ? {} : { place: puzzle.pieces[home].id }),
  }
}

/** On a tetrahedron: the centre that lacks the base colour, because its vertex is held away from that face. */
function lackingCentre({ puzzle, base }: PieceScene): number | undefined {
  const colour = puzzle.definition.faces[base.name]
  const centres = anchorsOf(puzzle).filter((p) =>
    baseKind(puzzle.pieces[p].kind).endsWith('centre'),
  )
  const lacking = centres.filter((p) =>
    puzzle.pieces[p].faces.every((face) => face.colour !== colour),
  )
  return lacking.length === 1 && centres.length > 2 ? lacking[0] : undefined
}

export const ids = (puzzle: Puzzle, pieces: readonly number[]) =>
  pieces.map((p) => puzzle.pieces[p].id)

const homeIn = (puzzle: Puzzle, state: State, frame: Rotation, piece: number): boolean =>
  looksHome(puzzle, piece, multiply(INVERSE[frame], state[piece]))

/** What is so of some places, by the eye: counted at a moment, and which they are if it is to be said. */
export function homeCount(
  { puzzle, base }: Pick<PieceScene, 'puzzle' | 'base'>,
  of: readonly number[],
  { must, layer, lists }: { readonly must: Must; readonly layer: Role; readonly lists?: boolean },
  { state, frame }: Moment,
): Claim {
  const how =
    must === 'placed'
      ? 'placed'
      : must !== 'faced'
        ? 'home'
        : hasColouredSides(puzzle)
          ? 'faced'
          : 'fitting'
  const side = sideOf(layer, base)
  const { classOf } = lookClassesOf(puzzle)
  const there = (place: number) => lyingIn(puzzle, { state, frame }, place)
  const isSo: Record<typeof how, (place: number) => boolean> = {
    home: (place) => there(place) >= 0 && homeIn(puzzle, state, frame, there(place)),
    placed: (place) => classOf[there(place)] === classOf[place],
    faced: (place) => there(place) >= 0 && sameImage(state[there(place)], frame, side),
    fitting: (place) =>
      there(place) >= 0 && couldFit({ puzzle, base, state, frame }, there(place), side),
  }
  const right = of.filter(isSo[how])
  return {
    ...{ kind: 'homeCount', of: ids(puzzle, of), count: right.length, how },
    ...(how === 'faced' || how === 'fitting' ? { side: side.name } : {}),
    ...(lists ? { right: ids(puzzle, right) } : {}),
  }
}

const HOME = { must: 'home', layer: 'base' } as const

/** The moments of a step: when its card is read, and after its last turn. */
export const heldIn = ({ state, frame }: PieceScene): Moment => ({ state, frame })
export const endOf = ({ end, endFrame }: PieceScene): Moment => ({ state: end, frame: endFrame })

/** Where a piece lies when the card is read, and after the last turn. */
export const liesAt = ({ puzzle, frame, state }: PieceScene, piece: number): Claim =>
  pieceAt(puzzle, frame, state, piece)
export const endsAt = ({ puzzle, endFrame, end }: PieceScene, piece: number): Claim =>
  pieceAt(puzzle, endFrame, end, piece)

export const seek = ({ pieces }: Puzzle, piece: number): Claim => ({
  kind: 'seek',
  piece: pieces[piece].id,
})

export function spinClaims(
  scene: PieceScene,
  { piece }: Extract<Aim, { kind: 'spin' }>,
): StepClaims {
  const { puzzle, base, stage, state, frame, end, endFrame } = scene
  const at = pieceAt(puzzle, frame, state, piece)
  const isBeside = stage.goal.some(
    ({ must, select }) =>
      must === 'together' && select?.kinds?.includes(baseKind(puzzle.pieces[piece].kind)),
  )
  const isHome = homeIn(puzzle, end, endFrame, piece)
  const colour = puzzle.definition.faces[base.name]
  const lacking = scene.isFirst && hasColouredSides(puzzle) ? lackingCentre(scene) : undefined
  const looks = looksOf(puzzle, piece, end[piece])
  const own = looks.filter((look) => look.colour === colour)
  return {
    lookFor: [at, turnsThere(scene, piece)],
    hold: holdOfScene(scene),
    check: [
      isBeside && !isHome && hasColouredSides(puzzle)
        ? { kind: 'continues', piece: puzzle.pieces[piece].id }
        : {
            ...{ kind: 'shows', piece: puzzle.pieces[piece].id },
            looks: hasColouredSides(puzzle) && own.length > 0 ? own : looks,
          },
    ],
    ifNot: [{ kind: 'otherwise', what: 'keepTurning' }],
    ...(lacking === undefined
      ? {}
      : { note: [{ kind: 'lacks', piece: puzzle.pieces[lacking].id, colour }] }),
    hints: { nudge: [seek(puzzle, piece)], pointer: [at] },
    pieces: ids(puzzle, [piece]),
  }
}

export const noteOf = (note: Said) => (note.length > 0 ? { note } : {})

export const offered = (puzzle: Puzzle, others: readonly OtherPiece[]): RouteStep['others'] =>
  others.map(({ piece, turns }) => ({
    piece: puzzle.pieces[piece].id,
    says: [{ kind: 'offered', piece: puzzle.pieces[piece].id, turns }],
  }))

export function bringClaims(scene: PieceScene, aim: Extract<Aim, { kind: 'bring' }>): StepClaims {
  const { puzzle, base, stage, state, frame, end, endFrame } = scene
  const { piece } = aim
  const at = pieceAt(puzzle, frame, state, piece)
  const { technique } = stage
  const group = technique.kind === 'insert' ? selected(puzzle, technique.select, base) : [piece]
  return {
    lookFor: [at, aim.isLift ? takenOut(puzzle, piece) : goesTo(scene, piece), shows(scene, piece)],
    hold: holdOfScene(scene),
    check: aim.isLift
      ? [pieceAt(puzzle, endFrame, end, piece), noneLost(scene, group)]
      : [homeCount(scene, group, HOME, endOf(scene))],
    ...noteOf([
      ...deceptions(scene, [piece], 'home'),
      ...(aim.isLift ? [{ kind: 'mustComeOut', piece: puzzle.pieces[piece].id } as const] : []),
    ]),
    hints: { nudge: [seek(puzzle, piece)], pointer: [at] },
    algorithm: aim.sequence,
    ...(aim.runs > 1 ? { runs: { times: aim.runs, before: 0, total: aim.runs } } : {}),
    pieces: ids(puzzle, [piece]),
    places: aim.isLift
      ? []
      : ids(puzzle, [homeFilled(puzzle, endFrame, piece, end[piece]) ?? piece]),
    others: offered(puzzle, aim.others),
  }
}

/** That what looked right still does; where an equal one had only looked right, how many do. */
export function noneLost(scene: PieceScene, of: readonly number[]): Claim {
  const { puzzle } = scene
  const isKept = of.every(
    (home) => !showsRight(puzzle, heldIn(scene), home) || showsRight(puzzle, endOf(scene), home),
  )
  return isKept
    ? { kind: 'noneLost', of: ids(puzzle, of) }
    : homeCount(scene, of, HOME, endOf(scene))
}

/** Why one is taken out of its layer: what can be seen of it, for an equal one may wait where the eye finds it. */
export function whyTakenOut(scene: PieceScene, piece: number, layer: readonly number[]): Claim[] {
  const { puzzle } = scene
  return [
    ...deceptions(scene, [piece], 'home'),
    ...(waitsOutside(puzzle, heldIn(scene), layer)
      ? []
      : [{ kind: 'noneWaits', of: ids(puzzle, layer) } as const]),
  ]
}

export const seekAmong = (
  puzzle: Puzzle,
  of: readonly number[],
  what: Of<'seekAmong'>['what'],
): Claim => ({ kind: 'seekAmong', of: ids(puzzle, of), what })

export function knownClaims(scene: PieceScene, aim: Extract<Aim, { kind: 'known' }>): StepClaims {
  const { puzzle } = scene
  const now = homeCount(scene, aim.pieces, { ...aim, lists: true }, heldIn(scene))
  const lines = aim.must === 'faced' ? [] : (linesOf(scene, aim.pieces) ?? [])
  const isTold = lines.length > 0
  return {
    lookFor: isTold ? [] : [now],
    ...(isTold ? { lines } : {}),
    hold: holdOfScene(scene),
    check: [homeCount(scene, aim.pieces, aim, endOf(scene))],
    ...noteOf([
      ...goRound(puzzle, heldIn(scene), lines),
      ...(aim.must === 'faced' && !hasColouredSides(puzzle)
        ? [fittingMeans(scene, aim.pieces)]
        : []),
      ...deceptions(scene, aim.pieces, aim.must),
      ...(aim.sequence.length === 0 ? [{ kind: 'turnMissing' } as const] : []),
    ]),
    hints: {
      nudge: [seekAmong(puzzle, aim.pieces, 'right')],
      pointer: isTold ? lines[0].says : [now],
    },
    algorithm: aim.sequence,
    pieces: isTold ? lines.map(({ piece }) => piece) : ids(puzzle, aim.pieces),
  }
}

/** What 'turned right' means where no colour tells. */
export const fittingMeans = (
  { puzzle }: Pick<PieceScene, 'puzzle'>,
  of: readonly number[],
): Claim => ({
  kind: 'meansFitting',
  kinds: [...new Set(of.map((p) => baseKind(puzzle.pieces[p].kind)))],
})

export function evenClaims(scene: PieceScene, { of }: Extract<Aim, { kind: 'even' }>): StepClaims {
  const { puzzle } = scene
  const kinds = new Set(of.map((p) => baseKind(puzzle.pieces[p].kind)))
  const own = ids(puzzle, of)
  const odd = { kind: 'exchanges', of: own, isOdd: true } as const
  return {
    lookFor: [odd],
    hold: holdOfScene(scene),
    check: [
      ...(kinds.size > 1 ? [] : [homeCount(scene, of, HOME, endOf(scene))]),
      { kind: 'exchanges', of: own },
    ],
    note: [{ kind: 'sumsFirst' }],
    hints: { nudge: [seekAmong(puzzle, of, 'odd')], pointer: [{ kind: 'oneQuarter' }] },
    pieces: own,
  }
}

/** Most third pieces that are offered. */
export const THIRDS = 12

export function seriesClaims(scene: PieceScene, aim: Extract<Aim, { kind: 'series' }>): StepClaims {
  const { puzzle, state, frame } = scene
  // Where everything looks home before the set-up is undone, no three have changed places.
  const lines = scene.step.endsEarly ? [] : (linesOf(scene, aim.pieces) ?? [])
  const isTold = lines.length > 0
  const done = homeCount(scene, aim.of, HOME, endOf(scene))
  return {
    lookFor: isTold ? [] : [{ kind: 'allHomeAtOnce', of: ids(puzzle, aim.of) }],
    ...(isTold ? { lines } : {}),
    hold: holdOfScene(scene),
    check: [done],
    ...noteOf([...goRound(puzzle, heldIn(scene), lines), ...deceptions(scene, aim.pieces, 'home')]),
    hints: {
      nudge: [seekAmong(puzzle, aim.of, 'three')],
      pointer: isTold ? lines[0].says : [homeCount(scene, aim.of, HOME, heldIn(scene))],
    },
    algorithm: aim.sequence,
    pieces: isTold ? lines.map(({ piece }) => piece) : ids(puzzle, aim.pieces),
    places: lines.flatMap(({ to }) => (to === undefined ? [] : [to])),
    others: aim.thirds.slice(0, THIRDS).flatMap(({ piece, arrive }) => {
      const place = homeFilled(puzzle, frame, piece, state[piece])
      if (place === undefined) return []
      const [{ id }, { id: at }] = [puzzle.pieces[piece], puzzle.pieces[place]]
      return [
        {
          piece: id,
          first: puzzle.pieces[aim.pieces[0]].id,
          says: [{ kind: 'offeredThird', piece: id, place: at, arrive } as const],
        },
      ]
    }),
  }
}

/** The pieces that move or turn, where these are few and go to each other's places. */
export function linesOf(scene: PieceScene, pieces: readonly number[]): RouteLine[] | undefined {
  const { puzzle, state, frame, end, endFrame } = scene
  const at = (of: State, hold: Rotation, p: number) =>
    puzzle.place[24 * p + multiply(INVERSE[hold], of[p])]
  const changed = pieces.filter(
    (p) => multiply(INVERSE[frame], state[p]) !== multiply(INVERSE[endFrame], end[p]),
  )
  if (changed.length > MOST_LINES) return undefined
  const from = changed.map((p) => at(state, frame, p))
  const to = changed.map((p) => at(end, endFrame, p))
  if (to.some((place) => !from.includes(place))) return undefined
  return changed.map((p, i): RouteLine => {
    const target = from.indexOf(to[i])
    const [{ id: piece }, { id: place }] = [puzzle.pieces[p], puzzle.pieces[to[i]]]
    const goes = (): Claim => ({
      ...{ kind: 'goesTo', piece, place, line: target + 1 },
      lies: lies(puzzle, { state: end, frame: endFrame }, p),
    })
    return {
      piece,
      to: place,
      says: [pieceAt(puzzle, frame, state, p), target === i ? turnsThere(scene, p) : goes()],
    }
  })
}
