/** `./merry work`: takes a share of the heavy work of a program that runs, here or on another machine. */
import { keepRequestsApart } from '../src/server/asking'
import { pool } from '../src/server/pool'
import { startWork } from '../src/server/work'

keepRequestsApart()
const stop = await startWork()
console.error('merry: taking work from the queue (Ctrl+C stops it)')
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.once(signal, () => void stop().then(() => pool().end()))
