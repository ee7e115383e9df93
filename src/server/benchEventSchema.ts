/** What a bench event must look like before it is stored. */
import { array, boolean, lazy, mixed, number, object, string, type Schema } from 'yup'
import type { BenchEvent } from '../core/coach/bench'
import { saidSchema } from '../core/claims/claimSchema'
import { unpackedSafely } from '../core/coach/packed'
import type { Entry } from '../core/coach/rebase'
import { DIRECTIONS } from '../core/puzzle/directions'
import type { Bounds } from '../core/plain'
import { MOST_EVENTS } from './benchSessions'
import { LONGEST_MS } from './limits'

/** How much one event may be: a plan of the longest solve has some thousand values. */
export const EVENT_BOUNDS: Bounds = { depth: 16, values: 30_000, text: 50_000, list: 2000 }

/** How much comes at once: a page sends no more (src/features/bench/outbox.ts), so that nobody waits for it. */
export const BATCH_BOUNDS: Bounds = { ...EVENT_BOUNDS, values: 60_000 }

const atMs = () => number().integer().min(0).max(LONGEST_MS).required()
const text = (max: number) => string().max(max)
const turnName = () => text(12).required()

/** Claims; programs that had none sent a sentence. */
const says = { says: saidSchema(), sentence: text(400) }

const step = object({
  id: text(80).required(),
  kind: text(20).required(),
  lookFor: saidSchema(true),
  lines: array()
    .of(object({ piece: text(20).required(), to: text(20), ...says }).noUnknown())
    .max(12),
  hold: saidSchema(true),
  check: saidSchema(true),
  ifNot: saidSchema(),
  halfway: object({ after: number().integer().min(0).max(500).required(), ...says })
    .noUnknown()
    .default(undefined)
    .optional(),
  note: saidSchema(),
  workSide: text(12),
  reading: text(2000),
  as: array().of(number().integer().min(1).max(7).required()).length(3),
  meets: array()
    .of(
      object({
        here: turnName(),
        there: turnName(),
        one: text(12),
        isWithin: boolean().required(),
      }).noUnknown(),
    )
    .max(12),
  hints: object({ nudge: saidSchema(true), pointer: saidSchema(true) })
    .noUnknown()
    .required(),
  turns: array()
    .of(
      object({
        name: turnName(),
        role: mixed().oneOf(['hold', 'prepare', 'setup', 'do', 'undo']).required(),
        run: number().integer().min(1).max(1000),
      }).noUnknown(),
    )
    .max(500)
    .required(),
  runs: object({
    times: number().integer().required(),
    before: number().integer().required(),
    total: number().integer().required(),
  })
    .default(undefined)
    .optional(),
  algorithm: array().of(turnName()).max(200).required(),
  pieces: array().of(text(20).required()).max(400).required(),
  places: array().of(text(20).required()).max(400).required(),
  others: array()
    .of(object({ piece: text(20).required(), first: text(20), ...says }).noUnknown())
    .max(400)
    .required(),
  frame: number().integer().min(0).max(23).required(),
  caseIndex: number().integer().min(0).max(10_000),
}).noUnknown()

const positions = () => array().of(number().integer().min(0).max(400).required()).max(400)

const route = object({
  puzzle: text(40).required(),
  school: text(40).required(),
  variant: object().required(),
  from: text(400).required(),
  naming: array()
    .of(
      object({
        as: text(20).required(),
        is: text(20).required(),
        turned: number().integer().min(0).max(23).required(),
      })
        .required()
        .noUnknown(),
    )
    .max(400),
  base: mixed()
    .oneOf(DIRECTIONS.map(({ name }) => name))
    .required(),
  // Empty where no colour comes first.
  baseColour: text(40).defined(),
  stages: array()
    .of(
      object({
        id: text(80).required(),
        name: text(80).required(),
        aim: text(500).defined(),
        done: boolean().required(),
        steps: array().of(step.required()).max(500).required(),
      }).noUnknown(),
    )
    .max(100)
    .required(),
  turnCount: number().integer().min(0).required(),
  quarterCount: number().integer().min(0).required(),
  algorithms: array().of(text(1000).required()).max(200).required(),
  looks: number().integer().min(0).required(),
  saved: number().integer().min(0).max(100_000),
  orbitPlan: object({
    first: array().of(positions().required()).max(50).required(),
    settled: positions().required(),
    later: positions().required(),
  })
    .noUnknown()
    .default(undefined)
    .optional(),
}).noUnknown()

/** A packed one is held to the same, once it is read. */
const packedRoute = mixed()
  .required()
  .test('route', function (value) {
    const read = unpackedSafely(value)
    if (!read.ok) return this.createError({ message: read.problem.sentence })
    try {
      route.validateSync(read.value, { strict: true })
      return true
    } catch (error) {
      return this.createError({ message: error instanceof Error ? error.message : String(error) })
    }
  })

const storedRoute = lazy((value: unknown) =>
  'packed' in Object(value) ? packedRoute : route.required(),
) as unknown as Schema

const kinds: Record<BenchEvent['kind'], Schema> = {
  turn: object({ kind: string().required(), atMs: atMs(), name: turnName() }).noUnknown(),
  undo: object({ kind: string().required(), atMs: atMs() }).noUnknown(),
  pass: object({ kind: string().required(), atMs: atMs() }).noUnknown(),
  hint: object({
    kind: string().required(),
    atMs: atMs(),
    strength: number().oneOf([1, 2, 3]).required(),
  }).noUnknown(),
  route: object({ kind: string().required(), atMs: atMs(), route: storedRoute }).noUnknown(),
}

/** One event, whatever its kind. */
export const eventSchema = lazy((value: unknown) => {
  const { kind } = Object(value) as { kind?: unknown }
  // Own fields only: every object has a `constructor`, and that is no kind of event.
  if (typeof kind === 'string' && Object.hasOwn(kinds, kind))
    return kinds[kind as BenchEvent['kind']]
  return mixed()
    .nullable()
    .test('kind', 'This kind of event is not known.', () => false)
})

/** Entries as they arrive from a page that knows `after` of them already. */
export const batchSchema = object({
  after: number().integer().min(0).max(MOST_EVENTS).required(),
  entries: array()
    .of(
      object({
        id: string().uuid('${path} must be a UUID').required(),
        event: eventSchema as unknown as Schema,
      })
        .required()
        .noUnknown(),
    )
    .min(1)
    .max(500)
    .required(),
})
  .required()
  .noUnknown() as unknown as Schema<{ after: number; entries: Entry[] }>
