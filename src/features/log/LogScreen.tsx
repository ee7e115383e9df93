import { format } from 'date-fns'
import Link from 'next/link'
import { puzzleById } from '@/core/catalog'
import { schoolName } from '@/core/schools'
import { pointsOf, summaryOf } from '@/core/statistics/summary'
import type { LeftOff } from '@/server/leftOff'
import type { LogFilter, LogView } from '@/server/log'
import { Button, LinkButton } from '@/ui/Button'
import { classes } from '@/ui/classes'
import { clockTime } from '@/ui/time'
import { FilterChoice } from './FilterChoice'
import { LeftOffList } from './LeftOffList'
import { LogFile } from './LogFile'
import { Progress } from './Progress'

/** More than these is not told apart on a chart. */
const MOST_POINTS = 300

/** More are chosen from a list. */
const MOST_IN_A_ROW = 10

const schoolWord = (id: string | undefined): string =>
  (id === undefined ? undefined : schoolName(id)) ?? 'Free play'

const puzzleName = (id: string): string => {
  const puzzle = puzzleById(id)
  return puzzle.ok ? puzzle.value.definition.name : id
}

/** What costs most, how it goes, and every solve. */
export function LogScreen({
  view,
  filter,
  leftOff,
}: {
  view: LogView
  filter: LogFilter
  leftOff: readonly LeftOff[]
}) {
  const { choices, totals, finishedAt, solves: shown } = view
  const isEmpty = finishedAt.length === 0 && Object.values(filter).every((value) => !value)
  const summary = summaryOf(totals)
  const several = new Set(summary?.stages.map(({ school }) => school)).size > 1
  const dearest = summary && [...summary.stages].sort((a, b) => b.share - a.share)[0]
  const { points, together } = pointsOf(finishedAt, totals.elapsedMs, MOST_POINTS)
  return (
    <div className="mx-auto grid w-full max-w-6xl gap-5 px-4 py-5 sm:px-6">
      <div className="flex flex-wrap items-end gap-4">
        <h1 className="grow text-3xl">Log</h1>
        <LogFile hasSolves={!isEmpty} />
      </div>
      {leftOff.length > 0 && <LeftOffList benches={leftOff} />}
      {isEmpty ? (
        <p className="max-w-prose rounded-lg border border-line bg-surface p-5">
          No solve is logged yet. Whatever is solved on the bench is written down here, with the
          time and turns of every stage.
        </p>
      ) : (
        <>
          <div className="flex flex-wrap gap-x-6 gap-y-2">
            <FilterRow
              name="Puzzle"
              field="puzzle"
              values={choices.puzzles}
              filter={filter}
              word={puzzleName}
            />
            <FilterRow
              name="Solver"
              field="solver"
              values={choices.solvers}
              filter={filter}
              word={(v) => v}
            />
            <FilterRow
              name="School"
              field="school"
              values={choices.schools}
              filter={filter}
              word={schoolWord}
            />
          </div>
          {summary && (
            <div className="grid items-start gap-4 lg:grid-cols-[1fr_22rem]">
              <section className="flex flex-col rounded-lg border border-line bg-surface p-4">
                <h2 className="mb-2 text-lg">Progress</h2>
                <div className="relative h-72">
                  <Progress
                    points={points.map(({ at, elapsedMs }) => ({
                      at: format(at, 'd MMM'),
                      elapsedMs,
                    }))}
                    together={together}
                  />
                </div>
                <dl className="mt-4 grid grid-cols-[repeat(2,auto_1fr)] gap-x-4 gap-y-1 text-sm sm:grid-cols-[repeat(3,auto_1fr)] [&>dd]:mr-6">
                  <Fact name="Solves" value={`${summary.count}`} />
                  <Fact name="Mean time" value={clockTime(summary.meanMs)} />
                  <Fact name="Best time" value={clockTime(summary.bestMs)} />
                  {summary.latestFiveMs !== undefined && summary.bestFiveMs !== undefined && (
                    <>
                      <Fact name="Latest five" value={clockTime(summary.latestFiveMs)} />
                      <Fact name="Best five in a row" value={clockTime(summary.bestFiveMs)} />
                    </>
                  )}
                  <Fact name="Mean turns" value={summary.meanTurns.toFixed(1)} />
                  <Fact name="Slips a solve" value={summary.slipsASolve.toFixed(2)} />
                  <Fact name="Hints a solve" value={summary.hintsASolve.toFixed(2)} />
                </dl>
              </section>
              <section className="rounded-lg border border-line bg-surface p-4">
                <h2 className="mb-2 text-lg">What costs you most</h2>
                <p className="mb-3">
                  {dearest
                    ? `${dearest.name}: ${Math.round(dearest.share * 100)} percent of the time.`
                    : summary.puzzles > 1
                      ? 'Choose one puzzle: stages of different puzzles are not added up.'
                      : 'These solves have no stages.'}
                </p>
                <ul className="grid gap-2">
                  {summary.stages.map(({ school, name, meanMs, meanTurns, share }) => (
                    <li key={`${school} ${name}`}>
                      <div className="flex justify-between gap-2 text-sm">
                        <span>
                          {name}
                          {several && <span className="text-soft">, {schoolWord(school)}</span>}
                        </span>
                        <span className="turns whitespace-nowrap text-soft">
                          {clockTime(meanMs)} · {meanTurns.toFixed(1)} turns
                        </span>
                      </div>
                      <div className="mt-1 h-1.5 rounded bg-raised">
                        <div
                          className={classes(
                            'h-full rounded',
                            name === dearest?.name && school === dearest.school
                              ? 'bg-amber'
                              : 'bg-soft',
                          )}
                          style={{ width: `${Math.round(share * 100)}%` }}
                        />
                      </div>
                    </li>
                  ))}
                </ul>
              </section>
            </div>
          )}
          <section className="overflow-x-auto rounded-lg border border-line bg-surface">
            <table className="w-full min-w-[44rem] text-sm">
              <caption className="sr-only">Solves, newest first</caption>
              <thead className="text-left text-soft">
                <tr>
                  {['When', 'Puzzle', 'Solver', 'School'].map((name) => (
                    <th key={name} className="px-4 py-2 font-normal">
                      {name}
                    </th>
                  ))}
                  {['Time', 'Turns', 'Slips', 'Hints'].map((name) => (
                    <th key={name} className="px-4 py-2 text-right font-normal">
                      {name}
                    </th>
                  ))}
                  <th className="px-4 py-2 font-normal">Remark</th>
                </tr>
              </thead>
              <tbody>
                {shown.map((solve) => (
                  <tr key={solve.id} className="border-t border-line hover:bg-raised">
                    <td className="px-4 py-1.5 whitespace-nowrap">
                      <Link
                        href={`/log/${solve.id}`}
                        className="underline decoration-line underline-offset-4"
                      >
                        {format(solve.finishedAt, 'd MMM yyyy, HH:mm')}
                      </Link>
                    </td>
                    <td className="px-4">{puzzleName(solve.puzzleId)}</td>
                    <td className="px-4">{solve.solver}</td>
                    <td className="px-4">{schoolWord(solve.school)}</td>
                    <td className="turns px-4 text-right">{clockTime(solve.elapsedMs)}</td>
                    <td className="turns px-4 text-right">{solve.turnCount}</td>
                    <td className="turns px-4 text-right">{solve.slips}</td>
                    <td className="turns px-4 text-right">{solve.hints}</td>
                    <td className="max-w-64 truncate px-4 text-soft">{solve.remark}</td>
                  </tr>
                ))}
              </tbody>
            </table>
            {shown.length === 0 && <p className="p-4">No solve is like that.</p>}
            <Pages view={view} filter={filter} />
          </section>
        </>
      )}
    </div>
  )
}

