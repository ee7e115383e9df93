import { spanOf, type Span } from '../analysis/invariants'

/** Vectors of sums as whole numbers, in mixed radix, and their cosets under what is not seen. */
export class Sums {
  private readonly cosets = new Map<number, number>()
  private readonly numbers = new Map<string, number>()
  private readonly span: Span

  constructor(
    private readonly moduli: readonly number[],
    private readonly unseen: readonly (readonly number[])[],
  ) {
    this.span = spanOf(unseen, moduli)
  }

  indexOf(vector: readonly number[]): number {
    let index = 0
    for (let c = vector.length - 1; c >= 0; c--) index = index * this.moduli[c] + vector[c]
    return index
  }

  plus(index: number, vector: readonly number[]): number {
    let rest = index
    let unit = 1
    let sum = 0
    for (let c = 0; c < vector.length; c++) {
      const modulus = this.moduli[c]
      const entry = rest % modulus
      rest = (rest - entry) / modulus
      sum += unit * ((entry + vector[c]) % modulus)
      unit *= modulus
    }
    return sum
  }

  cosetOf(index: number): number {
    if (this.unseen.length === 0) return index
    const known = this.cosets.get(index)
    if (known !== undefined) return known
    let rest = index
    const vector = this.moduli.map((modulus) => {
      const entry = rest % modulus
      rest = (rest - entry) / modulus
      return entry
    })
    const name = this.span.cosetOf(vector)
    const number = this.numbers.get(name) ?? this.numbers.size
    this.numbers.set(name, number)
    this.cosets.set(index, number)
    return number
  }
}
