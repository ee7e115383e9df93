'use client'

import { Pause, Play, SkipBack, StepBack, StepForward } from 'lucide-react'
import type { DialectId } from '@/core/notation/dialect'
import { writeTurnName } from '@/core/notation/write'
import type { Scheme } from '@/core/puzzle/colours'
import { whyBlocked } from '@/core/words/whyBlocked'
import type { Puzzle } from '@/core/puzzle/compile'
import { Button } from '@/ui/Button'
import { classes } from '@/ui/classes'
import { TurnPicture } from '@/ui/puzzle-picture/TurnPicture'
import { NO_GUIDE, type Guide } from '@/ui/puzzle-view/overlay'
import type { Lights } from '@/ui/puzzle-view/PuzzleScene'
import { PuzzleWindows } from '@/ui/puzzle-view/PuzzleWindows'
import type { Played } from './useSequence'

const NO_LIGHTS: Lights = { attend: [], safe: [], places: [] }

/** The windows with a sequence on them: its turns as buttons, and what plays it. */
export function Player({
  puzzle,
  scheme,
  marks,
  dialect,
  played,
  lights = NO_LIGHTS,
  guide = NO_GUIDE,
  label,
  listLabel = 'Turns',
  height = 'h-64 lg:h-auto lg:min-h-0 lg:grow',
  speed,
  onSpeed,
}: {
  puzzle: Puzzle
  scheme: Scheme
  marks: boolean
  dialect: DialectId
  played: Played
  lights?: Lights
  guide?: Guide
  label: string
  listLabel?: string
  /** Classes that give the windows their height. */
  height?: string
  /** Milliseconds a turn. */
  speed: number
  onSpeed: (milliseconds: number) => void
}) {
  const { windows, turns, states, position, isPlaying, blocked, step, jump, play, pause } = played
  const next = turns[position]
  return (
    <div className="flex min-h-0 flex-col gap-2">
      <div className={height}>
        <PuzzleWindows
          ref={windows}
          puzzle={puzzle}
          state={states[position]}
          scheme={scheme}
          marks={marks}
          lights={lights}
          guide={guide}
          label={`${label}, after ${position} of ${turns.length} turns`}
        />
      </div>
      <ol aria-label={listLabel} className="flex flex-wrap gap-1">
        {turns.map((turn, i) => (
          <li key={i}>
            <button
              type="button"
              aria-label={`To before turn ${i + 1}, ${turn.name}`}
              aria-current={i === position ? 'step' : undefined}
              onClick={() => jump(i)}
              className={classes(
                'turns min-h-9 min-w-9 rounded border px-1.5',
                i === position ? 'border-amber text-amber' : 'border-line',
                i < position && 'text-soft',
              )}
            >
              {dialect === 'arrows' ? (
                <TurnPicture puzzle={puzzle} turn={turn} className="w-24" />
              ) : (
                writeTurnName(turn.name, dialect)
              )}
            </button>
          </li>
        ))}
      </ol>
      {blocked && (
        <p className="text-sm text-rose">
          It stops here.{' '}
          {whyBlocked(puzzle, states[states.length - 1], blocked, { scheme, dialect })}
        </p>
      )}
      <div className="flex flex-wrap items-center gap-2">
        <Button onClick={() => jump(0)} disabled={position === 0} aria-label="To the start">
          <SkipBack size={16} aria-hidden />
        </Button>
        <Button onClick={() => step(-1)} disabled={position === 0}>
          <StepBack size={16} aria-hidden /> Back
        </Button>
        <Button onClick={() => step(1)} disabled={!next}>
          <StepForward size={16} aria-hidden />{' '}
          {next ? `Turn ${writeTurnName(next.name, dialect)}` : 'At the end'}
        </Button>
        <Button
          weight="attend"
          onClick={isPlaying ? pause : play}
          disabled={turns.length === 0}
          className="min-w-24"
        >
          {isPlaying ? <Pause size={16} aria-hidden /> : <Play size={16} aria-hidden />}
          {isPlaying ? 'Pause' : position === turns.length ? 'Again' : 'Play'}
        </Button>
        <span className="text-sm text-soft">
          {position} of {turns.length}
        </span>
        <label className="flex items-center gap-2 text-sm text-soft">
          Slower
          <input
            type="range"
            min={100}
            max={1500}
            step={50}
            value={1600 - speed}
            aria-label="Speed"
            aria-valuetext={`${(speed / 1000).toFixed(1)} seconds a turn`}
            onChange={(event) => onSpeed(1600 - event.target.valueAsNumber)}
            className="w-24 accent-[var(--amber)]"
          />
          faster
        </label>
      </div>
    </div>
  )
}
