/**
 * A 3x3x3 core with caps beyond some faces. Layers of the core turn by quarters and carry everything
 * beyond; a cap turns alone only while all nine cells of its footprint are there. Cells that have
 * been carried away from a cap are bound to what lies under them, so the puzzle changes its shape.
 */
import type { HalfSpace } from '../../geometry/polyhedron'
import { add } from '../../geometry/vector'
import type { Vector } from '../../rotation'
import { DIRECTIONS, directionOfName, type FaceName } from '../directions'
import { symmetriesOf, withAmountsIn, type Mechanism, type Part } from '../mechanism'
import { axisOf, layerRegion, MIDDLES, slab, sliceGrip, WHOLES } from './box'
import {
  boxCells,
  cellBody,
  cellFaces,
  lettersOf,
  openDirections,
  roleOf,
  type FaceColours,
} from './cells'

const CORE: Vector = [3, 3, 3]
const FOOTPRINT = 9

export function cappedMechanism(caps: readonly FaceName[], colours: FaceColours): Mechanism {
  const core = boxCells(CORE)
  const coreKeys = new Set(core.map(String))
  const directions = caps.map(directionOfName)
  const extra = directions.flatMap(({ vector }) =>
    core
      .filter((cell) => cell[axisOf(vector)] === vector[axisOf(vector)])
      .map((cell) => add(cell, vector)),
  )
  const all = new Set([...core, ...extra].map(String))
  const parts = [...core, ...extra].map((cell): Part => {
    const cap = directions.find(
      ({ vector }) => 2 === vector.reduce((sum, c, i) => sum + c * cell[i], 0),
    )
    const under = cap ? add(cell, [-cap.vector[0], -cap.vector[1], -cap.vector[2]]) : cell
    const open = openDirections(under, coreKeys)
    const name = lettersOf(open) + (cap ? `+${cap.letter}` : '')
    const role = roleOf(open.length)
    return {
      points: [cell],
      core: 0,
      name,
      role: cap ? `cap ${role}` : role,
      region: regionOf(
        cell,
        directions.map(({ vector }) => vector),
      ),
      faces: cellFaces(cell, all, colours),
      body: cellBody(cell),
    }
  })
  const grips = DIRECTIONS.flatMap((direction) => {
    const layer = slab(direction.letter, direction, 0.5, null, [1, 2, 3])
    if (!directions.includes(direction)) return [layer]
    const condition = { complete: FOOTPRINT }
    return [layer, slab(`1${direction.letter}`, direction, 1.5, null, [1, 2, 3], { condition })]
  })
  const symmetries = symmetriesOf(parts, grips)
  const inner = [...MIDDLES, ...WHOLES].flatMap((name) => sliceGrip(CORE, name))
  return {
    cores: [[0, 0, 0]],
    parts,
    grips: [...grips, ...inner.flatMap((grip) => withAmountsIn(symmetries, grip))],
    still: [0, 0, 0],
  }
}

/** A core cell ends at the cut of the cap above it; a cap cell has the layers of the core beside it. */
function regionOf(cell: Vector, caps: readonly Vector[]): HalfSpace[] {
  const inner = cell.map((c) => Math.max(-1, Math.min(1, c))) as unknown as Vector
  const beside = layerRegion(inner, [1, 1, 1])
  const cap = caps.find((vector) => vector.reduce((sum, c, i) => sum + c * cell[i], 0) === 2)
  if (cap) return [...beside, { normal: [-cap[0], -cap[1], -cap[2]], at: -1.5 }]
  const covers = caps.filter((vector) => vector.reduce((sum, c, i) => sum + c * cell[i], 0) === 1)
  return [...beside, ...covers.map((normal) => ({ normal, at: 1.5 }))]
}
