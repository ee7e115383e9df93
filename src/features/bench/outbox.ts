/**
 * Events on their way to the server. They are kept in the browser until the server has them, so a
 * reload or a lost connection loses nothing.
 */
import type { BenchEvent } from '@/core/coach/bench'
import { recordEvents } from './actions'

export type Saving = 'saved' | 'saving' | 'waiting' | 'refused'

const RETRY_MS = 2000
const BATCH = 100

export class Outbox {
  /** Events that the server does not have yet; the first has this position. */
  private pending: BenchEvent[] = []
  private sending = false
  private timer?: ReturnType<typeof setTimeout>

  constructor(
    private readonly sessionId: string,
    private position: number,
    private readonly onChange: (saving: Saving, sentence?: string) => void,
  ) {}

  private get key(): string {
    return `merry-bench-${this.sessionId}`
  }

  /** Events of an earlier page that did not reach the server. */
  recover(): BenchEvent[] {
    try {
      const kept = JSON.parse(localStorage.getItem(this.key) ?? 'null') as {
        position: number
        events: BenchEvent[]
      } | null
      if (!kept || kept.position > this.position) return []
      const missing = kept.events.slice(this.position - kept.position)
      for (const event of missing) this.add(event)
      return missing
    } catch {
      // What cannot be read was not written by us.
      localStorage.removeItem(this.key)
      return []
    }
  }

  add(event: BenchEvent): void {
    this.pending.push(event)
    this.keep()
    void this.send()
  }

  /** Resolves when the server has everything, or rejects nothing: false if it refused. */
  async settled(): Promise<boolean> {
    while (this.pending.length > 0) {
      if (!(await this.send())) await new Promise((wait) => setTimeout(wait, 200))
      if (this.refused) return false
    }
    return true
  }

  private refused = false

  private async send(): Promise<boolean> {
    if (this.sending || this.pending.length === 0 || this.refused) return false
    this.sending = true
    clearTimeout(this.timer)
    this.onChange('saving')
    const batch = this.pending.slice(0, BATCH)
    try {
      const stored = await recordEvents(this.sessionId, { from: this.position, events: batch })
      if (!stored.ok) {
        this.refused = true
        this.onChange('refused', stored.problem.sentence)
        return false
      }
      this.pending = this.pending.slice(stored.value - this.position)
      this.position = stored.value
      this.keep()
      this.onChange(this.pending.length > 0 ? 'saving' : 'saved')
    } catch {
      this.onChange('waiting')
      this.timer = setTimeout(() => void this.send(), RETRY_MS)
      return false
    } finally {
      this.sending = false
    }
    if (this.pending.length > 0) void this.send()
    return true
  }

  private keep(): void {
    if (this.pending.length === 0) localStorage.removeItem(this.key)
    else
      localStorage.setItem(
        this.key,
        JSON.stringify({ position: this.position, events: this.pending }),
      )
  }

  close(): void {
    clearTimeout(this.timer)
  }
}
