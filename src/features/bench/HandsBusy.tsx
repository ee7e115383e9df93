'use client'

import { Mic, MicOff, Undo2, Volume2, VolumeX, X } from 'lucide-react'
import { Dialog } from 'radix-ui'
import { useMemo, useState } from 'react'
import { shortTurnWords } from '@/core/analysis/turnWords'
import type { Bench } from '@/core/coach/bench'
import { holdTurnsOf, ownTurnsOf } from '@/core/coach/route'
import { lookForSpans, sayCard, sentenceOf, type CardWords, type Spans } from '@/core/coach/sayCard'
import type { DialectId } from '@/core/notation/dialect'
import { writeNames, writeTurnName } from '@/core/notation/write'
import type { Scheme } from '@/core/puzzle/colours'
import { IN, type Puzzle, type Turn } from '@/core/puzzle/compile'
import type { State } from '@/core/state'
import { classes } from '@/ui/classes'
import { Button } from '@/ui/Button'
import { TurnPicture } from '@/ui/puzzle-picture/TurnPicture'
import { PuzzleWindows } from '@/ui/puzzle-view/PuzzleWindows'
import { guideOf } from './guide'
import { useCommands, useReadAloud } from './speech'

/** At a step: first what the step before should have come to, then what to look for, then its turns. */
type Phase = 'check' | 'look' | 'turn'

