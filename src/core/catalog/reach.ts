/**
 * Puzzles and schools of people's own are learned by a whole process, which may serve several people. What
 * each of them may see is said by the host of the core: a page and the command line serve one and say nothing.
 */

/** Ids of puzzle files, and of schools as `reachOfSchool` writes them. */
export interface Reach {
  readonly puzzles: ReadonlySet<string>
  readonly schools: ReadonlySet<string>
}

// On the global object: a server's build holds the core several times, and all are to ask the same.
const host = globalThis as { merryReach?: () => Reach }

/** From now on only what this says is known, asked anew each time. Undefined: all that was learned. */
export function limitReach(now: (() => Reach) | undefined): void {
  host.merryReach = now
}

export const isInReach = (kind: keyof Reach, id: string): boolean =>
  host.merryReach?.()[kind].has(id) ?? true

export const isReachLimited = (): boolean => host.merryReach !== undefined

/** The same school may be kept for several puzzles. */
export const reachOfSchool = (puzzleId: string, schoolId: string): string =>
  `${puzzleId} ${schoolId}`
