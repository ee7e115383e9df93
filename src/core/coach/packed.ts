/**
 * A route as it is sent and stored: the same in a third of the bytes. Claims are rows of their fields in the order of
 * their table, names that come in lists are written once, turns are one text.
 */
import { fieldsOf, isKind, type Claim, type ClaimKind, type Said } from '../claims/claim'
import type { Field } from '../claims/fields'
import type { Look } from '../analysis/who'
import { fail, ok, type Result } from '../result'
import {
  inClaims,
  type Route,
  type RouteLine,
  type RouteMeeting,
  type RouteStep,
  type RouteTurn,
} from './route'
import type { TurnRole } from './workpiece'

/** How it is packed. */
const VERSION = 2

/** A claim: its kind, and its fields; what is at the end and not there is left out. */
type Row = readonly unknown[]

/**
 * Letters for what a step has: its kind, frame and turns; what to look for (w) and the lines of it; the hold, the check,
 * if not, the note; the nudge (u) and the pointer (v); half way (y); others; meetings; the algorithm; pieces and places
 * (q); what is extra.
 */
interface PackedStep {
  /** Where it is not the stage's with its number. */
  readonly id?: string
  readonly k: string
  readonly f: number
  readonly t: string
  readonly w?: readonly Row[]
  readonly l?: readonly (readonly [piece: string, to: string | 0, says: readonly Row[]])[]
  readonly h?: readonly Row[]
  readonly c?: readonly Row[]
  readonly i?: readonly Row[]
  readonly n?: readonly Row[]
  readonly u?: readonly Row[]
  readonly v?: readonly Row[]
  readonly y?: readonly [number, readonly Row[]]
  readonly o?: readonly (readonly [piece: string, first: string | 0, says: readonly Row[]])[]
  readonly m?: readonly (readonly [here: string, there: string, one: string | 0, isWithin: 0 | 1])[]
  readonly a?: string
  /** Where these are not those of the lines. */
  readonly p?: number
  readonly q?: number
  /** As it is: rare. */
  readonly x?: Pick<RouteStep, 'as' | 'reading' | 'workSide' | 'runs' | 'caseIndex'>
}

interface PackedStage {
  readonly id: string
  readonly name: string
  readonly aim: string
  readonly done: boolean
  readonly steps: readonly PackedStep[]
}

export interface PackedRoute extends Omit<Route, 'stages'> {
  readonly packed: typeof VERSION
  /** Lists of names, each once. */
  readonly lists: readonly string[]
  readonly stages: readonly PackedStage[]
}

/** As the first program that packed called its stages. */
type FirstPacked = Omit<PackedRoute, 'stages'> & { readonly stages2: PackedRoute['stages'] }

/** As it was sent: packed, or as programs sent it that did not pack. */
export type StoredRoute = Route | PackedRoute | FirstPacked

const ROLES: Readonly<Record<TurnRole, string>> = {
  hold: 'h',
  prepare: 'p',
  setup: 's',
  do: 'd',
  undo: 'u',
}
const ROLE_OF = new Map(Object.entries(ROLES).map(([role, letter]) => [letter, role as TurnRole]))

/** 'h:x2 d1:R U d2:R U': turns that follow each other in one role and run are one group. */
function packTurns(turns: readonly RouteTurn[]): string {
  let last = ''
  return turns
    .map(({ name, role, run }) => {
      const group = `${ROLES[role]}${run ?? ''}`
      const text = group === last ? name : `${group}:${name}`
      last = group
      return text
    })
    .join(' ')
}

function unpackTurns(text: string): RouteTurn[] {
  let group: Omit<RouteTurn, 'name'> | undefined
  return words(text).map((word): RouteTurn => {
    const [, letter, run, name] = /^(?:([hpsdu])(\d*):)?(.+)$/.exec(word) ?? []
    const role = letter === undefined ? undefined : ROLE_OF.get(letter)
    if (role) group = { role, ...(run === '' ? {} : { run: Number(run) }) }
    if (!group || name === undefined) throw new Error('a turn has no role')
    return { name, ...group }
  })
}

const words = (text: string): string[] => (text === '' ? [] : text.split(' '))

const idOf = (stage: string, nth: number): string => `${stage}.${nth + 1}`

