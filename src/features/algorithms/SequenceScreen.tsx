'use client'

import { Copy, Printer } from 'lucide-react'
import { useRouter } from 'next/navigation'
import { useEffect, useMemo, useState } from 'react'
import { toast } from 'sonner'
import { doingOf } from '@/core/algorithms/does'
import { type Passage } from '@/core/scramble/passage'
import { passageClaim, stopClaim } from '@/core/claims/stops'
import { sentencesOf } from '@/core/words/say'
import { structureOf } from '@/core/algorithms/structure'
import { canBlock } from '@/core/analysis/placements'
import { kinOf } from '@/core/analysis/kin'
import { puzzleById } from '@/core/catalog'
import { DIALECTS, rewritten, type DialectId } from '@/core/notation/dialect'
import { handCost } from '@/core/notation/handCost'
import { readTurns } from '@/core/notation/read'
import { countQuarters, countTurns, mirrored, rehold, simplify } from '@/core/notation/rewrite'
import { writeAlgorithm, writeTurns } from '@/core/notation/write'
import type { Puzzle, Turn } from '@/core/puzzle/compile'
import { must } from '@/core/result'
import type { Settings } from '@/core/settings'
import { inverseOf, start } from '@/core/state'
import { plural } from '@/core/phrases'
import { Button, LinkButton } from '@/ui/Button'
import { Notice } from '@/ui/Notice'
import { PuzzlePicture } from '@/ui/puzzle-picture/PuzzlePicture'
import { NO_GUIDE, type Guide } from '@/ui/puzzle-view/overlay'
import type { Lights } from '@/ui/puzzle-view/PuzzleScene'
import { useReducedMotion } from '@/ui/useReducedMotion'
import { coach } from '@/workers/coach'
import type { OwnAlgorithm } from '@/server/algorithms'
import { finderAt, repairAt, sequenceAt, shelfAt } from '@/ui/algorithmAddresses'
import { Adapt } from './Adapt'
import { holdName } from '@/core/algorithms/holds'
import { Keep } from './Keep'
import { Player } from '@/ui/player/Player'
import { useSequence } from '@/ui/player/useSequence'
import { RoomHead } from './RoomHead'
import { TurnPictures } from './TurnPictures'

const NO_LIGHTS: Lights = { attend: [], safe: [], places: [] }

/** A bench of this puzzle that is open. */
interface OpenBench {
  readonly id: string
  readonly name: string
}

/** Reasons to stop that are shown, each with a shape. */
const MOST_STOPS = 5

/** More moved pieces than these are lit, but have no arrows. */
const MOST_ARROWS = 12

/** One sequence on a puzzle: played, told, drawn, and taken otherwise. */
export function SequenceScreen({
  puzzleId,
  text,
  settings,
  own,
  benches,
}: {
  puzzleId: string
  /** Canonical, with brackets. */
  text: string
  settings: Settings
  own: readonly OwnAlgorithm[]
  benches: readonly OpenBench[]
}) {
  const puzzle = must(puzzleById(puzzleId))
  const read = useMemo(() => readTurns(puzzle, text), [puzzle, text])
  const back = <LinkButton href={shelfAt(puzzleId)}>All sequences for this puzzle</LinkButton>
  if (!read.ok || read.value.length === 0)
    return (
      <div className="mx-auto grid w-full max-w-5xl gap-4 px-4 py-6 sm:px-6">
        <h1 className="text-2xl">No sequence</h1>
        <Notice kind="wrong">
          {read.ok ? 'The address holds no turns.' : read.problem.sentence}
        </Notice>
        <p>{back}</p>
      </div>
    )
  return <Sequence {...{ puzzle, puzzleId, text, settings, own, benches }} turns={read.value} />
}

