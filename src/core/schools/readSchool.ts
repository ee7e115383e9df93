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
import type { School } from './school'
import {
  FILE_TECHNIQUES,
  maybe,
  selection,
  techniqueSchema,
  text,
  unknownField,
} from './techniques'
import { SCHOOLS, writtenSchool } from './written'

/** Written schools that a smaller box may be done by: those that do none themselves. */
const PLAYED = SCHOOLS.filter(({ stages }) =>
  stages.every(({ technique }) => technique.kind !== 'as'),
).map(({ id }) => id)

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

const condition = object({
  layer: mixed().oneOf(['base', 'last']).default('base'),
  must: mixed()
    .oneOf([...MUSTS])
    .required(),
  select: maybe(selection).schema,
  spare: number().integer().min(1).max(12),
}).noUnknown(unknownField)

const techniques = Object.fromEntries(
  FILE_TECHNIQUES.map((kind) => {
    const schema = techniqueSchema(kind)
    return [
      kind,
      kind === 'as' ? schema.shape({ school: mixed().oneOf(PLAYED).required() }) : schema,
    ]
  }),
) as Record<string, AnySchema>

const technique = lazy((value: unknown): AnySchema => {
  const { kind: given } = Object(value) as { kind?: unknown }
  if (typeof given === 'string' && Object.hasOwn(techniques, given)) return techniques[given]
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
