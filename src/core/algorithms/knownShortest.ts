/**
 * What a search of some seconds cannot prove: the fewest turns that turn two pieces where they lie and do nothing else.
 * They were looked for beforehand (`npm run derive:shortest`), every shorter row gone through, once for all holds,
 * mirrors and ways back.
 */
import { layersOf } from '../analysis/layers'
import { familiesOf } from '../analysis/placements'
import { canonicalText } from '../canonical'
import { readTurns } from '../notation/read'
import { mirrorImage, rehold } from '../notation/rewrite'
import { writeTurns } from '../notation/write'
import type { Puzzle, Turn } from '../puzzle/compile'
import type { PuzzleDefinition } from '../puzzle/definition'
import { must } from '../result'
import { IDENTITY, ROTATION_COUNT } from '../rotation'
import { fewestTurns, type Halves } from '../search/halves'
import { inverseOf, start, turnFreely, type State } from '../state'
import { isReached } from '../universal/account'
import derived from './derived/shortest.json'
import { inHold, undoing } from './moves'

/** For each pair all ways that were kept, of equally many turns. */
export type WrittenShortest = readonly (readonly string[])[]

const shortestOf = ({ mechanism, glue }: PuzzleDefinition): WrittenShortest =>
  glue.length > 0
    ? []
    : ((derived as Record<string, WrittenShortest>)[canonicalText(mechanism)] ?? [])

/** Everything that ways which are known do in some hold, mirrored or taken back; each once. */
export function knownShortest(
  puzzle: Puzzle,
  isWanted: (turns: readonly Turn[]) => boolean,
  written: WrittenShortest = shortestOf(puzzle.definition),
): Turn[][] {
  const found = new Map<string, Turn[]>()
  for (const text of written.flat()) {
    const turns = must(readTurns(puzzle, text))
    const image = mirrorImage(puzzle, turns)
    for (const way of image ? [turns, image] : [turns])
      for (const made of [way, inverseOf(puzzle, way)])
        for (const hold of puzzle.holds) {
          const held = rehold(puzzle, made, hold)
          if (isWanted(held)) found.set(writeTurns(held), held)
        }
  }
  return [...found.values()]
}

/** Pairs of pieces turned in place, as turns can turn them: one of all that a hold, or taking it back, makes alike. */
export function pairsTurned(puzzle: Puzzle): State[] {
  const known = new Set<string>()
  const found: State[] = []
  for (const { pieces } of familiesOf(puzzle))
    for (const [i, a] of pieces.entries())
      for (const b of pieces.slice(i + 1))
        for (const turnedA of turnsInPlace(puzzle, a))
          for (const turnedB of turnsInPlace(puzzle, b)) {
            const state = start(puzzle)
            state[a] = turnedA
            state[b] = turnedB
            if (known.has(state.join()) || !isReached(puzzle, state)) continue
            for (const each of [state, undoing(puzzle, state)])
              for (const hold of puzzle.holds) known.add(inHold(puzzle, each, hold).join())
            found.push(state)
          }
  return found
}

/** Rotations, as they are seen, in which a piece lies in its place but not as at home. */
function turnsInPlace(puzzle: Puzzle, piece: number): number[] {
  const at = ROTATION_COUNT * piece
  return Array.from({ length: ROTATION_COUNT }, (_, r) => r).filter(
    (r) => puzzle.place[at + r] === piece && puzzle.look[at + r] !== puzzle.look[at + IDENTITY],
  )
}

/** Looks for them; those that are another one's image are left out. */
export async function searchShortest(
  puzzle: Puzzle,
  halves: Omit<Halves, 'turns'>,
): Promise<WrittenShortest> {
  const single = layersOf(puzzle)
  const turns = puzzle.turns.filter(({ grip }) => single.includes(grip))
  const targets = pairsTurned(puzzle)
  const written: string[][] = []
  for await (const [at, { ways }] of fewestTurns(
    puzzle,
    targets,
    { ...halves, turns },
    (position) => knownShortest(puzzle, (way) => makes(puzzle, way, position), written).length > 0,
  )) {
    const made = ways.map((way) => writeTurns(inverseOf(puzzle, way)))
    if (made.length > 0) written.push(made)
    halves.tell?.(`pair ${at + 1} of ${targets.length}: ${made[0] ?? 'none'}`)
  }
  return written
}

/** Whether turns do this and nothing else that is seen. */
function makes(puzzle: Puzzle, turns: readonly Turn[], position: State): boolean {
  const state = start(puzzle)
  for (const turn of turns) turnFreely(puzzle, state, turn, state)
  const same = (p: number) =>
    puzzle.look[ROTATION_COUNT * p + state[p]] === puzzle.look[ROTATION_COUNT * p + position[p]]
  return puzzle.pieces.every((_, p) => same(p))
}
