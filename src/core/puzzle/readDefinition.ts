/** Reads puzzle files: every problem is told with the path of its field. */
import { array, lazy, mixed, number, object, string, ValidationError, type AnySchema } from 'yup'
import { fractionOf, MOST_PARTS } from '../geometry/exact'
import { plain } from '../plain'
import { fail, ok, type Problem, type Result } from '../result'
import { DEFAULT_COLOURS, DEFAULT_FACES, MARKS, type Colour } from './colours'
import type { MechanismDefinition, PuzzleDefinition } from './definition'
import { DIRECTIONS, type FaceName } from './directions'
import { definitionProblems, problemAt } from './judge'

const FACE_NAMES = DIRECTIONS.map(({ name }) => name)
const name = () => string().min(1).max(80)
const unknownField = '${path} has a field that is not known: ${unknown}'

/** Three whole numbers as a direction. */
const direction = () => array().of(number().integer().min(-60).max(60).required()).length(3)
const cell = () => array().of(number().min(-9).max(9).required()).length(3)
const size = () => array().of(number().integer().min(1).max(7).required()).length(3)
const faceList = () =>
  array()
    .of(mixed<FaceName>().oneOf(FACE_NAMES).required())
    .max(6)
    .test('twice', '${path} names a face twice', (faces) => isWithoutDoubles(faces))
const isWithoutDoubles = (list: unknown) =>
  !Array.isArray(list) || new Set(list).size === list.length
const isDirection = (value: unknown): value is number[] =>
  Array.isArray(value) && value.length === 3 && value.every((c) => typeof c === 'number')

const mechanisms: Record<MechanismDefinition['kind'], AnySchema> = {
  box: object({ kind: string(), size: size().required() }).noUnknown(unknownField),
  capped: object({ kind: string(), caps: faceList().min(1).required() }).noUnknown(unknownField),
  conjoined: object({
    kind: string(),
    boxes: array()
      .of(object({ size: size().required(), centre: cell().required() }).noUnknown(unknownField))
      .min(2)
      .max(4)
      .required(),
  }).noUnknown(unknownField),
  circles: object({ kind: string(), locked: faceList().required() }).noUnknown(unknownField),
  tetrahedron: object({ kind: string() }).noUnknown(unknownField),
}

const mechanismSchema = lazy((value: unknown): AnySchema => {
  const { kind } = Object(value) as { kind?: unknown }
  // Own fields only: every object has a `constructor`, and that is no kind of mechanism.
  if (typeof kind === 'string' && Object.hasOwn(mechanisms, kind))
    return mechanisms[kind as MechanismDefinition['kind']]
  return object({
    kind: string()
      .oneOf(Object.keys(mechanisms), 'mechanism.kind must be one of ${values}')
      .required(),
  }).required('mechanism is missing')
})

/** More cells no puzzle has. */
const MOST_CELLS = 400
const MOST_COLOURS = 60

const offset = () =>
  number()
    .typeError('${path} must be a number, or a fraction like "7/3"')
    .min(0.25)
    .max(60)
    .test(
      'fraction',
      `\${path} must have at most three decimal places, or be a fraction of at most ${MOST_PARTS} parts`,
      (at) => at === undefined || fractionOf(at) !== undefined,
    )

