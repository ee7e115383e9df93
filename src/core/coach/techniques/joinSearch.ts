/** What the ways of a step that joins parts are looked for with, and what a way is. */
import type { Joined } from '../../analysis/joined'
import type { Hand } from '../../notation/handCost'
import type { Puzzle, Turn } from '../../puzzle/compile'
import type { Technique } from '../../schools/school'
import type { State } from '../../state'
import type { Judge } from './joinJudge'

export type JoinTechnique = Extract<Technique, { kind: 'join' }>

export interface JoinSearch {
  readonly puzzle: Puzzle
  readonly technique: JoinTechnique
  readonly judge: Judge
  readonly hand: Hand
  readonly joined: Joined
  /** Those of the stage. */
  readonly wholes: readonly number[]
}

export interface JoinWay {
  /** Turns that part nothing. */
  readonly prefix: readonly Turn[]
  readonly turns: readonly Turn[]
  readonly end: State
  readonly isByStrips?: boolean
}

export const lengthOf = ({ prefix, turns }: JoinWay): number => prefix.length + turns.length

/** Whether a stage is about pairs. */
export const areAllPairs = ({ judge, wholes }: JoinSearch): boolean =>
  judge.partsInAll === 2 * wholes.length
