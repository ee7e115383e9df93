/** What is claimed of steps that join the parts of a smaller box, and of what that one alone cannot mend. */
import { joinedAs, joinedState, shownIn, wholesIn, type Joined } from '../analysis/joined'
import { parityOf } from '../analysis/invariants'
import {
  byStrips,
  exchangeOf,
  joiningOf,
  pairPlacesOf,
  piecesBySlot,
  sharingPlaces,
  type ByStrips,
  type Filled,
  type PairPlace,
  type Strip,
} from '../analysis/pairPlaces'
import type { Turn } from '../puzzle/compile'
import { homeFilled, who } from '../analysis/who'
import { INVERSE, multiply, ROTATION_COUNT, type Rotation, type Vector } from '../rotation'
import { leavesOpen } from './naming'
import { turnFreely, type State } from '../state'
import { baseKind } from '../phrases'
import type { Aim } from './aim'
import { piecesOf, sameImage, sideOf } from './goal'
import { goesTo, holdOfScene, ids, pieceAt, seekAmong, type PieceScene } from './pieceClaims'
import { MOST_LINES, type RouteLine, type RouteStep, type StepClaims } from './route'
import type { Claim } from '../claims/claim'

type Join = Extract<Aim, { kind: 'join' }>
type Remedy = Extract<Aim, { kind: 'remedy' }>

/** A piece of the smaller box more of whose parts lie together than before, as pieces of the real puzzle. */
interface Grown {
  readonly whole: number
  readonly after: number
  readonly size: number
  /** Those that lie together at the end, and which of them have come to it. */
  readonly together: readonly number[]
  readonly come: readonly number[]
  /** How it lies then. */
  readonly rotation: Rotation
}

export function joinClaims(scene: PieceScene, aim: Join): StepClaims {
  const { puzzle } = scene
  const joined = joinedAs(puzzle, aim.size) as Joined
  const grown = grownIn(scene, joined, aim)
  const isPair = grown.every(({ size }) => size === 2)
  const told = aim.isByStrips
    ? joinedByStrips(scene, joined, aim)
    : { grown, turns: turnsOf(scene) }
  const lines = isPair
    ? told.grown.map((each) => pairLine(scene, joined, aim, each, told.turns))
    : comingLines(scene, grown)
  const isTold = lines.length > 0 && lines.length <= MOST_LINES
  const all = [...new Set(told.grown.flatMap(({ together }) => [...together]))]
  const lit = ids(puzzle, all)
  const missing = aim.of.reduce(
    (sum, whole, i) => sum + joined.partsOf[whole].length - aim.after[i],
    0,
  )
  const as = aim.size
  const of = wholeIds(joined, aim.of)
  const joins = {
    kind: 'joins',
    as,
    wholes: wholeIds(joined, [...new Set(grown.map(({ whole }) => whole))]),
  } as const
  // Once a stage is enough: what is owed is shown all the time.
  const open: Claim[] = aim.open && scene.isFirst ? [{ kind: 'openFrom', ...aim.open }] : []
  return {
    lookFor: isTold ? [] : [joins],
    ...(isTold ? { lines } : {}),
    hold: holdOfScene(scene),
    check: grown.map((each) => grownClaim(scene, joined, aim, each)),
    note: [
      ...open,
      ...(isPair ? costClaims(scene, joined, aim) : []),
      { kind: isPair ? 'pairsLeft' : 'partsMissing', as, of, count: missing },
    ],
    hints: {
      nudge: [seekAmong(puzzle, all, isPair ? 'pair' : 'coming')],
      pointer: isTold ? lines[0].says : [joins],
    },
    others: rivalsOf(scene, joined, aim),
    pieces: isTold
      ? [
          ...lines.map(({ piece }) => piece),
          ...lit.filter((id) => lines.every((l) => l.piece !== id)),
        ]
      : lit,
  }
}

const wholeIds = ({ small }: Joined, wholes: readonly number[]) =>
  wholes.map((whole) => small.pieces[whole].id)

