import type { Condition, School, Selection, Stage } from './school'

const ORDINALS = ['First', 'Second', 'Third', 'Fourth', 'Fifth'] as const

const must = (demand: Condition['must'], select: Selection): Condition => ({
  layer: 'base',
  must: demand,
  select,
})
const home = (select: Selection): Condition => must('looks home', select)

const inShape = must('in shape', {})
const corners: Selection = { kinds: ['corner'] }
const edges: Selection = { kinds: ['edge'] }
/** Quarter turns of the core's ends do not show there, but on the caps they count. */
const even = must('even', { kinds: ['cap corner', 'cap edge'] })
const lastCorners: Selection = { cap: 'last', kinds: ['cap corner'] }

/** Each keeps what the ones before have done. */
function inARow(
  stages: readonly (Omit<Stage, 'base' | 'goal' | 'technique'> & { select: Selection })[],
) {
  const done: Condition[] = [inShape]
  return stages.map(({ select, ...stage }): Stage => {
    const goal = [home(select), ...done]
    done.unshift(home(select))
    if (select === edges) {
      goal.push(even)
      done.push(even)
    }
    const kind = typeof select.cap === 'number' ? 'blocks' : 'commutator'
    return { ...stage, base: 'U', goal, technique: { kind, select } }
  })
}

export const capsByBlocks: School = {
  id: 'caps-by-blocks',
  name: 'Caps by blocks',
  character:
    'The shape, the core, then one cap after another: each grows as a block from a corner with its edge, by turns that keep the shape.',
  fits: { mechanism: 'capped', pairs: [2, 3] },
  options: [],
  isWithoutBase: true,
  stages: [
    {
      id: 'shape',
      name: 'Shape',
      aim: 'It has its finished shape again, whatever its colours.',
      base: 'U',
      goal: [inShape],
      technique: { kind: 'reshape' },
    },
    ...inARow([
      {
        id: 'core-corners',
        name: 'Corners of the core',
        aim: 'The corners of the core are home.',
        select: corners,
      },
      { id: 'core-edges', name: 'Edges of the core', aim: 'The core is home.', select: edges },
      ...ORDINALS.map((ordinal, i) => ({
        id: `cap-${i + 1}`,
        name: `${ordinal} cap`,
        aim: `The {cap} cap is home.`,
        select: { cap: i + 1 },
      })),
      {
        id: 'last-corners',
        name: 'Last cap: corners',
        aim: 'The corners of the last cap are home.',
        select: lastCorners,
      },
      {
        id: 'last-edges',
        name: 'Last cap: edges',
        aim: 'Every piece is home.',
        select: { cap: 'last' },
      },
    ]),
  ],
}
