/** Claims with one thing in them changed, for tests: each must be found out. */
import { PATTERNS } from '../analysis/caseRead'
import { joinedAs } from '../analysis/joined'
import type { Look } from '../analysis/who'
import type { Puzzle } from '../puzzle/compile'
import { directionOfName, DIRECTIONS, opposite, type FaceName } from '../puzzle/directions'
import { fieldsOf, type Claim } from './claim'
import { lookKey } from './judges/joins'

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
  'arrives.from',
  'reaches.piece',
  'reachesOutside.piece',
  'waysToLie.piece',
  'passes.tried',
  // How one of an exchange is turned: which of its ways in counts as none is no matter of what is seen.
  'exchangeAny.degrees',
  'exchangeAny.isClockwise',
  'alsoExchanged.degrees',
  'alsoExchanged.isClockwise',
  'exchangeThese.degrees',
  'exchangeThese.isClockwise',
  // Of several that are wanting any may be asked first.
  'alsoTurned.of',
  'alsoTurned.isClockwise',
  'noTurnsDo.isJust',
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
  ['trade', 'turn'],
  ['exchange', 'putBack'],
]

/** The same claim with one thing in it changed, for each that the states decide. */
export function liesOf(puzzle: Puzzle, claim: Claim): [string, Claim][] {
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
