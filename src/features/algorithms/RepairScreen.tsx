'use client'

import { useMemo, useState } from 'react'
import { readEnds, readKeep, stageKeeps, type StageKeep } from '@/core/algorithms/keep'
import { schoolsFor } from '@/core/schools'
import { stagesOf, variantsOf } from '@/core/schools/school'
import { caseWishOf } from '@/core/algorithms/caseWish'
import type { Edit, Wish } from '@/core/algorithms/repair'
import { placeNamesOf } from '@/core/analysis/placeNames'
import { piecesShowing } from '@/core/analysis/sides'
import { puzzleById } from '@/core/catalog'
import { rewritten, type DialectId } from '@/core/notation/dialect'
import { readTurns } from '@/core/notation/read'
import { readLoosely } from '@/core/notation/spoken/spoken'
import { readVocabulary } from '@/core/notation/spoken/vocabulary'
import { words } from '@/core/notation/spoken/words'
import { writeNames, writeTurns } from '@/core/notation/write'
import type { Puzzle } from '@/core/puzzle/compile'
import { DIRECTIONS } from '@/core/puzzle/directions'
import { fail, must, ok, type Result } from '@/core/result'
import type { Settings } from '@/core/settings'
import { start, turnAll } from '@/core/state'
import { capital, inWords, listed, plural } from '@/core/phrases'
import { Button } from '@/ui/Button'
import { Choice } from '@/ui/Field'
import { Notice } from '@/ui/Notice'
import { PuzzleWindows } from '@/ui/puzzle-view/PuzzleWindows'
import { ShareBar } from '@/ui/ShareBar'
import { callback, cancelCoach, coach } from '@/workers/coach'
import type { Mended, RepairRequest } from '@/workers/algorithmWork'
import { TurnsField, useTyped } from '@/ui/TurnsField'
import { FoundSequence } from './FoundSequence'
import { RoomHead } from './RoomHead'
import { useShelf } from './useShelf'

/** Longest sequence that is mended, and most meanings of one without directions. */
const MOST = { turns: 40, meanings: 256 }

const TOUCHED = 'touched'
const STAGE = 'stage:'
const CASE = 'case'

