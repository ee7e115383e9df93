import type { Condition, School, Selection, Stage } from './school'

/** Three corners of a layer go round by half turns of two sides, and nothing else moves. */
const slide = (side: 'R' | '2R', layer: 'U' | '2U' | '3U'): string =>
  `${side}2 ${layer} L2 ${layer}' ${side}2 ${layer} L2 ${layer}'`

const of = (box: number, column: 'corner' | 'side'): Selection => ({ box, columns: [column] })
const home = (select: Selection): Condition => ({ layer: 'base', must: 'home', select })

const register: Condition = { layer: 'base', must: 'looks home', select: of(0, 'side') }

/** Each stage keeps what the ones before have done. */
const STAGES: readonly (Pick<Stage, 'id' | 'name' | 'aim'> & {
  readonly select: Selection
  readonly sequence: string
  /** The layer of which a turn makes odd even. */
  readonly turn?: string
})[] = [
  {
    id: 'corners',
    name: 'Corners of the ends',
    aim: 'The eight corners of the two ends are home.',
    select: of(1, 'corner'),
    sequence: slide('R', 'U'),
    turn: 'U',
  },
  {
    id: 'edges',
    name: 'Edges of the ends',
    aim: 'Both ends are home.',
    select: of(1, 'side'),
    sequence: slide('2R', 'U'),
  },
  {
    id: 'columns',
    name: 'Columns beside the belt',
    aim: 'The eight beside the belt that lie at the corners of their layers are home.',
    select: of(2, 'corner'),
    sequence: slide('R', '2U'),
    turn: '2U',
  },
  {
    id: 'sides',
    name: 'Sides beside the belt',
    aim: 'Every piece is home.',
    select: of(2, 'side'),
    sequence: slide('2R', '2U'),
  },
]

const belt = (id: string, more: Pick<Stage, 'asks'>, turn?: string): Stage => ({
  id,
  name: 'Belt',
  aim: 'The four edges of the belt are home.',
  base: 'D',
  goal: [home(of(0, 'corner')), register],
  technique: {
    kind: 'series',
    select: of(0, 'corner'),
    sequences: [slide('R', '3U')],
    ...(turn === undefined ? {} : { turn }),
  },
  ...more,
})

export const slideIn: School = {
  id: 'slide-in',
  name: 'Slide in',
  character:
    'One short series for everything: a layer slides under a side that is turned half round, three pieces go round, nothing else moves.',
  fits: { mechanism: 'box', ends: 3, length: [5, 5], inSolids: true },
  options: [],
  stages: [
    {
      id: 'centres',
      name: 'Centres in register',
      aim: 'The centres of the four sides look as in the finished puzzle.',
      base: 'D',
      goal: [register],
      technique: { kind: 'spin', select: of(0, 'side'), layers: ['R', 'L', 'F', 'B'] },
      asks: 'centres tell',
    },
    // Where a centre tells a half turn of its side, these are even already; else one turn makes them so.
    belt('belt', { asks: 'centres tell' }),
    belt('belt-freely', { asks: 'no centre tells' }, 'R'),
    ...STAGES.map(({ id, name, aim, select, sequence, turn }, at): Stage => ({
      id,
      name,
      aim,
      base: 'D',
      goal: [
        home(select),
        ...STAGES.slice(0, at).map((stage) => home(stage.select)),
        home(of(0, 'corner')),
        register,
      ],
      technique: {
        kind: 'series',
        select,
        sequences: [sequence],
        ...(turn === undefined ? {} : { turn }),
      },
    })),
  ],
}
