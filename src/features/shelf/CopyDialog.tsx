'use client'

import { Plus } from 'lucide-react'
import { useRouter } from 'next/navigation'
import { useState, useTransition } from 'react'
import { toast } from 'sonner'
import { CATALOG } from '@/core/catalog'
import { MARKS, type Colour, type Scheme } from '@/core/puzzle/colours'
import type { Problem } from '@/core/result'
import type { Copy } from '@/server/copies'
import { Button } from '@/ui/Button'
import { Choice, TextArea, TextField } from '@/ui/Field'
import { Sheet } from '@/ui/Sheet'
import { discardCopy, saveCopy } from './actions'

const schemeOf = (puzzleId: string): Scheme =>
  CATALOG.find(({ id }) => id === puzzleId)?.colours ?? []

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
      <Button weight="quiet" onClick={() => setOpen(true)} aria-label={`Change ${copy.name}`}>
        Change
      </Button>
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
  const [puzzleId, setPuzzleId] = useState(copy?.puzzleId ?? CATALOG[0].id)
  const [name, setName] = useState(copy?.name ?? '')
  const [remarks, setRemarks] = useState(copy?.remarks ?? '')
  const [scheme, setScheme] = useState<Scheme>(copy?.scheme ?? schemeOf(CATALOG[0].id))
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
          value={puzzleId}
          options={CATALOG.map((each) => ({ value: each.id, name: each.name }))}
          onChange={(event) => {
            setPuzzleId(event.target.value)
            setScheme(schemeOf(event.target.value))
          }}
        />
      )}
      <TextField
        label="Your name for it"
        value={name}
        error={errorAt('name')}
        autoFocus={!copy}
        onChange={(event) => setName(event.target.value)}
      />
      <SchemeFields scheme={scheme} problem={problem} onChange={setScheme} />
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

const SIDES: Readonly<Record<string, string>> = {
  up: 'top',
  down: 'bottom',
  front: 'front',
  back: 'back',
  right: 'right',
  left: 'left',
}

function SchemeFields({
  scheme,
  problem,
  onChange,
}: {
  scheme: Scheme
  problem?: Problem
  onChange: (scheme: Scheme) => void
}) {
  const change = (index: number, part: Partial<Colour>) =>
    onChange(scheme.map((colour, i) => (i === index ? { ...colour, ...part } : colour)))
  const { faces } = CATALOG[0]
  return (
    <fieldset className="grid gap-2">
      <legend className="mb-1 text-sm font-bold">Colours, as the finished puzzle is held</legend>
      {scheme.map((colour, i) => {
        const face = Object.entries(faces).find(([, id]) => id === colour.id)?.[0] ?? ''
        const bad = problem?.field?.startsWith(`scheme[${i}]`)
        return (
          <div key={colour.id} className="grid grid-cols-[4rem_3rem_1fr_6rem] items-center gap-2">
            <span className="text-sm text-soft">{SIDES[face] ?? ''}</span>
            <input
              type="color"
              aria-label={`Shade of the ${SIDES[face]} face`}
              value={colour.shade}
              onChange={(event) => change(i, { shade: event.target.value })}
              className="h-9 w-full rounded border border-line bg-raised"
            />
            <input
              aria-label={`Colour name of the ${SIDES[face]} face`}
              aria-invalid={bad || undefined}
              value={colour.name}
              onChange={(event) => change(i, { name: event.target.value })}
              className="min-h-9 min-w-0 rounded-md border border-line bg-raised px-2 aria-invalid:border-rose"
            />
            <select
              aria-label={`Mark of the ${SIDES[face]} face`}
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
