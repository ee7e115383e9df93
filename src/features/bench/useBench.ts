'use client'

import type { DialectId } from '@/core/notation/dialectId'
import { whyBlocked } from '@/core/words/whyBlocked'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { puzzleById } from '@/core/catalog'
import { admit } from '@/core/coach/admit'
import {
  BeyondSnapshot,
  follow,
  hasJustHeld,
  holdAhead,
  openBench,
  replay,
  turnsMade,
  type Bench,
  type BenchEvent,
} from '@/core/coach/bench'
import { packed } from '@/core/coach/packed'
import { benchFrom, type Snapshot } from '@/core/coach/snapshot'
import { rebase, type Entry } from '@/core/coach/rebase'
import type { Route } from '@/core/coach/route'
import { registerWords } from '@/core/coach/spoiled'
import { stagesMet } from '@/core/coach/standing'
import type { Scheme } from '@/core/puzzle/colours'
import type { Turn } from '@/core/puzzle/compile'
import { must } from '@/core/result'
import { schoolNamed, schoolsFor } from '@/core/schools'
import type { Variant } from '@/core/schools/school'
import type { Hand } from '@/core/notation/handCost'
import { blockOf, readState, writeState, type Block, type State } from '@/core/state'
import type { BenchEnd } from '@/server/leftOff'
import type { PuzzleWindowsHandle } from '@/ui/puzzle-view/PuzzleWindows'
import { callback, cancelCoach, coach } from '@/workers/coach'
import type { PlanRequest } from '@/workers/coach.worker'
import { endOf } from './benchServer'
import { Outbox, SAVED, type Apart, type Kept, type Saving } from './outbox'
import { othersWords } from './othersWords'
import { useClock, type BenchClock } from './useClock'

export interface BenchGiven {
  readonly sessionId: string
  readonly copyId: string
  readonly puzzleId: string
  readonly copyName: string
  readonly scheme: Scheme
  readonly school?: string
  readonly variant: Variant
  readonly startState: string
  readonly scramble: string
  /** Where the bench is taken up; from the start if there is none. */
  readonly snapshot?: Snapshot
  /** What happened since. */
  readonly entries: readonly Entry[]
  /** Set where nothing more is turned on it. */
  readonly end?: BenchEnd
}

/** A sentence about what the solver just did that was not on the card. */
export interface Remark {
  readonly kind: 'attend' | 'wrong'
  readonly sentence: string
  /** Whether taking the latest turn back mends it. */
  readonly canTakeBack: boolean
  /** Whether to offer a plan from the present position. */
  readonly canPlan: boolean
  /** Set if a turn was refused. */
  readonly block?: Block
}

export interface BenchControls {
  readonly bench: Bench
  readonly school?: string
  readonly variant: Variant
  readonly saving: Saving
  readonly trouble?: string
  readonly planning: boolean
  /** How much of what a plan needs first is done, 0 to 1; undefined if nothing is built. */
  readonly planShare?: number
  readonly cancelPlan: () => void
  readonly remark?: Remark
  readonly clock: BenchClock
  /** Set where nothing more is turned here. */
  readonly end?: BenchEnd
  /** What the server has refused. */
  readonly apart: readonly Apart[]
  readonly letGo: (apart: Apart) => void
  readonly make: (name: string) => void
  /** Makes turns that are meant in the hold that is shown now, whatever card they lead to. */
  readonly makeAll: (names: readonly string[]) => void
  readonly next: () => void
  readonly finishStep: () => void
  readonly undo: () => void
  /** @param shown how much is shown already */
  readonly hint: (shown: number) => void
  readonly plan: (choice?: { base?: string; prefer?: string; first?: string }) => void
  /** Follows another route from here. */
  readonly take: (route: Route) => void
  readonly changeTo: (school: string, variant: Variant) => void
  readonly request: () => PlanRequest | undefined
  /** The position, for all schools; undefined where there is none. */
  readonly position: () => PlanRequest | undefined
  readonly settled: () => Promise<boolean>
}

