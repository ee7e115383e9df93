'use client'

import { Eraser, Undo2 } from 'lucide-react'
import { useEffect, useMemo, useRef, useState } from 'react'
import { judge, stickersOf, type Marked } from '@/core/copy/colours'
import { sideOpposite, sidesOf } from '@/core/analysis/sides'
import { colourIn, type Scheme } from '@/core/puzzle/colours'
import type { Puzzle } from '@/core/puzzle/compile'
import { posed, poseOf } from '@/core/puzzle/view'
import type { Vector } from '@/core/rotation'
import { Button } from '@/ui/Button'
import { classes } from '@/ui/classes'
import { Notice } from '@/ui/Notice'
import { Swatch } from '@/ui/Swatch'
import type { OnEntry } from './onEntry'
import { StickerBoard } from './StickerBoard'

/** The colours that are seen, marked sticker by sticker and judged at once. */
export function ByColours({
  puzzle,
  scheme,
  marks,
  onEntry,
}: {
  puzzle: Puzzle
  scheme: Scheme
  marks: boolean
  onEntry: OnEntry<Marked>
}) {
  const [steps, setSteps] = useState<readonly Marked[]>([{}])
  const [brush, setBrush] = useState(scheme[0].id)
  const [at, setAt] = useState(0)
  const board = useRef<HTMLDivElement>(null)
  const marked = steps[steps.length - 1]
  const stickers = useMemo(() => orderedStickers(puzzle), [puzzle])
  const judgement = useMemo(() => judge(puzzle, scheme, marked), [puzzle, scheme, marked])

  useEffect(() => {
    const { found, missing, problems } = judgement
    if (found) onEntry(marked)
    else if (problems.length > 0)
      onEntry(undefined, 'What is marked cannot be; what is wrong with it stands above.')
    else onEntry(undefined, `Mark every sticker first: ${missing} are left.`)
  }, [judgement, marked, onEntry])

  const put = (id: string, colour: string | undefined) => {
    const others = Object.entries(marked).filter(([other]) => other !== id)
    const own = colour === undefined ? [] : [[id, colour] as const]
    setSteps([...steps, Object.fromEntries([...others, ...own])])
  }
  const go = (index: number) => {
    const to = (index + stickers.length) % stickers.length
    setAt(to)
    board.current?.querySelector<HTMLElement>(`[data-sticker="${stickers[to].id}"]`)?.focus()
  }
  const onKey = (event: React.KeyboardEvent) => {
    const number = Number(event.key)
    const moves: Record<string, number> = {
      ArrowRight: 1,
      ArrowDown: 1,
      ArrowLeft: -1,
      ArrowUp: -1,
    }
    if (number >= 1 && number <= scheme.length) {
      put(stickers[at].id, scheme[number - 1].id)
      go(at + 1)
    } else if (event.key in moves) go(at + moves[event.key])
    else if (event.key === 'Backspace' || event.key === 'Delete') put(stickers[at].id, undefined)
    else if (event.key === 'Enter' || event.key === ' ') put(stickers[at].id, brush)
    else return
    event.preventDefault()
  }
  const wrong = new Set(judgement.problems.flatMap((problem) => problem.stickers))

  return (
    <div className="grid gap-4 md:grid-cols-[1fr_20rem]">
      <div
        ref={board}
        className="rounded-lg border border-line p-3"
        style={{ background: 'var(--glow)' }}
      >
        <StickerBoard
          puzzle={puzzle}
          scheme={scheme}
          marks={marks}
          marked={marked}
          current={stickers[at].id}
          wrong={wrong}
          onKeyDown={onKey}
          onFocus={(id) => setAt(stickers.findIndex((sticker) => sticker.id === id))}
          onPaint={(id) => put(id, marked[id] === brush ? undefined : brush)}
        />
        <div className="flex justify-around text-xs text-soft">
          <span>
            {hasOpposites(puzzle) ? 'seen from front, right and above' : 'as you hold it'}
          </span>
          <span>
            {hasOpposites(puzzle) ? 'seen from back, left and below' : 'from the other side'}
          </span>
        </div>
      </div>
      <div className="grid content-start gap-3">
        <fieldset>
          <legend className="mb-1 text-sm font-bold">Colour</legend>
          <div className="grid grid-cols-2 gap-2">
            {scheme.map((colour, i) => (
              <button
                key={colour.id}
                type="button"
                aria-pressed={brush === colour.id}
                onClick={() => setBrush(colour.id)}
                className={classes(
                  'flex min-h-11 items-center gap-2 rounded-md border bg-raised px-2 text-sm',
                  brush === colour.id ? 'border-amber' : 'border-line',
                )}
              >
                <Swatch colour={colour} marks={marks} />
                <span className="grow truncate text-left">{colour.name}</span>
                <span aria-hidden className="turns text-xs text-soft max-sm:hidden">
                  {i + 1}
                </span>
              </button>
            ))}
          </div>
        </fieldset>
        <p className="text-sm text-soft">
          Hold the puzzle any way you like and keep that hold. Choose a colour and touch its
          stickers, or go from sticker to sticker with the arrow keys and press the colour’s number.
        </p>
        <div className="flex gap-2">
          <Button onClick={() => setSteps(steps.slice(0, -1))} disabled={steps.length < 2}>
            <Undo2 size={16} aria-hidden /> Undo
          </Button>
          <Button
            weight="quiet"
            onClick={() => setSteps([...steps, {}])}
            disabled={Object.keys(marked).length === 0}
          >
            <Eraser size={16} aria-hidden /> Clear
          </Button>
        </div>
        <Verdict judgement={judgement} scheme={scheme} puzzle={puzzle} />
      </div>
    </div>
  )
}

