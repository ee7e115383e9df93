import { BOX, done } from './box-swaps'
import type { School, Selection } from './school'

const belt: Selection = { box: 0, columns: ['corner'] }

export const nestedBoxes: School = {
  id: 'nested-boxes',
  name: 'Nested boxes',
  character:
    'The belt, then one box after another from the inside out, each by the swaps of a box two layers high. The work side is counted, so that what lies inside comes right again.',
  fits: { mechanism: 'box', ends: 3, length: [4, 7] },
  options: [],
  stages: [
    {
      id: 'belt',
      name: 'Belt',
      aim: 'The four edges of the belt are home between the centres of the sides.',
      base: 'D',
      goal: done(belt),
      technique: { kind: 'swap', select: belt, sequences: ['R2'] },
      for: 'the belt',
    },
    ...BOX,
  ],
}