/** Opens the page anew with everything that ever happened on the bench. */
async function openWhole(settled: () => Promise<boolean>): Promise<void> {
  await settled()
  window.location.assign('?all=1')
}

/** Whether another page has taken back what this one does not know, because it lies before its snapshot. */
function reachesBeyond(bench: Bench, entries: readonly Entry[]): boolean {
  try {
    replay(bench, eventsOf(entries))
    return false
  } catch (error) {
    if (error instanceof BeyondSnapshot) return true
    throw error
  }
}

const eventsOf = (entries: readonly Entry[]) => entries.map(({ event }) => event)

export function useBench(
  given: BenchGiven,
  { turnMs, hand, dialect }: { turnMs: number; hand: Hand; dialect: DialectId },
  windows: React.RefObject<PuzzleWindowsHandle | null>,
): BenchControls {
  const puzzle = must(puzzleById(given.puzzleId))
  const [school, setSchool] = useState(given.school)
  const [variant, setVariant] = useState(given.variant)
  const [taken] = useState(() =>
    given.snapshot
      ? must(benchFrom(puzzle, given.snapshot))
      : openBench(puzzle, must(readState(puzzle, given.startState))),
  )
  const [bench, setBench] = useState(() => replay(taken, eventsOf(given.entries)))
  const [saving, setSaving] = useState<Saving>(SAVED)
  const [trouble, setTrouble] = useState<string>()
  const [planning, setPlanning] = useState(false)
  const [planShare, setPlanShare] = useState<number>()
  const cancel = useRef<() => void>(undefined)
  const [remark, setRemark] = useState<Remark>()
  const [end, setEnd] = useState(given.end)
  const [apart, setApart] = useState<readonly Apart[]>([])
  const isEnded = useRef(given.end !== undefined)
  // The latest values for callbacks that outlive a render (queued turns, worker answers).
  const current = useRef(bench)
  /** The bench with what the server has stored, and nothing else. */
  const stored = useRef(bench)
  const queue = useRef<Promise<void>>(Promise.resolve())
  const outbox = useRef<Outbox>(undefined)
  const clock = useClock(given.entries.at(-1)?.event.atMs ?? 0, bench.solved || end !== undefined)
  const { elapsedMs, goOn } = clock

  /** False if it does not fit any more, because another page was there first. */
  const apply = useCallback((event: BenchEvent): boolean => {
    if (isEnded.current) return false
    const next = admit(current.current, event)
    if (!next.ok) {
      setRemark({
        kind: 'wrong',
        sentence: `That cannot be done any more. ${next.problem.sentence}`,
        canTakeBack: false,
        canPlan: false,
      })
      return false
    }
    current.current = next.value
    setBench(next.value)
    outbox.current?.add(event)
    return true
  }, [])

  const requestIn = useCallback(
    (asked: string | undefined): PlanRequest | undefined =>
      asked === undefined
        ? undefined
        : {
            puzzleId: given.puzzleId,
            school: asked,
            variant,
            scheme: given.scheme,
            hand,
            state: writeState(current.current.state),
            base: current.current.trail?.route.base,
          },
    [given.puzzleId, given.scheme, hand, variant],
  )
  const request = useCallback(() => requestIn(school), [requestIn, school])
  const position = useCallback(
    () => requestIn(school ?? schoolsFor(given.puzzleId)[0]?.id),
    [given.puzzleId, requestIn, school],
  )

  const planWith = useCallback(
    async (asked: PlanRequest): Promise<Route | undefined> => {
      setPlanning(true)
      // What the worker tells on the way can arrive after its answer.
      let isOver = false
      try {
        const cancelled = new Promise<undefined>((resolve) => {
          cancel.current = () => {
            cancelCoach()
            resolve(undefined)
          }
        })
        const route = await Promise.race([
          coach().plan(
            asked,
            callback((share: number) => {
              if (!isOver) setPlanShare(share)
            }),
          ),
          cancelled,
        ])
        if (!route) return undefined
        if (!route.ok) {
          setTrouble(route.problem.sentence)
          return undefined
        }
        // Turns made meanwhile make the plan stale.
        if (asked.state !== writeState(current.current.state)) return undefined
        setTrouble(undefined)
        return apply({ kind: 'route', atMs: elapsedMs(), route: packed(route.value) })
          ? route.value
          : undefined
      } finally {
        isOver = true
        cancel.current = undefined
        setPlanShare(undefined)
        setPlanning(false)
      }
    },
    [apply, elapsedMs],
  )

  useEffect(() => {
    /** Puts events of this page behind a base, tells what came of it, and gives those that still hold. */
    const settle = (
      base: Bench,
      known: Bench,
      left: readonly Entry[],
      others: readonly Entry[],
    ): readonly Entry[] => {
      const { bench: next, kept, dropped } = rebase(base, known, left)
      current.current = next
      setBench(next)
      const sentence = othersWords(others, kept, dropped)
      if (sentence)
        setRemark({ kind: 'attend', sentence, canTakeBack: false, canPlan: !next.solved })
      return kept
    }
    const earlier = given.snapshot?.events ?? 0
    /** What earlier pages have kept, put behind what is stored, as far as it still holds. */
    const recovered = (found: readonly Kept[]): Entry[] => {
      const isStored = new Set(given.entries.map(({ id }) => id))
      return found.flatMap(({ after, entries }) => {
        const mine = new Set(entries.map(({ id }) => id))
        const seen = given.entries.filter(({ id }, i) => earlier + i < after || mine.has(id))
        const left = entries.filter(({ id }) => !isStored.has(id))
        const others = given.entries.filter((entry) => !seen.includes(entry))
        const known = replay(taken, eventsOf(seen))
        return [...settle(current.current, known, left, others)]
      })
    }
    const box = new Outbox(given.sessionId, earlier + given.entries.length, {
      onSaving: setSaving,
      onStored: (entries, others, left) => {
        const before = stored.current
        if (others.some(({ event }) => event.kind === 'undo') && reachesBeyond(before, entries)) {
          void openWhole(() => Promise.resolve(true))
          return left
        }
        stored.current = replay(before, eventsOf(entries))
        if (others.length === 0) return left
        const own = entries.filter((entry) => !others.includes(entry))
        return settle(stored.current, replay(before, eventsOf(own)), left, others)
      },
      onApart: (refused, code) => {
        current.current = stored.current
        setBench(stored.current)
        setRemark(undefined)
        setApart((all) => [...all, refused])
        if (code === 'ahead') window.location.reload()
        if (code === 'closed')
          void endOf(given.sessionId).then((heard) => {
            if (!heard.ok || !heard.value) return
            isEnded.current = true
            setEnd(heard.value)
            box.end()
          })
      },
    })
    outbox.current = box
    // A moment later: what the browser has is no part of the first picture.
    queueMicrotask(() => setApart(box.apart()))
    if (isEnded.current) {
      box.end()
      return () => box.close()
    }
    const found = box.recover(new Set(given.entries.map(({ id }) => id)))
    // What was made on a bench from before the snapshot can only be placed on all of it.
    if (found.some(({ after }) => after < earlier)) {
      void openWhole(() => Promise.resolve(true))
      return () => box.close()
    }
    box.takeOver(recovered(found))
    if (!current.current.trail && !current.current.solved && given.school) {
      void planWith({
        puzzleId: given.puzzleId,
        school: given.school,
        variant: given.variant,
        scheme: given.scheme,
        hand,
        state: writeState(current.current.state),
      })
    }
    return () => box.close()
    // Opening happens once a session; later changes come through the callbacks.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [given.sessionId])

  const litNow = useCallback(() => {
    const { trail, state } = current.current
    if (!trail) return 0
    const found = must(schoolNamed(given.puzzleId, trail.route.school))
    return stagesMet(puzzle, found, trail.route, state)
  }, [given.puzzleId, puzzle])

  const afterDeviation = useCallback(
    async (litBefore: number, from: State) => {
      const { deviation, trail } = current.current
      if (!deviation || !trail) return setRemark(undefined)
      const told = tell(deviation)
      if (!told.replan) return setRemark(told.remark)
      const out = registerWords(puzzle, given.scheme, from, current.current.state)
      const asked = request()
      const route = asked && (await planWith(asked))
      const spoiled = out ? ` ${out}` : ''
      if (!route)
        return setRemark({ ...told.remark, sentence: `${told.remark.sentence}${spoiled}` })
      const lost =
        litBefore > litNow() ? ` ${trail.route.stages[litBefore - 1].name} is undone by it.` : ''
      setRemark({
        kind: lost ? 'wrong' : 'attend',
        sentence: `${told.remark.sentence}${lost}${spoiled} Planned again from here: ${route.turnCount} turns.`,
        canTakeBack: true,
        canPlan: false,
      })
    },
    [given.scheme, litNow, planWith, puzzle, request],
  )

  const perform = useCallback(
    async (turn: Turn, takesNextHold = true) => {
      const litBefore = litNow()
      const from = current.current.state
      const block = blockOf(puzzle, from, turn)
      if (block) {
        const sentence = whyBlocked(puzzle, from, turn, { scheme: given.scheme, dialect }) ?? ''
        return setRemark({ kind: 'wrong', sentence, canTakeBack: false, canPlan: false, block })
      }
      if (isEnded.current) return
      goOn()
      const event: BenchEvent = { kind: 'turn', atMs: elapsedMs(), name: turn.name }
      let made = follow(current.current, event)
      await windows.current?.play(turn, from, made.state, turnMs)
      // The next card speaks of the puzzle in its own hold: it is seen how that is taken.
      for (const name of takesNextHold ? holdAhead(made) : []) {
        const whole = puzzle.turnByName.get(name)
        const to = follow(made, { kind: 'turn', atMs: event.atMs, name })
        if (whole) await windows.current?.play(whole, made.state, to.state, turnMs)
        made = to
      }
      if (apply(event)) await afterDeviation(litBefore, from)
    },
    [
      afterDeviation,
      apply,
      dialect,
      elapsedMs,
      given.scheme,
      goOn,
      litNow,
      puzzle,
      turnMs,
      windows,
    ],
  )

  const enqueue = useCallback((work: () => Promise<void> | void) => {
    queue.current = queue.current.then(work).catch((error: unknown) => {
      setTrouble(error instanceof Error ? error.message : String(error))
    })
  }, [])

  /** The hold that the card is shown in is taken. */
  const takeHold = useCallback(() => {
    const ahead = holdAhead(current.current)
    if (ahead.length > 0 && !isEnded.current) goOn()
    return ahead.every((name) => apply({ kind: 'turn', atMs: elapsedMs(), name }))
  }, [apply, elapsedMs, goOn])

  const passReading = useCallback(() => {
    const { trail, step, done } = current.current
    if (trail && trail.steps[step]?.turns.length === 0 && trail.firstOfStep[step + 1] === done) {
      apply({ kind: 'pass', atMs: elapsedMs() })
      return true
    }
    return false
  }, [apply, elapsedMs])

  const settled = useCallback(() => outbox.current?.settled() ?? Promise.resolve(true), [])

  const expected = useCallback(() => {
    const { trail, done, deviation } = current.current
    return deviation ? undefined : trail?.tape[done]
  }, [])

  // A page that was opened off the trail, or was put there by another one, says so too.
  const shownRemark = useMemo(
    () => remark ?? (bench.deviation && !planning ? tell(bench.deviation).remark : undefined),
    [bench.deviation, planning, remark],
  )

  return useMemo(
    () => ({
      bench,
      school,
      variant,
      saving,
      trouble,
      planning,
      planShare,
      cancelPlan: () => cancel.current?.(),
      remark: shownRemark,
      clock,
      end,
      apart,
      letGo: (one) => {
        outbox.current?.letGo(one)
        setApart((all) => all.filter(({ key }) => key !== one.key))
      },
      request,
      position,
      make: (name) =>
        enqueue(async () => {
          const turn = puzzle.turnByName.get(name)
          if (turn && takeHold()) await perform(turn)
        }),
      makeAll: (names) =>
        enqueue(async () => {
          if (!takeHold()) return
          for (const name of names) {
            const turn = puzzle.turnByName.get(name)
            if (turn) await perform(turn, false)
          }
        }),
      next: () =>
        enqueue(async () => {
          if (passReading()) return
          const { step } = current.current
          if (!takeHold() || current.current.step !== step) return
          const turn = puzzle.turnByName.get(expected()?.name ?? '')
          if (turn) await perform(turn)
        }),
      finishStep: () =>
        enqueue(async () => {
          if (passReading()) return
          const step = current.current.step
          if (!takeHold()) return
          while (expected() && current.current.step === step) {
            const turn = puzzle.turnByName.get(expected()?.name ?? '')
            if (!turn) return
            await perform(turn)
          }
        }),
      undo: () =>
        enqueue(async () => {
          const event: BenchEvent = { kind: 'undo', atMs: elapsedMs() }
          // A hold that was taken for a card goes with the turn before it: the card is shown in it all the same.
          while (hasJustHeld(current.current) && apply(event));
          const last = current.current.made?.turn
          // What came before the snapshot is on the server only.
          if (!last) return turnsMade(current.current) > 0 ? openWhole(settled) : undefined
          const to = follow(current.current, event).state
          const back = puzzle.turns[last.inverse]
          await windows.current?.play(back, current.current.state, to, turnMs)
          if (apply(event)) setRemark(undefined)
        }),
      hint: (shown) => {
        const strength = Math.min(3, shown + 1) as 1 | 2 | 3
        apply({ kind: 'hint', atMs: elapsedMs(), strength })
      },
      plan: (choice = {}) =>
        enqueue(async () => {
          const asked = request()
          if (asked) await planWith({ ...asked, ...choice })
          setRemark(undefined)
        }),
      take: (route) =>
        enqueue(() => {
          // Turns made meanwhile make it stale.
          if (route.from !== writeState(current.current.state)) return
          if (apply({ kind: 'route', atMs: elapsedMs(), route: packed(route) }))
            setRemark(undefined)
        }),
      changeTo: (nextSchool, nextVariant) =>
        enqueue(async () => {
          setSchool(nextSchool)
          setVariant(nextVariant)
          setRemark(undefined)
          await planWith({
            puzzleId: given.puzzleId,
            school: nextSchool,
            variant: nextVariant,
            scheme: given.scheme,
            hand,
            state: writeState(current.current.state),
          })
        }),
      settled,
    }),
    [
      apart,
      apply,
      bench,
      clock,
      elapsedMs,
      end,
      enqueue,
      expected,
      given.puzzleId,
      given.scheme,
      hand,
      passReading,
      perform,
      planWith,
      planShare,
      planning,
      puzzle,
      shownRemark,
      request,
      position,
      saving,
      school,
      settled,
      takeHold,
      trouble,
      turnMs,
      variant,
      windows,
    ],
  )
}

/** What to say about a slip, and whether planning again is the right answer. */
function tell(deviation: NonNullable<Bench['deviation']>): { remark: Remark; replan: boolean } {
  const { made, expected, owed, run, slip } = deviation
  const back = { canTakeBack: true, canPlan: true }
  if (slip === 'wrong-hold')
    return {
      replan: false,
      remark: {
        kind: 'wrong',
        sentence: `${made} is the right turn, but the hold is not right yet: ${expected} comes first.`,
        ...back,
      },
    }
  if (owed !== undefined)
    return {
      replan: false,
      remark: {
        kind: 'wrong',
        sentence: `The whole puzzle was turned while ${owed} is owed. Take it back: until that is made the hold must stay.`,
        ...back,
      },
    }
  if (run) {
    const what =
      slip === 'regrip'
        ? 'The whole puzzle was turned'
        : `${made} was turned instead of ${expected}`
    return {
      replan: false,
      remark: {
        kind: 'wrong',
        sentence: `${what} inside run ${run.at} of ${run.of}. The run must be finished first; then it all comes back.`,
        ...back,
      },
    }
  }
  return {
    replan: true,
    remark: {
      kind: 'attend',
      sentence: expected ? `You turned ${made}; the card has ${expected}.` : `You turned ${made}.`,
      ...back,
    },
  }
}
