import { fail, ok } from '@/core/result'
import { file } from '@/server/answer'
import { writeBackup } from '@/server/backup'
import { solverId } from '@/server/solver'

/** Everything that the solver owns, as one file. */
export function GET(): Promise<Response> {
  return file(async () => {
    const text = await writeBackup(await solverId())
    return text === undefined
      ? fail('not-found', 'This solver is not here any more.')
      : ok({ name: 'merry-lantern-backup.json', type: 'application/json', text })
  })
}
