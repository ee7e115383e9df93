/**
 * Events on their way to the server, and those of other pages on the same bench on their way here. What is
 * not stored yet is also kept in the browser where that can be, so that a reload loses nothing; sending never
 * depends on it. Every event has an id, so that sending it again is no fault.
 */
import type { BenchEvent } from '@/core/coach/bench'
import type { Entry } from '@/core/coach/rebase'
import { forgetHere, keepHere, keptHere, keysHere } from '@/ui/browserStore'
import { entriesAfter, sendEntries, type Heard } from './benchServer'

export interface Saving {
  readonly state: 'saved' | 'saving' | 'waiting' | 'refused'
  /** Events that the server does not have yet. */
  readonly unsent: number
  /** Whether the browser keeps them, so that the page may be closed. */
  readonly isKeptHere: boolean
  /** Why they were refused. */
  readonly sentence?: string
}

export const SAVED: Saving = { state: 'saved', unsent: 0, isKeptHere: true }

export interface OutboxHooks {
  readonly onSaving: (saving: Saving) => void
  /**
   * The server has stored these, in this order. If `others` (pages) made some of them, what is `left` to
   * send must be put behind them; what of it still holds is returned.
   */
  readonly onStored: (
    stored: readonly Entry[],
    others: readonly Entry[],
    left: readonly Entry[],
  ) => readonly Entry[]
}

const BATCH = 100
/** Pauses between tries grow to the last of these. */
const RETRY_MS = [700, 1500, 3000, 6000]
/** How often the page asks what others have done. */
const FOLLOW_MS = 2500

export class Outbox {
  private pending: readonly Entry[] = []
  private sending = false
  private following = false
  private refused?: string
  private tries = 0
  /** When the server has last said what is stored. */
  private heardAt = -Infinity
  private isClosed = false
  private isKeptHere = true
  private retry?: ReturnType<typeof setTimeout>
  private readonly follow: ReturnType<typeof setInterval>
  private readonly channel?: BroadcastChannel
  /** Each page has a key of its own in the browser's storage. */
  private readonly prefix: string
  private readonly key: string

  /**
   * @param after how many entries of the bench the page has
   */
  constructor(
    private readonly sessionId: string,
    private after: number,
    private readonly hooks: OutboxHooks,
  ) {
    this.prefix = `merry-bench-${sessionId}-`
    this.key = this.prefix + crypto.randomUUID()
    this.follow = setInterval(() => {
      // While there is no answer, the next try has its own time; and what was sent lately has told of others.
      if (this.tries === 0 && performance.now() - this.heardAt > FOLLOW_MS / 2) this.look()
    }, FOLLOW_MS)
    if (typeof BroadcastChannel === 'function') {
      this.channel = new BroadcastChannel(this.prefix)
      this.channel.onmessage = () => this.look()
    }
  }

  /** What earlier pages have kept, where some of it is not known; it stays kept until `takeOver`. */
  recover(known: ReadonlySet<string>): Kept[] {
    return this.foundKeys()
      .map((key) => readKept(keptHere(key)))
      .filter(({ entries }) => entries.some(({ id }) => !known.has(id)))
  }

  /** Takes what of it still holds; the page answers for it now. */
  takeOver(entries: readonly Entry[]): void {
    const keys = this.foundKeys()
    this.take(entries)
    // Where the browser keeps nothing new, what it has kept stays as it is.
    if (this.isKeptHere) keys.forEach(forgetHere)
  }

  private foundKeys(): string[] {
    return keysHere(this.prefix).filter((key) => key !== this.key)
  }

  /** Takes entries that are on the bench already and sends them. */
  take(entries: readonly Entry[]): void {
    if (entries.length === 0) return
    this.pending = [...this.pending, ...entries]
    this.keep()
    void this.send()
  }

  add(event: BenchEvent): void {
    this.take([{ id: crypto.randomUUID(), event }])
  }

