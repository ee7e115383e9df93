import type { Spoken } from './spoken'

/** Small pictures, one a turn, on cards, tape and player; plain words within a sentence and on buttons. */
export const arrows: Spoken = {
  id: 'arrows',
  name: 'arrows (small pictures; words in sentences)',
  example: 'right clockwise, top back',
  says: () => undefined,
}
