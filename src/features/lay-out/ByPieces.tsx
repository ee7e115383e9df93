'use client'

import { Eraser, RotateCw, Undo2 } from 'lucide-react'
import { useEffect, useMemo, useState } from 'react'
import { array, mixed, number, object } from 'yup'
import { coloursOf, placeWords } from '@/core/analysis/anatomy'
import { puzzleById } from '@/core/catalog'
import {
  candidatesAt,
  cannotBe,
  EMPTY,
  isWhole,
  judgeEntry,
  nextSlot,
  placedBy,
  slotsAsked,
  turnedOver,
  withForced,
  type Candidate,
  type Entry,
  type EntryVerdict,
  type Seen,
} from '@/core/copy/pieces'
import type { Scheme } from '@/core/puzzle/colours'
import type { Puzzle } from '@/core/puzzle/compile'
import { must } from '@/core/result'
import type { Settings } from '@/core/settings'
import { start, writeState } from '@/core/state'
import type { Diagnosis } from '@/core/stuck/diagnose'
import { facingWords } from '@/core/phrases'
import type { Copy } from '@/server/copies'
import { forgetHere, keepHere, keptHere } from '@/ui/browserStore'
import { ShareBar } from '@/ui/ShareBar'
import { Button } from '@/ui/Button'
import { classes } from '@/ui/classes'
import { DiagnosisNotice } from '@/ui/DiagnosisNotice'
import { Notice } from '@/ui/Notice'
import { Swatch } from '@/ui/Swatch'
import { PiecePicture } from '@/ui/puzzle-picture/PiecePicture'
import { PuzzleWindows } from '@/ui/puzzle-view/PuzzleWindows'
import { coach } from '@/workers/coach'
import type { OnEntry } from './onEntry'