/** What glows as a rule: the pieces of the lines, and where they go. */
const ofLines = ({
  lines = [],
}: {
  readonly lines?: readonly Pick<RouteLine, 'piece' | 'to'>[]
}): { readonly pieces: readonly string[]; readonly places: readonly string[] } => ({
  pieces: lines.map(({ piece }) => piece),
  places: lines.flatMap(({ to }) => (to === undefined ? [] : [to])),
})

const isSame = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((each, i) => each === b[i])

class Lists {
  readonly all: string[] = []
  private readonly at = new Map<string, number>()

  indexOf(names: readonly string[]): number {
    const text = names.join(' ')
    const known = this.at.get(text)
    if (known !== undefined) return known
    this.at.set(text, this.all.length)
    return this.all.push(text) - 1
  }
}

const LOOKS = ['looks', 'not']

const packField = (lists: Lists, name: string, field: Field<unknown>, value: unknown): unknown => {
  if (value === undefined) return null
  if (value === true) return 1
  if (field.isList) return lists.indexOf(value as readonly string[])
  if (LOOKS.includes(name))
    return (value as readonly Look[]).map(({ colour, toward }) => [colour, ...toward])
  return value
}

const packSaid = (lists: Lists, said: Said): Row[] =>
  said.map((claim) => {
    const values = Object.entries(fieldsOf(claim.kind)).map(([name, field]) =>
      packField(lists, name, field, (claim as unknown as Record<string, unknown>)[name]),
    )
    while (values.length > 0 && values[values.length - 1] === null) values.pop()
    return [claim.kind, ...values]
  })

export function packed(route: Route): PackedRoute {
  const lists = new Lists()
  const some = <K extends string, T extends { readonly length: number }>(key: K, value: T) =>
    (value.length === 0 ? {} : { [key]: value }) as { readonly [Key in K]?: T }
  const step = (each: RouteStep, stage: string, nth: number): PackedStep => {
    const own = ofLines(each)
    const { as, reading, workSide, runs, caseIndex } = each
    const rare = Object.entries({ as, reading, workSide, runs, caseIndex }).filter(
      ([, value]) => value !== undefined,
    )
    const said = (claims: Said | undefined) => packSaid(lists, claims ?? [])
    return {
      ...(each.id === idOf(stage, nth) ? {} : { id: each.id }),
      k: each.kind,
      f: each.frame,
      t: packTurns(each.turns),
      ...some('w', said(each.lookFor)),
      ...(each.lines
        ? { l: each.lines.map(({ piece, to, says }) => [piece, to ?? 0, said(says)] as const) }
        : {}),
      ...some('h', said(each.hold)),
      ...some('c', said(each.check)),
      ...some('i', said(each.ifNot)),
      ...some('n', said(each.note)),
      ...some('u', said(each.hints.nudge)),
      ...some('v', said(each.hints.pointer)),
      ...(each.halfway ? { y: [each.halfway.after, said(each.halfway.says)] as const } : {}),
      ...some(
        'o',
        each.others.map(({ piece, first, says }) => [piece, first ?? 0, said(says)] as const),
      ),
      ...some(
        'm',
        (each.meets ?? []).map(
          ({ here, there, one, isWithin }) => [here, there, one ?? 0, isWithin ? 1 : 0] as const,
        ),
      ),
      ...some('a', each.algorithm.join(' ')),
      ...(isSame(each.pieces, own.pieces) ? {} : { p: lists.indexOf(each.pieces) }),
      ...(isSame(each.places, own.places) ? {} : { q: lists.indexOf(each.places) }),
      ...(rare.length > 0 ? { x: Object.fromEntries(rare) } : {}),
    }
  }
  const { stages: whole, ...head } = route
  const stages = whole.map((stage) => ({
    ...stage,
    steps: stage.steps.map((each, nth) => step(each, stage.id, nth)),
  }))
  return { ...head, packed: VERSION, stages, lists: lists.all }
}

const isPacked = (route: StoredRoute): route is PackedRoute | FirstPacked => 'packed' in route

const asPackedNow = (route: PackedRoute | FirstPacked): PackedRoute => {
  if (!('stages2' in route)) return route
  const { stages2, ...rest } = route
  return { ...rest, stages: stages2 }
}

/** No route names more in all: what a stranger sends could name one long list again and again. */
const MOST_NAMES = 60_000

class Unpacking {
  private named = 0

  constructor(private readonly lists: readonly string[]) {}