  /** Resolves when the server has everything: false if it refused something. */
  async settled(): Promise<boolean> {
    // Sending goes on by itself, with its own pauses.
    while (this.pending.length > 0 && !this.refused && !this.isClosed)
      await new Promise((wait) => setTimeout(wait, 100))
    return !this.refused
  }

  private tell(state: Saving['state']): void {
    if (this.isClosed) return
    this.hooks.onSaving({
      state,
      unsent: this.pending.length,
      isKeptHere: this.isKeptHere,
      sentence: this.refused,
    })
  }

  private async send(): Promise<boolean> {
    if (this.sending || this.pending.length === 0 || this.refused || this.isClosed) return false
    this.sending = true
    clearTimeout(this.retry)
    if (this.tries === 0) this.tell('saving')
    const heard = await sendEntries(this.sessionId, this.after, this.pending.slice(0, BATCH))
    this.sending = false
    this.heardAt = performance.now()
    if (this.isClosed) return false
    if (!heard.ok) {
      if (heard.problem.code === 'away') this.wait()
      else {
        this.refused = heard.problem.sentence
        this.tell('refused')
      }
      return false
    }
    this.tries = 0
    this.merge(heard.value)
    this.channel?.postMessage('stored')
    if (this.pending.length > 0) void this.send()
    else this.tell('saved')
    return true
  }

  private wait(): void {
    const pause = RETRY_MS[Math.min(this.tries, RETRY_MS.length - 1)]
    this.tries++
    this.tell('waiting')
    this.retry = setTimeout(() => void this.send(), pause)
  }

  /** Asks what other pages have done, where nothing is being sent: else the answer tells it. */
  private look(): void {
    if (typeof document !== 'undefined' && document.visibilityState === 'hidden') return
    if (this.pending.length > 0) return void this.send()
    void this.ask()
  }

  private async ask(): Promise<void> {
    if (this.following || this.sending || this.isClosed) return
    this.following = true
    const asked = this.after
    const heard = await entriesAfter(this.sessionId, asked)
    this.following = false
    // What was stored meanwhile has been told with that answer.
    if (!heard.ok || this.isClosed || this.sending || this.after !== asked) return
    if (heard.value.entries.length > 0) this.merge(heard.value)
  }

  private merge({ entries }: Pick<Heard, 'entries'>): void {
    const own = new Map(this.pending.map((entry) => [entry.id, entry]))
    const stored: Entry[] = []
    const others: Entry[] = []
    for (const entry of entries) {
      const mine = own.get(entry.id)
      if (mine) stored.push(mine)
      else if ('event' in entry) {
        stored.push(entry)
        others.push(entry)
      }
    }
    const isStored = new Set(entries.map(({ id }) => id))
    this.after += entries.length
    const left = this.pending.filter(({ id }) => !isStored.has(id))
    this.pending = this.hooks.onStored(stored, others, left)
    this.keep()
  }

  private keep(): void {
    if (this.pending.length === 0) {
      forgetHere(this.key)
      this.isKeptHere = true
    } else
      this.isKeptHere = keepHere(
        this.key,
        JSON.stringify({ after: this.after, entries: this.pending }),
      )
  }

  close(): void {
    this.isClosed = true
    clearTimeout(this.retry)
    clearInterval(this.follow)
    this.channel?.close()
  }
}

/** What a page has kept in its browser: events, made when it had so many entries of the bench. */
export interface Kept {
  readonly after: number
  readonly entries: readonly Entry[]
}

/** What cannot be read was not written by us. */
function readKept(text: string | null): Kept {
  try {
    const { after, entries } = Object(JSON.parse(text ?? '{}')) as Partial<Kept>
    if (Number.isInteger(after) && Array.isArray(entries))
      return { after: Number(after), entries: entries.filter(isEntry) }
  } catch {
    // Not JSON at all.
  }
  return { after: 0, entries: [] }
}

const isEntry = (value: unknown): value is Entry => {
  const { id, event } = Object(value) as { id?: unknown; event?: unknown }
  return typeof id === 'string' && typeof event === 'object' && event !== null && 'kind' in event
}
