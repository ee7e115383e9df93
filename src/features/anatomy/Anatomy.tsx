'use client'

import { Shuffle, Undo2 } from 'lucide-react'
import { useEffect, useMemo, useState } from 'react'
import { toast } from 'sonner'
import { factsOf, kindsIn } from '@/core/analysis/anatomy'
import { carriedBy } from '@/core/analysis/fit'
import { kinOf, kinPieces, kinScheme } from '@/core/analysis/kin'
import { turnMeant } from '@/core/analysis/layers'
import { puzzleById } from '@/core/catalog'
import { carryingSaid, standingSaid } from '@/core/claims/facts'
import type { DialectId } from '@/core/notation/dialectId'
import { readTurns } from '@/core/notation/read'
import { writeTurns } from '@/core/notation/write'
import type { Scheme } from '@/core/puzzle/colours'
import type { Puzzle, Turn } from '@/core/puzzle/compile'
import { must } from '@/core/result'
import type { Settings } from '@/core/settings'
import { blockOf, start, turnAll, type Block, type State } from '@/core/state'
import { plural } from '@/core/phrases'
import { sentencesOf } from '@/core/words/say'
import { Button, LinkButton } from '@/ui/Button'
import { Notice } from '@/ui/Notice'
import { PuzzleWindows } from '@/ui/puzzle-view/PuzzleWindows'
import type { Lights } from '@/ui/puzzle-view/PuzzleScene'
import { TurnPad } from '@/ui/TurnPad'
import { useKeys } from '@/ui/useKeys'
import { useReducedMotion } from '@/ui/useReducedMotion'
import { callback, coach } from '@/workers/coach'
import { Circles } from './Circles'
import { Counts } from './Counts'
import { Kinds } from './Kinds'
import { PieceCard } from './PieceCard'
import { usePair } from './usePair'

export interface AnatomyGiven {
  readonly puzzleId: string
  /** What stands at the top: the solver's name for a copy, or the puzzle's. */
  readonly title: string
  readonly scheme: Scheme
  /** Set for a copy on the shelf. */
  readonly copyId?: string
  readonly turns: string
  readonly piece: string
}

const NOTHING: Lights = { attend: [], safe: [], places: [] }

