/** The puzzles here, with their schools. */
import { CATALOG_NAMES } from '../../core/catalog'
import { schoolsFor } from '../../core/schools'
import { expectCount } from '../asked'
import { type Command, many } from '../options'

export const puzzlesCommand: Command = (rest) => {
  expectCount(rest, 0)
  const list = CATALOG_NAMES.map(({ id, name }) => ({
    id,
    name,
    schools: schoolsFor(id).map((school) => ({ id: school.id, name: school.name })),
  }))
  return many(
    list,
    ({ id, name, schools }) =>
      `${id}  ${name}  ${schools.map((school) => school.id).join(', ') || 'no school yet'}`,
  )
}
