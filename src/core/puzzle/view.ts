/** How a puzzle is held when it is drawn: most as they are, some with another direction up. */
import { cross, dot, unit } from '../geometry/vector'
import type { Vector } from '../rotation'
import type { PuzzleDefinition } from './definition'

/** Rows of an orthogonal matrix: right, up, toward the viewer, in the puzzle's own coordinates. */
export type Pose = readonly [Vector, Vector, Vector]

const UPRIGHT: Pose = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
]

export function poseOf({ view }: PuzzleDefinition): Pose {
  if (!view) return UPRIGHT
  const [up, front] = [unit(view.up), unit(view.front)]
  return [cross(up, front), up, front]
}

/** From the puzzle's coordinates to those of the picture. */
export const posed = (pose: Pose, v: Vector): Vector => [
  dot(pose[0], v),
  dot(pose[1], v),
  dot(pose[2], v),
]
