/**
 * Commutators: pieces that may stand for their equals come home some at a time. Of all that the kit has, from the
 * position as it is or after one turn, the one is taken that brings the most home for its turns and leaves what came
 * before as it was.
 */
import { handCost } from '../../notation/handCost'
import { memoised } from '../../memo'
import { simplify } from '../../notation/rewrite'
import { doSequence, sequence } from '../../notation/sequence'
import { NO_PLACE, type Puzzle, type Turn } from '../../puzzle/compile'
import { PRODUCT, ROTATION_COUNT } from '../../rotation'
import type { Condition, Technique } from '../../schools/school'
import { isSolved, start, turnFreely, type State } from '../../state'
import { lookClassesOf } from '../../analysis/lookAlikes'
import type { Direction } from '../../puzzle/directions'
import { areEven, frameMeeting, isFilled, piecesOf } from '../goal'
import { selected } from '../selections'
import { asConjugate, doing, preparing, type StageContext, type Workpiece } from '../workpiece'
import {
  commutatorKit,
  steadyTurns,
  wayFrom,
  WAYS,
  type Macro,
  type Macros,
  type Parts,
} from './commutatorKit'
import { isFresh } from './joinMacros'
import { doRest } from './universally'

/** More pieces than this hardly ever come home by one step. */
const MOST_GAIN = 3

/** Turns before a sequence. */
const PREFIX_TURNS = 2

/** Of two sequences in a row so many are tried as the first, for each way that a piece could go. */
const MOST_FIRST = 12

/** A stage brings one piece home a step at least; more steps than this are a defect. */
const STEP_LIMIT = 60

type Commutators = Extract<Technique, { kind: 'commutator' }>

export function doCommutators(
  context: StageContext,
  work: Workpiece,
  technique: Commutators,
  goalBefore: readonly Condition[],
): void {
  const { puzzle, stage, base } = context
  const own = selected(puzzle, technique.select, base)
  const macros = kitOfCommutators(context, technique, goalBefore)
  for (let count = 0; count < STEP_LIMIT; count++) {
    const { state, frame } = work.held()
    if (isSolved(puzzle, state)) return
    if (own.every((p) => isFilled(puzzle, state, p, frame))) {
      makeEven(context, work)
      return
    }
    const way = bestWay(context, work, own, goalBefore, macros)
    if (!way) return doRest(context, work, 'noWayOn')
    work.step(
      {
        kind: 'commutator',
        of: own,
        ...(way.parts
          ? { parts: [way.parts.first.map(({ name }) => name), way.parts.second.name] as const }
          : {}),
      },
      [...preparing(way.prefix), ...asConjugate(puzzle, way.turns)],
    )
  }
  throw new Error(`the stage ${stage.id} does not come to an end`)
}

/** The sequences of a stage: for its own pieces, where what the goals so far ask about matters. */
export function kitOfCommutators(
  { puzzle, base }: { readonly puzzle: Puzzle; readonly base: Direction },
  { select }: Pick<Commutators, 'select'>,
  goalBefore: readonly Condition[],
): Macros {
  // What rides on others has places too.
  const placesWith = (pieces: readonly number[]) => [
    ...new Set(
      pieces.flatMap((p) =>
        Array.from({ length: ROTATION_COUNT }, (_, r) => puzzle.place[24 * p + r]).filter(
          (place) => place !== NO_PLACE,
        ),
      ),
    ),
  ]
  const own = placesWith(selected(puzzle, select, base))
  const before = goalBefore
    .filter(({ must }) => must !== 'even' && must !== 'in shape')
    .flatMap((condition) => [...piecesOf(puzzle, condition, base)])
  const asked = [...new Set([...own, ...placesWith(before)])].sort((a, b) => a - b)
  return commutatorKit(puzzle, `${own.join()};${asked.join()}`)
}

/** A stage may ask for an even number of exchanges: a turn that breaks nothing makes it so. */
function makeEven({ puzzle, stage, base }: StageContext, work: Workpiece): void {
  const { state } = work.held()
  const isMet = (at: State) => frameMeeting(puzzle, stage.goal, base, at) !== undefined
  if (isMet(state)) return
  const turn = steadyTurns(puzzle).find((each) =>
    isMet(turnFreely(puzzle, state, each, new Uint8Array(state.length))),
  )
  if (!turn) throw new Error(`no turn makes the exchanges even in the stage ${stage.id}`)
  const even = stage.goal.find(({ must }) => must === 'even')
  const of = even ? piecesOf(puzzle, even, base) : []
  work.step({ kind: 'even', of }, doing([turn]))
}

/** The turns that exchange some pieces an odd number of times. */
const oddness = memoised((puzzle: Puzzle, pieces: string): ReadonlySet<Turn> => {
  const own = pieces.split(',').map(Number)
  return new Set(
    steadyTurns(puzzle).filter(
      ({ name }) => !areEven(puzzle, own, doSequence(sequence(puzzle, name), start(puzzle)), 0),
    ),
  )
})

