'use client'

import { FileUp } from 'lucide-react'
import { Fragment, useEffect, useRef, useState, type ReactNode } from 'react'
import { puzzleById } from '@/core/catalog'
import type { Proof } from '@/core/coach/prove'
import { SURVEYED_LONG } from '@/core/coach/survey'
import type { SheetStage } from '@/core/coach/sheet'
import { rewritten } from '@/core/notation/dialect'
import type { Puzzle } from '@/core/puzzle/compile'
import { fail, must, type Result } from '@/core/result'
import type { Settings } from '@/core/settings'
import { readState } from '@/core/state'
import { listed, plural } from '@/core/phrases'
import { Button } from '@/ui/Button'
import { toast } from 'sonner'
import { forgetSchool, learnSchools, ownSchoolsFor } from '@/core/schools/ownSchools'
import { readSchool } from '@/core/schools/readSchool'
import { forgetSchoolFile, keepSchoolFile } from './actions'
import { FileButton } from '@/ui/FileButton'
import { Notice } from '@/ui/Notice'
import { PuzzlePicture } from '@/ui/puzzle-picture/PuzzlePicture'
import { ShareBar } from '@/ui/ShareBar'
import { ask, useJob, type Told } from '@/ui/useJob'
import { callback, cancelCoach, coach } from '@/workers/coach'
import type { ProvenFile, SchoolSheet } from '@/workers/coach.worker'

/** Longer than any school that can be read. */
const MOST_CHARACTERS = 200_000

/** The methods of one puzzle, and a file of the solver's own to be proven. */
export function Schools({
  puzzleId,
  settings,
  surveys,
}: {
  puzzleId: string
  settings: Settings
  /** By the server, by the ids of schools of this puzzle. */
  surveys: Surveys
}) {
  const puzzle = must(puzzleById(puzzleId))
  const [sheets, setSheets] = useState<readonly SchoolSheet[]>()
  const [trouble, setTrouble] = useState<string>()
  const [share, setShare] = useState(0)
  const work = useWork()
  // Counted up when a school is kept or forgotten, so that the list is made anew.
  const [version, setVersion] = useState(0)
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
  }, [puzzleId, version])
  const changed = () => setVersion((n) => n + 1)
  return (
    <div className="mx-auto grid w-full max-w-5xl grow content-start gap-4 px-4 py-6 sm:px-6">
      <div>
        <h1 className="text-2xl">Schools: {puzzle.definition.name}</h1>
        <p className="text-soft">Start with the first.</p>
      </div>
      {trouble && <Notice kind="wrong">{trouble}</Notice>}
      {!sheets && !trouble && (
        <div className="grid gap-2">
          <p>Looking at every school.</p>
          <ShareBar share={share} label="Progress" />
        </div>
      )}
      {sheets?.map((sheet) => (
        <SchoolCard
          key={sheet.id}
          {...{ puzzle, puzzleId, sheet, settings, surveys, work, changed }}
        />
      ))}
      {sheets && <OwnFile {...{ puzzle, puzzleId, settings, work, changed }} />}
    </div>
  )
}

interface Work {
  /** Who is at work, and how much of it is done; nobody else can begin meanwhile. */
  readonly now?: { readonly owner: string; readonly share: number }
  /** Undefined if it was cancelled. */
  readonly run: <T>(
    owner: string,
    ask: (progress: (share: number) => void) => Promise<T>,
  ) => Promise<T | undefined>
  readonly cancel: () => void
}

/** One computation at a time: ending it ends the worker, and with it whatever else it would do. */
function useWork(): Work {
  const [now, setNow] = useState<Work['now']>()
  const latest = useRef(0)
  const stop = useRef<() => void>(undefined)
  return {
    now,
    run: async (owner, ask) => {
      const own = ++latest.current
      setNow({ owner, share: 0 })
      const cancelled = new Promise<undefined>((resolve) => {
        stop.current = () => resolve(undefined)
      })
      const tell = (share: number) => {
        // What is told on the way can arrive after the answer.
        if (own === latest.current) setNow({ owner, share })
      }
      try {
        return await Promise.race([ask(callback(tell)), cancelled])
      } finally {
        latest.current++
        setNow(undefined)
      }
    },
    cancel: () => {
      cancelCoach()
      stop.current?.()
    },
  }
}

/** What begins some work, and its share and end while it goes on. */
function AtWork({ owner, work, children }: { owner: string; work: Work; children: ReactNode }) {
  if (work.now?.owner !== owner) return children
  return (
    <>
      <ShareBar share={work.now.share} label="Planning" />
      <Button onClick={work.cancel}>Cancel</Button>
    </>
  )
}

type Surveys = Readonly<Record<string, Told | undefined>>

interface Shown {
  readonly puzzle: Puzzle
  readonly puzzleId: string
  readonly settings: Settings
  readonly surveys: Surveys
  readonly work: Work
  /** The list of schools is not what it was. */
  readonly changed: () => void
}

