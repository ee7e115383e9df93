'use client'

import { type Ref, useEffect, useImperativeHandle, useMemo, useRef, useState } from 'react'
import type { Scheme } from '@/core/puzzle/colours'
import type { Puzzle, Turn } from '@/core/puzzle/compile'
import type { State } from '@/core/state'
import { WINDOW_NAMES, WINDOW_WORDS, type WindowName } from '../camera'
import { useThemeColours } from '../useThemeColours'
import { classes } from '../classes'
import { PuzzlePicture } from '../puzzle-picture/PuzzlePicture'
import { NO_GUIDE, overlaysOf, type Guide, type Overlay } from './overlay'
import { OverlayDrawing } from './OverlayDrawing'
import type { Hit, Lights, PuzzleScene } from './PuzzleScene'

export interface PuzzleWindowsHandle {
  /** Plays a turn; resolves at rest. */
  play(turn: Turn, from: State, to: State, milliseconds: number): Promise<void>
}

/** Drags shorter than this, in pixels, are touches. */
const DRAG_START = 10

/**
 * The pair of windows. The drawing part is loaded after the first paint; until then the flat picture
 * stands in its place. Dragging a piece turns its layer, dragging beside the puzzle peeks around it.
 */
export function PuzzleWindows({
  ref,
  puzzle,
  state,
  scheme,
  marks,
  lights,
  guide = NO_GUIDE,
  swapped = false,
  apart = 0,
  raised,
  shown,
  label,
  onTurn,
  onTouch,
  onTouchSlot,
}: {
  ref?: Ref<PuzzleWindowsHandle>
  puzzle: Puzzle
  state: State
  scheme: Scheme
  marks: boolean
  lights: Lights
  /** Numbers, arrows and the next turn, drawn over the windows. */
  guide?: Guide
  swapped?: boolean
  /** How far the pieces are pulled outward, 0 to 1. */
  apart?: number
  /** Pieces to draw, and homes to draw blank; all pieces and no blanks if not given. */
  shown?: { readonly pieces: ReadonlySet<number>; readonly blanks: ReadonlySet<number> }
  /** A piece that stands out a little. */
  raised?: number
  label: string
  onTurn?: (turn: Turn) => void
  /** A piece was touched and not dragged; undefined beside the puzzle. */
  onTouch?: (piece: number | undefined) => void
  /** The same by the slot: of a piece, or of a home that is drawn blank. */
  onTouchSlot?: (slot: number | undefined) => void
}) {
  const frame = useRef<HTMLDivElement>(null)
  const canvas = useRef<HTMLCanvasElement>(null)
  const scene = useRef<PuzzleScene>(undefined)
  const playing = useRef(false)
  const [ready, setReady] = useState(false)
  const [failed, setFailed] = useState(false)
  const [peeking, setPeeking] = useState(false)
  const [size, setSize] = useState('')
  const [moving, setMoving] = useState(false)
  const [overlays, setOverlays] = useState<readonly Overlay[]>([])
  const theme = useThemeColours()
  const tones = useMemo(
    () => theme && { attend: theme.amber, safe: theme.teal, wrong: theme.rose },
    [theme],
  )
  const now = { state, scheme, marks, lights, swapped, apart, raised, shown, puzzle, tones }
  const latest = useRef(now)
  // Directions have their usual names only where the puzzle is held upright.
  const isPosed = puzzle.definition.view !== undefined

  useEffect(() => {
    latest.current = now
  })

  useEffect(() => {
    let gone = false
    let observer: ResizeObserver | undefined
    void import('./PuzzleScene').then((loaded) => {
      if (gone || !canvas.current || !frame.current) return
      const now = latest.current
      let made: PuzzleScene
      try {
        made = new loaded.PuzzleScene(canvas.current, now.puzzle, now.scheme, now.marks)
      } catch {
        // No WebGL here: the flat picture stays, and says so.
        setFailed(true)
        return
      }
      scene.current = made
      if (now.tones) made.tint(now.tones)
      made.swap(now.swapped)
      made.takeApart(now.apart)
      made.raise(now.raised)
      if (now.shown) made.showOnly(now.shown.pieces, now.shown.blanks)
      made.show(now.state)
      made.light(now.lights)
      observer = new ResizeObserver(([entry]) => {
        made.resize(entry.contentRect.width, entry.contentRect.height)
        setSize(`${entry.contentRect.width} ${entry.contentRect.height}`)
      })
      observer.observe(frame.current)
      setReady(true)
    })
    return () => {
      gone = true
      observer?.disconnect()
      scene.current?.dispose()
      scene.current = undefined
    }
  }, [puzzle])

  useEffect(() => {
    if (!playing.current) scene.current?.show(state)
  }, [state])
  useEffect(() => scene.current?.light(lights), [lights])
  useEffect(() => {
    if (tones) scene.current?.tint(tones)
  }, [tones])
  useEffect(() => scene.current?.paint(scheme, marks), [scheme, marks])
  useEffect(() => scene.current?.swap(swapped), [swapped])
  useEffect(() => scene.current?.takeApart(apart), [apart])
  useEffect(() => scene.current?.raise(raised), [raised])
  useEffect(() => {
    if (shown) scene.current?.showOnly(shown.pieces, shown.blanks)
  }, [shown])
  useEffect(() => {
    const made = scene.current
    if (!made || !ready) return
    setOverlays(
      overlaysOf(
        puzzle,
        state,
        guide,
        WINDOW_NAMES.map((name) => made.eye(name)),
      ),
    )
  }, [apart, guide, puzzle, ready, size, state, swapped])

  useImperativeHandle(ref, () => ({
    async play(turn, from, to, milliseconds) {
      if (!scene.current) return
      playing.current = true
      setMoving(true)
      try {
        await scene.current.play(turn, from, to, milliseconds)
      } finally {
        playing.current = false
        setMoving(false)
      }
    },
  }))

  const drag = useDrag({ scene, latest, onTurn, onTouch, onTouchSlot, setPeeking })

  return (
    <div
      ref={frame}
      className="relative h-full min-h-40 w-full overflow-hidden rounded-lg border border-line"
      style={{ background: 'var(--glow)' }}
    >
      <canvas
        ref={canvas}
        role="img"
        aria-label={label}
        data-ready={ready || undefined}
        className={classes(
          'absolute inset-0 size-full touch-none',
          !ready && 'opacity-0',
          onTurn && 'cursor-grab',
        )}
        {...drag}
      />
      {!ready && (
        <PuzzlePicture
          puzzle={puzzle}
          state={state}
          scheme={scheme}
          marks={marks}
          only={shown && [...shown.pieces]}
          label=""
          className="absolute inset-[6%] m-auto h-[88%] w-[88%]"
        />
      )}
      {failed && (
        <p className="absolute inset-x-0 bottom-0 bg-surface/90 p-2 text-sm">
          This browser cannot draw in space, so the picture is flat. Keys and buttons work as usual.
        </p>
      )}
      {WINDOW_NAMES.map((name) => (
        <Rim key={name} name={name} swapped={swapped} words={!isPosed} hidden={peeking} />
      ))}
      {!peeking && <OverlayDrawing overlays={overlays} isMoving={moving} />}
    </div>
  )
}

