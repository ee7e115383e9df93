/** Sequences that a person has given names, known again: from another side, mirrored, or the other way round. */
import { readTurns } from '../notation/read'
import { inverseOf, mirrorImages, rehold } from '../notation/rewrite'
import type { Puzzle, Turn } from '../puzzle/compile'
import { IDENTITY } from '../rotation'

export interface Named {
  readonly name: string
  /** Canonical. */
  readonly turns: string
}

export interface Called {
  readonly name: string
  readonly isMirrored: boolean
  readonly isBack: boolean
  /** The same turns in another hold. */
  readonly isReheld: boolean
}

/** By their turns; of two names for the same turns the later one counts. Those without a name are left out. */
export class Names {
  private readonly byTurns = new Map<string, string>()

  constructor(
    private readonly puzzle: Puzzle,
    all: readonly Named[],
  ) {
    for (const { name, turns } of all) {
      const read = readTurns(puzzle, turns)
      if (name !== '' && read.ok) this.byTurns.set(keyOf(puzzle, read.value), name)
    }
  }

  /** What some turns are called, by the least change: undefined where they have no name. */
  of(names: readonly string[]): Called | undefined {
    if (this.byTurns.size === 0) return undefined
    const turns = names.flatMap((name) => this.puzzle.turnByName.get(name) ?? [])
    const ways = [
      { turns, isMirrored: false },
      ...mirrorImages(this.puzzle, turns).map((image) => ({ turns: image, isMirrored: true })),
    ].flatMap(({ turns: own, isMirrored }) => [
      { turns: own, isMirrored, isBack: false },
      { turns: inverseOf(this.puzzle, own), isMirrored, isBack: true },
    ])
    // What is done in the hold that there is comes first.
    for (const hold of this.puzzle.holds)
      for (const { turns: own, ...way } of ways) {
        const name = this.byTurns.get(keyOf(this.puzzle, rehold(this.puzzle, own, hold)))
        if (name !== undefined) return { name, ...way, isReheld: hold !== IDENTITY }
      }
    return undefined
  }
}

/** Which slabs turn and how far, whichever of two letters a slab is called by. */
const keyOf = ({ grips }: Puzzle, turns: readonly Turn[]): string =>
  turns
    .map(({ grip, amount }) => {
      const { axis, from, to, unitDegrees } = grips[grip]
      const full = 360 / unitDegrees
      const isFlipped = (axis.find((c) => c !== 0) ?? 0) < 0
      return isFlipped
        ? [axis.map((c) => 0 - c), negated(to), negated(from), full - amount]
        : [axis, from, to, amount]
    })
    .join(' ')

const negated = (bound: number | null): number | null => (bound === null ? null : 0 - bound)

/** 'Harbour swing, mirrored, backwards, from another side' */
export const calledWords = ({ name, isMirrored, isBack, isReheld }: Called): string =>
  [
    name,
    ...(isMirrored ? ['mirrored'] : []),
    ...(isBack ? ['backwards'] : []),
    ...(isReheld ? ['from another side'] : []),
  ].join(', ')
