/**
 * How many states the eye tells apart.
 *
 * Let L be all rearrangements, reachable or not, that look like the start. The reachable looks number
 * |G| / |G and L|. Only some orbits have look-alikes; the subgroup N of G that leaves all others alone
 * is read off the strong generating set. If N holds every even exchange of what it moves (its order
 * tells), an element of L lies in N exactly if its invariants do, so the intersection is counted by
 * spans of invariants; otherwise the elements of the smaller of L and N are tried one by one.
 */
import { NO_PLACE, type Puzzle } from '../puzzle/compile'
import { IDENTITY, multiply, type Rotation } from '../rotation'
import { rotateState, start, type State } from '../state'
import { keptPictures } from './keptPictures'
import { frameOf } from './frame'
import { generatorsThrough, layoutsInHolds, layoutsOf, loopsThroughHold } from './layouts'
import { coordinatesFor, spanSize, twistsAdd, vectorOf, type OrbitEffect } from './invariants'
import { moveOf, type Orbit } from './orbits'
import { compose, invert, type Permutation, type PermutationGroup } from './permutationGroup'
import { familiesOf, reachOf } from './placements'
import { allOf, effectsOf, groupUnder, onlySpins, readEffects, still, type Space } from './space'

/** Most elements that are tried one by one. */
const TRY_LIMIT = 200_000n

/** @param moves what generates the group, as moves of the finished puzzle */
export function visibleStates(
  puzzle: Puzzle,
  moves: readonly State[],
  group: PermutationGroup,
  space: Space,
  remarks: string[],
): bigint | null {
  const layouts = layoutsOf(puzzle)
  if (!showsItsHold(puzzle)) return visibleUpToHold(puzzle, layouts ? undefined : moves, remarks)
  const both = commonOrder(group, space, remarks)
  return both === null ? null : (group.order / both) * BigInt(layouts?.list.length ?? 1)
}

/**
 * Whether the eye sees which way the frame is held: no other piece, and no other turn, can look like
 * the frame piece in its place; or, where the frame is the hidden core, pieces that never leave their
 * places tell every hold from every other.
 */
function showsItsHold(puzzle: Puzzle): boolean {
  const { pieces, holds, look, place } = puzzle
  const frame = frameOf(puzzle).piece
  if (frame !== undefined)
    return pieces.every((_, p) =>
      holds.every((hold) =>
        reachOf(puzzle)[p].every((r) => {
          const held = 24 * p + multiply(hold, r)
          return (
            place[held] !== frame ||
            look[held] !== look[24 * frame] ||
            (p === frame && r === 0 && hold === 0)
          )
        }),
      ),
    )
  const still = familiesOf(puzzle).flatMap(({ pieces: own, slots }) =>
    slots.length === 1 ? own : [],
  )
  return holds.every(
    (hold) =>
      hold === 0 ||
      still.some((p) => {
        const at = place[24 * p + hold]
        const shown = look[24 * p + hold]
        return still.includes(at) && reachOf(puzzle)[at].every((r) => look[24 * at + r] !== shown)
      }),
  )
}

/** What can be done in every hold: what generates it, and what each hold does of itself. */
interface Held {
  readonly moves: readonly State[]
  /** Ways to lie, each with as many states as the finished one. */
  readonly layouts: number
  readonly holds: readonly Rotation[]
  /** For each layout that the hold leaves as it is, what it makes of the finished puzzle. */
  readonly turnedBy: (hold: Rotation) => Iterable<State>
}

/**
 * Where the hold is not seen, a state may look like another one held differently. So the whole-puzzle turns
 * are taken into the group, and the looks of all are counted up to these by the lemma of Burnside: the mean,
 * over the holds, of the pictures that a hold leaves as they are.
 */
