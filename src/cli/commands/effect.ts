/** What a sequence does. */
import { effectOf } from '../../core/analysis/effect'
import { doingOf } from '../../core/algorithms/does'
import { passageOf } from '../../core/scramble/passage'
import { passageClaim, stopClaim } from '../../core/claims/stops'
import { structureOf } from '../../core/algorithms/structure'
import { readTurns } from '../../core/notation/read'
import { inverseOf, mirrorImage, rehold } from '../../core/notation/rewrite'
import { writeAlgorithm, writeTurns } from '../../core/notation/write'
import { writeState } from '../../core/state'
import { sentencesOf } from '../../core/words/say'
import { told } from '../failure'
import { puzzleAnd } from '../asked'
import { type Command, one } from '../options'

/** Scrambles from which it is tried whether a sequence is blocked. */
const TRIED = 200

export const effectCommand: Command = (rest, values) => {
  const [puzzle, text] = puzzleAnd(rest, 1, values)
  const turns = told(readTurns(puzzle, text))
  const mirrored = mirrorImage(puzzle, turns)
  const doing = told(doingOf(puzzle, turns))
  const structure = structureOf(puzzle, turns)
  const id = (p: number) => puzzle.pieces[p].id
  const isSeen = (p: number, to: number) =>
    puzzle.look[24 * p + doing.state[p]] !== puzzle.look[24 * to]
  const passage = passageOf(puzzle, turns, TRIED)
  const effect = {
    ...told(effectOf(puzzle, turns)),
    quarterCount: doing.quarterCount,
    handCost: Math.round(doing.ease.right * 10) / 10,
    sentences: sentencesOf(puzzle, doing.said),
    claims: doing.said,
    arrivals: doing.hops.map(({ from, to }) => ({
      piece: id(from),
      to: id(to),
      rotation: doing.state[from],
      seen: isSeen(from, to),
    })),
    turnedInPlace: doing.turned.map((p) => ({
      piece: id(p),
      rotation: doing.state[p],
      seen: isSeen(p, p),
    })),
    borrowed: doing.borrowed.map(id),
    orders: doing.orders,
    structure: structure ? writeAlgorithm(structure) : null,
    passage: passage
      ? {
          ...passage,
          stops: passage.stops.map((stop) => ({
            ...stop,
            state: writeState(stop.state),
            missing: stop.missing.map(id),
            cut: stop.cut.map(id),
          })),
        }
      : null,
    inverse: writeTurns(inverseOf(puzzle, turns)),
    mirror: mirrored ? writeTurns(mirrored) : null,
    holds: puzzle.holds.map((hold) => writeTurns(rehold(puzzle, turns, hold))),
  }
  return one(effect, () =>
    [
      `inverse ${effect.inverse}`,
      `mirror  ${effect.mirror ?? 'none: this puzzle is not its own mirror image'}`,
      ...(effect.structure ? [`built   ${effect.structure}`] : []),
      ...effect.cycles.map(({ places }) => `(${places.join(' ')})`),
      ...effect.twisted.map(({ place, order }) => `${place} turned in place, right after ${order}`),
      ...effect.sentences,
      ...(passage
        ? [
            ...sentencesOf(puzzle, [
              passageClaim(passage),
              ...passage.stops.slice(0, 5).map((stop) => stopClaim(puzzle, turns, stop)),
            ]),
          ]
        : []),
      `${effect.untouched} pieces untouched, back after ${effect.order}`,
    ].join('\n'),
  )
}
