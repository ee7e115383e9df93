/** What a position is, and what hands did to it. */
import { lookAlikesOf } from '../../analysis/lookAlikes'
import { senseOf } from '../../analysis/sense'
import { who } from '../../analysis/who'
import { indexOf, type Claim, type PieceId, type VerdictsKind } from '../../claims/claim'
import { capital, inWords, kindPlural, listed, plural, shortKind } from '../../phrases'
import type { Sayers, Speaker, Told } from '../lexicon'
import { capitalised, line, listedSpans, textSpan, turnSpan } from '../span'
import { pieceSpan, placeSpan } from './names'
import { run } from './run'

interface Amount {
  readonly degrees?: number
  readonly isClockwise?: true
}

const SHARES: Readonly<Record<number, string>> = { 90: 'a quarter', 120: 'a third' }

/** 'a third clockwise', as it is seen from outside. */
export function amountWords({ degrees = 180, isClockwise }: Amount): string {
  const share = SHARES[degrees] as string | undefined
  if (share === undefined) return 'half a turn'
  return `${share} ${isClockwise ? 'clockwise' : 'anticlockwise'}`
}

/** 'a third of a turn' */
const shareWords = (degrees: number): string =>
  ({ 90: 'a quarter turn', 120: 'a third of a turn' })[degrees] ?? 'half a turn'

/** 'edges', 'edges and corners': whatever sizes they have. */
const kindsIn = ({ puzzle }: Speaker, of: readonly PieceId[]): string =>
  listed([
    ...new Set(of.map((id) => kindPlural(shortKind(puzzle.pieces[indexOf(puzzle, id)].kind)))),
  ])

const countIn = (speaker: Speaker, of: readonly PieceId[]): string =>
  `${inWords(of.length)} ${kindsIn(speaker, of)}`

const isSingle = (of: readonly PieceId[]): boolean => of.length === 1

/** 'the white-red edge, now top, front' */
const lyingSpans = ({ piece, place }: { piece: PieceId; place?: PieceId }, speaker: Speaker) =>
  line`${pieceSpan(piece, speaker)}, now ${placeSpan(place, speaker)}`

/** ': for instance these', of so many claims in front. */
function instance(after: readonly Claim[], most: number, speaker: Speaker) {
  const pieces = run(after, 'pieceAt').slice(0, most)
  const named = listedSpans(
    pieces.map((at) => lyingSpans(at, speaker)),
    '; ',
    '; ',
  )
  return { named, of: pieces.length }
}

