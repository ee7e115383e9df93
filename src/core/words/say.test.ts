/** Whatever a stranger makes a card claim, as long as the puzzle has what it names: it is said, and breaks nothing. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { joinedAs } from '../analysis/joined'
import { puzzleById } from '../catalog'
import { CLAIMS, fieldsOf, isSayable, type Claim, type ClaimKind } from '../claims/claim'
import { saidSchema } from '../claims/claimSchema'
import type { Field } from '../claims/fields'
import type { Puzzle } from '../puzzle/compile'
import { DIRECTIONS } from '../puzzle/directions'
import { must } from '../result'
import { say } from './say'
import { textOf } from './span'

const SIZE = [3, 3, 3] as const

/** Values that a field's schema takes, of what the puzzle has. */
function valuesOf(puzzle: Puzzle, name: string, field: Field<unknown>): fc.Arbitrary<unknown> {
  const small = joinedAs(puzzle, SIZE)?.small ?? puzzle
  const ids = fc.constantFrom(...puzzle.pieces.map(({ id }) => id))
  const colours = fc.constantFrom(...puzzle.definition.colours.map(({ id }) => id))
  const looks = fc.array(
    fc.record({
      colour: colours,
      toward: fc.array(fc.constantFrom(...DIRECTIONS.map((side) => side.name)), {
        minLength: 1,
        maxLength: 3,
      }),
    }),
    { maxLength: 3 },
  )
  const named = {
    piece: ids,
    place: ids,
    whole: fc.constantFrom(...small.pieces.map(({ id }) => id)),
    turn: fc.constantFrom(...puzzle.turns.map((turn) => turn.name)),
    colour: colours,
  }
  const one = field.naming && named[field.naming]
  if (one) return field.isList ? fc.array(one, { maxLength: 4 }) : one
  if (name === 'looks' || name === 'not') return looks
  const { oneOf } = field.schema.describe() as { readonly oneOf?: readonly unknown[] }
  if (oneOf && oneOf.length > 0) return fc.constantFrom(...oneOf)
  const taken = [
    fc.nat(14),
    fc.constant(SIZE),
    fc.array(fc.nat(5), { maxLength: 4 }),
    fc.array(fc.constantFrom(...DIRECTIONS.map((side) => side.name)), { maxLength: 4 }),
    fc.array(fc.constantFrom('edge', 'corner'), { maxLength: 3 }),
    fc.constantFrom('', 'R U'),
  ].map((value: fc.Arbitrary<unknown>) => ({
    value,
    some: fc.sample(value, { numRuns: 20, seed: 1 }),
  }))
  const isTaken = (value: unknown) => field.schema.isValidSync(value, { strict: true })
  const fitting = taken.filter(({ some }) => some.some(isTaken)).map(({ value }) => value)
  // Filtered for ever, where nothing fits.
  if (fitting.length === 0) throw new Error(`nothing here fits ${name}`)
  return fc.oneof(...fitting).filter(isTaken)
}

function claims(puzzle: Puzzle, kind: ClaimKind): fc.Arbitrary<Claim> {
  const fields = Object.entries(fieldsOf(kind)).map(([name, field]) => {
    const value = valuesOf(puzzle, name, field)
    return [name, 'isOptional' in field ? fc.option(value, { nil: undefined }) : value] as const
  })
  return fc.record({
    kind: fc.constant(kind),
    ...Object.fromEntries(fields),
  }) as fc.Arbitrary<Claim>
}

describe('a claim that was stored', () => {
  it.each(['cube-4', 'prism-6', 'tetra-3', 'box-3x3x5'])('is said, whatever it is: %s', (id) => {
    const puzzle = must(puzzleById(id))
    const { colours: scheme } = puzzle.definition
    let told = 0
    for (const kind of Object.keys(CLAIMS) as ClaimKind[])
      fc.assert(
        fc.property(fc.array(claims(puzzle, kind), { minLength: 1, maxLength: 2 }), (all) => {
          const sent = JSON.parse(JSON.stringify(all)) as Claim[]
          const isTaken =
            saidSchema().isValidSync(sent, { strict: true }) &&
            sent.every((claim) => isSayable(puzzle, claim))
          if (!isTaken) return
          told++
          for (const register of ['full', 'brief'] as const)
            expect(
              textOf(say(sent, { puzzle, scheme, frame: 0, register, turns: ['R', 'U'] })),
            ).not.toMatch(/undefined|NaN|\[object/)
        }),
        { numRuns: 12 },
      )
    expect(told).toBeGreaterThan(100)
  })
})
