/**
 * A state as a file (docs/state-file.md): by pieces, each with its rotation; by what is seen at each
 * place; or by the letters that `apply` prints. What is well formed and yet no set of the puzzle's own
 * pieces is a misreading, and is told as such.
 */
import { array, lazy, mixed, number, object, string, ValidationError, type AnySchema } from 'yup'
import { dot, length, same, scale } from '../geometry/vector'
import { placed, type Puzzle } from '../puzzle/compile'
import { plain } from '../plain'
import { fail, ok, type Result } from '../result'
import { MATRICES, rotate, ROTATION_COUNT, type Rotation, type Vector } from '../rotation'
import { readState, type State } from '../state'
import { inWords, times } from '../phrases'

/** A state, or why what was read cannot be the puzzle. */
export type ReadState =
  | { readonly kind: 'state'; readonly state: State }
  | { readonly kind: 'misread'; readonly sentences: readonly string[] }

const unknownField = '${path} has a field that is not known: ${unknown}'
const vector = () => array().of(number().required()).length(3).required()
const head = {
  format: string()
    .oneOf(['merry-lantern-state'], 'format must be "merry-lantern-state"')
    .required(),
  version: number().oneOf([1], 'version must be 1').required(),
}
const byLetters = object({ ...head, letters: string().required() }).noUnknown(unknownField)
const byPieces = object({
  ...head,
  pieces: array()
    .of(
      object({
        id: string().required(),
        rotation: array().of(vector()).length(3).required(),
      })
        .noUnknown(unknownField)
        .required(),
    )
    .required(),
}).noUnknown(unknownField)
const byLooks = object({
  ...head,
  places: array()
    .of(
      object({
        cells: array().of(vector()).min(1).required(),
        faces: array()
          .of(
            object({
              colour: string().required(),
              normal: vector(),
              polygon: array().of(vector()).min(3),
            })
              .noUnknown(unknownField)
              .required(),
          )
          .required(),
      })
        .noUnknown(unknownField)
        .required(),
    )
    .required(),
}).noUnknown(unknownField)

const schema = lazy((value: unknown): AnySchema => {
  const given = Object(value) as Record<string, unknown>
  if (given.pieces !== undefined) return byPieces
  if (given.places !== undefined) return byLooks
  if (given.letters !== undefined) return byLetters
  return mixed().test(
    'kind',
    'one of the fields pieces, places and letters must be there',
    () => false,
  )
})

interface PlacedPiece {
  readonly id: string
  readonly rotation: readonly Vector[]
}

interface Place {
  readonly cells: readonly Vector[]
  readonly faces: readonly {
    readonly colour: string
    readonly normal: Vector
    readonly polygon?: readonly Vector[]
  }[]
}

/** Every piece with its cells and its faces, round ones with many points. */
const FILE_BOUNDS = { depth: 10, values: 100_000, text: 400, list: 600 }

export function readStateFile(puzzle: Puzzle, input: unknown): Result<ReadState> {
  const given = plain(input, FILE_BOUNDS)
  if (!given.ok) return { ok: false, problem: { ...given.problem, code: 'bad-file' } }
  let file: { pieces?: PlacedPiece[]; places?: Place[]; letters?: string }
  try {
    file = schema.validateSync(given.value, { strict: true }) as typeof file
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error
    return fail('bad-file', `The state file is not right: ${error.message}.`, { field: error.path })
  }
  if (file.pieces) return fromPieces(puzzle, file.pieces)
  if (file.places) return fromLooks(puzzle, file.places)
  const read = readState(puzzle, file.letters ?? '')
  return read.ok
    ? ok({ kind: 'state', state: read.value })
    : { ok: false, problem: { ...read.problem, field: 'letters' } }
}

