/** Set-up turns, sums, shapes, blocks that are glued. */
import { baseCyclesOf } from '../../universal/baseCycles'
import { orbitsWith } from '../../universal/orbitsAtWork'
import { outOf, sumsOff } from '../../universal/unfinished'
import type { OrbitsKind } from '../claim'
import { isSolved, sameState, start, turnFreely } from '../../state'
import { indices, isHome } from '../evidence'
import type { Judges } from './judge'

export const OF_ORBITS: Judges<OrbitsKind> = {
  setUp({ count }, { turns, isOwing }) {
    const of = (role: string) => turns.filter((each) => each.role === role).length
    return of('setup') === count && (isOwing || of('undo') === count)
  },
  leftStanding: ({ turns: said }, { turns, isOwing }) =>
    isOwing &&
    said.length > 0 &&
    said.length >=
      turns.filter(({ role }) => role === 'setup').length -
        turns.filter(({ role }) => role === 'undo').length,
  fewestTried: () => true,
  noWayOn: () => true,
  // That no fewer do is the matter of the search, which has tests of its own.
  least({ turns: count, quarters }, { puzzle, turns, at }) {
    const amounts = turns.map(({ name }) => puzzle.turnByName.get(name)?.amount ?? 0)
    return (
      count === turns.length &&
      quarters === amounts.reduce((sum, amount) => sum + (amount === 2 ? 2 : 1), 0) &&
      isSolved(puzzle, at(turns.length).state)
    )
  },
  distance: ({ turns: count }, { turns }) => count === turns.length,
  firstTurn: ({ turn }, { turns }) => turns[0]?.name === turn,
  solved: ({}, { puzzle, at, turns }) => isSolved(puzzle, at(turns.length).state),
  foundTogether: ({ pieces, turns: count }, { puzzle, turns, at, held }) =>
    count === turns.length - held &&
    indices(puzzle, pieces).every(
      (p) => !isHome(puzzle, at(held), p) && isHome(puzzle, at(turns.length), p),
    ),
  homeNow: ({ pieces }, { puzzle, now }) =>
    pieces.length > 0 && indices(puzzle, pieces).every((p) => isHome(puzzle, now, p)),
  canComeTogether: ({ count }, { glowing }) => glowing.length === count,
  foundHere: () => true,
  meets({ here, there, one }, { puzzle, turns }) {
    const made = (names: readonly string[]) =>
      names.reduce((state, name) => {
        const turn = puzzle.turnByName.get(name)
        return turn ? turnFreely(puzzle, state, turn, new Uint8Array(state.length)) : state
      }, start(puzzle))
    return (
      turns.some(({ name }) => name === here) &&
      sameState(made([here, there]), made(one === undefined ? [] : [one]))
    )
  },
  allTogether({ of, isNeverThree }, { puzzle }) {
    const orbits = orbitsWith(puzzle, indices(puzzle, of))
    return isNeverThree !== true || orbits.every((o) => !baseCyclesOf(puzzle).has(o))
  },
  sumsOff(claim, { puzzle, now }) {
    const off = sumsOff(puzzle, now)
    const same = (a: readonly string[], b: readonly string[]) =>
      [...a].sort().join() === [...b].sort().join()
    return (
      same(off.odd, claim.odd) &&
      same(off.twisted, claim.twisted) &&
      off.turned === (claim.turned ?? 0) &&
      same(off.turnedKinds, claim.turnedKinds ?? [])
    )
  },
  ownWay: ({ of }) => of.length > 0,
  oddFirst: () => true,
  restDepends: () => true,
  sumsFirst: () => true,
  shapeFirst: () => true,
  standOut: ({ count }, evidence) => outOf(evidence.puzzle, evidence.now).length === count,
  intoShape: ({ pieces }, { puzzle, at, held, turns }) => {
    const [before, after] = [outOf(puzzle, at(held)), outOf(puzzle, at(turns.length))]
    return indices(puzzle, pieces).every((p) => before.includes(p) && !after.includes(p))
  },
  inShape: ({}, { puzzle, at, turns }) => outOf(puzzle, at(turns.length)).length === 0,
  blocksFirst: ({}, { puzzle }) => puzzle.definition.glue.length > 0,
  blocksBack: ({}, { puzzle }) => puzzle.definition.glue.length > 0,
  blocksPlaced: ({}, { puzzle, at, turns }) => {
    const end = at(turns.length)
    const out = outOf(puzzle, end)
    return puzzle.pieces.every(({ cells }, p) => cells.length === 1 || !out.includes(p))
  },
}
