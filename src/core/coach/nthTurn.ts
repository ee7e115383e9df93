import { ORDINALS } from '../analysis/placeNames'
import type { Turn } from '../puzzle/compile'

/** A turn among others by its name; where there are several of that name 'the second 2R2'. */
export function nthTurn(turns: readonly Turn[], at: number): string {
  const { name } = turns[at]
  const same = turns.flatMap((turn, i) => (turn.name === name ? [i] : []))
  return same.length > 1 ? `the ${ORDINALS[same.indexOf(at)]} ${name}` : name
}
