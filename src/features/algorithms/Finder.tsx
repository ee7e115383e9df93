'use client'

import { Pause, Play, Square, X } from 'lucide-react'
import { useEffect, useMemo, useRef, useState } from 'react'
import { toast } from 'sonner'
import { doingOf } from '@/core/algorithms/does'
import { MOST_TURNS } from '@/core/algorithms/find'
import { followedBy, undoing } from '@/core/algorithms/moves'
import {
  completed,
  NO_WISH,
  readWish,
  waysInto,
  wishOf,
  writeWish,
  type Completed,
  type Wish,
} from '@/core/algorithms/wish'
import { handReachOf } from '@/core/analysis/placements'
import { stateMade } from '@/core/analysis/effect'
import { layersOf } from '@/core/analysis/layers'
import { placeNamesOf } from '@/core/analysis/placeNames'
import { who } from '@/core/analysis/who'
import { puzzleById } from '@/core/catalog'
import { readTurns } from '@/core/notation/read'
import { writeTurnName } from '@/core/notation/write'
import { NO_PLACE, type Puzzle } from '@/core/puzzle/compile'
import { must, type Result } from '@/core/result'
import type { Settings } from '@/core/settings'
import { start } from '@/core/state'
import { capital, plural } from '@/core/phrases'
import { Button } from '@/ui/Button'
import { Choice } from '@/ui/Field'
import { IconButton } from '@/ui/IconButton'
import { Notice } from '@/ui/Notice'
import { PuzzlePicture } from '@/ui/puzzle-picture/PuzzlePicture'
import type { Guide } from '@/ui/puzzle-view/overlay'
import type { Lights } from '@/ui/puzzle-view/PuzzleScene'
import { PuzzleWindows } from '@/ui/puzzle-view/PuzzleWindows'
import { ShareBar } from '@/ui/ShareBar'
import { callback, coach } from '@/workers/coach'
import type { Finding, FoundWay } from '@/workers/algorithmWork'
import { TurnsField, useTyped } from '@/ui/TurnsField'
import { FoundSequence } from './FoundSequence'
import { RoomHead } from './RoomHead'

/** More driven pieces than these are only counted. */
const MOST_DRIVEN = 4

const LONGEST = Array.from({ length: MOST_TURNS }, (_, i) => `${i + 1}`)
const SECONDS = ['10', '30', '60', '300']

