/** What is said of a position is judged, on every puzzle: and a lie about it is found out. */
import { describe, expect, it } from 'vitest'
import { refusalOf } from '../algorithms/refusal'
import { unseenChanges } from '../analysis/lookAlikes'
import { CATALOG_IDS, puzzleById } from '../catalog'
import type { ClaimKind, VerdictsKind } from '../claims/claim'
import { evidenceOf } from '../claims/evidence'
import { Judged } from '../claims/judged.testing'
import { VERDICTS } from '../claims/kinds'
import type { Puzzle } from '../puzzle/compile'
import { seededRandom } from '../random'
import { must } from '../result'
import { scramble, scrambledState } from '../scramble/scramble'
import { IDENTITY } from '../rotation'
import { rotateState, start, turnFreely, type State } from '../state'
import { diagnose } from './diagnose'
import { exchanged, FAULTS, withFault, type Fault } from './faults'

/** Scrambles, a turn off, pieces exchanged and turned by hand, equal ones traded: in several holds. */
function positions(puzzle: Puzzle): State[] {
  const random = seededRandom(11)
  const some = <T>(all: readonly T[], n: number) =>
    Array.from({ length: Math.min(n, all.length) }, () => all[random.below(all.length)])
  const home = start(puzzle)
  const layers = puzzle.turns.filter(({ whole }) => !whole)
  const scrambled = scrambledState(puzzle, scramble(puzzle, 3))
  const faulty = [home, scrambled].flatMap((state) =>
    FAULTS.flatMap((fault) => withFault(puzzle, state, fault, random) ?? []),
  )
  // Pieces that never leave their places, turned there two at a time: where it shows, and where it does not.
  const spun = ['turned', 'turned'].reduce<State | undefined>(
    (state) => state && withFault(puzzle, state, 'turned', random),
    home,
  )
  const traded = some(unseenChanges(puzzle), 2).flatMap(({ make }) => {
    const state = make(home)
    return [withFault(puzzle, state, 'exchanged', random) ?? state]
  })
  return [
    home,
    scrambled,
    ...some(layers, 2).map((turn) => turnFreely(puzzle, home, turn, new Uint8Array(home.length))),
    ...faulty,
    ...traded,
    ...(spun ? [spun] : []),
  ].map((state, i) => rotateState(state, puzzle.holds[(5 * i) % puzzle.holds.length]))
}

/** So many faults of one sort after another. */
const often = (puzzle: Puzzle, fault: Fault, count: number, from = start(puzzle)): State =>
  Array.from({ length: count }).reduce<State>(
    (state, _, i) => withFault(puzzle, state, fault, seededRandom(i + 1)) ?? state,
    from,
  )

describe('what is said of a position', () => {
  const judged = new Judged(3)

  const expectTrue = (puzzle: Puzzle, state: State) => {
    const diagnosis = diagnose(puzzle, state)
    const { said, hold, told } = diagnosis
    expect(said.length).toBeGreaterThan(0)
    const evidence = evidenceOf(puzzle, told, hold)
    expect(judged.faultsOf(puzzle, said, evidence)).toEqual([])
    // The same as what somebody wishes that a sequence made of the finished puzzle.
    if (hold === IDENTITY)
      expect(judged.faultsOf(puzzle, refusalOf(puzzle, diagnosis) ?? [], evidence)).toEqual([])
  }

  it.each(CATALOG_IDS)('is true, whatever turns and hands have done to %s', (id) => {
    const puzzle = must(puzzleById(id))
    for (const state of positions(puzzle)) expectTrue(puzzle, state)
  })

  it('is true of many faults together, and of what only a small group forbids', () => {
    const twin = must(puzzleById('twin-3'))
    const at = (name: string) => twin.pieces.findIndex((piece) => piece.id === name)
    for (const other of ['1.UBR', '1.DFR'])
      expectTrue(twin, exchanged(twin, start(twin), at('1.UFR'), at(other)))
    const tower = must(puzzleById('shift-3x3x5'))
    expectTrue(tower, often(tower, 'kinds mixed', 3))
    const prism = must(puzzleById('prism-6'))
    for (const count of [2, 3]) expectTrue(prism, often(prism, 'turned', count))
  })

  it('has every kind of claim that there is for it, and no lie goes unfound', () => {
    const kinds = Object.keys(VERDICTS) as VerdictsKind[]
    expect(kinds.filter((kind) => !judged.kinds.has(kind) && !RARE.has(kind))).toEqual([])
    expect(judged.unfound).toEqual([])
  })
})

/** Of puzzles and positions that are made for it, in other tests. */
const RARE = new Set<ClaimKind>([
  'noSuchShape',
  'turnThis',
  'moreByHand',
  'countedOtherwise',
  'notProved',
])