function Sequence({
  puzzle,
  puzzleId,
  text,
  turns,
  settings,
  own,
  benches,
}: {
  puzzle: Puzzle
  puzzleId: string
  text: string
  turns: readonly Turn[]
  settings: Settings
  own: readonly OwnAlgorithm[]
  benches: readonly OpenBench[]
}) {
  const reduced = useReducedMotion()
  const [speed, setSpeed] = useState(Math.max(settings.turnMs, 300))
  const [dialect, setDialect] = useState<DialectId>(settings.writeDialect)
  const [pictures, setPictures] = useState(false)
  const finished = useMemo(() => start(puzzle), [puzzle])
  const played = useSequence(puzzle, finished, turns, reduced ? 0 : speed)
  const doing = useMemo(() => doingOf(puzzle, turns), [puzzle, turns])
  const structure = useMemo(() => {
    const found = structureOf(puzzle, turns)
    return found && writeAlgorithm(found)
  }, [puzzle, turns])
  const shown = useMemo(() => drawn(doing.ok ? doing.value : undefined), [doing])
  const isAtRest = played.position === 0
  const kept = own.find((each) => each.turns === text)
  const written = rewritten(puzzle, text, dialect)
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(written)
      toast('Copied.')
    } catch {
      toast.error('The browser did not let it be copied.')
    }
  }
  return (
    <div className="mx-auto flex w-full max-w-[90rem] grow flex-col gap-3 p-3 sm:px-5 lg:max-h-[calc(100dvh-2.9rem)]">
      <RoomHead
        puzzleId={puzzleId}
        title={<span className="turns">{written}</span>}
        about={[kept?.name, puzzle.definition.name, figures(turns, settings)]
          .filter(Boolean)
          .join(' \u00b7 ')}
      />
      <div className="grid min-h-0 grow gap-3 lg:grid-cols-[1fr_25rem]">
        <Player
          puzzle={puzzle}
          scheme={puzzle.definition.colours}
          marks={settings.marks}
          dialect={dialect}
          played={played}
          lights={isAtRest ? shown.lights : NO_LIGHTS}
          guide={
            isAtRest
              ? shown.guide
              : {
                  ...NO_GUIDE,
                  ...(played.turns[played.position] ? { turn: played.turns[played.position] } : {}),
                }
          }
          label={`${puzzle.definition.name}, ${isAtRest ? 'arrows from place to place' : 'on the way'}`}
          speed={speed}
          onSpeed={setSpeed}
        />
        <div className="flex min-h-0 flex-col gap-3 lg:overflow-y-auto">
          <section
            aria-label="What it does here"
            className="rounded-lg border border-line bg-surface px-4 py-3"
          >
            <h2 className="mb-1 text-base">What it does here</h2>
            {doing.ok ? (
              <ul className="grid gap-1 text-sm">
                {sentencesOf(puzzle, doing.value.said, { dialect }).map((sentence) => (
                  <li key={sentence}>{sentence}</li>
                ))}
              </ul>
            ) : (
              <p className="text-sm text-rose">{doing.problem.sentence}</p>
            )}
            <PassageLine puzzle={puzzle} puzzleId={puzzleId} turns={turns} dialect={dialect} />
          </section>
          <section
            aria-label="Taken otherwise"
            className="grid grid-cols-[minmax(0,1fr)] gap-2 rounded-lg border border-line bg-surface px-4 py-3"
          >
            <h2 className="text-base">Taken otherwise</h2>
            {structure && structure !== text && (
              <p className="text-sm">
                Built as{' '}
                <a
                  className="turns underline decoration-line"
                  href={sequenceAt(puzzleId, structure)}
                >
                  {rewritten(puzzle, structure, dialect)}
                </a>
              </p>
            )}
            <Otherwise puzzle={puzzle} puzzleId={puzzleId} turns={turns} />
            <div className="flex flex-wrap items-center gap-2 text-sm">
              <label className="flex min-w-0 items-center gap-2 text-soft">
                <span className="shrink-0">Written as</span>
                <select
                  value={dialect}
                  onChange={(event) => setDialect(event.target.value as DialectId)}
                  className="min-h-9 min-w-0 rounded border border-line bg-raised px-2 text-ink"
                >
                  {DIALECTS.map(({ id, name }) => (
                    <option key={id} value={id}>
                      {name}
                    </option>
                  ))}
                </select>
              </label>
              <Button onClick={() => void copy()}>
                <Copy size={16} aria-hidden /> Copy
              </Button>
              <Button onClick={() => setPictures(!pictures)} aria-expanded={pictures}>
                Arrows
              </Button>
              <Button onClick={() => window.print()}>
                <Printer size={16} aria-hidden /> Print
              </Button>
            </div>
          </section>
          {kinOf(puzzle.definition) && (
            <Adapt
              puzzle={puzzle}
              puzzleId={puzzleId}
              turns={turns}
              settings={settings}
              dialect={dialect}
            />
          )}
          <Keep puzzleId={puzzleId} puzzle={puzzle} turns={text} kept={kept} />
          <div className="flex flex-wrap gap-2">
            <LinkButton href={finderAt(puzzleId, writeTurns(turns))}>Find shorter ways</LinkButton>
            <LinkButton href={repairAt(puzzleId, text)}>Mend it</LinkButton>
            {benches.map(({ id, name }) => (
              <LinkButton key={id} href={`/bench/${id}?${new URLSearchParams({ sequence: text })}`}>
                Try it on {name}
              </LinkButton>
            ))}
          </div>
        </div>
      </div>
      {pictures && (
        <TurnPictures puzzle={puzzle} turns={turns} states={played.states} dialect={dialect} />
      )}
    </div>
  )
}

/** '9 turns, 10 in quarters, 11.4 in the hand' */
const figures = (turns: readonly Turn[], { hand }: Settings): string =>
  `${plural(countTurns(turns), 'turn')}, ${countQuarters(turns)} in quarters, ${handCost(turns, hand).toFixed(1)} in the hand`

