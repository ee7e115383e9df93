/** What a sequence does, and what stops it: held against the states before and after it. */
import { isOnEdge, outwardOf } from '../../analysis/anatomy'
import { repeatsUntilBack } from '../../analysis/effect'
import { senseOf } from '../../analysis/sense'
import { passageOf } from '../../scramble/passage'
import { dot, unit } from '../../geometry/vector'
import { holdAfter } from '../../notation/rewrite'
import type { Puzzle, Turn } from '../../puzzle/compile'
import { directionOfName, DIRECTIONS, type Direction } from '../../puzzle/directions'
import { posed, poseOf } from '../../puzzle/view'
import { IDENTITY, rotate, type Rotation, type Vector } from '../../rotation'
import { blockOf, start, turnFreely } from '../../state'
import { indexOf, type EffectsKind } from '../claim'
import { indices, lyingIn, type Evidence } from '../evidence'
import type { Judges } from './judge'

/** The place to which what lay in a place has gone. */
const goneTo = ({ puzzle, end }: Evidence, place: number): number =>
  puzzle.place[24 * place + end.state[place]]

const isUnseenAt = ({ puzzle, end }: Evidence, place: number): boolean => {
  const there = lyingIn(puzzle, end, place)
  return there >= 0 && puzzle.look[24 * there + end.state[there]] === puzzle.look[24 * place]
}

/** Which side of the finished piece looks that way, as it is drawn. */
const looking = (puzzle: Puzzle, piece: number, by: Rotation, side: Direction['name']) =>
  puzzle.pieces[piece].faces.flatMap(({ normal }, f) => {
    const shown = unit(posed(poseOf(puzzle.definition), rotate(by, normal)))
    return dot(directionOfName(side).vector, shown) > 1 - 1e-6 ? [f] : []
  })

const turnsIn = ({ puzzle, turns }: Evidence): Turn[] =>
  turns.flatMap(({ name }) => puzzle.turnByName.get(name) ?? [])

const isAround = (of: readonly number[], evidence: Evidence): boolean =>
  of.length > 1 && of.every((place, i) => goneTo(evidence, place) === of[(i + 1) % of.length])

/** The lengths of the rounds in which some places go, longest first; undefined if one of them leads out of them. */
function lengthsOf(evidence: Evidence, of: readonly number[]): number[] | undefined {
  const left = new Set(of)
  const lengths: number[] = []
  for (const first of of) {
    if (!left.has(first)) continue
    let length = 0
    for (let at = first; left.delete(at); at = goneTo(evidence, at)) length++
    if (goneTo(evidence, first) === first) return undefined
    lengths.push(length)
  }
  return of.every((place) => of.includes(goneTo(evidence, place)))
    ? lengths.sort((a, b) => b - a)
    : undefined
}

