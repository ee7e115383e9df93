/** Takes work from the queue, whatever kind it is. */
import { hostname } from 'node:os'
import { doImport } from './imports'
import { isAway } from './pool'
import { take } from './queue'

const AGAIN_MS = 2000

/** Which process this is, on which machine. */
const NAME = `${hostname()} ${process.pid}`

/** From now on this process takes its share, until the function returned is called; it waits for the database. */
export async function startWork(): Promise<() => Promise<void>> {
  for (;;)
    try {
      return await take('imports', ({ id }) => doImport(id, NAME))
    } catch (error) {
      if (!isAway(error)) throw error
      await new Promise((wait) => setTimeout(wait, AGAIN_MS))
    }
}
