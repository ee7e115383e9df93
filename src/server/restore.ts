/**
 * A backup read back (docs/backup-file.md), piece by piece: what comes back is a solver of its own, all of it or
 * nothing. Its parts are taken in the order in which they need each other; a file that has them in another is read
 * through more than once.
 */
import type { Schema } from 'yup'
import { object, string } from 'yup'
import { readDefinition } from '../core/puzzle/readDefinition'
import type { Bounds } from '../core/plain'
import { fail, ok, type Result } from '../core/result'
import { DEFAULT_SETTINGS, settingsSchema } from '../core/settings'
import { capital } from '../core/phrases'
import { importAlgorithms } from './algorithms'
import { asNewSolver } from './asking'
import { FORMAT, VERSION } from './backup'
import { itemsOf, type Item, type Path } from './files/items'
import { BadFile, need, told, type Source } from './files/source'
import { LONGEST_FILE, MOST_SOLVES, sizeWords } from './limits'
import { LOG_READING, LogReading, SolveStore, type Say } from './logReading'
import { checked } from './outside'
import { addOwnPuzzle } from './ownPuzzles'
import { keepSchool } from './ownSchools'
import { transactionOfAll, type Queryable } from './pool'
import { keepSettings } from './profiles'
import { COPY_READING, CopyReading } from './restoreCopy'

/** A puzzle before what is of it, copies before what was solved on them. */
const ORDER = ['settings', 'puzzles', 'schools', 'copies', 'solvedOn', 'log', 'algorithms'] as const
type Part = (typeof ORDER)[number]

const MOST: Partial<Record<Part, number>> = {
  puzzles: 200,
  schools: 50,
  copies: 2000,
  algorithms: 500,
}

/** A file of sequences is the longest thing that comes whole. */
const WHOLE: Bounds = { depth: 14, values: 60_000, text: 50_000, list: 2000 }

const READING = {
  opens: (path: Path): boolean => {
    if (path.length <= 1) return path[0] !== 'settings'
    if (path[0] === 'copies') return COPY_READING.opens(path.slice(1))
    return path[0] === 'log' && LOG_READING.opens(path.slice(1))
  },
  boundsOf: (path: Path): Bounds => {
    if (path[0] === 'copies') return COPY_READING.boundsOf(path.slice(1))
    return path[0] === 'log' ? LOG_READING.boundsOf(path.slice(1)) : WHOLE
  },
}

/**
 * Makes a solver of a backup; the id is returned. The nickname is the file's, or with a number where it is taken.
 *
 * @param say is told how much is done, 0 to 1
 * @param end is done together with what is stored, or not at all
 */
export async function restore(
  source: Source,
  say: Say,
  end: (id: string, client: Queryable) => Promise<void>,
): Promise<Result<string>> {
  try {
    if (source.bytes > LONGEST_FILE)
      throw new BadFile('file', `the file is larger than ${sizeWords(LONGEST_FILE)}.`)
    return ok(
      await asNewSolver(() =>
        // The solver is made in it, and who waits for it is another.
        transactionOfAll(async (client) => {
          const id = await new Restoring(client).read(source, say)
          await end(id, client)
          return id
        }),
      ),
    )
  } catch (error) {
    if (!(error instanceof BadFile)) throw error
    const { field, sentence, line } = error
    const words = line === undefined ? capital(sentence) : `Line ${line}, ${sentence}`
    return fail('bad-file', `${words} Nothing was restored.`, { field })
  }
}

class Restoring {
  private id = ''
  private next = 0
  private readonly said = new Set<string>()
  private copies?: CopyReading
  private readonly solvedOn: (number | null)[] = []
  private log?: LogReading
  private store?: SolveStore

  constructor(private readonly client: Queryable) {}

  async read(source: Source, say: Say): Promise<string> {
    for (let before = -1; this.next < ORDER.length;) {
      if (this.next === before)
        throw new BadFile(ORDER[this.next], `${ORDER[this.next]} is missing.`)
      before = this.next
      await this.readThrough(told(source, say))
    }
    for (const field of ['format', 'version'])
      if (!this.said.has(field)) throw new BadFile(field, `${field} is missing.`)
    return this.id
  }

  /** Takes every part whose turn it is. */
  private async readThrough(source: Source): Promise<void> {
    let open: Part | undefined
    try {
      for await (const item of itemsOf(source.read(), READING)) {
        const [part] = item.path
        if (part === undefined) {
          if (item.opened !== 'object')
            throw new BadFile('file', 'a backup is an object with fields.')
          continue
        }
        if (open !== undefined && part !== open) {
          await this.end(open)
          open = undefined
        }
        if (item.path.length === 1) this.greet(`${part}`, item)
        if (part === ORDER[this.next]) open = ORDER[this.next]
        if (open !== undefined) await this.take(open, item)
      }
      if (open !== undefined) await this.end(open)
    } finally {
      this.log?.leave()
    }
  }