export interface Way {
  readonly prefix: readonly Turn[]
  readonly turns: readonly Turn[]
  readonly parts?: Parts
  /** Turns for each piece that comes home, or for what it is worth. */
  readonly value: number
}

/** What else is asked of a way. */
export interface Wish {
  /** Pieces that are home and stay so. */
  readonly keeps: readonly number[]
  /** Turns of which one may come last, that moves nothing but what the stage is about. */
  readonly closing: readonly Turn[]
  /** The most that it can be worth if so many pieces come home. */
  readonly mostWorth: (pieces: number) => number
  /** What it is worth, in pieces, at most those that come home; from the states before the first turn and after each. */
  readonly worth: (states: readonly State[]) => number
}

/** What brings the most home for its turns; of equal ones the easiest in the hand. */
export function bestWay(
  { puzzle, base, hand }: StageContext,
  work: Workpiece,
  own: readonly number[],
  goalBefore: readonly Condition[],
  macros: Macros,
  wish?: Wish,
): Way | undefined {
  const { state, frame } = work.held()
  const kept = [
    ...new Set(
      goalBefore
        .filter(({ must }) => must === 'looks home' || must === 'home')
        .flatMap((condition) => [...piecesOf(puzzle, condition, base)])
        .concat(wish?.keeps ?? []),
    ),
  ]
  const judges = [undefined, ...(wish?.closing ?? [])].map((closing) => ({
    judge: new Judge(puzzle, targetsBefore(puzzle, frame, closing), own, kept),
    closing: closing ? [closing] : [],
  }))
  const [{ judge }] = judges
  const now = judge.begin(state)
  const mostWorth = wish?.mostWorth ?? ((pieces: number) => pieces)
  const worth = (turns: readonly Turn[], gain: number) => {
    if (!wish) return gain
    const states: State[] = [state]
    for (const turn of turns)
      states.push(turnFreely(puzzle, states[states.length - 1], turn, new Uint8Array(state)))
    return wish.worth(states)
  }
  let best: Way | undefined
  let [bestValue, bestCost] = [Infinity, Infinity]
  const mostGain = Math.min(own.length - now, MOST_GAIN)
  const even = goalBefore.find(({ must }) => must === 'even')
  const odd = even && oddness(puzzle, piecesOf(puzzle, even, base).join())
  const isOddRow = (turns: readonly Turn[]) =>
    turns.reduce((sum, turn) => sum !== odd?.has(turn), false)
  const isOpen = new Uint8Array(WAYS)
  const { lengths, ways, begins, byWay } = macros
  const tryFrom = (
    { judge, closing }: (typeof judges)[number],
    from: State,
    prefix: readonly Turn[],
    first: readonly Turn[] = [],
  ) => {
    judge.begin(from)
    const before = [...prefix, ...first, ...closing]
    const isOdd = isOddRow(before)
    const open = judge.ways()
    isOpen.fill(0)
    for (const way of open) isOpen[way] = 1
    for (const way of open) {
      for (const m of byWay.get(way) ?? []) {
        const length = before.length + lengths[m]
        if (length / mostGain > bestValue) break
        // No more can come home than goes one of the ways that are left to go.
        let most = 0
        for (let i = begins[m]; i < begins[m + 1]; i++) most += isOpen[ways[i]]
        if (first.length === 0 && length / mostWorth(most) > bestValue) continue
        const macro = macros.macros[m]
        const gain = judge.after(macro) - now
        if (gain <= 0) continue
        if (odd && isOddRow(macro.turns) !== isOdd) continue
        const turns = simplify(puzzle, [...first, ...macro.turns, ...closing])
        const all = [...prefix, ...turns]
        if (all.length / mostWorth(gain) > bestValue) continue
        const value = all.length / worth(all, gain)
        if (value > bestValue || value === Infinity) continue
        const cost = handCost(all, hand)
        if (value === bestValue && cost >= bestCost) continue
        // A turn before that meets the set-up belongs to it.
        if (simplify(puzzle, all).length < all.length) continue
        if (goalBefore.length > 0 && !keeps(all)) continue
        const parts = first.length + closing.length === 0 ? macro.parts : undefined
        best = { prefix, turns, ...(parts ? { parts } : {}), value }
        ;[bestValue, bestCost] = [value, cost]
      }
    }
  }
  const keeps = (turns: readonly Turn[]) => {
    const end = new Uint8Array(state)
    for (const turn of turns) turnFreely(puzzle, end, turn, end)
    return frameMeeting(puzzle, goalBefore, base, end) !== undefined
  }
  const keptSlots = new Set(kept.map((p) => puzzle.slot[24 * p + frame]))
  // A turn of nothing but what stays as it is would only have to be taken back.
  const turns = steadyTurns(puzzle).filter((turn) => {
    const next = turnFreely(puzzle, state, turn, new Uint8Array(state))
    return next.some((r, p) => r !== state[p] && !keptSlots.has(puzzle.slot[24 * p + state[p]]))
  })
  for (const each of judges) tryFrom(each, state, [])
  const afterTurns = (
    each: (typeof judges)[number],
    from: State,
    prefix: readonly Turn[],
    most: number,
  ) => {
    for (const turn of turns) {
      const row = [...prefix, turn]
      if (!isFresh(puzzle, prefix.at(-1), turn)) continue
      const next = turnFreely(puzzle, from, turn, new Uint8Array(from.length))
      if (row.length < most) afterTurns(each, next, row, most)
      else tryFrom(each, next, row)
    }
  }
  // More turns before are hardly ever needed: where the count of odd and even allows one turn only with another.
  for (let most = 1; most <= PREFIX_TURNS && (most === 1 || !best); most++)
    for (const each of judges) afterTurns(each, state, [], most)
  if (!best) tryTwo([])
  for (const turn of turns) if (!best) tryTwo([turn])
  return best

  /** Where one alone brings nothing home: one that takes three round, then any. */
  function tryTwo(prefix: readonly Turn[]): void {
    const turned = new Uint8Array(state)
    for (const turn of prefix) turnFreely(puzzle, turned, turn, turned)
    judge.begin(turned)
    const firsts = judge.ways().flatMap((way) => {
      const own = (byWay.get(way) ?? []).map((m) => macros.macros[m])
      const rounds = own.filter(({ places }) => places.length === 3)
      return rounds.slice(0, MOST_FIRST).filter((macro) => judge.after(macro) >= 0)
    })
    for (const { turns } of firsts) {
      const middle = new Uint8Array(turned)
      for (const turn of turns) turnFreely(puzzle, middle, turn, middle)
      tryFrom(judges[0], middle, prefix, turns)
    }
  }
}

