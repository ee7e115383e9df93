import { describe, expect, it } from 'vitest'
import { inFrame } from '../analysis/frame'
import { unseenChanges } from '../analysis/lookAlikes'
import { membershipOf } from '../analysis/order'
import { holdOf } from '../analysis/placements'
import { CATALOG_IDS, puzzleById } from '../catalog'
import type { Puzzle } from '../puzzle/compile'
import { seededRandom } from '../random'
import { readTurns } from '../notation/read'
import { must } from '../result'
import { INVERSE, ROTATION_COUNT } from '../rotation'
import { isInShape, scramble, scrambledState } from '../scramble/scramble'
import { isSolved, looksOf, rotateState, start, turnAll, type State } from '../state'
import { PictureTable } from '../search/pictureTable'
import { after, capped, cube2, cube3, glued } from '../testing'
import { isNothing } from '../analysis/invariants'
import { accountOf } from '../universal/account'
import { mend } from '../universal/correct'
import { diagnose, type Diagnosis } from './diagnose'
import { exchanged, FAULTS, withFault } from './faults'
import { remediesFor } from './remedies'
import { verdictWords } from './sayVerdict'

const judged = diagnose

const wordsOf = (puzzle: Puzzle, diagnosis: Diagnosis): string =>
  verdictWords(puzzle, puzzle.definition.colours, diagnosis).join(' ')

const at = (puzzle: Puzzle, seed: number): State =>
  rotateState(
    scrambledState(puzzle, scramble(puzzle, seed)),
    puzzle.holds[(7 * seed) % puzzle.holds.length],
  )

const pieceNamed = (puzzle: Puzzle, id: string) =>
  puzzle.pieces.findIndex((piece) => piece.id === id)

function turnedInPlace(puzzle: Puzzle, id: string): State {
  const state = start(puzzle)
  const piece = pieceNamed(puzzle, id)
  state[piece] = Array.from({ length: ROTATION_COUNT }, (_, r) => r).find(
    (r) => r > 0 && puzzle.slot[24 * piece + r] === piece,
  ) as number
  return state
}

/** Blocks on a 2x2x2 and on a 2x3x4. */
const TIED: readonly Puzzle[] = [
  glued(
    [2, 2, 2],
    [
      [0.5, 0.5, 0.5],
      [0.5, 0.5, -0.5],
    ],
  ),
  glued(
    [2, 3, 4],
    [
      [0.5, 1, 0.5],
      [0.5, 1, 1.5],
    ],
  ),
]

/** Some choices of four different ones. */
const fours = (all: readonly number[]): number[][] =>
  all.flatMap((a, i) =>
    all.slice(i + 1).flatMap((b, j) =>
      all
        .slice(i + j + 2)
        .slice(0, 3)
        .map((c, k) => [a, b, c, all.slice(i + j + 3)[k] ?? -1])
        .filter(([, , , d]) => d >= 0),
    ),
  )

