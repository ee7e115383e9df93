import { formatDistanceToNow } from 'date-fns'
import { puzzleById } from '@/core/catalog'
import { must, type Result } from '@/core/result'
import type { CareEntry } from '@/server/care'
import type { Copy, ShelvedCopy } from '@/server/copies'
import { times } from '@/core/phrases'
import type { DamagedPuzzle, OwnPuzzle } from '@/server/ownPuzzles'
import { Damaged } from '@/ui/Damaged'
import { MECHANISM_WORDS } from '@/ui/mechanismWords'
import { AddCopy } from './CopyDialog'
import { RemoveDamaged } from './RemoveDamaged'
import { ShelfCard } from './ShelfCard'
import type { Standing } from '@/server/standing'

export interface ShelfEntry {
  copy: ShelvedCopy
  standing: Result<Standing>
  care: readonly CareEntry[]
}

export function Shelf({
  entries,
  damaged,
  own,
  marks,
}: {
  entries: readonly ShelfEntry[]
  /** Puzzle files that cannot be read. */
  damaged: readonly DamagedPuzzle[]
  /** Puzzle files that can. */
  own: readonly OwnPuzzle[]
  marks: boolean
}) {
  const kinds = [...new Set(entries.flatMap((entry) => kindOf(entry) ?? []))]
  const broken = entries.filter(({ standing }) => !standing.ok)
  return (
    <div className="mx-auto w-full max-w-[84rem] grow px-4 py-4 sm:px-6">
      <div className="mb-3 flex flex-wrap items-end gap-4">
        <div className="grow">
          <h1 className="text-3xl">Shelf</h1>
          <p className="text-soft">
            {entries.length === 0
              ? 'No puzzle stands here yet.'
              : `${entries.length} ${entries.length === 1 ? 'puzzle' : 'puzzles'}`}
          </p>
        </div>
        <AddCopy own={own} />
      </div>
      {entries.length === 0 && (
        <p className="max-w-prose rounded-lg border border-line bg-surface p-5">
          Add the first puzzle that you own, in its own colours. Then lay out how it is scrambled,
          and the bench leads you home.
        </p>
      )}
      <div className="flex flex-wrap gap-x-6 gap-y-5">
        {kinds.map((kind) => (
          <section key={kind} className="max-w-full">
            <h2 className="mb-2 text-base text-soft">{MECHANISM_WORDS[kind]}</h2>
            <ul className="flex flex-wrap gap-3 border-b-4 border-line pb-3">
              {entries
                .filter((entry) => kindOf(entry) === kind)
                .map(({ copy, standing, care }) => (
                  <ShelfCard
                    key={copy.id}
                    copy={copyOnly(copy)}
                    puzzleName={must(puzzleById(copy.puzzleId)).definition.name}
                    where={whereItStands(copy, must(standing))}
                    state={must(standing).state}
                    bench={copy.openSession}
                    benchProblem={must(standing).benchProblem?.sentence}
                    care={care}
                    marks={marks}
                  />
                ))}
            </ul>
          </section>
        ))}
        {broken.length + damaged.length > 0 && (
          <section className="max-w-full">
            <h2 className="mb-2 text-base text-soft">What cannot be read</h2>
            <ul className="grid max-w-prose gap-3">
              {broken.map(({ copy, standing }) => (
                <li key={copy.id}>
                  <Damaged
                    what={copy.name}
                    sentence={standing.ok ? '' : standing.problem.sentence}
                    file={`/api/copies/${copy.id}`}
                  >
                    <RemoveDamaged
                      kind="copy"
                      id={copy.id}
                      words={`Remove ${copy.name} and its benches`}
                    />
                  </Damaged>
                </li>
              ))}
              {damaged.map(({ id, name, problem }) => (
                <li key={id}>
                  <Damaged
                    what={`The puzzle file ${name}`}
                    sentence={problem.sentence}
                    file={`/api/puzzles/${id}`}
                  >
                    <RemoveDamaged kind="puzzle" id={id} words={`Forget ${name}`} />
                  </Damaged>
                </li>
              ))}
            </ul>
          </section>
        )}
      </div>
    </div>
  )
}

/** Undefined for a copy that cannot be shown. */
const kindOf = ({ copy, standing }: ShelfEntry) =>
  standing.ok ? must(puzzleById(copy.puzzleId)).definition.mechanism.kind : undefined

/** What a page needs of a copy to change it. */
const copyOnly = ({ id, puzzleId, name, scheme, remarks }: ShelvedCopy): Copy => ({
  id,
  puzzleId,
  name,
  scheme,
  remarks,
})

function whereItStands(copy: ShelvedCopy, { school, lit = 0, stages = 1 }: Standing): string {
  const solved = copy.lastSolvedAt
    ? `Solved ${times(copy.solves)}, last ${formatDistanceToNow(copy.lastSolvedAt, { addSuffix: true })}.`
    : 'Never solved yet.'
  if (!copy.openSession) return `Resting. ${solved}`
  if (!school) return `On the bench, free play. ${solved}`
  return `On the bench, ${school.toLowerCase()}, stage ${Math.min(lit + 1, stages)} of ${stages}. ${solved}`
}