  list(at: unknown): string[] {
    const text = typeof at === 'number' ? this.lists[at] : undefined
    if (typeof text !== 'string') throw new Error('a list is missing')
    const names = words(text)
    this.named += names.length
    if (this.named > MOST_NAMES) throw new Error('too many names')
    return names
  }

  said(rows: readonly Row[] | undefined): Said {
    return (rows ?? []).map(([kind, ...values]) => {
      if (!isKind(kind)) throw new Error('a claim of an unknown kind')
      return this.claim(kind, values)
    })
  }

  private claim(kind: ClaimKind, values: readonly unknown[]): Claim {
    const fields = Object.entries(fieldsOf(kind)).flatMap(([name, field], i) => {
      const value = values[i]
      return value === null || value === undefined ? [] : [[name, this.field(name, field, value)]]
    })
    return { kind, ...Object.fromEntries(fields) } as Claim
  }

  private field(name: string, field: Field<unknown>, value: unknown): unknown {
    if (field.isList) return this.list(value)
    if (LOOKS.includes(name))
      return (value as readonly (readonly string[])[]).map(([colour, ...toward]) => ({
        colour,
        toward,
      }))
    return field.schema.type === 'mixed' && value === 1 ? true : value
  }

  step(each: PackedStep, stage: string, nth: number): RouteStep {
    const { l, y, o = [], m, i, n, p, q, a = '' } = each
    const own = ofLines({
      lines: l?.map(([piece, to]) => ({ piece, ...(to === 0 ? {} : { to }) })),
    })
    return {
      id: each.id ?? idOf(stage, nth),
      kind: each.k,
      lookFor: this.said(each.w),
      ...(l
        ? {
            lines: l.map(([piece, to, says]) => ({
              piece,
              ...(to === 0 ? {} : { to }),
              says: this.said(says),
            })),
          }
        : {}),
      hold: this.said(each.h),
      check: this.said(each.c),
      ...(i ? { ifNot: this.said(i) } : {}),
      ...(n ? { note: this.said(n) } : {}),
      hints: { nudge: this.said(each.u), pointer: this.said(each.v) },
      ...(y ? { halfway: { after: y[0], says: this.said(y[1]) } } : {}),
      ...(m
        ? {
            meets: m.map(([here, there, one, isWithin]): RouteMeeting => ({
              ...{ here, there, isWithin: isWithin === 1 },
              ...(one === 0 ? {} : { one }),
            })),
          }
        : {}),
      turns: unpackTurns(each.t),
      ...each.x,
      algorithm: words(a),
      pieces: p === undefined ? own.pieces : this.list(p),
      places: q === undefined ? own.places : this.list(q),
      others: o.map(([piece, first, says]) => ({
        piece,
        ...(first === 0 ? {} : { first }),
        says: this.said(says),
      })),
      frame: each.f,
    }
  }
}

const known = new WeakMap<StoredRoute, Route>()

/**
 * The route, whichever way it was stored.
 *
 * @throws where it is packed and names what it does not hold
 */
export function unpacked(route: StoredRoute): Route {
  if (!isPacked(route)) return inClaims(route)
  const found = known.get(route)
  if (found) return found
  const { packed: version, lists, stages, ...head } = asPackedNow(route)
  if (version !== VERSION) throw new Error('another program has written it')
  const unpacking = new Unpacking(lists)
  const made: Route = {
    ...head,
    stages: stages.map(({ id, name, aim, done, steps }) => ({
      ...{ id, name, aim, done },
      steps: steps.map((step, nth) => unpacking.step(step, id, nth)),
    })),
  }
  known.set(route, made)
  return made
}

/** The same of what a stranger may have sent, with nothing in it that is not read. */
export function unpackedSafely(value: unknown): Result<Route> {
  try {
    const given = value as StoredRoute
    const route = unpacked(given)
    if (isPacked(given) && inOrder(packed(route)) !== inOrder(asPackedNow(given)))
      return fail('bad-route', 'The plan holds what no plan has.')
    return ok(route)
  } catch (error) {
    return fail(
      'bad-route',
      `The plan cannot be read: ${error instanceof Error ? error.message : String(error)}.`,
    )
  }
}

/** The same text for the same values, however their names are ordered. */
const inOrder = (value: unknown): string =>
  JSON.stringify(value, (_, part: unknown) =>
    typeof part === 'object' && part !== null && !Array.isArray(part)
      ? Object.fromEntries(Object.entries(part).sort(([a], [b]) => (a < b ? -1 : 1)))
      : part,
  )