const Fact = ({ name, value }: { name: string; value: string }) => (
  <>
    <dt className="text-soft">{name}</dt>
    <dd className="turns text-right">{value}</dd>
  </>
)

/** Where a filter, or a page of it, stands. */
function addressOf(filter: LogFilter, page = 1): string {
  const next = new URLSearchParams()
  for (const [key, value] of Object.entries(filter)) if (value) next.set(key, value)
  if (page > 1) next.set('page', `${page}`)
  const query = next.toString()
  return query ? `/log?${query}` : '/log'
}

/** The way through the pages, and what stands on this one. */
function Pages({ view, filter }: { view: LogView; filter: LogFilter }) {
  const { page, pages, solves, finishedAt } = view
  if (pages < 2) return null
  const first = (page - 1) * view.onAPage + 1
  const ways = [
    { name: 'Newest', to: 1, isThere: page > 1 },
    { name: 'Newer', to: page - 1, isThere: page > 1 },
    { name: 'Older', to: page + 1, isThere: page < pages },
    { name: 'Oldest', to: pages, isThere: page < pages },
  ]
  return (
    <nav
      aria-label="Pages"
      className="sticky left-0 flex flex-wrap items-center gap-2 border-t border-line p-3 text-sm"
    >
      <span className="mr-2">
        {first} to {first + solves.length - 1} of {finishedAt.length}
      </span>
      {ways.map(({ name, to, isThere }) =>
        isThere ? (
          <LinkButton key={name} href={addressOf(filter, to)}>
            {name}
          </LinkButton>
        ) : (
          <Button key={name} disabled>
            {name}
          </Button>
        ),
      )}
    </nav>
  )
}

function FilterRow({
  name,
  field,
  values,
  filter,
  word,
}: {
  name: string
  field: keyof LogFilter
  values: readonly string[]
  filter: LogFilter
  word: (value: string) => string
}) {
  if (values.length < 2) return null
  const href = (value: string | undefined) => addressOf({ ...filter, [field]: value })
  if (values.length > MOST_IN_A_ROW)
    return (
      <FilterChoice
        name={name}
        now={href(filter[field])}
        options={[undefined, ...values].map((value) => ({
          value: href(value),
          name: value === undefined ? 'all' : word(value),
        }))}
      />
    )
  return (
    <nav aria-label={name} className="flex flex-wrap items-center gap-1 text-sm">
      <span className="mr-1 text-soft">{name}</span>
      {[undefined, ...values].map((value) => (
        <Link
          key={value ?? ''}
          href={href(value)}
          aria-current={filter[field] === value ? 'true' : undefined}
          className={classes(
            'rounded-full border px-3 py-1',
            filter[field] === value
              ? 'border-amber text-ink'
              : 'border-line text-soft hover:text-ink',
          )}
        >
          {value === undefined ? 'all' : word(value)}
        </Link>
      ))}
    </nav>
  )
}
