/** What the room of algorithms asks of the worker: shelves, searches, repairs. Turns cross as their names. */
import { adaptingOf, cleaned, type Adaption } from '@/core/algorithms/adapt'
import { passageOf, type Passage } from '@/core/scramble/passage'
import {
  distinct,
  repair,
  REPAIR_LIMITS,
  type Edit,
  type Wish as Kept,
} from '@/core/algorithms/repair'
import { derivedShelf, knownFrom, type Known, type Shelved } from '@/core/algorithms/shelf'
import { waysFor, type Way } from '@/core/algorithms/ways'
import { completed, readWish } from '@/core/algorithms/wish'
import { kinOf } from '@/core/analysis/kin'
import { puzzleById } from '@/core/catalog'
import type { Hand } from '@/core/notation/handCost'
import { readTurns } from '@/core/notation/read'
import { writeTurns } from '@/core/notation/write'
import type { Scheme } from '@/core/puzzle/colours'
import { compile, type Puzzle, type Turn } from '@/core/puzzle/compile'
import { ok, type Result } from '@/core/result'
import { schoolsFor } from '@/core/schools'
import { hasMoves } from '@/core/universal/moves'
import { knownPlanOf } from '@/core/universal/orbitPlan'
import { kitOf } from '@/core/universal/solve'

/** Called with the share done, 0 to 1. */
type Progress = (share: number) => void

export interface FindRequest {
  readonly puzzleId: string
  /** As `writeWish` writes it. */
  readonly wish: string
  readonly isExact: boolean
  readonly layers?: readonly string[]
  readonly most: number
  readonly seconds: number
  readonly hand: Hand
  readonly scheme: Scheme
}

export interface FoundWay extends Omit<Way, 'turns'> {
  /** Canonical. */
  readonly turns: string
}

export interface Finding {
  readonly ways: readonly FoundWay[]
  /** Up to how many turns there is none. */
  readonly none: number
  /** Whether the time was over, or it was stopped. */
  readonly isOver: boolean
}

export interface RepairRequest {
  readonly puzzleId: string
  /** What it may have been, canonical: several where directions were missing. */
  readonly heard: readonly string[]
  readonly wish: Kept
  readonly edits: number
}

export interface Mended {
  /** How many edits; undefined if there is no reading up to so many. */
  readonly edits?: number
  readonly readings: readonly { readonly turns: string; readonly edits: readonly Edit[] }[]
}

export interface Adapted {
  /** Pieces that are disturbed here besides, by index. */
  readonly besides: readonly number[]
  readonly ways: readonly {
    readonly how: Adaption['how']
    /** Times it is repeated, or turns that are added, canonical. */
    readonly by: string
    readonly turns: string
    readonly turnCount: number
    readonly cost: number
  }[]
}

/** Scrambles from which it is tried whether turns are blocked. */
const TRIED = 200

/** Milliseconds in which ways that are built of parts are looked for. */
const BUILT_MS = 15_000

/** Milliseconds between two rests of a search. */
const REST_MS = 60

/** Readings that are given. */
const MOST_READINGS = 60

/** Searches are numbered as they begin; those up to `stopped` shall end. */
let latest = 0
let stopped = 0
/** Set while a search shall wait. */
let goesOn: Promise<void> | undefined
let release: () => void = () => undefined

const written = (way: Way): FoundWay => ({ ...way, turns: writeTurns(way.turns) })

/** Rests now and then until the time is over; waiting does not count. */
function clock(seconds: number, told: Progress) {
  const own = ++latest
  let spent = 0
  let rested = performance.now()
  let isOver = false
  const rest = async (): Promise<boolean> => {
    const now = performance.now()
    if (now - rested < REST_MS) return isOver
    spent += now - rested
    told(Math.min(1, spent / (1000 * seconds)))
    await new Promise((resolve) => setTimeout(resolve))
    await goesOn
    rested = performance.now()
    isOver = stopped >= own || spent >= 1000 * seconds
    return isOver
  }
  return { rest, wasOver: () => isOver }
}

function prepared(puzzle: Puzzle, progress: Progress): void {
  if (hasMoves(puzzle) && !knownPlanOf(puzzle)) kitOf(puzzle, progress)
}

