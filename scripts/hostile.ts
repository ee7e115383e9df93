/**
 * Input as a stranger would send it, to everything that reads from outside: notations, definitions, states,
 * log files and what actions and routes are given. Good examples are spoiled here and there, or replaced by
 * what has broken programs before. Nothing may throw; every answer is a result.
 */
import { catalog, puzzleById } from '../src/core/catalog'
import { scramble } from '../src/core/scramble/scramble'
import { writeTurns } from '../src/core/notation/write'
import { DIALECT_IDS, readIn } from '../src/core/notation/dialect'
import { readDefinition, readPuzzleFile } from '../src/core/puzzle/readDefinition'
import { seededRandom, type Random } from '../src/core/random'
import { fail, must, ok, type Result } from '../src/core/result'
import { DEFAULT_SETTINGS, settingsSchema } from '../src/core/settings'
import { readState, start, writeState } from '../src/core/state'
import { readStateFile } from '../src/core/stuck/stateFile'
import { careSchema } from '../src/server/careSchema'
import { copySchema } from '../src/server/copySchema'
import { entrySchema } from '../src/features/lay-out/sessionSchema'
import { batchSchema } from '../src/server/benchEventSchema'
import { choiceSchema } from '../src/server/benchSchool'
import { circleSolves } from '../src/server/demo/circle'
import { BadFile, textSource } from '../src/server/files/source'
import { textOf } from '../src/server/files/write'
import { writeCsv, writeJson } from '../src/server/logFile'
import { readLog } from '../src/server/logReading'
import { checked } from '../src/server/outside'
import type { Solve } from '../src/server/solves'
import { compiledFrom } from '../src/core/puzzle/compile'

export interface Hostility {
  readonly name: string
  /** Makes one input and has it read; what was read is told, for a failure. */
  readonly attack: (random: Random) => Promise<{ input: unknown; result: Result<unknown> }>
}

const PUZZLES = ['cube-2', 'cube-3', 'shift-3x3x5', 'twin-3', 'circle-3', 'tetra-3', 'prism-6']
const IDS = ['00000000-0000-4000-8000-000000000001', '00000000-0000-4000-8000-000000000002']

export const pick = <T>(random: Random, list: readonly T[]): T => list[random.below(list.length)]

/** Names that every object has by birth. */
const NAMES = Object.getOwnPropertyNames(Object.prototype)
const inherited = seededRandom(1105)

/** Values that have broken programs before. */
const BAD: readonly (() => unknown)[] = [
  () => null,
  () => undefined,
  () => true,
  () => -1,
  () => 0,
  () => 1e308,
  () => Number.NaN,
  () => Infinity,
  () => 2 ** 53,
  () => 0.1,
  () => '',
  () => 'constructor',
  () => '__proto__',
  () => 'toString',
  () => 'hasOwnProperty',
  () => 'a\u0000b',
  () => '\ud800',
  () => '\u202e',
  () => '%E0%A4%A',
  () => '../../etc',
  () => "'; drop table solves; --",
  () => '<script>1</script>',
  () => '=1+1\n',
  () => '-000001-01-01T00:00:00Z',
  () => '9'.repeat(400),
  () => 'x'.repeat(100_000),
  () => '((((R)999)999)999)0',
  () => '('.repeat(5000),
  () => ({}),
  () => [],
  () => ({ length: 1e9 }),
  () => ({ [pick(inherited, NAMES)]: 1 }),
  () => ({ [pick(inherited, NAMES)]: { [pick(inherited, NAMES)]: [] } }),
  () => JSON.parse('{"__proto__":{"ok":true}}') as unknown,
  () => nested(3000),
  () => Array.from({ length: 5000 }, () => []),
  () => new Date(Number.NaN),
  () => 10n,
  () => Symbol('x'),
  () => new Map([[1, 2]]),
]

function nested(depth: number): unknown {
  let value: unknown = 'deep'
  for (let i = 0; i < depth; i++) value = i % 2 === 0 ? [value] : { value }
  return value
}

