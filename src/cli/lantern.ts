/** The command line: the core, scriptable. Results on standard output, errors on standard error. */
import { readFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { describe } from '../core/analysis/describe'
import { effectOf, stateMade } from '../core/analysis/effect'
import { doingOf } from '../core/algorithms/does'
import { MOST_TURNS } from '../core/algorithms/find'
import { passageOf, passageWords, stopWords } from '../core/algorithms/passage'
import { structureOf } from '../core/algorithms/structure'
import { waysFor, type Way } from '../core/algorithms/ways'
import { completed } from '../core/algorithms/wish'
import { readWishFile } from '../core/algorithms/wishFile'
import { readEnds, readKeep } from '../core/algorithms/keep'
import { distinct, repair, REPAIR_LIMITS } from '../core/algorithms/repair'
import { orderOfPuzzle, writeOrder } from '../core/analysis/order'
import { CATALOG_NAMES, puzzleById } from '../core/catalog'
import { plan } from '../core/coach/plan'
import { turnsOfStage, type Route } from '../core/coach/route'
import { DIALECT_IDS, readIn, type DialectId } from '../core/notation/dialect'
import { CANONICAL } from '../core/notation/letters'
import { readTurns } from '../core/notation/read'
import { SMALL_MEANINGS, withSmallLetters, type SmallMeaning } from '../core/notation/smallLetters'
import { readLoosely } from '../core/notation/spoken/spoken'
import { words } from '../core/notation/spoken/words'
import { inverseOf, mirrorImage, rehold } from '../core/notation/rewrite'
import { writeAlgorithm, writeTurns } from '../core/notation/write'
import { compile, type Puzzle, type Turn } from '../core/puzzle/compile'
import { readDefinition } from '../core/puzzle/readDefinition'
import { scramble, scrambledState } from '../core/scramble/scramble'
import { schoolAmong, schoolsFor, schoolsOf } from '../core/schools'
import type { School } from '../core/schools/school'
import { diagnose } from '../core/stuck/diagnose'
import { remediesFor } from '../core/stuck/remedies'
import { readStateFile } from '../core/stuck/stateFile'
import { whyNotServed } from '../core/universal/solve'
import { plural } from '../core/phrases'
import { slotName } from '../core/analysis/anatomy'
import { isSolved, start, turnAll, writeState, type State } from '../core/state'
import { byHeart, plainAim } from '../core/coach/byHeart'
import { prove } from '../core/coach/prove'
import { readSchool } from '../core/schools/readSchool'
import type { Register } from '../core/words/lexicon'
import { cardsOf, writeCards } from './cards'
import { Failure, told, Usage } from './failure'

const USAGE = `usage: lantern <command> [options] [--json | --jsonl]
  puzzles
  describe <puzzle>
  scramble <puzzle> [--seed N] [--count K]
  apply <puzzle> "<turns>"
  solve <puzzle> [--school S] (--scramble "<turns>" | --random K --seed N)
         [--steps [--register full|brief]]
  schools <puzzle>
  school FILE --puzzle P [--states N]
  effect <puzzle> "<algorithm>"
  find <puzzle> --same "<algorithm>" or --effect FILE [--layers "R U F"] [--most N] [--seconds S]
  repair <puzzle> "<heard>" [--keep K] [--from "<turns>"] [--ends E] [--edits N] [--dialect D]
  read "<text>" --dialect D [--write D] [--puzzle P] [--small inner|wide]
  check <puzzle> --state FILE
  order <puzzle>
<puzzle> is a shipped id or the path of a puzzle file; with --locked "front,back" a circle cube
has these faces locked. K: piece ids with commas, layer:D or all-but:U; E: home, faced:U or placed:U.`

const OPTIONS = {
  json: { type: 'boolean' },
  jsonl: { type: 'boolean' },
  help: { type: 'boolean' },
  seed: { type: 'string' },
  count: { type: 'string' },
  school: { type: 'string' },
  scramble: { type: 'string' },
  random: { type: 'string' },
  locked: { type: 'string' },
  state: { type: 'string' },
  steps: { type: 'boolean' },
  register: { type: 'string' },
  puzzle: { type: 'string' },
  states: { type: 'string' },
  keep: { type: 'string' },
  from: { type: 'string' },
  ends: { type: 'string' },
  edits: { type: 'string' },
  dialect: { type: 'string' },
  write: { type: 'string' },
  same: { type: 'string' },
  effect: { type: 'string' },
  layers: { type: 'string' },
  most: { type: 'string' },
  seconds: { type: 'string' },
  small: { type: 'string' },
} as const

type Values = ReturnType<typeof parse>['values']

function parse(args: string[]) {
  try {
    return parseArgs({ args, options: OPTIONS, allowPositionals: true })
  } catch (error) {
    throw new Usage((error as Error).message)
  }
}

async function main(args: string[]): Promise<void> {
  const { values, positionals } = parse(args)
  const [name, ...rest] = positionals
  if (values.help || name === undefined) {
    if (values.help) {
      process.stdout.write(`${USAGE}\n`)
      return
    }
    throw new Usage('a command is missing')
  }
  const command = Object.hasOwn(COMMANDS, name) ? COMMANDS[name] : undefined
  if (!command) throw new Usage(`there is no command ${name}`)
  await command(rest, values)
}

/** More are asked for one after another. */
const MOST_SCRAMBLES = 100_000

type Command = (rest: string[], values: Values) => void | Promise<void>

const COMMANDS: Record<string, Command> = {
  puzzles(rest, values) {
    expectCount(rest, 0)
    const list = CATALOG_NAMES.map(({ id, name }) => ({
      id,
      name,
      schools: schoolsFor(id).map((school) => ({ id: school.id, name: school.name })),
    }))
    printAll(
      values,
      list,
      ({ id, name, schools }) =>
        `${id}  ${name}  ${schools.map((school) => school.id).join(', ') || 'no school yet'}`,
    )
  },

  describe(rest, values) {
    const [puzzle] = puzzleAnd(rest, 0, values)
    const description = describe(puzzle)
    print(values, description, () =>
      [
        `${description.id}: ${description.name}`,
        ...description.kinds.map(({ name, count }) => `  ${count} x ${name}`),
        `  turns: ${puzzle.turns.map((turn) => turn.name).join(' ')}`,
      ].join('\n'),
    )
  },

  scramble(rest, values) {
    const [puzzle] = puzzleAnd(rest, 0, values)
    const first = wholeNumber(values.seed, 'seed') ?? Date.now() % 1_000_000_000
    const count = wholeNumber(values.count, 'count') ?? 1
    if (count > MOST_SCRAMBLES) throw new Usage(`--count takes at most ${MOST_SCRAMBLES}`)
    const list = Array.from({ length: count }, (_, i) => {
      const { seed, turns, phases } = scramble(puzzle, first + i)
      return { seed, turns: writeTurns(turns), phases: phases.map((phase) => writeTurns(phase)) }
    })
    printAll(values, list, ({ turns }) => turns)
  },

  apply(rest, values) {
    const [puzzle, text] = puzzleAnd(rest, 1, values)
    const state = stateAfter(puzzle, text)
    const result = { state: writeState(state), solved: isSolved(puzzle, state) }
    print(values, result, () => `${result.state}${result.solved ? '  solved' : ''}`)
  },

  schools(rest, values) {
    const [puzzle] = puzzleAnd(rest, 0, values)
    whyNotServed(puzzle)
    const list = schoolsOf(puzzle).map((school) => ({
      id: school.id,
      name: school.name,
      stages: school.stages.map((stage) => ({
        id: stage.id,
        name: stage.name,
        aim: plainAim(puzzle, stage),
      })),
      algorithms: byHeart(puzzle, school).length,
    }))
    print(values, list, () =>
      list
        .flatMap(({ id, name, stages, algorithms }) => [
          `${id}: ${name}, ${algorithms} by heart`,
          ...stages.map((stage) => `  ${stage.name}: ${stage.aim}`),
        ])
        .join('\n'),
    )
  },

  school(rest, values) {
    expectCount(rest, 1)
    if (values.puzzle === undefined) throw new Usage('school needs --puzzle P')
    const puzzle = loadPuzzle(values.puzzle)
    const school = told(readSchool(readJsonFile(rest[0])))
    whyNotServed(puzzle)
    const count = wholeNumber(values.states, 'states') ?? PROOF_STATES
    if (count === 0) throw new Usage('--states must be 1 at least')
    const proof = told(prove(puzzle, school, count))
    const known = byHeart(puzzle, school).length
    print(
      values,
      { puzzle: puzzle.definition.id, school: school.id, ...proof, algorithms: known },
      () =>
        `${school.name} leads home from all of ${proof.states} states: ${proof.meanTurns} turns on average, ${proof.mostTurns} at most, ${known} sequences by heart.`,
    )
  },

  effect(rest, values) {
    const [puzzle, text] = puzzleAnd(rest, 1, values)
    const turns = told(readTurns(puzzle, text))
    const mirrored = mirrorImage(puzzle, turns)
    const doing = told(doingOf(puzzle, turns))
    const structure = structureOf(puzzle, turns)
    const id = (p: number) => puzzle.pieces[p].id
    const isSeen = (p: number, to: number) =>
      puzzle.look[24 * p + doing.state[p]] !== puzzle.look[24 * to]
    const passage = passageOf(puzzle, turns, TRIED)
    const effect = {
      ...told(effectOf(puzzle, turns)),
      quarterCount: doing.quarterCount,
      handCost: Math.round(doing.ease.right * 10) / 10,
      sentences: doing.sentences,
      arrivals: doing.hops.map(({ from, to }) => ({
        piece: id(from),
        to: id(to),
        rotation: doing.state[from],
        seen: isSeen(from, to),
      })),
      turnedInPlace: doing.turned.map((p) => ({
        piece: id(p),
        rotation: doing.state[p],
        seen: isSeen(p, p),
      })),
      borrowed: doing.borrowed.map(id),
      orders: doing.orders,
      structure: structure ? writeAlgorithm(structure) : null,
      passage: passage
        ? {
            ...passage,
            stops: passage.stops.map((stop) => ({
              ...stop,
              state: writeState(stop.state),
              missing: stop.missing.map(id),
              cut: stop.cut.map(id),
            })),
          }
        : null,
      inverse: writeTurns(inverseOf(puzzle, turns)),
      mirror: mirrored ? writeTurns(mirrored) : null,
      holds: puzzle.holds.map((hold) => writeTurns(rehold(puzzle, turns, hold))),
    }
    print(values, effect, () =>
      [
        `inverse ${effect.inverse}`,
        `mirror  ${effect.mirror ?? 'none: this puzzle is not its own mirror image'}`,
        ...(effect.structure ? [`built   ${effect.structure}`] : []),
        ...effect.cycles.map(({ places }) => `(${places.join(' ')})`),
        ...effect.twisted.map(
          ({ place, order }) => `${place} turned in place, right after ${order}`,
        ),
        ...effect.sentences,
        ...(passage
          ? [
              passageWords(passage),
              ...passage.stops.slice(0, 5).map((stop) => stopWords(puzzle, turns, stop)),
            ]
          : []),
        `${effect.untouched} pieces untouched, back after ${effect.order}`,
      ].join('\n'),
    )
  },

  async find(rest, values) {
    const [puzzle] = puzzleAnd(rest, 0, values)
    if ((values.same === undefined) === (values.effect === undefined))
      throw new Usage('find needs either --same "<algorithm>" or --effect FILE')
    const asked = values.same === undefined ? undefined : told(readTurns(puzzle, values.same))
    const wanted = asked
      ? { position: told(stateMade(puzzle, asked)), pieces: shownPieces(puzzle) }
      : told(completed(puzzle, told(readWishFile(puzzle, readJsonFile(values.effect ?? '')))))
    const until = performance.now() + 1000 * (wholeNumber(values.seconds, 'seconds') ?? 60)
    const most = wholeNumber(values.most, 'most') ?? Math.min(asked?.length ?? 14, MOST_TURNS)
    let none = 0
    let first: Way | undefined
    const found = told(
      await waysFor(
        puzzle,
        { driven: [], isSettled: true, ...wanted },
        {
          most,
          scheme: puzzle.definition.colours,
          ...(values.layers === undefined ? {} : { layers: values.layers.trim().split(/[ ,]+/) }),
          rest: () => Promise.resolve(performance.now() > until),
          onNone: (turns) => (none = turns),
          onFirst: (way) => (first = way),
        },
      ),
    )
    // What is longer than what was given is of no use.
    const isOfUse = first && (!asked || first.turnCount < asked.length)
    const ways = found.length > 0 || !first || !isOfUse ? found : [first]
    if (ways.length === 0)
      throw new Failure(
        none >= most
          ? `No row of up to ${plural(most, 'turn')} does that.`
          : `No row of up to ${plural(none, 'turn')} does that; then the time was over.`,
      )
    const list = ways.map(({ turns, turnCount, cost, isShortest }) => ({
      turns: writeTurns(turns),
      turnCount,
      handCost: Math.round(cost * 10) / 10,
      shortest: isShortest,
    }))
    printAll(values, list, ({ turns, turnCount }) => `${turns}  (${turnCount} turns)`)
  },

  repair(rest, values) {
    const [puzzle, text] = puzzleAnd(rest, 1, values)
    const { keep, from, ends, dialect = CANONICAL } = values
    if (keep === undefined && ends === undefined)
      throw new Usage('repair needs --keep or --ends: what the sequence should do')
    const most = wholeNumber(values.edits, 'edits') ?? REPAIR_LIMITS.edits
    if (most > REPAIR_LIMITS.edits)
      throw new Usage(`--edits must be ${REPAIR_LIMITS.edits} at most`)
    const wish = {
      keep: keep === undefined ? [] : told(readKeep(puzzle, keep)),
      ...(from === undefined ? {} : { from: stateAfter(puzzle, from) }),
      ...(ends === undefined ? {} : { ends: [told(readEnds(puzzle, ends))] }),
    }
    const meant = readAllIn(puzzle, text, dialect, values)
    if (meant.some((turns) => turns.length > REPAIR_LIMITS.turns))
      throw new Failure(`A sequence of more than ${REPAIR_LIMITS.turns} turns is not repaired.`)
    // Where directions are missing the readings are tried as they stand.
    const edits = meant.length > 1 ? 0 : most
    const readings = meant.flatMap((turns) =>
      distinct(puzzle, repair(puzzle, turns, wish, edits).readings),
    )
    if (readings.length === 0)
      throw new Failure(
        meant.length > 1
          ? `None of the ${meant.length} ways to read this does that.`
          : most === 0
            ? 'As it was heard it does not do that.'
            : `No reading with up to ${plural(most, 'edit')} does that.`,
      )
    const list = readings.map((reading) => ({
      turns: writeIn(reading.turns, dialect),
      edits: reading.edits.map(({ at, kind, was, is }) => ({
        at,
        kind,
        was: was.join(' '),
        is: is.join(' '),
      })),
      ...(readings.length === 1 ? { only: true } : {}),
    }))
    printAll(values, list, ({ turns, edits: made }) =>
      [
        turns,
        ...made.map(
          ({ at, kind, was, is }) =>
            `  turn ${at + 1}, ${kind}: ${was || 'nothing'} is ${is || 'nothing'}`,
        ),
      ].join('\n'),
    )
  },

  read(rest, values) {
    expectCount(rest, 1)
    if (values.dialect === undefined) throw new Usage('read needs --dialect D')
    const puzzle = loadPuzzle(values.puzzle ?? 'cube-3')
    const list = readAllIn(puzzle, rest[0], values.dialect, values).map((turns) => ({
      turns: writeIn(turns, values.write ?? CANONICAL),
    }))
    printAll(values, list, ({ turns }) => turns)
  },

  check(rest, values) {
    const [puzzle] = puzzleAnd(rest, 0, values)
    if (values.state === undefined) throw new Usage('check needs --state FILE')
    const judged = check(puzzle, readJsonFile(values.state))
    print(values, judged, () =>
      [
        `${judged.verdict}: ${judged.sentences.join(' ')}`,
        ...judged.remedies.map(({ name, turnCount }) => `${name}: ${turnCount} turns`),
      ].join('\n'),
    )
  },

  order(rest, values) {
    const [puzzle] = puzzleAnd(rest, 0, values)
    const order = writeOrder(orderOfPuzzle(puzzle))
    print(values, order, () =>
      [
        `order of the group  ${order.groupOrder ?? 'not known'}`,
        `states to the eye   ${order.visibleStates ?? 'not known'}`,
        `index               ${order.index ?? 'not known'}`,
        ...(order.silhouettes ? [`silhouettes         ${order.silhouettes}`] : []),
        ...order.invariants,
        ...order.remarks,
      ].join('\n'),
    )
  },

  solve(rest, values) {
    const [puzzle] = puzzleAnd(rest, 0, values)
    const { id } = puzzle.definition
    // The order of the work is found first: the stages of the universal school depend on it.
    const why = whyNotServed(puzzle)
    const schools = schoolsOf(puzzle)
    const schoolId = values.school ?? schools[0]?.id
    if (schoolId === undefined) throw new Failure(`${id} has no school: ${why ?? ''}`)
    const school = told(schoolAmong(schools, schoolId))
    const { register: named = 'full' } = values
    if (named !== 'full' && named !== 'brief') throw new Usage('--register must be full or brief')
    const register = values.steps ? named : undefined
    // Tables are built before the clock starts: a plan is timed warm, as it is on the bench.
    for (let seed = 0; seed < WARM_PLANS; seed++)
      told(plan(puzzle, school, scrambledState(puzzle, scramble(puzzle, seed))))
    const solves = given(puzzle, values).map(({ seed, text, state }) =>
      solve(puzzle, school, seed, text, state, register),
    )
    printAll(values, solves, ({ scramble: scrambled, solution, turnCount, stages }) =>
      [scrambled, ...stages.flatMap(writeCards), solution, `${turnCount} turns`].join('\n'),
    )
  },
}

/** Words whose directions may be missing. */
const LOOSE = 'words-loose'

const isDialect = (id: string): id is DialectId => (DIALECT_IDS as readonly string[]).includes(id)

/** Turns of a text in a dialect; all that it can mean where directions may be missing. */
function readAllIn(puzzle: Puzzle, text: string, id: string, { small }: Values): readonly Turn[][] {
  if (small !== undefined && !SMALL_MEANINGS.some((meaning) => meaning === small))
    throw new Usage(`--small must be ${SMALL_MEANINGS.join(' or ')}`)
  if (id === LOOSE) return told(readLoosely(puzzle, text, words))
  if (!isDialect(id))
    throw new Usage(`--dialect must be one of ${[...DIALECT_IDS, LOOSE].join(', ')}`)
  const letters =
    small === undefined ? text : withSmallLetters(puzzle, text, small as SmallMeaning).text
  return [told(readIn(puzzle, letters, id))]
}

function writeIn(turns: readonly Turn[], id: string): string {
  if (id === LOOSE) return writeTurns(turns, 'words')
  if (!isDialect(id)) throw new Usage(`--write must be one of ${DIALECT_IDS.join(', ')}`)
  return writeTurns(turns, id)
}

/** Scrambles from which it is tried whether a sequence is blocked. */
const TRIED = 200

const shownPieces = ({ pieces }: Puzzle): number[] =>
  pieces.flatMap(({ faces }, p) => (faces.length > 0 ? [p] : []))

const WARM_PLANS = 3
/** States that a school file is tried from, if no other number is asked for. */
const PROOF_STATES = 200

interface Scrambled {
  seed: number | null
  text: string
  state: State
}

function given(puzzle: Puzzle, values: Values): Scrambled[] {
  if ((values.scramble === undefined) === (values.random === undefined))
    throw new Usage('solve needs either --scramble or --random')
  if (values.scramble !== undefined) {
    const turns = told(readTurns(puzzle, values.scramble))
    const state = stateAfter(puzzle, values.scramble)
    return [{ seed: null, text: writeTurns(turns), state }]
  }
  const count = wholeNumber(values.random, 'random') as number
  const seed = wholeNumber(values.seed, 'seed')
  if (seed === undefined) throw new Usage('--random needs --seed')
  return Array.from({ length: count }, (_, i) => {
    const drawn = scramble(puzzle, seed + i)
    return { seed: seed + i, text: writeTurns(drawn.turns), state: scrambledState(puzzle, drawn) }
  })
}

function solve(
  puzzle: Puzzle,
  school: School,
  seed: number | null,
  text: string,
  state: State,
  steps: Register | undefined,
) {
  const began = performance.now()
  const route: Route = told(plan(puzzle, school, state))
  const planMs = Math.round((performance.now() - began) * 1000) / 1000
  const cards = steps && cardsOf(puzzle, puzzle.definition.colours, route, steps)
  const stages = route.stages.map((stage, s) => ({
    id: stage.id,
    turns: turnsOfStage(stage)
      .map(({ name }) => name)
      .join(' '),
    steps: stage.steps.length,
    ...(cards ? { name: stage.name, aim: stage.aim, cards: cards[s] } : {}),
  }))
  const solution = stages
    .map(({ turns }) => turns)
    .filter(Boolean)
    .join(' ')
  const end = told(turnAll(puzzle, state, told(readTurns(puzzle, solution))))
  return {
    puzzle: puzzle.definition.id,
    school: school.id,
    seed,
    scramble: text,
    solution,
    turnCount: route.turnCount,
    planMs,
    stages,
    solved: isSolved(puzzle, end),
  }
}

function check(puzzle: Puzzle, file: unknown) {
  const read = told(readStateFile(puzzle, file))
  if (read.kind === 'misread')
    return {
      verdict: 'misread',
      sentences: read.sentences,
      pieces: [],
      account: [],
      remedies: [],
    }
  const diagnosis = diagnose(puzzle, read.state, puzzle.definition.colours)
  return {
    verdict: diagnosis.verdict,
    sentences: diagnosis.sentences,
    pieces: diagnosis.slots.map((slot) => slotName(puzzle, slot)),
    account: diagnosis.account.map(({ places, ...sums }) => ({
      places: places.map((place) => puzzle.pieces[place].id),
      ...sums,
    })),
    remedies: remediesFor(puzzle, diagnosis).map(({ kind, name, turns, turnCount }) => ({
      kind,
      name,
      turns: turns.join(' '),
      turnCount,
    })),
  }
}

function stateAfter(puzzle: Puzzle, text: string): State {
  return told(turnAll(puzzle, start(puzzle), told(readTurns(puzzle, text))))
}

function puzzleAnd(rest: string[], more: number, values: Values): [Puzzle, string] {
  expectCount(rest, 1 + more)
  return [withLocked(loadPuzzle(rest[0]), values.locked), rest[1] ?? '']
}

function expectCount(rest: readonly string[], count: number): void {
  if (rest.length !== count)
    throw new Usage(
      `${count} ${count === 1 ? 'word' : 'words'} expected after the command, ${rest.length} given`,
    )
}

/** The same circle cube with other faces locked: the parameter of its mechanism. */
function withLocked(puzzle: Puzzle, locked: string | undefined): Puzzle {
  if (locked === undefined) return puzzle
  const { definition } = puzzle
  const faces = locked
    .split(',')
    .map((face) => face.trim())
    .filter(Boolean)
  const mechanism = { ...definition.mechanism, locked: faces }
  return compile(told(readDefinition({ ...definition, mechanism })))
}

function loadPuzzle(name: string): Puzzle {
  if (!/[./\\]/.test(name)) return told(puzzleById(name))
  return compile(told(readDefinition(readJsonFile(name))))
}

function readJsonFile(name: string): unknown {
  let text: string
  try {
    text = readFileSync(name, 'utf8')
  } catch {
    throw new Failure(`The file ${name} cannot be read.`)
  }
  try {
    return JSON.parse(text)
  } catch (error) {
    throw new Failure(`The file ${name} is not well-formed JSON: ${(error as Error).message}.`)
  }
}

function wholeNumber(text: string | undefined, option: string): number | undefined {
  if (text === undefined) return undefined
  const value = Number(text)
  if (!Number.isSafeInteger(value) || value < 0 || text.trim() === '')
    throw new Usage(`--${option} takes a whole number, 0 or more`)
  return value
}

function print(values: Values, value: unknown, inWords: () => string): void {
  process.stdout.write(`${values.json || values.jsonl ? JSON.stringify(value) : inWords()}\n`)
}

function printAll<T>(values: Values, list: readonly T[], inWords: (value: T) => string): void {
  if (values.jsonl) for (const value of list) process.stdout.write(`${JSON.stringify(value)}\n`)
  else if (values.json) process.stdout.write(`${JSON.stringify(list)}\n`)
  else for (const value of list) process.stdout.write(`${inWords(value)}\n`)
}

// Whoever reads the output may have read enough: `lantern … | head`.
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code !== 'EPIPE') throw error
  process.exit()
})

try {
  await main(process.argv.slice(2))
} catch (error) {
  // What is no failure of the question is one of the program, and is told as such: never a stack of calls.
  const message = error instanceof Error ? error.message : String(error)
  process.stderr.write(
    error instanceof Failure
      ? `lantern: ${message}\n`
      : `lantern: This is a fault of the program, not of what you asked: ${message}.\n`,
  )
  if (error instanceof Usage) process.stderr.write(`${USAGE}\n`)
  process.exitCode = error instanceof Usage ? 2 : 1
}
