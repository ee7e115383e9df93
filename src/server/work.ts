/** Takes work from the queue. */
import { hostname } from 'node:os'
import { doJob, type HeavyWork } from './doJob'
import { take } from './queue'

const AGAIN_MS = 2000

/** Which process this is, on which machine. */
const NAME = `${hostname()} ${process.pid}`

/**
 * From now on this process takes its share, until it leaves the queue. It waits for the database, and for whatever
 * else keeps it from the queue: a process that takes nothing is of no use.
 *
 * @param heavily how it does what keeps a processor busy; a process without leaves that to others
 */
export async function startWork(heavily?: HeavyWork): Promise<void> {
  let said = ''
  for (;;)
    try {
      await take('imports', ({ id }) => doJob(id, NAME))
      if (heavily) await take('heavy', ({ id }) => doJob(id, NAME, heavily))
      if (said) console.error('the queue can be reached again')
      return
    } catch (error) {
      const why = error instanceof Error ? error.message : String(error)
      // Once, not every two seconds.
      if (why !== said) console.error(`the queue cannot be reached, it is tried again: ${why}`)
      said = why
      await new Promise((wait) => setTimeout(wait, AGAIN_MS))
    }
}