/** For each piece the rotation from which a last turn, if there is one, brings it home. */
function targetsBefore(puzzle: Puzzle, frame: number, last: Turn | undefined): Uint8Array {
  const home = new Uint8Array(puzzle.pieces.length).fill(frame)
  return last ? turnFreely(puzzle, home, puzzle.turns[last.inverse], new Uint8Array(home)) : home
}

/** Counts what is home after a sequence, by what it moves alone. */
class Judge {
  /** For each slot what it should show, and whether it did before. */
  private readonly wanted: Int32Array
  private readonly isKept: Uint8Array
  private readonly at: Int16Array
  private from: State = new Uint8Array(0)
  private right = 0
  private lost = 0

  constructor(
    private readonly puzzle: Puzzle,
    /** For each piece the rotation that it should come to. */
    private readonly target: Uint8Array,
    private readonly own: readonly number[],
    private readonly kept: readonly number[],
  ) {
    this.wanted = new Int32Array(puzzle.slotCount).fill(-1)
    this.isKept = new Uint8Array(puzzle.slotCount)
    this.at = new Int16Array(puzzle.pieces.length)
    for (const p of [...own, ...kept])
      this.wanted[puzzle.slot[24 * p + target[p]]] = puzzle.look[24 * p + target[p]]
    for (const p of kept) this.isKept[puzzle.slot[24 * p + target[p]]] = 1
  }

  /** How many are home in a state, from which sequences are then tried. */
  begin(state: State): number {
    const { puzzle, wanted, isKept } = this
    this.from = state
    this.right = 0
    let held = 0
    for (let p = 0; p < state.length; p++) {
      const at = 24 * p + state[p]
      this.at[puzzle.place[at]] = p
      const slot = puzzle.slot[at]
      if (wanted[slot] !== puzzle.look[at]) continue
      if (isKept[slot]) held++
      else this.right++
    }
    this.lost = this.kept.length - held
    return this.right
  }

  /** From where what is not home yet lies to where it could be. */
  ways(): number[] {
    const { puzzle, target, own, from, wanted, at } = this
    const { classOf } = lookClassesOf(puzzle)
    const isRight = (p: number) => {
      const at = 24 * p + from[p]
      return wanted[puzzle.slot[at]] === puzzle.look[at]
    }
    const placeOf = (home: number) => puzzle.place[24 * home + target[home]]
    const open = own.filter((home) => !isRight(at[placeOf(home)]))
    const classes = new Set(open.map((home) => classOf[home]))
    const loose = puzzle.pieces.flatMap((_, p) =>
      classes.has(classOf[p]) && !isRight(p) ? [p] : [],
    )
    return open.flatMap((home) =>
      loose
        .filter((p) => classOf[p] === classOf[home])
        .map((p) => wayFrom(puzzle.place[24 * p + from[p]], placeOf(home))),
    )
  }

  /** The same after a sequence; less than nothing where it breaks what came before. */
  after({ places, rotations }: Macro): number {
    const { puzzle, wanted, isKept, at, from } = this
    const { slot, look } = puzzle
    let [right, lost] = [this.right, this.lost]
    for (let i = 0; i < places.length; i++) {
      const p = at[places[i]]
      const r = from[p]
      const was = 24 * p + r
      const is = 24 * p + PRODUCT[24 * rotations[i] + r]
      if (wanted[slot[was]] === look[was]) {
        if (isKept[slot[was]]) lost++
        else right--
      }
      if (wanted[slot[is]] === look[is]) {
        if (isKept[slot[is]]) lost--
        else right++
      }
    }
    return lost > 0 ? -1 : right
  }
}
