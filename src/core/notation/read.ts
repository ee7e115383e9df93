/**
 * Reads turns and algorithms. Errors carry the offset of the character where reading stopped.
 *
 *     algorithm = { item }
 *     item      = turn | "(" algorithm ")" [count] [back] | "[" algorithm (":" | ",") algorithm "]"
 *     turn      = [ first ["-" last] ] letter ["w"] [amount] [back]
 *
 * Nothing is expanded before it is known how long it becomes: whoever writes nineteen characters must not be
 * able to ask for a thousand million turns.
 */
import type { Puzzle, Turn } from '../puzzle/compile'
import { fail, ok, type Result } from '../result'
import { TEXT_LIMIT, TURN_LIMIT } from './limits'
import { CANONICAL, LETTERS, lettersOf, type LettersId } from './letters'
import { expand, expandedLength, type Algorithm, type Node } from './tree'

/** How deep groups and brackets may lie in each other. */
const DEPTH_LIMIT = 24

class Stop extends Error {
  constructor(
    readonly at: number,
    sentence: string,
  ) {
    super(sentence)
  }
}

/** The algorithm as written, with its groups. */
export function readAlgorithm(
  puzzle: Puzzle,
  text: string,
  dialect: LettersId = CANONICAL,
): Result<Algorithm> {
  if (text.length > TEXT_LIMIT)
    return fail('bad-turns', `That is more than ${TEXT_LIMIT} characters.`, { at: TEXT_LIMIT })
  const reader = new Reader(puzzle, text, dialect)
  try {
    const algorithm = reader.algorithm()
    reader.end()
    return ok(algorithm)
  } catch (error) {
    if (error instanceof Stop) return fail('bad-turns', error.message, { at: error.at })
    throw error
  }
}

/** The plain list of turns. */
export function readTurns(
  puzzle: Puzzle,
  text: string,
  dialect: LettersId = CANONICAL,
): Result<Turn[]> {
  const algorithm = readAlgorithm(puzzle, text, dialect)
  return algorithm.ok ? ok(expand(puzzle, algorithm.value)) : algorithm
}

class Reader {
  private at = 0
  private depth = 0

  constructor(
    private readonly puzzle: Puzzle,
    private readonly text: string,
    private readonly dialect: LettersId,
  ) {}

  algorithm(): Algorithm {
    const nodes: Node[] = []
    let length = 0
    for (;;) {
      this.skip()
      const begin = this.at
      const next = this.text[begin]
      if (next === undefined || ')]:,'.includes(next)) return nodes
      const node = next === '(' ? this.group() : next === '[' ? this.bracket() : this.turn()
      length += expandedLength([node])
      if (length > TURN_LIMIT) throw new Stop(begin, `That is more than ${TURN_LIMIT} turns.`)
      nodes.push(node)
    }
  }

  /** What stands inside a group or a bracket that begins at `open`. */
  private inside(open: number): Algorithm {
    if (++this.depth > DEPTH_LIMIT)
      throw new Stop(open, `Brackets lie in each other more than ${DEPTH_LIMIT} deep.`)
    const algorithm = this.algorithm()
    this.depth--
    return algorithm
  }

  end(): void {
    if (this.at < this.text.length)
      throw new Stop(this.at, `'${this.text[this.at]}' closes or divides nothing here.`)
  }

  private group(): Node {
    const open = this.at++
    const body = this.inside(open)
    this.close(')', open)
    const countAt = this.at
    const times = this.number() ?? 1
    if (times === 0) throw new Stop(countAt, 'A group cannot be done 0 times: write 1 or more.')
    return { kind: 'group', body, times, inverse: this.back() }
  }

  private bracket(): Node {
    const open = this.at++
    const first = this.inside(open)
    const sign = this.text[this.at]
    if (sign !== ':' && sign !== ',')
      throw new Stop(this.at, 'A bracket needs a colon (setup: algorithm) or a comma (commutator).')
    this.at++
    const second = this.inside(open)
    this.close(']', open)
    return sign === ':'
      ? { kind: 'conjugate', setup: first, body: second }
      : { kind: 'commutator', first, second }
  }

