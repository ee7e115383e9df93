/** A hold in words: what looks up and to the front, in the puzzle's own colours. */
import { sideName } from '@/core/analysis/who'
import type { Puzzle } from '@/core/puzzle/compile'
import { DIRECTIONS } from '@/core/puzzle/directions'
import { rotate, INVERSE, type Rotation } from '@/core/rotation'

/** 'white up, green in front': as the finished puzzle is held after the rotation. */
export function holdWordsOf(puzzle: Puzzle, hold: Rotation): string {
  const [up, front] = ['U', 'F'].map((letter) => {
    const asked = DIRECTIONS.find((direction) => direction.letter === letter)
    const own = asked && rotate(INVERSE[hold], asked.vector)
    const side = DIRECTIONS.find(({ vector }) => own && vector.every((c, i) => c === own[i]))
    return side ? sideName(puzzle, puzzle.definition.colours, side) : ''
  })
  return `${up} up, ${front} in front`
}