/** What more lies together of. */
function grownIn(scene: PieceScene, joined: Joined, aim: Join): Grown[] {
  const { puzzle, stage, base, state, end } = scene
  const changed = aim.of.filter((_, i) => aim.after[i] !== aim.before[i])
  const isPlaced = stage.goal.some(
    (condition) =>
      condition.must !== 'together' &&
      piecesOf(puzzle, condition, base).some((p) => changed.includes(joined.wholeOf[p])),
  )
  // Of pairs that may lie anywhere equal ones can be taken for each other.
  if (!isPlaced && aim.of.every((whole) => joined.partsOf[whole].length === 2))
    return exchangeOf(puzzle, joined, aim.of, state, end).makes.map(grownPair)
  const full = wholesIn(puzzle, joined, end, aim.of)
  return aim.of.flatMap((whole, i) =>
    aim.after[i] > aim.before[i]
      ? [grownTo(scene, joined, whole, aim.after[i], full.get(whole))]
      : [],
  )
}

/**
 * What a pair costs: two that lie in one place and are no pair are taken apart for it, those that are joined only
 * where nothing else will do; the last two have nothing of the kind.
 */
function costClaims(scene: PieceScene, joined: Joined, aim: Join): Claim[] {
  const { puzzle, state, end } = scene
  const { partsOf } = joined
  const { takesApart, lost, parts } = exchangeOf(puzzle, joined, aim.of, state, end)
  const before = aim.of.filter((whole, i) => aim.before[i] < partsOf[whole].length)
  const after = aim.of.filter((whole, i) => aim.after[i] < partsOf[whole].length)
  const isLastTwo = before.length === 2 && after.length === 0
  const common = { as: aim.size, of: wholeIds(joined, aim.of) }
  const places = takesApart.flatMap((place) => placeIn(scene, joined, place).place ?? [])
  const [gone] = parts
  return [
    ...(isLastTwo || places.length === 0
      ? []
      : [{ kind: 'takenApart', ...common, places } as const]),
    ...(lost === 0
      ? []
      : [
          {
            ...common,
            ...{ kind: 'pairsParted' as const, count: lost },
            ...(lost === 1 && parts.length === 1 ? placeIn(scene, joined, gone) : {}),
          },
        ]),
    ...(isLastTwo
      ? aim.isByStrips
        ? stripClaims(scene, joined, aim)
        : [{ kind: 'lastTwo', ...common } as const]
      : []),
  ]
}

/** What may be taken apart instead, with the turns for it. */
const rivalsOf = (
  scene: PieceScene,
  joined: Joined,
  { of, size, rivals }: Join,
): RouteStep['others'] => {
  const { puzzle, state } = scene
  const places = pairPlacesOf(puzzle, joined, of)
  return rivals.map(({ pieces, pair, turns }) => {
    const slots = pieces.map((p) => puzzle.slot[24 * p + state[p]])
    const place = places.find((each) => each.slots.every((slot) => slots.includes(slot)))
    if (!place) throw new Error('what is taken apart lies in no place of a pair')
    const [piece, first] = [puzzle.pieces[pieces[0]].id, puzzle.pieces[pair].id]
    return {
      piece,
      first,
      says: [
        {
          ...{ kind: 'offeredApart', as: size, of: wholeIds(joined, of), turns },
          ...{ pieces: ids(puzzle, pieces), pair: first },
          ...placeIn(scene, joined, place),
        },
      ],
    }
  })
}

/** The place of the smaller box, as it is held. */
function placeIn(
  { frame }: Pick<PieceScene, 'frame'>,
  { small }: Joined,
  { whole, rotation }: Pick<PairPlace, 'whole' | 'rotation'>,
): { readonly place?: string } {
  const home = homeFilled(small, frame, whole, rotation)
  return home === undefined ? {} : { place: small.pieces[home].id }
}

