/** Why no turns do what is wished, from the judgement of the position that they would make of the finished puzzle. */
import { whereNow, who } from '../analysis/who'
import type { Scheme } from '../puzzle/colours'
import type { Puzzle } from '../puzzle/compile'
import { IDENTITY } from '../rotation'
import type { Diagnosis } from '../stuck/diagnose'
import { handCount, turnedBy } from '../stuck/words'
import { baseKind, capital, inWords, kindPlural, listed } from '../phrases'

/** In the hold of the finished puzzle. Undefined where turns do it, or may. */
export function refusalOf(
  puzzle: Puzzle,
  scheme: Scheme,
  { finding, account, state }: Diagnosis,
): string | undefined {
  if (state || finding.kind !== 'assembly') return undefined
  const { strays, corrections, shape, group } = finding
  if (strays.length > 0)
    return `${capital(who(puzzle, scheme, strays[0]))} cannot lie there: no turns take it so.`
  if (shape) return 'No turns make that shape.'
  const kinds = (places: readonly number[]) =>
    listed([...new Set(places.map((p) => kindPlural(baseKind(puzzle.pieces[p].kind))))])
  if (group)
    return `No turns do that: the ${inWords(handCount(puzzle, group))} ${kinds(group)} are moved by a small group of their own, which has no such arrangement.`
  if (corrections.length === 0)
    return 'No turns do that: exchanges and turns in place would have to be counted otherwise.'
  const wanting = corrections.map(({ pieces: [piece, other], sense }) => {
    const places = account.find((orbit) => orbit.places.includes(piece))?.places ?? []
    const all = `the ${inWords(handCount(puzzle, places))} ${kinds(places)}`
    const turned = sense ? turnedBy(sense) : ''
    if (other !== undefined)
      return `any two of ${all} exchanged${turned && `, one of them turned ${turned}`}`
    if (places.length === 1)
      return `${whereNow(puzzle, IDENTITY, piece, IDENTITY) ?? who(puzzle, scheme, piece)} turned ${turned}`
    return sense?.degrees === 180
      ? `any one of ${all} flipped`
      : `any one of ${all} turned ${turned} in its place`
  })
  return `No turns do just that: turns keep count of exchanges and of turns in place. It takes more: ${listed(wanting)}.`
}
