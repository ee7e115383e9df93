/**
 * What belongs to one request: who asks. It goes along with everything that is done for the request, through
 * pages, routes and actions alike, and is gone with it.
 */
import { AsyncLocalStorage } from 'node:async_hooks'
import { subscribe } from 'node:diagnostics_channel'
import { limitReach, type Reach } from '../core/catalog/reach'

/** Who asks. */
export interface Profile {
  readonly id: string
  readonly nickname: string
  /** The puzzles and schools of this solver's own; what comes and goes while a request is answered is noted. */
  readonly reach: { readonly [kind in keyof Reach]: Set<string> }
}

interface Asking {
  profile?: Promise<Profile | undefined>
  reach?: Profile['reach']
}

// On the global object: the build holds this module several times, and all are to share the one store.
const shared = globalThis as { merryAsking?: AsyncLocalStorage<Asking> }
const storage = (shared.merryAsking ??= new AsyncLocalStorage<Asking>())

const NOTHING: Reach = { puzzles: new Set(), schools: new Set() }

/** Gives every request that this process answers a store of its own; until it is known who asks, nothing is in reach. */
export function keepRequestsApart(): void {
  // Published in the request's own context, before anything is done for it.
  subscribe('http.server.request.start', () => storage.enterWith({}))
  limitReach(() => storage.getStore()?.reach ?? NOTHING)
}

/** Does something as a request of its own does it: for tests, and for work that no request has asked for. */
export const asRequest = <T>(work: () => Promise<T>): Promise<T> => storage.run({}, work)

/** Does something for a solver who owns nothing yet: what comes to be owned meanwhile is in reach, and nothing else. */
export const asNewSolver = <T>(work: () => Promise<T>): Promise<T> =>
  storage.run({ reach: { puzzles: new Set(), schools: new Set() } }, work)

/** Who asks, found out once a request. */
export async function asker(
  find: () => Promise<Profile | undefined>,
): Promise<Profile | undefined> {
  const store = storage.getStore()
  if (!store) return find()
  store.profile ??= find()
  const profile = await store.profile
  store.reach = profile?.reach
  return profile
}

/** Finds out anew who asks, when that or their name has just been changed. */
export function askAnew(): void {
  const store = storage.getStore()
  if (store) store.profile = undefined
}

/** What the asker has just come to own. */
export function nowInReach(kind: keyof Reach, id: string): void {
  storage.getStore()?.reach?.[kind].add(id)
}

export function noLongerInReach(kind: keyof Reach, id: string): void {
  storage.getStore()?.reach?.[kind].delete(id)
}
