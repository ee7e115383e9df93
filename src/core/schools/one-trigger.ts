import type { School, Stage } from './school'
import type { Trigger } from './techniques'

/** First layer on top: the slot is top right front, the piece waits below it. */
const fromBelow: Trigger = { turns: "R' D' R D", slot: 'UFR', spot: 'DFR' }
const fromBelowLeft: Trigger = { turns: "L D L' D'", slot: 'UFL', spot: 'DFL' }
/** First layer at the bottom: the slot is bottom right front, the piece waits above it. */
const fromAbove: Trigger = { turns: "R U R' U'", slot: 'DFR', spot: 'UFR' }
const fromAboveLeft: Trigger = { turns: "L' U' L U", slot: 'DFL', spot: 'UFL' }

const twist = (choice: string, base: Stage['base']): Stage => ({
  id: 'twist',
  name: 'Twist the last four',
  aim: 'Every piece is home.',
  base,
  goal: [
    { layer: 'base', must: 'home' },
    { layer: 'last', must: 'home' },
  ],
  // Written for the last layer on top; the coach rewrites it for the tradition's own hold.
  technique: { kind: 'twist', trigger: "R' D' R D", spot: 'UFR' },
  when: { twisting: choice },
})

export const oneTrigger: School = {
  id: 'one-trigger',
  name: 'One trigger',
  character: 'Two short sequences do everything. Least to remember, most turns.',
  fits: { mechanism: 'box', size: [2, 2, 2], inSolids: true },
  options: [
    {
      id: 'first-layer',
      name: 'First layer',
      choices: [
        { id: 'top', name: 'on top' },
        { id: 'bottom', name: 'at the bottom' },
      ],
    },
    {
      id: 'placing',
      name: 'Placing',
      choices: [
        { id: 'cycle', name: 'three-cycle' },
        { id: 'trigger', name: 'trigger three right, three left' },
      ],
    },
    {
      id: 'twisting',
      name: 'Last layer while twisting',
      choices: [
        { id: 'up', name: 'up' },
        { id: 'left', name: 'left' },
        { id: 'front', name: 'front' },
        { id: 'down', name: 'down' },
      ],
    },
  ],
  stages: [
    {
      id: 'first-layer',
      name: 'First layer',
      aim: 'The {base} face is whole and its side colours match.',
      aimInSolid: 'The four corners of one layer are home beside each other.',
      base: 'U',
      goal: [{ layer: 'base', must: 'home' }],
      technique: { kind: 'trigger', triggers: [fromBelow, fromBelowLeft] },
      when: { 'first-layer': 'top' },
    },
    {
      id: 'first-layer',
      name: 'First layer',
      aim: 'The {base} face is whole and its side colours match.',
      aimInSolid: 'The four corners of one layer are home beside each other.',
      base: 'D',
      goal: [{ layer: 'base', must: 'home' }],
      technique: { kind: 'trigger', triggers: [fromAbove, fromAboveLeft] },
      when: { 'first-layer': 'bottom' },
    },
    {
      id: 'place',
      name: 'Place the last four',
      aim: 'Every corner of the last layer is in its place, twisted or not.',
      base: 'D',
      goal: [
        { layer: 'base', must: 'home' },
        { layer: 'last', must: 'placed' },
      ],
      technique: { kind: 'count', held: 'UFR' },
      when: { placing: 'cycle' },
    },
    {
      id: 'place',
      name: 'Place the last four',
      aim: 'Every corner of the last layer is in its place, twisted or not.',
      base: 'D',
      goal: [
        { layer: 'base', must: 'home' },
        { layer: 'last', must: 'placed' },
      ],
      technique: { kind: 'count', held: 'UFR', cycle: "(R U R' U')3 y (L' U' L U)3" },
      when: { placing: 'trigger' },
    },
    twist('up', 'D'),
    twist('left', 'R'),
    twist('front', 'B'),
    twist('down', 'U'),
  ],
}