/** What was heard, what it must keep and how it must end: all readings with the fewest edits. */
export function RepairScreen({
  puzzleId,
  heard,
  settings,
}: {
  puzzleId: string
  heard: string
  settings: Settings
}) {
  const puzzle = must(puzzleById(puzzleId))
  const typing = useTyped(puzzle, { settings, puzzleId }, readTurns(puzzle, heard).ok ? heard : '')
  const beginning = useTyped(puzzle, { settings, puzzleId })
  const [wantsCases, setWantsCases] = useState(false)
  const cases = useCases(puzzle, puzzleId, settings, wantsCases)
  const [taken, setTaken] = useState('')
  const [keep, setKeep] = useState('')
  const [touched, setTouched] = useState<ReadonlySet<number>>(new Set())
  const [ends, setEnds] = useState('')
  const [edits, setEdits] = useState('2')
  const [answer, setAnswer] = useState<{ asked: string; mended: Result<Mended> }>()
  const [share, setShare] = useState<number>()
  const stages = useMemo(
    () =>
      stageKeeps(
        puzzle,
        schoolsFor(puzzleId).filter(({ isWithoutBase }) => !isWithoutBase),
      ),
    [puzzle, puzzleId],
  )
  const options = useMemo(() => choices(puzzle, stages), [puzzle, stages])
  const chosen = cases.known.find(({ value }) => value === taken)
  const kept = useMemo(() => keptBy(puzzle, keep, touched, stages), [puzzle, keep, touched, stages])
  const request = requestOf(puzzle, puzzleId, {
    vocabulary: settings.vocabulary,
    typing,
    beginning: beginning.typed.turns,
    kept,
    ends: ends === CASE ? chosen?.wish.ends : endsAs(puzzle, ends),
    edits: Number(edits),
  })
  // An answer to what was asked before is none to what stands there now.
  const asked = request.ok ? JSON.stringify(request.value) : ''
  const found = answer?.asked === asked ? answer.mended : undefined
  const mend = async () => {
    if (!request.ok) return
    setAnswer(undefined)
    setShare(0)
    const done = await coach().repair(
      request.value,
      callback((now: number) => setShare((before) => (before === undefined ? before : now))),
    )
    setAnswer({ asked, mended: done })
    setShare(undefined)
  }
  const touch = (piece: number | undefined) => {
    if (piece === undefined) return
    const next = new Set(keep === TOUCHED ? touched : kept)
    if (!next.delete(piece)) next.add(piece)
    setTouched(next)
    setKeep(TOUCHED)
  }
  const takeCase = (value: string) => {
    setTaken(value)
    const next = cases.known.find((each) => each.value === value)
    if (!next) return setEnds((now) => (now === CASE ? '' : now))
    beginning.write(rewritten(puzzle, writeTurns(next.begins), settings.readDialect))
    setTouched(new Set(next.wish.keep))
    setKeep(TOUCHED)
    setEnds(CASE)
  }
  return (
    <div className="mx-auto flex w-full max-w-[90rem] grow flex-col gap-3 p-3 sm:px-5">
      <RoomHead
        puzzleId={puzzleId}
        title={`Fix a misheard sequence: ${puzzle.definition.name}`}
        about="A prime lost, a turn left out, a layer mistaken: all readings that do what they must."
      />
      <div className="grid grow content-start gap-4 lg:grid-cols-[1fr_26rem]">
        <div className="grid content-start gap-3">
          <TurnsField
            label="What was heard"
            typing={typing}
            hint="In any dialect. Words may lack their directions: up, across, down, across two."
          />
          <Choice
            label="What it must leave as it was"
            options={options.keep}
            value={keep}
            onChange={(event) => setKeep(event.target.value)}
          />
          <p className="-mt-2 text-sm text-soft">
            {keptWords(puzzle, kept)} Touch pieces in the windows to change that.
          </p>
          {!wantsCases && (
            <Button className="justify-self-start" onClick={() => setWantsCases(true)}>
              Take a case from a list
            </Button>
          )}
          {wantsCases && !cases.isReady && (
            <ShareBar share={cases.share} label="Working out the cases" />
          )}
          {cases.trouble && <Notice kind="wrong">{cases.trouble}</Notice>}
          {cases.isReady && (
            <Choice
              label="The case that it is for"
              options={[
                { value: '', name: cases.known.length > 0 ? 'no case' : 'no school has any here' },
                ...cases.known.map(({ value, name }) => ({ value, name })),
              ]}
              value={taken}
              onChange={(event) => takeCase(event.target.value)}
            />
          )}
          <TurnsField
            label="Where it begins"
            typing={beginning}
            hint="Turns that lead there from the finished puzzle; none if it begins there."
          />
          <div className="grid gap-3 sm:grid-cols-2">
            <Choice
              label="How it must end"
              options={[
                ...options.ends,
                ...(chosen ? [{ value: CASE, name: `as ${chosen.stage} ends` }] : []),
              ]}
              value={ends}
              onChange={(event) => setEnds(event.target.value)}
            />
            <Choice
              label="Slips at most"
              options={['1', '2', '3'].map((value) => ({ value, name: value }))}
              value={edits}
              onChange={(event) => setEdits(event.target.value)}
            />
          </div>
          <div className="flex flex-wrap items-center gap-3">
            {share === undefined ? (
              <Button weight="attend" onClick={() => void mend()} disabled={!request.ok}>
                Mend it
              </Button>
            ) : (
              <>
                <ShareBar share={share} label="Trying every slip" />
                <Button
                  onClick={() => {
                    cancelCoach()
                    setShare(undefined)
                  }}
                >
                  Stop
                </Button>
              </>
            )}
            {!request.ok && typing.text.trim() !== '' && (
              <p role="status" className="text-sm text-soft">
                {request.problem.sentence}
              </p>
            )}
          </div>
        </div>
        <div className="grid content-start gap-3">
          <div className="h-64">
            <PuzzleWindows
              puzzle={puzzle}
              state={start(puzzle)}
              scheme={puzzle.definition.colours}
              marks={settings.marks}
              lights={{ attend: [], safe: kept, places: [] }}
              label={`${puzzle.definition.name}: ${keptWords(puzzle, kept)}`}
              onTouch={touch}
            />
          </div>
          {found && !found.ok && <Notice kind="wrong">{found.problem.sentence}</Notice>}
          {found?.ok && request.ok && (
            <Readings
              {...{ puzzle, puzzleId }}
              mended={found.value}
              most={Number(edits)}
              dialect={settings.writeDialect}
            />
          )}
        </div>
      </div>
    </div>
  )
}

