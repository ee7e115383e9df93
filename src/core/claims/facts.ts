/** What is said about one piece, and about how the puzzle stands: most telling first. */
import { blockedNow, factsOf, turnedInPlace } from '../analysis/anatomy'
import { carriedBy, fitOf } from '../analysis/fit'
import type { Puzzle, Turn } from '../puzzle/compile'
import { blockOf, turnFreely, type Block, type State } from '../state'
import type { Claim, Said } from './claim'
import { spinClaims } from './spun'

export function factsSaid(puzzle: Puzzle, at: number): Said {
  const { slots, alike, inPlace, partners } = factsOf(puzzle, at)
  const { pieces } = puzzle
  const piece = pieces[at].id
  const homes = slots.filter((slot) => slot < pieces.length)
  if (slots.length === 1 && inPlace.ways === 1) return [{ kind: 'isCore', piece }]
  const said: Claim[] = []
  if (slots.length === 1) said.push({ kind: 'onlyTurns', piece })
  else {
    const kinds = [...new Set(homes.map((slot) => pieces[slot].kind))]
    said.push({ kind: 'reaches', piece, count: homes.length, kinds })
    if (slots.length > homes.length)
      said.push({ kind: 'reachesOutside', piece, count: slots.length - homes.length })
  }
  for (const { turn, slot } of partners)
    said.push({
      kind: 'tradedBy',
      piece,
      turn,
      ...(slot < pieces.length && { place: pieces[slot].id }),
    })
  said.push({ kind: 'waysToLie', piece, ways: inPlace.ways, seen: inPlace.looks })
  if (alike.length > 0)
    said.push({ kind: 'likeThose', piece, of: alike.map((other) => pieces[other].id) })
  return said
}

/** Where a piece lies in a position. */
export function lyingSaid(puzzle: Puzzle, state: State, at: number): Said {
  const slot = puzzle.slot[24 * at + state[at]]
  const place = slot < puzzle.pieces.length ? { place: puzzle.pieces[slot].id } : {}
  const fit = fitOf(puzzle, at, state[at])
  return [{ kind: 'liesNow', piece: puzzle.pieces[at].id, ...place, fit }]
}

/** What a turn would carry; or why it is blocked. */
export function carryingSaid(puzzle: Puzzle, state: State, turn: Turn): Said {
  const block = blockOf(puzzle, state, turn)
  if (block) return [blockClaim(puzzle, turn, block)]
  const carried = carriedBy(puzzle, state, turn)
  const after = turnFreely(puzzle, state, turn, new Uint8Array(state.length))
  const fits = carried.map((p) => fitOf(puzzle, p, after[p]))
  const count = (fit: string) => fits.filter((each) => each === fit).length
  const out = count('out')
  return [
    {
      kind: 'wouldCarry',
      turn: turn.name,
      count: carried.length,
      ...(out > 0 && { out }),
      home: count('home'),
    },
  ]
}

/** What does not fit by shape, what is blocked now, and what is turned in its place. */
export function standingSaid(puzzle: Puzzle, state: State): Said {
  const out = [...state].filter((r, p) => fitOf(puzzle, p, r) === 'out').length
  return [
    ...(out > 0 ? [{ kind: 'misfits', count: out } as const] : []),
    ...blockedNow(puzzle, state).flatMap((index): Claim[] => {
      const turn = puzzle.turns[index]
      const block = blockOf(puzzle, state, turn)
      return block ? [blockClaim(puzzle, turn, block)] : []
    }),
    ...spinClaims(puzzle, turnedInPlace(puzzle, state)),
  ]
}

/** Why a turn cannot be made. */
export function blockClaim({ pieces }: Puzzle, { name }: Turn, block: Block): Claim {
  const ids = (all: readonly number[]) => all.map((p) => pieces[p].id)
  return block.kind === 'cuts'
    ? { kind: 'blocked', turn: name, cuts: ids(block.pieces) }
    : { kind: 'blocked', turn: name, empty: ids(block.places) }
}
