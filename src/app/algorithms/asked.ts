import { notFound } from 'next/navigation'
import { puzzleById } from '@/core/catalog'
import { settingsFor, type Settings } from '@/core/settings'
import { decoded } from '@/server/address'
import { readSettings } from '@/server/profiles'
import { solverId } from '@/server/solver'

/** The puzzle that an address names, with the profile and its settings. */
export async function puzzleAsked(
  params: Promise<{ puzzleId: string }>,
): Promise<{ readonly puzzleId: string; readonly profileId: string; readonly settings: Settings }> {
  const puzzleId = decoded((await params).puzzleId)
  if (puzzleId === undefined) notFound()
  const profileId = await solverId()
  if (!puzzleById(puzzleId).ok) notFound()
  return { puzzleId, profileId, settings: settingsFor(await readSettings(profileId), puzzleId) }
}

type Query = Promise<Record<string, string | string[] | undefined>>

/** What a page of a puzzle is asked with. */
export interface Asked {
  readonly params: Promise<{ puzzleId: string }>
  readonly searchParams: Query
}

/** One value of an address; empty if it is not there. */
export const valueOf = async (query: Query, name: string): Promise<string> =>
  [(await query)[name] ?? ''].flat()[0] ?? ''
