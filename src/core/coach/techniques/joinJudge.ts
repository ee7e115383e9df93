/** How a stage that joins parts judges positions: by the parts where each is the only one of its look, else by what is seen. */
import { joinedAs, shownIn, wholesIn, type Joined } from '../../analysis/joined'
import { lookAlikesOf, lookClassesOf } from '../../analysis/lookAlikes'
import type { Puzzle } from '../../puzzle/compile'
import type { Direction } from '../../puzzle/directions'
import { ROTATION_COUNT, type Rotation } from '../../rotation'
import type { Condition, Selection } from '../../schools/school'
import type { State } from '../../state'
import { selected } from '../selections'
import type { Macro } from './joinMacros'

/** The pieces of the smaller box that a selection means. */
export function wholesOf(puzzle: Puzzle, select: Selection, base: Direction) {
  const joined = select.as && joinedAs(puzzle, select.as)
  if (!joined) throw new Error('a stage joins what is no smaller box')
  const wholes = [...new Set(selected(puzzle, select, base).map((p) => joined.wholeOf[p]))]
  return { joined, wholes }
}

/** Judges positions of one stage; each position that is asked about is the one after a sequence from `begin`. */
export interface Judge {
  /** For each whole of the stage how many of its parts lie together, in a place that they may take. */
  readonly partsTogether: (state: State) => number[]
  readonly partsInAll: number
  /** Those that matter: the parts, and what can be taken for them. */
  readonly pieces: readonly number[]
  /** How many parts lie together in a state, from which sequences are then tried. */
  readonly begin: (state: State) => number
  /** No more than so many can come together by a sequence; quickly found. */
  readonly mostBy: (macro: Macro) => number
  /** How many lie together after it. */
  readonly after: (macro: Macro) => number
  /** Whether all is together that came before. */
  readonly keeps: (state: State) => boolean
  /** What is seen of all that the stage asks about. */
  readonly look: (state: State) => string
  /** How three places may have to go round, if no more is wrong. */
  readonly cyclesLeft: (state: State) => readonly string[]
}

/** The ways in which a piece of the smaller box may lie where it is judged. */
interface Ways {
  readonly whole: number
  readonly parts: readonly number[]
  /** Flags by rotation. */
  readonly allowed: Uint8Array
  /** Its parts cannot be taken for others, so their rotations tell all. */
  readonly isDistinct: boolean
  /** For each different way slot and look of each part, in turn. */
  readonly rows: readonly (readonly number[])[]
  /** The same by rotation. */
  readonly rowIn: readonly (readonly number[])[]
}

export function judgeFor(
  puzzle: Puzzle,
  base: Direction,
  frame: Rotation,
  wholes: readonly number[],
  goal: readonly Condition[],
  goalBefore: readonly Condition[],
): Judge {
  const asked = [...goal, ...goalBefore].flatMap((condition) =>
    condition.select?.as ? [{ condition, ...wholesOf(puzzle, condition.select, base) }] : [],
  )
  const joined = asked[0].joined
  const placed = new Set(
    asked.flatMap(({ condition: { must }, wholes: own }) => (must === 'together' ? [] : own)),
  )
  const waysAt = joined.partsOf.map((_, whole) =>
    waysOf(puzzle, joined, whole, placed.has(whole) ? frame : undefined),
  )
  const kept = goalBefore.flatMap(({ select }) =>
    select?.as ? wholesOf(puzzle, select, base).wholes : [],
  )
  const isFull = (whole: number, shown: Uint16Array) =>
    waysAt[whole].rows.some((row) => matches(row, shown) === joined.partsOf[whole].length)
  // Equal ones that may lie anywhere are whole only if each has a place of its own.
  const loose = kept.filter((whole) => !placed.has(whole) && !waysAt[whole].isDistinct)
  const areKept = (state: State) =>
    loose.length === 0 || wholesIn(puzzle, joined, state, loose).size === new Set(loose).size
  const own = wholes.map((whole) => waysAt[whole])
  const judged = [...own, ...kept.map((whole) => waysAt[whole])]
  const slots = [
    ...new Set(
      judged.flatMap(({ parts }) =>
        parts.flatMap((p) =>
          Array.from({ length: ROTATION_COUNT }, (_, r) => puzzle.slot[24 * p + r]),
        ),
      ),
    ),
  ].filter((each) => each < puzzle.pieces.length)
  const counter = own.every(({ isDistinct }) => isDistinct)
    ? countingPieces(puzzle, own)
    : countingLooks(puzzle, own, rowsByPlace(joined, own))
  return {
    partsTogether: (state) => {
      const shown = shownIn(puzzle, state)
      const full = wholesIn(puzzle, joined, state, wholes)
      return own.map(({ rows, parts }, w) => {
        const most = Math.max(...rows.map((row) => matches(row, shown)))
        // Where it may lie anywhere, an equal one may be the one that is whole.
        const isOwn = placed.has(wholes[w]) || full.has(wholes[w])
        return isOwn || most < parts.length ? most : most - 1
      })
    },
    pieces: piecesLike(puzzle, own),
    partsInAll: own.reduce((sum, { parts }) => sum + parts.length, 0),
    ...counter,
    look: (state) => {
      const shown = shownIn(puzzle, state)
      return String.fromCharCode(...slots.map((each) => shown[each]))
    },
    cyclesLeft: (state) => cyclesLeft(puzzle, own, state),
    keeps: (state) => {
      const shown = shownIn(puzzle, state)
      return kept.every((whole) => isFull(whole, shown)) && areKept(state)
    },
  }
}

