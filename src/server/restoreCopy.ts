/** The copies of a backup, with their care and their benches, taken as they are read. */
import { randomUUID } from 'node:crypto'
import { number, object, string, type Schema } from 'yup'
import { puzzleById } from '../core/catalog'
import { follow, openBench, turnsMade, type Bench, type BenchEvent } from '../core/coach/bench'
import type { Bounds } from '../core/plain'
import type { Puzzle } from '../core/puzzle/compile'
import { fail } from '../core/result'
import { schoolNamed } from '../core/schools'
import { readState } from '../core/state'
import { EVENT_BOUNDS, eventSchema } from './benchEventSchema'
import { moment } from './moment'
import { MOST_EVENTS } from './benchSessions'
import { addCare } from './care'
import { careSchema } from './careSchema'
import { addCopy } from './copies'
import { copySchema } from './copySchema'
import { pathWords, type Item, type Path } from './files/items'
import { BadFile, need } from './files/source'
import { checked } from './outside'
import type { Queryable } from './pool'
import { rests } from './rest'

const PART: Bounds = { depth: 14, values: 30_000, text: 50_000, list: 2000 }

/** Paths within the list of copies: a copy, its lists, a bench, its events. */
export const COPY_READING = {
  opens: (path: Path): boolean => {
    const [, field, , inBench] = path
    if (path.length <= 1) return true
    if (path.length === 2) return field === 'care' || field === 'benches'
    if (field !== 'benches') return false
    return path.length === 3 || (path.length === 4 && inBench === 'events')
  },
  boundsOf: (path: Path): Bounds => (path[3] === 'events' ? EVENT_BOUNDS : PART),
}

const benchSchema = object({
  school: string().max(80).nullable().default(null),
  variant: object().default({}),
  start_state: string().max(400).required(),
  scramble: string().max(4000).default(''),
  seed: number().integer().min(0).max(Number.MAX_SAFE_INTEGER).nullable().default(null),
  laid_by: string().oneOf(['scramble', 'colours', 'pieces']).required(),
  status: string().oneOf(['open', 'finished', 'aside']).required(),
  created_at: moment().required(),
  ended_at: moment().nullable().default(null),
}) as unknown as Schema<StoredBench>

interface StoredBench {
  readonly school: string | null
  readonly variant: object
  readonly start_state: string
  readonly scramble: string
  readonly seed: number | null
  readonly laid_by: string
  readonly status: string
  readonly created_at: Date
  readonly ended_at: Date | null
}

interface OpenCopy {
  readonly path: Path
  id?: string
  puzzleId?: string
  puzzle?: Puzzle
}

interface OpenBench {
  readonly path: Path
  readonly fields: Record<string, unknown>
  count: number
}

/** Events are gathered to so many before they are put away. */
const BATCH = 50

export class CopyReading {
  /** Of the copies that were made, in the order of the file. */
  readonly ids: string[] = []
  private copy?: OpenCopy
  private bench?: OpenBench
  private events: unknown[] = []
  private readonly rest = rests()

  constructor(
    private readonly profileId: string,
    private readonly client: Queryable,
  ) {}

  /** @param item with its path within the list of copies */
  async take(item: Item): Promise<void> {
    const { path, value, opened } = item
    if (this.bench && !lies(path, this.bench.path)) await this.endBench()
    if (this.copy && !lies(path, this.copy.path)) this.endCopy()
    const [at, field, , inBench] = path
    if (at === undefined) return
    if (path.length === 1) {
      if (opened !== 'object') throw wrong(path, 'it must be a copy with its benches.')
      this.copy = { path }
    } else if (path.length === 2) await this.takeField(item)
    else if (field === 'care') await this.takeCare(item)
    else if (path.length === 3) {
      if (opened !== 'object') throw wrong(path, 'it must be a bench.')
      this.bench = { path, fields: {}, count: 0 }
      await this.client.query(
        'create temporary table if not exists given_events (seq integer, event jsonb) on commit drop',
      )
      await this.client.query('truncate given_events')
    } else if (path.length === 4 && this.bench) {
      if (inBench === 'events' && opened !== 'list') throw wrong(path, 'it must be a list.')
      if (inBench !== 'events' && typeof inBench === 'string') this.bench.fields[inBench] = value
    } else await this.takeEvent(item)
    await this.rest()
  }

  async end(): Promise<void> {
    if (this.bench) await this.endBench()
    if (this.copy) this.endCopy()
  }

  private endCopy(): void {
    if (this.copy && this.copy.id === undefined) throw wrong(this.copy.path, 'copy is missing.')
    this.copy = undefined
  }