function choices(puzzle: Puzzle, stages: readonly StageKeep[]) {
  const sides = DIRECTIONS.filter((side) => {
    const shown = piecesShowing(puzzle, side).length
    return shown > 0 && shown < puzzle.pieces.length
  })
  return {
    keep: [
      { value: '', name: 'nothing in particular' },
      { value: 'all', name: 'everything' },
      ...sides.map(({ letter, adjective }) => ({
        value: `layer:${letter}`,
        name: `all that shows at the ${adjective}`,
      })),
      ...sides.map(({ letter, adjective }) => ({
        value: `all-but:${letter}`,
        name: `all but what shows at the ${adjective}`,
      })),
      ...stages.map(({ school, stage }, i) => ({
        value: `${STAGE}${i}`,
        name: `${school}: what is home after ${stage.toLowerCase()}`,
      })),
      { value: TOUCHED, name: 'the pieces that I touch' },
    ],
    ends: [
      { value: '', name: 'no matter how' },
      { value: 'home', name: 'the puzzle finished' },
      ...sides.flatMap(({ letter, adjective, toward }) => [
        { value: `faced:${letter}`, name: `what belongs to the ${adjective} looking ${toward}` },
        { value: `placed:${letter}`, name: `what belongs to the ${adjective} in its places` },
      ]),
    ],
  }
}

function keptBy(
  puzzle: Puzzle,
  keep: string,
  touched: ReadonlySet<number>,
  stages: readonly StageKeep[],
): readonly number[] {
  if (keep === '') return []
  if (keep === TOUCHED) return [...touched].sort((a, b) => a - b)
  const all = puzzle.pieces.map((_, p) => p)
  if (keep === 'all') return all
  if (keep.startsWith(STAGE)) return stages[Number(keep.slice(STAGE.length))]?.pieces ?? []
  return must(readKeep(puzzle, keep))
}

/** More pieces than these are counted, not named. */
const MOST_NAMED = 3

function keptWords(puzzle: Puzzle, kept: readonly number[]): string {
  if (kept.length === 0) return 'No piece must stay.'
  if (kept.length > MOST_NAMED) return `${capital(plural(kept.length, 'piece'))} must stay.`
  const { names } = placeNamesOf(puzzle, 0)
  return `${capital(listed(kept.map((p) => names[p])))} must stay.`
}

/** What is asked, or what is still missing. */
function requestOf(
  puzzle: Puzzle,
  puzzleId: string,
  {
    vocabulary,
    typing,
    beginning,
    kept,
    ends,
    edits,
  }: {
    vocabulary: string
    typing: ReturnType<typeof useTyped>
    beginning: string
    kept: readonly number[]
    ends: Wish['ends']
    edits: number
  },
): Result<RepairRequest> {
  const heard = heardAs(puzzle, typing, vocabulary)
  if (!heard.ok) return heard
  if (kept.length === 0 && !ends)
    return fail('bad-wish', 'Say what it must leave as it was, or how it must end.')
  const from = turnAll(puzzle, start(puzzle), must(readTurns(puzzle, beginning)))
  if (!from.ok) return from
  return ok({
    puzzleId,
    heard: heard.value,
    wish: {
      keep: kept,
      from: from.value,
      ...(ends ? { ends } : {}),
    },
    edits,
  })
}

const endsAs = (puzzle: Puzzle, text: string): Wish['ends'] =>
  text === '' || text === CASE ? undefined : [must(readEnds(puzzle, text))]