function matches(row: readonly number[], shown: Uint16Array): number {
  let own = 0
  for (let i = 0; i < row.length; i += 2) if (shown[row[i]] === row[i + 1]) own++
  return own
}

type Counter = Pick<Judge, 'begin' | 'mostBy' | 'after'>

/** Where every part is the only one of its look, rotations tell all; what a sequence leaves alone is not counted again. */
function countingPieces(puzzle: Puzzle, own: readonly Ways[]): Counter {
  const counts = new Uint8Array(own.length)
  let [from, total]: [State, number] = [new Uint8Array(0), 0]
  /** Which whole of the stage a piece is part of, and what lies in each place. */
  const wholeOf = new Int16Array(puzzle.pieces.length).fill(-1)
  own.forEach(({ parts }, w) => parts.forEach((p) => (wholeOf[p] = w)))
  const at = new Int16Array(puzzle.pieces.length)
  const touched = new Uint8Array(own.length)
  const turned = new Uint8Array(Math.max(...own.map(({ parts }) => parts.length)))
  const count = (allowed: Uint8Array, n: number): number => {
    let most = 0
    for (let i = 0; i < n && n - i > most; i++) {
      const r = turned[i]
      if (!allowed[r]) continue
      let same = 1
      for (let j = i + 1; j < n; j++) if (turned[j] === r) same++
      if (same > most) most = same
    }
    return most
  }
  /** For each part and rotation whether a whole could gain by it, also where just three move. */
  const helps = new Uint8Array(puzzle.pieces.length * ROTATION_COUNT)
  const markHelp = (parts: readonly number[], allowed: Uint8Array, most: number) => {
    const now = new Uint8Array(ROTATION_COUNT)
    for (const p of parts) now[from[p]]++
    for (let r = 0; r < ROTATION_COUNT; r++) {
      const missing = most + 1 - now[r]
      const help = !allowed[r] || parts.length - now[r] < missing ? 0 : missing < 3 ? 2 : 1
      for (const p of parts) helps[24 * p + r] = help
    }
  }
  return {
    begin: (state) => {
      from = state
      total = 0
      state.forEach((r, p) => (at[puzzle.place[24 * p + r]] = p))
      own.forEach(({ parts, allowed }, w) => {
        parts.forEach((p, i) => (turned[i] = state[p]))
        counts[w] = count(allowed, parts.length)
        markHelp(parts, allowed, counts[w])
        total += counts[w]
      })
      return total
    },
    mostBy: ({ table, moved }) => {
      const least = moved.length > 3 ? 1 : 2
      let most = 0
      for (let m = 0; m < moved.length; m++) {
        const p = at[moved[m]]
        if (helps[24 * p + table[24 * p + from[p]]] >= least) most++
      }
      return most
    },
    after: ({ table, moved }) => {
      let sum = total
      for (let m = 0; m < moved.length; m++) {
        const w = wholeOf[at[moved[m]]]
        if (w >= 0) touched[w] = 1
      }
      for (let w = 0; w < own.length; w++) {
        if (touched[w] === 0) continue
        touched[w] = 0
        const { parts, allowed } = own[w]
        for (let i = 0; i < parts.length; i++) turned[i] = table[24 * parts[i] + from[parts[i]]]
        sum += count(allowed, parts.length) - counts[w]
      }
      return sum
    },
  }
}

