/**
 * Back into shape. Where blocks are glued, by the list of layouts. On a puzzle that changes shape the
 * shape is a look of its 3x3x3 core, whose turns are always free. Colours are left out of account; what
 * is hidden in the core is read off what rides on it.
 */
import { lineOf } from '../puzzle/frameReached'
import { frameOf } from '../analysis/frame'
import { isNothing } from '../analysis/invariants'
import { hasLayout, layoutsOf, turnsToFinished } from '../analysis/layouts'
import { orbitsOf } from '../analysis/orbits'
import { reachOf } from '../analysis/placements'
import { CARRYING, coreOf } from '../analysis/shapes'
import { seenSpan, sumsOf, vectorOfState } from '../analysis/sums'
import { add } from '../geometry/vector'
import { placed, type Puzzle, type Turn } from '../puzzle/compile'
import { multiply, rotate, ROTATION_COUNT, type Rotation } from '../rotation'
import type { State } from '../state'
import { effectOfTurn } from './effects'
import { ShapeSearch, type ShapePart } from './shapeSearch'

/** Looks of some places of the core, without regard to which equal piece shows them. */
interface Part extends ShapePart {
  readonly places: readonly number[]
  /** For each place its looks, the finished one first. */
  readonly looks: readonly (readonly number[])[]
}

interface Shaper {
  readonly core: Puzzle
  /** For each core piece's home the slots beyond it, by direction; what lies there rides on what is there. */
  readonly beyond: readonly (readonly { readonly side: string; readonly slot: number }[])[]
  readonly parts: readonly Part[]
  readonly search: ShapeSearch
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
    return { turn, axis: lineOf(puzzle.grips[turn.grip].axis) }
  })
  const parts = orbitsOf(core)
    .filter(({ places }) => places.length > 1)
    .map(({ places }) => partOf(core, places, coreTurns))
  const shaper = { core, beyond, parts, search: new ShapeSearch(parts, turns) }
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
  return { places, looks, size: places.length, bits, moves }
}

const productOf = (core: Puzzle, effect: Uint8Array, piece: number, rotation: number): number =>
  multiply(effect[core.place[24 * piece + rotation]], rotation)

/**
 * Turns of core layers only that bring a state, core home, back into shape: the fewest, unless it takes too
 * long to know them. Of blocks any turns.
 */
export function reshape(puzzle: Puzzle, state: State): Turn[] | undefined {
  const layouts = layoutsOf(puzzle)
  if (layouts) return turnsToFinished(puzzle, layouts, state)
  const shaper = shaperOf(puzzle)
  if (!shaper) return undefined
  const { parts, search } = shaper
  const shape = shapeOf(shaper, puzzle, state)
  if (!shape) return undefined
  const begun = parts.map(({ places, looks, bits }) =>
    places.reduce((key, place, i) => key | (looks[i].indexOf(shape[place]) << (bits * i)), 0),
  )
  return search.back(begun)
}
