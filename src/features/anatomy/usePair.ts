'use client'

import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { compile, type Puzzle, type Turn } from '@/core/puzzle/compile'
import type { PuzzleDefinition } from '@/core/puzzle/definition'
import { blockOf, start, turnFreely, type State } from '@/core/state'
import type { PuzzleWindowsHandle } from '@/ui/puzzle-view/PuzzleWindows'

export interface Pair {
  readonly history: readonly Turn[]
  readonly state: State
  /** The same turns made on the kin. */
  readonly kinState?: State
  /** The turn that was wanted last, and is blocked. */
  readonly refused?: Turn
  readonly make: (turn: Turn) => void
  readonly undo: () => void
  /** Puts other turns in the place of all that were made. */
  readonly jump: (turns: readonly Turn[]) => void
}

const after = (puzzle: Puzzle, turns: readonly Turn[]): State =>
  turns.reduce((state, turn) => turnFreely(puzzle, state, turn, state), start(puzzle))

const own = (puzzle: Puzzle, turns: readonly Turn[]) =>
  turns.map(({ name }) => puzzle.turnByName.get(name) as Turn)

/** The puzzle and its kin turned as one; a blocked turn is refused with its reason. */
export function usePair(
  puzzle: Puzzle,
  kinDefinition: PuzzleDefinition | undefined,
  begun: readonly Turn[],
  turnMs: number,
) {
  const kin = useMemo(() => kinDefinition && compile(kinDefinition), [kinDefinition])
  const [history, setHistory] = useState(begun)
  const [refused, setRefused] = useState<Turn>()
  const windows = useRef<PuzzleWindowsHandle>(null)
  const kinWindows = useRef<PuzzleWindowsHandle>(null)
  const current = useRef(begun)
  const queue = useRef<Promise<void>>(Promise.resolve())
  const state = useMemo(() => after(puzzle, history), [puzzle, history])
  const kinState = useMemo(() => kin && after(kin, own(kin, history)), [kin, history])

  useEffect(() => {
    current.current = history
  }, [history])

  const set = useCallback((turns: readonly Turn[]) => {
    current.current = turns
    setHistory(turns)
  }, [])

  const play = useCallback(
    async (turn: Turn, next: readonly Turn[]) => {
      const [from, to] = [after(puzzle, current.current), after(puzzle, next)]
      const moves = [windows.current?.play(turn, from, to, turnMs)]
      if (kin) {
        const [kinFrom, kinTo] = [current.current, next].map((turns) => after(kin, own(kin, turns)))
        moves.push(kinWindows.current?.play(own(kin, [turn])[0], kinFrom, kinTo, turnMs))
      }
      await Promise.all(moves)
      set(next)
    },
    [kin, puzzle, set, turnMs],
  )

  const enqueue = useCallback((work: () => Promise<void> | void) => {
    queue.current = queue.current.then(work)
  }, [])

  const make = useCallback(
    (turn: Turn) =>
      enqueue(async () => {
        if (blockOf(puzzle, after(puzzle, current.current), turn)) return setRefused(turn)
        setRefused(undefined)
        await play(turn, [...current.current, turn])
      }),
    [enqueue, play, puzzle],
  )

  const undo = useCallback(
    () =>
      enqueue(async () => {
        setRefused(undefined)
        const last = current.current.at(-1)
        if (last) await play(puzzle.turns[last.inverse], current.current.slice(0, -1))
      }),
    [enqueue, play, puzzle],
  )

  const jump = useCallback(
    (turns: readonly Turn[]) =>
      enqueue(() => {
        setRefused(undefined)
        set(turns)
      }),
    [enqueue, set],
  )

  const pair: Pair = { history, state, kinState, refused, make, undo, jump }
  return { kin, windows, kinWindows, ...pair }
}
