/** The derived shelf: every sequence that the schools of a puzzle ask to be known, each once, with where it is used. */
import { sheetOf } from '../coach/sheet'
import { prepareFor } from '../coach/technique'
import { handCost, type Hand } from '../notation/handCost'
import { readTurns } from '../notation/read'
import { mirrored, rehold, simplify } from '../notation/rewrite'
import type { Puzzle, Turn } from '../puzzle/compile'
import { must } from '../result'
import type { School } from '../schools/school'
import { inverseOf } from '../state'
import { doingOf } from './does'

export interface Use {
  readonly school: string
  readonly stage: string
}

export interface Shelved {
  /** As the school has it: with its brackets. */
  readonly text: string
  readonly turnCount: number
  readonly cost: number
  readonly summary: string
  readonly uses: readonly Use[]
}

/** In the order of the schools. */
export function derivedShelf(
  puzzle: Puzzle,
  schools: readonly School[],
  hand: Hand = 'right',
  progress: (share: number) => void = () => undefined,
): Shelved[] {
  const uses = new Map<string, Use[]>()
  schools.forEach((school, i) => {
    prepareFor(puzzle, school, (share) => progress((i + share) / schools.length))
    for (const { name, byHeart } of sheetOf(puzzle, school))
      for (const { turns } of byHeart) {
        const own = uses.get(turns) ?? []
        if (!own.some((use) => use.school === school.name && use.stage === name))
          own.push({ school: school.name, stage: name })
        uses.set(turns, own)
      }
    progress((i + 1) / schools.length)
  })
  return [...uses].map(([text, own]) => {
    const turns = must(readTurns(puzzle, text))
    return { text, ...measured(puzzle, turns, hand), uses: own }
  })
}

export interface Measured {
  readonly turnCount: number
  readonly cost: number
  readonly summary: string
}

/** What stands beside a sequence in a list; what it does where it can be made in the finished puzzle. */
export function measured(puzzle: Puzzle, turns: readonly Turn[], hand: Hand = 'right'): Measured {
  const doing = doingOf(puzzle, turns)
  return {
    turnCount: turns.filter(({ whole }) => !whole).length,
    cost: handCost(turns, hand),
    summary: doing.ok ? doing.value.summary : doing.problem.sentence,
  }
}

export type Kinship = 'the same' | 'taken back' | 'mirrored' | 'in another hold'

export interface Known {
  readonly here: string
  readonly there: string
  readonly as: Kinship
}

/**
 * What of a shelf is known from another puzzle's: the same turns, taken back, mirrored or in another hold, up to
 * turns of one layer that join.
 */
export function knownFrom(
  puzzle: Puzzle,
  here: readonly string[],
  other: Puzzle,
  there: readonly string[],
): Known[] {
  const nameOf = (turns: readonly Turn[]) =>
    simplify(puzzle, turns)
      .map(({ name }) => name)
      .join(' ')
  const known = new Map<string, { text: string; as: Kinship }>()
  const learn = (turns: readonly Turn[] | undefined, text: string, as: Kinship) => {
    if (!turns) return
    const name = nameOf(turns)
    if (!known.has(name)) known.set(name, { text, as })
  }
  const translated = there.flatMap((text) => {
    const turns = must(readTurns(other, text)).flatMap(
      ({ name }) => puzzle.turnByName.get(name) ?? [],
    )
    return turns.length === must(readTurns(other, text)).length ? [{ text, turns }] : []
  })
  for (const { text, turns } of translated) learn(turns, text, 'the same')
  for (const { text, turns } of translated) learn(inverseOf(puzzle, turns), text, 'taken back')
  for (const { text, turns } of translated) {
    const image = mirrored(puzzle, turns, 0)
    learn(image, text, 'mirrored')
    learn(image && inverseOf(puzzle, image), text, 'mirrored')
  }
  for (const { text, turns } of translated)
    for (const hold of puzzle.holds) {
      learn(rehold(puzzle, turns, hold), text, 'in another hold')
      learn(inverseOf(puzzle, rehold(puzzle, turns, hold)), text, 'in another hold')
    }
  return here.flatMap((text) => {
    const found = known.get(nameOf(must(readTurns(puzzle, text))))
    return found ? [{ here: text, there: found.text, as: found.as }] : []
  })
}