function stripsIn(scene: PieceScene, joined: Joined, aim: Join): ByStrips {
  const apart = aim.of.filter((_, i) => aim.before[i] < aim.after[i])
  const places = pairPlacesOf(scene.puzzle, joined, sharingPlaces(joined, aim.of, apart))
  const found = byStrips(scene.puzzle, places, scene.state, turnsOf(scene))
  if (!found) throw new Error('the last two are not joined by equal strips')
  return found
}

/** The pairs that the first slice joins: what equal strips exchange later is not seen. */
function joinedByStrips(scene: PieceScene, joined: Joined, aim: Join) {
  const { puzzle, state } = scene
  const { joins, states } = stripsIn(scene, joined, aim)
  const turns = turnsOf(scene).slice(0, joins + 1)
  const open = turnFreely(puzzle, states[0], turns[joins], new Uint8Array(state.length))
  return { turns, grown: exchangeOf(puzzle, joined, aim.of, state, open).makes.map(grownPair) }
}

const grownPair = ({ whole, rotation, pieces }: Filled): Grown => ({
  whole,
  after: 2,
  size: 2,
  together: pieces,
  come: pieces,
  rotation,
})

/** How the last two are joined where nothing else can be taken apart. */
function stripClaims(scene: PieceScene, joined: Joined, aim: Join): Claim[] {
  const { puzzle } = scene
  const found = stripsIn(scene, joined, aim)
  const common = {
    ...{ as: aim.size, of: wholeIds(joined, aim.of) },
    turn: turnsOf(scene)[found.joins].name,
  }
  const told = (strips: readonly Strip[], state: State, nth: number): Claim[] => {
    const pieces = piecesBySlot(puzzle, state)
    return strips.map(({ places }) => ({
      ...{ kind: 'equalStrip', ...common, nth },
      places: places.flatMap((place) => placeIn(scene, joined, place).place ?? []),
      holds: puzzle.pieces[pieces[places[0].slots[0]]].id,
    }))
  }
  return [
    {
      ...{ kind: 'stripsEqual', ...common },
      ...{ first: found.first.length, second: found.second.length },
    },
    ...told(found.first, found.states[0], 1),
    ...told(found.second, found.states[1], 2),
  ]
}

/** The turns of a step without those of the whole puzzle. */
const turnsOf = ({ step }: PieceScene): Turn[] =>
  step.turns.flatMap(({ turn, role }) => (role === 'hold' ? [] : [turn]))

/** @param lies how it lies at the end, if it is whole */
function grownTo(
  scene: PieceScene,
  joined: Joined,
  whole: number,
  after: number,
  lies: Rotation | undefined,
): Grown {
  const { puzzle, stage, base, state, end, endFrame, frame } = scene
  const { small, partsOf } = joined
  const parts = partsOf[whole]
  // It may be asked to lie in its own place.
  const isPlaced = stage.goal.some(
    (condition) =>
      condition.must !== 'together' && piecesOf(puzzle, condition, base).includes(parts[0]),
  )
  const fitting = (of: State, hold: Rotation, r: Rotation): number[] =>
    isPlaced && small.place[24 * whole + r] !== small.place[24 * whole + hold]
      ? []
      : partsFitting(puzzle, joined, of, whole, r)
  const rotations = Array.from({ length: ROTATION_COUNT }, (_, r) => r)
  const bestIn = (of: State, hold: Rotation) =>
    rotations
      .map((r) => ({ r, own: fitting(of, hold, r) }))
      .reduce((a, b) => (b.own.length > a.own.length ? b : a))
  const best =
    lies === undefined || isPlaced
      ? bestIn(end, endFrame)
      : { r: lies, own: fitting(end, endFrame, lies) }
  const before = new Set(bestIn(state, frame).own)
  return {
    whole,
    after,
    size: parts.length,
    together: best.own,
    come: best.own.filter((p) => !before.has(p)),
    rotation: best.r,
  }
}