  private async takeField({ path, value, opened }: Item): Promise<void> {
    const [, field] = path
    if (field === 'copy') return this.takeCopy(path, value)
    if (field !== 'care' && field !== 'benches') return
    if (opened !== 'list') throw wrong(path, 'care and benches must be lists.')
    if (this.copy?.id === undefined) throw wrong(path, 'copy must stand before care and benches.')
  }

  private async takeCopy(path: Path, value: unknown): Promise<void> {
    const part = nameOf(path)
    const { puzzle_id, name, scheme, remarks } = Object(value) as Record<string, unknown>
    const read = need(
      part,
      await checked(copySchema, { puzzleId: puzzle_id, name, scheme, remarks }),
    )
    const puzzle = need(part, puzzleById(read.puzzleId))
    const colours = puzzle.definition.colours.map((each) => each.id).join()
    if (read.scheme.map((each) => each.id).join() !== colours)
      need(part, fail('bad-file', 'its colours are not those of its puzzle.'))
    const id = await addCopy(this.profileId, read, this.client)
    this.ids.push(id)
    Object.assign(this.copy ?? {}, { id, puzzle, puzzleId: read.puzzleId })
  }

  private async takeCare({ path, value }: Item): Promise<void> {
    const { happened_on, kind, note } = Object(value) as Record<string, unknown>
    const known = need(
      nameOf(path),
      await checked(careSchema, { happenedOn: happened_on, kind, note }),
    )
    await addCare(this.profileId, this.copy?.id ?? '', known, this.client)
  }

  private async takeEvent({ path, value }: Item): Promise<void> {
    const { bench } = this
    if (!bench) return
    if (++bench.count > MOST_EVENTS) throw wrong(bench.path, `a bench takes ${MOST_EVENTS} events.`)
    const event = need(
      nameOf(path.slice(0, 3)),
      await checked(eventSchema as unknown as Schema<BenchEvent>, value, EVENT_BOUNDS),
    )
    this.events.push(event)
    if (this.events.length >= BATCH) await this.putAway()
  }

  private async putAway(): Promise<void> {
    if (this.events.length === 0 || !this.bench) return
    await this.client.query(
      `insert into given_events select $1 + ordinality - 1, value
       from jsonb_array_elements($2::jsonb) with ordinality`,
      [this.bench.count - this.events.length, JSON.stringify(this.events)],
    )
    this.events = []
  }

  private async endBench(): Promise<void> {
    const { bench: read, copy } = this
    if (!read || !copy?.puzzle || copy.id === undefined) return
    await this.putAway()
    this.bench = undefined
    const part = nameOf(read.path)
    const known = need(part, await checked(benchSchema, read.fields))
    const start = need(part, readState(copy.puzzle, known.start_state))
    if (known.school !== null) need(part, schoolNamed(copy.puzzleId ?? '', known.school))
    const bench = await this.replay(part, openBench(copy.puzzle, start))
    const id = randomUUID()
    await this.client.query(
      `insert into bench_sessions (id, profile_id, copy_id, school, variant, start_state, scramble, seed,
         laid_by, status, created_at, ended_at, turns)
       values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13)`,
      [
        ...[id, this.profileId, copy.id, known.school, JSON.stringify(known.variant)],
        ...[known.start_state, known.scramble, known.seed, known.laid_by, known.status],
        ...[known.created_at, known.ended_at],
        // It stands in the log with them.
        known.status === 'aside' ? turnsMade(bench) : null,
      ],
    )
    await this.client.query(
      `insert into bench_events (session_id, seq, event) select $1, seq, event from given_events`,
      [id],
    )
  }

  /** Every event is made on the engine before it is kept. */
  private async replay(part: string, start: Bench): Promise<Bench> {
    let bench = start
    for (let from = -1; ;) {
      const { rows } = (await this.client.query(
        'select seq, event from given_events where seq > $1 order by seq limit 200',
        [from],
      )) as { rows: { seq: number; event: BenchEvent }[] }
      const last = rows.at(-1)
      if (!last) return bench
      from = last.seq
      for (const { event } of rows) {
        try {
          bench = follow(bench, event)
        } catch (error) {
          const why = (error as Error).message
          need(part, fail('bad-file', `what happened cannot be replayed: ${why}.`))
        }
        await this.rest()
      }
    }
  }
}

const nameOf = (path: Path): string => `copies${pathWords(path)}`

const wrong = (path: Path, sentence: string) =>
  new BadFile(nameOf(path), `${nameOf(path)}: ${sentence}`)

/** Whether a path is another one, or lies within it. */
const lies = (path: Path, within: Path): boolean => within.every((key, i) => path[i] === key)
