/** The schools of a puzzle. */
import { schoolsOf } from '../../core/schools'
import { whyNotServed } from '../../core/universal/solve'
import { byHeart, plainAim } from '../../core/coach/byHeart'
import { puzzleAnd } from '../asked'
import { type Command, one } from '../options'

export const schoolsCommand: Command = (rest, values) => {
  const [puzzle] = puzzleAnd(rest, 0, values)
  whyNotServed(puzzle)
  const list = schoolsOf(puzzle).map((school) => ({
    id: school.id,
    name: school.name,
    stages: school.stages.map((stage) => ({
      id: stage.id,
      name: stage.name,
      aim: plainAim(puzzle, stage),
    })),
    algorithms: byHeart(puzzle, school).length,
  }))
  return one(list, () =>
    list
      .flatMap(({ id, name, stages, algorithms }) => [
        `${id}: ${name}, ${algorithms} by heart`,
        ...stages.map((stage) => `  ${stage.name}: ${stage.aim}`),
      ])
      .join('\n'),
  )
}
