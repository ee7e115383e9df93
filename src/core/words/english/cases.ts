/** Cases: what is looked for in a layer, what the case is taken for, whether the hold matters. */
import type { CasesKind, Of } from '../../claims/claim'
import { capital, inWords, listed, plural } from '../../phrases'
import { directionOfName } from '../../puzzle/directions'
import { hasColouredSides, turnSide } from '../../analysis/sides'
import type { Sayers } from '../lexicon'
import { line, listedSpans, type Span } from '../span'
import { groupNoun, pointSpan, sideSaid } from './names'
import { layerOf } from './triggers'

const OTHERS: Readonly<Record<Of<'caseLooks'>['how'], string>> = {
  clockwise: 'the others twisted clockwise',
  anticlockwise: 'the others twisted anticlockwise',
  sameWay: 'the others look the same way',
  apart: 'the others look away from each other',
  diagonal: 'the others are diagonal',
  twoAndTwo: 'two look one way, two the opposite way',
  twoApart: 'two look one way, two apart',
}

const HOLDS: Readonly<Record<Of<'worksHeld'>['holds'], string>> = {
  any: 'It works whichever side is in front.',
  half: 'Held half round it works too; a quarter turn wrong it fails.',
}

export const CASES: Sayers<CasesKind> = {
  caseIs: ({ nth, of }) => line`Case ${nth} of ${of}.`,
  seekCase: ({ of, cases }, speaker) =>
    line`Look how the ${inWords(of.length)} ${groupNoun(speaker, of)} lie: one of ${plural(cases, 'case')}.`,
  caseLooks({ side, count, how }, speaker) {
    const { puzzle, frame, register } = speaker
    const right = count === 0 ? 'none' : inWords(count)
    if (!hasColouredSides(puzzle))
      return line`${capital(right)} of the last layer right, ${OTHERS[how]}.`
    const up = turnSide(puzzle, frame, directionOfName(side)).toward
    const where = register === 'brief' ? '' : ` on the ${layerOf(side, speaker)} layer`
    return line`${capital(sideSaid(side, speaker))}${where}: ${right} ${up}, ${OTHERS[how]}.`
  },
  looksToward(claim, speaker) {
    const { side, places, toward } = claim
    const ways = [...new Set(toward)]
    const parts = ways.map((way): Span[] => {
      const own = places.filter((_, i) => toward[i] === way)
      return line`${directionOfName(way).toward} (${listedSpans(own.map((place) => pointSpan(place, speaker)))})`
    })
    const what = hasColouredSides(speaker.puzzle) ? sideSaid(side, speaker) : 'what belongs up'
    return line`${capital(what)} looks ${listedSpans(parts)}.`
  },
  barCount({ side, count }, speaker) {
    const layer = `${layerOf(side, speaker)} layer`
    if (count === 4) return line`The ${layer} is whole.`
    const bars = count === 0 ? 'no bar' : count === 1 ? 'one bar' : plural(count, 'bar')
    return line`${capital(layer)}: ${bars}.`
  },
  barsAt({ side, sides }, speaker) {
    if (sides.length === 0 || sides.length === 4) return []
    const at = listed(sides.map((each) => directionOfName(each).at))
    return line`${sides.length === 1 ? 'Bar' : 'Bars'} of the ${layerOf(side, speaker)} layer ${at}.`
  },
  meansBar: (_, { register }) =>
    register === 'brief' ? [] : line`Bar: two equal side colours side by side in one layer.`,
  worksHeld: ({ holds }, { register }) =>
    register === 'brief' && holds !== 'any' ? [] : line`${HOLDS[holds]}`,
  mistakenFor({ nth, side, place, there }, speaker) {
    if (speaker.register === 'brief') return []
    const what = hasColouredSides(speaker.puzzle) ? `${sideSaid(side, speaker)} looks` : 'it looks'
    return line`Not case ${nth}: there ${what} ${directionOfName(there).toward} at ${pointSpan(place, speaker)}.`
  },
}
