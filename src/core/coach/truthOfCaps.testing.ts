/** What cards say of blocks that grow in a cap, checked on the engine. */
import { capMeant, growthsIn, isInCap } from '../analysis/caps'
import { ORDINALS } from '../analysis/placeNames'
import { turnSide } from '../analysis/sides'
import { average, dot } from '../geometry/vector'
import type { Puzzle, Turn } from '../puzzle/compile'
import type { Selection } from '../schools/school'
import { rotate } from '../rotation'
import { turnFreely, type State } from '../state'
import { inWords } from '../phrases'
import type { ReadStep } from './readStep.testing'
import type { Moment } from './truthOfPairs.testing'

export interface CapTold {
  readonly puzzle: Puzzle
  readonly step: ReadStep
  readonly select: Selection
  /** After so many of the step's turns. */
  readonly at: (turns: number) => Moment
}

const SIZES = [
  'a corner with its edge',
  'a block of two by two',
  'a block of two by three',
  'the whole cap',
]

/** What does not hold. */
export function faultsOfCap(told: CapTold): string[] {
  if (told.select.cap === undefined) return []
  const cap = new Cap(told)
  return [...cap.size(), ...cap.story(), ...cap.lastOnes()]
}

class Cap {
  private readonly held: Moment
  private readonly end: Moment
  private readonly first: number

  constructor(private readonly told: CapTold) {
    this.first = told.step.turns.filter(({ role }) => role === 'hold').length
    this.held = told.at(this.first)
    this.end = told.at(told.step.turns.length)
  }

  private get side() {
    const found = capMeant(this.told.puzzle, this.told.select.cap ?? 1)
    if (!found) throw new Error('no cap')
    return found
  }

  /** What fills a home, as it should look there. */
  private filler({ state, frame }: Moment, home: number): number | undefined {
    const { slot, look } = this.told.puzzle
    const at = 24 * home + frame
    const found = [...state].findIndex(
      (r, p) => slot[24 * p + r] === slot[at] && look[24 * p + r] === look[at],
    )
    return found < 0 ? undefined : found
  }

  private isHome = (moment: Moment, homes: readonly number[]) =>
    homes.every((home) => this.filler(moment, home) !== undefined)

  /** '…, a block of two by two among them' */
  size(): string[] {
    const { puzzle, step } = this.told
    const said = /, (a .+|the whole cap) among them\.$/.exec(step.check)?.[1]
    if (said === undefined) return []
    const growths = growthsIn(puzzle, this.side)
    const nth = SIZES.indexOf(said)
    const has = (n: number) => growths.some((growth) => n < 4 && this.isHome(this.end, growth[n]))
    return nth >= 0 && has(nth) && !has(nth + 1) ? [] : [`another block: ${step.check}`]
  }

  /** Every sentence of the note that tells of a turn, for one reading of which block grows by which pieces. */
  story(): string[] {
    const { puzzle, step } = this.told
    if (step.kind !== 'blocks') return []
    const sentences = (step.note ?? '')
      .split(/(?<=\.) /)
      .filter((text) => / (?:brings|parks|turns the open|lifts|puts) /.test(text))
    if (sentences.length === 0) return []
    const growths = growthsIn(puzzle, this.side)
    // The block that has grown the furthest is meant; which of several is open.
    const grown = growths.map((growth) => {
      const whole = growth.findIndex((homes) => !this.isHome(this.end, homes))
      const next = growth[whole < 0 ? growth.length - 1 : whole]
      const homes = next.filter((home) => this.isHome(this.end, [home]))
      return { homes, rank: 10 * (whole < 0 ? growth.length : whole) + homes.length }
    })
    const most = Math.max(...grown.map(({ rank }) => rank))
    const readings = grown.flatMap(({ homes, rank }) => {
      // What was home by chance and is given up belongs to no block.
      const block = homes.filter((home) => this.isHome(this.held, [home]))
      const coming = homes.filter((home) => !block.includes(home))
      return rank === most && coming.length > 0
        ? [{ block: this.fillers(this.held, block), coming: this.fillers(this.end, coming) }]
        : []
    })
    const isTold = readings.some(({ block, coming }) =>
      sentences.every((sentence) => this.holds(sentence, block, coming)),
    )
    return isTold ? [] : [`it does not go so: ${sentences.join(' ')}`]
  }

  private fillers = (moment: Moment, homes: readonly number[]): number[] =>
    homes.flatMap((home) => this.filler(moment, home) ?? [])

  private turnMeant(text: string): { at: number; turn: Turn } | undefined {
    const { puzzle, step } = this.told
    const [, nth, name] = /^(?:the (\w+) )?(\S+)$/i.exec(text) ?? []
    const numbers = step.turns.flatMap((turn, i) =>
      i >= this.first && turn.name === name ? [i] : [],
    )
    if ((nth === undefined) !== (numbers.length === 1)) return undefined
    const at = numbers[nth === undefined ? 0 : ORDINALS.indexOf(nth)]
    const turn = puzzle.turnByName.get(name)
    return at === undefined || !turn ? undefined : { at, turn }
  }