/** Say what must happen by touching pieces and places: the fewest turns that do it, or why none do. */
export function Finder({
  puzzleId,
  asked,
  like,
  settings,
}: {
  puzzleId: string
  /** A wish, as it stands in the address. */
  asked: string
  /** Turns, canonical, whose effect is wished. */
  like: string
  settings: Settings
}) {
  const puzzle = must(puzzleById(puzzleId))
  const given = useMemo(() => beginning(puzzle, asked, like), [puzzle, asked, like])
  const [wish, setWish] = useState<Wish>(given.ok ? given.value : NO_WISH)
  const [picked, setPicked] = useState<number>()
  const typing = useTyped(puzzle, { settings, puzzleId })
  const beforeTyping = useTyped(puzzle, { settings, puzzleId })
  const [layers, setLayers] = useState<ReadonlySet<string>>()
  const [most, setMost] = useState('14')
  const [seconds, setSeconds] = useState('30')
  const [isExact, setExact] = useState(false)
  const search = useSearch()
  const whole = useMemo(() => completed(puzzle, wish), [puzzle, wish])
  const all = useMemo(() => layersOf(puzzle).map((grip) => puzzle.grips[grip].name), [puzzle])
  const isNothing = wish.goes.size === 0

  useEffect(() => {
    const query = isNothing ? '' : `?${new URLSearchParams({ wish: writeWish(puzzle, wish) })}`
    window.history.replaceState(null, '', window.location.pathname + query)
  }, [isNothing, puzzle, wish])

  const change = (next: Wish) => {
    setWish(next)
    search.clear()
  }
  const goes = (piece: number, rotation: number | undefined) => {
    const next = new Map(wish.goes)
    if (rotation === undefined) next.delete(piece)
    else next.set(piece, rotation)
    const free = new Set(wish.free)
    free.delete(piece)
    change({ ...wish, goes: next, free })
  }
  const touch = (touched: number | undefined) => {
    if (touched === undefined) return setPicked(undefined)
    if (picked === undefined) return setPicked(touched)
    const ways = waysInto(puzzle, picked, touched)
    // A piece that is touched again is turned in its place, as far as it can be.
    const way = picked === touched ? ways.find((r) => r !== 0) : ways[0]
    if (way !== undefined) goes(picked, way)
    setPicked(way === undefined && picked !== touched ? touched : undefined)
  }
  const { lights, guide } = useMemo(() => drawn(puzzle, wish, picked), [puzzle, wish, picked])

  return (
    <div className="mx-auto flex w-full max-w-[90rem] grow flex-col gap-3 p-3 sm:px-5">
      <RoomHead
        puzzleId={puzzleId}
        title={`Find by what it must do: ${puzzle.definition.name}`}
        about="Touch a piece, then the place to which it goes. Touch it twice to turn it where it is."
      />
      {!given.ok && <Notice kind="wrong">The address is left out. {given.problem.sentence}</Notice>}
      <div className="grid grow content-start gap-4 lg:grid-cols-[1fr_26rem]">
        <div className="grid content-start gap-3">
          <div className="h-64 lg:h-[21rem]">
            <PuzzleWindows
              puzzle={puzzle}
              state={start(puzzle)}
              scheme={puzzle.definition.colours}
              marks={settings.marks}
              lights={lights}
              guide={guide}
              {...(picked === undefined ? {} : { raised: picked })}
              label={`${puzzle.definition.name}, ${picked === undefined ? 'no piece is picked' : `${who(puzzle, puzzle.definition.colours, picked)} is picked`}`}
              onTouch={touch}
            />
          </div>
          <ByNames puzzle={puzzle} picked={picked} onPick={setPicked} onTouch={touch} />
          <Found {...{ puzzle, puzzleId, settings }} search={search} most={Number(most)} />
          <details className="rounded-lg border border-line bg-surface px-4 py-2 text-sm">
            <summary className="cursor-pointer">
              Or the same as a sequence does, or what leads from one position to another
            </summary>
            <form
              className="mt-2 grid gap-2"
              onSubmit={(event) => {
                event.preventDefault()
                const [before, after] = [beforeTyping, typing].map(({ typed }) =>
                  stateMade(puzzle, must(readTurns(puzzle, typed.turns))),
                )
                if (!before.ok) return void toast.error(before.problem.sentence)
                if (!after.ok) return void toast.error(after.problem.sentence)
                const back = undoing(puzzle, before.value)
                change(wishOf(puzzle, followedBy(puzzle, back, after.value)))
              }}
            >
              <TurnsField label="The sequence, or what makes the position after" typing={typing} />
              <TurnsField
                label="What makes the position before"
                typing={beforeTyping}
                hint="Turns from the finished puzzle; none if it is finished before."
              />
              <Button
                type="submit"
                disabled={!typing.typed.turns && !beforeTyping.typed.turns}
                className="justify-self-start"
              >
                Wish what it does
              </Button>
            </form>
          </details>
        </div>
        <div className="grid content-start gap-3">
          <section
            aria-label="What should move"
            className="grid grid-cols-[minmax(0,1fr)] gap-2 rounded-lg border border-line bg-surface px-4 py-3 text-sm"
          >
            <h2 className="text-base">What should move</h2>
            {isNothing && wish.free.size === 0 && <p className="text-soft">Nothing yet.</p>}
            <Wishes
              puzzle={puzzle}
              wish={wish}
              onGoes={goes}
              onFree={(piece) => {
                const free = new Set(wish.free)
                if (!free.delete(piece)) free.add(piece)
                const next = new Map(wish.goes)
                next.delete(piece)
                change({ ...wish, goes: next, free })
              }}
              picked={picked}
            />
            <Choice
              label="All the rest"
              options={[
                { value: 'stays', name: 'stays as it is' },
                { value: 'free', name: 'may do as it likes' },
              ]}
              value={wish.rest}
              onChange={(event) => change({ ...wish, rest: event.target.value as Wish['rest'] })}
            />
            {!isNothing && !whole.ok && <Notice kind="wrong">{whole.problem.sentence}</Notice>}
            {!isNothing && whole.ok && whole.value.driven.length > 0 && (
              <p className="text-soft">{drivenWords(puzzle, whole.value)}</p>
            )}
            {!isNothing && whole.ok && (
              <PuzzlePicture
                puzzle={puzzle}
                state={whole.value.position}
                scheme={puzzle.definition.colours}
                marks={settings.marks}
                only={whole.value.pieces}
                label="As the finished puzzle shall look afterwards; what may do as it likes is left out."
                className="mx-auto w-full max-w-60"
              />
            )}
            {!isNothing && (
              <Button weight="quiet" className="justify-self-start" onClick={() => change(NO_WISH)}>
                Begin anew
              </Button>
            )}
          </section>
          <section
            aria-label="How to look"
            className="grid grid-cols-[minmax(0,1fr)] gap-2 rounded-lg border border-line bg-surface px-4 py-3 text-sm"
          >
            <fieldset>
              <legend className="mb-1">Layers that may turn</legend>
              <div className="flex flex-wrap gap-x-3 gap-y-1">
                {all.map((name) => (
                  <label key={name} className="flex min-h-8 items-center gap-1">
                    <input
                      type="checkbox"
                      className="size-4 accent-[var(--amber)]"
                      checked={layers?.has(name) ?? true}
                      onChange={() => {
                        const next = new Set(layers ?? all)
                        if (!next.delete(name)) next.add(name)
                        setLayers(next.size === all.length ? undefined : next)
                        search.clear()
                      }}
                    />
                    <span className="turns">{writeTurnName(name, settings.writeDialect)}</span>
                  </label>
                ))}
              </div>
            </fieldset>
            <label className="flex min-h-8 items-center gap-2">
              <input
                type="checkbox"
                className="size-4 shrink-0 accent-[var(--amber)]"
                checked={isExact}
                onChange={() => {
                  setExact(!isExact)
                  search.clear()
                }}
              />
              What does not show must be right too: equal pieces, centres turned unseen
            </label>
            <div className="grid grid-cols-2 gap-2">
              <Choice
                label="Turns at most"
                options={LONGEST.map((value) => ({ value, name: value }))}
                value={most}
                onChange={(event) => setMost(event.target.value)}
              />
              <Choice
                label="Seconds"
                options={SECONDS.map((value) => ({ value, name: value }))}
                value={seconds}
                onChange={(event) => setSeconds(event.target.value)}
              />
            </div>
            <div className="flex flex-wrap items-center gap-2">
              {search.share === undefined ? (
                <Button
                  weight="attend"
                  disabled={isNothing || !whole.ok || layers?.size === 0}
                  onClick={() =>
                    void search.begin({
                      puzzleId,
                      wish: writeWish(puzzle, wish),
                      isExact,
                      ...(layers ? { layers: [...layers] } : {}),
                      most: Number(most),
                      seconds: Number(seconds),
                      hand: settings.hand,
                      scheme: puzzle.definition.colours,
                    })
                  }
                >
                  Find
                </Button>
              ) : (
                <>
                  <ShareBar share={search.share} label="Time spent" />
                  <Button onClick={search.wait}>
                    {search.waits ? (
                      <Play size={16} aria-hidden />
                    ) : (
                      <Pause size={16} aria-hidden />
                    )}
                    {search.waits ? 'Go on' : 'Wait'}
                  </Button>
                  <Button onClick={search.stop}>
                    <Square size={16} aria-hidden /> Stop
                  </Button>
                </>
              )}
            </div>
          </section>
        </div>
      </div>
    </div>
  )
}

