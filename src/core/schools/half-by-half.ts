import type { Condition, School, Selection, Stage } from './school'

const NAMES = ['First', 'Second'] as const
/** The layer of the last edges, as `taught` has the halves. */
const LAST_LAYERS = ['U', 'D'] as const
/** Two edges of the first half's last layer change the way they look; and the same where they lie otherwise. */
const TURNED = ["2R' U 2R U2 2R' U 2R", "R U R' U' 2R U R U' R' 2R'"]
/** Three edges go round, one way and the other; two pairs across; two pairs side by side. */
const PLACED = [
  "R U' R U R U R U' R' U' R2",
  "R2 U R U R' U' R' U' R' U R'",
  '2R2 U 2R2 U2 2R2 U 2R2',
  "2R2 U 2R2 U 2R' U2 2R2 U2 2R'",
]

/** The same in a half: the second turns D and L where the first turns U and R. */
const inHalf = (half: 0 | 1, sequences: readonly string[]): readonly string[] =>
  half === 0
    ? sequences
    : sequences.map((text) => text.replace(/[UR]/g, (letter) => (letter === 'U' ? 'D' : 'L')))

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
function stagesOfHalf(half: 0 | 1, done: readonly Condition[]): Stage[] {
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
      id: `last-edges-turned-${half + 1}`,
      name: `${name} half: last edges turned`,
      aim: `Each of the last four edges would fit its place after a turn of its layer.`,
      base: 'D',
      goal: [{ layer: last, must: 'faced', select: lastEdges }, ...layersHome],
      technique: {
        kind: 'known',
        select: lastEdges,
        sequences: inHalf(half, TURNED),
        fetch: LAST_LAYERS[half],
        times: 2,
      },
    },
    {
      id: `last-edges-${half + 1}`,
      name: `${name} half: last edges`,
      aim: `The ${name.toLowerCase()} half is home.`,
      base: 'D',
      goal: [must(lastEdges, 'home'), ...layersHome],
      technique: {
        kind: 'known',
        select: lastEdges,
        sequences: inHalf(half, PLACED),
        fetch: LAST_LAYERS[half],
        times: 1,
      },
    },
  ]
}

const firstHalf = stagesOfHalf(0, [])

export const halfByHalf: School = {
  id: 'half-by-half',
  name: 'Half by half',
  character:
    'One half, then the other, each by its own turns: what goes round together first, then edges three at a time, the last four by sight.',
  fits: { mechanism: 'conjoined', size: [3, 3, 3], count: 2 },
  options: [],
  stages: [...firstHalf, ...stagesOfHalf(1, firstHalf[firstHalf.length - 1].goal)],
}
