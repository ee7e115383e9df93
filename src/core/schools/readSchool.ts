/** Reads school files: every problem is told with the path of its field. */
import {
  array,
  boolean,
  lazy,
  mixed,
  number,
  object,
  string,
  ValidationError,
  type AnySchema,
} from 'yup'
import { plain } from '../plain'
import { fail, ok, type Result } from '../result'
import type { School, Technique } from './school'
import { SCHOOLS, writtenSchool } from './written'

/** What a file may be written in: techniques that need no words of their own for one puzzle. */
export type FileTechnique = Extract<
  Technique,
  {
    kind:
      | 'gather'
      | 'spin'
      | 'insert'
      | 'series'
      | 'swap'
      | 'join'
      | 'commutator'
      | 'blocks'
      | 'as'
      | 'remedy'
      | 'reshape'
      | 'small'
      | 'known'
      | 'twist'
      | 'rest'
  }
>['kind']

/** Written schools that a smaller box may be done by: those that do none themselves. */
const PLAYED = SCHOOLS.filter(({ stages }) =>
  stages.every(({ technique }) => technique.kind !== 'as'),
).map(({ id }) => id)

const unknownField = '${path} has a field that is not known: ${unknown}'
const text = (most: number) => string().min(1).max(most)
const turns = () => text(200).required()

const LAYERS = ['base', 'last', 'middle'] as const
const COLUMNS = ['corner', 'side', 'axis'] as const
const MUSTS = [
  'home',
  'placed',
  'faced',
  'looks home',
  'in shape',
  'even',
  'together',
  'solvable',
] as const

/** Layers of a smaller box. */
const sizes = () => array().of(number().integer().min(1).max(7).required()).length(3)

const caps = () => mixed().oneOf([1, 2, 3, 4, 5, 'last'])

const selectionOf = (as: AnySchema, cap: AnySchema = caps()): AnySchema =>
  lazy(() =>
    object({
      as,
      half: number().integer().min(0).max(1),
      kinds: array().of(text(40).required()).min(1).max(12),
      layers: array()
        .of(
          mixed()
            .oneOf([...LAYERS])
            .required(),
        )
        .min(1)
        .max(3),
      box: number().integer().min(0).max(3),
      columns: array()
        .of(
          mixed()
            .oneOf([...COLUMNS])
            .required(),
        )
        .min(1)
        .max(3),
      circle: number().integer().min(1).max(6),
      cap,
      but: lazy((value: unknown) => (value === undefined ? mixed() : selection)),
    }).noUnknown(unknownField),
  ) as unknown as AnySchema

const selection = selectionOf(sizes())
/** Of pieces of a smaller box. */
const joinedSelection = selectionOf(sizes().required())
/** Of the pieces of one cap. */
const capSelection = selectionOf(sizes(), caps().required())

const condition = object({
  layer: mixed().oneOf(['base', 'last']).default('base'),
  must: mixed()
    .oneOf([...MUSTS])
    .required(),
  select: selection,
  spare: number().integer().min(1).max(12),
}).noUnknown(unknownField)

const kind = string().required()
const sequences = () => array().of(turns()).min(1).max(20)

const techniques: Record<FileTechnique, AnySchema> = {
  gather: object({
    kind,
    must: mixed().oneOf(['home', 'faced']).required(),
    select: selection,
  }).noUnknown(unknownField),
  spin: object({
    kind,
    select: selection,
    layers: array().of(text(4).required()).min(1).max(12).required(),
  }).noUnknown(unknownField),
  insert: object({
    kind,
    select: selection,
    sequences: sequences().required(),
    fetch: text(4).required(),
    runs: number().integer().min(1).max(6).required(),
  }).noUnknown(unknownField),
  known: object({
    kind,
    select: selection,
    sequences: sequences(),
    fetch: text(4).required(),
    times: number().integer().min(1).max(3).required(),
  }).noUnknown(unknownField),
  series: object({
    kind,
    select: selection,
    sequences: sequences(),
    turn: text(4),
  }).noUnknown(unknownField),
  swap: object({ kind, select: selection, sequences: sequences().required() }).noUnknown(
    unknownField,
  ),
  commutator: object({ kind, select: selection }).noUnknown(unknownField),
  blocks: object({ kind, select: capSelection }).noUnknown(unknownField),
  join: object({ kind, select: joinedSelection, sequences: sequences().required() }).noUnknown(
    unknownField,
  ),
  as: object({
    kind,
    size: sizes().required(),
    school: mixed().oneOf(PLAYED).required(),
    stages: array().of(text(40).required()).min(1).max(20).required(),
  }).noUnknown(unknownField),
  remedy: object({
    kind,
    select: joinedSelection,
    sequences: sequences().required(),
    fetch: text(4).required(),
  }).noUnknown(unknownField),
  reshape: object({ kind }).noUnknown(unknownField),
  small: object({
    kind,
    select: selection,
    keeping: lazy((value: unknown) => (value === undefined ? mixed() : selection)),
  }).noUnknown(unknownField),
  twist: object({ kind, trigger: turns(), spot: text(4).required() }).noUnknown(unknownField),
  rest: object({ kind }).noUnknown(unknownField),
}

const technique = lazy((value: unknown): AnySchema => {
  const { kind: given } = Object(value) as { kind?: unknown }
  if (typeof given === 'string' && Object.hasOwn(techniques, given))
    return techniques[given as FileTechnique]
  return object({
    kind: string().oneOf(Object.keys(techniques), '${path} must be one of ${values}').required(),
  }).required()
})