function beginning(puzzle: Puzzle, asked: string, like: string): Result<Wish> {
  if (like === '') return readWish(puzzle, asked)
  const turns = readTurns(puzzle, like)
  if (!turns.ok) return turns
  const made = stateMade(puzzle, turns.value)
  return made.ok ? { ok: true, value: wishOf(puzzle, made.value) } : made
}

/** What is lit and pointed at: the piece that is picked with the places that it can go to, and every wish. */
function drawn(
  puzzle: Puzzle,
  { goes, free }: Wish,
  picked: number | undefined,
): { lights: Lights; guide: Guide } {
  const reach =
    picked === undefined
      ? []
      : [...new Set(handReachOf(puzzle)[picked].map((r) => puzzle.place[24 * picked + r]))]
  return {
    lights: {
      attend: picked === undefined ? [...goes.keys()] : [picked],
      safe: [],
      wrong: picked === undefined ? [...free] : [],
      places: reach.filter((place) => place !== NO_PLACE && place !== picked),
    },
    guide: {
      numbered: [],
      arrows: [...goes].flatMap(([piece, rotation]) =>
        puzzle.place[24 * piece + rotation] === piece
          ? []
          : [{ from: { piece, rotation: 0 }, to: { piece, rotation } }],
      ),
    },
  }
}

