'use client'

import { Pencil, Plus } from 'lucide-react'
import { useRouter } from 'next/navigation'
import { useMemo, useState, useTransition } from 'react'
import { toast } from 'sonner'
import { CATALOG_NAMES, definitionById, forgetDefinition } from '@/core/catalog'
import { settingId, settingOf, splitId } from '@/core/catalog/setting'
import { CLOCK_WORDS, ringWords } from '@/core/analysis/placeNames'
import { unit } from '@/core/geometry/vector'
import { compile } from '@/core/puzzle/compile'
import { MARKS, type Colour, type Scheme } from '@/core/puzzle/colours'
import { DIRECTIONS } from '@/core/puzzle/directions'
import type { PuzzleDefinition } from '@/core/puzzle/definition'
import { posed, poseOf } from '@/core/puzzle/view'
import { fail, type Problem } from '@/core/result'
import type { Vector } from '@/core/rotation'
import { start } from '@/core/state'
import { listed } from '@/core/phrases'
import type { Copy } from '@/server/copies'
import type { OwnPuzzle } from '@/server/ownPuzzles'
import { Button } from '@/ui/Button'
import { heard } from '@/ui/heard'
import { Choice, TextArea, TextField } from '@/ui/Field'
import { IconButton } from '@/ui/IconButton'
import { Sheet } from '@/ui/Sheet'
import { PuzzlePicture } from '@/ui/puzzle-picture/PuzzlePicture'
import { discardCopy, forgetPuzzle, putFileOnShelf, saveCopy } from './actions'
import { HandOver } from './HandOver'
import { needDefinition } from './needDefinition'
import { usePuzzleSheet } from './usePuzzleSheet'
import { PuzzleFileField, readChosenFile, useFileDrop, type PuzzleFile } from './PuzzleFile'

const FIRST = CATALOG_NAMES[0].id

const schemeOf = (puzzleId: string): Scheme => definitionById(puzzleId)?.colours ?? []

/** Adds a copy of a known puzzle, or of one that a puzzle file describes, chosen or dropped here. */
export function AddCopy({ own }: { own: readonly OwnPuzzle[] }) {
  const [open, setOpen] = useState(false)
  const [file, setFile] = useState<PuzzleFile>()
  const read = (chosen: File) => {
    setOpen(true)
    readChosenFile(chosen).then(setFile, () =>
      setFile({ name: chosen.name, read: fail('bad-file', 'The file cannot be read.') }),
    )
  }
  const isOver = useFileDrop(read)
  return (
    <>
      <Button
        weight="attend"
        onClick={() => {
          setFile(undefined)
          setOpen(true)
        }}
      >
        <Plus size={16} aria-hidden /> Add a puzzle
      </Button>
      {isOver && (
        <div className="pointer-events-none fixed inset-3 z-40 grid place-items-center rounded-xl border-2 border-dashed border-amber bg-ground/85 text-xl">
          Drop the puzzle file anywhere on the shelf
        </div>
      )}
      <Sheet
        open={open}
        onOpenChange={setOpen}
        title="Add a puzzle"
        description="A puzzle that you own."
      >
        <PuzzleFileField file={file} onChoose={read} onLeave={() => setFile(undefined)} />
        {(!file || file.read.ok) && (
          <CopyForm
            key={file?.name}
            own={own}
            file={file?.read.ok ? file.read.value : undefined}
            onDone={() => setOpen(false)}
          />
        )}
      </Sheet>
    </>
  )
}

export function EditCopy({ copy }: { copy: Copy }) {
  const { open, setOpen, begin } = usePuzzleSheet(copy.puzzleId)
  return (
    <>
      <IconButton title="Change" label={`Change ${copy.name}`} onClick={begin}>
        <Pencil size={16} aria-hidden />
      </IconButton>
      <Sheet
        open={open}
        onOpenChange={setOpen}
        title={copy.name}
        description="Its name, colours and remarks."
      >
        <CopyForm copy={copy} onDone={() => setOpen(false)} />
        <HandOver copy={copy} onDone={() => setOpen(false)} />
      </Sheet>
    </>
  )
}

