import type { Vector } from '../rotation'
import { placed, playedAs, solvable, together, whole } from './joining'
import type { School, Selection, Stage } from './school'

/** As long as the real one. */
const small: Vector = [3, 0, 3]
const ends: Selection = { as: small, columns: ['axis'] }
const beltBars: Selection = { as: small, columns: ['side'], box: 0 }
const bars: Selection = { as: small, columns: ['side'] }

const asThree = (...stages: string[]): Stage =>
  // The bars of the belt tell which side is which.
  playedAs(small, 'nested-boxes', stages, [placed(ends), placed(beltBars)])

const inner = (box: number): string[] =>
  ['first-edges', 'first-corners', 'last-corners', 'last-edges'].map((id) => `${id}-${box}`)

/** An only box has no number. */
const outer = (...stages: string[]): string[] => stages.flatMap((id) => [id, `${id}-1`])

export const beltBarsBoxes: School = {
  id: 'belt-bars-boxes',
  name: 'Belt, bars, boxes',
  character:
    'The bars of the belt if there is one, the centres of the ends, then all other bars; what is left turns like a box with ends of three by three.',
  fits: { mechanism: 'box', ends: 4, length: [2, 7] },
  options: [],
  stages: [
    {
      id: 'belt-bars',
      name: 'Bars of the belt',
      aim: 'The four bars in the middle of the sides are whole, in their order round.',
      base: 'D',
      goal: whole(beltBars),
      technique: {
        kind: 'join',
        select: beltBars,
        sequences: ['2R2', 'R2', '2R2 3U 2R2', 'R2 3U 2R2', 'R2 3U2 2R2'],
      },
    },
    {
      id: 'ends',
      name: 'Centres of the ends',
      aim: 'The four centres of each end lie together.',
      base: 'D',
      goal: [...whole(beltBars), ...whole(ends)],
      technique: { kind: 'join', select: ends, sequences: ['2R2 U 2R2', '2R2 U2 2R2'] },
    },
    {
      id: 'bars',
      name: 'Bars',
      aim: 'The two parts of every bar lie side by side.',
      base: 'D',
      goal: [...whole(ends), placed(beltBars), together(bars)],
      technique: {
        kind: 'join',
        select: bars,
        sequences: [
          '2R2 2U 2R2',
          '2R2 2U2 2R2',
          '2R2 3U 2R2',
          '2R2 3U2 2R2',
          '2R2 F2 2R2',
          "2R2 U F2 U' 2R2",
          "2R2 U R2 U' 2R2",
          '2R2 U2 F2 U2 2R2',
          "R2 2U 2R2 2U' R2 2U 2R2",
          "R2 2U2 2R2 2U R2 2U' 2R2",
          '2R2 4U 2R2',
          '2R2 4U2 2R2',
          "R2 3U 2R2 3U' R2 3U 2R2",
          "R2 3U2 2R2 3U R2 3U' 2R2",
        ],
      },
    },
    asThree(
      'belt',
      ...inner(3),
      ...inner(2),
      ...outer('first-edges', 'first-corners', 'last-corners'),
    ),
    {
      id: 'exchanged-pairs',
      name: 'Two exchanged pairs',
      aim: 'The pairs above can all be brought home by the turns of the smaller box.',
      base: 'D',
      goal: [solvable({ as: small })],
      technique: {
        kind: 'remedy',
        select: { as: small, columns: ['side'], box: 1, layers: ['last'] },
        sequences: ['2R2 F2 U2 2R2 U2 F2 2R2'],
        fetch: 'U',
      },
      // Without a belt equal pieces in the boxes inside can always make it come out.
      asks: 'has a belt',
    },
    asThree(...outer('last-edges')),
  ],
}
