'use server'

import { CATALOG_NAMES } from '@/core/catalog'
import { shelf } from '@/server/copies'
import { solverId } from '@/server/solver'
import { listSolves } from '@/server/solves'

/** Somewhere to go: `kind` is the screen, `name` what it shows there. */
export interface Place {
  readonly href: string
  readonly kind: string
  readonly name: string
}

const RECENT_SOLVES = 20

/** Every copy with its screens, and the latest solves. */
export async function placesToGo(): Promise<Place[]> {
  const profileId = await solverId()
  const [copies, solves] = await Promise.all([
    shelf(profileId),
    listSolves(profileId, RECENT_SOLVES),
  ])
  return [
    ...copies.flatMap(({ id, name, openSession }) => [
      ...(openSession ? [{ href: `/bench/${openSession}`, kind: 'Bench', name }] : []),
      { href: `/lay-out/${id}`, kind: 'Lay out', name },
      { href: `/anatomy/${id}`, kind: 'Anatomy', name },
    ]),
    ...CATALOG_NAMES.map(({ id, name }) => ({ href: `/anatomy/${id}`, kind: 'Anatomy', name })),
    ...solves.map(({ id, solver, turnCount, finishedAt }) => ({
      href: `/log/${id}`,
      kind: 'Log',
      name: `${finishedAt.toISOString().slice(0, 10)}, ${solver}, ${turnCount} turns`,
    })),
  ]
}
