import type { Spoken } from './spoken'

const SAYS: Readonly<Record<string, string>> = {
  R: 'right up',
  "R'": 'right down',
  L: 'left down',
  "L'": 'left up',
  U: 'top with the right hand',
  "U'": 'top with the left hand',
}

/** What the hands do, the last layer on top. It has no word for half turns, slices and what is seen from behind. */
export const hands: Spoken = {
  id: 'hands',
  name: 'hands',
  example: 'right up, top with the left hand',
  says: (name) => SAYS[name],
}
