/** The sentences of a diagnosis, as a patient friend would say them. Every number in them is computed. */
import { outwardOf } from '../analysis/anatomy'
import { frameOf } from '../analysis/frame'
import { twistUnit } from '../analysis/invariants'
import { lookAlikesOf } from '../analysis/lookAlikes'
import { handReachOf } from '../analysis/placements'
import { senseOf, type Sense } from '../analysis/sense'
import { whereNow, who } from '../analysis/who'
import type { Scheme } from '../puzzle/colours'
import type { Puzzle } from '../puzzle/compile'
import { IDENTITY, multiply, type Rotation } from '../rotation'
import type { State } from '../state'
import { workOf } from '../universal/orbitsAtWork'
import { capital, inWords, kindPlural, listed, plural, shortKind } from '../phrases'
import type { Correction } from './correct'
import type { Finding, OrbitAccount } from './finding'

interface Scene {
  readonly puzzle: Puzzle
  readonly scheme: Scheme
  readonly hold: Rotation
  /** In the frame. */
  readonly state: State
}

/** Sentences, and the pieces that they speak of. */
export interface Told {
  readonly sentences: readonly string[]
  readonly pieces: readonly number[]
}

const IMPOSSIBLE = 'This cannot happen on this puzzle by turning.'

export function tell(scene: Scene, finding: Finding, account: readonly OrbitAccount[]): Told {
  switch (finding.kind) {
    case 'home':
      return { sentences: ['It is finished.'], pieces: [] }
    case 'not finished': {
      const { wrong, shape } = finding
      const count = `${capital(plural(wrong.length, 'piece'))} ${wrong.length === 1 ? 'is' : 'are'} not home yet.`
      const first = shape ? ['The shape comes first, whatever the colours.'] : []
      return {
        sentences: ['Nothing is wrong: turns lead home from here.', count, ...first],
        pieces: wrong.length <= MANY ? wrong : [],
      }
    }
    case 'look-alike':
      return lookAlike(scene, finding, account)
    case 'reduction parity':
      return reduction(scene, finding)
    case 'frame':
      return frame(scene, finding)
    case 'assembly':
      return assembly(scene, finding, account)
    case 'not known':
      return {
        sentences: [`Nothing speaks against it, but it is not proved. ${finding.why}`],
        pieces: [],
      }
  }
}

/** More pieces than this are not marked one by one. */
const MANY = 12

const nameOf = ({ puzzle, scheme }: Scene, piece: number): string => who(puzzle, scheme, piece)

/** Where a piece is, in the hold that was given: behind its name. */
function whereOf({ puzzle, hold, state }: Scene, piece: number): string {
  const place = whereNow(puzzle, hold, piece, multiply(hold, state[piece]))
  return place === undefined ? 'outside the finished shape' : `now ${place}`
}

const kindsOf = (puzzle: Puzzle, places: readonly number[]): string =>
  listed([...new Set(places.map((p) => kindPlural(shortKind(puzzle.pieces[p].kind))))])

function lookAlike(
  scene: Scene,
  { traded, wrong }: Extract<Finding, { kind: 'look-alike' }>,
  account: readonly OrbitAccount[],
): Told {
  const { puzzle } = scene
  const told = traded.map((pieces) => {
    const [piece, other] = pieces
    if (other === undefined)
      return `${nameOf(scene, piece)} is turned in its place in a way that no one can see`
    const alike = lookAlikesOf(puzzle).classes.find((each) => each.includes(piece)) ?? pieces
    const which = alike.length === 2 ? 'the two' : `two of the ${inWords(alike.length)}`
    return `${which} equal ${kindPlural(nameOf(scene, piece)).replace(/^the /, '')} have traded places, which no one can see`
  })
  const alike = traded.flat()
  return {
    sentences: [
      'Nothing is wrong.',
      `${capital(listed(told))}, and so ${oddWords(scene, wrong, account)}.`,
      traded.some((pieces) => pieces.length > 1)
        ? 'Trade any two of the equal ones on the way.'
        : 'Turn it on the way.',
    ],
    pieces: [...new Set([...alike, ...(wrong.length <= MANY ? wrong : [])])],
  }
}

