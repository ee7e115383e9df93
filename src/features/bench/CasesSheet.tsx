'use client'

import { useEffect, useState } from 'react'
import type { GalleryCase } from '@/core/coach/gallery'
import type { DialectId } from '@/core/notation/dialect'
import { writeNames } from '@/core/notation/write'
import type { Puzzle } from '@/core/puzzle/compile'
import { must } from '@/core/result'
import { readState } from '@/core/state'
import type { Said } from '@/core/claims/claim'
import { say } from '@/core/words/say'
import { textOf } from '@/core/words/span'
import { classes } from '@/ui/classes'
import { PuzzlePicture } from '@/ui/puzzle-picture/PuzzlePicture'
import { Sheet } from '@/ui/Sheet'
import { coach } from '@/workers/coach'
import type { PlanRequest } from '@/workers/coach.worker'

/** All cases of a stage: how each looks in its hold, its algorithm, and what it is taken for. */
export function CasesSheet({
  puzzle,
  request,
  stageId,
  stageName,
  current,
  marks,
  dialect,
  onClose,
}: {
  puzzle: Puzzle
  request: PlanRequest
  stageId: string
  stageName: string
  current?: number
  marks: boolean
  dialect: DialectId
  onClose: () => void
}) {
  const [cases, setCases] = useState<readonly GalleryCase[]>()
  const [trouble, setTrouble] = useState<string>()
  useEffect(() => {
    void coach()
      .gallery(request, stageId)
      .then((result) => (result.ok ? setCases(result.value) : setTrouble(result.problem.sentence)))
  }, [request, stageId])
  const words = (said: Said, { frame, algorithm }: GalleryCase) => {
    const { scheme } = request
    const speaker = { puzzle, scheme, frame, register: 'full', turns: algorithm } as const
    return textOf(say(said, speaker), dialect)
  }
  return (
    <Sheet
      open
      wide
      onOpenChange={onClose}
      title={`Cases: ${stageName.toLowerCase()}`}
      description="Each in the hold in which its algorithm begins."
    >
      {trouble && <p role="alert">{trouble}</p>}
      {!cases && !trouble && <p>Drawing the cases.</p>}
      <ol className="grid gap-3 sm:grid-cols-2 lg:grid-cols-3">
        {cases?.map((each) => (
          <li
            key={each.index}
            aria-current={each.index === current ? 'true' : undefined}
            className={classes(
              'rounded-lg border p-3',
              each.index === current ? 'border-amber' : 'border-line',
            )}
          >
            <PuzzlePicture
              puzzle={puzzle}
              state={must(readState(puzzle, each.state))}
              scheme={request.scheme}
              marks={marks}
              label={`Case ${each.index + 1}: ${words([...each.looks, ...each.hold], each)}`}
              className="mb-2 w-full"
            />
            <p className="text-sm">
              <span className="font-bold">{each.index + 1}</span> {words(each.looks, each)}
            </p>
            <p className="turns my-1">{writeNames(each.algorithm, dialect)}</p>
            <p className="text-xs text-soft">
              {each.share[0]} of {each.share[1]} states. {words(each.mistaken, each)}
            </p>
          </li>
        ))}
      </ol>
    </Sheet>
  )
}