/** The cases of all schools, each with what a sequence for it must do. */
function useCases(puzzle: Puzzle, puzzleId: string, settings: Settings, isWanted: boolean) {
  const { derived, share } = useShelf(puzzleId, settings, isWanted)
  const known = useMemo(() => {
    const schools = schoolsFor(puzzleId)
    const rows = derived?.ok ? derived.value : []
    return rows.flatMap(({ text, summary, uses }) =>
      uses.flatMap(({ school: schoolName, stage: stageName }) => {
        const school = schools.find(({ name }) => name === schoolName)
        const stage =
          school && stagesOf(school, variantsOf(school)[0]).find(({ name }) => name === stageName)
        if (!school || !stage) return []
        return [
          {
            value: `${school.id} ${stage.id} ${text}`,
            name: `${schoolName}, ${stageName}: ${summary} ${rewritten(puzzle, text, settings.writeDialect)}`,
            stage: stageName.toLowerCase(),
            ...caseWishOf(puzzle, school, stage.id, text),
          },
        ]
      }),
    )
  }, [derived, puzzle, puzzleId, settings.writeDialect])
  return {
    known,
    share,
    isReady: derived?.ok === true,
    ...(derived && !derived.ok ? { trouble: derived.problem.sentence } : {}),
  }
}

/** What was typed; where directions are missing all that it can be. */
function heardAs(
  puzzle: Puzzle,
  { text, typed, meanings }: ReturnType<typeof useTyped>,
  vocabulary: string,
): Result<string[]> {
  if (text.trim() === '') return fail('bad-turns', 'Type what was heard.')
  const length = (turns: string) => turns.split(' ').length
  // Where it can be read in several dialects, what must be kept decides.
  if (meanings.length > 0)
    return ok(
      meanings.map(({ turns }) => writeTurns(turns)).filter((turns) => length(turns) <= MOST.turns),
    )
  if (typed.turns !== '') {
    const turns = writeTurns(must(readTurns(puzzle, typed.turns)))
    return length(turns) > MOST.turns
      ? fail('bad-turns', `At most ${MOST.turns} turns are mended.`)
      : ok([turns])
  }
  const loose = readLoosely(puzzle, text, words, must(readVocabulary(vocabulary)))
  if (!loose.ok) return typed.problem ? { ok: false, problem: typed.problem } : loose
  return loose.value.length > MOST.meanings
    ? fail(
        'bad-turns',
        `That can be read in ${loose.value.length} ways; give a direction here and there until there are ${MOST.meanings}.`,
      )
    : ok(loose.value.map((turns) => writeTurns(turns)))
}

function Readings({
  puzzle,
  puzzleId,
  mended: { edits, readings },
  most,
  dialect,
}: {
  puzzle: Puzzle
  puzzleId: string
  mended: Mended
  most: number
  dialect: DialectId
}) {
  if (edits === undefined)
    return (
      <Notice kind="attend">
        No reading with up to {inWords(most)} {most === 1 ? 'slip' : 'slips'} does that.
      </Notice>
    )
  const how =
    edits === 0
      ? 'As it was heard it does that'
      : `It takes ${inWords(edits)} ${edits === 1 ? 'slip' : 'slips'}`
  return (
    <section aria-label="Readings" className="grid gap-2">
      <Notice kind="safe">
        {readings.length === 1
          ? edits === 0
            ? `${how}.`
            : `${how}, and there is exactly one reading.`
          : `${how}, and ${inWords(readings.length)} readings do it, the likeliest first.`}
      </Notice>
      <ol className="grid max-h-[26rem] gap-2 overflow-y-auto">
        {readings.map((reading) => (
          <FoundSequence
            key={reading.turns}
            {...{ puzzle, puzzleId, dialect }}
            turns={reading.turns}
          >
            {reading.edits.length > 0 &&
              `${capital(listed(reading.edits.map((edit) => editWords(edit, dialect))))}.`}
          </FoundSequence>
        ))}
      </ol>
    </section>
  )
}

/** 'turn 3 is R', not R' */
function editWords({ at, kind, was, is }: Edit, dialect: DialectId): string {
  const write = (names: readonly string[]) => writeNames(names, dialect)
  if (was.length === 0) return `${write(is)} was left out before turn ${at + 1}`
  const which = was.length === 1 ? `turn ${at + 1}` : `turns ${at + 1} to ${at + was.length}`
  if (is.length === 0)
    return kind === 'part' ? `${which} came once too often` : `${write(was)} (${which}) is too much`
  return `${which} ${was.length === 1 ? 'is' : 'are'} ${write(is)}, not ${write(was)}`
}