/** What lies so that it fits a piece of the smaller box with that rotation. */
function partsFitting(
  puzzle: PieceScene['puzzle'],
  { partsOf }: Joined,
  state: State,
  whole: number,
  rotation: Rotation,
): number[] {
  const bySlot = new Map([...state].map((r, p) => [puzzle.slot[24 * p + r], p]))
  const shown = shownIn(puzzle, state)
  return partsOf[whole].flatMap((p) => {
    const slot = puzzle.slot[24 * p + rotation]
    return shown[slot] === 1 + puzzle.look[24 * p + rotation] ? [bySlot.get(slot) as number] : []
  })
}

/** Where the two lie, and by which of some turns they come together. */
function pairLine(
  scene: PieceScene,
  joined: Joined,
  aim: Join,
  { whole, together: [a, b] }: Grown,
  turns: readonly Turn[],
): RouteLine {
  const { puzzle, state, frame } = scene
  const id = (p: number) => puzzle.pieces[p].id
  const place = (p: number, at: State) => {
    const home = homeFilled(puzzle, frame, p, at[p])
    return home === undefined ? undefined : id(home)
  }
  const common = { as: aim.size, of: wholeIds(joined, aim.of) }
  const found = joiningOf(puzzle, joined, whole, [a, b], state, turns)
  const by = (): Claim[] => {
    if (!found) return []
    const { at, moves } = found
    const from = place(moves, found.state)
    return [
      {
        ...{ kind: 'joinsBy', ...common, at, pieces: [id(a), id(b)], moves: id(moves) },
        ...(from === place(moves, state) || from === undefined ? {} : { from }),
        ...(turns[at].inverse === turns[at].index ? { isAcross: true } : {}),
        ...(aim.isByStrips ? { isByStrips: true } : {}),
      },
    ]
  }
  const [lies, partnerLies] = [place(a, state), place(b, state)]
  return {
    piece: id(a),
    says: [
      {
        ...{ kind: 'partsAt', as: aim.size, piece: id(a), partner: id(b) },
        ...(lies === undefined ? {} : { place: lies }),
        ...(partnerLies === undefined ? {} : { partnerPlace: partnerLies }),
      },
      ...by(),
    ],
  }
}

function comingLines(scene: PieceScene, grown: readonly Grown[]): RouteLine[] {
  const { puzzle, state, frame, end, endFrame } = scene
  return grown
    .flatMap(({ come }) => come)
    .flatMap((p) => {
      const home = homeFilled(puzzle, endFrame, p, end[p])
      // What stays was counted otherwise before.
      if (home === undefined || home === homeFilled(puzzle, frame, p, state[p])) return []
      const says = [pieceAt(puzzle, frame, state, p), goesTo(scene, p)]
      return [{ piece: puzzle.pieces[p].id, says }]
    })
}

/** How a piece of the smaller box lies together then. */
function grownClaim(
  { puzzle, scheme, end, endFrame }: PieceScene,
  joined: Joined,
  { size: as }: Join,
  { whole, after, size, rotation, together }: Grown,
): Claim {
  const { small } = joined
  const place = placeIn({ frame: endFrame }, joined, { whole, rotation })
  if (size === 2) return { kind: 'together', as, pieces: ids(puzzle, together), ...place }
  const name = who(small, scheme, whole)
  // Another piece that is called the same may fit there better.
  const most = Math.max(
    after,
    ...small.pieces.flatMap((_, other) =>
      other !== whole && who(small, scheme, other) === name
        ? rotationsInto(small, other, small.slot[24 * whole + rotation]).map(
            (r) => partsFitting(puzzle, joined, end, other, r).length,
          )
        : [],
    ),
  )
  return { kind: 'partsIn', as, whole: small.pieces[whole].id, count: most, of: size, ...place }
}

/** The rotations in which a piece fills a slot. */
const rotationsInto = (small: Joined['small'], piece: number, slot: number): Rotation[] =>
  Array.from({ length: ROTATION_COUNT }, (_, r) => r).filter(
    (r) => small.slot[24 * piece + r] === slot,
  )

