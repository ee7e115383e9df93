/** Pictures of puzzles: a screen asks for many at once, and for the same ones again and again. */
import { CATALOG_IDS, puzzleById } from '../core/catalog'
import { splitId } from '../core/catalog/setting'
import { fail, ok, type Result } from '../core/result'
import { readState, start } from '../core/state'
import { decoded } from '../server/address'
import { NOBODY } from '../server/failure'
import { whoAsks } from '../server/profiles'
import { readColours } from '../ui/puzzle-picture/address'
import { pictureSvg } from '../ui/puzzle-picture/svg'
import type { Asked, Told } from './asked'

/** Drawn lately, by address. */
const drawn = new Map<string, string>()
const MOST_DRAWN = 2000

/** A picture of a puzzle in a state; see `pictureAddress`. */
export async function picture({ name, query, solver }: Asked): Promise<Told> {
  const puzzleId = decoded(name) ?? ''
  // A puzzle of somebody's own is drawn for them alone; those that are shipped are everyone's.
  if (!CATALOG_IDS.includes(splitId(puzzleId).file) && !(await whoAsks(solver))) return NOBODY
  const read = await inTurn(() => pictureOf(puzzleId, query))
  return read.ok ? { svg: read.value } : read
}

let line: Promise<unknown> = Promise.resolve()
let pauseAt = 0
/** As long as whatever else waits is held up by drawing. */
const AT_ONCE_MS = 10

/** One after another, with a pause now and then for whatever else waits. */
function inTurn<T>(draw: () => T): Promise<T> {
  const mine = line
    .then(async () => {
      if (performance.now() < pauseAt) return
      await new Promise((go) => setImmediate(go))
      pauseAt = performance.now() + AT_ONCE_MS
    })
    .then(draw)
  line = mine.catch(() => undefined)
  return mine
}

function pictureOf(puzzleId: string, query: URLSearchParams): Result<string> {
  const puzzle = puzzleById(puzzleId)
  if (!puzzle.ok) return fail('not-found', puzzle.problem.sentence)
  const key = `${puzzleId}?${query.toString()}`
  const known = drawn.get(key)
  if (known) return ok(known)
  const asked = query.get('state')
  const state = asked === null ? ok(start(puzzle.value)) : readState(puzzle.value, asked)
  if (!state.ok) return fail('bad-input', state.problem.sentence, { field: 'state' })
  const scheme = readColours(query.get('colours'), puzzle.value.definition.colours)
  if (!scheme.ok) return scheme
  const svg = pictureSvg(puzzle.value, state.value, scheme.value, query.has('marks'))
  drawn.set(key, svg)
  const [oldest] = drawn.keys()
  if (drawn.size > MOST_DRAWN && oldest !== undefined) drawn.delete(oldest)
  return ok(svg)
}
