/** What the smaller box alone cannot mend. */
import { who } from '../../analysis/who'
import { indexOf, smallOf, type PieceId, type RemediesKind } from '../../claims/claim'
import { capital, inWords, listed } from '../../phrases'
import type { Vector } from '../../rotation'
import type { Sayers, Speaker } from '../lexicon'
import { line } from '../span'

const names = (as: Vector, wholes: readonly PieceId[], { puzzle, scheme }: Speaker): string => {
  const { small } = smallOf(puzzle, as)
  return listed(wholes.map((whole) => who(small, scheme, indexOf(small, whole))))
}

export const REMEDIES: Sayers<RemediesKind> = {
  turnedOver: ({ of, count }) =>
    line`${capital(count === 0 ? 'none' : inWords(count))} of the ${inWords(of.length)} edges of the last layer ${count > 1 ? 'are' : 'is'} turned over: ${count % 2 === 1 ? 'odd' : 'even'}.`,
  exchangesOf: ({ corners, edges }) =>
    line`Counted through, the corners come home by an ${corners} number of exchanges, the edges by an ${edges} one.`,
  remedied({ as, how, of, beside }, speaker) {
    const why =
      how === 'turned'
        ? 'Outer layers turn edges over two at a time, so inner ones must turn once more.'
        : 'Outer layers exchange corners and edges alike, so inner ones must turn once more.'
    const what =
      how === 'turned'
        ? `turns over ${names(as, of, speaker)}`
        : `exchanges ${names(as, of, speaker)}`
    const rest =
      beside.length === 0
        ? 'nothing else moves'
        : `${names(as, beside, speaker)} ${beside.length > 1 ? 'turn' : 'turns'} in place too`
    return line`${why} It ${what}; ${rest}.`
  },
  cannotFinish: () =>
    line`Nothing shows, but equal pieces hide what is wrong: no turns that keep all joined can finish this.`,
  canFinish: () =>
    line`It looks as before, and can be finished now, if need be after one more such remedy.`,
  countThrough: ({ how }) =>
    how === 'turned'
      ? line`Count the edges of the last layer that are turned over.`
      : line`Count how many exchanges bring the corners home, and how many the edges.`,
  outerCannot: () => line`Outer layers alone cannot mend this: some slice must turn once more.`,
  equalsHide: () => line`Equal pieces hide what is wrong here.`,
}