export function remedyClaims(scene: PieceScene, aim: Remedy): StepClaims {
  const { puzzle, state, frame, end, endFrame } = scene
  const joined = joinedAs(puzzle, aim.size) as Joined
  if (leavesOpen(joined.small)) return openRemedy(scene, aim, joined)
  const [before, after] = [
    countsOf(scene, joined, state, frame),
    countsOf(scene, joined, end, endFrame),
  ]
  const how = before.turned.length % 2 === 1 ? 'turned' : 'exchanged'
  const as = aim.size
  const moved = aim.of.filter((whole) => before.rotations[whole] !== after.rotations[whole])
  const claim = ({ last, turned, corners, edges }: Counts): Claim =>
    how === 'turned'
      ? { kind: 'turnedOver', as, of: wholeIds(joined, last), count: turned.length }
      : { kind: 'exchangesOf', as, corners: oddOr(corners), edges: oddOr(edges) }
  return {
    lookFor: [claim(before)],
    hold: holdOfScene(scene),
    check: [claim(after)],
    note: [
      {
        ...{ kind: 'remedied', as, how, of: wholeIds(joined, moved) },
        beside: wholeIds(joined, othersMoved(joined, aim.of, before, after)),
      },
    ],
    hints: { nudge: [{ kind: 'countThrough', how }], pointer: [{ kind: 'outerCannot' }] },
    algorithm: aim.sequence,
    pieces: ids(
      puzzle,
      moved.flatMap((whole) => [...joined.partsOf[whole]]),
    ),
  }
}

const oddOr = (parity: number) => (parity === 1 ? 'odd' : 'even')

/** Where equal pieces can be taken for each other, counts are nobody's own. */
const openRemedy = (scene: PieceScene, aim: Remedy, { partsOf }: Joined): StepClaims => ({
  lookFor: [{ kind: 'cannotFinish', as: aim.size }],
  hold: holdOfScene(scene),
  check: [{ kind: 'canFinish', as: aim.size }],
  hints: {
    nudge: [{ kind: 'equalsHide' }],
    pointer: [{ kind: 'outerCannot' }],
  },
  algorithm: aim.sequence,
  pieces: ids(
    scene.puzzle,
    aim.of.flatMap((whole) => [...partsOf[whole]]),
  ),
})

interface Counts {
  readonly rotations: State
  /** Edges of the last layer, and those of them that are turned over. */
  readonly last: readonly number[]
  readonly turned: readonly number[]
  /** Whether an odd number of exchanges brings them home. */
  readonly corners: number
  readonly edges: number
}

function countsOf(
  { puzzle, base }: PieceScene,
  joined: Joined,
  state: State,
  frame: Rotation,
): Counts {
  const { small } = joined
  const read = joinedState(puzzle, joined, state)
  if (!read) throw new Error('what should be joined is not')
  const rotations = read.map((r) => multiply(INVERSE[frame], r))
  const kindOf = (p: number) => baseKind(small.pieces[p].kind)
  const far = sideOf('last', base)
  const last = small.pieces.flatMap(({ cells: [cell] }, p) =>
    kindOf(p) === 'edge' && along(cell, far.vector) > 0 ? [p] : [],
  )
  const parity = (kind: string) => {
    const own = small.pieces.flatMap((_, p) => (kindOf(p) === kind ? [p] : []))
    return parityOf(own.map((p) => own.indexOf(small.place[24 * p + rotations[p]])))
  }
  return {
    rotations,
    last,
    turned: last.filter((p) => !sameImage(rotations[p], 0, far)),
    corners: parity('corner'),
    edges: parity('edge'),
  }
}

const along = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]

/** What else shows itself otherwise than before. */
const othersMoved = (
  { small }: Joined,
  of: readonly number[],
  before: Counts,
  after: Counts,
): number[] =>
  small.pieces.flatMap((_, p) =>
    of.includes(p) ||
    small.look[24 * p + before.rotations[p]] === small.look[24 * p + after.rotations[p]]
      ? []
      : [p],
  )
