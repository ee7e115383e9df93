/** The log as it is looked at: one page of solves, and what all of them amount to. */
import type { StageSum, Totals } from '../core/statistics/summary'
import { rowsOf } from './pool'
import { solvesWhere, type Solve } from './solves'

export interface LogFilter {
  readonly puzzle?: string
  readonly solver?: string
  readonly school?: string
}

/** Values to filter by, each once. */
export interface LogChoices {
  readonly puzzles: readonly string[]
  readonly solvers: readonly string[]
  readonly schools: readonly string[]
}

export interface LogView {
  readonly choices: LogChoices
  /** Of all solves that pass the filter. */
  readonly totals: Totals
  /** When each of them was finished, in milliseconds since 1970, the newest first. */
  readonly finishedAt: readonly number[]
  /** From 1 to `pages`. */
  readonly page: number
  readonly pages: number
  /** How many stand on a page; on the last one fewer. */
  readonly onAPage: number
  /** Those on the page. */
  readonly solves: readonly Solve[]
}

const ON_A_PAGE = 50

const COLUMNS = { puzzle: 'puzzle_id', solver: 'solver', school: 'school' } as const

/** A condition on solves, and the values for it after `$1`, the profile. */
function condition(filter: LogFilter): { readonly text: string; readonly values: string[] } {
  const given = Object.entries(COLUMNS).flatMap(([field, column]) => {
    const value = filter[field as keyof LogFilter]
    return value === undefined ? [] : [{ column, value }]
  })
  return {
    text: ['s.profile_id = $1', ...given.map(({ column }, i) => `s.${column} = $${i + 2}`)].join(
      ' and ',
    ),
    values: given.map(({ value }) => value),
  }
}

/** @param asked the page, counted from 1; the last one where there are fewer */
export async function lookAtLog(
  profileId: string,
  filter: LogFilter,
  asked: number,
): Promise<LogView> {
  const [choices, { totals, finishedAt }] = await Promise.all([
    choicesOf(profileId),
    totalsOf(profileId, filter),
  ])
  const pages = Math.max(1, Math.ceil(finishedAt.length / ON_A_PAGE))
  const page = Math.min(Math.max(1, asked), pages)
  const { text, values } = condition(filter)
  const solves = await solvesWhere(profileId, text, values, {
    limit: ON_A_PAGE,
    offset: (page - 1) * ON_A_PAGE,
  })
  return { choices, totals, finishedAt, page, pages, onAPage: ON_A_PAGE, solves }
}

async function choicesOf(profileId: string): Promise<LogChoices> {
  const [puzzles, solvers, schools] = await Promise.all(
    Object.values(COLUMNS).map((column) => distinct(profileId, column)),
  )
  return { puzzles, solvers, schools }
}

/** Each value once, found by going from one to the next in the index, not by reading all rows. */
async function distinct(profileId: string, column: string): Promise<string[]> {
  const { rows } = await rowsOf(profileId).query<{ value: string }>(
    `with recursive each (value) as (
       (select ${column} from solves where profile_id = $1 and ${column} > ''
        order by ${column} limit 1)
       union all
       select (select ${column} from solves where profile_id = $1 and ${column} > each.value
               order by ${column} limit 1)
       from each where each.value is not null)
     select value from each where value is not null`,
    [profileId],
  )
  return rows.map(({ value }) => value)
}

async function totalsOf(
  profileId: string,
  filter: LogFilter,
): Promise<Pick<LogView, 'totals' | 'finishedAt'>> {
  const { text, values } = condition(filter)
  // As one text: it is read far quicker than a row a solve. The order stands in the aggregate itself: rows that a
  // subquery has put in order reach an aggregate in whatever order suits the others beside it.
  const all = await rowsOf(profileId).query<{
    each: string | null
    slips: number
    hints: number
    puzzles: number
  }>(
    `select string_agg(
         concat_ws(' ', elapsed_ms, turn_count, (extract(epoch from finished_at) * 1000)::bigint),
         ',' order by finished_at desc, id) as each,
       coalesce(sum(slips), 0)::int as slips, coalesce(sum(hints), 0)::int as hints,
       count(distinct puzzle_id)::int as puzzles
     from solves s where ${text}`,
    [profileId, ...values],
  )
  const { each, slips, hints, puzzles } = all.rows[0]
  const solves = each === null ? [] : each.split(',').map((one) => one.split(' ').map(Number))
  const column = (at: number) => solves.map((one) => one[at])
  // Stages of different puzzles are not added up.
  const stages = puzzles === 1 ? await stageSums(profileId, text, values) : []
  return {
    finishedAt: column(2),
    totals: {
      elapsedMs: column(0),
      turnCounts: column(1),
      slips,
      hints,
      puzzles,
      stages,
    },
  }
}

async function stageSums(
  profileId: string,
  condition: string,
  values: readonly string[],
): Promise<StageSum[]> {
  const { rows } = await rowsOf(profileId).query<{
    school: string | null
    name: string
    count: number
    elapsed_ms: number
    turn_count: number
  }>(
    `select s.school, t.name, count(*)::int as count, sum(t.elapsed_ms)::bigint as elapsed_ms,
       sum(t.turn_count)::bigint as turn_count
     from solves s join solve_stages t on t.solve_id = s.id
     where ${condition}
     group by s.school, t.name order by s.school, min(t.ordinal), t.name`,
    [profileId, ...values],
  )
  return rows.map(({ school, name, count, elapsed_ms, turn_count }) => ({
    ...(school === null ? {} : { school }),
    name,
    count,
    elapsedMs: elapsed_ms,
    turnCount: turn_count,
  }))
}
