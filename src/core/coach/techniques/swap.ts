/**
 * Swap: pieces of one of the boxes that lie in each other, exchanged by sequences in which one side makes half
 * turns. What else lies on that side, the work side, is half done after an odd number of them; so nothing
 * else is turned, and the puzzle is not taken in another hold, until the number is even again.
 *
 * A position is where the pieces that show what the wanted places need lie, and which side is half done; a search
 * from the finished one over all ways to make a sequence tells the cheapest row from every position.
 */
import { anchorsOf } from '../../analysis/anchors'
import { asNamed, layersOf } from '../../analysis/layers'
import { lookClassesOf } from '../../analysis/lookAlikes'
import { memoised } from '../../memo'
import { readTurns } from '../../notation/read'
import { inverseOf, rehold, simplify } from '../../notation/rewrite'
import { doSequence, join, sequence, sequenceOf, type Sequence } from '../../notation/sequence'
import { IN, type Puzzle, type Turn } from '../../puzzle/compile'
import { dot } from '../../geometry/vector'
import {
  directionOfLetter,
  opposite,
  type Direction,
  type FaceLetter,
} from '../../puzzle/directions'
import { IDENTITY, INVERSE, multiply, type Rotation } from '../../rotation'
import type { Condition, Technique } from '../../schools/school'
import { looksHome, placeOf, start, type State } from '../../state'
import { pieceFor, piecesOf, relativeTo } from '../goal'
import { selected } from '../selections'
import {
  doing,
  held,
  holding,
  layerTurns,
  PlanProblem,
  preparing,
  spins,
  type PlannedTurn,
  type StageContext,
  type Workpiece,
} from '../workpiece'

type Swap = Extract<Technique, { kind: 'swap' }>

/** A sequence from a hold, after turns of the box's own layers, all in the letters of the first hold. */
interface Macro {
  readonly hold: Rotation
  readonly fetch: readonly Turn[]
  readonly sequence: readonly Turn[]
  /** As the school has it. */
  readonly text: string
  /** Where what lies in each place goes. */
  readonly to: Uint8Array
  /** Whether the side is half done by it. */
  readonly isOdd: boolean
  /** Whether equal pieces change places by it, which is done when all that is wanted is home. */
  readonly isTrade: boolean
  /** The work side, by position among those that there are. */
  readonly side: number
  /** The layer that makes half turns. */
  readonly half?: number
  /** Whether its first and its last turn are half turns of the side. */
  readonly beginsHalf: boolean
  readonly endsHalf: boolean
  readonly cost: number
}

interface Table {
  readonly macros: readonly Macro[]
  /** Cost of the cheapest row from each position; positions as `positionOf` numbers them. */
  readonly costs: Uint16Array
  readonly next: Int16Array
  readonly places: readonly number[]
  readonly orbit: readonly number[]
}

const UNREACHED = 65_535

