'use client'

import { Trash2, Wrench } from 'lucide-react'
import { useRouter } from 'next/navigation'
import { useState, useTransition } from 'react'
import { coloursOf } from '@/core/analysis/anatomy'
import { lookAlikesOf } from '@/core/analysis/lookAlikes'
import { puzzleById } from '@/core/catalog'
import type { Scheme } from '@/core/puzzle/colours'
import { must, type Problem } from '@/core/result'
import { capital, inWords, kindPlural, listed } from '@/core/phrases'
import type { CareEntry, CareKind } from '@/server/care'
import type { Copy } from '@/server/copies'
import { Button } from '@/ui/Button'
import { heard } from '@/ui/heard'
import { Choice, TextField } from '@/ui/Field'
import { IconButton } from '@/ui/IconButton'
import { Sheet } from '@/ui/Sheet'
import { addCareEntry, removeCareEntry } from './actions'
import { usePuzzleSheet } from './usePuzzleSheet'

const KINDS: readonly { value: CareKind; name: string }[] = [
  { value: 'tension', name: 'Tension set' },
  { value: 'pop', name: 'A piece popped out' },
  { value: 'refit', name: 'Pieces put back' },
  { value: 'stickers', name: 'Stickers' },
]

const kindName = (kind: CareKind) => KINDS.find(({ value }) => value === kind)?.name ?? kind

/** The care of one copy: dated entries, and which fallen pieces may go back anywhere. */
export function Care({ copy, entries }: { copy: Copy; entries: readonly CareEntry[] }) {
  const router = useRouter()
  const { open, setOpen, begin: openSheet } = usePuzzleSheet(copy.puzzleId)
  const [pending, begin] = useTransition()
  const [kind, setKind] = useState<CareKind>('tension')
  const [note, setNote] = useState('')
  const [day, setDay] = useState(today)
  const [problem, setProblem] = useState<Problem>()
  const errorAt = (field: string) => (problem?.field === field ? problem.sentence : undefined)

  const add = () =>
    begin(async () => {
      const added = await heard(() => addCareEntry(copy.id, { happenedOn: day, kind, note }))
      if (!added.ok) return setProblem(added.problem)
      setProblem(undefined)
      setNote('')
      router.refresh()
    })
  const remove = (id: string) =>
    begin(async () => {
      const gone = await heard(() => removeCareEntry(id))
      if (!gone.ok) return setProblem(gone.problem)
      router.refresh()
    })

  return (
    <>
      <IconButton title="Care" label={`Care of ${copy.name}`} onClick={openSheet}>
        <Wrench size={16} aria-hidden />
      </IconButton>
      <Sheet
        open={open}
        onOpenChange={setOpen}
        title={`Care of ${copy.name}`}
        description="Tension, pops, stickers: what was done, and when."
      >
        <form
          className="grid gap-3 sm:grid-cols-2"
          onSubmit={(event) => {
            event.preventDefault()
            add()
          }}
        >
          <Choice
            label="What"
            value={kind}
            options={KINDS}
            onChange={(event) => setKind(event.target.value as CareKind)}
          />
          <TextField
            label="Day"
            type="date"
            value={day}
            error={errorAt('happenedOn')}
            onChange={(event) => setDay(event.target.value)}
          />
          <div className="sm:col-span-2">
            <TextField
              label="Note"
              value={note}
              error={errorAt('note')}
              onChange={(event) => setNote(event.target.value)}
            />
          </div>
          {problem && !['happenedOn', 'note'].includes(problem.field ?? '') && (
            <p role="alert" className="text-sm text-rose sm:col-span-2">
              {problem.sentence}
            </p>
          )}
          <Button weight="attend" type="submit" disabled={pending} className="sm:col-span-2">
            Write it down
          </Button>
        </form>
        {entries.length === 0 ? (
          <p className="mt-4 text-sm text-soft">Nothing is written down yet.</p>
        ) : (
          <ul className="mt-4 divide-y divide-line" aria-label="Entries">
            {entries.map((entry) => (
              <li key={entry.id} className="flex items-start gap-3 py-2 text-sm">
                <time className="turns text-soft">{entry.happenedOn}</time>
                <span className="grow">
                  <b>{kindName(entry.kind)}.</b> {entry.note}
                </span>
                <button
                  type="button"
                  aria-label={`Remove the entry of ${entry.happenedOn}`}
                  disabled={pending}
                  onClick={() => remove(entry.id)}
                  className="grid size-8 place-items-center rounded-md text-soft hover:bg-raised hover:text-rose"
                >
                  <Trash2 size={16} aria-hidden />
                </button>
              </li>
            ))}
          </ul>
        )}
        <FallenPieces copy={copy} />
      </Sheet>
    </>
  )
}

/** Local, because a day is the solver's own. */
function today(): string {
  const now = new Date()
  return new Date(now.getTime() - now.getTimezoneOffset() * 60_000).toISOString().slice(0, 10)
}

function FallenPieces({ copy }: { copy: Copy }) {
  const puzzle = must(puzzleById(copy.puzzleId))
  const sets = equalSets(copy.puzzleId, copy.scheme)
  return (
    <section className="mt-5 text-sm">
      <h3 className="text-base">If pieces fell out</h3>
      {sets.length === 0 ? (
        <p className="mt-1">
          No two of the {puzzle.pieces.length} pieces are equal. Each must go back to its own place,
          the same way round; if you are not sure, put it back solved, or lay it out to have it
          judged.
        </p>
      ) : (
        <>
          <p className="mt-1">
            Equal pieces may go back in each other’s places. Every other piece must go back to its
            own, the same way round.
          </p>
          <ul className="mt-1 list-disc pl-5">
            {sets.map((sentence) => (
              <li key={sentence}>{sentence}</li>
            ))}
          </ul>
        </>
      )}
    </section>
  )
}

const MOST_SETS = 10

/** 'Two centres, orange: L.1 and L.3.' */
function equalSets(puzzleId: string, scheme: Scheme): string[] {
  const puzzle = must(puzzleById(puzzleId))
  const all = lookAlikesOf(puzzle).classes.map((pieces) => {
    const { kind } = puzzle.pieces[pieces[0]]
    const names = listed(pieces.map((p) => puzzle.pieces[p].id))
    return `${capital(inWords(pieces.length))} ${kindPlural(kind)}, ${coloursOf(puzzle, scheme, pieces[0])}: ${names}.`
  })
  const more = all.length - MOST_SETS
  return more > 0 ? [...all.slice(0, MOST_SETS), `And ${more} more sets of the same sort.`] : all
}
