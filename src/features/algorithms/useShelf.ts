'use client'

import { useEffect, useState } from 'react'
import type { Shelved } from '@/core/algorithms/shelf'
import type { Result } from '@/core/result'
import type { Settings } from '@/core/settings'
import { callback, coach } from '@/workers/coach'

/** The derived shelf of a puzzle, worked out when it is wanted, with how much of it is done. */
export function useShelf(puzzleId: string, { hand }: Settings, isWanted = true) {
  const [derived, setDerived] = useState<Result<readonly Shelved[]>>()
  const [share, setShare] = useState(0)
  useEffect(() => {
    if (!isWanted) return
    let gone = false
    void coach()
      .shelf(
        puzzleId,
        hand,
        callback((done: number) => !gone && setShare(done)),
      )
      .then((found) => !gone && setDerived(found))
    return () => {
      gone = true
    }
  }, [hand, isWanted, puzzleId])
  return { derived, share }
}
