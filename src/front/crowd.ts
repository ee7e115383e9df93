/**
 * How many are served at once. Those beyond wait in a line, turns of a bench before pages; who would wait too long is
 * told so at once, and everyone else goes on.
 */
export interface CrowdOptions {
  /** Served at once. */
  readonly most: number
  /** May wait. */
  readonly mostWaiting: number
  readonly patienceMs: number
}

export const CROWD: CrowdOptions = { most: 40, mostWaiting: 400, patienceMs: 4000 }

interface Waiting {
  readonly enter: () => void
}

export class Crowd {
  private inside = 0
  private readonly lines: readonly [first: Waiting[], later: Waiting[]] = [[], []]

  constructor(private readonly options: CrowdOptions = CROWD) {}

  /** False if it is too much now. Whoever comes in says when they leave. */
  async comeIn(isFirst: boolean): Promise<boolean> {
    if (this.inside < this.options.most) {
      this.inside++
      return true
    }
    if (this.lines[0].length + this.lines[1].length >= this.options.mostWaiting) return false
    const line = this.lines[isFirst ? 0 : 1]
    return new Promise((resolve) => {
      const waiting = {
        enter: () => {
          clearTimeout(timer)
          resolve(true)
        },
      }
      const timer = setTimeout(() => {
        line.splice(line.indexOf(waiting), 1)
        resolve(false)
      }, this.options.patienceMs)
      line.push(waiting)
    })
  }

  leave(): void {
    const next = this.lines[0].shift() ?? this.lines[1].shift()
    if (next) next.enter()
    else this.inside--
  }
}
