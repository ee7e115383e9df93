import { describe, expect, it } from 'vitest'
import { seededRandom } from '../src/core/random'
import { hostilities, survive } from './hostile'

/** 2,000 in all; `./merry bench` takes 100,000 and prints the slowest. */
const EACH = 400

describe('input from a stranger', () => {
  it.each(hostilities().map((each) => [each.name, each] as const))(
    'is answered, whatever it is: %s',
    async (_, hostility) => {
      const { refused } = await survive(hostility, EACH, seededRandom(1103))
      expect(refused).toBeGreaterThan(EACH / 4)
    },
  )
})
