import { formatDistanceToNow } from 'date-fns'
import { puzzleById } from '@/core/catalog'
import { must, type Result } from '@/core/result'
import type { CareEntry } from '@/server/care'
import type { ShelvedCopy } from '@/server/copies'
import { times } from '@/core/words'
import type { DamagedPuzzle } from '@/server/ownPuzzles'
import { LinkButton } from '@/ui/Button'
import { Damaged } from '@/ui/Damaged'
import { MECHANISM_WORDS } from '@/ui/mechanismWords'
import { PuzzleImage } from '@/ui/puzzle-picture/PuzzleImage'
import { Care } from './CareSheet'
import { AddCopy, EditCopy, type OwnName } from './CopyDialog'
import { RemoveDamaged } from './RemoveDamaged'
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
  own: readonly OwnName[]
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
                .map((entry) => (
                  <ShelfCard key={entry.copy.id} {...entry} marks={marks} />
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

function ShelfCard({ copy, standing: read, care, marks }: ShelfEntry & { marks: boolean }) {
  const puzzle = must(puzzleById(copy.puzzleId))
  const standing = must(read)
  return (
    <li className="flex w-full flex-col rounded-lg border border-line bg-surface p-3 min-[480px]:w-[17.5rem]">
      <PuzzleImage
        puzzleId={copy.puzzleId}
        state={standing.state}
        scheme={copy.scheme}
        marks={marks}
        label={`${copy.name}, seen from in front and from behind`}
        className="mb-1 h-24 w-full object-contain"
      />
      <div className="flex items-center">
        <h3 className="min-w-0 grow text-base">{copy.name}</h3>
        <Care copy={copy} entries={care} />
        <EditCopy copy={copy} />
      </div>
      <p className="line-clamp-2 text-sm text-soft" title={puzzle.definition.name}>
        {puzzle.definition.name}
      </p>
      <p className="mt-1 text-sm">{whereItStands(copy, standing)}</p>
      {copy.remarks && (
        <p className="line-clamp-1 text-sm text-soft" title={copy.remarks}>
          {copy.remarks}
        </p>
      )}
      {care[0] && (
        <p className="line-clamp-1 text-sm text-soft" title={care[0].note}>
          <time className="turns">{care[0].happenedOn}</time> {care[0].note || care[0].kind}
        </p>
      )}
      {standing.benchProblem && copy.openSession && (
        <Damaged
          what="Its bench"
          sentence={standing.benchProblem.sentence}
          file={`/api/copies/${copy.id}`}
        >
          <RemoveDamaged kind="bench" id={copy.openSession} words="Remove the bench" />
        </Damaged>
      )}
      <div className="mt-auto flex flex-wrap items-center gap-1.5 pt-2">
        {copy.openSession && !standing.benchProblem && (
          <LinkButton
            weight="attend"
            aria-label={`Go on at the bench with ${copy.name}`}
            href={`/bench/${copy.openSession}`}
          >
            Go on
          </LinkButton>
        )}
        <LinkButton href={`/lay-out/${copy.id}`}>Lay out</LinkButton>
        <LinkButton href={`/anatomy/${copy.id}`}>Anatomy</LinkButton>
      </div>
    </li>
  )
}

function whereItStands(copy: ShelvedCopy, { school, lit, stages }: Standing): string {
  const solved = copy.lastSolvedAt
    ? `Solved ${times(copy.solves)}, last ${formatDistanceToNow(copy.lastSolvedAt, { addSuffix: true })}.`
    : 'Never solved yet.'
  if (!copy.openSession) return `Resting. ${solved}`
  if (!school) return `On the bench, free play. ${solved}`
  return `On the bench, ${school.toLowerCase()}, ${lit} of ${stages} lit. ${solved}`
}
