/** The schools that are written. A new one is a file beside the others and a line here. */
import { beltBarsBoxes } from './belt-bars-boxes'
import { boxSwaps } from './box-swaps'
import { cage } from './cage'
import { capsByBlocks } from './caps-by-blocks'
import { edgesFirst } from './edges-first'
import { faceFirst } from './face-first'
import { faceThenThree } from './face-then-three'
import { halfByHalf } from './half-by-half'
import { layerByLayer } from './layer-by-layer'
import { layers } from './layers'
import { nestedBoxes } from './nested-boxes'
import { oneTrigger } from './one-trigger'
import { reduction } from './reduction'
import type { School } from './school'
import { shapeFirst } from './shape-first'
import { slideIn } from './slide-in'
import { slideInCapped } from './slide-in-capped'

export const SCHOOLS: readonly School[] = [
  oneTrigger,
  layerByLayer,
  faceFirst,
  faceThenThree,
  layers,
  edgesFirst,
  halfByHalf,
  reduction,
  beltBarsBoxes,
  boxSwaps,
  nestedBoxes,
  shapeFirst,
  slideIn,
  slideInCapped,
  cage,
  capsByBlocks,
]

/** One that a smaller box is played by. @throws if no written school has the id */
export function writtenSchool(id: string): School {
  const found = SCHOOLS.find((school) => school.id === id)
  if (!found) throw new Error(`no school is written with the id ${id}`)
  return found
}
