import type { Condition, School, Selection } from './school'

const centres: Selection = { kinds: ['centre'] }
const cross: Selection = { kinds: ['edge'], layers: ['base'] }
const middleEdges: Selection = { kinds: ['edge'], layers: ['middle'] }
const edges: Selection = { kinds: ['edge'] }
const corners: Selection = { kinds: ['corner'] }

const must = (select: Selection, demand: Condition['must'], spare?: number): Condition => ({
  layer: 'base',
  must: demand,
  select,
  ...(spare === undefined ? {} : { spare }),
})
const inRegister = must(centres, 'looks home')

/** Four turns: three edges go round, and corners move that no one has asked for yet. */
const EDGE_SERIES = "R U R' U'"
/** Eight turns: three corners go round, and nothing else moves. */
const CORNER_SERIES = "R U' L' U R' U' L U"

export const edgesFirst: School = {
  id: 'edges-first',
  name: 'Edges first',
  character:
    'Two series, one for edges and one for corners, with set-ups. Little to remember, much to look.',
  fits: { mechanism: 'box', size: [3, 3, 3], inSolids: true },
  options: [],
  lastCentreTellsLeast: true,
  stages: [
    {
      id: 'centres',
      name: 'Centres in register',
      aim: 'All centres look as in the finished puzzle.',
      base: 'D',
      goal: [inRegister],
      technique: {
        kind: 'spin',
        select: centres,
        layers: ['U', 'D', 'F', 'B', 'R', 'L'],
      },
      asks: 'centres tell',
    },
    {
      id: 'cross',
      name: 'Cross',
      aim: 'The four edges of the {base} side are home beside its centre.',
      base: 'D',
      goal: [must(cross, 'home'), inRegister],
      technique: { kind: 'gather', must: 'home', select: cross },
      asks: 'no centre tells',
    },
    {
      id: 'cross-series',
      name: 'Cross',
      aim: 'The four edges around the {base} centre are home, and the centres still in register.',
      aimInSolid: 'The four edges around {base} are home, and the centres still in register.',
      base: 'D',
      goal: [must(cross, 'home'), inRegister],
      technique: { kind: 'series', select: cross, sequences: [EDGE_SERIES] },
      asks: 'centres tell',
    },
    {
      id: 'middle',
      name: 'Three middle edges',
      aim: 'Three of the four edges of the middle layer are home; the fourth place stays spare.',
      aimInSolid:
        'Three of the four edges that lie neither around {base} nor around {last} are home; the fourth place stays spare.',
      base: 'D',
      goal: [must(middleEdges, 'home', 1), must(cross, 'home'), inRegister],
      technique: { kind: 'series', select: middleEdges, sequences: [EDGE_SERIES] },
    },
    {
      id: 'edges',
      name: 'Other edges',
      aim: 'All twelve edges are home.',
      base: 'D',
      goal: [must(edges, 'home'), inRegister],
      technique: { kind: 'series', select: edges, sequences: [EDGE_SERIES], turn: 'U' },
    },
    {
      id: 'corners',
      name: 'Corners',
      aim: 'Every piece is home.',
      base: 'D',
      goal: [must(corners, 'home'), must(edges, 'home'), inRegister],
      technique: { kind: 'series', select: corners, sequences: [CORNER_SERIES] },
    },
  ],
}