export function doSwaps(
  context: StageContext,
  work: Workpiece,
  technique: Swap,
  goalBefore: readonly Condition[],
): void {
  const { puzzle, stage } = context
  const table = tableOf(context, technique, goalBefore)
  const { state, frame } = work.held()
  const relative = relativeTo(puzzle, state, frame)
  const { classOf } = lookClassesOf(puzzle)
  const placeOfHome = (home: number) => puzzle.place[24 * home + relative[home]]
  /** For each wanted place the places where something lies that looks right there. */
  const choices = table.places.map((place) => {
    const own = classOf[pieceFor(puzzle, place, frame)]
    // Its own piece first: of equal ways that one is taken.
    const others = table.orbit.filter(
      (home) => home !== place && classOf[pieceFor(puzzle, home, frame)] === own,
    )
    return [place, ...others].map(placeOfHome)
  })
  const begin = cheapest(table, choices)
  // Where turns can be blocked nothing has been asked of the position before.
  if (begin === undefined)
    throw new PlanProblem({
      code: 'not-served',
      sentence: `From here no row of swaps ends the stage “${stage.name}”. Stuck tells what this position is.`,
    })
  // Of equal pieces those that the row brings there.
  const wanted = begin.places.map((place) =>
    puzzle.pieces.findIndex((_, p) => placeOf(puzzle, state, p) === place),
  )
  const ways: Macro[] = []
  let { at } = begin
  while (table.costs[at] > 0) {
    const macro = table.macros[table.next[at]]
    ways.push(macro)
    at = positionAfter(table, at, macro)
  }
  // How the puzzle has been turned since the row was found.
  let turned: Rotation = IDENTITY
  for (const group of inSteps(ways)) {
    const known = group.find((way) => way.sequence.length > 1)
    const hold = known?.hold ?? turned
    const spin = spins(puzzle, held(stage).base).find(
      (each) => multiply(each.hold, turned) === hold,
    )
    if (!spin) throw new Error('no turn of the whole puzzle takes that hold')
    turned = hold
    const as = (turns: readonly Turn[]) =>
      rehold(puzzle, turns, hold).map((turn) => asNamed(puzzle, turn))
    const turns: PlannedTurn[] = [
      ...holding(spin.turns),
      ...preparing(as(group[0].fetch)),
      // Where one sequence ends with the layer that the next begins with, these are one turn, or none.
      ...doing(
        simplify(
          puzzle,
          group.flatMap((way, i) => [...(i === 0 ? [] : as(way.fetch)), ...as(way.sequence)]),
        ),
      ),
    ]
    const halfTurns = turns.map(({ turn }) => turn).filter(isHalfTurn(puzzle, held(stage).base))
    work.step(
      {
        kind: 'swap',
        pieces: wanted,
        sequence: known ? as(known.sequence).map(({ name }) => name) : [],
        // With nothing done before it, nothing is half done.
        ...(table.macros.some(({ isOdd }) => isOdd) && halfTurns.length > 0
          ? { side: { turn: halfTurns[0].name, times: halfTurns.length } }
          : {}),
      },
      turns,
    )
  }
}

/** Whether a turn is half a turn of a layer beside the long axis. */
const isHalfTurn =
  (puzzle: Puzzle, axis: Direction) =>
  ({ grip, amount, whole }: Turn): boolean =>
    !whole &&
    2 * amount * puzzle.grips[grip].unitDegrees === 360 &&
    dot(puzzle.grips[grip].axis, axis.vector) === 0

/** Rows that leave no side half done. */
function inSteps(ways: readonly Macro[]): Macro[][] {
  const steps: Macro[][] = []
  let open = false
  for (const way of ways) {
    if (open) steps[steps.length - 1].push(way)
    else steps.push([way])
    open = way.isOdd !== open
  }
  return steps
}

/** Of all ways to tell equal pieces apart the position from which the row is the cheapest. */
function cheapest(
  table: Table,
  choices: readonly (readonly number[])[],
): { readonly at: number; readonly places: readonly number[] } | undefined {
  let best: ReturnType<typeof cheapest>
  const visit = (chosen: readonly number[]) => {
    if (chosen.length === choices.length) {
      const at = positionOf(table, chosen, 0)
      const cost = table.costs[at]
      if (cost < UNREACHED && (best === undefined || cost < table.costs[best.at]))
        best = { at, places: chosen }
      return
    }
    for (const place of choices[chosen.length])
      if (!chosen.includes(place)) visit([...chosen, place])
  }
  visit([])
  return best
}

/**
 * None, or one of at most four sides that are half done: 1 to 4 if the last turn was a half turn of it, which with
 * another one cancels; 5 to 8 if not.
 */
const SIDES = 9
const OTHERWISE = 4
/** Of a sequence without half turns, and of one whose half turns are of no side that is ever half done. */
const NO_SIDE = -1
const OTHER_SIDE = -2

/** A position as a number: where the pieces lie, as digits, and the side that is half done; 0 for none. */
const positionOf = (
  { orbit }: Pick<Table, 'orbit'>,
  places: readonly number[],
  side: number,
): number =>
  places.reduce((sum, place) => sum * orbit.length + orbit.indexOf(place), 0) * SIDES + side

function placesAt({ orbit, places }: Pick<Table, 'orbit' | 'places'>, position: number): number[] {
  let rest = Math.floor(position / SIDES)
  const digits = places.map(() => {
    const digit = rest % orbit.length
    rest = (rest - digit) / orbit.length
    return orbit[digit]
  })
  return digits.reverse()
}

/** The side that is half done after a sequence, as positions have it; undefined if it cannot be made now. */
function sideAfter(now: number, macro: Macro): number | undefined {
  const { side, isOdd, endsHalf, sequence: turns, beginsHalf } = macro
  // Only turns of the box's own layers, or of that very side, may be made.
  if (now !== 0 && side !== NO_SIDE && (now - 1) % OTHERWISE !== side) return undefined
  // A single half turn that takes back the last one leads nowhere.
  if (beginsHalf && turns.length === 1 && now > 0 && now <= OTHERWISE) return undefined
  const isHalf = (now !== 0) !== isOdd
  const own = now === 0 ? side : (now - 1) % OTHERWISE
  return isHalf ? own + 1 + (endsHalf ? 0 : OTHERWISE) : 0
}

