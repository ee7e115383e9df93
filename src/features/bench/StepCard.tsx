import { ArrowRight } from 'lucide-react'
import Link from 'next/link'
import type { ReactNode } from 'react'
import { CLOCK_WORDS } from '@/core/analysis/placeNames'
import { handOf, legendOf, shortTurnWords } from '@/core/analysis/turnWords'
import { ownTurnsOf, type RouteStep } from '@/core/coach/route'
import { isOfLetters, type DialectId } from '@/core/notation/dialect'
import { sentenceOf, type CardWords, type Spans } from '@/core/coach/sayCard'
import type { Register } from '@/core/words/lexicon'
import type { Scheme } from '@/core/puzzle/colours'
import type { Puzzle, Turn } from '@/core/puzzle/compile'
import type { Hand } from '@/core/notation/handCost'
import type { State } from '@/core/state'
import { PiecePicture } from '@/ui/puzzle-picture/PiecePicture'
import { Button } from '@/ui/Button'
import { classes } from '@/ui/classes'
import { Key } from '@/ui/Key'
import { sequenceAt } from '@/ui/algorithmAddresses'
import { TurnParts } from './TurnRow'

const Line = ({ word, children }: { word: string; children: ReactNode }) => (
  <div className="grid grid-cols-[4.1rem_1fr] gap-2">
    <dt className="font-display text-base text-amber">{word}</dt>
    <dd className="min-w-0">{children}</dd>
  </div>
)

/** What the list of offers is called. */
const OFFERS: Readonly<Record<string, string>> = {
  cycle: 'Or another third piece',
  join: 'Or take apart something else',
}

/** The states that a card speaks of: once its hold is taken, and after its last turn. */
export interface CardStates {
  readonly held: State
  readonly end: State
}

