/**
 * Back into shape: on a puzzle that changes shape the shape is a look of its 3x3x3 core, whose turns are
 * always free. A table of the core's corners and one of its edges, each alone, say how many turns are
 * needed at least; an iterative deepening search joins them. Colours are left out of account; what is hidden in the core is
 * read off what rides on it.
 */
import { frameOf } from '../analysis/frame'
import { isNothing } from '../analysis/invariants'
import { orbitsOf } from '../analysis/orbits'
import { reachOf } from '../analysis/placements'
import { CARRYING, coreOf } from '../analysis/shapes'
import { seenSpan, sumsOf, vectorOfState } from '../analysis/sums'
import { add } from '../geometry/vector'
import { placed, type Puzzle, type Turn } from '../puzzle/compile'
import { multiply, rotate, ROTATION_COUNT, type Rotation } from '../rotation'
import type { State } from '../state'
import { effectOfTurn } from './effects'

/** Deepest search; every shape is within it. */
const MOST_TURNS = 14
/** Looks of one place are numbered in so many bits. */
const BITS = 2
const LOOKS = 1 << BITS
const UNREACHED = 255

/** Looks of some places of the core, without regard to which equal piece shows them. */
interface Part {
  readonly places: readonly number[]
  /** For each place its looks, the finished one first. */
  readonly looks: readonly (readonly number[])[]
  /** For each turn, `[4 * place + look]` (positions): the bits of what that look becomes where it goes. */
  readonly moves: readonly Int32Array[]
  /** Turns to the finished look, by the looks of all places, two bits each, the first lowest. */
  readonly distances: Uint8Array
}

interface Shaper {
  readonly core: Puzzle
  /** For each core piece's home the slots beyond it, by direction; what lies there rides on what is there. */
  readonly beyond: readonly (readonly { readonly side: string; readonly slot: number }[])[]
  readonly turns: readonly { readonly turn: Turn; readonly axis: string }[]
  readonly parts: readonly Part[]
}

const shapers = new WeakMap<Puzzle, Shaper | null>()

/** Undefined for mechanisms without a core. */
function shaperOf(puzzle: Puzzle): Shaper | undefined {
  const known = shapers.get(puzzle)
  if (known !== undefined) return known ?? undefined
  const core = coreOf(puzzle)
  if (!core) {
    shapers.set(puzzle, null)
    return undefined
  }
  const slotAt = new Map<string, number>()
  puzzle.pieces.forEach(({ cells: [cell], core: own }, p) => {
    for (let r = 0; r < ROTATION_COUNT; r++)
      slotAt.set(String(placed(puzzle.cores[own], r, cell)), puzzle.slot[24 * p + r])
  })
  const beyond = core.pieces.map(({ cells: [cell], faces }) =>
    faces.flatMap(({ normal }) => {
      const slot = slotAt.get(String(add(cell, normal)))
      return slot === undefined ? [] : [{ side: String(normal), slot }]
    }),
  )
  // Core layers carry all beyond, so they have the same names and rotations on the puzzle.
  const coreTurns = frameOf(core).turns
  const turns = coreTurns.map(({ name }) => {
    const turn = puzzle.turnByName.get(name) as Turn
    return { turn, axis: puzzle.grips[turn.grip].axis.map(Math.abs).join() }
  })
  const parts = orbitsOf(core)
    .filter(({ places }) => places.length > 1)
    .map(({ places }) => partOf(core, places, coreTurns))
  const shaper = { core, beyond, turns, parts }
  shapers.set(puzzle, shaper)
  return shaper
}

/** Whether shapes can be brought back. */
export const canReshape = (puzzle: Puzzle): boolean => shaperOf(puzzle) !== undefined

/** The sides of a core piece, as it lies, on which something rides. */
const carriesAt = (core: Puzzle, piece: number, rotation: Rotation): string =>
  core.pieces[piece].faces
    .flatMap(({ colour, normal }) =>
      colour === CARRYING ? [String(rotate(rotation, normal))] : [],
    )
    .sort()
    .join(' ')

