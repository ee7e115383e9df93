/** Why no turns do what is wished, from the judgement of the position that they would make of the finished puzzle. */
import { inHand } from '../analysis/placements'
import { amountOf } from '../analysis/sense'
import type { Claim, Said } from '../claims/claim'
import type { Scheme } from '../puzzle/colours'
import type { Puzzle } from '../puzzle/compile'
import type { Diagnosis } from '../stuck/diagnose'
import { sentencesOf } from '../words/say'

/** In the hold of the finished puzzle. Undefined where turns do it, or may. */
export function refusalOf(
  puzzle: Puzzle,
  { finding, account, state }: Diagnosis,
): Said | undefined {
  if (state || finding.kind !== 'assembly') return undefined
  const { strays, corrections, shape, group } = finding
  const ids = (places: readonly number[]) => inHand(puzzle, places).map((p) => puzzle.pieces[p].id)
  if (strays.length > 0) return [{ kind: 'cannotLie', piece: puzzle.pieces[strays[0]].id }]
  const none = { kind: 'noTurnsDo' } as const
  if (shape) return [none, { kind: 'noSuchShape', isWished: true }]
  if (group) return [none, { kind: 'smallGroup', of: ids(group) }]
  if (corrections.length === 0) return [none, { kind: 'countedOtherwise' }]
  return [
    { kind: 'noTurnsDo', isJust: true },
    ...corrections.map(({ pieces, sense }): Claim => {
      const orbit = account.find(({ places }) => places.includes(pieces[0]))
      const of = ids(orbit?.places ?? [pieces[0]])
      const amount = sense && amountOf(sense)
      return pieces.length > 1
        ? { kind: 'alsoExchanged', of, ...amount }
        : { kind: 'alsoTurned', of, ...(amount ?? { degrees: 180 }) }
    }),
  ]
}

export const refusalWords = (puzzle: Puzzle, scheme: Scheme, said: Said): string =>
  sentencesOf(puzzle, said, { scheme }).join(' ')