function visibleUpToHold(
  puzzle: Puzzle,
  moves: readonly State[] | undefined,
  remarks: string[],
): bigint | null {
  const held = moves ? heldFreely(puzzle, moves) : heldGlued(puzzle)
  const { space, group, most } = groupUnder(puzzle, held.moves, undefined)
  const effects = held.moves.map((move) => effectsOf(puzzle, space.orbits, move))
  const both = commonOrder(group, space, remarks)
  if (both === null) return null
  const kept = memoised((turned: readonly OrbitEffect[]) =>
    group.order <= TRY_LIMIT
      ? keptByTrying(group, space, turned) / both
      : keptPictures(space, group.order === most, effects, turned),
  )
  let sum = (group.order / both) * BigInt(held.layouts)
  for (const hold of held.holds.filter((each) => each !== IDENTITY))
    for (const state of held.turnedBy(hold)) {
      const own = kept(effectsOf(puzzle, space.orbits, state))
      if (own === undefined) {
        remarks.push(
          'How many states look different is not counted: some look the same in another hold, and the pieces lie in orbits that carry smaller groups of their own.',
        )
        return null
      }
      sum += own
    }
  return sum / BigInt(held.holds.length)
}

function heldFreely(puzzle: Puzzle, moves: readonly State[]): Held {
  const whole = puzzle.turns.filter((turn) => turn.whole).map((turn) => moveOf(puzzle, turn))
  const inShape = (state: State) => state.every((r, p) => puzzle.place[24 * p + r] !== NO_PLACE)
  return {
    moves: [...moves, ...whole.filter(inShape)],
    layouts: 1,
    holds: puzzle.holds.filter((hold) => inShape(rotateState(start(puzzle), hold))),
    turnedBy: (hold) => [rotateState(start(puzzle), hold)],
  }
}

function heldGlued(puzzle: Puzzle): Held {
  const layouts = layoutsInHolds(puzzle)
  if (!layouts) throw new Error('a layout that was listed is not listed in other holds')
  return {
    moves: generatorsThrough(puzzle, layouts, undefined),
    layouts: layouts.list.length,
    holds: puzzle.holds,
    turnedBy: (hold) => loopsThroughHold(puzzle, layouts, hold),
  }
}

function memoised<T>(of: (effects: readonly OrbitEffect[]) => T) {
  const known = new Map<string, T>()
  return (effects: readonly OrbitEffect[]): T => {
    const key = effects.map(({ to, change }) => `${to.join()};${change.join()}`).join('|')
    const found = known.get(key)
    if (found !== undefined) return found
    const value = of(effects)
    known.set(key, value)
    return value
  }
}

/** Elements of the group whose picture a hold leaves as it is, tried one by one. */
function keptByTrying(group: PermutationGroup, space: Space, hold: readonly OrbitEffect[]): bigint {
  const turned = space.permutationOf(hold)
  let kept = 0n
  for (const element of group.elementsFrom(0)) {
    const seen = compose(invert(element), compose(turned, element))
    // What is the same in the other hold looks like the start, taken back by the element.
    if (isLikeStart(space, seen)) kept++
  }
  return kept
}

function isLikeStart(space: Space, element: Permutation): boolean {
  if (
    space.base.some(
      (point) => point < (space.starts[space.active] ?? space.degree) && element[point] !== point,
    )
  )
    return false
  return readEffects(space, element).every((effect, o) =>
    looksLikeStart(space, space.active + o, effect),
  )
}

