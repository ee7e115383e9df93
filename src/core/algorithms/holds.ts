/** A hold of the finished puzzle in words, by its own colours: two sides, or two pieces with their places. */
import { marksOf, sideName, who } from '../analysis/who'
import { hasColouredSides } from '../analysis/sides'
import type { Puzzle } from '../puzzle/compile'
import { DIRECTIONS, directionOfLetter, type FaceLetter } from '../puzzle/directions'
import { INVERSE, rotate, type Rotation } from '../rotation'
import { rotateState, start } from '../state'

/** 'white up, green in front'; 'the red vertex is …, the blue vertex is …'. Each hold has words of its own. */
export function holdName(puzzle: Puzzle, hold: Rotation): string {
  const { colours, faces, view } = puzzle.definition
  const isKnown = Object.values(faces).every((face) => colours.some(({ id }) => id === face))
  if (view === undefined && hasColouredSides(puzzle) && isKnown) {
    const at = (letter: FaceLetter) => {
      const own = rotate(INVERSE[hold], directionOfLetter(letter).vector)
      const side = DIRECTIONS.find(({ vector }) => vector.every((c, i) => c === own[i]))
      return side ? sideName(puzzle, colours, side) : ''
    }
    return `${at('U')} up, ${at('F')} in front`
  }
  const marks = marksOf(puzzle, colours, rotateState(start(puzzle), hold), hold)
  return marks
    ? marks.map(({ piece, place }) => `${who(puzzle, colours, piece)} is ${place}`).join(', ')
    : `way ${puzzle.holds.indexOf(hold) + 1} of ${puzzle.holds.length}`
}
