/** Turns that are made on a bench, and those that others have made on it. */
import { fail, ok, type Result } from '../core/result'
import { BATCH_BOUNDS, batchSchema } from '../server/benchEventSchema'
import { appendEntries, appendQuickly, MOST_EVENTS } from '../server/benchSessions'
import { NobodyChosen } from '../server/failure'
import { isId } from '../server/id'
import { checked, jsonIn } from '../server/outside'
import { whoAsks } from '../server/profiles'
import { ownEntriesAfter } from '../server/snapshots'
import type { Asked } from './asked'

const gone = fail('not-found', 'This bench is not there any more.')

/** What is stored beyond the entries that the page knows. */
export async function follow({ name, query, solver }: Asked): Promise<Result<unknown>> {
  const after = Number(query.get('after') ?? '0')
  if (!Number.isInteger(after) || after < 0 || after > MOST_EVENTS)
    return fail('bad-input', 'after must be the number of known events.', { field: 'after' })
  if (!isId(name)) return gone
  // Every open page asks every few seconds: who it is is found out only where the bench is not theirs.
  const entries =
    (isId(solver) && (await ownEntriesAfter(solver, name, after))) ||
    (await ownEntriesAfter(await idOf(solver), name, after))
  return entries ? ok({ entries }) : gone
}

/** Stores entries: an address of its own, so that a page that is older than the program can still send. */
export async function append({ name, solver, body }: Asked): Promise<Result<unknown>> {
  if (!isId(name)) return gone
  const json = jsonIn(body ?? new Uint8Array())
  if (!json.ok) return json
  const read = await checked(batchSchema, json.value, BATCH_BOUNDS)
  if (!read.ok) return read
  const { after, entries } = read.value
  // The id that the browser has kept is asked of the database together with the bench, whosever it is.
  const quick = isId(solver) && (await appendQuickly(solver, name, after, entries))
  return quick ? ok(quick) : appendEntries(await idOf(solver), name, after, entries)
}

/** @throws NobodyChosen */
async function idOf(named: string | undefined): Promise<string> {
  const solver = await whoAsks(named)
  if (!solver) throw new NobodyChosen('nobody is chosen')
  return solver.id
}
