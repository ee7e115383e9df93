/** What turns never change, in words: odd and even of exchanges, sums of twists. */
import type { Puzzle } from '../puzzle/compile'
import { kindPlural, listed } from '../phrases'
import { IDENTITY } from '../rotation'
import { coordinatesFor } from './invariants'
import type { Orbit } from './orbits'
import { placeNamesOf } from './placeNames'

/** What the vectors of all turns have in common, in words. */
export function invariantWords(
  puzzle: Puzzle,
  orbits: readonly Orbit[],
  vectors: readonly (readonly number[])[],
): string[] {
  const kindsOf = ({ places }: Orbit) =>
    listed([...new Set(places.map((p) => kindPlural(puzzle.pieces[p].kind)))])
  const nameOf = (orbit: Orbit) => {
    const isOnly = orbits.filter((other) => kindsOf(other) === kindsOf(orbit)).length === 1
    const place = placeNamesOf(puzzle, IDENTITY).names[orbit.places[0]]
    if (orbit.places.length === 1) return place
    const which = isOnly ? '' : ` of the orbit of ${place}`
    return `the ${orbit.places.length} ${kindsOf(orbit)}${which}`
  }
  const columns = coordinatesFor(orbits).map((coordinate, c) => ({
    ...coordinate,
    name: nameOf(orbits[coordinate.orbit]),
    values: vectors.map((v) => v[c]),
  }))
  const words: string[] = []
  for (const { what, values, name, modulus } of columns) {
    if (!values.every((v) => v === 0)) continue
    if (what === 'parity') words.push(`Exchanges of ${name} are always even.`)
    else if (modulus === 2) words.push(`Flips of ${name} are always even in number.`)
    else words.push(`Twists of ${name} always add up to whole turns.`)
  }
  const groups = new Map<string, string[]>()
  for (const { what, values, name, modulus } of columns) {
    const key = values.map((v) => v % 2).join('')
    if (modulus % 2 === 1 || !key.includes('1')) continue
    const twist = modulus === 2 ? 'flips' : 'quarter turns'
    const told = `${what === 'parity' ? 'exchanges' : twist} of ${name}`
    groups.set(key, [...(groups.get(key) ?? []), told])
  }
  for (const told of groups.values())
    if (told.length > 1) words.push(`Odd together or even together: ${told.join('; ')}.`)
  return words
}
