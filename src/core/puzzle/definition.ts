/**
 * What a puzzle file says (schema version 1). A puzzle is data: nothing else in the program knows
 * what kind of puzzle it is handling.
 */
import { array, mixed, number, object, string, ValidationError } from 'yup'
import { fail, ok, type Problem, type Result } from '../result'
import type { Vector } from '../rotation'
import { DEFAULT_COLOURS, DEFAULT_FACES, MARKS, type Colour } from './colours'
import type { FaceName } from './directions'

export interface PuzzleDefinition {
  readonly schema: 1
  readonly id: string
  readonly name: string
  readonly mechanism: {
    readonly kind: 'box'
    /** Layers along x (to the right), y (up), z (toward the viewer): 1 to 7 each. */
    readonly size: Vector
  }
  /** Sets of cells joined into one rigid piece; cells as centres in cell units, core at (0,0,0). */
  readonly glue: readonly (readonly Vector[])[]
  readonly colours: readonly Colour[]
  /** The colour id of each face. */
  readonly faces: Readonly<Record<FaceName, string>>
}

const name = () => string().trim().min(1).max(80)
const cell = () => array().of(number().required()).length(3)

const definitionSchema = object({
  schema: number().oneOf([1], 'schema must be 1').required(),
  id: string()
    .matches(/^[a-z0-9][a-z0-9-]{0,39}$/, 'id must be small letters, digits and hyphens')
    .required(),
  name: name().required(),
  mechanism: object({
    kind: string().oneOf(['box'], 'mechanism.kind must be "box"').required(),
    size: array().of(number().integer().min(1).max(7).required()).length(3).required(),
  })
    .noUnknown()
    .required(),
  glue: array().of(array().of(cell().required()).min(2).required()).default([]),
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
      }).noUnknown(),
    )
    .min(1)
    .default([...DEFAULT_COLOURS]),
  faces: object({
    up: name().required(),
    down: name().required(),
    right: name().required(),
    left: name().required(),
    back: name().required(),
    front: name().required(),
  })
    .noUnknown()
    .default({ ...DEFAULT_FACES }),
})
  .noUnknown('${path} has a field that is not known: ${unknown}')
  .strict()

/** Checks a puzzle file. The first problem is returned with the path of its field. */
export function readDefinition(input: unknown): Result<PuzzleDefinition> {
  let definition: PuzzleDefinition
  try {
    const filled =
      typeof input === 'object' && input !== null ? { ...definitionDefaults, ...input } : input
    definition = definitionSchema.validateSync(filled) as unknown as PuzzleDefinition
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error
    return fail('bad-definition', `The puzzle file is not right: ${error.errors[0]}.`, {
      field: error.path ?? '',
    })
  }
  const problem = colourProblem(definition) ?? glueProblem(definition)
  return problem ? { ok: false, problem } : ok(definition)
}

const definitionDefaults = { glue: [], colours: DEFAULT_COLOURS, faces: DEFAULT_FACES }

function colourProblem(definition: PuzzleDefinition): Problem | undefined {
  for (const [face, colour] of Object.entries(definition.faces))
    if (!definition.colours.some(({ id }) => id === colour))
      return {
        code: 'bad-definition',
        field: `faces.${face}`,
        sentence: `The puzzle file is not right: faces.${face} names the colour ${colour}, which is not among its colours.`,
      }
  return undefined
}

function glueProblem(definition: PuzzleDefinition): Problem | undefined {
  const used = new Set<string>()
  for (const [index, cells] of definition.glue.entries()) {
    const field = `glue[${index}]`
    const wrong = (what: string): Problem => ({
      code: 'bad-definition',
      field,
      sentence: `The puzzle file is not right: ${field} ${what}.`,
    })
    for (const at of cells) {
      const inside = at.every((c, axis) => {
        const half = (definition.mechanism.size[axis] - 1) / 2
        return Math.abs(c) <= half && Number.isInteger(c + half)
      })
      if (!inside) return wrong(`names (${at.join(', ')}), which is no cell of the box`)
      if (used.has(at.join())) return wrong(`names (${at.join(', ')}), which is glued already`)
      used.add(at.join())
    }
    if (!connected(cells)) return wrong('joins cells that are not neighbours')
  }
  return undefined
}

function connected(cells: readonly Vector[]): boolean {
  const reached = new Set([0])
  for (const index of reached)
    cells.forEach((other, j) => {
      const distance = other.reduce((sum, c, axis) => sum + Math.abs(c - cells[index][axis]), 0)
      if (distance === 1) reached.add(j)
    })
  return reached.size === cells.length
}