/** What is seen in one place after the other, chosen among the pieces still possible there. */
export function ByPieces({
  copy,
  settings,
  onEntry,
}: {
  copy: Copy
  settings: Settings
  onEntry: OnEntry<string>
}) {
  const puzzle = must(puzzleById(copy.puzzleId))
  const [steps, setSteps] = useKept(copy.id, puzzle)
  const entry = steps[steps.length - 1]
  const [asked, setAsked] = useState<number>()
  const open = asked ?? nextSlot(puzzle, entry)
  const candidates = useMemo(
    () => (open === undefined ? [] : candidatesAt(puzzle, entry, open)),
    [entry, open, puzzle],
  )
  const verdict = useVerdict(puzzle, entry)
  const doubt = useMemo(() => cannotBe(puzzle, entry), [entry, puzzle])
  const [showing, setShowing] = useState<ReadonlySet<string>>(new Set())
  const offered = candidates.filter(({ piece, seen }) => {
    const own = seen === EMPTY ? [] : puzzle.pieces[piece].faces.map(({ colour }) => colour)
    return [...showing].every((colour) => own.includes(colour))
  })
  const placed = useMemo(() => placedBy(puzzle, entry), [entry, puzzle])
  const shown = useMemo(() => {
    const filled = new Set(entry.map(({ slot }) => slot))
    const blanks = puzzle.pieces.flatMap((_, p) => (filled.has(p) ? [] : [p]))
    return { pieces: placed?.placed ?? new Set<number>(), blanks: new Set(blanks) }
  }, [entry, placed, puzzle])
  const lights = useMemo(
    () => ({ attend: [], safe: [], places: open === undefined ? [] : [open] }),
    [open],
  )

  useEffect(() => {
    if (verdict?.kind === 'whole' && verdict.diagnosis.verdict !== 'assembly')
      onEntry(writeState(verdict.state))
    else onEntry(undefined, whyNot(verdict))
  }, [onEntry, verdict])

  const choose = (seen: Seen) => {
    if (open === undefined) return
    const others = entry.filter(({ slot }) => slot !== open)
    setSteps([...steps, withForced(puzzle, [...others, { slot: open, seen }])])
    setAsked(undefined)
    setShowing(new Set())
  }
  const turnOver = (name: string) => {
    const turn = puzzle.turnByName.get(name)
    if (turn) setSteps([...steps, turnedOver(puzzle, entry, turn.rotation)])
  }
  const total = slotsAsked(puzzle).length
  const over = ['x', 'y', 'z'].flatMap((letter) =>
    [letter, `${letter}2`].filter((name) => puzzle.turnByName.has(name)).slice(0, 1),
  )

  return (
    <div className="grid gap-4 lg:grid-cols-[1fr_24rem]">
      <div className="flex flex-col gap-3">
        <div className="h-64 lg:h-[24rem]">
          <PuzzleWindows
            puzzle={puzzle}
            state={placed?.state ?? start(puzzle)}
            scheme={copy.scheme}
            marks={settings.marks}
            lights={lights}
            shown={shown}
            label={`What is entered so far: ${entry.length} of ${total} places`}
            onTouchSlot={(slot) => {
              if (slot !== undefined && slotsAsked(puzzle).includes(slot)) setAsked(slot)
            }}
          />
        </div>
        <div className="flex flex-wrap items-center gap-2">
          <Button
            onClick={() => {
              setSteps(steps.slice(0, -1))
              setAsked(undefined)
            }}
            disabled={steps.length < 2}
          >
            <Undo2 size={16} aria-hidden /> Undo
          </Button>
          <Button
            weight="quiet"
            onClick={() => setSteps([...steps, []])}
            disabled={entry.length === 0}
          >
            <Eraser size={16} aria-hidden /> Clear
          </Button>
          <span className="ml-auto text-sm text-soft">Turned it over in your hands?</span>
          {over.map((name) => (
            <Button
              key={name}
              onClick={() => turnOver(name)}
              disabled={entry.length === 0}
              aria-label={`Turn the whole picture: ${name}`}
            >
              <RotateCw size={14} aria-hidden /> <span className="turns">{name}</span>
            </Button>
          ))}
        </div>
      </div>
      <div className="flex flex-col gap-3">
        <div className="flex items-center gap-3 text-sm">
          <ShareBar share={entry.length / total} label="Places entered" />
          <span className="turns">
            {entry.length} of {total}
          </span>
        </div>
        {doubt && open !== undefined && <Notice kind="wrong">{doubt}</Notice>}
        {open === undefined ? (
          <Verdict puzzle={puzzle} scheme={copy.scheme} verdict={verdict} />
        ) : (
          <>
            <p>What lies at the ringed place, {placeWords(puzzle, open)}?</p>
            {entry.length === 0 && (
              <p className="text-sm text-soft">
                Hold the puzzle as you like and keep that hold. If nothing offered fits, turn the
                whole puzzle until something does. Touch another place in the windows to be asked
                about that one.
              </p>
            )}
            <ColourFilter
              scheme={copy.scheme}
              marks={settings.marks}
              showing={showing}
              onChange={setShowing}
            />
            {offered.length === 0 && (
              <p className="text-sm">No piece that can lie there shows these colours.</p>
            )}
            <ul
              aria-label="What can lie there"
              className="grid max-h-[22rem] grid-cols-3 gap-2 overflow-y-auto sm:grid-cols-4 lg:grid-cols-3"
            >
              {offered.map((candidate) => (
                <li key={candidate.seen}>
                  <CandidateButton
                    puzzle={puzzle}
                    scheme={copy.scheme}
                    marks={settings.marks}
                    candidate={candidate}
                    way={candidates.indexOf(candidate) + 1}
                    onChoose={() => choose(candidate.seen)}
                  />
                </li>
              ))}
            </ul>
            <Button
              weight="quiet"
              className="justify-self-start"
              onClick={() => setAsked(later(puzzle, entry, open))}
            >
              Ask me another place first
            </Button>
          </>
        )}
      </div>
    </div>
  )
}

/** Colours that are seen at the ringed place: only pieces that show them all are offered. */
function ColourFilter({
  scheme,
  marks,
  showing,
  onChange,
}: {
  scheme: Scheme
  marks: boolean
  showing: ReadonlySet<string>
  onChange: (showing: ReadonlySet<string>) => void
}) {
  const toggle = (id: string) => {
    const next = new Set(showing)
    if (!next.delete(id)) next.add(id)
    onChange(next)
  }
  return (
    <fieldset className="flex flex-wrap items-center gap-1.5">
      <legend className="mb-1 text-sm">Colours seen there</legend>
      {scheme.map((colour) => (
        <button
          key={colour.id}
          type="button"
          aria-label={colour.name}
          title={colour.name}
          aria-pressed={showing.has(colour.id)}
          onClick={() => toggle(colour.id)}
          className={classes(
            'grid size-9 place-items-center rounded-md border-2 bg-raised',
            showing.has(colour.id) ? 'border-amber' : 'border-line',
          )}
        >
          <Swatch colour={colour} marks={marks} />
        </button>
      ))}
    </fieldset>
  )
}

/** The next open slot after one, round and round. */
function later(puzzle: Puzzle, entry: Entry, slot: number): number {
  const filled = new Set(entry.map((each) => each.slot))
  const left = slotsAsked(puzzle).filter((each) => !filled.has(each))
  return left[(left.indexOf(slot) + 1) % left.length]
}