/** The same by names, for who does not point. */
function ByNames({
  puzzle,
  picked,
  onPick,
  onTouch,
}: {
  puzzle: Puzzle
  picked: number | undefined
  onPick: (piece: number | undefined) => void
  onTouch: (piece: number | undefined) => void
}) {
  const { names } = placeNamesOf(puzzle, 0)
  const shown = puzzle.pieces.flatMap(({ faces }, p) => (faces.length > 0 ? [p] : []))
  const places =
    picked === undefined
      ? []
      : shown.filter((place) =>
          waysInto(puzzle, picked, place).some((r) => place !== picked || r !== 0),
        )
  return (
    <div className="grid gap-2 sm:grid-cols-2">
      <Choice
        label="The piece"
        options={[
          { value: '', name: 'none is picked' },
          ...shown.map((p) => ({
            value: `${p}`,
            name: `${capital(who(puzzle, puzzle.definition.colours, p))}, at ${names[p]}`,
          })),
        ]}
        value={picked === undefined ? '' : `${picked}`}
        onChange={(event) =>
          onPick(event.target.value === '' ? undefined : Number(event.target.value))
        }
      />
      <Choice
        label="It goes to"
        disabled={picked === undefined}
        options={[
          { value: '', name: 'choose a place' },
          ...places.map((place) => ({
            value: `${place}`,
            name: place === picked ? 'its own place, turned there' : names[place],
          })),
        ]}
        value=""
        onChange={(event) => event.target.value !== '' && onTouch(Number(event.target.value))}
      />
    </div>
  )
}

function Wishes({
  puzzle,
  wish: { goes, free },
  picked,
  onGoes,
  onFree,
}: {
  puzzle: Puzzle
  wish: Wish
  picked: number | undefined
  onGoes: (piece: number, rotation: number | undefined) => void
  onFree: (piece: number) => void
}) {
  const { names } = placeNamesOf(puzzle, 0)
  const name = (p: number) => who(puzzle, puzzle.definition.colours, p)
  return (
    <ul aria-label="Wishes" className="grid max-h-56 gap-1 overflow-y-auto">
      {[...goes].map(([piece, rotation]) => {
        const place = puzzle.place[24 * piece + rotation]
        const ways = waysInto(puzzle, piece, place).filter((r) => place !== piece || r !== 0)
        return (
          <li key={piece} className="flex items-center gap-2">
            <span className="grow">
              {capital(name(piece))}{' '}
              {place === piece ? 'is turned in its place' : `goes to ${names[place]}`}
            </span>
            {ways.length > 1 && (
              <Button
                onClick={() => onGoes(piece, ways[(ways.indexOf(rotation) + 1) % ways.length])}
                aria-label={`Turn ${name(piece)} there`}
              >
                Turn it there
              </Button>
            )}
            <IconButton
              title="Take back"
              label={`Take back: ${name(piece)}`}
              onClick={() => onGoes(piece, undefined)}
            >
              <X size={16} aria-hidden />
            </IconButton>
          </li>
        )
      })}
      {[...free].map((piece) => (
        <li key={piece} className="flex items-center gap-2">
          <span className="grow">{capital(name(piece))} may do as it likes</span>
          <IconButton
            title="Take back"
            label={`Take back: ${name(piece)}`}
            onClick={() => onFree(piece)}
          >
            <X size={16} aria-hidden />
          </IconButton>
        </li>
      ))}
      {picked !== undefined && !free.has(picked) && (
        <li>
          <Button className="py-1 text-left whitespace-normal" onClick={() => onFree(picked)}>
            {capital(name(picked))} may do as it likes
          </Button>
        </li>
      )}
    </ul>
  )
}

interface Search {
  /** Of the time that is given; undefined while nothing is looked for. */
  readonly share?: number
  readonly waits: boolean
  readonly first?: FoundWay
  readonly result?: Result<Finding>
  readonly begin: (request: Parameters<ReturnType<typeof coach>['find']>[0]) => Promise<void>
  readonly stop: () => void
  readonly wait: () => void
  readonly clear: () => void
}

