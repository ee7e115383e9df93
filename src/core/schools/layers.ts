import type { Condition, School, Selection } from './school'

const cross: Selection = { kinds: ['edge'], layers: ['base'] }
const baseCorners: Selection = { kinds: ['corner'], layers: ['base'] }
const middleEdges: Selection = { kinds: ['edge'], layers: ['middle'] }
const lastEdges: Selection = { kinds: ['edge'], layers: ['last'] }
const lastCorners: Selection = { kinds: ['corner'], layers: ['last'] }

const must = (
  select: Selection,
  demand: Condition['must'],
  layer: Condition['layer'] = 'base',
) => ({
  layer,
  must: demand,
  select,
})
const crossHome = must(cross, 'home')
const baseHome = [crossHome, must(baseCorners, 'home')]
const twoLayers = [...baseHome, must(middleEdges, 'home')]

export const layers: School = {
  id: 'layers',
  name: 'Layers',
  character: 'A cross, its corners, the middle layer, then the last layer in four small steps.',
  fits: { mechanism: 'box', size: [3, 3, 3] },
  options: [],
  stages: [
    {
      id: 'cross',
      name: 'Cross',
      aim: 'The four {base} edges are home beside the {base} centre.',
      base: 'D',
      goal: [crossHome],
      technique: { kind: 'gather', must: 'home', select: cross },
    },
    {
      id: 'corners',
      name: 'Corners of the first layer',
      aim: 'The {base} layer is whole.',
      base: 'D',
      goal: baseHome,
      technique: {
        kind: 'insert',
        select: baseCorners,
        sequences: ["R U R'", "L' U' L", "R U2 R' U' R U R'"],
        fetch: 'U',
        runs: 1,
      },
    },
    {
      id: 'middle',
      name: 'Middle layer',
      aim: 'The four edges of the middle layer are home.',
      base: 'D',
      goal: twoLayers,
      technique: {
        kind: 'insert',
        select: middleEdges,
        sequences: ["R U' R' U' F' U F", "L' U L U F U' F'"],
        fetch: 'U',
        runs: 1,
      },
    },
    {
      id: 'last-edges-faced',
      name: 'Last edges turned',
      aim: '{last} looks up on all four edges of the last layer.',
      base: 'D',
      goal: [...twoLayers, must(lastEdges, 'faced', 'last')],
      technique: {
        kind: 'known',
        select: lastEdges,
        sequences: ["F R U R' U' F'", "F U R U' R' F'"],
        fetch: 'U',
        times: 2,
      },
    },
    {
      id: 'last-edges',
      name: 'Last edges placed',
      aim: 'The edges of the last layer are home.',
      base: 'D',
      goal: [...twoLayers, must(lastEdges, 'home', 'last')],
      technique: {
        kind: 'known',
        select: lastEdges,
        sequences: ["R U R' U R U2 R'", "R U2 R' U' R U' R'"],
        fetch: 'U',
        times: 2,
      },
    },
    {
      id: 'last-corners-placed',
      name: 'Last corners placed',
      aim: 'The corners of the last layer are in their places, twisted or not.',
      base: 'D',
      goal: [...twoLayers, must(lastEdges, 'home', 'last'), must(lastCorners, 'placed', 'last')],
      technique: {
        kind: 'known',
        select: lastCorners,
        sequences: ["R U' L' U R' U' L", "L' U R U' L U R'"],
        fetch: 'U',
        times: 2,
      },
    },
    {
      id: 'last-corners',
      name: 'Last corners twisted',
      aim: 'Every piece is home.',
      base: 'D',
      goal: [...twoLayers, must(lastEdges, 'home', 'last'), must(lastCorners, 'home', 'last')],
      technique: { kind: 'twist', trigger: "R' D' R D", spot: 'UFR' },
    },
  ],
}
