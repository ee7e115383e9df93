import type { School } from './school'

export const faceFirst: School = {
  id: 'face-first',
  name: 'Face first',
  character: 'One face with sides ignored, then seven cases and five. Fewest looks.',
  fits: { mechanism: 'box', size: [2, 2, 2], inSolids: true },
  options: [],
  stages: [
    {
      id: 'face',
      name: 'First face',
      aim: 'The {base} face is whole; its sides do not matter.',
      aimInSolid:
        'The four corners of one layer are in it, each turned right; which is where does not matter.',
      base: 'D',
      goal: [{ layer: 'base', must: 'faced' }],
      technique: { kind: 'gather', must: 'faced' },
    },
    {
      id: 'orient',
      name: 'Opposite face',
      aim: 'The {last} face is whole too; sides still do not matter.',
      aimInSolid: 'The corners of the other layer are turned right too, wherever they are in it.',
      base: 'D',
      goal: [
        { layer: 'base', must: 'faced' },
        { layer: 'last', must: 'faced' },
      ],
      technique: {
        kind: 'case',
        reading: 'directions',
        holds: ['', 'y', 'y2', "y'"],
        before: false,
        after: false,
        layers: ['R', 'U', 'F'],
      },
    },
    {
      id: 'permute',
      name: 'Permute both layers',
      aim: 'Every piece is home.',
      base: 'D',
      goal: [
        { layer: 'base', must: 'home' },
        { layer: 'last', must: 'home' },
      ],
      technique: {
        kind: 'case',
        reading: 'bars',
        holds: ['', 'y', 'y2', "y'", 'x2', 'x2 y', 'x2 y2', "x2 y'"],
        before: true,
        after: true,
        layers: ['R', 'U', 'F'],
      },
    },
  ],
}