/** What looks impossible about what is left. */
function oddWords(
  scene: Scene,
  wrong: readonly number[],
  account: readonly OrbitAccount[],
): string {
  const { puzzle } = scene
  const touched = account.filter(({ places }) => places.some((p) => wrong.includes(p)))
  const named = (accounts: readonly OrbitAccount[]) =>
    kindsOf(
      puzzle,
      accounts.flatMap(({ places }) => [...places]),
    )
  const odd = touched.filter(({ parity }) => parity === 1)
  const twisted = touched.filter(({ twist }) => twist && twist.sum !== 0)
  const parts = [
    ...(odd.length > 0 ? [`the ${named(odd)} look as if an odd number were exchanged`] : []),
    ...(twisted.length > 0 ? [`the twists of the ${named(twisted)} do not seem to add up`] : []),
  ]
  return parts.length > 0 ? listed(parts) : 'what is left looks impossible'
}

function reduction(scene: Scene, { parity }: Extract<Finding, { kind: 'reduction parity' }>): Told {
  const { size, wrong, parts } = parity
  const told = wrong.map(({ kind, what }) =>
    what === 'parity'
      ? `an odd number of exchanges among its ${kindPlural(kind)} would be needed`
      : `the ${kind === 'edge' ? 'flips' : 'twists'} of its ${kindPlural(kind)} do not add up`,
  )
  return {
    sentences: [
      'Nothing was put in wrongly.',
      `The pieces are joined so that together they look like a ${size}, but like one that its outer layers can never finish: ${listed(told)}.`,
      'Inner layers must turn once more; what they part is joined again.',
    ],
    pieces: parts.flat().length <= 3 * MANY ? parts.flat() : [],
  }
}

function frame(scene: Scene, { turn, turned }: Extract<Finding, { kind: 'frame' }>): Told {
  const { puzzle } = scene
  if (turn) {
    const amount = { 90: 'a quarter turn', 120: 'a third of a turn', 180: 'half a turn' }[
      senseOf(turn.rotation, puzzle.grips[turn.grip].axis).degrees
    ]
    return {
      sentences: [
        `Nothing is wrong. One layer is out of register by ${amount}.`,
        `Turn it: ${turn.name}.`,
      ],
      pieces: turned,
    }
  }
  const told = turned.map(
    (p) => `${nameOf(scene, p)}, by ${turnedBy(senseOf(scene.state[p], outwardOf(puzzle, p)))}`,
  )
  return {
    sentences: [
      `Nothing is wrong. Every piece is in its place; ${plural(turned.length, 'piece')} that never ${turned.length === 1 ? 'leaves its' : 'leave their'} place ${turned.length === 1 ? 'is' : 'are'} turned there.`,
      `${capital(told.join('; '))}.`,
    ],
    pieces: turned,
  }
}

