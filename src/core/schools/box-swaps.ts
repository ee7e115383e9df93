import type { Condition, School, Selection, Stage } from './school'

/** A corner goes from the layer above to the one below, with two edges above. */
const INSERT = "R2 U R2 U' R2"
/** The same with an even number of half turns; and two corners at once. */
const INSERT_EVEN = 'R2 U R2 U R2 U2 R2'
const INSERT_TWO = 'R2 U R2 U2 R2 U R2'
/** Two corners above change places. */
const CORNERS = "R2 U R2 U' R2 U' D R2 U' R2 U R2 D'"
/** Two edges above, side by side and across. */
const ADJACENT = "R2 U R2 U R2 U2 R2 U2 R2 U R2 U' R2"
const OPPOSITE = 'R2 U2 R2 U2 R2 U2'

/** Both pairs across. */
const ACROSS = '2R2 U 2R2 U2 2R2 U 2R2'
/** An edge above and the one below it change places: inside a box they look the same. */
const TRADE = "D2 R2 U' R2 U2 R2 U2 R2 U' R2 D2"
/** The same in the box inside, or in both boxes inside: nothing is seen of it, and these are half done. */
const TRADE_INSIDE = "2D2 R2 2U' R2 2U2 R2 2U2 R2 2U' R2 2D2 R2"
const TRADE_IN_BOTH =
  "2D2 R2 2U' R2 2U2 R2 2U2 R2 2U' R2 2D2 3D2 R2 3U' R2 3U2 R2 3U2 R2 3U' R2 3D2"

const of = (column: 'corner' | 'side', layer: 'base' | 'last'): Selection => ({
  columns: [column],
  layers: [layer],
  box: 1,
})

export const done = (...selections: Selection[]): Condition[] =>
  selections.map((select) => ({ layer: 'base', must: 'looks home', select }))

const firstSides = of('side', 'base')
const firstCorners = of('corner', 'base')
const lastCorners = of('corner', 'last')
const lastSides = of('side', 'last')

/** The stages of a box two layers high, alone or with others inside and around it. */
export const BOX: readonly Stage[] = [
  {
    id: 'first-edges',
    name: '{box} box: edges below',
    aim: 'The four in the middle of the sides of the lower layer of the {box} box are home.',
    base: 'D',
    goal: done(firstSides),
    technique: { kind: 'swap', select: firstSides, sequences: ['R2'] },
    for: 'each box',
  },
  {
    id: 'first-corners',
    name: '{box} box: corners below',
    aim: 'The lower layer of the {box} box is home.',
    base: 'D',
    goal: done(firstSides, firstCorners),
    technique: { kind: 'swap', select: firstCorners, sequences: [INSERT, INSERT_EVEN, INSERT_TWO] },
    for: 'each box',
  },
  {
    id: 'last-corners',
    name: '{box} box: corners above',
    aim: 'All corners of the {box} box are home.',
    base: 'D',
    goal: done(firstSides, firstCorners, lastCorners),
    technique: { kind: 'swap', select: lastCorners, sequences: [CORNERS] },
    for: 'each box',
  },
  {
    id: 'last-edges',
    name: '{box} box: edges above',
    aim: 'The {box} box is home.',
    base: 'D',
    goal: done(firstSides, firstCorners, lastCorners, lastSides),
    technique: {
      kind: 'swap',
      select: lastSides,
      sequences: [ADJACENT, OPPOSITE, ACROSS, TRADE, TRADE_INSIDE, TRADE_IN_BOTH],
    },
    for: 'each box',
  },
]

export const boxSwaps: School = {
  id: 'box-swaps',
  name: 'Box swaps',
  character:
    'One layer, then the other by swaps: two corners, two edges side by side, two across. Four sequences, all with the right side.',
  fits: { mechanism: 'box', ends: 3, length: [2, 2] },
  options: [],
  stages: BOX,
}
