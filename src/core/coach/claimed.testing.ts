/** What cards claim, for tests. */
import { fieldsOf, type Claim, type ClaimKind, type Of } from '../claims/claim'
import { PATTERNS } from '../analysis/caseRead'
import { lookKey } from '../claims/judges/joins'
import { joinedAs } from '../analysis/joined'
import type { Look } from '../analysis/who'
import type { Puzzle } from '../puzzle/compile'
import { directionOfName, DIRECTIONS, opposite, type FaceName } from '../puzzle/directions'
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

/**
 * What a lie about it would not show: names of groups that are only looked through, what is offered, and how a case
 * is counted.
 */
const FREE = new Set([
  'seekAmong.of',
  'seekAmong.what',
  'seekCase.of',
  'seekCase.cases',
  'caseIs.of',
  'caseIs.nth',
  'offered.piece',
  'offered.turns',
  'offeredThird.arrive',
  'offeredThird.turns',
  'countThrough.how',
  'otherwise.what',
  'meansFitting.kinds',
  'meansPlaced.side',
  'noLayerYet.side',
  'ownWay.of',
  'allTogether.of',
  'exchanges.of',
  'noneLost.of',
  'noneGained.of',
  'noneWaits.of',
  'joins.wholes',
  'takenOut.piece',
  'shows.piece',
  'deceives.piece',
  'matches.piece',
  'mustComeOut.piece',
  'lacks.colour',
  'leftStanding.turns',
  'openFrom.from',
  'openFrom.to',
  'intoShape.pieces',
  'deceives.how',
  'lookAlike.piece',
  'countsAsHome.piece',
  'remedied.how',
  'matchingPair.pieces',
  'homeCount.side',
  'homeCount.whose',
  'homeCount.how',
  'homeCount.of',
  'allPlacedSomewhere.of',
  'nowhereOnePlaced.of',
  'somewhereOnePlaced.of',
  'somewhereOnePlaced.side',
  'nowhereOnePlaced.side',
  'onePlaced.of',
  'onePlaced.side',
  'allHomeAtOnce.of',
  'pairsParted.of',
  'takenApart.of',
  'lastTwo.of',
  'pairsLeft.of',
  'partsMissing.of',
  'equalStrip.of',
  'stripsEqual.of',
  'offeredApart.of',
  'offeredApart.pieces',
  'joinsBy.of',
  'joinsBy.isByStrips',
  'rounds.of',
  'comeHome.of',
  'othersComeHome.of',
  'twistsLeft.of',
  'allTogether.isNeverThree',
  'slotDeceives.piece',
  'onePlaced.piece',
  'equalStrip.nth',
  'offeredApart.turns',
  'lifts.hasBlock',
  'mistakenFor.nth',
  'worksHeld.side',
  'barCount.side',
  'barsAt.side',
  'mistakenFor.of',
  'caseLooks.of',
  'looksToward.places',
  'text.text',
])

/** What can be said instead of what. */
const WAYS: readonly (readonly string[])[] = [
  PATTERNS,
  ['any', 'half'],
  ['home', 'turned', 'on'],
  ['beside', 'across'],
  ['apart', 'along', 'clear'],
  ['nothing', 'some', 'all'],
  ['odd', 'even'],
  ['unseen', 'twin'],
]

/** The same claim with one thing in it changed, for each that the states decide. */
function liesOf(puzzle: Puzzle, claim: Claim): [string, Claim][] {
  const small = 'as' in claim ? joinedAs(puzzle, claim.as)?.small : undefined
  const ids = puzzle.pieces.map(({ id }) => id)
  const wholes = small?.pieces.map(({ id }) => id) ?? []
  const other = <T>(value: T, all: readonly T[]): T => all[(all.indexOf(value) + 1) % all.length]
  const isLike = (a: string, b: string) =>
    [a, b].every((id) => ids.includes(id)) &&
    lookKey(puzzle, ids.indexOf(a)) === lookKey(puzzle, ids.indexOf(b))
  const otherOf = (id: string, but: readonly string[] = [], of = ids) =>
    other(
      id,
      of.filter((each) => each === id || !(but.includes(each) || isLike(each, id))),
    )
  const lie = (name: string, value: unknown): unknown => {
    if (typeof value === 'number') return value + 1
    if (value === true) return undefined
    if (Array.isArray(value)) {
      if (name === 'looks' || name === 'not')
        return value.map((look: Look) => ({ ...look, toward: look.toward.map(flip) }))
      if (name === 'as') return undefined
      if (typeof value[0] === 'number') return value.map((n: number) => n + 1)
      const of = fieldsOf(claim.kind)[name].naming === 'whole' ? wholes : ids
      const [first, ...rest] = value as readonly string[]
      if (rest.length > 0 && fieldsOf(claim.kind)[name].schema.isValidSync(rest)) return rest
      return of.includes(first) ? [otherOf(first, rest, of), ...rest] : undefined
    }
    if (typeof value !== 'string') return undefined
    if (DIRECTIONS.some((side) => side.name === value)) return flip(value as FaceName)
    const { naming } = fieldsOf(claim.kind)[name]
    if (naming === 'whole') return other(value, wholes)
    if (ids.includes(value)) return otherOf(value)
    const ways = WAYS.find((each) => each.includes(value))
    return ways && other(value, ways)
  }
  return Object.entries(claim).flatMap(([name, value]): [string, Claim][] => {
    if (name === 'kind' || FREE.has(`${claim.kind}.${name}`)) return []
    const changed = lie(name, value)
    const { schema } = fieldsOf(claim.kind)[name]
    return (changed === undefined && value !== true) || !schema.isValidSync(changed)
      ? []
      : [[name, { ...claim, [name]: changed } as Claim]]
  })
}

const flip = (name: FaceName): FaceName => opposite(directionOfName(name)).name

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