function CopyForm({
  copy,
  file,
  own = [],
  onDone,
}: {
  copy?: Copy
  own?: readonly OwnPuzzle[]
  /** What a puzzle file says, if the puzzle comes from one. */
  file?: PuzzleDefinition
  onDone: () => void
}) {
  const router = useRouter()
  const [pending, begin] = useTransition()
  const [puzzleId, setPuzzleId] = useState(copy?.puzzleId ?? FIRST)
  const [name, setName] = useState(copy?.name ?? '')
  const [remarks, setRemarks] = useState(copy?.remarks ?? '')
  const [scheme, setScheme] = useState<Scheme>(copy?.scheme ?? file?.colours ?? schemeOf(FIRST))
  const [problem, setProblem] = useState<Problem>()
  const [sure, setSure] = useState(false)
  const errorAt = (field: string) => (problem?.field === field ? problem.sentence : undefined)

  const save = () =>
    begin(async () => {
      const saved = file
        ? await heard(() => putFileOnShelf({ name, remarks, scheme }, file))
        : await heard(() => saveCopy({ puzzleId, name, remarks, scheme }, copy?.id))
      if (!saved.ok) return setProblem(saved.problem)
      toast(copy ? 'Changed.' : `${name} stands on the shelf.`)
      onDone()
      router.refresh()
    })

  const discard = () =>
    begin(async () => {
      const done = await heard(() => discardCopy(copy?.id ?? ''))
      if (!done.ok) return setProblem(done.problem)
      onDone()
      router.refresh()
    })

  const choose = (id: string) =>
    begin(async () => {
      const known = await needDefinition(id)
      if (!known.ok) return setProblem(known.problem)
      setPuzzleId(id)
      setScheme(known.value.colours)
    })

  const isOwn = !copy && !file && own.some(({ id }) => id === splitId(puzzleId).file)
  const forget = () =>
    begin(async () => {
      const { file: fileId } = splitId(puzzleId)
      const done = await heard(() => forgetPuzzle(fileId))
      if (!done.ok) return setProblem(done.problem)
      forgetDefinition(fileId)
      setProblem(undefined)
      setPuzzleId(FIRST)
      setScheme(schemeOf(FIRST))
      toast('Forgotten. Its file can be dropped here again.')
      router.refresh()
    })

  return (
    <form
      className="grid gap-4"
      onSubmit={(event) => {
        event.preventDefault()
        save()
      }}
    >
      {!copy && !file && (
        <Choice
          label="Puzzle"
          value={splitId(puzzleId).file}
          options={[...CATALOG_NAMES, ...own].map((each) => ({
            value: each.id,
            name: each.name,
          }))}
          onChange={(event) => choose(event.target.value)}
        />
      )}
      {isOwn && (
        <Button weight="quiet" className="justify-self-start" onClick={forget} disabled={pending}>
          Forget this puzzle file
        </Button>
      )}
      {!copy && !file && <SettingFields puzzleId={puzzleId} onChange={setPuzzleId} />}
      <TextField
        label="Your name for it"
        value={name}
        error={errorAt('name')}
        autoFocus={!copy}
        placeholder={file?.name}
        onChange={(event) => setName(event.target.value)}
      />
      <SchemeFields
        definition={file ?? definitionById(puzzleId)}
        scheme={scheme}
        problem={problem}
        onChange={setScheme}
      />
      <TextArea
        label="Remarks"
        hint="Tension, pops, stickers."
        rows={2}
        value={remarks}
        error={errorAt('remarks')}
        onChange={(event) => setRemarks(event.target.value)}
      />
      {problem && !['name', 'remarks'].includes(problem.field ?? '') && (
        <p role="alert" className="text-sm text-rose">
          {problem.sentence}
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        <Button weight="attend" type="submit" disabled={pending}>
          {copy ? 'Keep the changes' : 'Put it on the shelf'}
        </Button>
        {copy && !sure && (
          <Button weight="quiet" className="ml-auto" onClick={() => setSure(true)}>
            Remove
          </Button>
        )}
        {copy && sure && (
          <Button weight="wrong" className="ml-auto" onClick={discard} disabled={pending}>
            Remove it and its open bench
          </Button>
        )}
      </div>
      {sure && <p className="text-sm text-soft">Its solves stay in the log.</p>}
    </form>
  )
}

/** Of a puzzle with settings, which of them this copy has. */
function SettingFields({
  puzzleId,
  onChange,
}: {
  puzzleId: string
  onChange: (puzzleId: string) => void
}) {
  const definition = definitionById(puzzleId)
  const setting = definition && settingOf(definition)
  if (!setting) return null
  const locked = setting.filter((face) => face.locked).map(({ name }) => name)
  return (
    <fieldset className="flex flex-wrap gap-x-4 gap-y-1">
      <legend className="mb-1 text-sm font-bold">Circles that turn with their face</legend>
      {setting.map(({ name, label, locked: isLocked }) => (
        <label key={name} className="flex min-h-9 items-center gap-1.5">
          <input
            type="checkbox"
            checked={isLocked}
            onChange={() =>
              onChange(
                settingId(
                  puzzleId,
                  isLocked ? locked.filter((other) => other !== name) : [...locked, name],
                ),
              )
            }
            className="size-4 accent-[var(--amber)]"
          />
          {label}
        </label>
      ))}
    </fieldset>
  )
}

/** Which face has a colour: by its direction, on a solid among those of all its faces. */
function faceWord(definition: PuzzleDefinition, colour: string): string {
  const { solid, faces } = definition
  if (!solid) return DIRECTIONS.find(({ name }) => faces[name] === colour)?.adjective ?? ''
  const pose = poseOf(definition)
  const outward = (normal: Vector) => unit(posed(pose, normal))
  const own = solid.halfSpaces.filter((each) => each.colour === colour)
  const all = solid.halfSpaces.map(({ normal }) => outward(normal))
  return listed(own.map(({ normal }) => ringWords(outward(normal), all)))
}

/** The finished puzzle with one colour alone, the others grey. */
const alone = (scheme: Scheme, index: number): Scheme =>
  scheme.map((colour, i) => (i === index ? colour : { ...colour, shade: GREY }))

const GREY = '#39404f'

function SchemeFields({
  definition,
  scheme,
  problem,
  onChange,
}: {
  definition?: PuzzleDefinition
  scheme: Scheme
  problem?: Problem
  onChange: (scheme: Scheme) => void
}) {
  const puzzle = useMemo(() => definition && compile(definition), [definition])
  const change = (index: number, part: Partial<Colour>) =>
    onChange(scheme.map((colour, i) => (i === index ? { ...colour, ...part } : colour)))
  return (
    <fieldset className="grid gap-2">
      <legend className="mb-1 text-sm font-bold">Colours, as the finished puzzle is held</legend>
      {definition && scheme.some(({ id }) => faceWord(definition, id).includes("o'clock")) && (
        <p className="text-sm text-soft">{CLOCK_WORDS}</p>
      )}
      {scheme.map((colour, i) => {
        const face = definition ? faceWord(definition, colour.id) : ''
        const bad = problem?.field?.startsWith(`scheme[${i}]`)
        return (
          <div
            key={colour.id}
            className="grid grid-cols-[7.5rem_3rem_1fr_6rem] items-center gap-2 max-sm:grid-cols-[5.5rem_2.5rem_1fr_5rem]"
          >
            <span className="flex items-center gap-1.5 text-sm text-soft">
              {puzzle && (
                <PuzzlePicture
                  puzzle={puzzle}
                  state={start(puzzle)}
                  scheme={alone(scheme, i)}
                  label=""
                  className="h-8 w-16 shrink-0 max-sm:hidden"
                />
              )}
              {face}
            </span>
            <input
              type="color"
              aria-label={`Shade of the ${face} face`}
              value={colour.shade}
              onChange={(event) => change(i, { shade: event.target.value })}
              className="h-9 w-full rounded border border-line bg-raised"
            />
            <input
              aria-label={`Colour name of the ${face} face`}
              aria-invalid={bad || undefined}
              value={colour.name}
              onChange={(event) => change(i, { name: event.target.value })}
              className="min-h-9 min-w-0 rounded-md border border-line bg-raised px-2 aria-invalid:border-rose"
            />
            <select
              aria-label={`Mark of the ${face} face`}
              value={colour.mark}
              onChange={(event) => change(i, { mark: event.target.value as Colour['mark'] })}
              className="min-h-9 rounded-md border border-line bg-raised px-1 text-sm"
            >
              {MARKS.map((mark) => (
                <option key={mark}>{mark}</option>
              ))}
            </select>
          </div>
        )
      })}
    </fieldset>
  )
}
