import type { Spoken } from './spoken'

/** Small pictures, one a turn, drawn where there is room for them; plain words everywhere else. */
export const arrows: Spoken = {
  id: 'arrows',
  name: 'arrows (small pictures; words in a row)',
  example: 'right clockwise, top back',
  says: () => undefined,
}
