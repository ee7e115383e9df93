/** The address of a picture: all that it shows stands in it, so that a browser need ask for it once only. */
import { MARKS, type Colour, type Scheme } from '@/core/puzzle/colours'
import { fail, ok, type Result } from '@/core/result'

/** Shade and mark of each colour, in their order. */
const LOOK = /^[0-9a-f]{6}[a-z]+$/i

/**
 * @param state as `writeState` writes it; the finished puzzle if not given
 * @param scheme the puzzle's own colours if not given
 */
export function pictureAddress(
  puzzleId: string,
  state: string | undefined,
  scheme: Scheme | undefined,
  marks: boolean,
): string {
  const query = new URLSearchParams()
  if (state) query.set('state', state)
  if (scheme) query.set('colours', scheme.map(({ shade, mark }) => shade.slice(1) + mark).join('.'))
  if (marks) query.set('marks', '1')
  // Another program may draw it otherwise.
  query.set('by', process.env.BUILT_AT ?? '')
  return `/api/pictures/${puzzleId}?${query.toString()}`
}

/** The colours of such an address over those of the puzzle. */
export function readColours(colours: string | null, plain: Scheme): Result<Scheme> {
  if (colours === null) return ok(plain)
  const given = colours.split('.')
  if (given.length !== plain.length || !given.every((each) => LOOK.test(each)))
    return fail('bad-input', 'colours do not fit this puzzle.', { field: 'colours' })
  const scheme = plain.map((colour, i) => ({
    ...colour,
    shade: `#${given[i].slice(0, 6)}`,
    mark: given[i].slice(6) as Colour['mark'],
  }))
  return scheme.every(({ mark }) => MARKS.includes(mark))
    ? ok(scheme)
    : fail('bad-input', 'colours have a mark that there is not.', { field: 'colours' })
}
