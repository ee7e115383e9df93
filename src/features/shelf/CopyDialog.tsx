'use client'

import { Pencil, Plus } from 'lucide-react'
import { useRouter } from 'next/navigation'
import { useState, useTransition } from 'react'
import { toast } from 'sonner'
import { CATALOG_NAMES, shippedDefinition } from '@/core/catalog'
import { settingId, settingOf, splitId } from '@/core/catalog/setting'
import { MARKS, type Colour, type Scheme } from '@/core/puzzle/colours'
import { DIRECTIONS } from '@/core/puzzle/directions'
import type { PuzzleDefinition } from '@/core/puzzle/definition'
import type { Problem } from '@/core/result'
import type { Copy } from '@/server/copies'
import { Button } from '@/ui/Button'
import { Choice, TextArea, TextField } from '@/ui/Field'
import { IconButton } from '@/ui/IconButton'
import { Sheet } from '@/ui/Sheet'
import { discardCopy, saveCopy } from './actions'

const FIRST = CATALOG_NAMES[0].id

const schemeOf = (puzzleId: string): Scheme => shippedDefinition(puzzleId)?.colours ?? []

export function AddCopy() {
  const [open, setOpen] = useState(false)
  return (
    <>
      <Button weight="attend" onClick={() => setOpen(true)}>
        <Plus size={16} aria-hidden /> Add a puzzle
      </Button>
      <Sheet
        open={open}
        onOpenChange={setOpen}
        title="Add a puzzle"
        description="A puzzle that you own."
      >
        <CopyForm onDone={() => setOpen(false)} />
      </Sheet>
    </>
  )
}

export function EditCopy({ copy }: { copy: Copy }) {
  const [open, setOpen] = useState(false)
  return (
    <>
      <IconButton title="Change" label={`Change ${copy.name}`} onClick={() => setOpen(true)}>
        <Pencil size={16} aria-hidden />
      </IconButton>
      <Sheet
        open={open}
        onOpenChange={setOpen}
        title={copy.name}
        description="Its name, colours and remarks."
      >
        <CopyForm copy={copy} onDone={() => setOpen(false)} />
      </Sheet>
    </>
  )
}

function CopyForm({ copy, onDone }: { copy?: Copy; onDone: () => void }) {
  const router = useRouter()
  const [pending, begin] = useTransition()
  const [puzzleId, setPuzzleId] = useState(copy?.puzzleId ?? FIRST)
  const [name, setName] = useState(copy?.name ?? '')
  const [remarks, setRemarks] = useState(copy?.remarks ?? '')
  const [scheme, setScheme] = useState<Scheme>(copy?.scheme ?? schemeOf(FIRST))
  const [problem, setProblem] = useState<Problem>()
  const [sure, setSure] = useState(false)
  const errorAt = (field: string) => (problem?.field === field ? problem.sentence : undefined)

  const save = () =>
    begin(async () => {
      const saved = await saveCopy({ puzzleId, name, remarks, scheme }, copy?.id)
      if (!saved.ok) return setProblem(saved.problem)
      toast(copy ? 'Changed.' : `${name} stands on the shelf.`)
      onDone()
      router.refresh()
    })

  const discard = () =>
    begin(async () => {
      const done = await discardCopy(copy?.id ?? '')
      if (!done.ok) return setProblem(done.problem)
      onDone()
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
      {!copy && (
        <Choice
          label="Puzzle"
          value={splitId(puzzleId).file}
          options={CATALOG_NAMES.map((each) => ({ value: each.id, name: each.name }))}
          onChange={(event) => {
            setPuzzleId(event.target.value)
            setScheme(schemeOf(event.target.value))
          }}
        />
      )}
      {!copy && <SettingFields puzzleId={puzzleId} onChange={setPuzzleId} />}
      <TextField
        label="Your name for it"
        value={name}
        error={errorAt('name')}
        autoFocus={!copy}
        onChange={(event) => setName(event.target.value)}
      />
      <SchemeFields puzzleId={puzzleId} scheme={scheme} problem={problem} onChange={setScheme} />
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
  const definition = shippedDefinition(puzzleId)
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

/** Which face has a colour: by its direction, or by number on a solid with faces of its own. */
function faceWord({ solid, faces }: PuzzleDefinition, colour: string, index: number): string {
  if (solid) return `${index + 1}.`
  return DIRECTIONS.find(({ name }) => faces[name] === colour)?.adjective ?? ''
}

function SchemeFields({
  puzzleId,
  scheme,
  problem,
  onChange,
}: {
  puzzleId: string
  scheme: Scheme
  problem?: Problem
  onChange: (scheme: Scheme) => void
}) {
  const change = (index: number, part: Partial<Colour>) =>
    onChange(scheme.map((colour, i) => (i === index ? { ...colour, ...part } : colour)))
  const definition = shippedDefinition(puzzleId)
  return (
    <fieldset className="grid gap-2">
      <legend className="mb-1 text-sm font-bold">Colours, as the finished puzzle is held</legend>
      {scheme.map((colour, i) => {
        const face = definition ? faceWord(definition, colour.id, i) : ''
        const bad = problem?.field?.startsWith(`scheme[${i}]`)
        return (
          <div key={colour.id} className="grid grid-cols-[4rem_3rem_1fr_6rem] items-center gap-2">
            <span className="text-sm text-soft">{face}</span>
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
