/**
 * The one queue of heavy work, on PostgreSQL: whichever process is free takes the next piece. Every server takes
 * its share, and so does whatever else is started with `./merry work`.
 */
import PgBoss from 'pg-boss'
import { pool } from './pool'

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

async function opened(): Promise<PgBoss> {
  const boss = new PgBoss({
    // The queue's own tables; they are made when it is opened first.
    schema: 'queue',
    schedule: false,
    db: { executeSql: (text, values) => pool().query(text, values as unknown[]) },
  })
  boss.on('error', (error) => console.error('the queue', error.message))
  await boss.start()
  // A piece whose process has died is not taken again by itself: whoever waits for it is told.
  for (const kind of KINDS) await boss.createQueue(kind, { name: kind, retryLimit: 0 })
  return boss
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