const definitionSchema = object({
  schema: number().oneOf([1], 'schema must be 1').required(),
  id: string()
    .matches(/^[a-z0-9][a-z0-9-]{0,39}$/, 'id must be small letters, digits and hyphens')
    .required(),
  name: name().required(),
  mechanism: mechanismSchema,
  solid: object({
    halfSpaces: array()
      .of(
        object({
          normal: direction()
            .required()
            // A test of its own name: 'length' would take the place of the one for three numbers.
            .test(
              'not zero',
              '${path} must not be zero',
              (v) => !isDirection(v) || v.some((c) => c !== 0),
            ),
          at: offset().required(),
          colour: name().required(),
        }).noUnknown(unknownField),
      )
      .min(4)
      .max(30)
      .required(),
  })
    .noUnknown(unknownField)
    .default(undefined),
  view: object({
    up: direction().required(),
    front: direction().required(),
    toward: string().oneOf(['corner', 'face']),
  })
    .noUnknown(unknownField)
    .default(undefined)
    .test('right', 'view.up and view.front must be at right angles', (view) => {
      const { up, front } = Object(view) as { up?: unknown; front?: unknown }
      // What is no direction has been told already.
      if (!isDirection(up) || !isDirection(front)) return true
      return up.some((c) => c !== 0) && up.reduce((sum, c, i) => sum + c * front[i], 0) === 0
    }),
  glue: array()
    .of(array().of(cell().required()).min(2).max(MOST_CELLS).required())
    .max(MOST_CELLS)
    .default([]),
  colours: array()
    .of(
      object({
        id: name().required(),
        name: name().required(),
        shade: string()
          .matches(/^#[0-9a-f]{6}$/i, '${path} must be #rrggbb')
          .required(),
        mark: mixed()
          .oneOf([...MARKS])
          .required(),
      }).noUnknown(unknownField),
    )
    .min(1)
    .max(MOST_COLOURS),
  faces: object(Object.fromEntries(FACE_NAMES.map((face) => [face, name().required()]))).noUnknown(
    unknownField,
  ),
})
  .required('a puzzle file is an object with fields')
  .noUnknown('${path} has a field that is not known: ${unknown}')
  .strict()

/** The largest file is a box of 7x7x7 with every cell glued. */
const FILE_BOUNDS = { depth: 6, values: 10_000, text: 200, list: MOST_CELLS }

/** Checks a puzzle file. All problems are found; the first stands for them, the rest are `more`. */
export function readDefinition(input: unknown): Result<PuzzleDefinition> {
  const given = plain(input, FILE_BOUNDS)
  if (!given.ok) {
    const { field = '', sentence } = given.problem
    return failAll([problemAt(field, sentence.replace(/\.$/, ''))])
  }
  let definition: PuzzleDefinition
  try {
    definition = definitionSchema.validateSync(withDefaults(given.value), {
      abortEarly: false,
    }) as unknown as PuzzleDefinition
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error
    const all = error.inner.length > 0 ? error.inner : [error]
    const firstOfField = all.filter(
      ({ path }, i) => all.findIndex((other) => other.path === path) === i,
    )
    return failAll(firstOfField.map(({ path, message }) => problemAt(path ?? '', message)))
  }
  const problems = definitionProblems(definition)
  return problems.length > 0 ? failAll(problems) : ok(definition)
}

/** A puzzle file of more characters is none. */
const LONGEST_FILE = 300_000

/** Reads the text of a puzzle file. */
export function readPuzzleFile(text: string): Result<PuzzleDefinition> {
  if (text.length > LONGEST_FILE)
    return fail('bad-definition', 'The file is longer than any puzzle file: 300,000 characters.')
  let input: unknown
  try {
    input = JSON.parse(text)
  } catch (error) {
    return fail(
      'bad-definition',
      `The file is not well-formed JSON: ${(error as Error).message.replace(/\.$/, '')}.`,
    )
  }
  return readDefinition(input)
}

const failAll = ([first, ...more]: readonly Problem[]): Result<never> => ({
  ok: false,
  problem: more.length > 0 ? { ...first, more } : first,
})

function withDefaults(input: unknown): unknown {
  if (typeof input !== 'object' || input === null || Array.isArray(input)) return input
  const given = input as Partial<PuzzleDefinition>
  const faces = { ...DEFAULT_FACES, ...given.faces }
  return {
    ...given,
    ...(given.solid === undefined ? {} : { solid: withOffsets(given.solid) }),
    glue: given.glue ?? [],
    faces,
    colours: given.colours ?? usedColours(given, faces),
  }
}

/** Offsets that are written as fractions, '7/3', are kept as the numbers that they are. */
function withOffsets(solid: unknown): unknown {
  const { halfSpaces } = Object(solid) as { halfSpaces?: unknown }
  if (!Array.isArray(halfSpaces)) return solid
  return {
    ...Object(solid),
    halfSpaces: halfSpaces.map((half: unknown) => {
      const { at } = Object(half) as { at?: unknown }
      const [, top, bottom] = typeof at === 'string' ? (FRACTION.exec(at) ?? []) : []
      return top === undefined ? half : { ...Object(half), at: Number(top) / Number(bottom) }
    }),
  }
}

const FRACTION = /^(\d{1,5})\/(\d{1,4})$/

/** Of the colours that everyone knows, those that the puzzle shows. */
function usedColours({ mechanism, solid }: Partial<PuzzleDefinition>, faces: object): Colour[] {
  const shown = Array.isArray(solid?.halfSpaces)
    ? solid.halfSpaces.map((half: { colour?: unknown }) => half?.colour)
    : Object.entries(faces).flatMap(([face, colour]) =>
        mechanism?.kind === 'tetrahedron' && ['up', 'back'].includes(face)
          ? []
          : [colour as string],
      )
  const used = DEFAULT_COLOURS.filter(({ id }) => shown.includes(id))
  return used.length > 0 ? used : [...DEFAULT_COLOURS]
}