function assembly(
  scene: Scene,
  { strays, corrections, shape, group }: Extract<Finding, { kind: 'assembly' }>,
  account: readonly OrbitAccount[],
): Told {
  const { puzzle, state } = scene
  if (shape)
    return {
      sentences: [
        IMPOSSIBLE,
        'The shape itself is one that no turns make: a piece was put back the wrong way round, or two were exchanged.',
      ],
      pieces: [],
    }
  if (strays.length > 0) {
    const told = strays.slice(0, 3).map((p) => `${nameOf(scene, p)}, ${whereOf(scene, p)}`)
    const more = strays.length > 3 ? `, and ${inWords(strays.length - 3)} more` : ''
    const fix =
      strays.length === 2 && trade(puzzle, state, strays)
        ? 'Take both out and exchange them.'
        : strays.length === 1
          ? 'Take it out and put it in the other way.'
          : 'They must be taken out and put back where they belong.'
    return {
      sentences: [
        IMPOSSIBLE,
        `${capital(more ? told.join(', ') : listed(told))}${more}: no turns take ${strays.length === 1 ? 'it' : 'them'} there.`,
        fix,
      ],
      pieces: strays,
    }
  }
  if (group)
    return {
      sentences: [
        IMPOSSIBLE,
        `The ${inWords(handCount(puzzle, group))} ${kindsOf(puzzle, group)} are moved by a small group of their own: every count comes out, but no turns arrange them like this.`,
        ...corrections.map((correction) => groupFix(scene, correction)),
      ],
      pieces: corrections.length > 0 ? corrections.flatMap(({ pieces }) => pieces) : group,
    }
  if (corrections.length === 0)
    return {
      sentences: [IMPOSSIBLE, 'More than one piece was put in or turned by hand.'],
      pieces: [],
    }
  const sentences = corrections.flatMap(({ pieces, sense }) => {
    const [piece, other] = pieces
    const orbit = account.find(({ places }) => places.includes(piece))
    const kinds = orbit ? kindsOf(puzzle, orbit.places) : ''
    const count = inWords(handCount(puzzle, orbit?.places ?? []))
    const turned = sense ? turnedBy(sense) : ''
    if (other !== undefined)
      return [
        `Two ${kinds} have been exchanged by hand: turns make exchanges odd and even in another way.`,
        `Exchange any two of the ${count}${turned && `, and turn one of them ${turned}`}: for instance ${nameOf(scene, piece)}, ${whereOf(scene, piece)}, and ${nameOf(scene, other)}, ${whereOf(scene, other)}.`,
      ]
    const place = `${nameOf(scene, piece)}, ${whereOf(scene, piece)}`
    if (orbit?.places.length === 1)
      return [
        `${capital(nameOf(scene, piece))} has been turned in its place by hand.`,
        `Turn it ${turned} by hand.`,
      ]
    if (sense?.degrees === 180)
      return [
        `One of the ${count} ${kinds} has been flipped by hand: an odd number of them are flipped.`,
        `Flip any one of them by hand, for instance ${place}.`,
      ]
    const share = orbit ? shareWords(puzzle, orbit) : ''
    return [
      `One of the ${count} ${kinds} has been twisted by hand${share && `: their twists add up to ${share}`}.`,
      `Twist any one of them ${turned} by hand, for instance ${place}.`,
    ]
  })
  return {
    sentences: [IMPOSSIBLE, ...sentences],
    pieces: corrections.flatMap(({ pieces }) => pieces),
  }
}

/** Of a small group not any correction will do: which pieces, and how. */
function groupFix(scene: Scene, { pieces, sense }: Correction): string {
  const told = pieces.map((piece) => `${nameOf(scene, piece)}, ${whereOf(scene, piece)}`)
  if (pieces.length === 1) return `Turn ${told[0]}, ${sense ? turnedBy(sense) : 'round'} by hand.`
  const turned = sense ? ` Turn the first of them ${turnedBy(sense)} in its new place.` : ''
  return `Exchange these two by hand: ${told.join('; ')}.${turned}`
}

/** Whether two strays would be in place if they changed places. */
const trade = (puzzle: Puzzle, state: State, [p, q]: readonly number[]): boolean =>
  puzzle.place[24 * p + state[p]] === q && puzzle.place[24 * q + state[q]] === p

/** How many pieces of an orbit there are in the hand: the piece that is kept still may be one more. */
export function handCount(puzzle: Puzzle, places: readonly number[]): number {
  const { piece } = frameOf(puzzle)
  const [first] = places
  const isOne =
    piece !== undefined &&
    handReachOf(puzzle)[piece].some((r) => puzzle.place[24 * piece + r] === first)
  return places.length + Number(isOne)
}

/** 'a third of a turn clockwise': what the twists of an orbit add up to. */
function shareWords(puzzle: Puzzle, { places, twist }: OrbitAccount): string {
  const orbit = workOf(puzzle).sums.orbits.find((each) => each.places === places)
  const unit = orbit && twistUnit(orbit)
  if (!twist || twist.sum === 0 || unit === undefined) return ''
  let rotation = IDENTITY
  for (let k = 0; k < twist.sum; k++) rotation = multiply(unit, rotation)
  const { degrees, isClockwise } = senseOf(rotation, outwardOf(puzzle, places[0]))
  if (degrees === 180) return 'half a turn'
  return `${degrees === 90 ? 'a quarter' : 'a third'} of a turn ${isClockwise ? 'clockwise' : 'anticlockwise'}`
}

/** 'a third clockwise', as seen from outside. */
export function turnedBy({ degrees, isClockwise }: Sense): string {
  if (degrees === 180) return 'half a turn'
  return `${degrees === 90 ? 'a quarter' : 'a third'} ${isClockwise ? 'clockwise' : 'anticlockwise'}`
}
