/**
 * The order of a permutation group by a strong generating set (Sims 1970): random elements first,
 * which soon find nearly everything, then every Schreier generator is sifted, which proves it.
 */
import { seededRandom } from '../random'

export type Permutation = Uint16Array

interface Level {
  readonly point: number
  readonly generators: Permutation[]
  /** Orbit of the point, in the order found. */
  readonly orbit: number[]
  /** For each point of the orbit an element that takes the level's point there, and its inverse. */
  readonly there: (Permutation | undefined)[]
  readonly back: (Permutation | undefined)[]
}

/** Called now and then with what has been done so far, 0 to 1, as far as it can be told. */
export type Progress = (share: number) => void

/** Sifts in a row that must find nothing before the proof begins. */
const QUIET = 24

export class PermutationGroup {
  readonly levels: readonly Level[]

  /**
   * Generators are permutations of 0 to degree - 1; no element but the identity keeps the base. Without the
   * proof the group may lack some elements, rarely; what it is said to contain it does contain.
   *
   * @param most an order that the group cannot exceed: where it is reached nothing is left to prove
   */
  constructor(
    readonly degree: number,
    generators: readonly Permutation[],
    base: readonly number[],
    progress: Progress = () => undefined,
    isProven = true,
    most?: bigint,
  ) {
    const identity = Uint16Array.from({ length: degree }, (_, i) => i)
    this.levels = base.map((point) => {
      const [there, back]: [(Permutation | undefined)[], (Permutation | undefined)[]] = [[], []]
      there[point] = back[point] = identity
      return { point, generators: [], orbit: [point], there, back }
    })
    const moving = generators.filter((g) => !isIdentity(g))
    for (const generator of moving) this.insert(generator)
    this.fillAtRandom(moving)
    if (isProven && this.order !== most) this.prove(progress)
  }

  get order(): bigint {
    return this.orderFrom(0)
  }

  /** The order of the subgroup that keeps the base points before a level. */
  orderFrom(level: number): bigint {
    return this.levels
      .slice(level)
      .reduce((product, { orbit }) => product * BigInt(orbit.length), 1n)
  }

  contains(element: Permutation): boolean {
    return this.sift(element, 0).level === undefined
  }

  /** All elements that keep the base points before a level: as many as `orderFrom` says. */
  *elementsFrom(level: number): Generator<Permutation> {
    const own = this.levels[level]
    if (!own) {
      yield Uint16Array.from({ length: this.degree }, (_, i) => i)
      return
    }
    for (const rest of this.elementsFrom(level + 1))
      for (const point of own.orbit) yield compose(own.there[point] as Permutation, rest)
  }

  /** Divides an element by the transversals; what is left, and the level where it stopped. */
  private sift(element: Permutation, from: number): { rest: Permutation; level?: number } {
    let rest = element
    for (let i = from; i < this.levels.length; i++) {
      const { point, back } = this.levels[i]
      const image = rest[point]
      const inverse = back[image]
      if (!inverse) return { rest, level: i }
      if (image !== point) rest = compose(inverse, rest)
    }
    return isIdentity(rest) ? { rest } : { rest, level: this.levels.length }
  }

  /** Takes an element in, if it is new; true if it was. */
  private insert(element: Permutation, from = 0): boolean {
    const { rest, level } = this.sift(element, from)
    if (level === undefined) return false
    if (level === this.levels.length) throw new Error('a permutation moves no base point')
    // The rest keeps the base points before its level, so it belongs to all levels up to it.
    for (let i = from; i <= level; i++) {
      this.levels[i].generators.push(rest)
      this.grow(this.levels[i])
    }
    return true
  }

  private grow(level: Level): void {
    for (let i = 0; i < level.orbit.length; i++) {
      const from = level.orbit[i]
      for (const generator of level.generators) {
        const to = generator[from]
        if (level.there[to]) continue
        const way = compose(generator, level.there[from] as Permutation)
        level.there[to] = way
        level.back[to] = invert(way)
        level.orbit.push(to)
      }
    }
  }

  /** Product replacement: random elements from a small pool that is stirred all the time. */
  private fillAtRandom(generators: readonly Permutation[]): void {
    if (generators.length === 0) return
    const random = seededRandom(1)
    const pool = Array.from(
      { length: Math.max(12, generators.length) },
      (_, i) => generators[i % generators.length],
    )
    const stir = (): Permutation => {
      const [i, step] = [random.below(pool.length), 1 + random.below(pool.length - 1)]
      const j = (i + step) % pool.length
      const other = random.below(2) ? pool[j] : invert(pool[j])
      pool[i] = random.below(2) ? compose(pool[i], other) : compose(other, pool[i])
      return pool[i]
    }
    for (let i = 0; i < 60; i++) stir()
    for (let quiet = 0; quiet < QUIET; quiet = this.insert(stir()) ? 0 : quiet + 1);
  }

  /** Sifts all Schreier generators, level by level from the last; starts over where one is new. */
  private prove(progress: Progress): void {
    let i = this.levels.length - 1
    while (i >= 0) {
      if (this.isClosed(i)) {
        progress((this.levels.length - i) / (this.levels.length + 1))
        i--
      } else i = this.levels.length - 1
    }
    progress(1)
  }

  private isClosed(index: number): boolean {
    const level = this.levels[index]
    for (const generator of level.generators)
      for (const from of level.orbit) {
        const to = generator[from]
        const way = compose(generator, level.there[from] as Permutation)
        const schreier = compose(level.back[to] as Permutation, way)
        if (this.insert(schreier, index + 1)) return false
      }
    return true
  }
}

/** b first, then a. */
export function compose(a: Permutation, b: Permutation): Permutation {
  const product = new Uint16Array(a.length)
  for (let i = 0; i < a.length; i++) product[i] = a[b[i]]
  return product
}

export function invert(a: Permutation): Permutation {
  const inverse = new Uint16Array(a.length)
  for (let i = 0; i < a.length; i++) inverse[a[i]] = i
  return inverse
}

function isIdentity(a: Permutation): boolean {
  for (let i = 0; i < a.length; i++) if (a[i] !== i) return false
  return true
}
