import { CATALOG_IDS, puzzleById } from '@/core/catalog'
import { splitId } from '@/core/catalog/setting'
import { fail, ok, type Result } from '@/core/result'
import { readState, start } from '@/core/state'
import { decoded } from '@/server/address'
import { answering } from '@/server/answer'
import { solverId } from '@/server/solver'
import { readColours } from '@/ui/puzzle-picture/address'
import { pictureSvg } from '@/ui/puzzle-picture/svg'

/** Drawn lately, by address: a shelf asks for the same ones again and again. */
const drawn = new Map<string, string>()
const MOST_DRAWN = 500

/** A picture of a puzzle in a state; see `pictureAddress`. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ puzzleId: string }> },
): Promise<Response> {
  let svg: string | undefined
  const answer = await answering(async () => {
    const puzzleId = decoded((await params).puzzleId) ?? ''
    // A puzzle of somebody's own is drawn for them alone; those that are shipped are everyone's.
    if (!CATALOG_IDS.includes(splitId(puzzleId).file)) await solverId()
    const read = await inTurn(() => pictureOf(puzzleId, new URL(request.url)))
    if (read.ok) svg = read.value
    return read
  })
  return svg === undefined
    ? answer
    : new Response(svg, {
        headers: {
          'content-type': 'image/svg+xml',
          'cache-control': 'private, max-age=31536000, immutable',
        },
      })
}

let line: Promise<unknown> = Promise.resolve()

/** One after another, with a pause in between for whatever else waits: a shelf asks for many at once. */
function inTurn<T>(draw: () => T): Promise<T> {
  const mine = line.then(() => new Promise((go) => setImmediate(go))).then(draw)
  line = mine.catch(() => undefined)
  return mine
}

function pictureOf(puzzleId: string, { searchParams }: URL): Result<string> {
  const puzzle = puzzleById(puzzleId)
  if (!puzzle.ok) return fail('not-found', puzzle.problem.sentence)
  const key = `${puzzleId}?${searchParams.toString()}`
  const known = drawn.get(key)
  if (known) return ok(known)
  const asked = searchParams.get('state')
  const state = asked === null ? ok(start(puzzle.value)) : readState(puzzle.value, asked)
  if (!state.ok) return fail('bad-input', state.problem.sentence, { field: 'state' })
  const scheme = readColours(searchParams.get('colours'), puzzle.value.definition.colours)
  if (!scheme.ok) return scheme
  const svg = pictureSvg(puzzle.value, state.value, scheme.value, searchParams.has('marks'))
  drawn.set(key, svg)
  const [oldest] = drawn.keys()
  if (drawn.size > MOST_DRAWN && oldest !== undefined) drawn.delete(oldest)
  return ok(svg)
}
