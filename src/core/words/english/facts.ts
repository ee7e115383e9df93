/** What there is to know about one piece, and how the puzzle stands. */
import { hasShapes } from '../../analysis/fit'
import { reachOf } from '../../analysis/placements'
import type { FactsKind } from '../../claims/claim'
import { capital, inWords, kindPlural, listed, plural } from '../../phrases'
import type { Sayers } from '../lexicon'
import { line, listedSpans, turnSpan } from '../span'
import { placeSpan } from './names'
import { run } from './run'

export const FACTS: Sayers<FactsKind> = {
  isCore: () => line`No turn moves it: it is part of the core.`,
  onlyTurns: () => line`It never leaves its place; it only turns there.`,
  reaches({ count, kinds }) {
    const whose = kinds.length > 1 ? `, those of ${listed(kinds.map(kindPlural))}` : ''
    return line`It can reach ${plural(count, 'place')}${whose}.`
  },
  reachesOutside: ({ count }) =>
    line`It can also lie in ${plural(count, 'place')} where the finished puzzle has nothing.`,
  tradedBy(claim, speaker, after) {
    const all = [claim, ...run(after, 'tradedBy')]
    const told = all.map(({ turn, place }, i) => {
      const where = place === undefined ? line`a place outside` : [placeSpan(place, speaker)]
      return line`${turnSpan(turn)} ${i === 0 ? 'trades it ' : ''}with ${where}`
    })
    return { spans: line`${listedSpans(told)}.`, of: all.length }
  },
  waysToLie({ ways, seen }) {
    if (ways === 1) return line`In its place it can lie one way only.`
    const how =
      seen === ways
        ? 'and each of them shows'
        : seen === 1
          ? 'and the eye sees no difference'
          : `of which the eye tells ${inWords(seen)} apart`
    return line`In its place it can lie ${inWords(ways)} ways, ${how}.`
  },
  likeThose({ of }, speaker) {
    const those = listedSpans(of.map((id) => placeSpan(id, speaker)))
    return line`It looks exactly like what belongs to ${those}: by eye they can stand for each other.`
  },
  liesNow({ piece, place, fit }, speaker) {
    if (place === undefined) return line`Now it lies outside the finished shape.`
    const at =
      place === piece
        ? line`Now it is in its own place`
        : line`Now it is ${placeSpan(place, speaker)}`
    return {
      home: line`${at} and looks right there.`,
      shape: line`${at}; its shape fits, its colours do not.`,
      out: line`${at}; its shape does not fit there.`,
    }[fit]
  },
  misfits: ({ count }) =>
    line`${capital(plural(count, 'piece'))} ${count === 1 ? 'does' : 'do'} not fit by shape.`,
  wouldCarry({ turn, count, out = 0, home }, { puzzle }) {
    const shape = out === 0 ? 'all of them fit by shape' : `${inWords(out)} would not fit by shape`
    const shapes = hasShapes(puzzle, reachOf(puzzle)) ? `${shape}, and ` : ''
    return line`${turnSpan(turn)} carries ${plural(count, 'piece')} now. After it ${shapes}${inWords(home)} would look right.`
  },
}
