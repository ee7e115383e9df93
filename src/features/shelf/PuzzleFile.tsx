'use client'

import { FileUp } from 'lucide-react'
import { useEffect, useEffectEvent, useMemo, useState } from 'react'
import { compile } from '@/core/puzzle/compile'
import type { PuzzleDefinition } from '@/core/puzzle/definition'
import { readPuzzleFile } from '@/core/puzzle/readDefinition'
import type { Problem, Result } from '@/core/result'
import { start } from '@/core/state'
import { kindCounts } from '@/core/phrases'
import { Button } from '@/ui/Button'
import { FileButton } from '@/ui/FileButton'
import { Notice } from '@/ui/Notice'
import { PuzzlePicture } from '@/ui/puzzle-picture/PuzzlePicture'

export interface PuzzleFile {
  /** As it is called on the solver's disk. */
  readonly name: string
  readonly read: Result<PuzzleDefinition>
}

export async function readChosenFile(file: File): Promise<PuzzleFile> {
  return { name: file.name, read: readPuzzleFile(await file.text()) }
}

/** Takes a file that is dropped anywhere on the page; true while one is held over it. */
export function useFileDrop(onDrop: (file: File) => void): boolean {
  const [isOver, setIsOver] = useState(false)
  const take = useEffectEvent(onDrop)
  useEffect(() => {
    const holdsFile = (event: DragEvent) => event.dataTransfer?.types.includes('Files') ?? false
    const over = (event: DragEvent) => {
      if (!holdsFile(event)) return
      event.preventDefault()
      setIsOver(true)
    }
    const leave = (event: DragEvent) => {
      // Leaving the window, not one of the things in it.
      if (event.relatedTarget === null) setIsOver(false)
    }
    const drop = (event: DragEvent) => {
      if (!holdsFile(event)) return
      event.preventDefault()
      setIsOver(false)
      const file = event.dataTransfer?.files[0]
      if (file) take(file)
    }
    window.addEventListener('dragover', over)
    window.addEventListener('dragleave', leave)
    window.addEventListener('drop', drop)
    return () => {
      window.removeEventListener('dragover', over)
      window.removeEventListener('dragleave', leave)
      window.removeEventListener('drop', drop)
    }
  }, [])
  return isOver
}

/** Where a puzzle file is chosen, and what is in it: the puzzle, or everything that is wrong. */
export function PuzzleFileField({
  file,
  onChoose,
  onLeave,
}: {
  file?: PuzzleFile
  onChoose: (file: File) => void
  onLeave: () => void
}) {
  return (
    <div className="mb-4 grid gap-2">
      <div className="flex flex-wrap items-center gap-2">
        <FileButton label="File to read" accept=".json,application/json" onChoose={onChoose}>
          <FileUp size={16} aria-hidden /> {file ? 'Another puzzle file' : 'From a puzzle file'}
        </FileButton>
        {file ? (
          <Button weight="quiet" onClick={onLeave}>
            Choose from the list instead
          </Button>
        ) : (
          <span className="text-sm text-soft">or drop one on the shelf</span>
        )}
      </div>
      {file &&
        (file.read.ok ? (
          <Found definition={file.read.value} />
        ) : (
          <Wrong name={file.name} problem={file.read.problem} />
        ))}
    </div>
  )
}

function Found({ definition }: { definition: PuzzleDefinition }) {
  const puzzle = useMemo(() => compile(definition), [definition])
  return (
    <div>
      <p className="text-base">{definition.name}</p>
      <p className="text-sm text-soft">{kindCounts(puzzle)}</p>
      <PuzzlePicture
        puzzle={puzzle}
        state={start(puzzle)}
        scheme={definition.colours}
        label={`${definition.name}, seen from in front and from behind`}
        className="mt-1 h-28 w-full"
      />
    </div>
  )
}

/** Said once above a list of faults. */
const REFUSED = /^The puzzle file is not right: /

function Wrong({ name, problem }: { name: string; problem: Problem }) {
  const all = [problem, ...(problem.more ?? [])]
  return (
    <Notice kind="wrong">
      {all.length === 1 ? (
        <p>
          <span className="break-all">{name}</span>: {problem.sentence}
        </p>
      ) : (
        <>
          <p>
            <span className="break-all">{name}</span> has {all.length} faults; nothing was added.
          </p>
          <ul className="mt-1 list-disc pl-5">
            {all.map(({ sentence }) => (
              <li key={sentence}>{sentence.replace(REFUSED, '')}</li>
            ))}
          </ul>
        </>
      )}
    </Notice>
  )
}
