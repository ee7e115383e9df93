/** How many are right, what else moves, what deceives the eye, what may be taken instead. */
import type { CountsKind, Of } from '../../claims/claim'
import { baseKind, capital, inWords, kindPlural, listed, plural } from '../../phrases'
import { indexOf } from '../../claims/claim'
import { directionOfName } from '../../puzzle/directions'
import { turnSide } from '../../analysis/sides'
import type { Sayers, Speaker } from '../lexicon'
import { capitalised, line, listedSpans, textSpan, type Span } from '../span'
import { countOf, groupNoun, labelSpan, pieceSpan, pointSpan, sideSaid } from './names'

export const COUNTS: Sayers<CountsKind> = {
  homeCount: (claim, speaker) => homeCount(claim, speaker),
  meansFitting: ({ kinds }) =>
    line`Turned right: a turn of that layer alone would bring ${kinds.length > 1 ? 'them' : 'it'} home.`,
  movedBeside({ kinds, count }, { register }) {
    if (register === 'brief') return []
    if (kinds.length === 0) return line`Nothing else moved.`
    if (count !== undefined)
      return line`It moves ${countOf(count, kinds[0])} too; ${count === 1 ? 'that' : 'those'} can wait.`
    return line`Some ${listed(kinds.map(kindPlural))} moved too; they can wait.`
  },
  givenUp: ({ places: { length } }) =>
    length === 1
      ? line`One that was right is given up here for now.`
      : line`${capital(inWords(length))} that were right are given up here for now.`,
  noneGained: () => line`Nothing comes home yet: this makes the next steps short.`,
  noneLost: (_, { register }) => (register === 'brief' ? [] : line`What was right is still right.`),
  comeHome({ of, count }, speaker) {
    const noun = groupNoun(speaker, of)
    return line`${capital(inWords(count))} ${count === 1 ? singular(noun) : noun} ${count === 1 ? 'comes' : 'come'} home.`
  },
  othersComeHome: ({ count }) =>
    line`${capital(plural(count, 'other'))} ${count > 1 ? 'come' : 'comes'} home too.`,
  deceives({ piece, how, seems }, speaker) {
    const looks = seems === 'home' ? 'looks right' : 'would fit'
    const why =
      how === 'unseen'
        ? "it's turned where you can't see it"
        : "it's the twin: with it there, two others can't be fixed"
    return line`${capitalised([pieceSpan(piece, speaker)])} ${looks}, but ${why}.`
  },
  lookAlike: ({ count }) =>
    line`${capital(inWords(count))} look like 1: take the one that lies there.`,
  seek: ({ piece }, speaker) => line`Look for ${pieceSpan(piece, speaker)}.`,
  seekAmong({ of, what }, speaker) {
    const noun = groupNoun(speaker, of)
    switch (what) {
      case 'right':
        return line`Look at the ${inWords(of.length)} ${noun}: which are right?`
      case 'three':
        return line`Look for three ${noun} that can go round.`
      case 'coming':
        return line`Look for ${noun} that can come home.`
      case 'pair':
        return line`Find two ${noun} that belong together.`
      case 'odd':
        return line`Count the exchanges that would bring the ${noun} home.`
      case 'first':
        return line`Choose a first one of the ${noun}.`
      case 'placed':
        return line`Turn that layer and count the ${noun} that are placed.`
      case 'twisted':
        return line`Find the next of the ${noun} that is twisted.`
      case 'all':
        return line`The ${inWords(of.length)} ${noun} come home all together.`
    }
  },
  exchanges: ({ of, isOdd }, speaker) =>
    line`Exchanging two at a time, it takes an ${isOdd ? 'odd' : 'even'} number to bring the ${groupNoun(speaker, of)} home.`,
  mustComeOut: () => line`It can't go in from here, so first take it out.`,
  allHomeAtOnce: ({ of }, speaker) =>
    line`Nothing more: these turns bring all ${groupNoun(speaker, of)} home.`,
  oneQuarter: () => line`One quarter turn comes first.`,
  turnMissing: () => line`Only a turn of one layer is missing.`,
  offered: ({ piece, turns }, speaker) =>
    line`${labelSpan(piece, speaker)}: ${plural(turns, 'turn')}.`,
  offeredThird({ piece, place, arrive, turns }, speaker) {
    const what =
      arrive === 3
        ? 'all three arrive'
        : arrive === 2
          ? 'two of the three arrive'
          : 'only the first arrives'
    const cost = turns === undefined ? '' : `, in ${plural(turns, 'turn')}`
    return line`${labelSpan(piece, speaker)}, now ${pointSpan(place, speaker)}: ${what}${cost}.`
  },
}

const singular = (noun: string): string => noun.replace(/s(?= |$)/, '')

/** More places than these are not listed, nor where their names are so long together. */
const MOST_LISTED = 3
const LONGEST_LIST = 90

function homeCount(claim: Of<'homeCount'>, speaker: Speaker): Span[] {
  const { of, count, right, isOwed } = claim
  const sentence = countWords(claim, speaker)
  const owed = isOwed ? [textSpan('Once all is undone, ')] : []
  const places = (right ?? []).map((place) => pointSpan(place, speaker))
  const isListed =
    count > 0 &&
    count < of.length &&
    places.length > 0 &&
    places.length <= MOST_LISTED &&
    listed(places.map(({ text }) => text)).length <= LONGEST_LIST
  return [
    ...(isOwed ? [...owed, textSpan(sentence)] : [textSpan(capital(sentence))]),
    ...(isListed ? line`: ${listedSpans(places, '; ', '; ')}` : []),
    textSpan('.'),
  ]
}

/** 'two of the four edges are home', in few words '2 of 4 edges home'. */
function countWords({ of, count, how, side, whose }: Of<'homeCount'>, speaker: Speaker): string {
  const { puzzle, frame, register } = speaker
  const noun = groupNoun(speaker, of)
  const owner = side && whose ? ` of the ${sideSaid(side, speaker)} ${whose}` : ''
  const total = of.length
  if (register === 'brief' && how !== 'faced') {
    const what = { home: 'home', placed: 'placed', fitting: 'turned right' }[how]
    return `${count} of ${total} ${noun} ${what}`
  }
  const which =
    total === 1
      ? `${count === 1 ? 'the' : 'not the'} ${baseKind(puzzle.pieces[indexOf(puzzle, of[0])].kind)}`
      : count === total
        ? `all ${inWords(total)} ${noun}${owner}`
        : `${count === 0 ? 'none' : inWords(count)} of the ${inWords(total)} ${noun}${owner}`
  if (how === 'faced' && side !== undefined) {
    const at = turnSide(puzzle, frame, directionOfName(side))
    return `${sideSaid(side, speaker)} looks ${at.toward} on ${which}`
  }
  const isOne = count < 2
  const what = {
    home: count === 0 ? 'home yet' : 'home',
    placed: isOne ? 'in its place' : 'in their places',
    fitting: 'turned right',
    faced: 'turned right',
  }[how]
  if (total === 1 && count === 0)
    return `the ${baseKind(puzzle.pieces[indexOf(puzzle, of[0])].kind)} is not ${what}`
  return `${which} ${isOne || (total === 1 && count === 1) ? 'is' : 'are'} ${what}`
}