/** Readable from two metres: one key, a tap anywhere or a spoken 'next' goes on. */
export function HandsBusy({
  puzzle,
  scheme,
  marks,
  bench,
  dialect,
  onNext,
  onBack,
  onClose,
}: {
  puzzle: Puzzle
  scheme: Scheme
  marks: boolean
  /** In the hold of its step. */
  bench: Bench
  dialect: DialectId
  onNext: () => void
  onBack: () => void
  onClose: () => void
}) {
  const { trail, done, step, solved, deviation, state } = bench
  const card = trail?.steps[step]
  const first = trail?.firstOfStep[step] ?? 0
  const opening = first + (card ? holdTurnsOf(card) : 0)
  // Opened in the middle of a step, it goes on with the turns.
  const [seen, setSeen] = useState<{ step: number; phase: Phase }>({
    step,
    phase: done > opening ? 'turn' : 'look',
  })
  const phase = seen.step === step ? seen.phase : step === seen.step + 1 ? 'check' : 'look'
  const next = deviation ? undefined : trail?.tape[done]
  const turn = next && puzzle.turnByName.get(next.name)
  const before = trail?.steps[step - 1]

  const goOn = () => {
    if (solved || deviation) return
    if (phase === 'check') return setSeen({ step, phase: 'look' })
    if (phase === 'look' && card && ownTurnsOf(card).length > 0)
      return setSeen({ step, phase: 'turn' })
    setSeen({ step, phase: 'turn' })
    onNext()
  }
  const goBack = () => {
    if (!deviation && phase === 'turn' && done === opening) return setSeen({ step, phase: 'look' })
    onBack()
  }

  const words = card && trail && sayCard(puzzle, scheme, trail, step, 'brief')
  const checked = before && trail && sayCard(puzzle, scheme, trail, step - 1).check
  const said = (spans: Spans) => sentenceOf(spans, dialect)
  // Those who listen hear whole sentences.
  const heard = card && trail && sayCard(puzzle, scheme, trail, step)
  const spoken = spokenWords({
    ...{ puzzle, words: heard, checked, phase, turn, solved },
    isOff: !!deviation,
  })
  const aloud = useReadAloud(spoken)
  const voice = useCommands((command) => {
    if (command === 'next') goOn()
    else if (command === 'back') goBack()
    else aloud.again()
  })
  const inPictures = dialect === 'arrows'
  const guide = useMemo(() => guideOf(puzzle, bench, phase === 'turn'), [bench, phase, puzzle])
  const lights = useMemo(
    () => ({
      attend:
        phase === 'turn' && turn
          ? layerOf(puzzle, state, turn)
          : (card?.lines ?? []).map(({ piece }) => puzzle.pieces.findIndex((p) => p.id === piece)),
      safe: [],
      places: [],
    }),
    [card, phase, puzzle, state, turn],
  )

  return (
    <Dialog.Root open onOpenChange={onClose}>
      <Dialog.Portal>
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-0 z-50 flex flex-col gap-3 bg-ground p-3 sm:p-6"
          onKeyDown={(event) => {
            if (event.key !== ' ' && event.key !== 'Enter') return
            if ((event.target as HTMLElement).closest('[data-control]')) return
            event.preventDefault()
            if (event.shiftKey) goBack()
            else goOn()
          }}
        >
          <div className="flex flex-wrap items-center gap-2" data-control>
            <Dialog.Title className="grow text-lg text-soft">
              {solved
                ? 'Home'
                : card
                  ? `Step ${bench.stepsBefore + step + 1} of ${bench.stepsBefore + (trail?.steps.length ?? 0)}`
                  : 'Hands busy'}
            </Dialog.Title>
            <Button onClick={aloud.toggle} aria-pressed={aloud.reading}>
              {aloud.reading ? (
                <Volume2 size={16} aria-hidden />
              ) : (
                <VolumeX size={16} aria-hidden />
              )}
              Read aloud
            </Button>
            <Button onClick={voice.toggle} aria-pressed={voice.listening}>
              {voice.listening ? <Mic size={16} aria-hidden /> : <MicOff size={16} aria-hidden />}
              Say ‘next’
            </Button>
            <Button onClick={goBack}>
              <Undo2 size={16} aria-hidden /> Back
            </Button>
            <Dialog.Close asChild>
              <Button aria-label="Leave hands busy">
                <X size={16} aria-hidden />
              </Button>
            </Dialog.Close>
          </div>
          {[voice.trouble, aloud.trouble].filter(Boolean).map((trouble) => (
            <p key={trouble} className="text-sm text-rose" role="alert">
              {trouble}
            </p>
          ))}
          <div className="grid min-h-0 grow grid-rows-[38%_1fr] gap-3 lg:grid-cols-2 lg:grid-rows-1">
            <PuzzleWindows
              puzzle={puzzle}
              state={state}
              scheme={scheme}
              marks={marks}
              lights={lights}
              guide={guide}
              label="The puzzle as it should lie in your hands now"
            />
            <button
              type="button"
              data-words
              autoFocus
              onClick={goOn}
              className="flex min-h-0 flex-col justify-center gap-[2.4vmin] overflow-y-auto rounded-lg border border-line bg-surface p-4 text-left sm:p-8"
            >
              {solved ? (
                <span className="font-display text-[14vmin]">Home.</span>
              ) : deviation ? (
                <span className="text-[5vmin]">Off the card. Go back one turn.</span>
              ) : phase === 'check' && checked ? (
                <Said word="Check">{said(checked)}</Said>
              ) : phase === 'look' && words ? (
                <>
                  <Said word="Look for">
                    {words.lines.length > 0 ? (
                      words.lines.map((line, i) => (
                        <span key={i} className="block">
                          <span className="text-amber">{i + 1}</span> {said(line)}
                        </span>
                      ))
                    ) : (
                      <span>{said(words.lookFor)}</span>
                    )}
                  </Said>
                  <Said word="Hold">{said(words.hold)}</Said>
                </>
              ) : (
                <>
                  {card?.runs && next?.run !== undefined && card.runs.total > 1 && (
                    <span className="text-[4.5vmin] text-soft">
                      run {next.run} of {card.runs.total}
                    </span>
                  )}
                  {inPictures && turn ? (
                    <TurnPicture
                      puzzle={puzzle}
                      state={state}
                      turn={turn}
                      className="max-h-[45vmin] w-full"
                    />
                  ) : (
                    <span
                      className={classes(
                        'turns leading-none font-bold text-amber',
                        sizeOf(next ? writeTurnName(next.name, dialect) : ''),
                      )}
                    >
                      {next ? writeTurnName(next.name, dialect) : ''}
                    </span>
                  )}
                  <span className="text-[4.5vmin] leading-tight">
                    {turn ? shortTurnWords(puzzle, turn) : ''}
                  </span>
                  {inPictures ? (
                    <span className="grid grid-cols-3 gap-[2vmin]">
                      {following(bench).map((name, i) => {
                        const coming = puzzle.turnByName.get(name)
                        return (
                          coming && (
                            <span key={i}>
                              <TurnPicture
                                puzzle={puzzle}
                                turn={coming}
                                className="max-h-[20vmin] w-full opacity-70"
                              />
                              <span className="sr-only">{writeTurnName(name, dialect)}</span>
                            </span>
                          )
                        )
                      })}
                    </span>
                  ) : (
                    <span className="turns text-[5.5vmin] text-soft">
                      {writeNames(following(bench), dialect)}
                    </span>
                  )}
                  {card?.halfway && done - first === card.halfway.after && (
                    <span className="text-[3.6vmin]">{words && said(words.halfway)}</span>
                  )}
                </>
              )}
            </button>
          </div>
          <p className="text-center text-sm text-soft">
            Tap the words, press Space, or say ‘next’, ‘back’ or ‘again’.
          </p>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}

/** Words are set smaller than letters, so that they stand whole. */
const sizeOf = (turn: string): string => (turn.length > 4 ? 'text-[9vmin]' : 'text-[24vmin]')

const Said = ({ word, children }: { word: string; children: React.ReactNode }) => (
  <span className="block text-[3.4vmin] leading-snug">
    <span className="block font-display text-[3vmin] text-amber">{word}</span>
    {children}
  </span>
)

/** The turns of this step after the next one. */
function following({ trail, done, step }: Bench): string[] {
  if (!trail) return []
  const end = Math.min(done + 4, trail.firstOfStep[step + 1])
  return trail.tape.slice(done + 1, end).map(({ name }) => name)
}

const layerOf = (puzzle: Puzzle, state: State, { grip, whole }: Turn): number[] =>
  whole
    ? []
    : puzzle.pieces.flatMap((_, p) => (puzzle.carry[grip][24 * p + state[p]] === IN ? [p] : []))

interface Spoken {
  readonly puzzle: Puzzle
  readonly words?: CardWords
  /** What the step before should have come to. */
  readonly checked?: Spans
  readonly phase: Phase
  readonly turn?: Turn
  readonly solved: boolean
  readonly isOff: boolean
}

/** What is read aloud. */
function spokenWords({ puzzle, words, checked, phase, turn, solved, isOff }: Spoken): string {
  if (solved) return 'Home.'
  if (isOff) return 'Off the card. Go back one turn.'
  if (phase === 'check' && checked) return `Check. ${sentenceOf(checked)}`
  if (phase === 'look' && words)
    return `Look for: ${sentenceOf(lookForSpans(words))} Hold: ${sentenceOf(words.hold)}`
  return turn ? `${shortTurnWords(puzzle, turn)}.` : ''
}