function SchoolCard({
  puzzle,
  puzzleId,
  sheet: { id, name, character, learned, stages, alsoFor },
  settings,
  surveys,
  work,
  changed,
}: Shown & { sheet: SchoolSheet }) {
  const isOwn = ownSchoolsFor(puzzleId).some((school) => school.id === id)
  const forget = async () => {
    const done = await forgetSchoolFile(puzzleId, id)
    if (!done.ok) return void toast.error(done.problem.sentence)
    forgetSchool(puzzleId, id)
    // The worker knows it still, and is begun anew.
    cancelCoach()
    changed()
    toast(`${name} is forgotten.`)
  }
  const [proof, setProof] = useState<Result<Proof>>()
  const survey = async () => {
    setProof(
      await work.run<Result<Proof>>(id, (progress) => coach().survey(puzzleId, id, progress)),
    )
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
          {alsoFor.length > 0 && <p className="text-sm text-soft">Also for: {listed(alsoFor)}.</p>}
        </div>
        <p className="text-sm">
          {learned === 0 ? 'Nothing by heart' : `${plural(learned, 'sequence')} by heart`}
        </p>
      </div>
      <Stages puzzle={puzzle} stages={stages} settings={settings} />
      <div className="flex flex-wrap items-center gap-3 text-sm">
        <AtWork owner={id} work={work}>
          <Button onClick={() => void survey()} disabled={work.now !== undefined}>
            What it costs, over 40 scrambles
          </Button>
        </AtWork>
        {isOwn && (
          <Button onClick={() => void forget()} disabled={work.now !== undefined}>
            Forget it
          </Button>
        )}
        {proof?.ok && <Figures proof={proof.value} />}
        {proof && !proof.ok && <Notice kind="wrong">{proof.problem.sentence}</Notice>}
      </div>
      <LongSurvey {...{ puzzleId }} schoolId={id} found={surveys[id]} />
    </section>
  )
}

/** The same over many more, by whichever process of the server is free; found again when the page is. */
function LongSurvey({
  puzzleId,
  schoolId,
  found,
}: {
  puzzleId: string
  schoolId: string
  found: Told | undefined
}) {
  const [proof, setProof] = useState<Proof>()
  const job = useJob({
    stopped: 'Stopped.',
    onDone: (value) => setProof(value as Proof),
  })
  const { watch } = job
  const isFound = found !== undefined && found.state !== 'stopped'
  useEffect(() => {
    // One that has ended says at once what came of it.
    if (isFound) void watch(found.id)
  }, [found?.id, isFound, watch])
  const begin = () => {
    setProof(undefined)
    void job.begin(() =>
      ask<string>('/api/surveys', 'The server does not answer.', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ puzzleId, schoolId }),
      }),
    )
  }
  return (
    <div className="flex flex-wrap items-center gap-3 text-sm">
      {job.share === undefined ? (
        <Button onClick={begin}>Over {SURVEYED_LONG.toLocaleString('en')}, on the server</Button>
      ) : (
        <>
          <ShareBar share={job.share} label="Surveying" />
          <Button onClick={job.cancel}>Stop</Button>
          <p role="status" className="text-soft">
            {!job.isTaken
              ? 'Asking the server.'
              : job.isWaiting
                ? 'Waits for a process that is free. You can leave; it is found again here.'
                : 'You can leave; it is found again here.'}
          </p>
        </>
      )}
      {proof && <Figures proof={proof} />}
      {job.trouble && <p className="text-soft">{job.trouble}</p>}
    </div>
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
                    <p className="turns">
                      {rewritten(puzzle, turns, settings.writeDialect)
                        .split(' ')
                        .map((turn, i) => (
                          // A range of layers is not broken at its hyphen; between two turns a line may end.
                          <Fragment key={i}>
                            <span className="whitespace-nowrap">{turn}</span>{' '}
                          </Fragment>
                        ))}
                    </p>
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

const OWN_FILE = 'own file'

const TOO_LONG = fail(
  'bad-school',
  `A school file has at most ${MOST_CHARACTERS.toLocaleString('en')} characters; this one is longer.`,
)

function OwnFile({ puzzle, puzzleId, settings, work, changed }: Omit<Shown, 'surveys'>) {
  const [file, setFile] = useState<string>()
  const [found, setFound] = useState<Result<ProvenFile>>()
  const read = async (chosen: File) => {
    setFile(chosen.name)
    setFound(undefined)
    if (chosen.size > MOST_CHARACTERS) return setFound(TOO_LONG)
    const text = await chosen.text()
    setFound(
      await work.run<Result<ProvenFile>>(OWN_FILE, (progress) =>
        coach().proveFile(puzzleId, text, progress),
      ),
    )
  }
  const keep = async ({ name, text }: ProvenFile) => {
    const kept = await keepSchoolFile(puzzleId, text)
    if (!kept.ok) return void toast.error(kept.problem.sentence)
    const school = readSchool(JSON.parse(text))
    if (school.ok) learnSchools([{ puzzleId, school: { ...school.value, id: kept.value } }])
    setFound(undefined)
    changed()
    toast(`${name} is kept, and offered for this puzzle.`)
  }
  return (
    <section
      aria-label="A school file of your own"
      className="grid gap-2 rounded-lg border border-line bg-surface px-4 py-3"
    >
      <h2 className="text-lg">A school file of your own</h2>
      <p className="text-sm text-soft">
        It is tried on this puzzle from 200 scrambles, held every way in turn. It is proven here, or
        refused with a position that it cannot leave. Once proven it can be kept, and is offered
        like the others.
      </p>
      <div className="flex flex-wrap items-center gap-3">
        <AtWork owner={OWN_FILE} work={work}>
          <FileButton
            label="School file"
            accept=".json,application/json"
            disabled={work.now !== undefined}
            onChoose={(chosen) => void read(chosen)}
          >
            <FileUp size={16} aria-hidden /> Choose a file
          </FileButton>
        </AtWork>
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
            <Button weight="attend" onClick={() => void keep(found.value)}>
              Keep it
            </Button>
          </Notice>
          <Stages puzzle={puzzle} stages={found.value.stages} settings={settings} />
        </>
      )}
    </section>
  )
}
