import type { Condition, School, Selection, Stage } from './school'

const HALVES = [0, 1] as const
const NAMES = ['First', 'Second'] as const

const of = (half: number, kind: string, layers?: Selection['layers']): Selection => ({
  half,
  kinds: [kind],
  ...(layers ? { layers } : {}),
})

const must = (select: Selection, demand: Condition['must']): Condition => ({
  layer: 'base',
  must: demand,
  select,
})

/** The halves turn independently of each other, so the second is done as the first. */
function stagesOfHalf(half: number, done: readonly Condition[]): Stage[] {
  const name = NAMES[half]
  const last = half === 0 ? 'last' : 'base'
  const centres = of(half, 'centre')
  const corners = of(half, 'corner')
  const lastEdges = of(half, 'edge', [last])
  const layers: Selection = { ...of(half, 'edge'), but: lastEdges }
  const centresHome = [must(centres, 'looks home'), ...done]
  const cornersHome = [must(corners, 'home'), ...centresHome]
  const layersHome = [must(layers, 'home'), ...cornersHome]
  return [
    {
      id: `centres-${half + 1}`,
      name: `${name} half: centres`,
      aim: `The centres of the ${name.toLowerCase()} half are home, all together.`,
      base: 'D',
      goal: centresHome,
      technique: { kind: 'small', select: centres },
    },
    {
      id: `corners-${half + 1}`,
      name: `${name} half: loose corners`,
      aim: `The six loose corners of the ${name.toLowerCase()} half are home.`,
      base: 'D',
      goal: cornersHome,
      technique: { kind: 'small', select: corners, keeping: centres },
    },
    {
      id: `layers-${half + 1}`,
      name: `${name} half: edges of its layers`,
      aim: `The edges of the ${name.toLowerCase()} half are home, but for those of its outer layer.`,
      base: 'D',
      goal: layersHome,
      technique: { kind: 'series', select: layers },
    },
    {
      id: `last-edges-${half + 1}`,
      name: `${name} half: last edges`,
      aim: `The ${name.toLowerCase()} half is home.`,
      base: 'D',
      goal: [must(lastEdges, 'home'), ...layersHome],
      technique: { kind: 'series', select: lastEdges },
    },
  ]
}

const firstHalf = stagesOfHalf(HALVES[0], [])

export const halfByHalf: School = {
  id: 'half-by-half',
  name: 'Half by half',
  character:
    'One half, then the other, each by its own turns: what goes round together first, then edges three at a time.',
  fits: { mechanism: 'conjoined', size: [3, 3, 3], count: 2 },
  options: [],
  stages: [...firstHalf, ...stagesOfHalf(HALVES[1], firstHalf[firstHalf.length - 1].goal)],
}
