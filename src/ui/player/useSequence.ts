'use client'

import { useEffect, useMemo, useRef, useState } from 'react'
import type { Puzzle, Turn } from '@/core/puzzle/compile'
import { blockOf, turnFreely, type State } from '@/core/state'
import type { PuzzleWindowsHandle } from '@/ui/puzzle-view/PuzzleWindows'

export interface Played {
  readonly windows: React.RefObject<PuzzleWindowsHandle | null>
  /** Turns that can be made, and the states between them, the first before any. */
  readonly turns: readonly Turn[]
  readonly states: readonly State[]
  readonly position: number
  readonly isPlaying: boolean
  /** The turn at which it does not go on, because it is blocked. */
  readonly blocked?: Turn
  readonly step: (by: 1 | -1) => void
  readonly jump: (position: number) => void
  readonly play: () => void
  readonly pause: () => void
}

/** Between two turns of one that plays by itself, in the length of a turn. */
const PAUSE = 0.4

/** A sequence played on the windows: step by step, by itself, forwards and back. */
export function useSequence(
  puzzle: Puzzle,
  from: State,
  given: readonly Turn[],
  milliseconds: number,
): Played {
  const windows = useRef<PuzzleWindowsHandle>(null)
  const { turns, states, blocked } = useMemo(
    () => along(puzzle, from, given),
    [puzzle, from, given],
  )
  const [position, setPosition] = useState(0)
  const [isPlaying, setPlaying] = useState(false)
  const busy = useRef(false)
  const now = Math.min(position, turns.length)
  const step = (by: 1 | -1) => {
    const turn = by === 1 ? turns[now] : turns[now - 1]
    if (!turn || busy.current) return
    busy.current = true
    const played = by === 1 ? turn : puzzle.turns[turn.inverse]
    const end = () => {
      busy.current = false
      setPosition(now + by)
    }
    void (
      windows.current?.play(played, states[now], states[now + by], milliseconds) ??
      Promise.resolve()
    ).then(end, end)
  }
  const next = useRef(step)
  useEffect(() => {
    next.current = step
  })
  const goes = isPlaying && now < turns.length
  useEffect(() => {
    if (!goes) return
    const timer = setTimeout(() => next.current(1), PAUSE * milliseconds)
    return () => clearTimeout(timer)
  }, [goes, now, milliseconds])
  return {
    windows,
    turns,
    states,
    position: now,
    isPlaying: goes,
    ...(blocked === undefined ? {} : { blocked }),
    step: (by) => {
      setPlaying(false)
      step(by)
    },
    jump: (to) => {
      setPlaying(false)
      setPosition(to)
    },
    play: () => {
      if (now === turns.length) setPosition(0)
      setPlaying(true)
    },
    pause: () => setPlaying(false),
  }
}

function along(puzzle: Puzzle, from: State, given: readonly Turn[]) {
  const turns: Turn[] = []
  const states = [from]
  for (const turn of given) {
    const last = states[states.length - 1]
    if (blockOf(puzzle, last, turn)) return { turns, states, blocked: turn }
    turns.push(turn)
    states.push(turnFreely(puzzle, last, turn, new Uint8Array(last.length)))
  }
  return { turns, states, blocked: undefined }
}
