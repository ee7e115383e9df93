/** The layers of a puzzle, each once, under its shortest name. */
import type { Puzzle, Turn } from '../puzzle/compile'
import { isWhole } from '../puzzle/mechanism'

const known = new WeakMap<Puzzle, readonly number[]>()

/** Grips of single layers (no ranges, not the whole puzzle); of equal slabs the shortest name. */
export function layersOf(puzzle: Puzzle): readonly number[] {
  const found = known.get(puzzle)
  if (found) return found
  const layers = slabsOf(puzzle, ({ name }) => !name.includes('-'))
  known.set(puzzle, layers)
  return layers
}

/** Grips of layers that can turn together, single ones among them; of equal slabs the shortest name. */
export function slabsOf(
  puzzle: Puzzle,
  isWanted: (grip: Puzzle['grips'][number]) => boolean = () => true,
): readonly number[] {
  const bySlab = new Map<string, number>()
  puzzle.grips.forEach((grip, index) => {
    if (isWhole(grip) || !isWanted(grip)) return
    const slab = puzzle.carry[index].join('')
    const other = bySlab.get(slab)
    if (other === undefined || grip.name.length < puzzle.grips[other].name.length)
      bySlab.set(slab, index)
  })
  return [...bySlab.values()].sort((a, b) => a - b)
}

/** All turns of a grip, the clockwise ones first. */
export const turnsOf = (puzzle: Puzzle, grip: number): Turn[] =>
  puzzle.turns.filter((turn) => turn.grip === grip)

/**
 * The turn that a solver means by a letter, with a layer number before it and a mark after it: a layer
 * that only half-turns does that, and `1` means the cap or the tip where there is one.
 */
export function turnMeant(puzzle: Puzzle, name: string): Turn | undefined {
  const [, digits, letter, mark] = /^(\d*)([A-Za-z])('?)$/.exec(name) ?? []
  if (!letter) return undefined
  const grips =
    digits === '1' ? [`1${letter}`, letter.toLowerCase(), letter] : [`${digits}${letter}`]
  const grip = grips.find((each) => puzzle.grips.some((other) => other.name === each))
  if (grip === undefined) return undefined
  return puzzle.turnByName.get(grip + mark) ?? puzzle.turnByName.get(`${grip}2`)
}
