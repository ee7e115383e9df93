/** A piece of heavy work, asked for by the process that has begun this one. */
import { learnDefinitions, puzzleById } from '../src/core/catalog'
import { prepareFor } from '../src/core/coach/technique'
import { prove } from '../src/core/coach/prove'
import { ok, type Result } from '../src/core/result'
import { schoolNamed } from '../src/core/schools'
import { learnSchools } from '../src/core/schools/ownSchools'
import { deriveTables, TABLES_EDITION } from '../src/core/universal/tables'
import { SURVEYED_LONG } from '../src/core/coach/survey'
import type { HeavyAsked } from '../src/server/doJob'

export type HeavyTold = { readonly share: number } | { readonly result: Result<unknown> }

const tell = (told: HeavyTold) => process.send?.(told)

function done({ kind, puzzleId, schoolId = '', definition, schools }: HeavyAsked): Result<unknown> {
  learnDefinitions([definition])
  learnSchools(schools)
  const puzzle = puzzleById(puzzleId)
  if (!puzzle.ok) return puzzle
  if (kind === 'tables')
    return ok({
      edition: TABLES_EDITION,
      tables: deriveTables(puzzle.value, (_, share) => tell({ share })),
    })
  const school = schoolNamed(puzzleId, schoolId)
  if (!school.ok) return school
  prepareFor(puzzle.value, school.value, (share) => tell({ share: share / 10 }))
  return prove(puzzle.value, school.value, SURVEYED_LONG, (share) =>
    tell({ share: 0.1 + 0.9 * share }),
  )
}

process.once('message', (asked: HeavyAsked) => tell({ result: done(asked) }))
// Nobody is left who would hear of it.
process.once('disconnect', () => process.exit())
