/** Set-up turns, sums, shapes, blocks that are glued. */
import type { OrbitsKind } from '../../claims/claim'
import { capital, inWords, kindPlural, listed, plural } from '../../phrases'
import type { Sayers } from '../lexicon'
import { capitalised, line, listedSpans, turnSpan } from '../span'
import { groupNoun, pieceSpan } from './names'

const nouns = (kinds: readonly string[]): string => listed(kinds.map(kindPlural))

export const ORBITS: Sayers<OrbitsKind> = {
  setUp: (_, { register }) =>
    register === 'brief' ? [] : line`Set-up: don't worry what it scrambles, you'll undo it.`,
  leftStanding({ turns }) {
    const names = listedSpans(turns.map(turnSpan))
    return line`${names} ${turns.length === 1 ? 'stays' : 'stay'} for now: the next step would begin with ${turns.length === 1 ? 'it' : 'them'} again.`
  },
  fewestTried: (_, { register }) =>
    register === 'brief'
      ? []
      : line`Several ways through this stage were tried: this is the shortest.`,
  least: ({ turns, quarters }) =>
    line`${capital(plural(turns, 'turn'))} is the least that leads home from here (${quarters} counted in quarters).`,
  distance: ({ turns }) => line`It is ${plural(turns, 'turn')} from home.`,
  firstTurn: ({ turn }) => line`The first turn is ${turnSpan(turn)}.`,
  solved: () => line`The puzzle is home.`,
  noWayOn: () =>
    line`The school's own way doesn't lead on from here, so the rest goes piece by piece.`,
  foundTogether({ pieces, turns }, speaker) {
    const names = listedSpans(pieces.map((piece) => pieceSpan(piece, speaker)))
    const it = pieces.length === 1 ? 'it' : pieces.length === 2 ? 'both' : 'them all'
    return line`${capitalised(names)}: ${plural(turns, 'turn')} bring ${it} home.`
  },
  homeNow({ pieces }, speaker) {
    const names = listedSpans(pieces.map((piece) => pieceSpan(piece, speaker)))
    return line`${capitalised(names)} ${pieces.length === 1 ? 'is' : 'are'} home.`
  },
  canComeTogether: ({ count }) => line`${capital(plural(count, 'piece'))} can come home together.`,
  foundHere: () => line`Found by search, for this position only. The rest can wait.`,
  meets({ here, there, one, isWithin }) {
    const both = isWithin
      ? line`${turnSpan(here)}, once you have looked, and the ${turnSpan(there)} after it`
      : line`The last ${turnSpan(here)} and the ${turnSpan(there)} of the next step`
    return one === undefined
      ? line`${both} cancel: leave both out.`
      : line`${both} make one turn, ${turnSpan(one)}.`
  },
  allTogether: ({ of, isNeverThree }, speaker) =>
    line`The ${inWords(of.length)} ${groupNoun(speaker, of)}, all together.${isNeverThree ? ' These can only move together, so do them first.' : ''}`,
  sumsOff({ odd, twisted, turned = 0, turnedKinds = [] }) {
    const told = [
      ...(odd.length > 0 ? [`the exchanges of ${nouns(odd)} are odd`] : []),
      ...(twisted.length > 0 ? [`the twists of ${nouns(twisted)} don't add up`] : []),
      ...(turned > 0
        ? [
            `${inWords(turned)} of the ${nouns(turnedKinds)} ${turned === 1 ? 'is' : 'are'} turned in place`,
          ]
        : []),
    ]
    return told.length === 0 ? [] : line`${capital(listed(told))}.`
  },
  ownWay: ({ of }, speaker) =>
    line`Each position of the ${groupNoun(speaker, of)} has a shortest way of its own.`,
  oddFirst: () => line`Odd and even come first.`,
  restDepends: () => line`The rest depends on it.`,
  sumsFirst: (_, { register }) =>
    register === 'brief' ? [] : line`Three going round never change this, so it comes first.`,
  shapeFirst: () => line`Shape first: colours can wait.`,
  standOut: ({ count }) =>
    line`${capital(plural(count, 'piece'))} ${count === 1 ? 'stands' : 'stand'} out of the finished shape.`,
  intoShape: ({ pieces }, speaker) =>
    line`${capitalised(listedSpans(pieces.map((piece) => pieceSpan(piece, speaker))))} ${pieces.length === 1 ? 'comes' : 'come'} into it next.`,
  inShape: () => line`It has its finished shape again.`,
  blocksFirst: () => line`The glued blocks alone: they decide which turns are free.`,
  blocksBack: () => line`These turns bring the blocks back.`,
  blocksPlaced: () => line`Every block lies where the finished puzzle has one.`,
}