/** Takes a puzzle apart on screen: kinds, orbits, look-alikes, what is blocked, and its kin. */
export function Anatomy({ given, settings }: { given: AnatomyGiven; settings: Settings }) {
  const puzzle = must(puzzleById(given.puzzleId))
  const { definition } = puzzle
  const asked = useMemo(() => beginning(puzzle, given), [puzzle, given])
  const kinDefinition = useMemo(() => kinOf(definition), [definition])
  const reduced = useReducedMotion()
  const turnMs = reduced ? 0 : settings.turnMs
  const { kin, windows, kinWindows, history, state, kinState, refused, make, undo, jump } = usePair(
    puzzle,
    kinDefinition,
    asked.turns,
    turnMs,
  )
  const [piece, setPiece] = useState<number | undefined>(asked.piece)
  const [pointed, setPointed] = useState<Turn>()
  const [apart, setApart] = useState(0)
  const [drawing, setDrawing] = useState(false)
  const kinds = useMemo(() => kindsIn(puzzle), [puzzle])
  const links = useMemo(() => (kin ? kinPieces(puzzle, kin) : []), [puzzle, kin])

  useEffect(() => {
    const query = new URLSearchParams()
    if (history.length > 0) query.set('turns', writeTurns(history))
    if (piece !== undefined) query.set('piece', puzzle.pieces[piece].id)
    // A copy in another setting of its circles stays that copy.
    if (given.copyId && !window.location.pathname.endsWith(given.copyId))
      query.set('copy', given.copyId)
    const text = query.toString()
    window.history.replaceState(null, '', text ? `?${text}` : window.location.pathname)
  }, [given.copyId, history, piece, puzzle])

  const shownTurn = refused ?? pointed
  const lights = useMemo(
    () => lightsFor(puzzle, state, piece, shownTurn),
    [piece, puzzle, shownTurn, state],
  )
  const kinLights = useMemo((): Lights => {
    const over = (pieces: readonly number[] = []) =>
      pieces.flatMap((p) => (links[p] === undefined ? [] : [links[p]]))
    const places = lights.places.filter((slot) => slot < puzzle.pieces.length)
    return {
      attend: over(lights.attend),
      safe: over(lights.safe),
      wrong: over(lights.wrong),
      places: over(places),
    }
  }, [lights, links, puzzle])

  const layer = useKeys(settings.keys, false, (press) => {
    if ('act' in press) {
      if (press.act !== 'back') return false
      undo()
      return true
    }
    const turn = turnMeant(puzzle, press.turn)
    if (!turn || turn.whole) return false
    make(turn)
    return true
  })

  const scramble = async () => {
    setDrawing(true)
    const seed = Math.floor(Math.random() * 1_000_000_000)
    const drawn = await coach().scramble(
      given.puzzleId,
      seed,
      callback(() => undefined),
    )
    setDrawing(false)
    const turns = drawn.ok ? readTurns(puzzle, drawn.value.turns) : drawn
    if (turns.ok) jump(turns.value)
    else toast.error(turns.problem.sentence)
  }

  const label = `${given.title}, taken apart${piece === undefined ? '' : `; ${puzzle.pieces[piece].kind} ${puzzle.pieces[piece].id} is touched`}`
  return (
    <div className="mx-auto flex w-full max-w-[90rem] grow flex-col gap-3 p-3 sm:px-5 lg:max-h-[calc(100dvh-2.9rem)]">
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
        <div className="min-w-0 grow">
          <h1 className="text-xl">{given.title}</h1>
          <p className="text-sm text-soft">
            {given.title === definition.name ? '' : `${definition.name}, `}
            {plural(puzzle.pieces.length, 'piece')}
          </p>
        </div>
        <Circles definition={definition} copyId={given.copyId} />
        {given.copyId && <LinkButton href={`/lay-out/${given.copyId}`}>Lay out</LinkButton>}
        <LinkButton weight="quiet" href="/anatomy">
          Other puzzles
        </LinkButton>
      </div>

      <div className="grid min-h-0 grow gap-3 lg:grid-cols-[1fr_25rem]">
        <div className="flex min-h-0 flex-col gap-3">
          {asked.problem && <Notice kind="wrong">{asked.problem}</Notice>}
          <div className="h-64 lg:h-auto lg:min-h-0 lg:grow lg:basis-3/5">
            <PuzzleWindows
              ref={windows}
              puzzle={puzzle}
              state={state}
              scheme={given.scheme}
              marks={settings.marks}
              lights={lights}
              apart={apart}
              raised={piece}
              label={label}
              onTurn={make}
              onTouch={setPiece}
            />
          </div>
          {kin && kinState && (
            <div className="relative h-44 lg:h-auto lg:min-h-0 lg:grow lg:basis-2/5">
              <PuzzleWindows
                ref={kinWindows}
                puzzle={kin}
                state={kinState}
                scheme={kinScheme(kin, given.scheme)}
                marks={settings.marks}
                lights={kinLights}
                apart={apart}
                raised={piece === undefined ? undefined : links[piece]}
                label="Its kin, the plain puzzle with the same mechanism, turned alike"
                onTurn={(turn) => {
                  const same = puzzle.turnByName.get(turn.name)
                  if (same) make(same)
                }}
                onTouch={(touched) => {
                  const at = links.indexOf(touched)
                  setPiece(touched === undefined || at < 0 ? undefined : at)
                }}
              />
              <p className="pointer-events-none absolute left-3 top-2 text-xs text-soft">kin</p>
            </div>
          )}
          <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
            <label className="flex items-center gap-2 text-sm">
              Apart
              <input
                type="range"
                min={0}
                max={100}
                value={Math.round(100 * apart)}
                aria-valuetext={`${Math.round(100 * apart)} percent`}
                onChange={(event) => setApart(Number(event.target.value) / 100)}
                className="w-32 accent-[var(--amber)]"
              />
            </label>
            <Button onClick={undo} disabled={history.length === 0}>
              <Undo2 size={16} aria-hidden /> Back
            </Button>
            <Button onClick={() => jump([])} disabled={history.length === 0}>
              Put together
            </Button>
            <Button onClick={() => void scramble()} disabled={drawing}>
              <Shuffle size={16} aria-hidden /> Scramble
            </Button>
            {layer !== undefined && (
              <span className="text-sm text-amber" role="status">
                Layer {layer}: now its letter.
              </span>
            )}
          </div>
          <TurnPad
            puzzle={puzzle}
            state={state}
            dialect={settings.writeDialect}
            onTurn={make}
            onPoint={setPointed}
          />
        </div>

        <div className="flex min-h-0 flex-col gap-3 lg:overflow-y-auto">
          <TurnWords
            puzzle={puzzle}
            state={state}
            turn={shownTurn}
            dialect={settings.writeDialect}
          />
          <PieceCard
            puzzle={puzzle}
            scheme={given.scheme}
            marks={settings.marks}
            state={state}
            piece={piece}
            dialect={settings.writeDialect}
          />
          <Kinds puzzle={puzzle} kinds={kinds} piece={piece} onChoose={setPiece} />
          <Standing puzzle={puzzle} state={state} dialect={settings.writeDialect} />
          <Counts key={given.puzzleId} puzzle={puzzle} />
        </div>
      </div>
    </div>
  )
}

