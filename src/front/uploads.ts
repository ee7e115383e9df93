/**
 * Files that come in: taken by the door, because whoever answers pages would gather them in memory first. Each goes
 * piece by piece into the database, no faster than that takes it, and from there through the queue.
 */
import type { IncomingMessage } from 'node:http'
import { fail, type Result } from '../core/result'
import { failureOf, NOBODY } from '../server/failure'
import { beginImport, findJob, importKindOf, type ImportKind } from '../server/jobs'
import { solverNamed } from '../server/named'

/** Where files are sent to, and whether the answer waits until they are read. */
const ADDRESSES: ReadonlyMap<string, { readonly kind?: ImportKind; readonly waits: boolean }> =
  new Map([
    ['/api/imports', { waits: false }],
    ['/api/log', { kind: 'log', waits: true }],
  ])

const LOOK_MS = 200

export const isUpload = (method: string, path: string): boolean =>
  method === 'POST' && ADDRESSES.has(path)

const AWAY = fail('away', 'The database does not answer now. Nothing was imported; try it again.')

/** @param named the solver whom the browser has kept, if any */
export async function takeUpload(
  request: IncomingMessage,
  url: URL,
  named: string | undefined,
): Promise<Result<unknown>> {
  const address = ADDRESSES.get(url.pathname)
  const asked: Result<[ImportKind, string | undefined]> = address?.kind
    ? { ok: true, value: [address.kind, undefined] }
    : importKindOf(url.searchParams)
  if (!asked.ok) return asked
  try {
    const profileId = await solverNamed(named)
    if (profileId === undefined) return NOBODY
    const [kind, subject] = asked.value
    const length = request.headers['content-length']
    const announced = length === undefined ? undefined : Number(length)
    const begun = await beginImport(profileId, kind, { pieces: whole(request), announced }, subject)
    if (!begun.ok || !address?.waits) return begun
    return await ended(profileId, begun.value, () => request.socket.destroyed)
  } catch (error) {
    if (error instanceof CutOff)
      return fail('cut-off', 'The file did not arrive whole. Nothing was imported.', {
        field: 'file',
      })
    return failureOf(error, AWAY)
  }
}

class CutOff extends Error {}

/** @throws CutOff where the sender goes away before the end */
async function* whole(request: IncomingMessage): AsyncGenerator<Uint8Array> {
  try {
    for await (const piece of request) yield piece as Uint8Array
  } catch {
    throw new CutOff()
  }
  if (!request.complete) throw new CutOff()
}

/** What came of it, as long as somebody waits for that. */
async function ended(
  profileId: string,
  id: string,
  isGone: () => boolean,
): Promise<Result<unknown>> {
  while (!isGone()) {
    const job = await findJob(profileId, id)
    if (!job || job.state === 'stopped') return fail('stopped', 'Stopped. Nothing was imported.')
    if (job.state === 'done') return { ok: true, value: job.value }
    if (job.state === 'refused' && job.problem) return { ok: false, problem: job.problem }
    await new Promise((wait) => setTimeout(wait, LOOK_MS))
  }
  return fail('gone', 'Nobody waits for it any more.')
}