/** The value with one place in it replaced, left out, doubled or joined by a stranger. */
function spoiled(random: Random, value: unknown): unknown {
  if (random.below(6) === 0) return pick(random, BAD)()
  if (Array.isArray(value) && value.length > 0) {
    const at = random.below(value.length)
    const copy = [...(value as unknown[])]
    const how = random.below(8)
    if (how === 0) copy.splice(at, 1)
    else if (how === 1) copy.splice(at, 0, copy[at])
    else if (how === 2) copy.push(...copy)
    else copy[at] = spoiled(random, copy[at])
    return copy
  }
  if (typeof value === 'object' && value !== null) {
    const entries = Object.entries(value)
    if (entries.length === 0 || random.below(10) === 0)
      return { ...value, [`${String(pick(random, ['extra', 'id', '', ...NAMES]))}`]: 1 }
    const [key, inner] = pick(random, entries)
    if (random.below(8) === 0) return Object.fromEntries(entries.filter(([name]) => name !== key))
    return { ...value, [key]: spoiled(random, inner) }
  }
  if (typeof value === 'number') return value + random.below(41) - 20
  if (typeof value === 'string') return spoiledText(random, value)
  return pick(random, BAD)()
}

const SIGNS = [
  "'",
  '2',
  '(',
  ')',
  '[',
  ']',
  ':',
  ',',
  'R',
  'w',
  '9',
  '-',
  '//',
  '\n',
  '\u0000',
  'ü',
  '🙂',
  'x',
  '0',
  '999',
  '"',
  '{',
]

function spoiledText(random: Random, text: string): string {
  const signs = [...text]
  for (let n = 1 + random.below(4); n > 0; n--) {
    const at = random.below(signs.length + 1)
    const how = random.below(4)
    if (how === 0) signs.splice(at, 1)
    else if (how === 1)
      signs.splice(at, 0, ...Array<string>(1 + random.below(30)).fill(pick(random, SIGNS)))
    else signs.splice(at, random.below(2), pick(random, SIGNS))
  }
  return signs.join('')
}

export const someTimes = (random: Random, value: unknown): unknown => {
  let now = value
  for (let n = 1 + random.below(3); n > 0; n--) now = spoiled(random, now)
  return now
}

const scheme = must(puzzleById('cube-2')).definition.colours

const GOOD_ARGUMENTS: readonly { schema: Parameters<typeof checked>[0]; value: unknown }[] = [
  {
    schema: batchSchema,
    value: {
      after: 0,
      entries: [
        { id: IDS[0], event: { kind: 'turn', atMs: 5, name: 'R' } },
        { id: IDS[1], event: { kind: 'hint', atMs: 6, strength: 2 } },
      ],
    },
  },
  { schema: choiceSchema, value: { school: 'shortest', variant: { a: 'b' } } },
  { schema: settingsSchema, value: DEFAULT_SETTINGS },
  { schema: copySchema, value: { puzzleId: 'cube-2', name: 'Sail', remarks: '', scheme } },
  { schema: careSchema, value: { happenedOn: '2026-11-05', kind: 'pop', note: 'x' } },
  {
    schema: entrySchema,
    value: {
      laidBy: 'scramble',
      copyId: IDS[0],
      school: '',
      variant: {},
      scramble: 'R U',
      seed: 7,
    },
  },
  {
    schema: entrySchema,
    value: { laidBy: 'colours', copyId: IDS[0], marked: { 'UFR:U': 'white' } },
  },
  { schema: entrySchema, value: { laidBy: 'pieces', copyId: IDS[0], state: 'aaaaaaaa' } },
]