/** The turns and the piece that the address names. */
function beginning(puzzle: Puzzle, { turns, piece }: AnatomyGiven) {
  const at = puzzle.pieces.findIndex(({ id }) => id === piece)
  const chosen = at < 0 ? undefined : at
  const read = readTurns(puzzle, turns)
  const made = read.ok ? turnAll(puzzle, start(puzzle), read.value) : read
  if (read.ok && made.ok) return { turns: read.value, piece: chosen }
  const problem = made.ok ? '' : made.problem.sentence
  return { turns: [], piece: chosen, problem: `The turns in the address are left out. ${problem}` }
}

function lightsFor(
  puzzle: Puzzle,
  state: State,
  piece: number | undefined,
  turn: Turn | undefined,
): Lights {
  if (turn) {
    const block = blockOf(puzzle, state, turn)
    if (!block) return { ...NOTHING, attend: carriedBy(puzzle, state, turn) }
    return { ...NOTHING, wrong: blockers(block), places: missing(block) }
  }
  if (piece === undefined) return NOTHING
  const { kind } = puzzle.pieces[piece]
  return {
    attend: puzzle.pieces.flatMap((other, p) => (other.kind === kind ? [p] : [])),
    safe: [],
    places: factsOf(puzzle, piece).slots,
  }
}

const blockers = (block: Block) => (block.kind === 'cuts' ? block.pieces : [])
const missing = (block: Block) => (block.kind === 'incomplete' ? block.places : [])

/** What a turn carries now, and how that would fit, before it is made; or why it is blocked. */
function TurnWords({
  puzzle,
  state,
  turn,
  dialect,
}: {
  puzzle: Puzzle
  state: State
  turn?: Turn
  dialect: DialectId
}) {
  if (!turn) return null
  const said = carryingSaid(puzzle, state, turn)
  return (
    <Notice kind={said.some(({ kind }) => kind === 'blocked') ? 'wrong' : 'attend'}>
      {sentencesOf(puzzle, said, { dialect })}
    </Notice>
  )
}

/** What is blocked now, and which pieces are turned in their places. */
function Standing({
  puzzle,
  state,
  dialect,
}: {
  puzzle: Puzzle
  state: State
  dialect: DialectId
}) {
  const rows = useMemo(
    () => sentencesOf(puzzle, standingSaid(puzzle, state), { dialect }),
    [dialect, puzzle, state],
  )
  if (rows.length === 0) return null
  return (
    <section aria-label="How it stands now">
      <h2 className="mb-1 text-base">Now</h2>
      <ul className="grid gap-1 text-sm">
        {rows.map((sentence) => (
          <li key={sentence}>{sentence}</li>
        ))}
      </ul>
    </section>
  )
}