describe('what a position is', () => {
  it.each(CATALOG_IDS)('nothing that turns make is called a fault: %s', (id) => {
    const puzzle = must(puzzleById(id))
    for (const seed of [1, 2]) {
      const state = at(puzzle, seed)
      const { verdict, state: told } = judged(puzzle, state)
      // A scramble is nothing but a scramble, whatever has become of pieces that look alike.
      expect(verdict, `${id} ${seed}`).toBe('not finished')
      expect(told && looksOf(puzzle, told)).toBe(looksOf(puzzle, state))
    }
    for (const hold of puzzle.holds)
      expect(judged(puzzle, rotateState(start(puzzle), hold)).verdict).toBe('home')
  })

  it.each(['cube-2', 'cube-3', 'tetra-3', 'tilt-3', 'prism-6', 'box-3x3x5', 'diagonal-3x3x5-half'])(
    'a fault is found on %s exactly where the group has no state that looks like it',
    (id) => {
      const puzzle = must(puzzleById(id))
      const isMember = membershipOf(puzzle)
      const random = seededRandom(5)
      const changes = unseenChanges(puzzle)
      const looksReached = (state: State): boolean => {
        const hold = holdOf(puzzle, state)
        if (hold === undefined) return false
        const framed = rotateState(state, INVERSE[hold])
        if (!isInShape(puzzle, framed)) return false
        const once = [framed, ...changes.map(({ make }) => make(framed))]
        return once.some(
          (each) =>
            isMember?.(each) || changes.slice(0, 6).some(({ make }) => isMember?.(make(each))),
        )
      }
      const found = new Set<boolean>()
      for (const fault of FAULTS)
        for (let seed = 1; seed <= 4; seed++) {
          const state = withFault(puzzle, at(puzzle, seed), fault, random)
          if (!state) continue
          const isFault = judged(puzzle, state).verdict === 'assembly'
          expect(isFault, `${id} ${fault} ${seed}`).toBe(!looksReached(state))
          found.add(isFault)
        }
      expect(found.has(true)).toBe(true)
    },
  )

  it('a fault is found on a glued puzzle exactly where the table of all its pictures has none', () => {
    const random = seededRandom(8)
    const found = new Set<boolean>()
    for (const puzzle of TIED) {
      const pictures = must(PictureTable.build(puzzle, 1e6))
      for (const fault of [undefined, ...FAULTS])
        for (let seed = 1; seed <= 2; seed++) {
          const given = at(puzzle, seed)
          const state = fault ? withFault(puzzle, given, fault, random) : given
          if (!state) continue
          const isReached = pictures.distanceOf(inFrame(puzzle, state)) !== undefined
          const what = `${puzzle.definition.name} ${fault} ${seed}`
          expect(judged(puzzle, state).verdict === 'assembly', what).toBe(!isReached)
          found.add(isReached)
        }
    }
    expect(found.size).toBe(2)
  })

  it('what only a small group forbids is told as such, with an exchange where one is enough', () => {
    const [tied] = TIED
    const pictures = must(PictureTable.build(tied, 1e6))
    const corners = tied.pieces.flatMap(({ cells }, p) => (cells.length === 1 ? [p] : []))
    let told = 0
    let mended = 0
    // Two pairs of corners exchanged by hand: even, untwisted, and mostly no turns do it.
    for (const [a, b, c, d] of fours(corners)) {
      const state = exchanged(tied, exchanged(tied, start(tied), a, b), c, d)
      const isReached = pictures.distanceOf(inFrame(tied, state)) !== undefined
      const diagnosis = judged(tied, state)
      const { finding } = diagnosis
      expect(finding.kind === 'assembly').toBe(!isReached)
      if (finding.kind !== 'assembly' || !finding.group) continue
      told++
      expect(wordsOf(tied, diagnosis)).toContain('small group of their own')
      expect(wordsOf(tied, diagnosis)).toContain('The six corners')
      if (finding.corrections.length > 0) mended++
    }
    expect(told).toBeGreaterThan(0)
    expect(mended).toBeGreaterThan(0)
  })

  it("is known on capped puzzles of the solver's own too: faults are faults, turns are none", () => {
    const random = seededRandom(9)
    const puzzle = capped('up', 'down', 'left', 'right')
    const verdicts = FAULTS.flatMap((fault) => {
      const given = at(puzzle, 1)
      expect(judged(puzzle, given).verdict).toBe('not finished')
      const state = withFault(puzzle, given, fault, random)
      return state ? [judged(puzzle, state).verdict] : []
    })
    expect(verdicts).toContain('assembly')
    expect(verdicts).not.toContain('not known')
  })

  it('the smallest correction by hand makes turns lead home', () => {
    const random = seededRandom(3)
    for (const id of ['cube-2', 'cube-3', 'cube-4', 'tilt-3', 'bipyramid-6']) {
      const puzzle = must(puzzleById(id))
      const { seen, vectorOf } = accountOf(puzzle)
      let mended = 0
      for (let seed = 0; seed < 8; seed++) {
        const faulty = withFault(
          puzzle,
          scrambledState(puzzle, scramble(puzzle, seed)),
          'turned',
          random,
        )
        if (
          !faulty ||
          holdOf(puzzle, faulty) !== 0 ||
          judged(puzzle, faulty).verdict !== 'assembly'
        )
          continue
        const fix = mend(puzzle, faulty)
        expect(fix?.corrections).toHaveLength(1)
        expect(fix && isNothing(seen, vectorOf(fix.state))).toBe(true)
        expect(fix && judged(puzzle, fix.state).verdict).not.toBe('assembly')
        mended++
      }
      expect(mended, id).toBeGreaterThan(0)
    }
  })
})

