/**
 * Back into shape: on a puzzle that changes shape the shape is a look of its 3x3x3 core, whose turns are
 * always free. A table of the core's corners and one of its edges, each alone, say how many turns are
 * needed at least; an iterative deepening search joins them. Colours are left out of account.
 */
import { frameOf } from '../analysis/frame'
import { spanOf } from '../analysis/invariants'
import { unseenChanges } from '../analysis/lookAlikes'
import { orbitsOf } from '../analysis/orbits'
import { coreOf, riding } from '../analysis/shapes'
import { sumsOf, vectorOfState } from '../analysis/sums'
import { same } from '../geometry/vector'
import type { Puzzle, Turn } from '../puzzle/compile'
import { IDENTITY, multiply } from '../rotation'
import { start, type State } from '../state'
import { effectOfTurn } from './effects'

/** Deepest search; every shape is within it. */
const MOST_TURNS = 14
/** Looks of one place are numbered below this. */
const LOOKS = 4
const UNREACHED = 255

/** Looks of some places of the core, without regard to which equal piece shows them. */
interface Part {
  readonly places: readonly number[]
  /** For each place its looks, the finished one first. */
  readonly looks: readonly (readonly number[])[]
  /** For each turn, `[4 * place + look]` (positions): where that look goes and what it becomes. */
  readonly moves: readonly Uint8Array[]
  /** Turns to the finished look, by the looks of all places as digits. */
  readonly distances: Uint8Array
}

interface Shaper {
  readonly core: Puzzle
  /** For each core piece the piece of the puzzle in the same cell. */
  readonly carriers: readonly number[]
  readonly turns: readonly { readonly turn: Turn; readonly axis: string }[]
  readonly parts: readonly Part[]
}

const shapers = new WeakMap<Puzzle, Shaper | null>()

/** Undefined if the puzzle has no core, or pieces of the core are hidden. */
function shaperOf(puzzle: Puzzle): Shaper | undefined {
  const known = shapers.get(puzzle)
  if (known !== undefined) return known ?? undefined
  const core = coreOf(puzzle)
  const carriers = (core?.pieces ?? []).map(({ cells }) =>
    puzzle.pieces.findIndex((piece) => same(piece.cells[0], cells[0])),
  )
  const isMoved = (p: number) => core?.pieces[p].kind !== 'centre'
  if (!core || carriers.some((carrier, p) => carrier < 0 && isMoved(p))) {
    shapers.set(puzzle, null)
    return undefined
  }
  // Core layers carry all beyond, so they have the same names and rotations on the puzzle.
  const coreTurns = frameOf(core).turns
  const turns = coreTurns.map(({ name }) => {
    const turn = puzzle.turnByName.get(name) as Turn
    return { turn, axis: puzzle.grips[turn.grip].axis.map(Math.abs).join() }
  })
  const parts = orbitsOf(core)
    .filter(({ places }) => places.length > 1)
    .map(({ places }) => partOf(core, places, coreTurns))
  const shaper = { core, carriers, turns, parts }
  shapers.set(puzzle, shaper)
  return shaper
}

/** Whether shapes can be brought back: the core is seen whole. */
export const canReshape = (puzzle: Puzzle): boolean => shaperOf(puzzle) !== undefined

/**
 * Whether turns lead to the shape of a state, core home: judged by the sums of the core, whose pieces
 * look alike wherever they carry the same.
 */
export function canTakeShape(puzzle: Puzzle, state: State): boolean {
  const shaper = shaperOf(puzzle)
  if (!shaper) return false
  const { core, carriers } = shaper
  const slots = (of: State) =>
    Array.from(of, (r, p) => puzzle.slot[24 * p + r])
      .sort((a, b) => a - b)
      .join()
  const shape = Uint8Array.from(carriers, (carrier) => (carrier < 0 ? IDENTITY : state[carrier]))
  // What lies beyond the core must ride on it.
  if (slots(riding(puzzle, core, shape)) !== slots(state)) return false
  const sums = sumsOf(core)
  const unseen = unseenChanges(core).map(({ make }) => vectorOfState(core, sums, make(start(core))))
  const { cosetOf } = spanOf([...sums.turns, ...unseen], sums.moduli)
  return cosetOf(vectorOfState(core, sums, shape)) === cosetOf(sums.moduli.map(() => 0))
}

