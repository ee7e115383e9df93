/** `./merry bench --hostile`: 100,000 inputs from a stranger; none may throw, and none may take long. */
import { seededRandom } from '../src/core/random'
import { hostilities, survive } from './hostile'

const EACH = 20_000
/** Longer than this nothing may take. */
const LIMIT_MS = 2000

export async function measureHostile(): Promise<void> {
  for (const hostility of hostilities()) {
    const { name, count, refused, slowestMs, slowest } = await survive(
      hostility,
      EACH,
      seededRandom(1104),
    )
    const megabytes = Math.round(process.memoryUsage().rss / 1e6)
    console.log(
      `${name.padEnd(14)} ${count} inputs, ${refused} refused, the slowest ${slowestMs.toFixed(0)} ms, memory ${megabytes} MB`,
    )
    if (slowestMs > LIMIT_MS) throw new Error(`that is too slow: ${slowest}`)
  }
}