/** What a sequence costs: two half turns that meet are none. */
const priceOf = (now: number, { cost, beginsHalf }: Macro): number =>
  beginsHalf && now > 0 && now <= OTHERWISE ? cost - 2 * TURN : cost

const positionAfter = (table: Table, position: number, macro: Macro): number =>
  positionOf(
    table,
    placesAt(table, position).map((place) => macro.to[place]),
    sideAfter(position % SIDES, macro) ?? 0,
  )

/** The table of a stage, built once. */
export function tableOf(
  { puzzle, stage }: Pick<StageContext, 'puzzle' | 'stage'>,
  technique: Swap,
  goalBefore: readonly Condition[],
): Table {
  const side = held(stage).base
  // Places as the stage holds the puzzle.
  const wanted = selected(puzzle, technique.select, side)
  const kept = [...goalBefore, ...stage.goal]
    .filter(({ must }) => must === 'home' || must === 'looks home')
    .flatMap((condition) => [...piecesOf(puzzle, condition, side)])
    .filter((place, i, all) => !wanted.includes(place) && all.indexOf(place) === i)
  return tableFor(
    puzzle,
    [
      side.letter,
      wanted.join(),
      kept.join(),
      sequencesFor(puzzle, side, technique)
        .map(([as, text]) => `${as}=${text}`)
        .join('|'),
    ].join(';'),
  )
}

/**
 * The sequences of a stage as they are written, for the outermost box, and as they are done in its own: a layer
 * further in for each box that lies around it. Such as
 * need boxes inside, or a layer that the puzzle does not have, are left out.
 */
function sequencesFor(
  puzzle: Puzzle,
  side: Direction,
  { select, sequences }: Swap,
): (readonly [as: string, text: string])[] {
  const further = Math.max(0, (select.box ?? 1) - 1)
  const own = [side, opposite(side)]
  const layers = own.map((each) => layersFromOutside(puzzle, each))
  const letters = own.map(({ letter }) => letter)
  return sequences.flatMap((as) => {
    let isThere = true
    const text = as.replace(
      new RegExp(`(\\d*)([${letters.join('')}])`, 'g'),
      (_, layer: string, letter: FaceLetter) => {
        const found = layers[letters.indexOf(letter)][Number(layer || 1) - 1 + further]
        isThere &&= found !== undefined
        return found ?? ''
      },
    )
    return isThere && readTurns(puzzle, text).ok ? [[as, text] as const] : []
  })
}

/** Names of the layers on one side of the middle, from the outside in. */
function layersFromOutside(puzzle: Puzzle, { vector, letter }: Direction): string[] {
  const inward = (grip: number) =>
    dot(puzzle.grips[grip].axis, vector) * (puzzle.grips[grip].from ?? 0)
  const names = puzzle.grips.flatMap(({ name, from }, grip) =>
    name.endsWith(letter) &&
    !name.includes('-') &&
    (from ?? -1) >= 0 &&
    layersOf(puzzle).includes(grip)
      ? [grip]
      : [],
  )
  return names.sort((a, b) => inward(b) - inward(a)).map((grip) => puzzle.grips[grip].name)
}

const tableFor = memoised((puzzle: Puzzle, key: string): Table => {
  const [letter, wanted, kept, sequences] = key.split(';')
  const numbers = (text: string) => (text === '' ? [] : text.split(',').map(Number))
  const places = numbers(wanted)
  const axis = directionOfLetter(letter)
  const orbit = orbitOf(puzzle, places, axis)
  const macros = macrosFor(puzzle, letter, sequences.split('|'), orbit, {
    wanted: places,
    kept: numbers(kept),
  })
  return { macros, places, orbit, ...searchedBack({ macros, places, orbit }) }
})

