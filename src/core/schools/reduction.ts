import type { Vector } from '../rotation'
import { playedAs, solvable, together, whole } from './joining'
import type { Fact, School, Selection, Stage } from './school'

const small: Vector = [3, 3, 3]
const centres = (...layers: NonNullable<Selection['layers']>): Selection => ({
  as: small,
  kinds: ['centre'],
  layers,
})
const edges: Selection = { as: small, kinds: ['edge'] }
const asThree = (...stages: string[]): Stage => playedAs(small, 'layers', stages)

const slices = ['2R', '2R2', "2R U 2R'", "2R U2 2R'", '2R2 U 2R2', "2R U 2L' U' 2R' U 2L U'"]
/** Where every centre has its own place: three go round, two of them of one side, and nothing else moves. */
const exact = [...slices, "2R 2D 2R' U 2R 2D' 2R' U'", "2R 2D2 2R' U2 2R 2D2 2R' U2"]

const allCentres: Selection = { as: small, kinds: ['centre'] }

const centreStages = (asks: Fact, suffix: string, sequences: readonly string[]): Stage[] => [
  {
    id: `first-centre${suffix}`,
    name: 'First centre',
    aim: 'The four {base} centres lie together.',
    aimInSolid: 'The four centres of the first side lie together as in the finished puzzle.',
    base: 'D',
    goal: whole(centres('base')),
    technique: { kind: 'join', select: centres('base'), sequences },
    asks,
  },
  {
    id: `opposite-centre${suffix}`,
    name: 'Opposite centre',
    aim: 'The four {last} centres lie together too.',
    aimInSolid: 'The four centres of the side across lie together too.',
    base: 'D',
    goal: whole(centres('base', 'last')),
    technique: { kind: 'join', select: centres('base', 'last'), sequences },
    asks,
  },
  {
    id: `side-centres${suffix}`,
    name: 'Centres of the sides',
    aim: 'All six centres are whole, each on its side.',
    base: 'D',
    goal: whole(allCentres),
    technique: { kind: 'join', select: allCentres, sequences },
    asks,
  },
]

export const reduction: School = {
  id: 'reduction',
  name: 'Reduction',
  character: 'Centres, then edges in pairs; what is left turns like a cube of three layers.',
  fits: { mechanism: 'box', size: [4, 4, 4], inSolids: true },
  options: [],
  stages: [
    ...centreStages('no centre tells', '', slices),
    ...centreStages('centres tell', '-exact', exact),
    {
      id: 'pairs',
      name: 'Edges in pairs',
      aim: 'The two edges of every pair lie side by side.',
      base: 'D',
      goal: [...whole(allCentres), together(edges)],
      technique: {
        kind: 'join',
        select: edges,
        sequences: ["2U R U R' 2U'", "2U R U2 R' 2U'", "2U' R F' U R' F 2U"],
      },
    },
    asThree('centres', 'cross', 'cross-safe', 'corners-by-look', 'middle'),
    {
      id: 'flipped-pair',
      name: 'A flipped pair',
      aim: 'The pairs of the last layer can all be turned right by outer layers.',
      base: 'D',
      goal: [solvable(edges)],
      technique: {
        kind: 'remedy',
        select: edges,
        sequences: ["2R2 B2 U2 2L U2 2R' U2 2R U2 F2 2R F2 2L' B2 2R2"],
        fetch: 'U',
      },
    },
    asThree('last-edges-faced'),
    {
      id: 'exchanged-pairs',
      name: 'Two exchanged pairs',
      aim: 'The pairs of the last layer can all be brought home by outer layers.',
      base: 'B',
      goal: [solvable({ as: small })],
      technique: {
        kind: 'remedy',
        select: edges,
        sequences: ["2U' R F' U R' F 2U 2D F' R U' F R' 2D'"],
        fetch: 'F',
      },
    },
    asThree('last-edges', 'last-corners-placed', 'last-corners'),
  ],
}
