'use client'

import { format } from 'date-fns'
import { useRouter } from 'next/navigation'
import { useMemo, useState, useTransition } from 'react'
import { toast } from 'sonner'
import { puzzleById } from '@/core/catalog'
import { variantWords } from '@/core/coach/variantWords'
import { inverseOf } from '@/core/notation/rewrite'
import { readTurns } from '@/core/notation/read'
import { writeTurns } from '@/core/notation/write'
import type { Scheme } from '@/core/puzzle/colours'
import { must } from '@/core/result'
import { schoolNamed } from '@/core/schools'
import type { Settings } from '@/core/settings'
import { readState } from '@/core/state'
import type { Solve } from '@/server/solves'
import { Button } from '@/ui/Button'
import { heard } from '@/ui/heard'
import { LeaveOff, type Running } from '@/ui/LeaveOff'
import { TextArea } from '@/ui/Field'
import { Player } from '@/ui/player/Player'
import { useSequence } from '@/ui/player/useSequence'
import { clockTime } from '@/ui/time'
import { useReducedMotion } from '@/ui/useReducedMotion'
import { discardSolve, saveRemark, solveAgain } from './actions'

const counted = (n: number, word: string): string => `${n} ${word}${n === 1 ? '' : 's'}`

/** One solve: played again turn by turn, its splits, its scramble forwards and backwards. */
export function SolveScreen({
  solve,
  scheme,
  settings,
}: {
  solve: Solve
  scheme: Scheme
  settings: Settings
}) {
  const router = useRouter()
  const puzzle = must(puzzleById(solve.puzzleId))
  const [remark, setRemark] = useState(solve.remark)
  const [sure, setSure] = useState(false)
  const [pending, begin] = useTransition()
  const [running, setRunning] = useState<Running>()
  const again = (instead?: string) =>
    begin(async () => {
      setRunning(undefined)
      const opened = await heard(() => solveAgain(solve.id, instead))
      if (!opened.ok) return void toast.error(opened.problem.sentence)
      if ('running' in opened.value) return setRunning(opened.value.running)
      router.push(`/bench/${opened.value.bench}`)
    })
  const turns = useMemo(() => must(readTurns(puzzle, solve.solution)), [puzzle, solve.solution])
  const begun = useMemo(() => must(readState(puzzle, solve.startState)), [puzzle, solve.startState])
  const [speed, setSpeed] = useState(settings.turnMs)
  const reduced = useReducedMotion()
  const played = useSequence(puzzle, begun, turns, reduced ? 0 : speed)
  const backwards = useMemo(() => {
    const scramble = must(readTurns(puzzle, solve.scramble))
    return writeTurns(inverseOf(puzzle, scramble), settings.writeDialect)
  }, [puzzle, settings.writeDialect, solve.scramble])
  const school = solve.school ? schoolNamed(solve.puzzleId, solve.school) : undefined

  return (
    <div className="mx-auto grid w-full max-w-6xl gap-4 px-4 py-5 sm:px-6">
      <div>
        <h1 className="text-2xl">
          {puzzle.definition.name}, {format(solve.finishedAt, 'd MMMM yyyy')}
        </h1>
        <p className="text-soft">
          {[
            solve.solver,
            school?.ok
              ? [school.value.name, variantWords(school.value, solve.variant)]
                  .filter(Boolean)
                  .join(', ')
              : 'Free play',
            clockTime(solve.elapsedMs),
            `${solve.turnCount} turns (${solve.quarterCount} in quarters)`,
            counted(solve.slips, 'slip'),
            `${counted(solve.hints, 'hint')} asked for`,
          ]
            .filter(Boolean)
            .join(' · ')}
        </p>
      </div>
      <div className="grid gap-4 lg:grid-cols-[1fr_22rem]">
        <Player
          puzzle={puzzle}
          scheme={scheme}
          marks={settings.marks}
          dialect={settings.writeDialect}
          played={played}
          label="The puzzle"
          listLabel="Turns of the solve"
          height="h-[22rem]"
          speed={speed}
          onSpeed={setSpeed}
        />
        <div className="grid content-start gap-4">
          {solve.splits.length > 0 && (
            <section className="rounded-lg border border-line bg-surface p-4">
              <h2 className="mb-2 text-lg">Splits</h2>
              <table className="w-full text-sm">
                <tbody>
                  {solve.splits.map(({ name, elapsedMs, turnCount }, i) => (
                    <tr key={i} className="border-t border-line first:border-0">
                      <th scope="row" className="py-1 text-left font-normal">
                        {name}
                      </th>
                      <td className="turns text-right">{clockTime(elapsedMs)}</td>
                      <td className="turns pl-4 text-right">{counted(turnCount, 'turn')}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </section>
          )}
          {solve.scramble && (
            <section className="rounded-lg border border-line bg-surface p-4 text-sm">
              <h2 className="mb-1 text-lg">Scramble</h2>
              <p className="turns">
                {writeTurns(must(readTurns(puzzle, solve.scramble)), settings.writeDialect)}
              </p>
              <h3 className="mt-2 text-soft">Backwards, to undo it</h3>
              <p className="turns">{backwards}</p>
            </section>
          )}
          {running && (
            <LeaveOff
              running={running}
              onLeaveOff={() => again(running.id)}
              onClose={() => setRunning(undefined)}
            />
          )}
          <form
            className="grid gap-2"
            onSubmit={(event) => {
              event.preventDefault()
              begin(async () => {
                const saved = await heard(() => saveRemark(solve.id, remark))
                if (saved.ok) toast('Kept.')
                else toast.error(saved.problem.sentence)
              })
            }}
          >
            <TextArea
              label="Remark"
              rows={2}
              value={remark}
              onChange={(event) => setRemark(event.target.value)}
            />
            <div className="flex flex-wrap gap-2">
              <Button type="submit" disabled={pending || remark === solve.remark}>
                Keep the remark
              </Button>
              <Button disabled={pending} onClick={() => again()}>
                Solve it again
              </Button>
              <Button
                weight={sure ? 'wrong' : 'quiet'}
                disabled={pending}
                onClick={() => {
                  if (!sure) return setSure(true)
                  begin(async () => {
                    const gone = await heard(() => discardSolve(solve.id))
                    if (gone.ok) router.push('/log')
                    else toast.error(gone.problem.sentence)
                  })
                }}
              >
                {sure ? 'Remove it for good' : 'Remove'}
              </Button>
            </div>
          </form>
        </div>
      </div>
    </div>
  )
}
