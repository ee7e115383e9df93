/**
 * The universal school: one piece at a time. Nothing of it is written by hand for a puzzle: its stages
 * are the orbits that the turns have, in the order in which later work leaves earlier work alone.
 */
import { changesShape } from '../analysis/layouts'
import type { Puzzle } from '../puzzle/compile'
import { hasMoves } from '../universal/moves'
import { workOf } from '../universal/orbitsAtWork'
import { guessedPlan, knownPlanOf, type OrbitPlan } from '../universal/orbitPlan'
import { capital, kindPlural, listed, shortKind } from '../words'
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
    puzzles: [puzzle.definition.id],
    options: [],
    stages: stagesOf(puzzle, plan),
  }
  schools.set(puzzle, { plan, school })
  return school
}

function stagesOf(puzzle: Puzzle, { first, settled, later }: OrbitPlan): Stage[] {
  const { orbits } = workOf(puzzle)
  const single = [...orbits.keys()].filter((o) => orbits[o].orbit.places.length === 1)
  const names = new Map<string, number>()
  const kindsOf = (group: readonly number[]) => [
    ...new Set(group.flatMap((orbit) => orbits[orbit].kinds)),
  ]
  const nameOf = (group: readonly number[]) => {
    const name = capital(listed(shortKinds(kindsOf(group))))
    const nth = (names.get(name) ?? 0) + 1
    names.set(name, nth)
    return nth === 1 ? name : `${name} ${nth}`
  }
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
    const kinds = listed(shortKinds(kindsOf(group)))
    add(
      `orbit-${puzzle.pieces[places[0]].id}`,
      nameOf(group),
      `The ${places.length} ${kinds} are home.`,
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
  const together = listed(shortKinds(kindsOf(settled)))
  add(
    'sums',
    'Odd and even',
    [
      ...(together === '' ? [] : [`The ${together} are home.`]),
      single.length > 0
        ? 'The pieces that only turn in their places lie right, and three at a time will do for the rest.'
        : 'Three at a time will do for the rest.',
    ].join(' '),
    { kind: 'sums' },
  )
  later.forEach((orbit) => addOrbits([orbit]))
  return stages
}

/** 'corners' for corners with one face and corners with three faces. */
const shortKinds = (kinds: readonly string[]): string[] => {
  const short = kinds.map((kind) => kindPlural(shortKind(kind)))
  return [...new Set(kinds.length > 1 ? short : kinds.map(kindPlural))]
}