  private close(sign: string, open: number): void {
    if (this.text[this.at] !== sign)
      throw new Stop(open, `This '${this.text[open]}' is never closed by '${sign}'.`)
    this.at++
  }

  private turn(): Node {
    const begin = this.at
    const grip = this.grip()
    const amountAt = this.at
    const amount = this.number() ?? 1
    const back = this.back()
    const found = this.puzzle.grips.findIndex(({ name }) => name === grip)
    if (found < 0) throw new Stop(begin, this.unknown(grip))
    const { amounts, unitDegrees } = this.puzzle.grips[found]
    const full = 360 / unitDegrees
    if (amount < 1 || amount >= full)
      throw new Stop(
        amountAt,
        `${grip} cannot be turned ${amount} times at once: write 1 to ${full - 1}.`,
      )
    const wanted = back ? full - amount : amount
    if (!amounts.includes(wanted))
      throw new Stop(begin, `${grip} can only make half turns on this puzzle: write ${grip}2.`)
    const turn = this.puzzle.turns.find((each) => each.grip === found && each.amount === wanted)
    return { kind: 'turn', turn: turn as Turn }
  }

  private grip(): string {
    const begin = this.at
    const first = this.number()
    let range = ''
    if (first !== undefined) {
      const last = this.text[this.at] === '-' ? (this.at++, this.number()) : first
      if (last === undefined || last < first || first < 1)
        throw new Stop(begin, 'A range of layers is written small number first: 1-2R.')
      range = last === first ? `${first}` : `${first}-${last}`
    }
    const letter = this.text[this.at]
    if (letter === undefined || !/[A-Za-z]/.test(letter))
      throw new Stop(
        this.at,
        letter ? `'${letter}' is not a turn.` : 'A turn is missing at the end.',
      )
    this.at++
    if (this.text[this.at] !== 'w') return this.outermost(range, letter)
    this.at++
    if (range.includes('-')) throw new Stop(begin, `Write either ${range}${letter} or ${letter}w.`)
    return `1-${first ?? 2}${letter}`
  }

  /** `1U` is the cap alone where the puzzle has caps, else the outer layer as `U` is. */
  private outermost(range: string, letter: string): string {
    const isCap = this.puzzle.grips.some(({ name }) => name === `1${letter}`)
    return range === '1' && !isCap ? letter : range + letter
  }

  private unknown(grip: string): string {
    const letter = grip.at(-1) as string
    if (!this.puzzle.grips.some(({ name }) => name.endsWith(letter)))
      return `'${letter}' names no layer of this puzzle.`
    const whole: Record<string, string> = { R: 'x', L: "x'", U: 'y', D: "y'", F: 'z', B: "z'" }
    return `${grip} is no layer of this puzzle: it has fewer layers there. The whole puzzle is turned by ${whole[letter] ?? letter}.`
  }

  private back(): boolean {
    const sign = this.text[this.at]
    if (sign === undefined) return false
    if (lettersOf(this.dialect).reads.includes(sign)) {
      this.at++
      return true
    }
    const other = LETTERS.find(({ reads }) => (reads as readonly string[]).includes(sign))
    if (other)
      throw new Stop(
        this.at,
        `'${sign}' means a turn back in the dialect '${other.name}'; this is read as '${lettersOf(this.dialect).name}'.`,
      )
    return false
  }

  private number(): number | undefined {
    const digits = /^\d{1,3}/.exec(this.text.slice(this.at, this.at + 3))?.[0]
    if (digits === undefined) return undefined
    this.at += digits.length
    return Number(digits)
  }

  private skip(): void {
    for (;;) {
      while (/\s/.test(this.text[this.at] ?? '')) this.at++
      if (!this.text.startsWith('//', this.at)) return
      const end = this.text.indexOf('\n', this.at)
      this.at = end < 0 ? this.text.length : end
    }
  }
}
