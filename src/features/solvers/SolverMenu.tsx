'use client'

import { ChevronDown } from 'lucide-react'
import Link from 'next/link'
import { DropdownMenu } from 'radix-ui'
import { useState } from 'react'
import { toast } from 'sonner'
import type { Solver } from '@/server/profiles'
import { heard } from '@/ui/heard'
import { chooseSolver, otherSolvers } from './actions'
import { goOnAs } from './goOnAs'
import { OtherSolver } from './OtherSolver'

type Named = Pick<Solver, 'id' | 'nickname'>

/** More are chosen on the page of all. */
const SHOWN = 8

const item =
  'flex min-h-9 cursor-pointer items-center rounded px-3 text-sm outline-none data-[highlighted]:bg-raised'

/** Who is solving, on every screen, and the way to another. */
export function SolverMenu({ solver }: { solver: Named }) {
  const [others, setOthers] = useState<readonly Named[]>()
  const look = async (open: boolean) => {
    if (!open) return
    const all = await otherSolvers().catch(() => [])
    setOthers(all.filter(({ id }) => id !== solver.id))
  }
  const choose = async ({ id }: Named) => {
    const chosen = await heard(() => chooseSolver(id))
    if (chosen.ok) goOnAs(id)
    else toast.error(chosen.problem.sentence)
  }
  return (
    <>
      <OtherSolver solver={solver} />
      {/* Not modal, and in its place: the page beside it stays readable. */}
      <DropdownMenu.Root modal={false} onOpenChange={(open) => void look(open)}>
        <DropdownMenu.Trigger
          aria-label={`Solving as ${solver.nickname}`}
          className="flex min-h-9 min-w-0 items-center gap-2 rounded-md px-1.5 text-sm text-soft hover:bg-raised hover:text-ink"
        >
          <Initial name={solver.nickname} />
          <span className="max-w-28 truncate max-md:sr-only">{solver.nickname}</span>
          <ChevronDown size={14} aria-hidden className="max-md:hidden" />
        </DropdownMenu.Trigger>
        <DropdownMenu.Content
          align="end"
          sideOffset={4}
          className="z-50 min-w-48 rounded-lg border border-line bg-surface p-1.5 shadow-2xl"
        >
          <DropdownMenu.Label className="px-3 py-1.5 text-sm text-soft">
            Solving as {solver.nickname}
          </DropdownMenu.Label>
          {others?.slice(0, SHOWN).map((other) => (
            <DropdownMenu.Item key={other.id} className={item} onSelect={() => void choose(other)}>
              <span className="max-w-56 truncate">Go on as {other.nickname}</span>
            </DropdownMenu.Item>
          ))}
          <DropdownMenu.Separator className="my-1 h-px bg-line" />
          <DropdownMenu.Item asChild className={item}>
            <Link href="/solvers">All solvers</Link>
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Root>
    </>
  )
}

export const Initial = ({ name }: { name: string }) => (
  <span
    aria-hidden
    className="grid size-6 shrink-0 place-items-center rounded-full border border-line bg-raised font-display text-xs text-ink"
  >
    {[...name][0]?.toUpperCase()}
  </span>
)
