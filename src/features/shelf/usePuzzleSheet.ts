import { useState } from 'react'
import { toast } from 'sonner'
import { needDefinition } from './needDefinition'

/** A sheet that speaks of a puzzle: it opens when the page knows the puzzle. */
export function usePuzzleSheet(puzzleId: string) {
  const [open, setOpen] = useState(false)
  const begin = () =>
    void needDefinition(puzzleId).then((known) => {
      if (known.ok) setOpen(true)
      else toast.error(known.problem.sentence)
    })
  return { open, setOpen, begin }
}
