'use client'

import { Download, Upload } from 'lucide-react'
import { useRouter } from 'next/navigation'
import { useState, useTransition } from 'react'
import { toast } from 'sonner'
import type { Problem } from '@/core/result'
import { plural } from '@/core/phrases'
import type { Solver } from '@/server/profiles'
import { Button } from '@/ui/Button'
import { TextField } from '@/ui/Field'
import { FileButton } from '@/ui/FileButton'
import { heard } from '@/ui/heard'
import { ImportProgress } from '@/ui/ImportProgress'
import { Notice } from '@/ui/Notice'
import { Sheet } from '@/ui/Sheet'
import { useImport } from '@/ui/useImport'
import { addSolver, chooseSolver, dropSolver } from './actions'
import { goOnAs } from './goOnAs'
import { Initial } from './SolverMenu'

/** A solver as the server shows one: how long ago something was is the same when the page comes to life. */
export interface ShownSolver extends Omit<Solver, 'lastSolvedAt'> {
  readonly lastSolved?: string
}

/** Everyone who solves on this machine: chosen, added, removed. */
export function SolversScreen({
  solvers,
  here,
  then,
}: {
  solvers: readonly ShownSolver[]
  /** Who is chosen in this browser. */
  here?: string
  /** Where to go when someone is chosen. */
  then: string
}) {
  return (
    <div className="mx-auto grid w-full max-w-4xl gap-6 px-4 py-5 sm:px-6">
      <div>
        <h1 className="text-3xl">{here ? 'Solvers' : 'Who is solving?'}</h1>
        <p className="text-soft">
          Each has a shelf, benches, a log, sequences, settings and keys of their own. There is no
          password: whoever uses this machine may be any of them.
        </p>
      </div>
      <ul className="grid gap-3 sm:grid-cols-2">
        {solvers.map((solver) => (
          <SolverCard
            key={solver.id}
            solver={solver}
            isHere={solver.id === here}
            isAlone={solvers.length === 1}
            then={then}
          />
        ))}
      </ul>
      <NewSolver then={then} />
      <Backup here={solvers.find(({ id }) => id === here)} then={then} />
    </div>
  )
}

function SolverCard({
  solver,
  isHere,
  isAlone,
  then,
}: {
  solver: ShownSolver
  isHere: boolean
  isAlone: boolean
  then: string
}) {
  const [pending, begin] = useTransition()
  const choose = () =>
    begin(async () => {
      const chosen = await heard(() => chooseSolver(solver.id))
      if (chosen.ok) goOnAs(solver.id, then)
      else toast.error(chosen.problem.sentence)
    })
  return (
    <li className="flex flex-col gap-2 rounded-lg border border-line bg-surface p-4">
      <div className="flex min-w-0 items-center gap-2">
        <Initial name={solver.nickname} />
        <h2 className="min-w-0 truncate text-lg" title={solver.nickname}>
          {solver.nickname}
        </h2>
      </div>
      <p className="text-sm text-soft">{belongings(solver)}</p>
      <div className="mt-auto flex min-h-9 flex-wrap items-center gap-2 pt-1">
        {isHere ? (
          <span className="text-sm">Solving now.</span>
        ) : (
          <Button weight="attend" onClick={choose} disabled={pending}>
            <span className="max-w-56 truncate">Go on as {solver.nickname}</span>
          </Button>
        )}
        {!isAlone && <Remove solver={solver} isHere={isHere} />}
      </div>
    </li>
  )
}

function belongings({ copies, solves, lastSolved }: ShownSolver): string {
  const shelf = copies === 0 ? 'An empty shelf' : `${plural(copies, 'puzzle')} on the shelf`
  if (!lastSolved) return `${shelf}, nothing in the log yet.`
  return `${shelf}, ${plural(solves, 'solve')} in the log, the last ${lastSolved}.`
}

function Remove({ solver, isHere }: { solver: ShownSolver; isHere: boolean }) {
  const router = useRouter()
  const [open, setOpen] = useState(false)
  const [pending, begin] = useTransition()
  const remove = () =>
    begin(async () => {
      const done = await heard(() => dropSolver(solver.id))
      if (!done.ok) return void toast.error(done.problem.sentence)
      setOpen(false)
      toast(`${solver.nickname} is removed.`)
      // What this page knows was theirs.
      if (isHere) window.location.assign('/solvers')
      else router.refresh()
    })
  return (
    <>
      <Button
        weight="quiet"
        className="ml-auto"
        aria-label={`Remove ${solver.nickname}`}
        onClick={() => setOpen(true)}
      >
        Remove
      </Button>
      <Sheet
        open={open}
        onOpenChange={setOpen}
        title={`Remove ${solver.nickname}`}
        description="This cannot be taken back."
      >
        <p className="mb-4">
          {plural(solver.copies, 'puzzle')} with their benches, {plural(solver.solves, 'solve')},
          sequences, files and settings go with them.
        </p>
        <Button weight="wrong" onClick={remove} disabled={pending}>
          Remove {solver.nickname} and all of it
        </Button>
      </Sheet>
    </>
  )
}

function NewSolver({ then }: { then: string }) {
  const [nickname, setNickname] = useState('')
  const [problem, setProblem] = useState<Problem>()
  const [pending, begin] = useTransition()
  const add = () =>
    begin(async () => {
      const made = await heard(() => addSolver({ nickname }))
      if (!made.ok) return setProblem(made.problem)
      goOnAs(made.value, then)
    })
  return (
    <form
      className="grid gap-3 rounded-lg border border-line bg-surface p-4"
      onSubmit={(event) => {
        event.preventDefault()
        add()
      }}
    >
      <h2 className="text-lg">Someone new</h2>
      <div className="flex flex-wrap items-end gap-2">
        <div className="min-w-0 grow basis-60">
          <TextField
            label="Nickname"
            value={nickname}
            maxLength={80}
            error={problem?.sentence}
            onChange={(event) => setNickname(event.target.value)}
          />
        </div>
        <Button type="submit" disabled={pending}>
          Begin with an empty shelf
        </Button>
      </div>
    </form>
  )
}

/** Everything of a solver as a file, and back. */
function Backup({ here, then }: { here?: ShownSolver; then: string }) {
  const importing = useImport('backup', {
    found: here !== undefined,
    onDone: (id) => {
      const go = async () => {
        const chosen = await heard(() => chooseSolver(id))
        if (chosen.ok) goOnAs(String(id), then)
        else toast.error(chosen.problem.sentence)
      }
      void go()
    },
  })
  if (!here) return null
  return (
    <section className="grid gap-3 rounded-lg border border-line bg-surface p-4">
      <h2 className="text-lg">Backup</h2>
      <p className="text-sm text-soft">
        Shelf, benches, log, sequences, puzzle and school files and settings in one file. Read here
        or on another machine, it makes a solver of its own; nobody’s things are changed.
      </p>
      <div className="flex flex-wrap items-center gap-2">
        <a
          href="/api/backup"
          download
          className="button button-plain"
          aria-label={`Backup of ${here.nickname}`}
        >
          <Download size={16} aria-hidden /> Backup of {here.nickname}
        </a>
        <FileButton
          label="Backup to restore"
          accept=".json,application/json"
          disabled={importing.share !== undefined}
          onChoose={importing.begin}
        >
          <Upload size={16} aria-hidden /> Restore from a backup
        </FileButton>
        <ImportProgress importing={importing} />
      </div>
      {importing.trouble && <Notice kind="wrong">{importing.trouble}</Notice>}
    </section>
  )
}
