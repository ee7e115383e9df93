import { formatDistanceToNow } from 'date-fns'
import { shippedPuzzle } from '@/core/catalog'
import { must } from '@/core/result'
import { readState } from '@/core/state'
import type { ShelvedCopy } from '@/server/copies'
import { LinkButton } from '@/ui/Button'
import { PuzzlePicture } from '@/ui/puzzle-picture/PuzzlePicture'
import { AddCopy, EditCopy } from './CopyDialog'
import type { Standing } from './standing'

/** Shelves are grouped by how the puzzles turn. */
const SHELF_NAMES = { box: 'Layers at right angles' } as const

export interface ShelfEntry {
  copy: ShelvedCopy
  standing: Standing
}

export function Shelf({ entries, marks }: { entries: readonly ShelfEntry[]; marks: boolean }) {
  const kinds = [...new Set(entries.map(({ copy }) => kindOf(copy)))]
  return (
    <div className="mx-auto w-full max-w-6xl grow px-4 py-6 sm:px-6">
      <div className="mb-6 flex flex-wrap items-end gap-4">
        <div className="grow">
          <h1 className="text-3xl">Shelf</h1>
          <p className="text-soft">
            {entries.length === 0
              ? 'No puzzle stands here yet.'
              : `${entries.length} ${entries.length === 1 ? 'puzzle' : 'puzzles'}`}
          </p>
        </div>
        <AddCopy />
      </div>
      {entries.length === 0 && (
        <p className="max-w-prose rounded-lg border border-line bg-surface p-5">
          Add the first puzzle that you own, in its own colours. Then lay out how it is scrambled,
          and the bench leads you home.
        </p>
      )}
      {kinds.map((kind) => (
        <section key={kind} className="mb-8">
          <h2 className="mb-3 text-lg text-soft">{SHELF_NAMES[kind]}</h2>
          <ul className="grid gap-4 border-b-4 border-line pb-5 [grid-template-columns:repeat(auto-fill,minmax(17.5rem,1fr))]">
            {entries
              .filter(({ copy }) => kindOf(copy) === kind)
              .map((entry) => (
                <ShelfCard key={entry.copy.id} {...entry} marks={marks} />
              ))}
          </ul>
        </section>
      ))}
    </div>
  )
}

const kindOf = ({ puzzleId }: ShelvedCopy) =>
  must(shippedPuzzle(puzzleId)).definition.mechanism.kind

function ShelfCard({ copy, standing, marks }: ShelfEntry & { marks: boolean }) {
  const puzzle = must(shippedPuzzle(copy.puzzleId))
  return (
    <li className="flex flex-col rounded-lg border border-line bg-surface p-4">
      <PuzzlePicture
        puzzle={puzzle}
        state={must(readState(puzzle, standing.state))}
        scheme={copy.scheme}
        marks={marks}
        label={`${copy.name}, seen from in front and from behind`}
        className="mb-3 w-full"
      />
      <h3 className="text-lg">{copy.name}</h3>
      <p className="text-sm text-soft">{puzzle.definition.name}</p>
      <p className="mt-2 text-sm">{whereItStands(copy, standing)}</p>
      {copy.remarks && <p className="mt-1 text-sm text-soft">{copy.remarks}</p>}
      <div className="mt-auto flex flex-wrap gap-2 pt-4">
        {copy.openSession && (
          <LinkButton weight="attend" href={`/bench/${copy.openSession}`}>
            Go on at the bench
          </LinkButton>
        )}
        <LinkButton href={`/lay-out/${copy.id}`}>Lay out</LinkButton>
        <EditCopy copy={copy} />
      </div>
    </li>
  )
}

function whereItStands(copy: ShelvedCopy, { school, lit, stages }: Standing): string {
  const solved = copy.lastSolvedAt
    ? `Solved ${copy.solves} ${copy.solves === 1 ? 'time' : 'times'}, last ${formatDistanceToNow(copy.lastSolvedAt, { addSuffix: true })}.`
    : 'Never solved yet.'
  if (!copy.openSession) return `Resting. ${solved}`
  if (!school) return `On the bench, free play. ${solved}`
  return `On the bench, ${school.toLowerCase()}: ${lit} of ${stages} lanterns lit. ${solved}`
}