export const algorithmWork = {
  /** Every sequence of every school of a puzzle. */
  shelf(puzzleId: string, hand: Hand, progress: Progress): Result<Shelved[]> {
    const puzzle = puzzleById(puzzleId)
    if (!puzzle.ok) return puzzle
    prepared(puzzle.value, progress)
    return ok(derivedShelf(puzzle.value, schoolsFor(puzzleId), hand, progress))
  },

  /** What of a puzzle's shelf is known from another's. */
  known(puzzleId: string, otherId: string, progress: Progress): Result<Known[]> {
    const here = algorithmWork.shelf(puzzleId, 'right', (share) => progress(share / 2))
    if (!here.ok) return here
    const there = algorithmWork.shelf(otherId, 'right', (share) => progress((1 + share) / 2))
    if (!there.ok) return there
    const [puzzle, other] = [puzzleById(puzzleId), puzzleById(otherId)]
    if (!puzzle.ok) return puzzle
    if (!other.ok) return other
    const texts = (shelf: readonly Shelved[]) => shelf.map(({ text }) => text)
    return ok(knownFrom(puzzle.value, texts(here.value), other.value, texts(there.value)))
  },

  /** Where turns can be blocked: from how many scrambles a sequence can be made. */
  passage(puzzleId: string, turns: string): Result<Passage | undefined> {
    const read = turnsOf(puzzleId, turns)
    return read.ok ? ok(passageOf(read.value.puzzle, read.value.turns, TRIED)) : read
  },

  /**
   * Ways to what is wished, for some seconds or until `stopFinding`. `first` hears of ways as they are found, each with
   * fewer turns, before it is known whether any has fewer still; `told` the share of the time that is spent.
   */
  async find(
    { puzzleId, wish, isExact, layers, most, seconds, hand, scheme }: FindRequest,
    first: (way: FoundWay) => void,
    told: Progress,
  ): Promise<Result<Finding>> {
    const puzzle = puzzleById(puzzleId)
    if (!puzzle.ok) return puzzle
    const read = readWish(puzzle.value, wish)
    if (!read.ok) return read
    const whole = completed(puzzle.value, read.value)
    if (!whole.ok) return whole
    goesOn = undefined
    prepared(puzzle.value, () => told(0))
    const { rest, wasOver } = clock(seconds, told)
    let none = 0
    let built: number | undefined
    const ways = await waysFor(puzzle.value, whole.value, {
      ...(layers ? { layers } : {}),
      isExact,
      most,
      hand,
      scheme,
      rest,
      onNone: (turns) => (none = turns),
      onFirst: (way) => first(written(way)),
      isBuilt: () => (built ??= performance.now() + BUILT_MS) < performance.now(),
    })
    return ways.ok ? ok({ ways: ways.value.map(written), none, isOver: wasOver() }) : ways
  },

  stopFinding(): void {
    stopped = latest
    release()
  },

  /** A search waits with all that it has, until it goes on. */
  waitFinding(waits: boolean): void {
    release()
    goesOn = waits
      ? new Promise((resolve) => {
          release = () => {
            goesOn = undefined
            resolve()
          }
        })
      : undefined
  },

  /** All readings with the fewest edits that do what is wished; ended by ending the worker. */
  repair({ puzzleId, heard, wish, edits }: RepairRequest, told: Progress): Result<Mended> {
    const puzzle = puzzleById(puzzleId)
    if (!puzzle.ok) return puzzle
    let best: Mended = { readings: [] }
    let most = Math.min(edits, REPAIR_LIMITS.edits)
    for (const [i, text] of heard.entries()) {
      const read = readTurns(puzzle.value, text)
      if (!read.ok) return read
      const found = repair(puzzle.value, read.value, wish, most, (share) => {
        told((i + share) / heard.length)
        return true
      })
      if (found.edits === undefined) continue
      const readings = distinct(puzzle.value, found.readings).map(({ turns, edits: made }) => ({
        turns: writeTurns(turns),
        edits: made,
      }))
      const before = best.edits === found.edits ? best.readings : []
      const known = new Set(before.map(({ turns }) => turns))
      best = {
        edits: found.edits,
        readings: [...before, ...readings.filter(({ turns }) => !known.has(turns))],
      }
      // Others are worth having with no more edits than these.
      most = found.edits
    }
    return ok({ ...best, readings: best.readings.slice(0, MOST_READINGS) })
  },

  /** A sequence of the kin on a puzzle, and cleaner ways; undefined where a puzzle has no kin. */
  async adapt(puzzleId: string, turns: string, hand: Hand): Promise<Result<Adapted | undefined>> {
    const read = turnsOf(puzzleId, turns)
    if (!read.ok) return read
    const { puzzle } = read.value
    const definition = kinOf(puzzle.definition)
    if (!definition) return ok(undefined)
    const kin = compile(definition)
    const there: Turn[] = []
    for (const { name } of read.value.turns) {
      const turn = kin.turnByName.get(name)
      // Inner parts of circles have layers that their kin has not.
      if (!turn) return ok(undefined)
      there.push(turn)
    }
    const adapting = adaptingOf(puzzle, kin, there)
    if (!adapting.ok) return adapting
    const ways = await cleaned(puzzle, read.value.turns, adapting.value, hand)
    return ok({
      besides: adapting.value.besides,
      ways: ways.map(({ adaption, turns: all, turnCount, cost }) => ({
        how: adaption.how,
        by:
          adaption.how === 'repeated'
            ? `${adaption.times}`
            : 'turns' in adaption
              ? writeTurns(adaption.turns)
              : '',
        turns: writeTurns(all),
        turnCount,
        cost,
      })),
    })
  },
}

function turnsOf(
  puzzleId: string,
  text: string,
): Result<{ readonly puzzle: Puzzle; readonly turns: readonly Turn[] }> {
  const puzzle = puzzleById(puzzleId)
  if (!puzzle.ok) return puzzle
  const turns = readTurns(puzzle.value, text)
  return turns.ok ? ok({ puzzle: puzzle.value, turns: turns.value }) : turns
}
