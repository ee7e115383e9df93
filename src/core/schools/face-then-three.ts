import type { Condition, School, Selection } from './school'

const centres: Selection = { kinds: ['axial centre'] }
const tips: Selection = { kinds: ['tip'] }
const baseCentres: Selection = { kinds: ['axial centre'], layers: ['base'] }
const baseEdges: Selection = { kinds: ['edge'], layers: ['base'] }
const lastEdges: Selection = { kinds: ['edge'], layers: ['last'] }

const must = (select: Selection, demand: Condition['must']): Condition => ({
  layer: 'base',
  must: demand,
  select,
})
const tipsRight = must({ kinds: ['tip', 'axial centre'] }, 'together')

export const faceThenThree: School = {
  id: 'face-then-three',
  name: 'Face, then the last three',
  character: 'Tips, then one whole face, then the last three edges in one of five cases.',
  fits: { mechanism: 'tetrahedron' },
  options: [],
  stages: [
    {
      id: 'tips',
      name: 'Tips',
      aim: 'Every tip shows the colours of the centre under it.',
      base: 'D',
      goal: [tipsRight],
      technique: { kind: 'spin', select: tips, layers: ['u', 'r', 'l', 'b'] },
    },
    {
      id: 'centres',
      name: 'Centres of the face',
      aim: 'The three centres of the {base} face show its colour there.',
      base: 'D',
      goal: [tipsRight, must(baseCentres, 'home')],
      technique: { kind: 'spin', select: baseCentres, layers: ['R', 'L', 'B'] },
    },
    {
      id: 'edges',
      name: 'Edges of the face',
      aim: 'The {base} face is whole, and its edges match on the other faces.',
      base: 'D',
      goal: [tipsRight, must(baseCentres, 'home'), must(baseEdges, 'home')],
      technique: {
        kind: 'insert',
        select: baseEdges,
        sequences: ["R' L R L'", "L R' L' R"],
        fetch: 'U',
        runs: 2,
      },
    },
    {
      id: 'last',
      name: 'Last three edges',
      aim: 'Every piece is home.',
      base: 'D',
      goal: [
        must(centres, 'home'),
        must(tips, 'home'),
        must(baseEdges, 'home'),
        must(lastEdges, 'home'),
      ],
      technique: { kind: 'known', select: lastEdges, fetch: 'U', times: 1 },
    },
  ],
}
