/** What cards claim, for tests. */
import { joinedAs } from '../analysis/joined'
import type { Claim, ClaimKind, Of } from '../claims/claim'
import { liesOf } from '../claims/lies.testing'
import type { Puzzle } from '../puzzle/compile'
import { saidOn, withSaid, type Route, type RouteStep } from './route'
import { trailOf } from './standing'
import { faultsOfCard } from './truth.testing'

/** The claims of one kind, on a card or among some. */
export const claimsOf = <Kind extends ClaimKind>(
  kind: Kind,
  said: RouteStep | readonly Claim[] | undefined,
): Of<Kind>[] =>
  (said === undefined ? [] : 'length' in said ? said : saidOn(said).flat()).filter(
    (claim): claim is Claim & Of<Kind> => claim.kind === kind,
  )

/** Lies that are planted on cards, so many of each kind. */
export class Lies {
  private readonly told = new Map<string, number>()

  constructor(private readonly enough = 6) {}

  /** Those that nobody finds out. */
  unfoundIn(puzzle: Puzzle, route: Route): string[] {
    const trail = trailOf(puzzle, route)
    return trail.steps.flatMap((step, nth) => {
      const told = (step.as && joinedAs(puzzle, step.as)?.small) ?? puzzle
      return saidOn(step)
        .flat()
        .flatMap((claim) =>
          liesOf(told, claim).flatMap(([field, lie]) => {
            const name = `${claim.kind}.${field}`
            const count = this.told.get(name) ?? 0
            if (count >= this.enough) return []
            this.told.set(name, count + 1)
            const spoilt = withSaid(step, (said) =>
              said.map((each) => (each === claim ? lie : each)),
            )
            const steps = trail.steps.map((each, i) => (i === nth ? spoilt : each))
            const found = faultsOfCard(puzzle, puzzle.definition.colours, { ...trail, steps }, nth)
            return found.some((what) => what.includes('untrue'))
              ? []
              : [`${step.id} ${name}: ${JSON.stringify(lie)}`]
          }),
        )
    })
  }

  /** How often something of a kind was lied about. */
  count = (kind: ClaimKind): number =>
    [...this.told].reduce((sum, [name, n]) => (name.startsWith(`${kind}.`) ? sum + n : sum), 0)
}