function fromPieces(puzzle: Puzzle, pieces: readonly PlacedPiece[]): Result<ReadState> {
  const state = new Uint8Array(puzzle.pieces.length)
  const seen = new Set<number>()
  for (const [i, { id, rotation }] of pieces.entries()) {
    const piece = puzzle.pieces.findIndex((each) => each.id === id)
    if (piece < 0)
      return fail('bad-file', `pieces[${i}].id: the puzzle has no piece ${id}.`, {
        field: `pieces[${i}].id`,
      })
    const found = MATRICES.findIndex((matrix) => String(matrix) === String(rotation.flat()))
    if (found < 0)
      return fail('bad-file', `pieces[${i}].rotation is none of the 24 rotations of a cube.`, {
        field: `pieces[${i}].rotation`,
      })
    if (seen.has(piece)) return misread(`The piece ${id} appears twice.`)
    seen.add(piece)
    state[piece] = found
  }
  const missing = puzzle.pieces.filter((_, p) => !seen.has(p))
  if (missing.length > 0) return misread(`The piece ${missing[0].id} is missing.`)
  const slots = Array.from(state, (r, p) => puzzle.slot[24 * p + r])
  const double = slots.findIndex((slot, p) => slots.indexOf(slot) < p)
  if (double >= 0)
    return misread(
      `The pieces ${puzzle.pieces[slots.indexOf(slots[double])].id} and ${puzzle.pieces[double].id} would lie in the same place.`,
    )
  return ok({ kind: 'state', state })
}

const misread = (...sentences: string[]): Result<ReadState> => ok({ kind: 'misread', sentences })

/** Finer than any two corners of a piece are apart. */
const TOLERANCE = 1e-3

const sameSet = (a: readonly Vector[], b: readonly Vector[]): boolean =>
  a.length === b.length && a.every((v) => b.some((w) => same(v, w, TOLERANCE)))

function fromLooks(puzzle: Puzzle, places: readonly Place[]): Result<ReadState> {
  const state = new Uint8Array(puzzle.pieces.length)
  const used = new Set<number>()
  for (const [i, place] of places.entries()) {
    const fitting = placementsAt(puzzle, place)
    const where = place.cells.map((cell) => `(${cell.join(', ')})`).join(' ')
    if (fitting.length === 0)
      return misread(
        `No piece shows ${coloursSeen(place)} like that at ${where}.`,
        'Look at its stickers again.',
      )
    const looks = new Set(fitting.map(({ piece, rotation }) => puzzle.look[24 * piece + rotation]))
    if (looks.size > 1)
      return fail(
        'bad-file',
        `places[${i}]: ${inWords(looks.size)} looks have these colours there; give the polygon of each face.`,
        { field: `places[${i}]` },
      )
    const free = fitting.find(({ piece }) => !used.has(piece))
    if (!free) {
      const alike = new Set(fitting.map(({ piece }) => piece)).size
      return misread(
        `What shows ${coloursSeen(place)} at ${where} appears more than ${times(alike)}, and the puzzle has ${alike === 1 ? 'it once' : `${inWords(alike)} of it`}.`,
        'Look at those stickers again.',
      )
    }
    used.add(free.piece)
    state[free.piece] = free.rotation
  }
  const missing = puzzle.pieces.filter((_, p) => !used.has(p))
  if (missing.length > 0)
    return misread(
      `${missing.length === 1 ? 'One piece is' : `${missing.length} pieces are`} missing, ${missing[0].id} among them.`,
    )
  const filled = new Set(Array.from(state, (r, p) => puzzle.slot[24 * p + r]))
  if (filled.size < state.length) return misread('Two pieces would lie in the same place.')
  return ok({ kind: 'state', state })
}

const coloursSeen = ({ faces }: Place): string => faces.map(({ colour }) => colour).join(', ')

function placementsAt(puzzle: Puzzle, { cells, faces }: Place) {
  const normals = faces.map(({ normal }) => scale(normal, 1 / (length(normal) || 1)))
  return puzzle.pieces.flatMap((piece, p) => {
    if (piece.faces.length !== faces.length || piece.cells.length !== cells.length) return []
    const core = puzzle.cores[piece.core]
    return Array.from({ length: ROTATION_COUNT }, (_, r): Rotation => r).flatMap((rotation) => {
      const at = (point: Vector) => placed(core, rotation, point)
      if (!sameSet(piece.cells.map(at), cells)) return []
      const left = new Set(faces.keys())
      const isShown = piece.faces.every(({ colour, normal, polygon }) => {
        const turned = rotate(rotation, scale(normal, 1 / length(normal)))
        const match = [...left].find(
          (f) =>
            faces[f].colour === colour &&
            dot(normals[f], turned) > 1 - TOLERANCE &&
            (!faces[f].polygon || sameSet(polygon.map(at), faces[f].polygon)),
        )
        if (match !== undefined) left.delete(match)
        return match !== undefined
      })
      return isShown ? [{ piece: p, rotation }] : []
    })
  })
}
