'use client'

import { FileUp } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { puzzleById } from '@/core/catalog'
import type { Proof } from '@/core/coach/prove'
import type { SheetStage } from '@/core/coach/sheet'
import type { DialectId } from '@/core/notation/dialect'
import { writeTurnName } from '@/core/notation/write'
import type { Puzzle } from '@/core/puzzle/compile'
import { must, type Result } from '@/core/result'
import type { Settings } from '@/core/settings'
import { readState } from '@/core/state'
import { plural } from '@/core/words'
import { Button } from '@/ui/Button'
import { Notice } from '@/ui/Notice'
import { PuzzlePicture } from '@/ui/puzzle-picture/PuzzlePicture'
import { ShareBar } from '@/ui/ShareBar'
import { callback, cancelCoach, coach } from '@/workers/coach'
import type { ProvenFile, SchoolSheet } from '@/workers/coach.worker'

/** Longer than any school that can be read. */
const MOST_CHARACTERS = 200_000

/** The methods of one puzzle, and a file of the solver's own to be proven. */
export function Schools({ puzzleId, settings }: { puzzleId: string; settings: Settings }) {
  const puzzle = must(puzzleById(puzzleId))
  const [sheets, setSheets] = useState<readonly SchoolSheet[]>()
  const [trouble, setTrouble] = useState<string>()
  const [share, setShare] = useState(0)
  useEffect(() => {
    let gone = false
    void coach()
      .schools(
        puzzleId,
        callback((done: number) => !gone && setShare(done)),
      )
      .then((found) => {
        if (gone) return
        if (found.ok) setSheets(found.value)
        else setTrouble(found.problem.sentence)
      })
    return () => {
      gone = true
    }
  }, [puzzleId])
  return (
    <div className="mx-auto grid w-full max-w-5xl grow content-start gap-4 px-4 py-6 sm:px-6">
      <div>
        <h1 className="text-2xl">Schools of the {puzzle.definition.name}</h1>
        <p className="text-soft">The first is the one that people would take.</p>
      </div>
      {trouble && <Notice kind="wrong">{trouble}</Notice>}
      {!sheets && !trouble && <ShareBar share={share} label="Looking at every school" />}
      {sheets?.map((sheet) => (
        <SchoolCard key={sheet.id} {...{ puzzle, puzzleId, sheet, settings }} />
      ))}
      {sheets && <OwnFile puzzle={puzzle} puzzleId={puzzleId} settings={settings} />}
    </div>
  )
}

function SchoolCard({
  puzzle,
  puzzleId,
  sheet: { id, name, character, stages },
  settings,
}: {
  puzzle: Puzzle
  puzzleId: string
  sheet: SchoolSheet
  settings: Settings
}) {
  const [proof, setProof] = useState<Result<Proof>>()
  const [share, setShare] = useState<number>()
  const count = new Set(stages.flatMap(({ byHeart }) => byHeart.map(({ turns }) => turns))).size
  const survey = async () => {
    setShare(0)
    let isOver = false
    const found = await coach().survey(
      puzzleId,
      id,
      callback((done: number) => !isOver && setShare(done)),
    )
    isOver = true
    setShare(undefined)
    setProof(found)
  }
  return (
    <section
      aria-label={name}
      className="grid gap-3 rounded-lg border border-line bg-surface px-4 py-3"
    >
      <div className="flex flex-wrap items-start gap-x-4 gap-y-2">
        <div className="min-w-0 grow basis-64">
          <h2 className="text-lg">{name}</h2>
          <p className="text-sm text-soft">{character}</p>
        </div>
        <p className="text-sm">
          {count === 0 ? 'Nothing by heart' : `${plural(count, 'sequence')} by heart`}
        </p>
      </div>
      <Stages puzzle={puzzle} stages={stages} settings={settings} />
      <div className="flex flex-wrap items-center gap-3 text-sm">
        {share === undefined ? (
          <Button onClick={() => void survey()}>What it costs, over 40 scrambles</Button>
        ) : (
          <ShareBar share={share} label={`Planning with ${name}`} />
        )}
        {proof?.ok && <Figures proof={proof.value} />}
        {proof && !proof.ok && <Notice kind="wrong">{proof.problem.sentence}</Notice>}
      </div>
    </section>
  )
}

