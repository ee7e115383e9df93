/** The two fixed views: near from front, right and above; far from the opposite corner. */
import type { Vector } from '@/core/rotation'

export type WindowName = 'near' | 'far'

export const WINDOW_NAMES: readonly WindowName[] = ['near', 'far']

/** Direction from the core to the near eye; the far eye is opposite. */
export const NEAR_EYE: Vector = [0.62, 0.56, 0.86]

export const eyeOf = (name: WindowName): Vector =>
  name === 'near' ? NEAR_EYE : [-NEAR_EYE[0], -NEAR_EYE[1], -NEAR_EYE[2]]

/** What each window looks at, for labels. */
export const WINDOW_WORDS: Readonly<Record<WindowName, string>> = {
  near: 'near window: front, right and top',
  far: 'far window: back, left and bottom',
}
