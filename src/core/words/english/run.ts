/** Claims that belong together because they follow each other. */
import type { Claim, Of } from '../../claims/claim'

/** As many of those in front as are of some kinds. */
export function run<Kind extends Claim['kind']>(
  claims: readonly Claim[],
  ...kinds: readonly Kind[]
): Of<Kind>[] {
  const end = claims.findIndex(({ kind }) => !kinds.includes(kind as Kind))
  return claims.slice(0, end < 0 ? claims.length : end) as unknown as Of<Kind>[]
}
