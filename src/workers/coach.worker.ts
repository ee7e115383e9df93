/** The coach behind a typed call interface: nothing that takes time runs on the page. */
import { expose } from 'comlink'
import type { WrittenOrder } from '@/core/analysis/derivedOrders'
import { orderOfPuzzle, writeOrder } from '@/core/analysis/order'
import { learnTables, type DerivedTables } from '@/core/analysis/learnedTables'
import { catalog, learnDefinitions, puzzleById } from '@/core/catalog'
import { galleryOf, type GalleryCase } from '@/core/coach/gallery'
import { plan, rankStarts } from '@/core/coach/plan'
import { prepareFor } from '@/core/coach/technique'
import { prove, type Proof } from '@/core/coach/prove'
import { SURVEYED } from '@/core/coach/survey'
import type { Route } from '@/core/coach/route'
import { byHeart } from '@/core/coach/byHeart'
import { sheetOf, type SheetStage } from '@/core/coach/sheet'
import { shorten } from '@/core/coach/shorten'
import { writeTurns } from '@/core/notation/write'
import type { Scheme } from '@/core/puzzle/colours'
import type { Puzzle } from '@/core/puzzle/compile'
import type { PuzzleDefinition } from '@/core/puzzle/definition'
import { directionOfName } from '@/core/puzzle/directions'
import { fail, must, ok, type Result } from '@/core/result'
import { isDrawnUniformly, scramble, scrambledState } from '@/core/scramble/scramble'
import { schoolNamed, schoolsFor } from '@/core/schools'
import { fits } from '@/core/schools/fits'
import { learnSchools, type OwnSchool } from '@/core/schools/ownSchools'
import { readSchool } from '@/core/schools/readSchool'
import { variantsOf, type Variant } from '@/core/schools/school'
import type { Hand } from '@/core/notation/handCost'
import { halfTurnTable } from '@/core/search/distanceTable'
import { readState, writeState, type State } from '@/core/state'
import { judgeEntry, type Entry, type EntryVerdict } from '@/core/copy/pieces'
import { diagnose, type Diagnosis } from '@/core/stuck/diagnose'
import { remediesFor, type Remedy } from '@/core/stuck/remedies'
import { hasMoves } from '@/core/universal/moves'
import { knownPlanOf } from '@/core/universal/orbitPlan'
import { kitOf } from '@/core/universal/solve'
import { algorithmWork } from './algorithmWork'

export interface PlanRequest {
  readonly puzzleId: string
  readonly school: string
  readonly variant: Variant
  readonly state: string
  readonly scheme: Scheme
  /** The side to start with, by name. */
  readonly base?: string
  /** The piece to take next, by id. */
  readonly prefer?: string
  readonly first?: string
  readonly hand: Hand
}

export interface StartChoice {
  readonly base: string
  readonly colour: string
  readonly turns: number
  readonly right: number
}

/** One way home for the very position at hand. */
export interface ComparedWay {
  readonly school: string
  readonly schoolName: string
  readonly variant: Variant
  readonly turns: number
  readonly quarters: number
  readonly algorithms: number
  readonly looks: number
}

export interface DrawnScramble {
  readonly seed: number
  readonly turns: string
  readonly state: string
}

export interface StuckRequest {
  readonly puzzleId: string
  readonly state: string
  readonly scheme: Scheme
  /** The school on the bench, for the stages that a remedy makes due again. */
  readonly school?: string
  readonly variant: Variant
  readonly base?: string
  /** How the plan on the bench reads equal pieces. */
  readonly naming?: Route['naming']
}

export interface Stuck {
  readonly diagnosis: Diagnosis
  readonly remedies: readonly Remedy[]
}

/** Set when the search for a shorter way shall end. */
let isStopped = false

/** Milliseconds between two rests of that search. */
const REST_MS = 60

/** A school of a puzzle, to read. */
export interface SchoolSheet {
  readonly id: string
  readonly name: string
  readonly character: string
  /** How many sequences are learned: what is done in several layers counts as one. */
  readonly learned: number
  readonly stages: readonly SheetStage[]
  /** Other puzzles of the catalogue that it is for too, by name; none for what is derived of one puzzle. */
  readonly alsoFor: readonly string[]
}

export interface ProvenFile {
  /** As it was read, to be kept. */
  readonly text: string
  readonly name: string
  readonly proof: Proof
  readonly stages: readonly SheetStage[]
}

/** States from which a file is proven. */

const PROVEN = 200

/** Called with the share done, 0 to 1. */
export type Progress = (share: number) => void