/** From the finished position back, the cheapest first: positions wait in the order of their cost. */
function searchedBack(
  table: Pick<Table, 'macros' | 'places' | 'orbit'>,
): Pick<Table, 'costs' | 'next'> {
  const { macros, places, orbit } = table
  const many = orbit.length
  const size = many ** places.length * SIDES
  const costs = new Uint16Array(size).fill(UNREACHED)
  const next = new Int16Array(size).fill(-1)
  const home = positionOf(table, places, 0)
  costs[home] = 0
  const waiting: number[][] = [[home]]
  const steps = stepsBack(macros, orbit)
  const digits = new Uint8Array(places.length)
  for (let cost = 0; cost < waiting.length; cost++)
    for (const position of waiting[cost] ?? []) {
      if (costs[position] !== cost) continue
      let rest = Math.floor(position / SIDES)
      for (let i = digits.length - 1; i >= 0; i--) {
        digits[i] = rest % many
        rest = (rest - digits[i]) / many
      }
      const isHome = position - (position % SIDES) === home
      for (const { macro, back, before, price, isTrade } of steps[position % SIDES]) {
        if (isTrade && !isHome) continue
        let from = 0
        for (const digit of digits) from = from * many + back[digit]
        from = from * SIDES + before
        const whole = cost + price
        if (whole >= costs[from]) continue
        costs[from] = whole
        next[from] = macro
        while (waiting.length <= whole) waiting.push([])
        waiting[whole].push(from)
      }
    }
  return { costs, next }
}

/** For what may be half done after a sequence: the sequences that end so, and what was half done before. */
function stepsBack(macros: readonly Macro[], orbit: readonly number[]) {
  const steps = Array.from({ length: SIDES }, () => [] as StepBack[])
  for (const [macro, each] of macros.entries()) {
    const back = new Uint8Array(orbit.length)
    orbit.forEach((place, digit) => (back[orbit.indexOf(each.to[place])] = digit))
    for (let before = 0; before < SIDES; before++) {
      const after = sideAfter(before, each)
      if (after === undefined) continue
      const price = priceOf(before, each)
      steps[after].push({ macro, back, before, price, isTrade: each.isTrade })
    }
  }
  return steps
}

interface StepBack {
  /** Position among the sequences. */
  readonly macro: number
  /** Where what lies in each place of the orbit came from, both by position. */
  readonly back: Uint8Array
  readonly before: number
  readonly price: number
  readonly isTrade: boolean
}

/** All places that half turns of sides and turns of layers between the ends take the given ones to. */
function orbitOf(puzzle: Puzzle, places: readonly number[], axis: Direction): number[] {
  const isHalf = isHalfTurn(puzzle, axis)
  const turns = puzzle.turns.filter(
    (turn) => !turn.whole && (isHalf(turn) || dot(puzzle.grips[turn.grip].axis, axis.vector) !== 0),
  )
  const found = [...places]
  for (const place of found)
    for (const turn of turns) {
      const to = puzzle.place[24 * place + sequence(puzzle, turn.name).table[24 * place]]
      if (to < puzzle.pieces.length && !found.includes(to)) found.push(to)
    }
  return found.sort((a, b) => a - b)
}

/** A turn costs so much, a hold that is taken for a sequence so much more. */
const TURN = 2
const HOLD = 1

