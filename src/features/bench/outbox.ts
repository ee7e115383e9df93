/**
 * Events on their way to the server, and those of other pages on the same bench on their way here. What is
 * not stored yet is also kept in the browser where that can be, so that a reload loses nothing; sending never
 * depends on it. Every event has an id, so that sending it again is no fault. What the server refuses is set apart, so
 * that nothing waits behind it for ever.
 */
import type { BenchEvent } from '@/core/coach/bench'
import type { Entry } from '@/core/coach/rebase'
import { forgetHere, keepHere, keptHere, keysHere } from '@/ui/browserStore'
import { entriesAfter, sendEntries, type Heard } from './benchServer'

export interface Saving {
  readonly state: 'saved' | 'saving' | 'waiting' | 'closed'
  /** Events that the server does not have yet. */
  readonly unsent: number
  /** Whether the browser keeps them, so that the page may be closed. */
  readonly isKeptHere: boolean
  /** Why they wait, where it is not for an answer. */
  readonly sentence?: string
}

/** What the server has refused, with the reason: kept in the browser until the solver lets it go. */
export interface Apart {
  readonly key: string
  readonly sentence: string
  readonly entries: readonly Entry[]
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
  /** The server has refused these, and they are set apart: the bench goes on from what is stored. */
  readonly onApart: (apart: Apart, code: string) => void
}

/** May be better later: no answer, or another solver is chosen in this browser now, to whom the bench is unknown. */
const WAITS = new Set(['away', 'nobody', 'not-found'])

const BATCH = 100
/** Characters of a batch: the server takes no more at once than it reads in no time. */
const BATCH_LENGTH = 400_000
/** Pauses between tries grow to the last of these. */
const RETRY_MS = [700, 1500, 3000, 6000]
/** How often the page asks what others have done. */
const FOLLOW_MS = 2500

export class Outbox {
  private pending: readonly Entry[] = []
  private sending = false
  private following = false
  private isOver = false
  /** How often something was set apart. */
  private refusals = 0
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
  private readonly apartPrefix: string

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
    this.apartPrefix = `merry-apart-${sessionId}-`
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

  /** Resolves when the server has everything: false if it refused something meanwhile. */
  async settled(): Promise<boolean> {
    const { refusals } = this
    // Sending goes on by itself, with its own pauses.
    while (this.pending.length > 0 && !this.isOver && !this.isClosed)
      await new Promise((wait) => setTimeout(wait, 100))
    return refusals === this.refusals
  }

  /** Nothing more is sent: the bench is closed. */
  end(): void {
    this.isOver = true
    this.tell('closed')
  }

  /** What was set apart, here or on pages that are gone. */
  apart(): Apart[] {
    return keysHere(this.apartPrefix).flatMap((key) => {
      const { sentence, entries } = readApart(keptHere(key))
      return entries.length > 0 ? [{ key, sentence, entries }] : []
    })
  }

  letGo({ key }: Apart): void {
    forgetHere(key)
  }

  private setApart(sentence: string, code: string): void {
    const key = this.apartPrefix + crypto.randomUUID()
    const apart = { key, sentence, entries: this.pending }
    keepHere(key, JSON.stringify({ sentence, entries: this.pending }))
    this.refusals++
    this.pending = []
    this.keep()
    this.hooks.onApart(apart, code)
  }

  /** As many as are sent at once. */
  private batch(): readonly Entry[] {
    let length = 0
    const most = this.pending.slice(0, BATCH)
    const over = most.findIndex((entry, i) => {
      length += JSON.stringify(entry).length
      return i > 0 && length > BATCH_LENGTH
    })
    return over < 0 ? most : most.slice(0, over)
  }

  private tell(state: Saving['state'], sentence?: string): void {
    if (this.isClosed) return
    this.hooks.onSaving({
      state,
      unsent: this.pending.length,
      isKeptHere: this.isKeptHere,
      ...(sentence === undefined ? {} : { sentence }),
    })
  }

  private async send(): Promise<boolean> {
    if (this.sending || this.pending.length === 0 || this.isOver || this.isClosed) return false
    this.sending = true
    clearTimeout(this.retry)
    if (this.tries === 0) this.tell('saving')
    const heard = await sendEntries(this.sessionId, this.after, this.batch())
    this.sending = false
    this.heardAt = performance.now()
    if (this.isClosed) return false
    if (!heard.ok) {
      const { code, sentence } = heard.problem
      if (WAITS.has(code)) this.wait(code === 'away' ? undefined : sentence)
      else {
        this.tries = 0
        this.setApart(sentence, code)
        if (!this.isOver) this.tell('saved')
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

  private wait(sentence?: string): void {
    const pause = RETRY_MS[Math.min(this.tries, RETRY_MS.length - 1)]
    this.tries++
    this.tell('waiting', sentence)
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
  const { after = 0, entries } = Object(parsed(text)) as Partial<Kept>
  return Number.isInteger(after) && Array.isArray(entries)
    ? { after, entries: entries.filter(isEntry) }
    : { after: 0, entries: [] }
}

function readApart(text: string | null): Omit<Apart, 'key'> {
  const { sentence } = Object(parsed(text)) as Partial<Apart>
  return { sentence: typeof sentence === 'string' ? sentence : '', entries: readKept(text).entries }
}

function parsed(text: string | null): unknown {
  try {
    return JSON.parse(text ?? '{}')
  } catch {
    return {}
  }
}

const isEntry = (value: unknown): value is Entry => {
  const { id, event } = Object(value) as { id?: unknown; event?: unknown }
  return typeof id === 'string' && typeof event === 'object' && event !== null && 'kind' in event
}
