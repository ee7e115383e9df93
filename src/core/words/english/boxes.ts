/** Boxes that turn by half turns: what stays, what is half done, what a twin would show. */
import { times as timesWords } from '../../phrases'
import type { BoxesKind } from '../../claims/claim'
import { directionOfName, DIRECTIONS } from '../../puzzle/directions'
import type { Sayers } from '../lexicon'
import { line } from '../span'
import { colourName, labelSpan, looksWords } from './names'

export const BOXES: Sayers<BoxesKind> = {
  matchingPair({ colour, at }, speaker) {
    const { at: where } = directionOfName(at)
    return line`The two corners ${where} match, both ${colourName(colour, speaker)} there: they stay, the other two change places.`
  },
  workSide({ turn, times }, { puzzle }) {
    const { grip } = puzzle.turnByName.get(turn) ?? { grip: 0 }
    const { axis } = puzzle.grips[grip]
    const along = DIRECTIONS.find(({ vector }) => vector.every((c, i) => c === axis[i]))
    const side = along?.adjective ?? 'work'
    const told = `The ${side} side turns ${timesWords(times)} in all`
    return times % 2 === 0
      ? line`${told}, so it ends where it began.`
      : line`${told}. That is odd, but only look-alikes end up exchanged.`
  },
  twinWouldShow: ({ piece, looks }, speaker) =>
    line`${labelSpan(piece, speaker)} has a twin, which would show ${looksWords(looks, speaker)} there.`,
}