export function hostilities(): Hostility[] {
  const puzzles = PUZZLES.map((id) => must(puzzleById(id)))
  const definitions = catalog().map(
    (definition) => JSON.parse(JSON.stringify(definition)) as object,
  )
  const algorithms = puzzles.map((puzzle) => writeTurns(scramble(puzzle, 3).turns))
  const solves = circleSolves().slice(0, 3) as unknown as Solve[]
  const logs = Promise.all([writeJson(solves), writeCsv(solves)].map(textOf))
  const told = <T>(input: unknown, result: Result<T>) => ({ input, result })
  return [
    {
      name: 'notations',
      attack: (random) => {
        const at = random.below(puzzles.length)
        const whole = `[${algorithms[at].split(' ').slice(0, 4).join(' ')}: (${algorithms[at]})2]`
        const bad = random.below(12) === 0 ? pick(random, BAD)() : spoiledText(random, whole)
        const text = typeof bad === 'string' ? bad : String(Object(bad).length)
        return Promise.resolve(told(text, readIn(puzzles[at], text, pick(random, DIALECT_IDS))))
      },
    },
    {
      name: 'definitions',
      attack: (random) => {
        const value = someTimes(random, pick(random, definitions))
        const read = random.below(2) === 0 ? readDefinition(value) : asFile(random, value)
        return Promise.resolve(told(value, read.ok ? compiledFrom(read.value) : read))
      },
    },
    {
      name: 'states',
      attack: (random) => {
        const puzzle = pick(random, puzzles)
        const letters = writeState(start(puzzle))
        const head = { format: 'merry-lantern-state', version: 1 }
        const value = someTimes(
          random,
          pick(random, [
            { ...head, letters },
            {
              ...head,
              pieces: puzzle.pieces.map(({ id }) => ({
                id,
                rotation: [
                  [1, 0, 0],
                  [0, 1, 0],
                  [0, 0, 1],
                ],
              })),
            },
            {
              ...head,
              places: puzzle.pieces.map(({ cells, faces }) => ({
                cells,
                faces: faces.map(({ colour, normal }) => ({ colour, normal })),
              })),
            },
          ]),
        )
        const file = readStateFile(puzzle, value)
        const text = spoiledText(random, letters)
        return Promise.resolve(told([value, text], file.ok ? readState(puzzle, text) : file))
      },
    },
    {
      name: 'log files',
      attack: async (random) => {
        const [json, csv] = await logs
        const text =
          random.below(2) === 0
            ? random.below(2) === 0
              ? spoiledText(random, csv)
              : csv.replace(pick(random, csv.split(',')), String(spoiledText(random, 'x')))
            : random.below(2) === 0
              ? spoiledText(random, json)
              : asText(someTimes(random, JSON.parse(json)))
        return told(text, await readText(text))
      },
    },
    {
      name: 'arguments',
      attack: async (random) => {
        const { schema, value } = pick(random, GOOD_ARGUMENTS)
        const input = someTimes(random, value)
        return told(input, await checked(schema, input))
      },
    },
  ]
}

/** Read as a file that comes in, and kept nowhere. */
async function readText(text: string): Promise<Result<unknown>> {
  const nothing = {
    keepsPuzzles: false,
    puzzle: () => Promise.resolve(ok(true)),
    solve: () => Promise.resolve(),
  }
  try {
    await readLog(textSource(text), nothing, () => Promise.resolve())
    return ok(true)
  } catch (error) {
    if (error instanceof BadFile) return fail('bad-file', error.sentence)
    throw error
  }
}

export const asText = (value: unknown): string => {
  try {
    return JSON.stringify(value) ?? 'undefined'
  } catch {
    return '{'
  }
}

const asFile = (random: Random, value: unknown) => {
  const text = asText(value)
  return readPuzzleFile(random.below(3) === 0 ? spoiledText(random, text) : text)
}

export interface Survived {
  readonly name: string
  readonly count: number
  readonly refused: number
  readonly slowestMs: number
  readonly slowest: string
}

/** @throws with the input, if something throws or is no result */
export async function survive(
  { name, attack }: Hostility,
  count: number,
  random: Random,
): Promise<Survived> {
  let [refused, slowestMs, slowest] = [0, 0, '']
  for (let n = 0; n < count; n++) {
    const began = performance.now()
    const { input, result } = await Promise.resolve()
      .then(() => attack(random))
      .catch((error: unknown) => {
        throw new Error(`${name}, input ${n}: ${String(error)}`, { cause: error })
      })
    const ms = performance.now() - began
    if (!result.ok) {
      refused++
      if (typeof result.problem.sentence !== 'string' || result.problem.sentence === '')
        throw new Error(`${name}, input ${n}: refused without a word`)
    }
    if (ms > slowestMs) [slowestMs, slowest] = [ms, shown(input)]
  }
  return { name, count, refused, slowestMs, slowest }
}

function shown(input: unknown): string {
  try {
    return JSON.stringify(input).slice(0, 300)
  } catch {
    return String(input)
  }
}
