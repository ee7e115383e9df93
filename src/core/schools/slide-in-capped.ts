/** Slide in, for a core with caps, which changes shape: the half-turning box of the same solid is in `slide-in`. */
import type { Condition, School, Selection, Stage } from './school'

const must = (demand: Condition['must'], select: Selection): Condition => ({
  layer: 'base',
  must: demand,
  select,
})

const inShape = must('in shape', {})
const corners: Selection = { kinds: ['corner'] }
const caps: Selection = { kinds: ['cap corner', 'cap edge'] }
const capCorners: Selection = { kinds: ['cap corner'] }
const belt: Selection = { box: 0, columns: ['corner'] }
const edges: Selection = { kinds: ['edge'], but: belt }

const stage = (
  id: string,
  name: string,
  aim: string,
  goal: readonly Condition[],
  technique: Stage['technique'],
): Stage => ({ id, name, aim, base: 'U', goal, technique })

const settled = must('settled', {})
const cornersHome = [must('looks home', corners), settled, inShape]
const edgesHome = [must('looks home', edges), ...cornersHome]
const coreHome = [must('looks home', belt), ...edgesHome]

export const slideInCapped: School = {
  id: 'slide-in',
  name: 'Slide in',
  character:
    'The shape, then the core, its caps riding along; the caps last, a layer slid under a side that is turned half round.',
  fits: { mechanism: 'capped', ends: 3, length: [5, 5], inSolids: 'only' },
  options: [],
  isWithoutBase: true,
  stages: [
    stage('shape', 'Shape', 'It has its finished shape again, whatever its colours.', [inShape], {
      kind: 'reshape',
    }),
    stage('sums', 'Odd and even', 'Three at a time will do for the rest.', [settled, inShape], {
      kind: 'sums',
    }),
    stage('core-corners', 'Corners of the core', 'The corners of the core are home.', cornersHome, {
      kind: 'series',
      select: corners,
    }),
    stage('core-edges', 'Edges of the core', 'The core is home, but for its belt.', edgesHome, {
      kind: 'series',
      select: edges,
    }),
    stage('belt', 'Belt', 'The core is home.', coreHome, {
      kind: 'series',
      select: belt,
    }),
    stage(
      'cap-corners',
      'Corners of the caps',
      'The corners of both caps are home.',
      [must('looks home', capCorners), ...coreHome],
      { kind: 'commutator', select: capCorners },
    ),
    stage(
      'cap-edges',
      'Edges of the caps',
      'Every piece is home.',
      [must('looks home', caps), ...coreHome],
      {
        kind: 'commutator',
        select: caps,
      },
    ),
  ],
}
