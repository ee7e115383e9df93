import type { School } from './school'

export const shortest: School = {
  id: 'shortest',
  name: 'Shortest',
  character: 'The least number of turns, for comparison and for the curious.',
  puzzles: ['cube-2'],
  options: [],
  stages: [
    {
      id: 'solve',
      name: 'Shortest way home',
      aim: 'Every piece is home.',
      base: 'D',
      goal: [
        { layer: 'base', must: 'home' },
        { layer: 'last', must: 'home' },
      ],
      technique: { kind: 'optimal' },
    },
  ],
}