export const VERDICTS: Sayers<VerdictsKind> = {
  leadsHome: () => line`Nothing is wrong: turns lead home from here.`,
  nothingWrong: () => line`Nothing is wrong.`,
  notHome: ({ count }) =>
    line`${capital(plural(count, 'piece'))} ${count === 1 ? 'is' : 'are'} not home yet.`,
  traded: (claim, speaker, after) => unseenWords([claim, ...after], speaker),
  turnedUnseen: (claim, speaker, after) => unseenWords([claim, ...after], speaker),
  seemOdd: ({ of }, speaker) =>
    line`So the ${kindsIn(speaker, of)} look as if an odd number were exchanged.`,
  seemTwisted: ({ of }, speaker) =>
    line`So the twists of the ${kindsIn(speaker, of)} don't seem to add up.`,
  onTheWay: ({ do: what }) =>
    what === 'trade'
      ? line`Trade any two of the equal ones on the way.`
      : line`Turn it on the way.`,
  joinedLike({ as, odd, twisted }) {
    const flips = (kind: string) => (kind === 'edge' ? 'flips' : 'twists')
    const told = [
      ...odd.map((kind) => `its ${kindPlural(kind)} need an odd number of exchanges`),
      ...twisted.map((kind) => `the ${flips(kind)} of its ${kindPlural(kind)} don't add up`),
    ]
    return line`All is joined like a ${as.join('x')}, but outer layers alone can't finish it: ${listed(told)}.`
  },
  innerAgain: () => line`Inner layers must turn once more: join again what they part.`,
  offByTurn({ turn }, { puzzle }) {
    const made = puzzle.turnByName.get(turn)
    const degrees = made ? senseOf(made.rotation, puzzle.grips[made.grip].axis).degrees : 180
    return line`One layer is out of register by ${shareWords(degrees)}: turn it, ${turnSpan(turn)}.`
  },
  turnedOnly: ({ pieces }) =>
    line`All is in its place, but ${plural(pieces.length, 'piece')} that never ${isSingle(pieces) ? 'leaves its place is' : 'leave their place are'} turned there.`,
  turnedBy(claim, speaker, after) {
    const all = [claim, ...run(after, 'turnedBy')]
    const told = all.map((each) => line`${pieceSpan(each.piece, speaker)}, by ${amountWords(each)}`)
    return { spans: line`${capitalised(listedSpans(told, '; ', '; '))}.`, of: all.length }
  },
  impossible: () => line`This cannot happen on this puzzle by turning.`,
  noSuchShape: ({ isWished }) =>
    isWished
      ? line`No turns make that shape.`
      : line`No turns make this shape: a piece was put back the wrong way round, or two were exchanged.`,
  strayAt(claim, speaker, after) {
    const all = [claim, ...run(after, 'strayAt')]
    const more = after[all.length - 1]
    const others = more?.kind === 'moreStray' ? more.count : 0
    const named = listedSpans(
      [
        ...all.map((each) => lyingSpans(each, speaker)),
        ...(others > 0 ? [line`${inWords(others)} more`] : []),
      ],
      '; ',
      '; ',
    )
    return {
      spans: line`${capitalised(named)}: no turns take ${all.length + others === 1 ? 'it' : 'them'} there.`,
      of: all.length + Math.min(1, others),
    }
  },
  moreStray: ({ count }) => line`${capital(inWords(count))} more lie where no turns take them.`,
  putRight: ({ do: what }) =>
    ({
      exchange: line`Take both out and exchange them.`,
      turn: line`Take it out and put it in the other way.`,
      putBack: line`Take them out and put them back where they belong.`,
    })[what],
  smallGroup: ({ of }, speaker) =>
    line`The ${countIn(speaker, of)} are moved by a small group of their own, and no turns arrange them like this.`,
  exchangedByHand: ({ of }, speaker) =>
    line`Hands have exchanged two ${kindsIn(speaker, of)}: turns make exchanges odd and even in another way.`,
  exchangeAny(claim, speaker, after) {
    const { named, of } = instance(after, 2, speaker)
    const turned = claim.degrees === undefined ? '' : `, and turn one of them ${amountWords(claim)}`
    const first = line`Exchange any two of the ${inWords(claim.of.length)}${turned}`
    return {
      spans: of === 0 ? line`${first}.` : line`${first}: for instance ${named}.`,
      of: 1 + of,
    }
  },
  turnedByHand({ of, degrees, sum, isClockwise }, speaker) {
    if (isSingle(of))
      return line`${capitalised([placeSpan(of[0], speaker)])} has been turned by hand.`
    const verb = degrees === 180 ? 'flipped' : 'twisted'
    const why =
      sum !== undefined
        ? `their twists add up to ${shareWords(sum)}${sum === 180 ? '' : isClockwise ? ' clockwise' : ' anticlockwise'}`
        : degrees === 180
          ? 'an odd number of them are flipped'
          : 'their twists are no whole turns together'
    return line`Hands have ${verb} one of the ${countIn(speaker, of)}: ${why}.`
  },
  turnAny(claim, speaker, after) {
    const { named, of } = instance(after, 1, speaker)
    if (isSingle(claim.of))
      return { spans: line`Turn it ${amountWords(claim)} by hand.`, of: 1 + of }
    const first =
      claim.degrees === 180
        ? line`Flip any one of them by hand`
        : line`Twist any one of them ${amountWords(claim)} by hand`
    return {
      spans: of === 0 ? line`${first}.` : line`${first}, for instance ${named}.`,
      of: 1 + of,
    }
  },
  exchangeThese(claim, speaker, after) {
    const { named, of } = instance(after, 2, speaker)
    const turned =
      claim.degrees === undefined
        ? ''
        : ` Turn the first of them ${amountWords(claim)} in its new place.`
    return { spans: line`Exchange these two by hand: ${named}.${turned}`, of: 1 + of }
  },
  turnThis(claim, speaker, after) {
    const { named, of } = instance(after, 1, speaker)
    return { spans: line`Turn ${named}, ${amountWords(claim)} by hand.`, of: 1 + of }
  },
  moreByHand: () => line`More than one piece was put in or turned by hand.`,
  noTurnsDo: ({ isJust }) =>
    isJust
      ? line`No turns do just that: turns keep count of exchanges and of turns in place.`
      : line`No turns do that.`,
  cannotLie: ({ piece }, speaker) =>
    line`${capitalised([pieceSpan(piece, speaker)])} cannot lie there: no turns take it so.`,
  alsoExchanged: (claim, speaker, after) => alsoWords([claim, ...after], speaker),
  alsoTurned: (claim, speaker, after) => alsoWords([claim, ...after], speaker),
  countedOtherwise: () => line`Exchanges and turns in place would have to be counted otherwise.`,
  notProved: ({ why }) =>
    line`Nothing speaks against it, but it is not proved. ${
      {
        blocked:
          'Turns can be blocked here, and the pieces that decide it lie in too many ways to list.',
        twists: 'Some pieces turn about more than one axis in their places, so twists are no sum.',
        noShapeWay: 'No turns were found that bring the shape back.',
        outOfShape:
          'No way home was found; but not all that this puzzle can do out of shape is listed.',
        notServed: 'No way home was found; but not every way was tried.',
      }[why]
    }`,
}

