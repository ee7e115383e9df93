/** What a schema cannot see: whether the parts of a puzzle file fit each other. */
import { bigCube, clipAll, volumeOf } from '../geometry/polyhedron'
import { dot } from '../geometry/vector'
import type { Problem } from '../result'
import type { Vector } from '../rotation'
import { cutPart } from './cut'
import type { PuzzleDefinition } from './definition'
import { mechanismOf } from './mechanisms'

/** A problem of a puzzle file at the path of a field. */
export const problemAt = (field: string, what: string): Problem => ({
  code: 'bad-definition',
  field,
  sentence: `The puzzle file is not right: ${what}.`,
})

/** More pieces than this are not handled. */
const PIECE_LIMIT = 250
/** A piece with less in it cannot be made, in cells. */
const LEAST_VOLUME = 0.004

export function definitionProblems(definition: PuzzleDefinition): Problem[] {
  const first = [...colourProblems(definition), ...mechanismProblems(definition)]
  if (first.length > 0) return first
  return [...glueProblems(definition), ...solidProblems(definition)]
}

function colourProblems({ colours, faces, solid, mechanism }: PuzzleDefinition): Problem[] {
  const isKnown = (colour: string) => colours.some(({ id }) => id === colour)
  const missing = (field: string, colour: string) =>
    problemAt(field, `${field} names the colour ${colour}, which is not among its colours`)
  const twice = colours.filter(({ id }, i) => colours.findIndex((other) => other.id === id) < i)
  const shown = Object.entries(faces).filter(
    ([face]) => !solid && !(mechanism.kind === 'tetrahedron' && ['up', 'back'].includes(face)),
  )
  return [
    ...twice.map(({ id }) => problemAt('colours', `colours has the id ${id} twice`)),
    ...shown.flatMap(([face, colour]) =>
      isKnown(colour) ? [] : [missing(`faces.${face}`, colour)],
    ),
    ...(solid?.halfSpaces ?? []).flatMap(({ colour }, i) =>
      isKnown(colour) ? [] : [missing(`solid.halfSpaces[${i}].colour`, colour)],
    ),
  ]
}

function mechanismProblems(definition: PuzzleDefinition): Problem[] {
  const { mechanism, solid } = definition
  const { parts, grips } = mechanismOf(definition)
  const wrong = (what: string) => [problemAt('mechanism', what)]
  if (parts.filter(({ faces }) => faces.length > 0).length > PIECE_LIMIT)
    return wrong(`mechanism has more than ${PIECE_LIMIT} pieces`)
  if (mechanism.kind === 'conjoined') {
    if (parts[0].points.length === 0)
      return [problemAt('mechanism.boxes', 'mechanism.boxes share no cells')]
    if (!connected(parts[0].points))
      return [problemAt('mechanism.boxes', 'mechanism.boxes share cells that are not neighbours')]
    if (grips.length === 0)
      return [problemAt('mechanism.boxes', 'mechanism.boxes leave no layer that can turn')]
  }
  const names = grips.map(({ name }) => name)
  const twice = names.find((name, i) => names.indexOf(name) < i)
  if (twice) return wrong(`mechanism has two layers that would both be written ${twice}`)
  if (solid && parts.some(({ region }) => region.length === 0))
    return [problemAt('solid', `solid cannot be given to a mechanism of kind ${mechanism.kind}`)]
  return []
}

function glueProblems(definition: PuzzleDefinition): Problem[] {
  const { parts, cores } = mechanismOf(definition)
  const cells = new Map(parts.flatMap((part) => part.points.map((point) => [point.join(), part])))
  const used = new Set<string>()
  return definition.glue.flatMap((group, index): Problem[] => {
    const field = `glue[${index}]`
    const wrong = (what: string) => [problemAt(field, `${field} ${what}`)]
    for (const at of group) {
      const key = at.join()
      if (!cells.has(key)) return wrong(`names (${at.join(', ')}), which is no cell of the puzzle`)
      if (used.has(key)) return wrong(`names (${at.join(', ')}), which is glued already`)
      used.add(key)
    }
    const owners = new Set(group.map((at) => cells.get(at.join())?.core))
    if (owners.size > 1 && cores.length > 1) return wrong('joins cells of two cores')
    if (!connected(group)) return wrong('joins cells that are not neighbours')
    return []
  })
}

function connected(cells: readonly Vector[]): boolean {
  const reached = new Set([0])
  for (const index of reached)
    cells.forEach((other, j) => {
      const distance = other.reduce((sum, c, axis) => sum + Math.abs(c - cells[index][axis]), 0)
      if (Math.abs(distance - 1) < 1e-9) reached.add(j)
    })
  return reached.size === cells.length
}

const FAR = 400

function solidProblems(definition: PuzzleDefinition): Problem[] {
  const { solid } = definition
  if (!solid) return []
  const whole = clipAll(bigCube(FAR), solid.halfSpaces)
  if (whole.some(({ colour }) => colour === undefined))
    return [problemAt('solid', 'solid has no end: its half-spaces leave a direction open')]
  const idle = solid.halfSpaces.findIndex(
    ({ normal, at }) =>
      !whole.some(({ polygon }) => polygon.every((v) => Math.abs(dot(normal, v) - at) < 1e-6)),
  )
  if (idle >= 0)
    return [problemAt(`solid.halfSpaces[${idle}]`, `solid.halfSpaces[${idle}] cuts nothing off`)]
  return mechanismOf(definition)
    .parts.filter(({ faces }) => faces.length > 0)
    .flatMap((part) => {
      const cut = cutPart(solid.halfSpaces, part)
      const body = cut.body.map((polygon) => ({ polygon, normal: [0, 0, 0] as Vector }))
      if (body.length > 0 && cut.faces.length > 0 && volumeOf(body) >= LEAST_VOLUME) return []
      return [
        problemAt(
          'solid',
          `solid leaves nothing to see, or hardly anything, of the piece ${part.name}`,
        ),
      ]
    })
}
