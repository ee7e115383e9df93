/**
 * A tetrahedron that turns about its vertices, by thirds: the tip alone, or the vertex with its axial
 * centre and three edges. Edge length 6 times the square root of 2; along the axis of a vertex, which
 * is not normalised, the vertex is at 9, the cuts at 5 and 1, the face opposite at -3.
 */
import { bigCube, clipAll, type HalfSpace } from '../../geometry/polyhedron'
import { scale } from '../../geometry/vector'
import type { Vector } from '../../rotation'
import type { FaceName } from '../directions'
import { symmetriesOf, withAmountsIn, type Grip, type Mechanism, type Part } from '../mechanism'
import type { FaceColours } from './cells'

interface Vertex {
  readonly letter: 'U' | 'L' | 'R' | 'B'
  readonly axis: Vector
  /** Whose colour the face opposite the vertex has. */
  readonly facing: FaceName
}

const VERTICES: readonly Vertex[] = [
  { letter: 'U', axis: [1, 1, 1], facing: 'down' },
  { letter: 'R', axis: [-1, 1, -1], facing: 'left' },
  { letter: 'L', axis: [1, -1, -1], facing: 'right' },
  { letter: 'B', axis: [-1, -1, 1], facing: 'front' },
]
const FACE_AT = 3
const CUTS = { tip: 5, layer: 1 }

export function tetrahedronMechanism(colours: FaceColours): Mechanism {
  const shape = VERTICES.map(({ axis, facing }): HalfSpace => ({
    normal: scale(axis, -1),
    at: FACE_AT,
    colour: colours[facing],
  }))
  const solid = clipAll(bigCube(50), shape)
  const part = (
    vertices: readonly Vertex[],
    role: string,
    point: Vector,
    region: HalfSpace[],
  ): Part => {
    const facets = clipAll(solid, region)
    const letters = vertices.map(({ letter }) => letter).join('')
    return {
      points: [point],
      core: 0,
      name: role === 'tip' ? letters.toLowerCase() : letters,
      role,
      region,
      faces: facets.flatMap(({ colour, normal, polygon }) =>
        colour === undefined ? [] : [{ colour, normal, polygon }],
      ),
      body: facets.map(({ polygon }) => polygon),
    }
  }
  const below = ({ axis }: Vertex, at: number): HalfSpace => ({ normal: axis, at })
  const above = ({ axis }: Vertex, at: number): HalfSpace => ({ normal: scale(axis, -1), at: -at })
  const others = (...own: Vertex[]) => VERTICES.filter((vertex) => !own.includes(vertex))
  const tips = VERTICES.map((v) => part([v], 'tip', scale(v.axis, 2), [above(v, CUTS.tip)]))
  const centres = VERTICES.map((v) =>
    part([v], 'axial centre', v.axis, [
      above(v, CUTS.layer),
      below(v, CUTS.tip),
      ...others(v).map((other) => below(other, CUTS.layer)),
    ]),
  )
  const edges = VERTICES.flatMap((a, i) =>
    VERTICES.slice(i + 1).map((b) => {
      const point = a.axis.map((c, k) => c + b.axis[k]) as unknown as Vector
      const region = [
        above(a, CUTS.layer),
        above(b, CUTS.layer),
        below(a, CUTS.tip),
        below(b, CUTS.tip),
      ]
      return part([a, b], 'edge', point, region)
    }),
  )
  const parts = [...tips, ...centres, ...edges]
  const grips = VERTICES.flatMap(({ letter, axis }) => [
    third(letter, axis, CUTS.layer),
    third(letter.toLowerCase(), axis, CUTS.tip),
  ])
  const symmetries = symmetriesOf(parts, grips)
  const wholes = WHOLE_LIKE.map(([name, like]) => third(name, axisOfVertex(like), null))
  return {
    cores: [[0, 0, 0]],
    parts,
    grips: [...grips, ...wholes.flatMap((grip) => withAmountsIn(symmetries, grip))],
    still: [0, 0, 0],
    shape,
  }
}

/** Whole-puzzle rotations turn like the vertex named beside them. */
const WHOLE_LIKE = [
  ['x', 'R'],
  ['y', 'U'],
  ['z', 'B'],
] as const

const axisOfVertex = (letter: string): Vector =>
  VERTICES.find((vertex) => vertex.letter === letter)?.axis ?? [0, 0, 0]

const third = (name: string, axis: Vector, from: number | null): Grip => ({
  name,
  core: 0,
  axis,
  from,
  to: null,
  unitDegrees: 120,
  amounts: [1, 2],
  condition: null,
})
