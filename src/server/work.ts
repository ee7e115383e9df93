/** Takes work from the queue. */
import { hostname } from 'node:os'
import { doJob, type HeavyWork } from './jobs'
import { isAway } from './pool'
import { take } from './queue'

const AGAIN_MS = 2000

/** Which process this is, on which machine. */
const NAME = `${hostname()} ${process.pid}`

/**
 * From now on this process takes its share, until it leaves the queue; it waits for the database.
 *
 * @param heavily how it does what keeps a processor busy; a process without leaves that to others
 */
export async function startWork(heavily?: HeavyWork): Promise<void> {
  for (;;)
    try {
      await take('imports', ({ id }) => doJob(id, NAME))
      if (heavily) await take('heavy', ({ id }) => doJob(id, NAME, heavily))
      return
    } catch (error) {
      if (!isAway(error)) throw error
      await new Promise((wait) => setTimeout(wait, AGAIN_MS))
    }
}
