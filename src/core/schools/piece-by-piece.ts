/**
 * The universal school: one piece at a time. Nothing of it is written by hand for a puzzle: its stages
 * are the orbits that the turns have, in the order in which later work leaves earlier work alone.
 */
import { changesShape } from '../analysis/layouts'
import type { Puzzle } from '../puzzle/compile'
import { countedName } from '../analysis/groupNames'
import { groupOf } from '../universal/groups'
import { hasMoves } from '../universal/moves'
import { workOf } from '../universal/orbitsAtWork'
import { guessedPlan, knownPlanOf, type OrbitPlan } from '../universal/orbitPlan'
import { capital, listed } from '../phrases'
import type { Condition, School, Stage } from './school'

export const UNIVERSAL_ID = 'piece-by-piece'
export const UNIVERSAL_NAME = 'Piece by piece'

/** With the order of the work that it was made for: a better one may be found later. */
const schools = new WeakMap<Puzzle, { plan: OrbitPlan; school: School }>()

/** Undefined for a puzzle whose turns can be blocked in ways that are not understood. */
export function pieceByPiece(puzzle: Puzzle): School | undefined {
  if (!hasMoves(puzzle)) return undefined
  const plan = knownPlanOf(puzzle) ?? guessedPlan(puzzle)
  const known = schools.get(puzzle)
  if (known && JSON.stringify(known.plan) === JSON.stringify(plan)) return known.school
  const school: School = {
    id: UNIVERSAL_ID,
    name: UNIVERSAL_NAME,
    character:
      'Three pieces at a time: set up, a short cycle, undo. Nothing else is disturbed, so nothing is learned by heart.',
    fits: { mechanism: 'any' },
    options: [],
    isWithoutBase: true,
    stages: stagesOf(puzzle, plan),
  }
  schools.set(puzzle, { plan, school })
  return school
}

function stagesOf(puzzle: Puzzle, { first, settled, later }: OrbitPlan): Stage[] {
  const { orbits } = workOf(puzzle)
  const single = [...orbits.keys()].filter((o) => orbits[o].orbit.places.length === 1)
  const stages: Stage[] = []
  const all = puzzle.pieces.map((_, p) => p)
  const shape: Condition[] = changesShape(puzzle)
    ? [{ layer: 'base', must: 'in shape', pieces: all }]
    : []
  let areSettled = false
  let done: readonly number[] = []
  const add = (id: string, name: string, aim: string, technique: Stage['technique']) => {
    const goal: Condition[] = [
      ...shape,
      { layer: 'base', must: 'looks home', pieces: done },
      ...(areSettled ? [{ layer: 'base', must: 'settled', pieces: [] } as const] : []),
    ]
    stages.push({ id, name, aim, base: 'U', goal, technique })
  }
  const addOrbits = (group: readonly number[]) => {
    const places = group.flatMap((orbit) => [...orbits[orbit].orbit.places])
    done = [...done, ...places]
    const named = group.map((orbit) => groupOf(puzzle, orbit))
    add(
      `orbit-${puzzle.pieces[places[0]].id}`,
      capital(listed(named.map(({ name }) => name))),
      `${capital(listed(named.map(countedName)))} are home.`,
      { kind: 'cycles', orbit: group[0] },
    )
  }
  if (shape.length > 0) {
    const hasBlocks = puzzle.definition.glue.length > 0
    stages.push({
      id: 'shape',
      name: hasBlocks ? 'Blocks' : 'Shape',
      aim: hasBlocks
        ? 'The glued blocks lie as they do in the finished puzzle, whatever the colours.'
        : 'The puzzle has its finished shape, whatever the colours.',
      base: 'U',
      goal: shape,
      technique: { kind: 'shape' },
    })
  }
  first.forEach(addOrbits)
  done = [...done, ...[...settled, ...single].flatMap((orbit) => orbits[orbit].orbit.places)]
  areSettled = true
  const together = settled
    .filter((orbit) => !single.includes(orbit))
    .map((orbit) => countedName(groupOf(puzzle, orbit)))
  add(
    'sums',
    'Odd and even',
    [
      ...(together.length === 0 ? [] : [`${capital(listed(together))} are home.`]),
      single.length > 0
        ? 'The pieces that only turn in their places lie right, and three at a time will do for the rest.'
        : 'Three at a time will do for the rest.',
    ].join(' '),
    { kind: 'sums' },
  )
  later.forEach((orbit) => addOrbits([orbit]))
  return stages
}
