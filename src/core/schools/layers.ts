import type { Condition, School, Selection, Stage } from './school'

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
/** The centre of the last layer turns with that layer, and is set right with its edges. */
const inRegister = must({ kinds: ['centre'], layers: ['base', 'middle'] }, 'looks home')
const lastInRegister = must({ kinds: ['centre'], layers: ['last'] }, 'looks home')
const crossHome = [must(cross, 'home'), inRegister]
const baseHome = [must(baseCorners, 'home'), ...crossHome]
const twoLayers = [must(middleEdges, 'home'), ...baseHome]
const edgesHome = [...twoLayers, must(lastEdges, 'home', 'last'), lastInRegister]

const corners = (choice: string, sequences: readonly string[], runs: number): Stage => ({
  id: `corners-by-${choice}`,
  name: 'Corners of the first layer',
  aim: 'The {base} layer is whole.',
  aimInSolid: 'The layer of {base} is whole.',
  base: 'D',
  goal: baseHome,
  technique: { kind: 'insert', select: baseCorners, sequences, fetch: 'U', runs },
  when: { corners: choice },
})

export const layers: School = {
  id: 'layers',
  name: 'Layers',
  character: 'A cross, its corners, the middle layer, then the last layer in four small steps.',
  fits: { mechanism: 'box', size: [3, 3, 3], inSolids: true },
  options: [
    {
      id: 'corners',
      name: 'Corners of the first layer',
      choices: [
        { id: 'look', name: 'by look' },
        { id: 'trigger', name: 'one trigger, repeated' },
      ],
    },
  ],
  lastCentreTellsLeast: true,
  stages: [
    {
      id: 'centres',
      name: 'Centres in register',
      aim: 'All centres but that of the last layer look as in the finished puzzle. That one follows with its edges.',
      base: 'D',
      goal: [inRegister],
      technique: {
        kind: 'spin',
        select: { kinds: ['centre'], layers: ['base', 'middle'] },
        layers: ['U', 'D', 'F', 'B', 'R', 'L'],
      },
      asks: 'centres tell',
    },
    {
      id: 'cross',
      name: 'Cross',
      aim: 'The four edges of the {base} side are home beside its centre.',
      base: 'D',
      goal: crossHome,
      technique: { kind: 'gather', must: 'home', select: cross },
      asks: 'no centre tells',
    },
    {
      id: 'cross-safe',
      name: 'Cross',
      aim: 'The four edges around the {base} centre are home, and the centres still in register.',
      aimInSolid: 'The four edges around {base} are home, and the centres still in register.',
      base: 'D',
      goal: crossHome,
      technique: {
        kind: 'insert',
        select: cross,
        sequences: ['F2 U F2', "F' R U R' F", "R U R'"],
        fetch: 'U',
        runs: 1,
      },
      asks: 'centres tell',
    },
    corners('look', ["R U R'", "L' U' L", "R U2 R' U' R U R'"], 1),
    corners('trigger', ["R U R' U'"], 5),
    {
      id: 'middle',
      name: 'Middle layer',
      aim: 'The four edges of the middle layer are home.',
      aimInSolid: 'The four edges that lie neither around {base} nor around {last} are home.',
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
      aim: 'The {last} side looks up on all four edges of the last layer.',
      aimInSolid: 'Each edge of the last layer would fit its place after a turn of that layer.',
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
      aimInSolid: 'The edges of the last layer are home, and all centres in register.',
      base: 'D',
      goal: edgesHome,
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
      goal: [...edgesHome, must(lastCorners, 'placed', 'last')],
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
      goal: [...edgesHome, must(lastCorners, 'home', 'last')],
      technique: { kind: 'twist', trigger: "R' D' R D", spot: 'UFR' },
    },
  ],
}
