/** The layers of a puzzle, each once, under its shortest name, counted from the side that is nearer. */
import type { Puzzle, Turn } from '../puzzle/compile'
import { isWhole } from '../puzzle/mechanism'
import { listed } from '../phrases'

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
    const slab = slabOf(grip)
    const other = bySlab.get(slab)
    if (other === undefined || isShorter(grip.name, puzzle.grips[other].name))
      bySlab.set(slab, index)
  })
  return [...bySlab.values()].sort((a, b) => a - b)
}

const named = new WeakMap<Puzzle, readonly Turn[]>()

/** A turn under the name of its layer, as `layersOf` has it; itself where it turns more than one layer. */
export function asNamed(puzzle: Puzzle, { index }: Turn): Turn {
  const known = named.get(puzzle) ?? turnsAsNamed(puzzle)
  named.set(puzzle, known)
  return known[index]
}

function turnsAsNamed(puzzle: Puzzle): readonly Turn[] {
  const bySlab = new Map(layersOf(puzzle).map((grip) => [slabOf(puzzle.grips[grip]), grip]))
  return puzzle.turns.map((turn) => {
    const own = turn.whole ? undefined : bySlab.get(slabOf(puzzle.grips[turn.grip]))
    const same = puzzle.turns.find(
      ({ grip, rotation }) => grip === own && rotation === turn.rotation,
    )
    return same ?? turn
  })
}

const isShorter = (name: string, other: string): boolean =>
  name.length !== other.length
    ? name.length < other.length
    : Number.parseInt(name) < Number.parseInt(other)

/** A slab as it lies, from whichever side it is named. */
function slabOf({ axis, from, to, core, condition }: Puzzle['grips'][number]): string {
  const isForward = (axis.find((c) => c !== 0) ?? 0) > 0
  const back = (bound: number | null) => (bound === null ? null : -bound + 0)
  const [low, high] = isForward ? [from, to] : [back(to), back(from)]
  const along = isForward ? axis : axis.map((c) => -c + 0)
  return [along, low, high, core, condition?.complete].join('|')
}

/** All turns of a grip, the clockwise ones first. */
export const turnsOf = (puzzle: Puzzle, grip: number): Turn[] =>
  puzzle.turns.filter((turn) => turn.grip === grip)

/** What is to be said of a key: that its layer turns by halves, or why nothing turns. Empty if it does as it says. */
export function keyWords(puzzle: Puzzle, name: string): string {
  const turn = turnMeant(puzzle, name)
  if (turn) {
    if (puzzle.grips[turn.grip].amounts.includes(1)) return ''
    return turn.whole
      ? `A quarter round this puzzle would not look as before, so ${name} made ${turn.name}.`
      : `This layer turns by halves only, so ${name} made ${turn.name}.`
  }
  const [, digits, letter] = /^(\d*)([A-Za-z])/.exec(name) ?? []
  const letters = [
    ...new Set(layersOf(puzzle).map((grip) => puzzle.grips[grip].name.replace(/[^A-Z]/g, ''))),
  ].filter(Boolean)
  const { mechanism } = puzzle.definition
  if (/^[xyz]$/.test(letter))
    return 'Turned so as a whole, this puzzle would not look as before, so it is held as it is.'
  if (letters.includes(letter))
    return `There is no layer ${digits} counted from ${letter} that turns.`
  if (mechanism.kind === 'tetrahedron')
    return `Nothing turns by ${letter}: a tetrahedron turns about its vertices, ${listed(letters)}.`
  if (mechanism.kind === 'conjoined' && /^[UDFBRL]$/.test(letter))
    return `Nothing turns by ${letter}: every layer there holds a part of the shared column, or cuts the other half.`
  return `Nothing turns by ${letter}: this puzzle has no such layer.`
}

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