/**
 * Rounds of three places, either way, where no more than these show anything wrong, for every way in which the
 * pieces of the smaller box can be meant to lie.
 */
function cyclesLeft(puzzle: Puzzle, own: readonly Ways[], state: State): string[] {
  const shown = shownIn(puzzle, state)
  const found: string[] = []
  const visit = (w: number, wrong: readonly number[]) => {
    if (wrong.length > 3) return
    if (w === own.length) {
      if (wrong.length < 3) return
      const [a, b, c] = [...wrong].sort((x, y) => x - y)
      found.push(`${a},${b},${c}`, `${a},${c},${b}`)
      return
    }
    const { rows } = own[w]
    const full = rows.some((row) => matches(row, shown) * 2 === row.length)
    if (full) return visit(w + 1, wrong)
    for (const row of rows)
      visit(w + 1, [
        ...wrong,
        ...row.filter((slot, i) => i % 2 === 0 && shown[slot] !== row[i + 1]),
      ])
  }
  visit(0, [])
  return found
}

function piecesLike(puzzle: Puzzle, own: readonly Ways[]): number[] {
  const { classOf } = lookClassesOf(puzzle)
  const classes = new Set(own.flatMap(({ parts }) => parts.map((p) => classOf[p])))
  return puzzle.pieces.flatMap((_, p) => (classes.has(classOf[p]) ? [p] : []))
}

/** The same ways by the place that they fill: equal ones may not all be the one that lies there. */
function rowsByPlace(
  { small }: Joined,
  own: readonly Ways[],
): readonly (readonly (readonly number[])[])[] {
  const places = new Map<number, Map<string, readonly number[]>>()
  for (const { whole, allowed, rowIn } of own)
    rowIn.forEach((row, r) => {
      if (!allowed[r]) return
      const place = small.slot[24 * whole + r]
      const rows = places.get(place) ?? new Map<string, readonly number[]>()
      places.set(place, rows.set(row.join(), row))
    })
  return [...places.values()].map((rows) => [...rows.values()])
}

