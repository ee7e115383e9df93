/**
 * Turns in words, by their canonical names: what every other dialect falls back to for a turn that it cannot say.
 * The same name has one phrase on every puzzle, and no two names share one.
 */
const SIDES: Readonly<Record<string, string>> = {
  U: 'top',
  D: 'bottom',
  F: 'front',
  B: 'back',
  R: 'right',
  L: 'left',
}

/** Slices and the whole puzzle turn as the side that they are named after. */
const AS_SIDE: Readonly<Record<string, string>> = {
  M: 'middle slice as the left',
  E: 'middle slice as the bottom',
  S: 'middle slice as the front',
  x: 'whole puzzle as the right',
  y: 'whole puzzle as the top',
  z: 'whole puzzle as the front',
}

export interface NameParts {
  /** What turns: 'R', '2U', '1-2F', 'x'. */
  readonly grip: string
  /** '', '2' or a prime. */
  readonly amount: '' | '2' | "'"
}

/** A canonical name in its parts. @throws if it is none */
export function partsOf(name: string): NameParts {
  const found = /^(.*[A-Za-z])(2|'|)$/.exec(name)
  if (!found) throw new Error(`${name} is no canonical name of a turn`)
  return { grip: found[1], amount: found[2] as NameParts['amount'] }
}

/** 'top', 'layer 2 from the right', 'layers 1 to 2 from the front', 'right tip', 'whole puzzle as the top' */
export function layerPhrase(grip: string): string {
  const as = AS_SIDE[grip]
  if (as !== undefined) return as
  const [, range, letter] = /^(\d+(?:-\d+)?)?([A-Za-z])$/.exec(grip) ?? []
  const side = SIDES[letter?.toUpperCase() ?? '']
  if (letter === undefined || side === undefined) throw new Error(`${grip} has no words`)
  if (letter !== letter.toUpperCase()) return `${side} tip`
  if (range === undefined) return side
  const [first, last] = range.split('-')
  return last === undefined
    ? `layer ${first} from the ${side}`
    : `layers ${first} to ${last} from the ${side}`
}

export const AMOUNTS: Readonly<Record<NameParts['amount'], string>> = {
  '': 'clockwise',
  "'": 'back',
  '2': 'half round',
}

/** 'right clockwise', 'top back', 'layer 2 from the left half round' */
export function phraseOf(name: string): string {
  const { grip, amount } = partsOf(name)
  return `${layerPhrase(grip)} ${AMOUNTS[amount]}`
}
