/** A seeded source of random numbers: the same seed gives the same numbers everywhere. */
export interface Random {
  /** A uniform whole number from 0 to limit - 1. */
  below(limit: number): number
  /** A uniform number from 0 (included) to 1 (excluded). */
  unit(): number
}

/**
 * A 32-bit counter-based generator (a Weyl sequence with the finaliser of MurmurHash3), seeded by
 * any whole number. `below` rejects the tail, so that every value is equally likely.
 */
export function seededRandom(seed: number): Random {
  let counter = mix(seed | 0) ^ mix(Math.floor(seed / 0x100000000) | 0x5bd1e995)
  const next = () => {
    counter = (counter + 0x9e3779b9) | 0
    return mix(counter) >>> 0
  }
  return {
    below(limit) {
      const tail = 0x100000000 % limit
      for (;;) {
        const drawn = next()
        if (drawn < 0x100000000 - tail) return drawn % limit
      }
    },
    unit: () => next() / 0x100000000,
  }
}

function mix(x: number): number {
  x = Math.imul(x ^ (x >>> 16), 0x85ebca6b)
  x = Math.imul(x ^ (x >>> 13), 0xc2b2ae35)
  return x ^ (x >>> 16)
}
