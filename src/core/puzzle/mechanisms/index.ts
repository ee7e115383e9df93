/** From what a definition says to its mechanism: one builder a kind. */
import type { MechanismDefinition, PuzzleDefinition } from '../definition'
import type { Mechanism } from '../mechanism'
import { boxMechanism } from './box'
import { cappedMechanism } from './capped'
import type { FaceColours } from './cells'
import { circlesMechanism } from './circles'
import { conjoinedMechanism } from './conjoined'
import { tetrahedronMechanism } from './tetrahedron'

type Builders = {
  readonly [Kind in MechanismDefinition['kind']]: (
    mechanism: Extract<MechanismDefinition, { kind: Kind }>,
    colours: FaceColours,
  ) => Mechanism
}

const builders: Builders = {
  box: ({ size, middles }, colours) => boxMechanism(size, colours, middles),
  capped: ({ caps }, colours) => cappedMechanism(caps, colours),
  conjoined: ({ boxes }, colours) => conjoinedMechanism(boxes, colours),
  circles: ({ locked }, colours) => circlesMechanism(locked, colours),
  tetrahedron: (_, colours) => tetrahedronMechanism(colours),
}

export function mechanismOf({ mechanism, faces }: PuzzleDefinition): Mechanism {
  const build = builders[mechanism.kind] as (
    mechanism: MechanismDefinition,
    colours: FaceColours,
  ) => Mechanism
  return build(mechanism, faces)
}
