/**
 * How many are served at once. Those beyond wait in a line; who would wait too long is told so at once, and everyone
 * else goes on.
 */
export interface CrowdOptions {
  /** Served at once. */
  readonly most: number
  /** May wait. */
  readonly mostWaiting: number
  readonly patienceMs: number
}

export class Crowd {
  private inside = 0
  private readonly line: (() => void)[] = []

  constructor(private readonly options: CrowdOptions) {}

  /** False if it is too much now. Whoever comes in says when they leave. */
  async comeIn(): Promise<boolean> {
    if (this.inside < this.options.most) {
      this.inside++
      return true
    }
    if (this.line.length >= this.options.mostWaiting) return false
    return new Promise((resolve) => {
      const enter = () => {
        clearTimeout(timer)
        resolve(true)
      }
      const timer = setTimeout(() => {
        this.line.splice(this.line.indexOf(enter), 1)
        resolve(false)
      }, this.options.patienceMs)
      this.line.push(enter)
    })
  }

  leave(): void {
    const next = this.line.shift()
    if (next) next()
    else this.inside--
  }
}