  private holds(sentence: string, block: readonly number[], coming: readonly number[]): boolean {
    const { puzzle, at, step } = this.told
    const isOne = ({ state }: Moment, pieces: readonly number[]) =>
      new Set(pieces.map((p) => state[p])).size <= 1
    const { vector } = turnSide(puzzle, this.held.frame, this.side)
    const inCap = ({ state }: Moment, p: number) =>
      dot(rotate(state[p], average(puzzle.pieces[p].cells)), vector) > 1.5
    const after = (moment: Moment, turn: Turn): State =>
      turnFreely(puzzle, moment.state, turn, new Uint8Array(moment.state))
    const moved = (moment: Moment, turn: Turn) =>
      block.filter((p) => after(moment, turn)[p] !== moment.state[p]).length
    const from = (n: number) => step.turns.slice(n).map((_, i) => at(n + i + 1))
    const together = /^(.+?) brings them together\.$/.exec(sentence)
    if (together) {
      const meant = this.turnMeant(together[1])
      return (
        meant !== undefined &&
        !isOne(at(meant.at), coming) &&
        from(meant.at).every((moment) => isOne(moment, coming))
      )
    }
    const parks =
      /^(.+?) (?:parks the block: (.+?) would take it (apart|along)|turns the open place to (.+?))\.$/.exec(
        sentence,
      )
    if (parks) {
      const [own, lift] = [this.turnMeant(parks[1]), this.turnMeant(parks[2] ?? parks[4])]
      if (!own || !lift || own.at >= lift.at) return false
      const took = moved(at(own.at), lift.turn)
      const isCap =
        coming.length > 0 &&
        puzzle.pieces.every(
          (_, p) =>
            inCap(at(own.at), p) === (after(at(own.at), own.turn)[p] !== at(own.at).state[p]) ||
            !inCap(at(own.at), p),
        )
      return (
        isCap &&
        moved(at(lift.at), lift.turn) === 0 &&
        (parks[3] === 'apart'
          ? took > 0 && took < block.length
          : parks[3] === 'along'
            ? took === block.length
            : took === 0)
      )
    }
    const lifts =
      /^(.+?) (?:lifts (?:it|them) in( beside the block)?; (\w+) pieces? leaves? the cap for (?:it|them)|puts the block together again, with (?:it|them)|brings the block to (?:it|them))\.$/.exec(
        sentence,
      )
    const meant = lifts && this.turnMeant(lifts[1])
    if (!lifts || !meant) return false
    const [before, next] = [at(meant.at), at(meant.at + 1)]
    const isThere = (moment: Moment) =>
      isOne(moment, [...block, ...coming]) && coming.every((p) => inCap(moment, p))
    const count = moved(before, meant.turn)
    const leaving = puzzle.pieces.filter((_, p) => inCap(before, p) && !inCap(next, p)).length
    return (
      !isThere(before) &&
      from(meant.at).every(isThere) &&
      (lifts[3] !== undefined
        ? count === 0 &&
          inWords(leaving) === lifts[3] &&
          (lifts[2] !== undefined) === block.length > 0
        : sentence.includes('together again')
          ? count > 0 && count < block.length
          : count === block.length && count > 0)
    )
  }

  /** 'Just two are to be exchanged, side by side.' */
  lastOnes(): string[] {
    const { puzzle, step, select } = this.told
    const said =
      /(Just two are to be exchanged(?:, (side by side|across from each other))?|Just three go round|Two and two are to be exchanged)\./.exec(
        step.note ?? '',
      )
    if (!said) return []
    const own = puzzle.pieces.flatMap((piece, p) =>
      isInCap(puzzle, p, this.side) && (select.kinds?.includes(piece.kind) ?? true) ? [p] : [],
    )
    const { state, frame } = this.held
    const wrong = own.filter((p) => puzzle.slot[24 * p + state[p]] !== puzzle.slot[24 * p + frame])
    const takes = (p: number) =>
      wrong.find((q) => puzzle.slot[24 * q + frame] === puzzle.slot[24 * p + state[p]]) ?? -1
    const isSwap = (p: number) => takes(takes(p)) === p
    const count = said[1].startsWith('Just two') ? 2 : said[1].startsWith('Just three') ? 3 : 4
    const between = (a: number, b: number) =>
      puzzle.pieces[a].cells[0].filter((c, i) => c !== puzzle.pieces[b].cells[0][i]).length
    const isSo =
      wrong.length === count &&
      own.every((p) => this.isHome(this.held, [p]) !== wrong.includes(p)) &&
      wrong.every((p) => takes(p) >= 0 && isSwap(p) === (count !== 3)) &&
      (said[2] === undefined ||
        between(wrong[0], wrong[1]) === (said[2] === 'side by side' ? 1 : 2))
    return isSo ? [] : [`it is otherwise: ${step.note}`]
  }
}
