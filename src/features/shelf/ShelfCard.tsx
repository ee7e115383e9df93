'use client'

import type { CareEntry } from '@/server/care'
import type { Copy } from '@/server/copies'
import { LinkButton } from '@/ui/Button'
import { Damaged } from '@/ui/Damaged'
import { PuzzleImage } from '@/ui/puzzle-picture/PuzzleImage'
import { Care } from './CareSheet'
import { EditCopy } from './CopyDialog'
import { RemoveDamaged } from './RemoveDamaged'

/** One copy on the shelf. The browser makes it from what it says, so that a long shelf is a short page. */
export function ShelfCard({
  copy,
  puzzleName,
  where,
  state,
  bench,
  benchProblem,
  care,
  marks,
}: {
  copy: Copy
  puzzleName: string
  /** Where it stands, in a sentence. */
  where: string
  /** As `writeState` writes it. */
  state: string
  /** The open bench. */
  bench?: string
  /** Why that bench cannot be shown. */
  benchProblem?: string
  care: readonly CareEntry[]
  marks: boolean
}) {
  return (
    <li className="flex w-full flex-col rounded-lg border border-line bg-surface p-3 min-[480px]:w-[17.5rem]">
      <PuzzleImage
        puzzleId={copy.puzzleId}
        state={state}
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
      <p className="line-clamp-2 text-sm text-soft" title={puzzleName}>
        {puzzleName}
      </p>
      <p className="mt-1 text-sm">{where}</p>
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
      {bench && benchProblem && (
        <Damaged what="Its bench" sentence={benchProblem} file={`/api/copies/${copy.id}`}>
          <RemoveDamaged kind="bench" id={bench} words="Remove the bench" />
        </Damaged>
      )}
      <div className="mt-auto flex flex-wrap items-center gap-1.5 pt-2">
        {bench && !benchProblem && (
          <LinkButton
            weight="attend"
            aria-label={`Go on at the bench with ${copy.name}`}
            href={`/bench/${bench}`}
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
