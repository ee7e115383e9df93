/** From how many scrambles a sequence can be made, and what stops it. */
import type { Puzzle, Turn } from '../puzzle/compile'
import type { Passage, Stop } from '../scramble/passage'
import type { Claim } from './claim'

export const passageClaim = ({ tried, made }: Passage): Claim => ({ kind: 'passes', tried, made })

export function stopClaim(
  { pieces }: Puzzle,
  turns: readonly Turn[],
  { at, times, missing, cut }: Stop,
): Claim {
  const ids = (all: readonly number[]) => all.map((p) => pieces[p].id)
  const where = { kind: 'stopsAt', times, nth: at + 1, turn: turns[at].name } as const
  return cut.length > 0 ? { ...where, cuts: ids(cut) } : { ...where, empty: ids(missing) }
}
