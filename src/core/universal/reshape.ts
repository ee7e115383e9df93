/**
 * Back into shape. Where blocks are glued, by the list of layouts. On a puzzle that changes shape the shape is a look of its 3x3x3 core, whose turns are
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
import { hasLayout, layoutsOf, turnsToFinished } from '../analysis/layouts'

/** Deepest search; every shape is within it. */
const MOST_TURNS = 14
const UNREACHED = 255

/** Looks of some places of the core, without regard to which equal piece shows them. */
interface Part {
  readonly places: readonly number[]
  /** For each place its looks, the finished one first. */
  readonly looks: readonly (readonly number[])[]
  /** Looks of one place are numbered in so many bits. */
  readonly bits: number
  /** For each turn, `[place << bits | look]` (positions): the bits of what that look becomes where it goes. */
  readonly moves: readonly Int32Array[]
  /** Turns to the finished look, by the looks of all places, so many bits each, the first lowest. */
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
  const layouts = layoutsOf(puzzle)
  if (layouts) return hasLayout(puzzle, layouts, state)
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
  const bits = Math.ceil(Math.log2(Math.max(2, ...looks.map((own) => own.length))))
  const moves = effects.map((effect) => {
    const table = new Int32Array(places.length << bits)
    places.forEach((_, i) =>
      samples[i].forEach(({ piece, rotation }, look) => {
        const r = productOf(core, effect, piece, rotation)
        const to = places.indexOf(core.place[24 * piece + r])
        table[(i << bits) | look] = looks[to].indexOf(core.look[24 * piece + r]) << (bits * to)
      }),
    )
    return table
  })
  return { places, looks, bits, moves, distances: distancesOf(places.length, bits, moves) }
}

const productOf = (core: Puzzle, effect: Uint8Array, piece: number, rotation: number): number =>
  multiply(effect[core.place[24 * piece + rotation]], rotation)

/** The looks after a turn: what each place gets, put together. */
function turned(key: number, move: Int32Array, size: number, bits: number): number {
  const mask = (1 << bits) - 1
  let next = 0
  for (let i = 0; i < size; i++) next |= move[(i << bits) | ((key >>> (bits * i)) & mask)]
  return next
}

function distancesOf(size: number, bits: number, moves: readonly Int32Array[]): Uint8Array {
  const distances = new Uint8Array(2 ** (bits * size)).fill(UNREACHED)
  let front = [0]
  distances[0] = 0
  for (let depth = 1; front.length > 0; depth++) {
    const next: number[] = []
    for (const key of front)
      for (const move of moves) {
        const moved = turned(key, move, size, bits)
        if (distances[moved] !== UNREACHED) continue
        distances[moved] = depth
        next.push(moved)
      }
    front = next
  }
  return distances
}

/**
 * Turns of core layers only that bring a state, core home, back into shape: the fewest, unless it takes too
 * long to know them. Of blocks any turns.
 */
export function reshape(puzzle: Puzzle, state: State): Turn[] | undefined {
  const layouts = layoutsOf(puzzle)
  if (layouts) return turnsToFinished(puzzle, layouts, state)
  const shaper = shaperOf(puzzle)
  if (!shaper) return undefined
  const { parts } = shaper
  const shape = shapeOf(shaper, puzzle, state)
  if (!shape) return undefined
  const begun = parts.map(({ places, looks, bits }) =>
    places.reduce((key, place, i) => key | (looks[i].indexOf(shape[place]) << (bits * i)), 0),
  )
  return shortestBack(shaper, begun) ?? quickBack(shaper, begun)
}

/** Positions that the search for the fewest turns looks at before it gives way to a quicker one. */
const PATIENCE = 1_000_000

/** The fewest turns, by iterative deepening; undefined if that takes too long. */
function shortestBack({ turns, parts }: Shaper, begun: readonly number[]): Turn[] | undefined {
  const path: Turn[] = []
  let looked = 0
  const search = (now: readonly number[], left: number, axis: string, grip: number): boolean => {
    if (looked++ > PATIENCE) return false
    let least = 0
    for (let i = 0; i < parts.length; i++) least = Math.max(least, parts[i].distances[now[i]])
    if (least > left) return false
    if (least === 0) return true
    for (const [t, each] of turns.entries()) {
      if (each.turn.grip === grip || (each.axis === axis && each.turn.grip < grip)) continue
      path.push(each.turn)
      if (search(afterTurn(parts, now, t), left - 1, each.axis, each.turn.grip)) return true
      path.pop()
    }
    return false
  }
  for (let depth = 0; depth <= MOST_TURNS && looked <= PATIENCE; depth++)
    if (search(begun, depth, '', -1)) return [...path]
  return undefined
}

const afterTurn = (parts: readonly Part[], now: readonly number[], t: number): number[] =>
  now.map((key, i) => turned(key, parts[i].moves[t], parts[i].places.length, parts[i].bits))

/** Positions that the quicker search keeps at most. */
const MOST_KEPT = 400_000

/** Few turns, not the fewest: always on from the position that seems nearest (best first). */
function quickBack({ turns, parts }: Shaper, begun: readonly number[]): Turn[] | undefined {
  interface Node {
    readonly now: readonly number[]
    readonly from?: Node
    readonly turn?: Turn
    readonly depth: number
  }
  const seems = (now: readonly number[]) =>
    parts.reduce((sum, { distances }, i) => sum + distances[now[i]], 0)
  const seen = new Set([begun.join()])
  const waiting: Node[][] = []
  const wait = (node: Node) => {
    const at = 3 * seems(node.now) + node.depth
    while (waiting.length <= at) waiting.push([])
    waiting[at].push(node)
    return at
  }
  let at = wait({ now: begun, depth: 0 })
  while (at < waiting.length) {
    const node = waiting[at].pop()
    if (!node) {
      at++
      continue
    }
    if (seems(node.now) === 0) {
      const path: Turn[] = []
      for (let each = node; each.turn && each.from; each = each.from) path.push(each.turn)
      return path.reverse()
    }
    if (seen.size > MOST_KEPT) return undefined
    for (const [t, { turn }] of turns.entries()) {
      if (turn.grip === node.turn?.grip) continue
      const now = afterTurn(parts, node.now, t)
      const name = now.join()
      if (seen.has(name)) continue
      seen.add(name)
      at = Math.min(at, wait({ now, from: node, turn, depth: node.depth + 1 }))
    }
  }
  return undefined
}
