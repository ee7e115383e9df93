/** The two fixed views: near from front, right and above; far from the opposite corner. */
import type { PuzzleDefinition } from '@/core/puzzle/definition'
import type { Vector } from '@/core/rotation'

export type WindowName = 'near' | 'far'

export const WINDOW_NAMES: readonly WindowName[] = ['near', 'far']

/** Direction from the core to the near eye, toward a corner or the front face; the far eye is opposite. */
export const NEAR_EYES: Readonly<Record<'corner' | 'face', Vector>> = {
  corner: [0.62, 0.56, 0.86],
  face: [0, 0.36, 1],
}

export function eyeOf(name: WindowName, { view }: Pick<PuzzleDefinition, 'view'>): Vector {
  const [x, y, z] = NEAR_EYES[view?.toward ?? 'corner']
  return name === 'near' ? [x, y, z] : [-x + 0, -y, -z]
}

/** What each window looks at, for labels. */
export const WINDOW_WORDS: Readonly<Record<WindowName, string>> = {
  near: 'near window: front, right and top',
  far: 'far window: back, left and bottom',
}