/** Else by what is seen where the parts should lie. */
function countingLooks(
  puzzle: Puzzle,
  own: readonly Ways[],
  places: readonly (readonly (readonly number[])[])[],
): Counter {
  const { slot, look } = puzzle
  const pieces = piecesLike(puzzle, own)
  const slots = [
    ...new Set(
      own.flatMap(({ rows }) => rows.flatMap((row) => row.filter((__, i) => i % 2 === 0))),
    ),
  ]
  const shown = new Uint16Array(puzzle.slotCount)
  let from: State = new Uint8Array(0)
  const at = new Int16Array(puzzle.pieces.length).fill(-1)
  const mostOf = (rows: readonly (readonly number[])[]) => {
    let most = 0
    for (const row of rows) {
      const seen = matches(row, shown)
      if (seen > most) most = seen
    }
    return most
  }
  const bestIn = new Uint8Array(places.length)
  let total = 0
  const placeOfSlot = new Int16Array(puzzle.slotCount).fill(-1)
  places.forEach((rows, place) => {
    for (const row of rows) for (let i = 0; i < row.length; i += 2) placeOfSlot[row[i]] = place
  })
  const isTouched = new Uint8Array(places.length)
  const touched: number[] = []
  const goes = new Uint16Array(2 * puzzle.pieces.length)
  /** What can be seen in a slot where a row asks for it, numbered; whether its place could gain by it now. */
  const numbers = new Map<number, number>()
  const numberOf = (slotOf: number, lookOf: number): number => {
    const key = slotOf * 65_536 + lookOf
    const known = numbers.get(key) ?? numbers.size
    numbers.set(key, known)
    return known
  }
  const cells = places.map((rows) =>
    rows.map((row) => {
      const own: number[] = []
      for (let i = 0; i < row.length; i += 2) own.push(numberOf(row[i], row[i + 1]))
      return own
    }),
  )
  const asked = new Int16Array(puzzle.pieces.length * ROTATION_COUNT).fill(-1)
  for (const p of pieces)
    for (let here = 24 * p; here < 24 * p + ROTATION_COUNT; here++)
      asked[here] = numbers.get(slot[here] * 65_536 + 1 + look[here]) ?? -1
  const helps = new Uint8Array(numbers.size)
  const markHelp = () => {
    helps.fill(0)
    places.forEach((rows, place) => {
      if (2 * bestIn[place] === rows[0].length) return
      rows.forEach((row, r) => {
        const missing = bestIn[place] + 1 - matches(row, shown)
        // Of a pair of which there is nothing yet both must come for one to be gained.
        const help = row.length === 4 && missing === 2 ? 1 : 2
        for (let i = 0; i < row.length; i += 2) {
          const cell = cells[place][r][i / 2]
          if (shown[row[i]] !== row[i + 1] && helps[cell] < help) helps[cell] = help
        }
      })
    })
  }
  const clear = () => {
    for (const each of slots) shown[each] = 0
  }
  return {
    begin: (state) => {
      from = state
      at.fill(-1)
      clear()
      for (const p of pieces) {
        shown[slot[24 * p + state[p]]] = 1 + look[24 * p + state[p]]
        at[puzzle.place[24 * p + state[p]]] = p
      }
      places.forEach((rows, place) => (bestIn[place] = mostOf(rows)))
      total = bestIn.reduce((a, b) => a + b, 0)
      markHelp()
      return total
    },
    mostBy: ({ table, moved }) => {
      let most = 0
      for (let m = 0; m < moved.length; m++) {
        const p = at[moved[m]]
        const number = p < 0 ? -1 : asked[24 * p + table[24 * p + from[p]]]
        if (number >= 0) most += helps[number]
      }
      return most >> 1
    },
    after: ({ table, moved }) => {
      // Only what moves is looked at again, and put back.
      let count = 0
      for (let m = 0; m < moved.length; m++) {
        const p = at[moved[m]]
        if (p < 0) continue
        const was = 24 * p + from[p]
        goes[2 * count] = was
        goes[2 * count + 1] = 24 * p + table[was]
        count++
      }
      for (let i = 0; i < count; i++) shown[slot[goes[2 * i]]] = 0
      for (let i = 0; i < count; i++) shown[slot[goes[2 * i + 1]]] = 1 + look[goes[2 * i + 1]]
      let sumAfter = total
      for (let i = 0; i < 2 * count; i++) {
        const place = placeOfSlot[slot[goes[i]]]
        if (place < 0 || isTouched[place] === 1) continue
        isTouched[place] = 1
        touched.push(place)
        sumAfter += mostOf(places[place]) - bestIn[place]
      }
      for (let i = 0; i < count; i++) shown[slot[goes[2 * i + 1]]] = 0
      for (let i = 0; i < count; i++) shown[slot[goes[2 * i]]] = 1 + look[goes[2 * i]]
      for (const place of touched) isTouched[place] = 0
      touched.length = 0
      return sumAfter
    },
  }
}

const known = new WeakMap<Joined, Map<string, Ways>>()

function waysOf(puzzle: Puzzle, joined: Joined, whole: number, frame: Rotation | undefined): Ways {
  const own = known.get(joined) ?? new Map<string, Ways>()
  known.set(joined, own)
  const key = `${whole} ${frame}`
  const ways = own.get(key) ?? findWays(puzzle, joined, whole, frame)
  own.set(key, ways)
  return ways
}

function findWays(
  puzzle: Puzzle,
  { small, partsOf, ways }: Joined,
  whole: number,
  frame: Rotation | undefined,
): Ways {
  const parts = partsOf[whole]
  const allowed = Uint8Array.from({ length: ROTATION_COUNT }, (_, r) =>
    Number(
      frame === undefined
        ? ways[whole].includes(r)
        : small.place[24 * whole + r] === small.place[24 * whole + frame],
    ),
  )
  const { classSize, classOf } = lookClassesOf(puzzle)
  const { unseen } = lookAlikesOf(puzzle)
  const rowIn = Array.from({ length: ROTATION_COUNT }, (_, r) =>
    parts
      .map((p) => [puzzle.slot[24 * p + r], 1 + puzzle.look[24 * p + r]])
      .sort(([a], [b]) => a - b)
      .flat(),
  )
  const rows = new Map(rowIn.flatMap((row, r) => (allowed[r] ? [[row.join(), row] as const] : [])))
  return {
    whole,
    parts,
    rowIn,
    allowed,
    isDistinct: parts.every((p) => classSize[classOf[p]] === 1 && unseen[p].length === 1),
    rows: [...rows.values()],
  }
}