/** What is lit and pointed at before the first turn. */
function drawn(doing: Extract<ReturnType<typeof doingOf>, { ok: true }>['value'] | undefined): {
  lights: Lights
  guide: Guide
} {
  if (!doing) return { lights: NO_LIGHTS, guide: NO_GUIDE }
  const { hops, turned, state } = doing
  return {
    lights: { ...NO_LIGHTS, attend: [...hops.map(({ from }) => from), ...turned] },
    guide: {
      numbered: [],
      arrows:
        hops.length > MOST_ARROWS
          ? []
          : hops.map(({ from }) => ({
              from: { piece: from, rotation: 0 },
              to: { piece: from, rotation: state[from] },
            })),
    },
  }
}

/** The same taken back, mirrored, shortened, in another hold. */
function Otherwise({
  puzzle,
  puzzleId,
  turns,
}: {
  puzzle: Puzzle
  puzzleId: string
  turns: readonly Turn[]
}) {
  const router = useRouter()
  const others = useMemo(() => {
    const shorter = simplify(puzzle, turns)
    const ways: (readonly [string, readonly Turn[] | undefined])[] = [
      ['Taken back', inverseOf(puzzle, turns)],
      ['Mirrored left to right', mirrored(puzzle, turns, 0)],
      ['Mirrored front to back', mirrored(puzzle, turns, 2)],
      ['Turns joined', shorter.length < turns.length && shorter.length > 0 ? shorter : undefined],
    ]
    return ways.flatMap(([name, made]) => (made ? [{ name, turns: writeTurns(made) }] : []))
  }, [puzzle, turns])
  const holds = useMemo(
    () =>
      puzzle.holds
        .filter((hold) => hold !== 0)
        .map((hold) => ({ hold, words: holdName(puzzle, hold) })),
    [puzzle],
  )
  return (
    <div className="flex flex-wrap gap-2">
      {others.map(({ name, turns: made }) => (
        <LinkButton key={name} href={sequenceAt(puzzleId, made)}>
          {name}
        </LinkButton>
      ))}
      {holds.length > 0 && (
        <label className="flex min-w-0 items-center gap-2 text-sm text-soft">
          Held
          <select
            value=""
            aria-label="The same done in another hold"
            onChange={(event) =>
              router.push(
                sequenceAt(puzzleId, writeTurns(rehold(puzzle, turns, Number(event.target.value)))),
              )
            }
            className="min-h-9 min-w-0 rounded border border-line bg-raised px-2 text-ink"
          >
            <option value="" disabled>
              otherwise
            </option>
            {holds.map(({ hold, words }) => (
              <option key={hold} value={hold}>
                {words}
              </option>
            ))}
          </select>
        </label>
      )}
    </div>
  )
}

/** From how many scrambles it can be made, where turns can be blocked. */
function PassageLine({
  puzzle,
  puzzleId,
  turns,
  dialect,
}: {
  puzzle: Puzzle
  puzzleId: string
  turns: readonly Turn[]
  dialect: DialectId
}) {
  const [passage, setPassage] = useState<Passage>()
  const can = useMemo(() => canBlock(puzzle), [puzzle])
  const text = useMemo(() => writeTurns(turns), [turns])
  useEffect(() => {
    if (!can) return
    let gone = false
    void coach()
      .passage(puzzleId, text)
      .then((found) => {
        if (!gone && found.ok) setPassage(found.value)
      })
    return () => {
      gone = true
    }
  }, [can, puzzleId, text])
  if (!can) return null
  const stops = passage?.stops.slice(0, MOST_STOPS) ?? []
  const others = passage?.stops.slice(MOST_STOPS) ?? []
  const left = others.reduce((sum, { times }) => sum + times, 0)
  return (
    <div className="mt-2 text-sm">
      <p role="status" className="text-soft">
        {passage
          ? sentencesOf(puzzle, [passageClaim(passage)])
          : 'Trying from how many shapes it can be made.'}
      </p>
      {stops.length > 0 && (
        <ul aria-label="Shapes in which it stops" className="mt-1 grid gap-1">
          {stops.map((stop, i) => (
            <li key={i} className="grid grid-cols-[5.5rem_1fr] items-center gap-2">
              <PuzzlePicture
                puzzle={puzzle}
                state={stop.state}
                scheme={puzzle.definition.colours}
                label=""
                attend={stop.cut.map((p) => puzzle.pieces[p].id)}
              />
              <span>{sentencesOf(puzzle, [stopClaim(puzzle, turns, stop)], { dialect })}</span>
            </li>
          ))}
          {left > 0 && (
            <li className="text-soft">
              For {plural(others.length, 'other reason')} it stops in {left} more.
            </li>
          )}
        </ul>
      )}
    </div>
  )
}
