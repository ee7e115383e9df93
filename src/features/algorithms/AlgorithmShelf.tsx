'use client'

import { Download, FileUp, Search, Wrench } from 'lucide-react'
import Link from 'next/link'
import { useRouter } from 'next/navigation'
import { Tabs } from 'radix-ui'
import { useMemo, useState } from 'react'
import { toast } from 'sonner'
import { measured, type Measured, type Shelved } from '@/core/algorithms/shelf'
import { CATALOG_NAMES, puzzleById } from '@/core/catalog'
import { rewritten } from '@/core/notation/dialect'
import { readTurns } from '@/core/notation/read'
import { doSequence, sequenceOf } from '@/core/notation/sequence'
import type { Puzzle } from '@/core/puzzle/compile'
import { must } from '@/core/result'
import type { Settings } from '@/core/settings'
import { inverseOf, start } from '@/core/state'
import { capital, inWords, plural } from '@/core/phrases'
import type { OwnAlgorithm } from '@/server/algorithms'
import { Button, LinkButton } from '@/ui/Button'
import { FileButton } from '@/ui/FileButton'
import { Notice } from '@/ui/Notice'
import { PuzzlePicture } from '@/ui/puzzle-picture/PuzzlePicture'
import { ShareBar } from '@/ui/ShareBar'
import { callback, coach } from '@/workers/coach'
import { ImportProgress } from '@/ui/ImportProgress'
import { useImport } from '@/ui/useImport'
import { useShelf } from './useShelf'
import { finderAt, repairAt, sequenceAt } from '@/ui/algorithmAddresses'
import { TurnsField, useTyped } from '@/ui/TurnsField'

interface Row extends Measured {
  readonly text: string
  /** What stands under it: where it is used, or what it is called. */
  readonly about: string
}

const ORDERS = [
  { id: 'given', name: 'as they stand' },
  { id: 'does', name: 'by what it does' },
  { id: 'turns', name: 'fewest turns first' },
  { id: 'ease', name: 'easiest in the hand first' },
] as const

type Order = (typeof ORDERS)[number]['id']