const fit = lazy((value: unknown): AnySchema => {
  const { mechanism, ends, pairs } = Object(value) as Record<string, unknown>
  if (mechanism === 'capped' && pairs !== undefined)
    return object({
      mechanism: mixed().oneOf(['capped']).required(),
      pairs: array().of(number().integer().min(1).max(3).required()).length(2).required(),
    })
      .noUnknown(unknownField)
      .required()
  if (mechanism === 'capped' || (mechanism === 'box' && ends !== undefined))
    return object({
      mechanism: mixed().oneOf(['box', 'capped']).required(),
      ends: number().integer().min(2).max(7).required(),
      length: array().of(number().integer().min(2).max(7).required()).length(2).required(),
      inSolids: mixed().oneOf([true, false, 'only']),
      withBelt: boolean(),
    })
      .noUnknown(unknownField)
      .required()
  return object({
    mechanism: mixed()
      .oneOf(['box', 'capped', 'conjoined', 'tetrahedron', 'circles', 'any'])
      .required(),
    ...(mechanism === 'box' || mechanism === 'conjoined'
      ? { size: array().of(number().integer().min(1).max(7).required()).length(3).required() }
      : {}),
    ...(mechanism === 'box' ? { inSolids: boolean() } : {}),
    ...(mechanism === 'conjoined' ? { count: number().integer().min(2).max(2).required() } : {}),
  })
    .noUnknown(unknownField)
    .required()
})

const smallId = () =>
  string()
    .matches(/^[a-z][a-z0-9-]{0,39}$/, '${path} must be small letters, digits and hyphens')
    .required()

const choice = () =>
  object({ id: smallId(), name: text(60).required() })
    .noUnknown(unknownField)
    .required()

const schema = object({
  schema: number().oneOf([1]).required(),
  id: string()
    .matches(/^[a-z][a-z0-9-]{1,39}$/, 'id must be small letters, digits and hyphens')
    .required(),
  name: text(60).required(),
  character: text(200).required(),
  fits: fit,
  isWithoutBase: boolean(),
  lastCentreTellsLeast: boolean(),
  options: array()
    .of(
      object({
        id: smallId(),
        name: text(60).required(),
        choices: array().of(choice()).min(2).max(8).required(),
      })
        .noUnknown(unknownField)
        .required(),
    )
    .max(4),
  stages: array()
    .of(
      object({
        id: string()
          .matches(/^[a-z][a-z0-9-]{0,39}$/, '${path} must be small letters, digits and hyphens')
          .required(),
        name: text(60).required(),
        aim: text(200).required(),
        aimInSolid: text(200),
        base: mixed().oneOf(['U', 'D', 'F', 'B', 'R', 'L']).required(),
        goal: array().of(condition.required()).min(1).max(20).required(),
        technique,
        asks: mixed().oneOf(['centres tell', 'no centre tells', 'has a belt']),
        for: mixed().oneOf(['the belt', 'each box']),
        when: lazy((value: unknown) =>
          value === undefined
            ? mixed()
            : object(
                Object.fromEntries(
                  Object.keys(Object(value) as object).map((key) => [key, smallId()]),
                ),
              ),
        ),
      }).noUnknown(unknownField),
    )
    .min(1)
    .max(20)
    .required(),
})
  .required('a school file is an object with fields')
  .typeError('a school file is an object with fields')
  .noUnknown('${path} has a field that is not known: ${unknown}')
  .strict()

const BOUNDS = { depth: 12, values: 3000, text: 300, list: 60 }

/** Checks the form of a school file; whether it leads home is another question: see `prove`. */
export function readSchool(input: unknown): Result<School> {
  const given = plain(input, BOUNDS)
  if (!given.ok) return given
  try {
    const read = schema.validateSync(given.value) as unknown as Omit<School, 'options'> &
      Partial<Pick<School, 'options'>>
    const ids = read.stages.map((stage) => stage.id)
    const twice = ids.find((each, i) => ids.indexOf(each) !== i)
    if (twice !== undefined)
      return fail('bad-school', `stages has the id ${twice} twice.`, { field: 'stages' })
    const { id, name, character, fits, options = [], stages } = read
    const { isWithoutBase, lastCentreTellsLeast } = read
    const missing = stages.flatMap(({ technique: way }) =>
      way.kind === 'as'
        ? way.stages.filter((each) => writtenSchool(way.school).stages.every((s) => s.id !== each))
        : [],
    )
    if (missing.length > 0)
      return fail('bad-school', `stages ask for ${missing[0]}, which the school played has not.`, {
        field: 'stages',
      })
    const strange = stages
      .flatMap((stage) => Object.entries(stage.when ?? {}))
      .find(
        ([option, wanted]) =>
          !options.some(
            (each) => each.id === option && each.choices.some((one) => one.id === wanted),
          ),
      )
    if (strange)
      return fail(
        'bad-school',
        `stages ask for the choice ${strange.join(' ')}, which no option has.`,
        {
          field: 'stages',
        },
      )
    return ok({
      id,
      name,
      character,
      fits,
      isWithoutBase,
      lastCentreTellsLeast,
      options,
      stages,
    })
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error
    return fail('bad-school', `${error.message}.`, { field: error.path })
  }
}