function Verdict({
  judgement,
  scheme,
  puzzle,
}: {
  judgement: ReturnType<typeof judge>
  scheme: Scheme
  puzzle: Puzzle
}) {
  const { missing, problems, found } = judgement
  if (problems.length > 0)
    return (
      <div className="grid gap-2">
        {problems.slice(0, 3).map(({ sentence }) => (
          <Notice key={sentence} kind="wrong">
            {sentence}
          </Notice>
        ))}
      </div>
    )
  if (!found)
    return (
      <p role="status" className="text-sm">
        {missing === 1 ? 'One sticker is' : `${missing} stickers are`} still to mark.
      </p>
    )
  const oppositeOf = (face: 'up' | 'front' | 'right', other: 'down' | 'back' | 'left') =>
    [face, other]
      .map((side) => colourIn(found.scheme, puzzle.definition.faces[side]).name)
      .join(' opposite ')
  return (
    <Notice kind="safe">
      This is a state of your puzzle.
      {!found.isOwnScheme &&
        ` Its colours lie differently from what the shelf says${hasOpposites(puzzle) ? `: ${oppositeOf('up', 'down')}, ${oppositeOf('front', 'back')}, ${oppositeOf('right', 'left')}` : ''}. The copy will be changed to that.`}
      <span className="sr-only">{scheme.length} colours.</span>
    </Notice>
  )
}

/** Near window first, one side after another: the way the arrow keys go. */
function orderedStickers(puzzle: Puzzle) {
  const pose = poseOf(puzzle.definition)
  const isNear = (vector: Vector) => posed(pose, vector).reduce((sum, c) => sum + c, 0) > 0
  const sides = sidesOf(puzzle)
  return [...stickersOf(puzzle)].sort((a, b) => {
    const [near, far] = [a, b].map(({ side }) => isNear(sides.get(side) ?? side.vector))
    return near === far ? 0 : near ? -1 : 1
  })
}

/** Whether every side has one across from it, as a cube has. */
const hasOpposites = (puzzle: Puzzle): boolean =>
  [...sidesOf(puzzle).keys()].every((side) => sideOpposite(puzzle, side))
