/**
 * What comes from outside as data, before any schema sees it: plain values only, of a depth and a number
 * that can be walked, texts that can be stored and shown, and no field that an object has of its own.
 */
import './schemaWords'
import { ok, type Problem, type Result } from './result'

export interface Bounds {
  /** How deep lists and objects may lie in each other. */
  readonly depth: number
  /** How many values there may be in all. */
  readonly values: number
  /** How long one text may be, in characters. */
  readonly text: number
  /** How many entries one list may have; no more than there may be values, if not given. */
  readonly list?: number
}

export const BOUNDS: Bounds = { depth: 16, values: 200_000, text: 50_000, list: 2000 }

/** Names that every object has by birth; a field of that name would be taken for what they stand for. */
const TAKEN = new Set([...Object.getOwnPropertyNames(Object.prototype), 'prototype'])

/** What plain objects inherit: nothing, but how they are written where a text is asked for. */
const BARE = Object.freeze(
  Object.create(null, { toString: { value: () => '[object Object]' } }) as object,
)

/** No number zero and none of the other signs that no one can see; a lone half of a pair is no letter. */
const UNSEEN = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]|\p{Surrogate}/u

/**
 * The value as it may be looked into: copied, in objects that inherit no names, so that what stands in it is what was
 * sent and nothing else. Everything from outside goes through here: forms, files, addresses, requests.
 */
export function plain(value: unknown, bounds: Bounds = BOUNDS): Result<unknown> {
  const problem = plainProblem(value, bounds)
  return problem ? { ok: false, problem } : ok(bare(value))
}

/** No deeper than the bounds say. */
function bare(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(bare)
  if (typeof value !== 'object' || value === null) return value
  const copy = Object.create(BARE) as Record<string, unknown>
  for (const [key, each] of Object.entries(value)) copy[key] = bare(each)
  return copy
}

interface Visit {
  readonly value: unknown
  readonly depth: number
  readonly key: string | number
  readonly parent?: Visit
}

/** The first thing that is not plain, with the path of its field; undefined if all is well. */
export function plainProblem(value: unknown, bounds: Bounds = BOUNDS): Problem | undefined {
  const open: Visit[] = [{ value, depth: 0, key: '' }]
  let seen = 0
  for (let visit = open.pop(); visit; visit = open.pop()) {
    if (++seen > bounds.values)
      return problem(visit, `there are more than ${bounds.values} values in all`)
    const wrong = wrongWith(visit, bounds)
    if (wrong) return problem(visit, wrong)
    if (typeof visit.value !== 'object' || visit.value === null) continue
    const inside: [string | number, unknown][] = Array.isArray(visit.value)
      ? visit.value.map((each, i) => [i, each])
      : Object.entries(visit.value)
    // The first is looked at first.
    for (let i = inside.length - 1; i >= 0; i--) {
      const [key, each] = inside[i]
      open.push({ value: each, depth: visit.depth + 1, key, parent: visit })
    }
  }
  return undefined
}

function wrongWith({ value, depth, key }: Visit, bounds: Bounds): string | undefined {
  if (typeof key === 'string') {
    if (TAKEN.has(key)) return 'no field can have this name'
    if (key.length > 200) return 'the name of a field is too long'
    if (UNSEEN.test(key)) return 'the name of a field has a sign in it that no one can see'
  }
  switch (typeof value) {
    case 'string':
      if (value.length > bounds.text) return `it is longer than ${bounds.text} characters`
      return UNSEEN.test(value) ? 'it has a sign in it that no one can see' : undefined
    case 'number':
      return Number.isFinite(value) ? undefined : 'it is no number that can be written'
    case 'boolean':
      return undefined
    case 'undefined':
      // A field may be left out, a place in a list may not.
      return typeof key === 'number' ? 'it is missing' : undefined
    case 'object':
      if (value === null) return undefined
      if (depth >= bounds.depth) return `lists lie in each other more than ${bounds.depth} deep`
      if (Array.isArray(value))
        return value.length > (bounds.list ?? bounds.values)
          ? `it has more than ${bounds.list ?? bounds.values} entries`
          : undefined
      return [Object.prototype, BARE, null].includes(Object.getPrototypeOf(value) as object | null)
        ? undefined
        : 'it is no plain value'
    default:
      return 'it is no plain value'
  }
}

function problem(visit: Visit, what: string): Problem {
  const field = pathOf(visit)
  return { code: 'bad-input', field, sentence: `${field || 'What was sent'}: ${what}.` }
}

/** `events[3].route.stages`; names cut short, because they are a stranger's. */
function pathOf(visit: Visit): string {
  const keys: (string | number)[] = []
  for (let at: Visit | undefined = visit; at?.parent; at = at.parent) keys.push(at.key)
  const path = keys
    .reverse()
    .slice(0, 8)
    .map((key) => (typeof key === 'number' ? `[${key}]` : `.${shown(key)}`))
    .join('')
  return path.replace(/^\./, '')
}

const shown = (key: string): string =>
  [...key]
    .slice(0, 40)
    .map((sign) => (UNSEEN.test(sign) ? '?' : sign))
    .join('')