/** The order of what the group has in common with the rearrangements that look like the start. */
export function commonOrder(
  group: PermutationGroup,
  space: Space,
  remarks: string[],
): bigint | null {
  const { active, alike } = space
  if (active === space.orbits.length) return 1n
  const moved = new Set(
    space.orbits
      .slice(active)
      .flatMap(({ places, orientations }, o) =>
        Array.from(
          { length: places.length * orientations.length },
          (_, i) => space.starts[active + o] + i,
        ),
      ),
  )
  const level = group.levels.findIndex(({ point }) => moved.has(point))
  const order = group.orderFrom(level)
  const looksAlike = alike.flat().reduce((product, { places, unseen }) => {
    let own = 1n
    places.forEach((_, i) => (own *= BigInt(i + 1) * BigInt(unseen)))
    return product * own
  }, 1n)
  const parts = space.orbits
    .slice(active)
    .flatMap((orbit, o) => (onlySpins(alike[active + o]) ? eachPlace(orbit) : [orbit]))
  if (twistsAdd(parts)) {
    const vector = (effects: readonly OrbitEffect[]) =>
      vectorOf(
        parts,
        effects.flatMap((effect, o) =>
          onlySpins(alike[active + o])
            ? effect.change.map((change) => ({ to: [0], change: [change] }))
            : [effect],
        ),
      )
    const moduli = coordinatesFor(parts).map(({ modulus }) => modulus)
    const own = (group.levels[level]?.generators ?? []).map((g) => vector(readEffects(space, g)))
    const ofLooks = alike.flatMap((list, o) =>
      list.flatMap(({ generators }) =>
        generators.map((effect) =>
          vector(
            space.orbits.flatMap((orbit, i) =>
              i < active ? [] : [i === o ? effect : still(orbit)],
            ),
          ),
        ),
      ),
    )
    const all = parts.reduce((product, orbit) => product * allOf(orbit), 1n)
    const abelian = moduli.reduce((product, m) => product * BigInt(m), 1n)
    const span = spanSize(own, moduli)
    if (order * abelian === all * span)
      return (looksAlike * span) / spanSize([...own, ...ofLooks], moduli)
  }
  if (order <= TRY_LIMIT && order < looksAlike) return countAlike(group, space, level)
  if (looksAlike <= TRY_LIMIT) return countCommon(group, space, looksAlike)
  remarks.push(
    'How many states look different is not known: the look-alikes lie in orbits that carry smaller groups of their own, and there are too many to try.',
  )
  return null
}

/** An orbit whose pieces stay where they are, as one orbit a place. */
const eachPlace = ({ places, reference, orientations }: Orbit): Orbit[] =>
  places.map((place, i) => ({
    places: [place],
    reference: [reference[i]],
    orientations,
  }))

/** All elements of the look-alike group, made breadth first, tried in the group one by one. */
function countCommon(group: PermutationGroup, space: Space, expected: bigint): bigint {
  const generators = space.alike.flatMap((list, o) =>
    list.flatMap(({ generators: own }) =>
      own.map((effect) =>
        space.permutationOf(space.orbits.map((orbit, i) => (i === o ? effect : still(orbit)))),
      ),
    ),
  )
  const first = Uint16Array.from({ length: space.degree }, (_, i) => i)
  const key = (g: Permutation) => String.fromCharCode(...g)
  const found = [first]
  const seen = new Set([key(first)])
  let common = 0n
  for (const element of found) {
    if (group.contains(element)) common++
    for (const generator of generators) {
      const next = new Uint16Array(space.degree)
      for (let i = 0; i < next.length; i++) next[i] = generator[element[i]]
      const text = key(next)
      if (seen.has(text)) continue
      seen.add(text)
      found.push(next)
    }
  }
  if (BigInt(found.length) !== expected) throw new Error('look-alikes were miscounted')
  return common
}

/** The elements of the subgroup that leaves all other orbits alone which look like the start. */
function countAlike(group: PermutationGroup, space: Space, level: number): bigint {
  let common = 0n
  for (const element of group.elementsFrom(level)) {
    const effects = readEffects(space, element)
    const isAlike = effects.every((effect, o) => looksLikeStart(space, space.active + o, effect))
    if (isAlike) common++
  }
  return common
}

function looksLikeStart(space: Space, o: number, { to, change }: OrbitEffect): boolean {
  return space.alike[o].every(({ places, alikeAt }) =>
    places.every((i) => places.includes(to[i]) && alikeAt(i, to[i]).includes(change[i])),
  )
}
