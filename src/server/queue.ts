/**
 * The one queue of heavy work, on PostgreSQL: whichever process is free takes the next piece. Every server takes
 * its share, and so does whatever else is started with `./merry work`.
 */
import type { Client } from 'pg'
import PgBoss from 'pg-boss'
import { allRows, type Queryable } from './pool'

/** Pieces of work by their kind, with what they need to know. */
interface Work {
  readonly imports: { readonly id: string }
  readonly heavy: { readonly id: string }
}

const KINDS = ['imports', 'heavy'] as const satisfies readonly (keyof Work)[]

/** How often a process asks whether there is work. */
const ASK_SECONDS = 0.5

interface Shared {
  merryQueue?: Promise<PgBoss>
}

// On the global object: the build holds this module several times, and one queue is enough for a process.
const shared = globalThis as Shared

function boss(db: () => Queryable, more: Pick<PgBoss.ConstructorOptions, 'migrate' | 'supervise'>) {
  const made = new PgBoss({
    schema: 'queue',
    schedule: false,
    db: { executeSql: (text, values) => db().query(text, values as unknown[]) },
    ...more,
  })
  made.on('error', (error) => console.error('the queue:', error.message))
  return made
}

/**
 * Makes the queue's own tables, or brings them up to date, and the queues of all kinds. It belongs to the migration:
 * those who open the queue later find it, and make nothing at the same time as others do.
 */
export async function makeQueues(client: Client): Promise<void> {
  const making = boss(() => client, { migrate: true, supervise: false })
  await making.start()
  // A piece whose process has died is not taken again by itself: whoever waits for it is told.
  for (const kind of KINDS) await making.createQueue(kind, { name: kind, retryLimit: 0 })
  await making.stop({ graceful: false })
}

async function opened(): Promise<PgBoss> {
  const opening = boss(() => allRows, { migrate: false, supervise: true })
  await opening.start()
  return opening
}

function queue(): Promise<PgBoss> {
  shared.merryQueue ??= opened().catch((error: unknown) => {
    // The database may be there later.
    shared.merryQueue = undefined
    throw error
  })
  return shared.merryQueue
}

/** Gives a piece of work to whoever is free. */
export async function give<Kind extends keyof Work>(kind: Kind, work: Work[Kind]): Promise<void> {
  await (await queue()).send(kind, work)
}

/** Takes pieces of a kind, one after another, until this process leaves the queue. */
export async function take<Kind extends keyof Work>(
  kind: Kind,
  doIt: (work: Work[Kind]) => Promise<void>,
): Promise<void> {
  const boss = await queue()
  await boss.work<Work[Kind]>(
    kind,
    { pollingIntervalSeconds: ASK_SECONDS, batchSize: 1 },
    async ([job]) => doIt(job.data),
  )
}

/** Takes no more; what is being done is ended first, for some seconds. */
export async function leaveQueue(): Promise<void> {
  const boss = await shared.merryQueue
  shared.merryQueue = undefined
  await boss?.stop({ graceful: true, wait: true, timeout: 5000 })
}