function CandidateButton({
  puzzle,
  scheme,
  marks,
  candidate,
  way,
  onChoose,
}: {
  puzzle: Puzzle
  scheme: Scheme
  marks: boolean
  candidate: Candidate
  way: number
  onChoose: () => void
}) {
  const { piece, rotation, count, seen } = candidate
  const look =
    'flex h-full min-h-20 w-full flex-col items-center justify-center gap-1 rounded-md border border-line bg-raised p-1.5 text-center text-xs hover:border-amber focus-visible:border-amber'
  if (seen === EMPTY)
    return (
      <button type="button" onClick={onChoose} className={look}>
        Nothing lies here
      </button>
    )
  const colours = coloursOf(puzzle, scheme, piece)
  const facing = facingWords(puzzle, scheme, piece, rotation)
  return (
    <button
      type="button"
      onClick={onChoose}
      aria-label={`${puzzle.pieces[piece].kind}, ${facing || `${colours}, choice ${way}`}${count > 1 ? `, ${count} alike` : ''}`}
      className={look}
    >
      <PiecePicture
        puzzle={puzzle}
        piece={piece}
        rotation={rotation}
        scheme={scheme}
        marks={marks}
        className="h-20 w-full"
      />
      {count > 1 && <span className="text-soft">{count} alike</span>}
    </button>
  )
}

/** Why an entry cannot be put on the bench. */
function whyNot(verdict: EntryVerdict | undefined): string {
  if (!verdict) return 'It is being judged.'
  if (verdict.kind === 'contradiction') return 'What was entered does not fit together.'
  if (verdict.kind === 'incomplete')
    return verdict.left === 1
      ? 'One place is still to fill.'
      : `${verdict.left} places are still to fill.`
  return 'No turns lead here, so no turns lead home. What was put together wrongly is told above.'
}

/** What to look at again, where turns cannot have led here. */
function lookAgain({ slots }: Diagnosis): string {
  if (slots.length === 0) return 'If you are not sure, compare the shape once more, side by side.'
  return `If you are not sure, undo and look once more at ${slots.length === 1 ? 'that piece' : 'those pieces'}.`
}

function Verdict({
  puzzle,
  scheme,
  verdict,
}: {
  puzzle: Puzzle
  scheme: Scheme
  verdict: EntryVerdict | undefined
}) {
  if (!verdict)
    return (
      <p role="status" className="text-sm">
        Judging what was entered.
      </p>
    )
  if (verdict.kind !== 'whole')
    return <Notice kind="wrong">What was entered does not fit together. Undo the last step.</Notice>
  return (
    <DiagnosisNotice puzzle={puzzle} scheme={scheme} diagnosis={verdict.diagnosis}>
      {verdict.diagnosis.verdict === 'assembly' && lookAgain(verdict.diagnosis)}
    </DiagnosisNotice>
  )
}

/** What an entry is. A whole one is judged by the coach, because that can take a second. */
function useVerdict(puzzle: Puzzle, entry: Entry): EntryVerdict | undefined {
  const quick = useMemo(
    () => (isWhole(puzzle, entry) ? undefined : judgeEntry(puzzle, entry)),
    [entry, puzzle],
  )
  const [judged, setJudged] = useState<{ entry: Entry; verdict: EntryVerdict }>()
  useEffect(() => {
    if (quick) return
    let isStale = false
    void coach()
      .judge(puzzle.definition.id, entry)
      .then((verdict) => {
        if (!isStale) setJudged({ entry, verdict: must(verdict) })
      })
    return () => {
      isStale = true
    }
  }, [entry, puzzle, quick])
  return quick ?? (judged?.entry === entry ? judged.verdict : undefined)
}

const keptSchema = array()
  .of(
    object({
      slot: number().integer().min(0).required(),
      seen: mixed<Seen>()
        .required()
        .test('seen', (seen) => seen === EMPTY || (Number.isInteger(seen) && Number(seen) >= 0)),
    }).required(),
  )
  .required()

/** The steps of an entry; the last one is kept in this browser, so that a reload loses nothing. */
function useKept(copyId: string, puzzle: Puzzle) {
  const key = `lay-out:${copyId}`
  const [steps, setSteps] = useState<readonly Entry[]>([[]])
  useEffect(() => {
    const text = keptHere(key)
    if (!text) return
    try {
      const entry = keptSchema.validateSync(JSON.parse(text)) as Entry
      if (placedBy(puzzle, entry)) setSteps([[], entry])
    } catch {
      // What another version kept is of no use.
      forgetHere(key)
    }
  }, [key, puzzle])
  const keep = (next: readonly Entry[]) => {
    setSteps(next)
    keepHere(key, JSON.stringify(next[next.length - 1]))
  }
  return [steps, keep] as const
}
