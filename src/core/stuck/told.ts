/** What a diagnosis says of a position, as claims, and the pieces that they speak of. */
import { outwardOf } from '../analysis/anatomy'
import { twistOf } from '../analysis/invariants'
import { inHand } from '../analysis/placements'
import { amountOf, senseOf } from '../analysis/sense'
import { homeFilled } from '../analysis/who'
import type { Claim, Said } from '../claims/claim'
import { MOST_STRAYS } from '../claims/kinds'
import type { Puzzle } from '../puzzle/compile'
import { IDENTITY } from '../rotation'
import type { State } from '../state'
import { workOf } from '../universal/orbitsAtWork'
import type { Correction } from '../universal/correct'
import type { Finding, OrbitAccount } from './finding'

export interface Told {
  readonly said: Said
  readonly pieces: readonly number[]
}

/** More pieces than this are not marked one by one. */
const MANY = 12

/** Where no sense is told: of what can only be flipped. */
const HALF = { degrees: 180 }

/** @param state in the frame */
export function tell(
  puzzle: Puzzle,
  state: State,
  finding: Finding,
  account: readonly OrbitAccount[],
): Told {
  switch (finding.kind) {
    case 'home':
      return { said: [{ kind: 'solved' }], pieces: [] }
    case 'not finished': {
      const { wrong, shape } = finding
      const said: Claim[] = [{ kind: 'leadsHome' }, { kind: 'notHome', count: wrong.length }]
      if (shape) said.push({ kind: 'shapeFirst' })
      return { said, pieces: wrong.length <= MANY ? wrong : [] }
    }
    case 'look-alike':
      return lookAlike(puzzle, finding, account)
    case 'reduction parity': {
      const { size, wrong, parts } = finding.parity
      const of = (asked: string) =>
        wrong.flatMap(({ what, kind }) => (what === asked ? [kind] : []))
      return {
        said: [
          { kind: 'nothingWrong' },
          { kind: 'joinedLike', as: size, odd: of('parity'), twisted: of('twist') },
          { kind: 'innerAgain' },
        ],
        pieces: parts.flat().length <= 3 * MANY ? parts.flat() : [],
      }
    }
    case 'frame':
      return frame(puzzle, state, finding)
    case 'assembly':
      return assembly(puzzle, state, finding, account)
    case 'not known':
      return { said: [{ kind: 'notProved', why: finding.why }], pieces: [] }
  }
}

const idsOf = ({ pieces }: Puzzle, all: readonly number[]): string[] => all.map((p) => pieces[p].id)

function lookAlike(
  puzzle: Puzzle,
  { traded, wrong }: Extract<Finding, { kind: 'look-alike' }>,
  account: readonly OrbitAccount[],
): Told {
  const unseen = traded.map((pieces): Claim => {
    const [piece, other] = idsOf(puzzle, pieces)
    return pieces.length > 1
      ? { kind: 'traded', pieces: [piece, other] }
      : { kind: 'turnedUnseen', piece }
  })
  const touched = account.filter(({ places }) => places.some((p) => wrong.includes(p)))
  const of = (some: readonly OrbitAccount[]) =>
    idsOf(
      puzzle,
      some.flatMap(({ places }) => places),
    )
  const odd = of(touched.filter(({ parity }) => parity === 1))
  const twisted = of(touched.filter(({ twist }) => twist !== undefined && twist.sum !== 0))
  const isTrade = traded.some((pieces) => pieces.length > 1)
  const said: Claim[] = [{ kind: 'nothingWrong' }, ...unseen]
  if (odd.length > 0) said.push({ kind: 'seemOdd', of: odd })
  if (twisted.length > 0) said.push({ kind: 'seemTwisted', of: twisted })
  said.push({ kind: 'onTheWay', do: isTrade ? 'trade' : 'turn' })
  const alike = traded.flat()
  return { said, pieces: [...new Set([...alike, ...(wrong.length <= MANY ? wrong : [])])] }
}

function frame(
  puzzle: Puzzle,
  state: State,
  { turn, turned }: Extract<Finding, { kind: 'frame' }>,
): Told {
  if (turn)
    return {
      said: [{ kind: 'nothingWrong' }, { kind: 'offByTurn', turn: turn.name }],
      pieces: turned,
    }
  return {
    said: [
      { kind: 'nothingWrong' },
      { kind: 'turnedOnly', pieces: idsOf(puzzle, turned) },
      ...turned.map((p): Claim => ({
        kind: 'turnedBy',
        piece: puzzle.pieces[p].id,
        ...amountOf(senseOf(state[p], outwardOf(puzzle, p))),
      })),
    ],
    pieces: turned,
  }
}