export const OF_EFFECTS: Judges<EffectsKind> = {
  roundOf({ of, isUnseen }, evidence) {
    const places = indices(evidence.puzzle, of)
    return (
      isAround(places, evidence) &&
      places.every((place) => isUnseenAt(evidence, place)) === (isUnseen === true)
    )
  },
  arrives({ from, was, is }, evidence) {
    const { puzzle, end } = evidence
    const p = indexOf(puzzle, from)
    const sides = looking(puzzle, p, IDENTITY, was)
    return sides.length > 0 && looking(puzzle, p, end.state[p], is).join() === sides.join()
  },
  roundsOf({ of, lengths }, evidence) {
    const places = indices(evidence.puzzle, of)
    return lengthsOf(evidence, places)?.join() === lengths.join()
  },
  spun({ of, isUnseen, ...how }, evidence) {
    const { puzzle, end } = evidence
    const isFlip = (p: number) => isOnEdge(outwardOf(puzzle, p))
    const isTurnedSo = (p: number) => {
      const r = end.state[p]
      if (r === IDENTITY || goneTo(evidence, p) !== p) return false
      const { degrees, isClockwise } = senseOf(r, outwardOf(puzzle, p))
      return (
        degrees === how.degrees &&
        (degrees === 180 || isClockwise === (how.isClockwise === true)) &&
        isUnseenAt(evidence, p) === (isUnseen === true)
      )
    }
    // All that are turned like the first of them, and no others.
    const [first, ...more] = indices(puzzle, of)
    const all = puzzle.pieces.flatMap((_, p) =>
      isTurnedSo(p) && isFlip(p) === isFlip(first) ? [p] : [],
    )
    return all.join() === [first, ...more].sort((a, b) => a - b).join()
  },
  nothingChanged: ({}, { end }) => end.state.every((r) => r === IDENTITY),
  borrowedOnly({ count, still }, evidence) {
    const { puzzle, end } = evidence
    const carried = new Set<number>()
    let state = start(puzzle)
    for (const turn of turnsIn(evidence)) {
      const next = turnFreely(puzzle, state, turn, new Uint8Array(state.length))
      const before = state
      if (!turn.whole) next.forEach((r, p) => r !== before[p] && carried.add(p))
      state = next
    }
    const changed = puzzle.pieces.flatMap((_, p) => (end.state[p] === IDENTITY ? [] : [p]))
    const borrowed = [...carried].filter((p) => !changed.includes(p))
    return (
      borrowed.length === count && puzzle.pieces.length - borrowed.length - changed.length === still
    )
  },
  heldAfter({ was, is }, evidence) {
    const { puzzle } = evidence
    const hold = holdAfter(turnsIn(evidence))
    const pose = poseOf(puzzle.definition)
    const isSeen = (vector: Vector, name: Direction['name']) =>
      dot(directionOfName(name).vector, unit(posed(pose, vector))) > 1 - 1e-6
    return (
      hold !== IDENTITY &&
      was.length === is.length &&
      was.every((name, i) =>
        DIRECTIONS.some(
          ({ vector }) => isSeen(vector, name) && isSeen(rotate(hold, vector), is[i]),
        ),
      )
    )
  },
  backAfter({ times, kinds, sooner }, evidence) {
    const { puzzle } = evidence
    const turns = turnsIn(evidence)
    return (
      repeatsUntilBack(puzzle, turns) === times &&
      kinds.length === sooner.length &&
      kinds.every((kind, i) => {
        const own = puzzle.pieces.flatMap((piece, p) => (piece.kind === kind ? [p] : []))
        return own.length > 0 && repeatsUntilBack(puzzle, turns, own) === sooner[i]
      })
    )
  },
  passes: ({ tried, made }, evidence) => passageIn(evidence, tried)?.made === made,
  stopsAt(claim, evidence) {
    const { puzzle } = evidence
    const own = turnsIn(evidence)
    const ids = (all: readonly number[]) => all.map((p) => puzzle.pieces[p].id).join()
    const { stops = [] } = passageIn(evidence, TRIED) ?? {}
    return stops.some(
      ({ at, times, cut, missing }) =>
        at === claim.nth - 1 &&
        own[at].name === claim.turn &&
        times === claim.times &&
        ids(cut) === (claim.cuts ?? []).join() &&
        ids(missing) === (claim.empty ?? []).join(),
    )
  },
  blocked({ turn, cuts, empty }, { puzzle, now }) {
    const made = puzzle.turnByName.get(turn)
    const block = made && blockOf(puzzle, now.state, made)
    if (!block) return false
    const ids = (all: readonly number[]) => all.map((p) => puzzle.pieces[p].id).join()
    return block.kind === 'cuts'
      ? ids(block.pieces) === cuts?.join()
      : cuts === undefined && ids(block.places) === empty?.join()
  },
}

const passages = new WeakMap<Evidence['turns'], Map<number, ReturnType<typeof passageOf>>>()

/** Asked again for each of its stops. */
function passageIn(evidence: Evidence, tried: number): ReturnType<typeof passageOf> {
  const known = passages.get(evidence.turns) ?? new Map<number, ReturnType<typeof passageOf>>()
  passages.set(evidence.turns, known)
  const found = known.get(tried) ?? passageOf(evidence.puzzle, turnsIn(evidence), tried)
  known.set(tried, found)
  return found
}

/** Scrambles from which a sequence is tried before it is said in how many it stops. */
const TRIED = 200
