/**
 * A bench as it stands after so many events, so that it can be taken up without replaying them. It knows
 * everything but the turns before it: those can be counted, and not be taken back.
 */
import type { JoinedTurns } from '../notation/rewrite'
import type { Puzzle } from '../puzzle/compile'
import { fail, ok, type Result } from '../result'
import { isSolved, readState, writeState } from '../state'
import { turnsMade, type Bench, type Deviation } from './bench'
import { packed, unpacked, type StoredRoute } from './packed'
import { trailOf } from './standing'

export interface Snapshot {
  /** After how many events. */
  readonly events: number
  /** As `writeState` writes it. */
  readonly state: string
  readonly turns: number
  /** The latest turns as they are counted, the latest first: name, and position in the history. */
  readonly joined: readonly (readonly [string, number])[]
  readonly turnCount: number
  readonly quarterCount: number
  readonly route?: StoredRoute
  readonly done: number
  readonly step: number
  /** Earlier programs did not count on. */
  readonly stepsBefore?: number
  readonly deviation?: Deviation
  readonly hint: number
  readonly slips: number
}

/** A turn that is made next may join one of these, or cancel it, and then the next the one before. */
const MOST_JOINED = 2000

/** @param events how many have led to the bench */
export function snapshotOf(bench: Bench, events: number): Snapshot {
  const joined: [string, number][] = []
  for (let each = bench.joined; each && joined.length < MOST_JOINED; each = each.before)
    joined.push([each.turn.name, each.at])
  const { trail, done, step, stepsBefore, deviation, hint, slips } = bench
  return {
    events,
    state: writeState(bench.state),
    turns: turnsMade(bench),
    joined,
    turnCount: bench.joined?.turnCount ?? 0,
    quarterCount: bench.joined?.quarterCount ?? 0,
    ...(trail ? { route: packed(trail.route) } : {}),
    done,
    step,
    stepsBefore,
    ...(deviation ? { deviation } : {}),
    hint,
    slips,
  }
}

/** The bench that a snapshot was made of. A failure if the puzzle does not have what it speaks of. */
export function benchFrom(puzzle: Puzzle, snapshot: Snapshot): Result<Bench> {
  const state = readState(puzzle, snapshot.state)
  if (!state.ok) return state
  try {
    const { turns, route, done, step, stepsBefore = 0, deviation, hint, slips } = snapshot
    return ok({
      puzzle,
      state: state.value,
      before: turns,
      joined: joinedFrom(puzzle, snapshot),
      ...(route ? { trail: trailOf(puzzle, unpacked(route)) } : {}),
      done,
      step,
      stepsBefore,
      ...(deviation ? { deviation } : {}),
      hint,
      slips,
      solved: isSolved(puzzle, state.value),
    })
  } catch (error) {
    return fail('bad-snapshot', error instanceof Error ? error.message : String(error))
  }
}

function joinedFrom(
  puzzle: Puzzle,
  { joined, turnCount, quarterCount }: Snapshot,
): JoinedTurns | undefined {
  const turns = joined.map(([name, at]) => {
    const turn = puzzle.turnByName.get(name)
    if (!turn) throw new Error(`the snapshot names a turn that does not exist: ${name}`)
    return { turn, at }
  })
  // Counted downwards from what all of them are together.
  const counts = [{ turnCount, quarterCount }]
  for (const { turn } of turns) {
    const above = counts[counts.length - 1]
    counts.push({
      turnCount: above.turnCount - (turn.whole ? 0 : 1),
      quarterCount: above.quarterCount - (turn.whole ? 0 : turn.amount === 2 ? 2 : 1),
    })
  }
  return turns.reduceRight<JoinedTurns | undefined>(
    (before, each, i) => ({ ...each, before, ...counts[i] }),
    undefined,
  )
}