function useSearch(): Search {
  const [share, setShare] = useState<number>()
  const [waits, setWaits] = useState(false)
  const [first, setFirst] = useState<FoundWay>()
  const [result, setResult] = useState<Result<Finding>>()
  const isAtWork = useRef(false)
  // Counted up with every search, and when what is wished has changed: what comes late is let go.
  const latest = useRef(0)
  // Nothing goes on behind a page that was left.
  useEffect(
    () => () => {
      if (isAtWork.current) void coach().stopFinding()
    },
    [],
  )
  return {
    ...(share === undefined ? {} : { share }),
    waits,
    ...(first ? { first } : {}),
    ...(result ? { result } : {}),
    begin: async (request) => {
      const own = ++latest.current
      const isLate = () => own !== latest.current
      setFirst(undefined)
      setResult(undefined)
      setWaits(false)
      setShare(0)
      isAtWork.current = true
      const found = await coach().find(
        request,
        callback((way: FoundWay) => !isLate() && setFirst(way)),
        callback((done: number) => {
          // What is told on the way can arrive after the answer.
          if (!isLate()) setShare((now) => (now === undefined ? now : done))
        }),
      )
      if (isLate()) return
      isAtWork.current = false
      setShare(undefined)
      setResult(found)
    },
    stop: () => void coach().stopFinding(),
    wait: () => {
      setWaits(!waits)
      void coach().waitFinding(!waits)
    },
    clear: () => {
      if (share !== undefined) void coach().stopFinding()
      latest.current++
      isAtWork.current = false
      setShare(undefined)
      setFirst(undefined)
      setResult(undefined)
    },
  }
}

function Found({
  puzzle,
  puzzleId,
  settings,
  search: { first, result, share },
  most,
}: {
  puzzle: Puzzle
  puzzleId: string
  settings: Settings
  search: Search
  most: number
}) {
  if (result && !result.ok) return <Notice kind="wrong">{result.problem.sentence}</Notice>
  const ways = result?.ok ? result.value.ways : []
  const shown = ways.length > 0 ? ways : first ? [first] : []
  if (!result && shown.length === 0) return null
  return (
    <section aria-label="Ways" className="grid gap-2" aria-live="polite">
      <p className="text-sm">
        {ways.length > 0
          ? `${capital(plural(ways.length, 'way'))} of ${plural(ways[0].turnCount, 'turn')}, the fewest that end in the same hold: all shorter rows were gone through.`
          : result?.ok
            ? noneWords(result.value, most)
            : 'One at once, and better ones as they are found; whether any has fewer turns is being looked for.'}
      </p>
      <ol className="grid max-h-44 gap-2 overflow-y-auto">
        {shown.map((way) => (
          <FoundSequence
            key={way.turns}
            {...{ puzzle, puzzleId }}
            turns={way.turns}
            dialect={settings.writeDialect}
          >
            {plural(way.turnCount, 'turn')}, {way.quarterCount} in quarters, {way.cost.toFixed(1)}{' '}
            in the hand{unseenWords(puzzle, way.turns)}
          </FoundSequence>
        ))}
      </ol>
      {share !== undefined && <p className="text-sm text-soft">Still looking.</p>}
    </section>
  )
}

/** Pieces whose places were given away, as far as they are few. */
function drivenWords(puzzle: Puzzle, { driven, position }: Completed): string {
  if (driven.length > MOST_DRIVEN)
    return `${capital(plural(driven.length, 'piece'))} are driven from their places and go where room is left.`
  const { names } = placeNamesOf(puzzle, 0)
  const told = driven.map(
    (p) =>
      `${who(puzzle, puzzle.definition.colours, p)} to ${names[puzzle.place[24 * p + position[p]]]}`,
  )
  return `Driven from their places, they go where room is left: ${told.join('; ')}.`
}

/** Up to where it is proven that there is none. */
function noneWords({ none, isOver }: Finding, most: number): string {
  const over = isOver && none < most
  if (none === 0) return over ? 'The time was over before anything was proven.' : 'None was found.'
  const proven = `No row of up to ${plural(none, 'turn')} does it.`
  if (!over) return proven
  return `${proven} Then the time was over.`
}

/** ', turns 2 pieces unseen' */
function unseenWords(puzzle: Puzzle, turns: string): string {
  const doing = doingOf(puzzle, must(readTurns(puzzle, turns)))
  if (!doing.ok) return ''
  const { state, turned } = doing.value
  const unseen = turned.filter((p) => puzzle.look[24 * p + state[p]] === puzzle.look[24 * p])
  return unseen.length === 0 ? '' : `, ${plural(unseen.length, 'piece')} turned unseen`
}
