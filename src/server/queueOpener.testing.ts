/** A process that opens the queue of one database after another when it is told: see queue.test.ts. */
import { migrate } from './migrate'
import { closePool } from './pool'
import { give, leaveQueue, take } from './queue'

process.on('message', (url: string) => {
  void (async () => {
    process.env.DATABASE_URL = url
    try {
      await migrate(url)
      await take('imports', () => Promise.resolve())
      await give('heavy', { id: 'none' })
      process.send?.('opened')
    } catch (error) {
      process.send?.(String(error))
    } finally {
      await leaveQueue()
      await closePool()
      process.send?.('closed')
    }
  })()
})