const Figures = ({ proof }: { proof: Proof }) => (
  <p role="status">
    <span className="turns">{proof.meanTurns}</span> turns on average,{' '}
    <span className="turns">{proof.mostTurns}</span> at most;{' '}
    <span className="turns">{proof.meanLooks}</span> looks.
  </p>
)

function Stages({
  puzzle,
  stages,
  settings,
}: {
  puzzle: Puzzle
  stages: readonly SheetStage[]
  settings: Settings
}) {
  return (
    <ol className="grid gap-1">
      {stages.map(({ id, name, aim, byHeart }, i) => (
        <li key={`${id}${i}`} className="grid gap-1 border-t border-line pt-1">
          <p>
            <span className="font-display">{name}.</span> <span className="text-soft">{aim}</span>
          </p>
          {byHeart.length > 0 && (
            <details className="text-sm">
              <summary className="cursor-pointer text-soft">
                {plural(byHeart.length, 'sequence')} by heart
              </summary>
              <ul className="mt-1 grid gap-2 [grid-template-columns:repeat(auto-fill,minmax(11rem,1fr))]">
                {byHeart.map(({ turns, state }) => (
                  <li key={turns}>
                    <PuzzlePicture
                      puzzle={puzzle}
                      state={must(readState(puzzle, state))}
                      scheme={puzzle.definition.colours}
                      marks={settings.marks}
                      label={`From here ${turns} leads to the finished puzzle.`}
                      className="w-full"
                    />
                    <p className="turns">{written(turns, settings.writeDialect)}</p>
                  </li>
                ))}
              </ul>
            </details>
          )}
        </li>
      ))}
    </ol>
  )
}

/** Brackets and repeats stay as they are; the turns are in the solver's own letters. */
const written = (turns: string, dialect: DialectId): string =>
  turns
    .split(' ')
    .map((name) => (/^[\w'-]+$/.test(name) ? writeTurnName(name, dialect) : name))
    .join(' ')

function OwnFile({
  puzzle,
  puzzleId,
  settings,
}: {
  puzzle: Puzzle
  puzzleId: string
  settings: Settings
}) {
  const input = useRef<HTMLInputElement>(null)
  const [file, setFile] = useState<string>()
  const [share, setShare] = useState<number>()
  const [found, setFound] = useState<Result<ProvenFile>>()
  const asked = useRef(0)
  const read = async (chosen: File) => {
    const own = ++asked.current
    setFile(chosen.name)
    setFound(undefined)
    setShare(0)
    const text = chosen.size > MOST_CHARACTERS ? '' : await chosen.text()
    const result = await coach().proveFile(
      puzzleId,
      text,
      callback((done: number) => own === asked.current && setShare(done)),
    )
    if (own !== asked.current) return
    asked.current++
    setShare(undefined)
    setFound(result)
  }
  const cancel = () => {
    asked.current++
    cancelCoach()
    setShare(undefined)
  }
  return (
    <section
      aria-label="A school file of your own"
      className="grid gap-2 rounded-lg border border-line bg-surface px-4 py-3"
    >
      <h2 className="text-lg">A school file of your own</h2>
      <p className="text-sm text-soft">
        It is tried on this puzzle from 200 scrambles, in every hold. It is proven here, or refused
        with a position that it cannot leave; it is not kept.
      </p>
      <div className="flex flex-wrap items-center gap-3">
        <input
          ref={input}
          type="file"
          accept=".json,application/json"
          aria-label="School file"
          className="sr-only"
          tabIndex={-1}
          onChange={(event) => {
            const [chosen] = event.target.files ?? []
            event.target.value = ''
            if (chosen) void read(chosen)
          }}
        />
        <Button onClick={() => input.current?.click()} disabled={share !== undefined}>
          <FileUp size={16} aria-hidden /> Choose a file
        </Button>
        {share !== undefined && (
          <>
            <ShareBar share={share} label="Proving" />
            <Button onClick={cancel}>Cancel</Button>
          </>
        )}
      </div>
      {found && !found.ok && (
        <Notice kind="wrong">
          <p>{file} is refused.</p>
          <p>{found.problem.sentence}</p>
        </Notice>
      )}
      {found?.ok && (
        <>
          <Notice kind="safe">
            <p>{found.value.name} leads home from all of them.</p>
            <Figures proof={found.value.proof} />
          </Notice>
          <Stages puzzle={puzzle} stages={found.value.stages} settings={settings} />
        </>
      )}
    </section>
  )
}
