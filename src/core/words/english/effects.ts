/** What a sequence does, and what stops it. */
import { isOnEdge, outwardOf } from '../../analysis/anatomy'
import { placeNamesOf } from '../../analysis/placeNames'
import { indexOf, type EffectsKind, type Of, type PieceId } from '../../claims/claim'
import { baseKind, capital, inWords, kindPlural, listed, plural, times } from '../../phrases'
import { directionOfName } from '../../puzzle/directions'
import type { Sayers, Speaker, Told } from '../lexicon'
import { capitalised, line, listedSpans, turnSpan, type Span } from '../span'
import { pieceSpan, placeSpan } from './names'
import { run } from './run'
import { amountWords } from './verdicts'

/** More than these are counted, not named. */
const MOST_NAMED = 3
const MOST_SPUN = 8

const kindsIn = ({ puzzle }: Speaker, of: readonly PieceId[]): string =>
  listed([
    ...new Set(of.map((id) => kindPlural(baseKind(puzzle.pieces[indexOf(puzzle, id)].kind)))),
  ])

const placesSpans = (of: readonly PieceId[], speaker: Speaker): Span[] =>
  listedSpans(of.map((id) => placeSpan(id, speaker)))

export const EFFECTS: Sayers<EffectsKind> = {
  roundOf: (claim, speaker, after) => roundWords(claim, run(after, 'arrives'), speaker),
  arrives: ({ from, ...looks }, speaker) =>
    line`${capitalised([placeSpan(from, speaker)])}: ${looksWords(looks)}.`,
  roundsOf({ of, lengths }, speaker) {
    const all = `${capital(inWords(of.length))} ${kindsIn(speaker, of)}`
    return lengths.every((length) => length === 2)
      ? line`${all} change places two by two.`
      : line`${all} go round, in rounds of ${listed(lengths.map(inWords))}.`
  },
  spun(claim, speaker) {
    const { of, isUnseen } = claim
    const named =
      of.length > MOST_SPUN
        ? line`${capital(inWords(of.length))} ${kindsIn(speaker, of)}`
        : capitalised(placesSpans(of, speaker))
    return line`${named} ${of.length === 1 ? 'is' : 'are'} ${spunWords(claim, speaker)}${isUnseen ? ', which does not show' : ''}.`
  },
  nothingChanged: () => line`Nothing is changed by it.`,
  borrowedOnly({ count, still }) {
    const rest =
      still === 0 ? '' : ` ${capital(inWords(still))} ${still === 1 ? 'is' : 'are'} never touched.`
    return line`${capital(plural(count, 'piece'))} ${count === 1 ? 'is' : 'are'} only borrowed: moved on the way and back at the end.${rest}`
  },
  heldAfter({ was, is }) {
    const moves = was.flatMap((name, i) => {
      const to = is.at(i)
      return to === undefined
        ? []
        : [`what was ${directionOfName(name).at} is ${directionOfName(to).at}`]
    })
    const told = moves.length === 0 ? '' : `: ${listed(moves.slice(0, 2))}`
    return line`Afterwards the whole puzzle is held otherwise${told}.`
  },
  backAfter({ times: count, kinds, sooner }) {
    const also = kinds.map((kind, i) => `${kindPlural(kind)} after ${inWords(sooner[i] ?? count)}`)
    return line`Done ${times(count)}, everything is back${also.length === 0 ? '' : `; ${listed(also)}`}.`
  },
  passes: ({ tried, made }) =>
    line`Tried from ${tried} scrambles, it can be made in ${made === tried ? 'all' : made === 0 ? 'none' : made}.`,
  stopsAt({ times: count, nth, turn, cuts, empty = [] }, speaker) {
    const where = line`It stops in ${count} before turn ${nth}, ${turnSpan(turn)}`
    if (cuts) return line`${where}: it would cut through ${piecesSpans(cuts, speaker)}.`
    const lack =
      empty.length > MOST_NAMED
        ? line`${inWords(empty.length)} of its places are empty`
        : line`nothing lies at ${placesSpans(empty, speaker)}`
    const here = empty.length > 0 ? line` Here, from the beginning, ${lack}.` : []
    return line`${where}: that layer is not complete then.${here}`
  },
  blocked({ turn, cuts, empty = [] }, speaker) {
    const name = turnSpan(turn)
    if (cuts) return line`${name} is blocked: it would cut through ${piecesSpans(cuts, speaker)}.`
    const lack = empty.length > 0 ? line` Nothing is at ${fewPlaces(empty, speaker)}.` : []
    return line`${name} is blocked: that layer is not complete.${lack}`
  },
}

const piecesSpans = (pieces: readonly PieceId[], speaker: Speaker): Span[] =>
  pieces.length > MOST_NAMED
    ? line`${inWords(pieces.length)} pieces`
    : listedSpans(pieces.map((piece) => pieceSpan(piece, speaker)))

/** A few of them named, and how many more there are. */
function fewPlaces(places: readonly PieceId[], speaker: Speaker): Span[] {
  const named = places.slice(0, MOST_NAMED).map((id) => [placeSpan(id, speaker)])
  const more = places.length - named.length
  return listedSpans(more > 0 ? [...named, line`${plural(more, 'more place')}`] : named)
}

/** 'Three edges go round: the top left edge to the top back edge (what looked up looks left); ….' */
function roundWords(
  { of, isUnseen }: Of<'roundOf'>,
  arrivals: readonly Of<'arrives'>[],
  speaker: Speaker,
): Told {
  const { names } = placeNamesOf(speaker.puzzle, speaker.frame)
  const nameOf = (id: PieceId) => names[indexOf(speaker.puzzle, id)]
  const own = arrivals.filter(({ from }) => of.includes(from))
  const hops = of.map((from, i) => {
    const arrival = own.find((each) => each.from === from)
    const looks = arrival ? ` (${looksWords(arrival)})` : ''
    return `${nameOf(from)} to ${nameOf(of[(i + 1) % of.length])}${looks}`
  })
  const what =
    of.length === 2
      ? `Two ${kindsIn(speaker, of)} change places`
      : `${capital(inWords(of.length))} ${kindsIn(speaker, of)} go round`
  const unseen = isUnseen ? ' They look alike: none of it shows.' : ''
  return { spans: line`${what}: ${hops.join('; ')}.${unseen}`, of: 1 + own.length }
}

/** 'what looked up looks to the left' */
const looksWords = ({ was, is }: Pick<Of<'arrives'>, 'was' | 'is'>): string =>
  was === is
    ? `what looks ${directionOfName(was).toward} still does`
    : `what looked ${directionOfName(was).toward} looks ${directionOfName(is).toward}`

/** 'twisted clockwise in place', 'turned in place, a quarter clockwise' */
function spunWords({ of, ...how }: Of<'spun'>, { puzzle }: Speaker): string {
  if (how.degrees === 120)
    return `twisted ${how.isClockwise ? 'clockwise' : 'anticlockwise'} in place`
  const isFlip =
    how.degrees === 180 &&
    of.every((id) => isOnEdge(outwardOf(puzzle, Math.max(0, indexOf(puzzle, id)))))
  return isFlip ? 'flipped in place' : `turned in place, ${amountWords(how)}`
}