function partOf(core: Puzzle, places: readonly number[], turns: readonly Turn[]): Part {
  const looks = places.map((place): number[] => [core.look[24 * place]])
  const effects = turns.map((turn) => effectOfTurn(core, turn))
  // Every look that a piece can show in a place, with a placement that shows it.
  const samples = places.map((place) => [{ piece: place, rotation: 0 }])
  for (let grown = true; grown;) {
    grown = false
    places.forEach((_, i) =>
      samples[i].forEach(({ piece, rotation }) => {
        for (const effect of effects) {
          const r = productOf(core, effect, piece, rotation)
          const to = places.indexOf(core.place[24 * piece + r])
          const look = core.look[24 * piece + r]
          if (looks[to].includes(look)) continue
          looks[to].push(look)
          samples[to].push({ piece, rotation: r })
          grown = true
        }
      }),
    )
  }
  const moves = effects.map((effect) => {
    const table = new Uint8Array(places.length * LOOKS)
    places.forEach((_, i) =>
      samples[i].forEach(({ piece, rotation }, look) => {
        const r = productOf(core, effect, piece, rotation)
        const to = places.indexOf(core.place[24 * piece + r])
        table[LOOKS * i + look] = LOOKS * to + looks[to].indexOf(core.look[24 * piece + r])
      }),
    )
    return table
  })
  return { places, looks, moves, distances: distancesOf(places.length, moves) }
}

const productOf = (core: Puzzle, effect: Uint8Array, piece: number, rotation: number): number =>
  multiply(effect[core.place[24 * piece + rotation]], rotation)

const keyOf = (looks: Uint8Array): number => looks.reduce((key, look) => key * LOOKS + look, 0)

function turned(looks: Uint8Array, move: Uint8Array): Uint8Array {
  const next = new Uint8Array(looks.length)
  for (let i = 0; i < looks.length; i++) {
    const to = move[LOOKS * i + looks[i]]
    next[(to / LOOKS) | 0] = to % LOOKS
  }
  return next
}

function distancesOf(size: number, moves: readonly Uint8Array[]): Uint8Array {
  const distances = new Uint8Array(LOOKS ** size).fill(UNREACHED)
  let front = [new Uint8Array(size)]
  distances[0] = 0
  for (let depth = 1; front.length > 0; depth++) {
    const next: Uint8Array<ArrayBuffer>[] = []
    for (const looks of front)
      for (const move of moves) {
        const moved = Uint8Array.from(turned(looks, move))
        const key = keyOf(moved)
        if (distances[key] !== UNREACHED) continue
        distances[key] = depth
        next.push(moved)
      }
    front = next
  }
  return distances
}

/** The fewest core turns that bring a state, core home, back into shape. */
export function reshape(puzzle: Puzzle, state: State): Turn[] | undefined {
  const shaper = shaperOf(puzzle)
  if (!shaper) return undefined
  const { core, carriers, turns, parts } = shaper
  const begun = parts.map(({ places, looks }) => {
    const shown = new Uint8Array(places.length)
    for (const p of places) {
      const at = 24 * p + state[carriers[p]]
      const to = places.indexOf(core.place[at])
      shown[to] = looks[to].indexOf(core.look[at])
    }
    return shown
  })
  const path: Turn[] = []
  const search = (
    now: readonly Uint8Array[],
    left: number,
    axis: string,
    grip: number,
  ): boolean => {
    let least = 0
    for (let i = 0; i < parts.length; i++)
      least = Math.max(least, parts[i].distances[keyOf(now[i])])
    if (least > left) return false
    if (least === 0) return true
    for (const [t, each] of turns.entries()) {
      if (each.turn.grip === grip || (each.axis === axis && each.turn.grip < grip)) continue
      const next = now.map((looks, i) => turned(looks, parts[i].moves[t]))
      path.push(each.turn)
      if (search(next, left - 1, each.axis, each.turn.grip)) return true
      path.pop()
    }
    return false
  }
  for (let depth = 0; depth <= MOST_TURNS; depth++)
    if (search(begun, depth, '', -1)) return [...path]
  return undefined
}