function assembly(
  puzzle: Puzzle,
  state: State,
  { strays, corrections, shape, group }: Extract<Finding, { kind: 'assembly' }>,
  account: readonly OrbitAccount[],
): Told {
  const impossible = { kind: 'impossible' } as const
  if (shape) return { said: [impossible, { kind: 'noSuchShape' }], pieces: [] }
  if (strays.length > 0)
    return { said: [impossible, ...stray(puzzle, state, strays)], pieces: strays }
  const moved = corrections.flatMap(({ pieces }) => pieces)
  if (group)
    return {
      said: [
        impossible,
        { kind: 'smallGroup', of: idsOf(puzzle, inHand(puzzle, group)) },
        ...corrections.flatMap((each): Claim[] => groupFix(puzzle, state, each)),
      ],
      pieces: moved.length > 0 ? moved : group,
    }
  if (corrections.length === 0) return { said: [impossible, { kind: 'moreByHand' }], pieces: [] }
  return {
    said: [impossible, ...corrections.flatMap((each) => byHand(puzzle, state, each, account))],
    pieces: moved,
  }
}

/** Where a piece of a state in the frame lies. */
function placeAt(puzzle: Puzzle, state: State, piece: number) {
  const place = homeFilled(puzzle, IDENTITY, piece, state[piece])
  return {
    piece: puzzle.pieces[piece].id,
    ...(place === undefined ? {} : { place: puzzle.pieces[place].id }),
  }
}

function stray(puzzle: Puzzle, state: State, strays: readonly number[]): Claim[] {
  const more = strays.length - MOST_STRAYS
  const isTrade = strays.length === 2 && fitEachOther(puzzle, state, strays)
  return [
    ...strays
      .slice(0, MOST_STRAYS)
      .map((p): Claim => ({ kind: 'strayAt', ...placeAt(puzzle, state, p) })),
    ...(more > 0 ? [{ kind: 'moreStray', count: more } as const] : []),
    { kind: 'putRight', do: isTrade ? 'exchange' : strays.length === 1 ? 'turn' : 'putBack' },
  ]
}

/** Of a small group not any correction will do: which pieces, and how. */
function groupFix(puzzle: Puzzle, state: State, { pieces, sense }: Correction): Claim[] {
  const these = pieces.map((p): Claim => ({ kind: 'pieceAt', ...placeAt(puzzle, state, p) }))
  const amount = sense && amountOf(sense)
  const [piece, other] = idsOf(puzzle, pieces)
  return [
    pieces.length > 1
      ? { kind: 'exchangeThese', pieces: [piece, other], ...amount }
      : { kind: 'turnThis', piece, ...(amount ?? HALF) },
    ...these,
  ]
}

function byHand(
  puzzle: Puzzle,
  state: State,
  { pieces, sense }: Correction,
  account: readonly OrbitAccount[],
): Claim[] {
  const orbit = account.find(({ places }) => places.includes(pieces[0]))
  const of = idsOf(puzzle, inHand(puzzle, orbit?.places ?? pieces))
  const these = pieces.map((p): Claim => ({ kind: 'pieceAt', ...placeAt(puzzle, state, p) }))
  const amount = sense && amountOf(sense)
  if (pieces.length > 1)
    return [{ kind: 'exchangedByHand', of }, { kind: 'exchangeAny', of, ...amount }, ...these]
  const turned = amount ?? HALF
  return [
    { kind: 'turnedByHand', of, degrees: turned.degrees, ...(orbit && sumOf(puzzle, orbit)) },
    { kind: 'turnAny', of, ...turned },
    ...these,
  ]
}

/** Whether two strays would be in place if they changed places. */
const fitEachOther = (puzzle: Puzzle, state: State, [p, q]: readonly number[]): boolean =>
  puzzle.place[24 * p + state[p]] === q && puzzle.place[24 * q + state[q]] === p

/** What the twists of an orbit add up to, as it is seen from outside; nothing where they are flips. */
function sumOf(puzzle: Puzzle, { places, twist }: OrbitAccount) {
  const orbit = workOf(puzzle).sums.orbits.find((each) => each.places === places)
  const turn = orbit && twist && twist.ways > 2 ? twistOf(orbit, twist.sum) : IDENTITY
  if (turn === IDENTITY) return {}
  const { degrees, isClockwise } = amountOf(senseOf(turn, outwardOf(puzzle, places[0])))
  return { sum: degrees, ...(isClockwise && { isClockwise }) }
}