/** Every way to make a sequence that leaves what is kept as it is, or half done on the work side. */
function macrosFor(
  puzzle: Puzzle,
  letter: string,
  sequences: readonly string[],
  orbit: readonly number[],
  { wanted, kept }: { readonly wanted: readonly number[]; readonly kept: readonly number[] },
): Macro[] {
  const axis = directionOfLetter(letter)
  const own = layersWith(puzzle, axis, orbit)
  const isOfBox = (place: number) => own.some((grip) => puzzle.carry[grip][24 * place] === IN)
  const still = [...kept, ...anchorsOf(puzzle)]
  const others = still.filter((place) => !isOfBox(place))
  const ownKept = still.filter(isOfBox)
  const found = new Map<string, Macro>()
  const fetches = own.reduce<Sequence[]>(
    (rows, grip) =>
      rows.flatMap((row) =>
        layerTurns(puzzle, puzzle.grips[grip].name).map((turn) => join(puzzle, row, turn)),
      ),
    [sequence(puzzle, '')],
  )
  // Held every way, each tabulated once.
  const known = [...spins(puzzle, axis).entries()].flatMap(([nth, { hold }]) =>
    [{ as: '', turns: [] as readonly Turn[] }, ...forthAndBack(puzzle, sequences)].map(
      ({ as, turns }) => ({
        as,
        nth,
        hold,
        made: sequenceOf(puzzle, rehold(puzzle, turns, INVERSE[hold])),
      }),
    ),
  )
  const looksKept = (places: readonly number[], at: State) =>
    places.every((p) => looksHome(puzzle, p, at[p]))
  for (const fetch of fetches) {
    const fetched = doSequence(fetch, start(puzzle))
    for (const { as, nth, hold, made } of known) {
      const done = made.turns
      if (done.length === 0 && (nth > 0 || fetch.turns.length === 0)) continue
      const at = doSequence(made, fetched)
      // What trades kept pieces with equal ones is not seen once all that is wanted is home.
      const isTrade = ownKept.some((p) => puzzle.place[24 * p + at[p]] !== p)
      if (!looksKept(isTrade ? [...ownKept, ...wanted] : ownKept, at)) continue
      const half = done.find(isHalfTurn(puzzle, axis))
      const isEven = looksKept(others, at)
      const isHalf =
        !isEven &&
        half !== undefined &&
        looksKept(others, doSequence(sequence(puzzle, half.name), at))
      if (!isEven && !isHalf) continue
      const to = Uint8Array.from(puzzle.pieces, (_, p) =>
        isTrade ? p : puzzle.place[24 * p + at[p]],
      )
      const cost =
        TURN * (fetch.turns.length + done.length) + (done.length > 1 && nth > 0 ? HOLD : 0)
      const begins = fetch.turns.length === 0 && half !== undefined && done[0] === half
      const ends = half !== undefined && done.at(-1) === half
      const key = [
        ...orbit.map((p) => to[p]),
        isHalf ? half?.grip : NO_SIDE,
        begins,
        ends,
        isTrade,
      ].join()
      const before = found.get(key)
      if (before && before.cost <= cost) continue
      found.set(key, {
        hold,
        fetch: fetch.turns,
        sequence: done,
        text: as,
        to,
        isOdd: isHalf,
        isTrade,
        side: NO_SIDE,
        half: half?.grip,
        beginsHalf: begins,
        endsHalf: ends,
        cost,
      })
    }
  }
  const all = [...found.values()]
  const sides = [...new Set(all.filter(({ isOdd }) => isOdd).map(({ half }) => half))]
  if (sides.length > OTHERWISE) throw new Error('more than four sides would be half done')
  return all.map((macro) => {
    const side = sides.indexOf(macro.half)
    return macro.half === undefined ? macro : { ...macro, side: side < 0 ? OTHER_SIDE : side }
  })
}

/** Each sequence and what takes it back. */
const forthAndBack = (puzzle: Puzzle, sequences: readonly string[]) =>
  sequences.flatMap((each) => {
    const [as, text] = each.split('=')
    const { turns } = sequence(puzzle, text)
    return [
      { as, turns },
      { as, turns: inverseOf(puzzle, turns) },
    ]
  })

/** Those of the sequences of a stage that are of use on this puzzle and are to be learned. */
export function sequencesUsed(
  lesson: Pick<StageContext, 'puzzle' | 'stage'>,
  technique: Swap,
  goalBefore: readonly Condition[],
): readonly Written[] {
  const used = new Set(tableOf(lesson, technique, goalBefore).macros.map(({ text }) => text))
  return (
    sequencesFor(lesson.puzzle, held(lesson.stage).base, technique)
      .map(([as, text]) => ({ as, text }))
      // A single turn is nothing to learn.
      .filter(({ as }) => used.has(as) && as.includes(' '))
  )
}

/** A sequence as it is written, for the outermost box, and as it is done in another one. */
interface Written {
  readonly as: string
  readonly text: string
}

/**
 * The layers across an axis, as positions of grips, that hold some of the places; of two that hold the same of
 * these the thinner one.
 */
function layersWith(puzzle: Puzzle, axis: Direction, places: readonly number[]): number[] {
  const holds = (grip: number, place: number) => puzzle.carry[grip][24 * place] === IN
  const size = (grip: number) => puzzle.pieces.filter((_, p) => holds(grip, p)).length
  const own = (grip: number) => places.filter((place) => holds(grip, place)).join()
  const across = layersOf(puzzle)
    .filter((grip) => puzzle.grips[grip].axis.every((c, i) => (c === 0) === (axis.vector[i] === 0)))
    .filter((grip) => own(grip) !== '')
  return across.filter(
    (grip) => !across.some((other) => own(other) === own(grip) && size(other) < size(grip)),
  )
}