describe('in words', () => {
  const words = (puzzle: Puzzle, state: State) => wordsOf(puzzle, judged(puzzle, state))

  it('a twisted corner, with the sense that mends it', () => {
    const faulty = turnedInPlace(cube3, 'UFR')
    expect(words(cube3, faulty)).toMatch(
      /Hands have twisted one of the eight corners: their twists add up to a third of a turn (clockwise|anticlockwise)\. Twist any one of them a third (clockwise|anticlockwise) by hand, for instance the white-green-red corner, now the top right front corner/,
    )
    const fix = mend(cube3, faulty)
    expect(fix && isSolved(cube3, fix.state)).toBe(true)
    // All eight are counted on a 2x2x2 too, the one that is kept still among them.
    expect(words(cube2, turnedInPlace(cube2, 'UFR'))).toMatch(/one of the eight corners/)
  })

  it('two exchanged edges', () => {
    const [p, q] = [pieceNamed(cube3, 'UF'), pieceNamed(cube3, 'UB')]
    expect(words(cube3, exchanged(cube3, start(cube3), p, q))).toMatch(
      /Hands have exchanged two edges: .*Exchange any two of the 12/,
    )
  })

  it('pieces of different kinds in each other’s places', () => {
    const [p, q] = [pieceNamed(cube3, 'U'), pieceNamed(cube3, 'F')]
    const told = judged(cube3, exchanged(cube3, start(cube3), p, q))
    expect(told.verdict).toBe('assembly')
    expect(wordsOf(cube3, told)).toMatch(
      /no turns take them there\. Take both out and exchange them/,
    )
  })

  it('a layer out of register, and centres that are turned', () => {
    const off = after(cube3, [cube3.turnByName.get("R'") as never])
    expect(judged(cube3, off)).toMatchObject({ verdict: 'frame' })
    expect(words(cube3, off)).toMatch(/out of register by a quarter turn: turn it, R\./)
    // In every hold the turn that is named is the one that mends it.
    for (const hold of cube3.holds) {
      const held = rotateState(off, hold)
      const [remedy] = remediesFor(cube3, judged(cube3, held))
      expect(remedy.kind).toBe('register')
      expect(words(cube3, held)).toContain(`turn it, ${remedy.turns[0]}.`)
    }
    // On a tilted cube the centres show it: two of them a quarter turn, one each way.
    const tilt = must(puzzleById('tilt-3'))
    const quarter = (id: string, degrees: 90 | 270) => {
      const name = degrees === 90 ? id : `${id}'`
      return (tilt.turnByName.get(name) as { rotation: number }).rotation
    }
    const state = start(tilt)
    state[pieceNamed(tilt, 'U')] = quarter('U', 90)
    state[pieceNamed(tilt, 'D')] = quarter('D', 270)
    const told = judged(tilt, state)
    expect(told.verdict).toBe('frame')
    expect(wordsOf(tilt, told)).toMatch(/two pieces that never leave their place are turned/)
    expect(told.slots).toHaveLength(2)
  })

  it('equal pieces that traded places unseen, and with them two others that look exchanged', () => {
    const prism = must(puzzleById('prism-6'))
    const alike = unseenChanges(prism).find(({ pieces }) => pieces.length === 2)
    if (!alike) throw new Error('no equal pieces')
    const traded = alike.make(start(prism))
    expect(judged(prism, traded).verdict).toBe('home')
    // Two other pieces of the same orbit exchanged: odd and odd are even.
    const others = prism.pieces.flatMap((_, p) =>
      prism.pieces.flatMap((__, q) => {
        const isKin = prism.pieces[p].kind === prism.pieces[q].kind
        if (p >= q || !isKin || [p, q].some((each) => alike.pieces.includes(each))) return []
        const state = exchanged(prism, start(prism), p, q)
        return isSolved(prism, state) || holdOf(prism, state) !== 0 ? [] : [state]
      }),
    )
    const told = others
      .map((state) => judged(prism, state))
      .filter(({ verdict }) => verdict === 'look-alike')
    expect(told.length).toBeGreaterThan(0)
    expect(wordsOf(prism, told[0])).toMatch(
      /Nothing is wrong\..*equal .* edges have traded places, which no one can see\. So the .* look as if an odd number were exchanged/,
    )
  })

  it.each([
    ['box-3x3x5', 'U R2 D'],
    ['twin-3', "U R D'"],
    ['circle-3', "R U F'"],
  ])('a few turns of %s are no ending, and nothing odd is told of them', (id, turns) => {
    const puzzle = must(puzzleById(id))
    const state = must(turnAll(puzzle, start(puzzle), must(readTurns(puzzle, turns))))
    expect(judged(puzzle, state).verdict).toBe('not finished')
  })

  it('exchanges that are odd are told of the kind of which something lies wrong', () => {
    const cube4 = must(puzzleById('cube-4'))
    const turns = must(readTurns(cube4, '2R2 U2 2R2 1-2U2 2R2 2U2'))
    const state = must(turnAll(cube4, start(cube4), turns))
    const told = judged(cube4, state)
    expect(told.verdict).toBe('reduction parity')
    expect(wordsOf(cube4, told)).toMatch(/its edges need an odd number of exchanges/)
    const lit = told.slots.map((slot) => cube4.pieces[slot].kind)
    expect([...new Set(lit)]).toEqual(['edge'])
  })

  it('a joined edge that is flipped, and two that are exchanged, on a 4x4x4', () => {
    const cube4 = must(puzzleById('cube-4'))
    const wings = cube4.pieces.flatMap(({ id }, p) => (/^UF\./.test(id) ? [p] : []))
    expect(wings).toHaveLength(2)
    const flipped = exchanged(cube4, start(cube4), wings[0], wings[1])
    expect(judged(cube4, flipped).verdict).toBe('reduction parity')
    expect(words(cube4, flipped)).toMatch(
      /joined like a 3x3x3.*the flips of its edges don't add up/,
    )
    const remedies = remediesFor(cube4, judged(cube4, flipped))
    expect(remedies.map(({ kind }) => kind)).toEqual(['settle', 'home'])
    const home = remedies[1].turns.map((name) => cube4.turnByName.get(name) as never)
    expect(isSolved(cube4, must(turnAll(cube4, flipped, home)))).toBe(true)
  })
})

describe('ways out', () => {
  it.each(['cube-2', 'prism-6', 'shift-3x3x5', 'tetra-3'])(
    'of %s lead home when they say so',
    (id) => {
      const puzzle = must(puzzleById(id))
      const state = at(puzzle, 4)
      const remedies = remediesFor(puzzle, judged(puzzle, state))
      expect(remedies.at(-1)?.kind).toBe('home')
      for (const { kind, turns } of remedies) {
        const end = must(
          turnAll(
            puzzle,
            state,
            turns.map((name) => puzzle.turnByName.get(name) as never),
          ),
        )
        expect(kind === 'settle' || isSolved(puzzle, end)).toBe(true)
      }
    },
  )

  it('are none where no turns lead home', () => {
    expect(remediesFor(cube3, judged(cube3, turnedInPlace(cube3, 'UFR')))).toEqual([])
    expect(remediesFor(cube3, judged(cube3, start(cube3)))).toEqual([])
  })
})
