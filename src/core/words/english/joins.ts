/** Parts of pieces of a smaller box: where they lie, how they come together, what it costs. */
import { hasColouredSides } from '../../analysis/sides'
import { who } from '../../analysis/who'
import { indexOf, smallOf, type JoinsKind, type PieceId } from '../../claims/claim'
import { baseKind, capital, inWords, kindPlural, plural } from '../../phrases'
import type { Vector } from '../../rotation'
import type { Sayers, Speaker } from '../lexicon'
import { capitalised, line, listedSpans, textSpan, turnSpan, type Span } from '../span'
import { labelSpan, nthTurnSpans, ofSmall, OUTSIDE, pieceSpan, pointSpan } from './names'

/** So many are named in one sentence. */
const MOST_NAMES = 2

/** 'White-red edges' of two that are called alike, else the first and its partner. */
function pairName([one, other]: readonly PieceId[], speaker: Speaker): Span[] {
  const names = [one, other].map((id) => pieceSpan(id, speaker).text)
  if (names[0] !== names[1]) return line`${pieceSpan(one, speaker)} and its partner`
  return [textSpan(names[0].replace(/\b(edge|centre)\b/, '$1s'))]
}

const smallPoint = (as: Vector, place: PieceId | undefined, speaker: Speaker): Span =>
  place === undefined ? textSpan(OUTSIDE) : pointSpan(place, ofSmall(as, speaker))

/** Whether it is a centre of one colour. */
const isPlain = ({ puzzle }: Speaker, as: Vector, whole: PieceId): boolean => {
  const { small } = smallOf(puzzle, as)
  return hasColouredSides(puzzle) && baseKind(small.pieces[indexOf(small, whole)].kind) === 'centre'
}

const wholeName = (as: Vector, whole: PieceId, speaker: Speaker): string => {
  const { small } = smallOf(speaker.puzzle, as)
  return who(small, speaker.scheme, indexOf(small, whole))
}

export const JOINS: Sayers<JoinsKind> = {
  partsAt({ piece, partner, place, partnerPlace }, speaker) {
    const [at, there] = [pointSpan(place, speaker), pointSpan(partnerPlace, speaker)]
    const names = [piece, partner].map((id) => pieceSpan(id, speaker).text)
    if (names[0] !== names[1])
      return line`${labelSpan(piece, speaker)}: ${at}. Its partner: ${there}.`
    const pair = names[0].replace(/^the /, '').replace(/\b(edge|centre)\b/, '$1s')
    return line`${capital(pair)}: ${at} and ${there}.`
  },
  joinsBy({ at, pieces, moves, from, isAcross }, speaker) {
    // In few words the turns say it.
    if (speaker.register === 'brief') return []
    const [one, other] = moves === pieces[0] ? ['first', 'second'] : ['second', 'first']
    const then = from === undefined ? [] : line`, by then ${pointSpan(from, speaker)},`
    return line`${capitalised(nthTurnSpans(speaker, at))} joins them: it brings the ${one}${then}${isAcross ? ' across' : ''} to the ${other}.`
  },
  together: ({ as, pieces, place }, speaker) =>
    line`${capitalised(pairName(pieces, speaker))} lie together: ${smallPoint(as, place, speaker)}.`,
  partsIn({ as, whole, place, count, of }, speaker) {
    const name = wholeName(as, whole, speaker)
    const at = smallPoint(as, place, speaker)
    const some = count === of ? `all ${inWords(of)}` : `${inWords(count)} of the ${inWords(of)}`
    if (isPlain(speaker, as, whole)) {
      const colour = name.replace(/^the | centre$/g, '')
      return line`${capital(some)} ${at} centres ${count === 1 ? 'is' : 'are'} ${colour}.`
    }
    return count === of
      ? line`${capital(name)} is whole: ${at}.`
      : line`${capital(some)} parts of ${name} ${count === 1 ? 'lies' : 'lie'} there: ${at}.`
  },
  openFrom: ({ from, to }) =>
    line`From ${turnSpan(from)} to ${turnSpan(to)} a slice stands open: turn nothing else.`,
  takenApart: ({ as, places }, speaker) =>
    places.length <= MOST_NAMES
      ? line`Taken apart for it, no pair yet: ${listedSpans(places.map((place) => smallPoint(as, place, speaker)))}.`
      : line`It takes apart what lies in ${inWords(places.length)} places, no pairs yet.`,
  pairsParted: ({ as, count, place }, speaker) =>
    place === undefined
      ? line`It parts ${plural(count, 'pair')}.`
      : line`It parts the pair ${smallPoint(as, place, speaker)}.`,
  lastTwo: () => line`They are the last two: each gets its part from the other.`,
  stripsEqual: ({ turn }) =>
    line`They are the last two, so strips are made equal before each ${turnSpan(turn)}.`,
  equalStrip({ as, turn, nth, places, holds }, speaker) {
    const names = listedSpans(places.map((place) => smallPoint(as, place, speaker)))
    const noun = kindPlural(pieceSpan(holds, speaker).text).replace(/^the /, '')
    return line`Before the ${nth === 1 ? 'first' : 'second'} ${turnSpan(turn)}, ${noun} in both: ${names}.`
  },
  pairsLeft: ({ count }, { register }) => {
    if (register === 'brief' && count > 0) return []
    return count === 0
      ? line`All pairs are joined then.`
      : line`${capital(plural(count, 'pair'))} ${count === 1 ? 'is' : 'are'} still apart after this.`
  },
  partsMissing: ({ count }, { register }) => {
    if (register === 'brief' && count > 0) return []
    return count === 0
      ? line`They are all in then.`
      : line`${capital(inWords(count))} ${count === 1 ? 'is' : 'are'} still missing after this.`
  },
  joins({ as, wholes }, speaker) {
    const names = [...new Set(wholes.map((whole) => wholeName(as, whole, speaker)))].map(
      (name, i) => (isPlain(speaker, as, wholes[i]) ? kindPlural(name) : name),
    )
    const { small } = smallOf(speaker.puzzle, as)
    const kind = baseKind(small.pieces[indexOf(small, wholes[0])].kind)
    return wholes.length > MOST_NAMES
      ? line`Parts of ${inWords(wholes.length)} ${kindPlural(kind)} come together.`
      : line`Parts of ${listedSpans(names.map(textSpan))} come together.`
  },
  offeredApart: ({ as, place, turns }, speaker) =>
    line`What lies ${smallPoint(as, place, speaker)}: ${plural(turns.length, 'turn')}, ${turns.flatMap((name, i) => (i === 0 ? [turnSpan(name)] : [textSpan(' '), turnSpan(name)]))}.`,
  countsAsOne: () =>
    line`From here on joined edges count as one edge, joined centres as one centre.`,
}
