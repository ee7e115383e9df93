/** A wish as a file: which pieces go where and how they lie there, what is free, what the rest does. */
import { array, mixed, number, object, string, ValidationError } from 'yup'
import { plain } from '../plain'
import type { Puzzle } from '../puzzle/compile'
import { fail, ok, type Result } from '../result'
import { waysInto, type Wish } from './wish'

const id = () => string().min(1).max(40).required()

const schema = object({
  goes: array()
    .of(
      object({
        piece: id(),
        to: id(),
        way: number().integer().min(1).max(24).default(1),
      }).noUnknown('${path} has a field that is not known: ${unknown}'),
    )
    .max(400)
    .default([]),
  free: array().of(id()).max(400).default([]),
  rest: mixed<Wish['rest']>().oneOf(['stays', 'free']).default('stays'),
}).noUnknown('The file has a field that is not known: ${unknown}')

/**
 * Reads `{ "goes": [ { "piece", "to", "way": 1 } ], "free": [ "…" ], "rest": "stays" | "free" }`: pieces and places by
 * the ids of `describe`, `way` which of the ways to lie there. The error names the field.
 */
export function readWishFile(puzzle: Puzzle, input: unknown): Result<Wish> {
  const given = plain(input)
  if (!given.ok) return given
  let file: ReturnType<typeof schema.validateSync>
  try {
    file = schema.validateSync(given.value, { stripUnknown: false })
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error
    return fail('bad-wish', error.errors[0], { field: error.path ?? 'file' })
  }
  const indexOf = (name: string) => puzzle.pieces.findIndex((piece) => piece.id === name)
  const none = (field: string, name: string) =>
    fail('bad-wish', `${field} names the piece '${name}', which this puzzle does not have.`, {
      field,
    })
  const goes = new Map<number, number>()
  for (const [i, { piece, to, way }] of file.goes.entries()) {
    const field = `goes[${i}]`
    const [p, place] = [indexOf(piece), indexOf(to)]
    if (p < 0) return none(`${field}.piece`, piece)
    if (place < 0) return none(`${field}.to`, to)
    if (goes.has(p))
      return fail('bad-wish', `${field}.piece says a second time where ${piece} goes.`, {
        field: `${field}.piece`,
      })
    // Of its own place the ways are those in which it is turned there.
    const ways = waysInto(puzzle, p, place).filter((r) => p !== place || r !== 0)
    if (ways.length === 0)
      return fail('bad-wish', `${field}.to: no turns take ${piece} to ${to}.`, {
        field: `${field}.to`,
      })
    if (way > ways.length)
      return fail(
        'bad-wish',
        `${field}.way is ${way}, but ${piece} can lie at ${to} in ${ways.length} ${ways.length === 1 ? 'way' : 'ways'} only.`,
        { field: `${field}.way` },
      )
    goes.set(p, ways[way - 1])
  }
  const free = new Set<number>()
  for (const [i, name] of file.free.entries()) {
    const p = indexOf(name)
    if (p < 0) return none(`free[${i}]`, name)
    if (goes.has(p))
      return fail('bad-wish', `free[${i}]: it is said already where ${name} goes.`, {
        field: `free[${i}]`,
      })
    free.add(p)
  }
  return ok({ goes, free, rest: file.rest })
}
