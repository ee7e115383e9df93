import type { Condition, School, Selection, Stage } from './school'

const ORDINALS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth'] as const
/** When five circles are whole, so is the sixth. Bits at corners begin where those at edges end. */
const EDGE_BITS = [1, 2, 3, 4, 5] as const
const CORNER_BITS = [6, 1, 2, 3, 4] as const

const must = (demand: Condition['must'], select: Selection): Condition => ({
  layer: 'base',
  must: demand,
  select,
})

const edges: Selection = { kinds: ['outer edge'] }
const corners: Selection = { kinds: ['outer corner'] }

/** From the first circle on all is done so that this stays: what is left at the end goes three at a time. */
const even = must('even', corners)

const bitsOf = (kind: 'edge bit' | 'corner bit', circles: readonly number[], from: Condition[]) =>
  circles.map((circle, i): Stage => {
    const of = (n: number): Selection => ({ kinds: [kind], circle: n })
    const done = circles.slice(0, i).map((n) => must('looks home', of(n)))
    return {
      id: `${kind.replace(' ', '-')}s-${circle}`,
      name: `${kind === 'edge bit' ? 'Edge' : 'Corner'} bits, ${ORDINALS[circle - 1]} circle`,
      aim: `The four ${kind}s of the {circle} circle are home.`,
      base: 'U',
      goal: [must('looks home', of(circle)), ...done, ...from],
      technique: { kind: 'commutator', select: of(circle) },
    }
  })

const edgeBits = bitsOf('edge bit', EDGE_BITS, [even])
const cornerBits = bitsOf('corner bit', CORNER_BITS, [
  must('looks home', { kinds: ['edge bit'] }),
  even,
])

const allBits = [
  must('looks home', { kinds: ['edge bit'] }),
  must('looks home', { kinds: ['corner bit'] }),
  even,
]

export const cage: School = {
  id: 'cage',
  name: 'Cage',
  character:
    'The circles first, one after another, while the cage about them may lie as it likes; then its edges, then its corners.',
  fits: { mechanism: 'circles' },
  options: [],
  isWithoutBase: true,
  stages: [
    ...edgeBits,
    ...cornerBits,
    {
      id: 'edges',
      name: 'Outer edges',
      aim: 'The twelve outer edges are home.',
      base: 'U',
      goal: [must('home', edges), ...allBits],
      technique: { kind: 'series', select: edges },
    },
    {
      id: 'corners',
      name: 'Outer corners',
      aim: 'Every piece is home.',
      base: 'U',
      goal: [must('home', corners), must('home', edges), ...allBits],
      technique: { kind: 'series', select: corners },
    },
  ],
}