/** The two shelves of a puzzle: what its schools know, and what its solver keeps. */
export function AlgorithmShelf({
  puzzleId,
  settings,
  own,
  unread,
}: {
  puzzleId: string
  settings: Settings
  own: readonly OwnAlgorithm[]
  /** How many are kept that cannot be read any more. */
  unread: number
}) {
  const puzzle = must(puzzleById(puzzleId))
  const router = useRouter()
  const typing = useTyped(puzzle, { settings, puzzleId })
  const { derived, share } = useShelf(puzzleId, settings)
  const rows = useMemo(
    () =>
      own.map(({ turns, name, remark }): Row => {
        const read = must(readTurns(puzzle, turns))
        return {
          text: turns,
          about: [name, remark].filter(Boolean).join(': '),
          ...measured(puzzle, read, settings.hand),
        }
      }),
    [own, puzzle, settings.hand],
  )
  return (
    <div className="mx-auto grid w-full max-w-5xl grow content-start gap-4 px-4 py-5 sm:px-6">
      <div className="flex flex-wrap items-end gap-3">
        <h1 className="grow text-2xl">Algorithms: {puzzle.definition.name}</h1>
        <LinkButton href={finderAt(puzzleId)}>
          <Search size={16} aria-hidden /> Find by what it must do
        </LinkButton>
        <LinkButton href={repairAt(puzzleId)}>
          <Wrench size={16} aria-hidden /> Fix a misheard sequence
        </LinkButton>
      </div>
      <form
        className="grid items-end gap-3 sm:grid-cols-[1fr_auto]"
        onSubmit={(event) => {
          event.preventDefault()
          if (typing.typed.turns) router.push(sequenceAt(puzzleId, typing.typed.turns))
        }}
      >
        <TurnsField label="Try a sequence" typing={typing} />
        <Button type="submit" weight="attend" disabled={!typing.typed.turns} className="sm:mb-7">
          See what it does
        </Button>
      </form>
      <Tabs.Root defaultValue={own.length > 0 ? 'yours' : 'derived'}>
        <Tabs.List aria-label="Shelves" className="mb-3 flex gap-1 border-b border-line">
          {[
            {
              value: 'derived',
              name: derived?.ok ? `Derived (${derived.value.length})` : 'Derived',
            },
            { value: 'yours', name: `Yours (${own.length})` },
          ].map(({ value, name }) => (
            <Tabs.Trigger
              key={value}
              value={value}
              className="min-h-9 border-b-2 border-transparent px-3 text-soft data-[state=active]:border-amber data-[state=active]:text-ink"
            >
              {name}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        <Tabs.Content value="derived" className="grid gap-3">
          {!derived && (
            <div className="grid gap-2">
              <p>Looking at every school.</p>
              <ShareBar share={share} label="Progress" />
            </div>
          )}
          {derived && !derived.ok && <Notice kind="wrong">{derived.problem.sentence}</Notice>}
          {derived?.ok && derived.value.length === 0 && (
            <p className="text-soft">
              No school of this puzzle asks for a sequence by heart: each is worked out where it is
              needed.
            </p>
          )}
          {derived?.ok && derived.value.length > 0 && (
            <>
              <KnownFrom puzzleId={puzzleId} count={derived.value.length} />
              <Rows
                {...{ puzzle, puzzleId, settings }}
                rows={derived.value.map((each) => ({ ...each, about: usesWords(each) }))}
              />
            </>
          )}
        </Tabs.Content>
        <Tabs.Content value="yours" className="grid gap-3">
          <OwnFile puzzleId={puzzleId} count={own.length + unread} />
          {unread > 0 && (
            <Notice kind="wrong">
              {capital(plural(unread, 'sequence'))} of yours cannot be read any more; the file has
              {unread === 1 ? ' it' : ' them'} still.
            </Notice>
          )}
          {own.length === 0 ? (
            <p className="text-soft">
              Nothing is kept yet. Type a sequence above, see what it does, and keep it.
            </p>
          ) : (
            <Rows {...{ puzzle, puzzleId, settings, rows }} />
          )}
        </Tabs.Content>
      </Tabs.Root>
    </div>
  )
}

/** 'Layers: last corners; Reduction: last corners' */
function usesWords({ uses }: Shelved): string {
  const schools = [...new Set(uses.map(({ school }) => school))]
  return schools
    .map((school) => {
      const stages = uses.filter((use) => use.school === school).map(({ stage }) => stage)
      return `${school}: ${stages.join(', ')}`
    })
    .join('; ')
}

function Rows({
  puzzle,
  puzzleId,
  settings,
  rows,
}: {
  puzzle: Puzzle
  puzzleId: string
  settings: Settings
  rows: readonly Row[]
}) {
  const [wanted, setWanted] = useState('')
  const [order, setOrder] = useState<Order>('given')
  const written = useMemo(
    () =>
      rows.map((row) => ({ ...row, turns: rewritten(puzzle, row.text, settings.writeDialect) })),
    [puzzle, rows, settings.writeDialect],
  )
  const words = wanted.toLowerCase().split(/\s+/).filter(Boolean)
  const found = written.filter(({ text, turns, about, summary }) =>
    words.every((word) => `${text} ${turns} ${about} ${summary}`.toLowerCase().includes(word)),
  )
  const sorted = [...found].sort((a, b) => {
    if (order === 'does') return a.summary.localeCompare(b.summary) || a.turnCount - b.turnCount
    if (order === 'turns') return a.turnCount - b.turnCount || a.cost - b.cost
    return order === 'ease' ? a.cost - b.cost : 0
  })
  return (
    <>
      <div className="flex flex-wrap items-center gap-3 text-sm">
        <input
          aria-label="Search these sequences"
          placeholder="Turns, a stage, what it does"
          value={wanted}
          onChange={(event) => setWanted(event.target.value)}
          className="min-h-9 min-w-0 grow rounded-md border border-line bg-raised px-3 placeholder:text-soft"
        />
        <label className="flex items-center gap-2 text-soft">
          Sort
          <select
            value={order}
            onChange={(event) => setOrder(event.target.value as Order)}
            className="min-h-9 rounded border border-line bg-raised px-2 text-ink"
          >
            {ORDERS.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
      </div>
      {sorted.length === 0 && <p className="text-soft">None of them is like that.</p>}
      <ul aria-label="Sequences" className="grid gap-2 md:grid-cols-2">
        {sorted.map((row) => (
          <li
            key={row.text}
            className="[contain-intrinsic-size:auto_6rem] [content-visibility:auto]"
          >
            <Link
              href={sequenceAt(puzzleId, row.text)}
              className="grid h-full grid-cols-[7rem_1fr] items-center gap-3 rounded-lg border border-line bg-surface px-3 py-2 hover:border-soft"
            >
              <CasePicture puzzle={puzzle} text={row.text} marks={settings.marks} />
              <span className="grid min-w-0 gap-0.5">
                <span className="turns [overflow-wrap:anywhere]">{row.turns}</span>
                <span className="text-sm">{row.summary}</span>
                <span className="text-xs text-soft">
                  {[
                    row.about,
                    `${plural(row.turnCount, 'turn')}, ${row.cost.toFixed(1)} in the hand`,
                  ]
                    .filter(Boolean)
                    .join(' \u00b7 ')}
                </span>
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </>
  )
}

/** The position from which it leads to the finished puzzle. */
function CasePicture({ puzzle, text, marks }: { puzzle: Puzzle; text: string; marks: boolean }) {
  const state = useMemo(() => {
    const turns = must(readTurns(puzzle, text))
    return doSequence(sequenceOf(puzzle, inverseOf(puzzle, turns)), start(puzzle))
  }, [puzzle, text])
  return (
    <PuzzlePicture
      puzzle={puzzle}
      state={state}
      scheme={puzzle.definition.colours}
      marks={marks}
      label=""
      className="w-full"
    />
  )
}

/** How many of these one knows already from another puzzle. */
function KnownFrom({ puzzleId, count }: { puzzleId: string; count: number }) {
  const [told, setTold] = useState<string>()
  const look = async (otherId: string) => {
    setTold('Comparing the shelves.')
    const found = await coach().known(
      puzzleId,
      otherId,
      callback(() => undefined),
    )
    if (!found.ok) return setTold(found.problem.sentence)
    const same = found.value.filter(({ as }) => as === 'the same').length
    const others = found.value.length - same
    setTold(
      found.value.length === 0
        ? `You know none of these ${count} from there.`
        : `You know ${inWords(found.value.length)} of these ${count} from there${others === 0 ? '' : `, ${inWords(others)} of them mirrored, taken back or in another hold`}.`,
    )
  }
  return (
    <div className="flex flex-wrap items-center gap-3 text-sm">
      <label className="flex flex-wrap items-center gap-2 text-soft">
        What of them do I know from
        <select
          defaultValue=""
          onChange={(event) => void look(event.target.value)}
          className="min-h-9 rounded border border-line bg-raised px-2 text-ink"
        >
          <option value="" disabled>
            another puzzle
          </option>
          {CATALOG_NAMES.filter(({ id }) => id !== puzzleId).map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
      {told && <p role="status">{told}</p>}
    </div>
  )
}

function OwnFile({ puzzleId, count }: { puzzleId: string; count: number }) {
  const router = useRouter()
  const importing = useImport('sequences', {
    puzzleId,
    onDone: (fresh) => {
      toast(
        fresh === 0
          ? 'All of them were kept already.'
          : `${plural(Number(fresh), 'sequence')} ${fresh === 1 ? 'is' : 'are'} new.`,
      )
      router.refresh()
    },
  })
  return (
    <div className="grid gap-2">
      <div className="flex flex-wrap gap-2">
        {count > 0 && (
          <a
            href={`/api/algorithms/${encodeURIComponent(puzzleId)}`}
            download
            className="inline-flex min-h-9 items-center gap-2 rounded-md border border-line bg-raised px-3 text-sm hover:border-soft"
          >
            <Download size={16} aria-hidden /> As a file
          </a>
        )}
        <FileButton
          label="File of sequences"
          accept=".json,application/json"
          disabled={importing.share !== undefined}
          onChoose={importing.begin}
        >
          <FileUp size={16} aria-hidden /> Read a file
        </FileButton>
      </div>
      <ImportProgress importing={importing} />
      {importing.trouble && <Notice kind="wrong">{importing.trouble}</Notice>}
    </div>
  )
}