/** The shape of a state, core home, as looks of the core: `[place]`; undefined if no piece looks so. */
function shapeOf({ core, beyond }: Shaper, puzzle: Puzzle, state: State): number[] | undefined {
  const filled = new Set(Array.from(state, (r, p) => puzzle.slot[24 * p + r]))
  const looks = beyond.map((slots, place) => {
    const seen = slots
      .flatMap(({ side, slot }) => (filled.has(slot) ? [side] : []))
      .sort()
      .join(' ')
    return lookCarrying(core, place, seen)
  })
  return looks.every((look) => look !== undefined) ? looks : undefined
}

const carrying = new WeakMap<Puzzle, Map<string, number>>()

/** The look of a core place that carries something on these sides. */
function lookCarrying(core: Puzzle, place: number, sides: string): number | undefined {
  let known = carrying.get(core)
  if (!known) {
    known = new Map()
    for (let p = 0; p < core.pieces.length; p++)
      for (const r of reachOf(core)[p])
        known.set(`${core.place[24 * p + r]} ${carriesAt(core, p, r)}`, core.look[24 * p + r])
    carrying.set(core, known)
  }
  return known.get(`${place} ${sides}`)
}

/**
 * Whether turns lead to the shape of a state, core home: judged by the sums of the core, whose pieces
 * look alike wherever they carry the same.
 */
export function canTakeShape(puzzle: Puzzle, state: State): boolean {
  const shaper = shaperOf(puzzle)
  const looks = shaper && shapeOf(shaper, puzzle, state)
  if (!shaper || !looks) return false
  const { core } = shaper
  // Any core piece that looks so will do.
  const shape = new Uint8Array(core.pieces.length)
  const used = new Set<number>()
  for (const [place, look] of looks.entries()) {
    const found = reachOf(core)
      .map((rotations, p) => ({ p, r: rotations.find((r) => core.look[24 * p + r] === look) }))
      .find(({ p, r }) => !used.has(p) && r !== undefined)
    if (!found || core.place[24 * found.p + (found.r ?? 0)] !== place) return false
    used.add(found.p)
    shape[found.p] = found.r ?? 0
  }
  return isNothing(seenSpan(core), vectorOfState(core, sumsOf(core), shape))
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
    const table = new Int32Array(places.length * LOOKS)
    places.forEach((_, i) =>
      samples[i].forEach(({ piece, rotation }, look) => {
        const r = productOf(core, effect, piece, rotation)
        const to = places.indexOf(core.place[24 * piece + r])
        table[LOOKS * i + look] = looks[to].indexOf(core.look[24 * piece + r]) << (BITS * to)
      }),
    )
    return table
  })
  return { places, looks, moves, distances: distancesOf(places.length, moves) }
}

const productOf = (core: Puzzle, effect: Uint8Array, piece: number, rotation: number): number =>
  multiply(effect[core.place[24 * piece + rotation]], rotation)

/** The looks after a turn: what each place gets, put together. */
function turned(key: number, move: Int32Array, size: number): number {
  let next = 0
  for (let i = 0; i < size; i++) next |= move[LOOKS * i + ((key >>> (BITS * i)) & (LOOKS - 1))]
  return next
}

function distancesOf(size: number, moves: readonly Int32Array[]): Uint8Array {
  const distances = new Uint8Array(LOOKS ** size).fill(UNREACHED)
  let front = [0]
  distances[0] = 0
  for (let depth = 1; front.length > 0; depth++) {
    const next: number[] = []
    for (const key of front)
      for (const move of moves) {
        const moved = turned(key, move, size)
        if (distances[moved] !== UNREACHED) continue
        distances[moved] = depth
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
  const { turns, parts } = shaper
  const shape = shapeOf(shaper, puzzle, state)
  if (!shape) return undefined
  const begun = parts.map(({ places, looks }) =>
    places.reduce((key, place, i) => key | (looks[i].indexOf(shape[place]) << (BITS * i)), 0),
  )
  const path: Turn[] = []
  const search = (now: readonly number[], left: number, axis: string, grip: number): boolean => {
    let least = 0
    for (let i = 0; i < parts.length; i++) least = Math.max(least, parts[i].distances[now[i]])
    if (least > left) return false
    if (least === 0) return true
    for (const [t, each] of turns.entries()) {
      if (each.turn.grip === grip || (each.axis === axis && each.turn.grip < grip)) continue
      const next = now.map((key, i) => turned(key, parts[i].moves[t], parts[i].places.length))
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