  /** What may stand in the file, and of which form. */
  private greet(part: string, { value, opened }: Item): void {
    this.said.add(part)
    if (part === 'format' || part === 'version') {
      const wanted = part === 'format' ? FORMAT : VERSION
      const words =
        part === 'format' ? `format must be ${FORMAT}.` : `only version ${VERSION} is known.`
      if (value !== wanted) throw new BadFile(part, words)
      return
    }
    if (!ORDER.includes(part as Part))
      throw new BadFile(
        part.slice(0, 40),
        `the file has a field that is not known: ${part.slice(0, 40)}.`,
      )
    const isObject = part === 'settings' || part === 'log'
    const isRight = isObject
      ? opened === 'object' || (typeof value === 'object' && value !== null)
      : opened === 'list'
    if (!isRight)
      throw new BadFile(part, `${part} must be ${isObject ? 'an object with fields' : 'a list'}.`)
  }

  private async take(part: Part, item: Item): Promise<void> {
    const [, at] = item.path
    if (Number(at) >= (MOST[part] ?? Infinity))
      throw new BadFile(part, `${part}: there are more than ${MOST[part]}.`)
    if (part === 'settings') return this.takeSettings(item.value)
    if (part === 'copies') {
      this.copies ??= new CopyReading(this.id, this.client)
      return this.copies.take({ ...item, path: item.path.slice(1) })
    }
    if (part === 'log') return this.takeLog({ ...item, path: item.path.slice(1) })
    if (at === undefined) return
    if (part === 'solvedOn') return this.takePlace(item.value)
    const name = `${part}[${at}]`
    if (part === 'puzzles') {
      const definition = need(name, readDefinition(item.value))
      need(name, await addOwnPuzzle(this.id, definition, this.client))
    } else if (part === 'schools') {
      const { puzzle, school } = need(name, await checked(schoolEntrySchema, item.value))
      need(name, await keepSchool(this.id, puzzle, school, this.client))
    } else {
      const { puzzle } = Object(item.value) as { puzzle?: unknown }
      const id = typeof puzzle === 'string' ? puzzle : ''
      need(name, await importAlgorithms(this.id, id, item.value, this.client))
    }
  }

  private async takeSettings(value: unknown): Promise<void> {
    const { nickname, ...settings } = need(
      'settings',
      await checked(settingsSchema, { ...DEFAULT_SETTINGS, ...Object(value) }),
    )
    this.id = await newProfile(nickname, this.client)
    await keepSettings(this.id, settings, this.client)
  }

  private takePlace(value: unknown): void {
    if (this.solvedOn.length >= MOST_SOLVES)
      throw new BadFile('solvedOn', `solvedOn: there are more than ${MOST_SOLVES}.`)
    const isPlace = value === null || (Number.isInteger(value) && Number(value) >= 0)
    if (!isPlace) throw new BadFile('solvedOn', 'solvedOn must be numbers of copies, or null.')
    this.solvedOn.push(value as number | null)
  }

  private async takeLog(item: Item): Promise<void> {
    if (!this.log) {
      const store = (this.store = new SolveStore(this.id, this.client))
      let at = 0
      this.log = new LogReading({
        keepsPuzzles: true,
        puzzle: (definition) => addOwnPuzzle(this.id, definition, this.client),
        solve: (solve) => {
          const place = this.solvedOn[at++] ?? null
          const copyId = place === null ? undefined : this.copies?.ids[place]
          return store.add({ ...solve, copyId })
        },
      })
    }
    try {
      await this.log.take(item)
    } catch (error) {
      if (!(error instanceof BadFile)) throw error
      throw new BadFile(`log.${error.field}`, `log, ${error.field}: ${error.sentence}`, error.line)
    }
  }

  private async end(part: Part): Promise<void> {
    if (part === 'copies') await this.copies?.end()
    if (part === 'log') {
      this.log?.end(true)
      await this.store?.flush()
      if (this.log?.solves !== this.solvedOn.length)
        throw new BadFile('solvedOn', 'solvedOn must have one entry for each solve of the log.')
    }
    this.next++
  }
}

const schoolEntrySchema = object({
  puzzle: string().max(80).required(),
  school: object().required(),
}).noUnknown() as unknown as Schema<{ puzzle: string; school: object }>

/** Under the first name that is free: two machines may each have had a Gull. */
async function newProfile(nickname: string, client: Queryable): Promise<string> {
  for (let number = 1; ; number++) {
    const name = number === 1 ? nickname : `${nickname.slice(0, 74)} ${number}`
    const { rows } = await client.query(
      'insert into profiles (nickname) values ($1) on conflict do nothing returning id',
      [name],
    )
    if (rows[0]) return (rows[0] as { id: string }).id
  }
}
