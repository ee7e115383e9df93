/** Reads what a repaired sequence shall keep and do: 'DFR,DF', 'layer:D', 'all-but:U'; 'home', 'faced:U', 'placed:U'. */
import { piecesShowing } from '../analysis/sides'
import { piecesMeeting } from '../coach/goal'
import type { Puzzle } from '../puzzle/compile'
import { DIRECTIONS, type Direction } from '../puzzle/directions'
import { fail, ok, type Result } from '../result'
import { IDENTITY } from '../rotation'
import { stagesOf, variantsOf, type School } from '../schools/school'
import { start } from '../state'
import type { End } from './repair'

const SIDES = DIRECTIONS.map(({ letter }) => letter).join(', ')

const sideOf = (letter: string): Direction | undefined =>
  DIRECTIONS.find((direction) => direction.letter === letter)

const noSide = (field: string, given: string) =>
  fail('bad-wish', `${field} names the side '${given}', which is none of ${SIDES}.`, { field })

/** Pieces by id with commas between, all that show a side, or all that do not. Indices, ascending. */
export function readKeep(puzzle: Puzzle, text: string): Result<number[]> {
  const all = puzzle.pieces.map((_, p) => p)
  const [, how, letter] = /^(layer|all-but):(.*)$/.exec(text) ?? []
  if (how !== undefined) {
    const side = sideOf(letter)
    if (!side) return noSide('keep', letter)
    const shown = piecesShowing(puzzle, side)
    return ok(all.filter((p) => shown.includes(p) === (how === 'layer')))
  }
  const ids = text.split(',').map((id) => id.trim())
  const unknown = ids.find((id) => puzzle.pieces.every((piece) => piece.id !== id))
  if (unknown !== undefined)
    return fail('bad-wish', `keep names the piece '${unknown}', which this puzzle does not have.`, {
      field: 'keep',
    })
  return ok(all.filter((p) => ids.includes(puzzle.pieces[p].id)))
}

/** How it shall end: everything home, or the pieces of one side facing it or in their places. */
export function readEnds(puzzle: Puzzle, text: string): Result<End> {
  if (text === 'home') return ok({ must: 'home', pieces: puzzle.pieces.map((_, p) => p) })
  const [, must, letter] = /^(faced|placed):(.*)$/.exec(text) ?? []
  if (must === undefined)
    return fail('bad-wish', `ends is '${text}', but must be home, faced:U or placed:U.`, {
      field: 'ends',
    })
  const side = sideOf(letter)
  if (!side) return noSide('ends', letter)
  return ok({
    must: must as 'faced' | 'placed',
    pieces: [...piecesShowing(puzzle, side)],
    side,
  })
}

export interface StageKeep {
  readonly school: string
  readonly stage: string
  /** Indices, ascending. */
  readonly pieces: readonly number[]
}

/**
 * What the stages of schools have brought home when they are done, the base layer as the stage holds it. Stages whose
 * goals bring none home, or all, are left out.
 */
export function stageKeeps(puzzle: Puzzle, schools: readonly School[]): StageKeep[] {
  return schools.flatMap((school) => {
    const [variant] = variantsOf(school)
    const known = new Set<string>()
    return stagesOf(school, variant).flatMap(({ name, goal, base }) => {
      const home = goal.filter(({ must, spare }) => must === 'home' && !spare)
      const direction = sideOf(base)
      if (!direction || home.length === 0) return []
      const met = piecesMeeting(puzzle, home, direction, start(puzzle), IDENTITY)
      const pieces = [...new Set(met)].sort((a, b) => a - b)
      // A stage that brings none home besides says nothing new.
      const isNew = !known.has(pieces.join()) && known.add(pieces.join())
      return pieces.length === puzzle.pieces.length || !isNew
        ? []
        : [{ school: school.name, stage: name, pieces }]
    })
  })
}