const RIM: Readonly<Record<WindowName, readonly (readonly [string, string])[]>> = {
  near: [
    ['top', 'left-1/2 top-1.5 -translate-x-1/2'],
    ['front', 'bottom-1.5 left-[16%]'],
    ['right', 'bottom-1.5 right-[14%]'],
  ],
  far: [
    ['back', 'left-[14%] top-1.5'],
    ['left', 'right-[16%] top-1.5'],
    ['bottom', 'bottom-1.5 left-1/2 -translate-x-1/2'],
  ],
}

/** The names of the directions at the rim of a window. */
function Rim({
  name,
  swapped,
  words,
  hidden,
}: {
  name: WindowName
  swapped: boolean
  words: boolean
  hidden: boolean
}) {
  const isFirst = (name === 'near') !== swapped
  return (
    <div
      className={classes(
        'pointer-events-none absolute inset-y-0 text-xs text-soft transition-opacity',
        hidden && 'opacity-0',
        isFirst
          ? 'left-0 w-[60%] min-[560px]:w-1/2'
          : 'right-0 w-[40%] border-l border-line min-[560px]:w-1/2',
      )}
    >
      <span className="sr-only">{WINDOW_WORDS[name]}</span>
      {(words ? RIM[name] : []).map(([word, at]) => (
        <span key={word} aria-hidden className={classes('absolute', at)}>
          {word}
        </span>
      ))}
    </div>
  )
}

interface DragParts {
  scene: React.RefObject<PuzzleScene | undefined>
  latest: React.RefObject<{ state: State }>
  onTurn?: (turn: Turn) => void
  onTouch?: (piece: number | undefined) => void
  onTouchSlot?: (slot: number | undefined) => void
  setPeeking: (peeking: boolean) => void
}

function useDrag({ scene, latest, onTurn, onTouch, onTouchSlot, setPeeking }: DragParts) {
  const held = useRef<{ x: number; y: number; hit?: Hit; spent: boolean }>(undefined)
  const at = (event: React.PointerEvent) => {
    const box = event.currentTarget.getBoundingClientRect()
    return [event.clientX - box.left, event.clientY - box.top] as const
  }
  const touch = (event: React.PointerEvent) => {
    const now = held.current
    if (!now || now.spent) return
    const [x, y] = at(event)
    if (Math.hypot(x - now.x, y - now.y) >= DRAG_START) return
    onTouch?.(now.hit?.piece)
    onTouchSlot?.(scene.current?.slotAt(x, y))
  }
  const letGo = () => {
    if (held.current && !held.current.hit) scene.current?.peek(0, 0)
    held.current = undefined
    setPeeking(false)
  }
  return {
    onPointerDown(event: React.PointerEvent) {
      const [x, y] = at(event)
      event.currentTarget.setPointerCapture(event.pointerId)
      const hit = onTurn || onTouch ? scene.current?.hit(x, y) : undefined
      held.current = { x, y, hit, spent: false }
      if (!hit) setPeeking(true)
    },
    onPointerMove(event: React.PointerEvent) {
      const now = held.current
      if (!now || now.spent || !scene.current) return
      const [x, y] = at(event)
      const moved = [x - now.x, y - now.y] as const
      if (!now.hit) {
        scene.current.peek(moved[0] * 0.008, moved[1] * 0.008)
        return
      }
      if (Math.hypot(...moved) < DRAG_START) return
      now.spent = true
      const turn = scene.current.turnFor(latest.current.state, now.hit, moved)
      if (turn) onTurn?.(turn)
    },
    onPointerUp(event: React.PointerEvent) {
      touch(event)
      letGo()
    },
    onPointerCancel: letGo,
  }
}
