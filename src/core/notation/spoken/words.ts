import type { Spoken } from './spoken'

/** For ears, and for screen readers. */
export const words: Spoken = {
  id: 'words',
  name: 'words',
  example: 'right clockwise, top back',
  says: () => undefined,
}
