import { beforeAll, describe, expect, it } from 'vitest'
import { directionOfLetter, DIRECTIONS, turnDirection } from '../puzzle/directions'
import { seededRandom } from '../random'
import { must } from '../result'
import { multiply } from '../rotation'
import { drawState } from '../scramble/scramble'
import { SCHOOLS } from '../schools'
import { fits } from '../schools/fits'
import { variantsOf } from '../schools/school'
import { placeOf, readState, turnFreely, type State } from '../state'
import { cube2 } from '../testing'
import { plan } from './plan'
import { stepsOf, type Route, type RouteStep } from './route'

interface Card {
  readonly step: RouteStep
  /** Once its hold is taken. */
  readonly before: State
}

const cards: Card[] = []

/** Every card of a route with the states it speaks of. */
function cardsOf(route: Route): Card[] {
  let state = must(readState(cube2, route.from))
  return stepsOf(route).map((step) => {
    let before = state
    for (const [i, { name }] of step.turns.entries()) {
      const turn = cube2.turnByName.get(name)
      if (!turn) throw new Error(name)
      state = turnFreely(cube2, state, turn, new Uint8Array(state.length))
      if (step.turns.slice(0, i + 1).every(({ role }) => role === 'hold')) before = state
    }
    return { step, before }
  })
}

/** The written schools of the 2x2x2. */
const OWN = SCHOOLS.filter((school) => fits(school, cube2.definition))

beforeAll(() => {
  const random = seededRandom(7)
  for (const school of OWN)
    for (const variant of variantsOf(school))
      for (let i = 0; i < 12; i++)
        cards.push(...cardsOf(must(plan(cube2, school, drawState(cube2, random), { variant }))))
})

/** Where the side that is to show a colour looks, once the whole-puzzle turns are made. */
function sideOfColour(step: RouteStep, colour: string): string {
  const frame = step.turns
    .filter(({ role }) => role === 'hold')
    .reduce((sum, { name }) => multiply(cube2.turnByName.get(name)?.rotation ?? 0, sum), step.frame)
  const id = cube2.definition.colours.find(({ name }) => name === colour)?.id
  const side = DIRECTIONS.find(({ name }) => cube2.definition.faces[name] === id)
  if (!side) throw new Error(`${colour} is no colour of the puzzle`)
  return turnDirection(frame, side).name
}

describe('the words of a card', () => {
  it('are whole sentences without praise, exclamation or holes', () => {
    expect(cards.length).toBeGreaterThan(500)
    for (const { step } of cards)
      for (const text of [
        step.lookFor,
        step.check,
        step.note ?? 'A.',
        ...Object.values(step.hints),
      ]) {
        expect(text).toMatch(/^[A-Z0-9a-z'].*[.?]$/s)
        expect(text).not.toMatch(/[!{}]|undefined|NaN|\s\s|\.\./)
      }
  })

  it('name the hold truly: the colours belong up and in front after the hold turns', () => {
    let told = 0
    for (const { step } of cards) {
      const found = /(\w+) up, (\w+) in front/.exec(step.hold)
      if (!found) continue
      told++
      expect(sideOfColour(step, found[1]), step.hold).toBe('up')
      expect(sideOfColour(step, found[2]), step.hold).toBe('front')
    }
    expect(told).toBeGreaterThan(200)
  })

  it('say where the piece to insert is: the place in the sentence holds it', () => {
    let told = 0
    for (const { step, before } of cards) {
      if (step.kind !== 'insert') continue
      const piece = cube2.pieces.findIndex(({ id }) => id === step.pieces[0])
      const place = cube2.pieces[placeOf(cube2, before, piece)]
      for (const letter of place.id) expect(step.lookFor).toContain(directionOfLetter(letter).at)
      for (const { colour } of cube2.pieces[piece].faces)
        expect(step.lookFor).toContain(
          cube2.definition.colours.find(({ id }) => id === colour)?.name,
        )
      told++
    }
    expect(told).toBeGreaterThan(100)
  })

  it('count the runs truly', () => {
    let told = 0
    for (const { step } of cards) {
      if (!step.runs) continue
      told++
      const seen = new Set(step.turns.flatMap(({ run }) => (run === undefined ? [] : [run])))
      expect(seen.size).toBe(step.runs.times)
      expect(step.runs.before + step.runs.times).toBeLessThanOrEqual(step.runs.total)
    }
    expect(told).toBeGreaterThan(100)
  })
})
