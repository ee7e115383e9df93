import { BOX, done } from './box-swaps'
import type { Condition, School, Selection } from './school'

const all: Selection = {}
const belt: Selection = { box: 0, columns: ['corner'] }
const inShape: Condition = { layer: 'base', must: 'in shape', select: all }

export const shapeFirst: School = {
  id: 'shape-first',
  name: 'Shape first',
  character:
    'The box by its shape alone, the belt in its true places, then the inner box with the caps riding along, and the outer one, both by swaps.',
  fits: { mechanism: 'capped', ends: 3, length: [5, 5] },
  options: [],
  stages: [
    {
      id: 'shape',
      name: 'Shape',
      aim: 'It is a box again, whatever its colours.',
      base: 'D',
      goal: [inShape],
      technique: { kind: 'reshape' },
    },
    {
      id: 'belt',
      name: 'Belt',
      aim: 'The four edges of the belt are home, each the right way round.',
      base: 'D',
      goal: done(belt),
      technique: { kind: 'small', select: belt },
      for: 'the belt',
    },
    ...BOX,
  ],
}