/** 'It takes more: any two of the 12 edges exchanged.' */
function alsoWords(claims: readonly Claim[], speaker: Speaker): Told {
  const all = run(claims, 'alsoExchanged', 'alsoTurned')
  const told = all.map((claim) => {
    const any = `any one of the ${countIn(speaker, claim.of)}`
    if (claim.kind === 'alsoExchanged') {
      const turned = claim.degrees === undefined ? '' : `, one of them turned ${amountWords(claim)}`
      return `any two of the ${countIn(speaker, claim.of)} exchanged${turned}`
    }
    if (isSingle(claim.of))
      return `${placeSpan(claim.of[0], speaker).text} turned ${amountWords(claim)}`
    return claim.degrees === 180
      ? `${any} flipped`
      : `${any} turned ${amountWords(claim)} in its place`
  })
  return { spans: [textSpan(`It takes more: ${listed(told)}.`)], of: all.length }
}

/** 'The two equal white edges have traded places, which no one can see.' What is said alike is counted. */
function unseenWords(claims: readonly Claim[], speaker: Speaker): Told {
  const all = run(claims, 'traded', 'turnedUnseen')
  const said = all.map((claim) =>
    claim.kind === 'traded'
      ? tradedWords(claim.pieces[0], speaker)
      : turnedWords(claim.piece, speaker),
  )
  const told = [...new Set(said)].map((words) => {
    const times = said.filter((each) => each === words).length
    return times === 1 ? words : `${words} (${inWords(times)} times)`
  })
  return {
    spans: [textSpan(`${capital(listed(told))}, which no one can see.`)],
    of: all.length,
  }
}

function tradedWords(id: PieceId, { puzzle, scheme }: Speaker): string {
  const piece = indexOf(puzzle, id)
  const alike = lookAlikesOf(puzzle).classes.find((each) => each.includes(piece)) ?? []
  const which = alike.length <= 2 ? 'the two' : `two of the ${inWords(alike.length)}`
  return `${which} equal ${kindPlural(who(puzzle, scheme, piece)).replace(/^the /, '')} have traded places`
}

const turnedWords = (id: PieceId, speaker: Speaker): string =>
  `${pieceSpan(id, speaker).text} is turned in its place`