function positionOf({ puzzleId, school, state }: PlanRequest) {
  const puzzle = puzzleById(puzzleId)
  if (!puzzle.ok) return puzzle
  const found = schoolNamed(puzzleId, school)
  if (!found.ok) return found
  const read = readState(puzzle.value, state)
  if (!read.ok) return read
  return ok({ puzzle: puzzle.value, school: found.value, state: read.value as State })
}

const pieceNamed = (puzzle: Puzzle, name: string | undefined) =>
  name === undefined ? undefined : puzzle.pieces.findIndex(({ id }) => id === name)

const optionsOf = (
  puzzle: Puzzle,
  { variant, scheme, base, prefer, first, hand }: PlanRequest,
) => ({
  variant,
  hand,
  scheme,
  base: base === undefined ? undefined : directionOfName(base),
  prefer: pieceNamed(puzzle, prefer),
  first: pieceNamed(puzzle, first),
})

const coach = {
  ...algorithmWork,

  /** Makes puzzles of the solver's own known to the worker. */
  learn(definitions: readonly PuzzleDefinition[]): void {
    learnDefinitions(definitions)
  },

  learnTables(definition: PuzzleDefinition, tables: DerivedTables): void {
    learnTables(definition, tables)
  },

  learnSchools(schools: readonly OwnSchool[]): void {
    learnSchools(schools)
  },

  /** Progress is called while a table is built, which some schools need once. */
  plan(request: PlanRequest, progress: Progress): Result<Route> {
    const position = positionOf(request)
    if (!position.ok) return position
    const { puzzle, school, state } = position.value
    prepareFor(puzzle, school, progress)
    return plan(puzzle, school, state, optionsOf(puzzle, request))
  },

  /**
   * Looks for a route shorter than the one given, or than a new one, for some seconds or until
   * `stopShortening`; the best one is returned. `told` hears the turns of the best so far and the share of
   * the time that is spent.
   */
  async shorten(
    request: PlanRequest,
    given: Route | undefined,
    seconds: number,
    told: (best: number, share: number) => void,
  ): Promise<Result<Route>> {
    const position = positionOf(request)
    if (!position.ok) return position
    const { puzzle, school, state } = position.value
    const isCurrent = given !== undefined && given.from === request.state
    const first = isCurrent ? ok(given) : plan(puzzle, school, state, optionsOf(puzzle, request))
    if (!first.ok) return first
    const began = performance.now()
    isStopped = false
    let next = began
    let best = first.value.turnCount
    const share = () => Math.min(1, (performance.now() - began) / (1000 * seconds))
    const route = await shorten(puzzle, school, first.value, request.scheme, {
      isOver: () => isStopped || share() >= 1,
      // A message that says stop is heard only between two tasks; often enough, but a task costs time too.
      pause: () => {
        if (performance.now() < next) return Promise.resolve()
        next = performance.now() + REST_MS
        told(best, share())
        return new Promise((resolve) => setTimeout(resolve))
      },
      onBetter: (turnCount) => (best = turnCount),
    })
    return ok(route)
  },

  stopShortening(): void {
    isStopped = true
  },

  starts(request: PlanRequest): Result<StartChoice[]> {
    const position = positionOf(request)
    if (!position.ok) return position
    const { puzzle, school, state } = position.value
    const ranked = rankStarts(puzzle, school, state, optionsOf(puzzle, request))
    return ok(
      ranked.map(({ base, colour, turns, right }) => ({ base: base.name, colour, turns, right })),
    )
  },

  gallery(request: PlanRequest, stageId: string): Result<GalleryCase[]> {
    const position = positionOf(request)
    if (!position.ok) return position
    const { puzzle, school } = position.value
    const base = directionOfName(request.base ?? 'up')
    return ok(galleryOf(puzzle, school, request.variant, stageId, base, request.hand))
  },

  /** The schools of a puzzle, with their stages and what of them is known by heart. */
  schools(puzzleId: string, progress: Progress): Result<SchoolSheet[]> {
    const puzzle = puzzleById(puzzleId)
    if (!puzzle.ok) return puzzle
    // The stages of the universal school are in an order that its tables give, where none is shipped.
    if (hasMoves(puzzle.value) && !knownPlanOf(puzzle.value)) kitOf(puzzle.value, progress)
    return ok(
      schoolsFor(puzzleId).map((school) => ({
        id: school.id,
        name: school.name,
        character: school.character,
        learned: byHeart(puzzle.value, school).length,
        stages: sheetOf(puzzle.value, school),
        alsoFor: school.isWithoutBase
          ? []
          : catalog()
              .filter((other) => other.id !== puzzleId && fits(school, other))
              .map(({ name }) => name),
      })),
    )
  },

  /** How a school does over some states. */
  survey(puzzleId: string, schoolId: string, progress: Progress): Result<Proof> {
    const puzzle = puzzleById(puzzleId)
    if (!puzzle.ok) return puzzle
    const school = schoolNamed(puzzleId, schoolId)
    if (!school.ok) return school
    prepareFor(puzzle.value, school.value, progress)
    return prove(puzzle.value, school.value, SURVEYED, progress)
  },

  /** A school file, proven on a puzzle or refused. */
  proveFile(puzzleId: string, text: string, progress: Progress): Result<ProvenFile> {
    const puzzle = puzzleById(puzzleId)
    if (!puzzle.ok) return puzzle
    let input: unknown
    try {
      input = JSON.parse(text)
    } catch (error) {
      return fail('bad-school', `This is no JSON: ${(error as Error).message}.`)
    }
    const school = readSchool(input)
    if (!school.ok) return school
    prepareFor(puzzle.value, school.value)
    const proof = prove(puzzle.value, school.value, PROVEN, progress)
    return proof.ok
      ? ok({
          text,
          name: school.value.name,
          proof: proof.value,
          stages: sheetOf(puzzle.value, school.value),
        })
      : proof
  },

  /** Every school and variant for one position, the fewest turns first. */
  async compare(request: PlanRequest, progress: Progress): Promise<Result<ComparedWay[]>> {
    const position = positionOf(request)
    if (!position.ok) return position
    const { puzzle, state } = position.value
    await this.ready(request.puzzleId, progress)
    const ways: ComparedWay[] = []
    let trouble: Result<ComparedWay[]> | undefined
    for (const school of schoolsFor(request.puzzleId))
      for (const variant of variantsOf(school)) {
        prepareFor(puzzle, school, progress)
        const route = plan(puzzle, school, state, {
          variant,
          scheme: request.scheme,
          hand: request.hand,
        })
        // One school may have no way from here where another has.
        if (!route.ok) {
          trouble = route
          continue
        }
        ways.push({
          school: school.id,
          schoolName: school.name,
          variant,
          turns: route.value.turnCount,
          quarters: route.value.quarterCount,
          algorithms: route.value.algorithms.length,
          looks: route.value.looks,
        })
      }
    if (ways.length === 0 && trouble) return trouble
    return ok(ways.sort((a, b) => a.turns - b.turns))
  },

  /** Builds the table of all states, where the puzzle has one, so that later calls are quick. */
  async ready(puzzleId: string, progress: Progress): Promise<Result<true>> {
    const puzzle = puzzleById(puzzleId)
    if (!puzzle.ok) return puzzle
    if (isDrawnUniformly(puzzle.value)) halfTurnTable(puzzle.value, progress)
    progress(1)
    return ok(true)
  },

  /** What an entry made piece by piece is, once it is whole. */
  judge(puzzleId: string, entry: Entry): Result<EntryVerdict> {
    const puzzle = puzzleById(puzzleId)
    return puzzle.ok ? ok(judgeEntry(puzzle.value, entry)) : puzzle
  },

  /** What a position on the bench is, and the ways out of it. */
  stuck(request: StuckRequest, progress: Progress): Result<Stuck> {
    const puzzle = puzzleById(request.puzzleId)
    if (!puzzle.ok) return puzzle
    const state = readState(puzzle.value, request.state)
    if (!state.ok) return state
    if (hasMoves(puzzle.value)) kitOf(puzzle.value, progress)
    const diagnosis = diagnose(puzzle.value, state.value)
    const school =
      request.school === undefined ? undefined : schoolNamed(request.puzzleId, request.school)
    const at = school?.ok
      ? {
          school: school.value,
          variant: request.variant,
          base: request.base ?? 'up',
          naming: request.naming,
        }
      : undefined
    return ok({ diagnosis, remedies: remediesFor(puzzle.value, diagnosis, at) })
  },

  order(puzzleId: string, progress: Progress): Result<WrittenOrder> {
    const puzzle = puzzleById(puzzleId)
    if (!puzzle.ok) return puzzle
    return ok(writeOrder(orderOfPuzzle(puzzle.value, progress)))
  },

  async scramble(
    puzzleId: string,
    seed: number,
    progress: Progress,
  ): Promise<Result<DrawnScramble>> {
    const puzzle = puzzleById(puzzleId)
    if (!puzzle.ok) return puzzle
    if (!Number.isSafeInteger(seed) || seed < 0)
      return fail('bad-seed', 'A seed is a whole number, 0 or more.', { field: 'seed' })
    must(await this.ready(puzzleId, progress))
    const drawn = scramble(puzzle.value, seed)
    return ok({
      seed,
      turns: writeTurns(drawn.turns),
      state: writeState(scrambledState(puzzle.value, drawn)),
    })
  },
}

export type Coach = typeof coach

expose(coach)