/** Look for, Hold, Turn, Check; or less, as strong as the hint that is wanted. */
export function StepCard({
  puzzle,
  puzzleId,
  scheme,
  marks,
  states,
  step,
  words,
  called,
  register,
  number,
  count,
  strength,
  done,
  dialect,
  hand,
  hintKey,
  onHint,
  onTakeOther,
  aside,
}: {
  puzzle: Puzzle
  puzzleId: string
  scheme: Scheme
  marks: boolean
  states: CardStates
  step: RouteStep
  words: CardWords
  /** What its sequence is called by whoever solves, where it has a name. */
  called?: string
  register: Register
  number: number
  count: number
  /** 1 a nudge, 2 a pointer, 3 everything. */
  strength: number
  /** Turns of this step that are done. */
  done: number
  dialect: DialectId
  /** The hand that turns most. */
  hand: Hand
  /** The key for a stronger hint, as shown. */
  hintKey: string
  onHint: () => void
  onTakeOther: (other: RouteStep['others'][number]) => void
  aside?: ReactNode
}) {
  const said = (spans: Spans) => sentenceOf(spans, dialect)
  const mind = said(words.note)
  const isBrief = register === 'brief'
  // How it is held is told in words, and shown.
  const own = ownTurnsOf(step)
  const heldBy = step.turns.length - own.length
  const takesHold = heldBy > 0
  return (
    <section aria-label="Step card" className="rounded-lg border border-line bg-surface px-4 py-3">
      <div className="mb-2 flex items-baseline justify-between gap-2">
        <h2 className="text-sm text-soft">
          Step {number} of {count}
        </h2>
        {aside}
      </div>
      <div aria-live="polite">
        {strength <= 1 && <p className="text-lg">{said(words.nudge)}</p>}
        {strength === 2 && (
          <dl className="grid gap-1.5 leading-snug">
            <Line word="Look for">{said(words.pointer)}</Line>
            <Line word="Hold">{said(words.hold)}</Line>
          </dl>
        )}
        {strength >= 3 && (
          <dl className={classes('grid gap-1.5 leading-snug', isBrief && 'text-lg')}>
            <Line word="Look for">
              {step.lines ? (
                <Lines
                  {...{ puzzle, scheme, marks, states }}
                  lines={step.lines.map(({ piece }, i) => ({ piece, text: said(words.lines[i]) }))}
                />
              ) : (
                <WithPicture
                  {...{ puzzle, scheme, marks, states }}
                  text={said(words.lookFor)}
                  pieces={step.pieces}
                />
              )}
            </Line>
            {(!isBrief || takesHold) && <Line word="Hold">{said(words.hold)}</Line>}
            {own.length > 0 && (
              <Line word="Turn">
                <TurnParts
                  turns={own}
                  done={done - heldBy}
                  total={step.runs?.total}
                  dialect={dialect}
                  puzzle={puzzle}
                />
                {called !== undefined && <p className="text-sm text-soft">{called}</p>}
                <Legend
                  {...{ puzzle, puzzleId, step, hand, dialect }}
                  canBeNamed={called === undefined}
                  usesClock={words.usesClock}
                  joins={said(words.joins)}
                  next={step.turns[done]?.name}
                />
                {step.halfway && done === step.halfway.after && (
                  <p className="mt-1 text-sm">{said(words.halfway)}</p>
                )}
              </Line>
            )}
            {mind !== '' && (
              <Line word="Mind">
                {isBrief ? (
                  // What looks wrong on the way is there to be read, but not in the way.
                  <details className="text-sm">
                    <summary className="cursor-pointer text-soft">What to keep in mind</summary>
                    {mind}
                  </details>
                ) : (
                  <span className="text-soft">{mind}</span>
                )}
              </Line>
            )}
            {!isBrief && <Line word="Check">{said(words.check)}</Line>}
          </dl>
        )}
      </div>
      {strength >= 3 && (
        <details className="mt-1 text-sm">
          <summary className="cursor-pointer text-soft">Looks different?</summary>
          <p>{said(words.ifNot)}</p>
        </details>
      )}
      {strength < 3 && (
        <Button className="mt-3" onClick={onHint}>
          {strength < 2 ? 'Which piece, which place' : 'Show the turns'} <Key>{hintKey}</Key>
        </Button>
      )}
      {strength >= 2 && done <= heldBy && step.others.length > 0 && (
        <details className="mt-3 text-sm">
          <summary className="cursor-pointer text-soft">
            {OFFERS[step.kind] ?? 'Or take another piece first'} ({step.others.length})
          </summary>
          <ul className="mt-1 grid gap-1">
            {step.others.map((other, i) => (
              <li key={other.piece} className="flex items-center justify-between gap-2">
                <span>{said(words.others[i])}</span>
                <Button weight="quiet" onClick={() => onTakeOther(other)}>
                  Take it
                </Button>
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  )
}

interface Pictured {
  readonly puzzle: Puzzle
  readonly scheme: Scheme
  readonly marks: boolean
  readonly states: CardStates
}

/** A piece as it lies now, and as it will lie. */
function NowAndThen({ puzzle, scheme, marks, states, piece }: Pictured & { piece: string }) {
  const p = puzzle.pieces.findIndex(({ id }) => id === piece)
  if (p < 0) return null
  const picture = (state: State) => (
    <PiecePicture
      puzzle={puzzle}
      piece={p}
      rotation={state[p]}
      scheme={scheme}
      marks={marks}
      single
      className="inline-block h-7 w-7"
    />
  )
  return (
    <span className="ml-1.5 inline-flex items-center gap-1 align-middle whitespace-nowrap text-soft">
      {picture(states.held)}
      <ArrowRight size={12} aria-hidden />
      {picture(states.end)}
    </span>
  )
}

function Lines({
  lines,
  ...given
}: Pictured & { lines: readonly { readonly piece: string; readonly text: string }[] }) {
  return (
    <ol className="grid gap-1.5">
      {lines.map(({ piece, text }, i) => (
        <li key={piece} className="flex items-start gap-2">
          <span className="mt-0.5 grid size-5 shrink-0 place-items-center rounded-full bg-amber text-xs font-bold text-on-amber">
            {i + 1}
          </span>
          <span>
            {text}
            <NowAndThen {...given} piece={piece} />
          </span>
        </li>
      ))}
    </ol>
  )
}

/** One piece to find, with its picture; several, or none, without. */
function WithPicture({
  text,
  pieces,
  ...given
}: Pictured & { text: string; pieces: readonly string[] }) {
  return (
    <>
      {text}
      {pieces.length === 1 && <NowAndThen {...given} piece={pieces[0]} />}
    </>
  )
}

const sequenceOfStep = (step: RouteStep): string =>
  ownTurnsOf(step)
    .map(({ name }) => name)
    .join(' ')

/** The next turn in plain words, and what each letter of the card turns. */
function Legend({
  puzzle,
  puzzleId,
  step,
  next,
  hand,
  dialect,
  usesClock,
  joins,
  canBeNamed,
}: {
  puzzle: Puzzle
  puzzleId: string
  step: RouteStep
  next?: string
  hand: Hand
  dialect: DialectId
  usesClock: boolean
  /** What the last turns are together with the next step's. */
  joins: string
  /** Whether its sequence has no name yet. */
  canBeNamed: boolean
}) {
  const turn = next === undefined ? undefined : puzzle.turnByName.get(next)
  // Where turns are words there are no letters to be explained.
  const words = isOfLetters(dialect)
    ? legendOf(
        puzzle,
        ownTurnsOf(step).map(({ name }) => name),
      )
    : []
  return (
    <details className="mt-1 text-sm">
      <summary className="cursor-pointer">
        {turn
          ? nextWords(puzzle, turn, hand)
          : words.length > 0
            ? 'What the letters turn'
            : 'More of these turns'}
      </summary>
      <ul className="mt-0.5 text-soft">
        {words.map((line) => (
          <li key={line}>{line}</li>
        ))}
        {usesClock && <li>{CLOCK_WORDS}</li>}
        {joins !== '' && <li>{joins}</li>}
      </ul>
      {sequenceOfStep(step) !== '' && (
        <Link
          className="underline decoration-line"
          href={sequenceAt(puzzleId, sequenceOfStep(step))}
        >
          What these turns do by themselves
        </Link>
      )}
      {canBeNamed && step.algorithm.length > 2 && (
        <Link
          className="ml-3 underline decoration-line"
          href={sequenceAt(puzzleId, step.algorithm.join(' '))}
        >
          Give its sequence a name
        </Link>
      )}
    </details>
  )
}

function nextWords(puzzle: Puzzle, turn: Turn, main: Hand): string {
  const hand = handOf(puzzle, turn, main)
  return `${shortTurnWords(puzzle, turn)}${hand ? `, with the ${hand} hand` : ''}.`
}
