/** Makes a card of a planned step: what to look for, the hold, the check, hints. Every fact is read off the states. */
import type { Scheme } from '../puzzle/colours'
import { opposite, type Direction } from '../puzzle/directions'
import type { Puzzle } from '../puzzle/compile'
import type { Stage } from '../schools/school'
import { halfwayOf } from './halfway'
import { swapClaims } from './boxClaims'
import { blockClaims } from './blockClaims'
import { caseClaims } from './caseClaims'
import { commutatorClaims, ownerOf } from './commutatorClaims'
import {
  alignClaims,
  placedClaims,
  holdClaims,
  insertClaims,
  startClaims,
  takeOutClaims,
  twistClaims,
  type CubeScene,
} from './cubeClaims'
import { joinClaims, remedyClaims } from './joinClaims'
import { bringClaims, evenClaims, knownClaims, seriesClaims, spinClaims } from './pieceClaims'
import { holdTurnsOf, withoutEcho, type RouteStep, type StepClaims } from './route'
import { hasColouredSides } from '../analysis/sides'
import { sideName } from '../analysis/who'
import { after, type PlannedStep } from './workpiece'

export interface StepToExplain {
  readonly puzzle: Puzzle
  readonly stage: Stage
  readonly scheme: Scheme
  readonly base: Direction
  readonly steps: readonly PlannedStep[]
  readonly nth: number
  readonly id: string
}

export function explainStep(given: StepToExplain): RouteStep {
  const { puzzle, steps, nth, id } = given
  const step = steps[nth]
  const turns = step.turns.map(({ turn }) => turn)
  const opening = turns.slice(0, holdTurnsOf(step))
  const opened = after(puzzle, step.before, step.frame, opening)
  const ended = after(puzzle, step.before, step.frame, turns)
  const written = step.turns.map(({ turn, role, run }) => ({
    name: turn.name,
    role,
    ...(run === undefined ? {} : { run }),
  }))
  // The turns with which its stage was entered come first.
  if (step.aim.kind === 'given') {
    const by = { kind: 'holdBy', turns: opening.map(({ name }) => name) } as const
    const hold = step.aim.step.hold.map((claim) => (claim.kind === 'holdBy' ? by : claim))
    return { ...step.aim.step, id, hold, turns: written, frame: step.frame }
  }
  const scene: CubeScene = {
    ...given,
    step,
    before: step.before,
    state: opened.state,
    frame: opened.frame,
    end: ended.state,
    endFrame: ended.frame,
    isFirst: nth === 0,
  }
  const words = wordsFor(scene)
  const lit = (words.pieces ?? []).map((name) => puzzle.pieces.findIndex((p) => p.id === name))
  return withoutEcho({
    id,
    kind: step.aim.kind,
    hold: holdClaims(scene),
    algorithm: [],
    pieces: [],
    places: [],
    others: [],
    ...words,
    halfway: halfwayOf(puzzle, step.before, step.frame, turns, lit),
    turns: written,
    frame: step.frame,
  })
}

/** `{base}`, `{last}`, `{circle}` and `{cap}` in a school's sentences. */
export function aimWords(
  puzzle: Puzzle,
  scheme: Scheme,
  base: Direction,
  { aim, aimInSolid, technique }: Pick<Stage, 'aim' | 'aimInSolid' | 'technique'>,
): string {
  const owner = ownerOf(puzzle, scheme, { technique })
  const text = hasColouredSides(puzzle) ? aim : (aimInSolid ?? aim)
  return text
    .replaceAll('{base}', () => sideName(puzzle, scheme, base))
    .replaceAll('{last}', () => sideName(puzzle, scheme, opposite(base)))
    .replaceAll(/\{circle\}|\{cap\}/g, () => owner?.name ?? 'next')
}

function wordsFor(scene: CubeScene): StepClaims {
  const { aim } = scene.step
  switch (aim.kind) {
    case 'start':
      return startClaims(scene, aim)
    case 'insert':
      return insertClaims(scene, aim)
    case 'takeOut':
      return takeOutClaims(scene, aim)
    case 'count':
      return placedClaims(scene, aim)
    case 'twist':
      return twistClaims(scene, aim)
    case 'given':
      return aim.step
    case 'spin':
      return spinClaims(scene, aim)
    case 'bring':
      return bringClaims(scene, aim)
    case 'known':
      return knownClaims(scene, aim)
    case 'series':
      return seriesClaims(scene, aim)
    case 'swap':
      return swapClaims(scene, aim)
    case 'join':
      return joinClaims(scene, aim)
    case 'commutator':
      return commutatorClaims(scene, aim)
    case 'blocks':
      return blockClaims(scene, aim)
    case 'remedy':
      return remedyClaims(scene, aim)
    case 'even':
      return evenClaims(scene, aim)
    case 'align':
      return alignClaims(scene)
    case 'case':
      return caseClaims(scene, aim)
  }
}
