import type { School } from './school'

export const layerByLayer: School = {
  id: 'layer-by-layer',
  name: 'Layer by layer',
  character: 'A whole layer first, then seven cases to orient and two to permute.',
  fits: { mechanism: 'box', size: [2, 2, 2], inSolids: true },
  options: [],
  stages: [
    {
      id: 'first-layer',
      name: 'First layer',
      aim: 'The {base} face is whole and its side colours match.',
      aimInSolid: 'The four corners of one layer are home beside each other.',
      base: 'D',
      goal: [{ layer: 'base', must: 'home' }],
      technique: { kind: 'gather', must: 'home' },
    },
    {
      id: 'orient',
      name: 'Orient the last layer',
      aim: 'The {last} face is whole; its sides may be wrong.',
      aimInSolid: 'The corners of the other layer are turned right, wherever they are in it.',
      base: 'D',
      goal: [
        { layer: 'base', must: 'home' },
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
      name: 'Permute the last layer',
      aim: 'Every piece is home.',
      base: 'D',
      goal: [
        { layer: 'base', must: 'home' },
        { layer: 'last', must: 'home' },
      ],
      technique: {
        kind: 'case',
        reading: 'bars',
        holds: ['', 'y', 'y2', "y'"],
        before: false,
        after: true,
        layers: ['R', 'U', 'F'],
      },
    },
  ],
}
