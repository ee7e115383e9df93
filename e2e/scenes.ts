/**
 * Positions that tests need, worked out by the core. Run on its own, because the runner of the browser
 * tests does not load the core's data: prints the scene that it is asked for as JSON.
 */
import { unseenChanges } from '../src/core/analysis/lookAlikes'
import { holdOf } from '../src/core/analysis/placements'
import { puzzleById } from '../src/core/catalog'
import { marksOf } from '../src/core/copy/colours'
import {
  candidatesAt,
  cannotBe,
  entryOf,
  nextSlot,
  withForced,
  type Entry,
} from '../src/core/copy/pieces'
import type { Puzzle } from '../src/core/puzzle/compile'
import { must } from '../src/core/result'
import { scramble, scrambledState } from '../src/core/scramble/scramble'
import { inverseOf, isSolved, start, type State } from '../src/core/state'
import { diagnose } from '../src/core/stuck/diagnose'
import { exchanged } from '../src/core/stuck/faults'
import { remediesFor } from '../src/core/stuck/remedies'

/** Turns that lead from the finished puzzle to a state: its way home, backwards. */
function turnsTo(puzzle: Puzzle, state: State): string {
  const home = remediesFor(puzzle, diagnose(puzzle, state)).find(({ kind }) => kind === 'home')
  const turns = home?.turns.flatMap((name) => puzzle.turnByName.get(name) ?? [])
  if (!turns) throw new Error('no way home')
  return inverseOf(puzzle, turns)
    .map(({ name }) => name)
    .join(' ')
}

/** Copied piece by piece: which of the choices is right, place after place, until it is enough. */
function choicesFor(
  puzzle: Puzzle,
  state: State,
  isEnough: (entry: Entry) => boolean = () => false,
): number[] {
  const seen = entryOf(puzzle, state)
  const choices: number[] = []
  let entry: Entry = []
  for (let at = nextSlot(puzzle, entry); at !== undefined; at = nextSlot(puzzle, entry)) {
    if (isEnough(entry)) break
    const right = seen.find(({ slot }) => slot === at)
    if (!right) throw new Error('a place that is not seen')
    choices.push(candidatesAt(puzzle, entry, at).findIndex((each) => each.seen === right.seen))
    entry = withForced(puzzle, [...entry, right])
  }
  return choices
}

const scenes: Record<string, () => unknown> = {
  /** A joined edge of a 4x4x4 flipped: a scramble that leads there. */
  'flipped joined edge'() {
    const cube4 = must(puzzleById('cube-4'))
    const [one, other] = cube4.pieces.flatMap(({ id }, p) => (/^UF\./.test(id) ? [p] : []))
    return turnsTo(cube4, exchanged(cube4, start(cube4), one, other))
  },

  /** Two edges of the prism that look exchanged, because two equal ones are. */
  'traded look-alikes'() {
    const prism = must(puzzleById('prism-6'))
    const alike = unseenChanges(prism).find(({ pieces }) => pieces.length === 2)?.pieces ?? []
    const others = prism.pieces.flatMap((_, p) => (alike.includes(p) ? [] : [p]))
    for (const p of others)
      for (const q of others) {
        if (p >= q || prism.pieces[p].kind !== prism.pieces[q].kind) continue
        const state = exchanged(prism, start(prism), p, q)
        if (isSolved(prism, state) || holdOf(prism, state) !== 0) continue
        if (diagnose(prism, state).verdict === 'look-alike') return turnsTo(prism, state)
      }
    throw new Error('no such state')
  },

  /** A tetrahedron as its stickers show it: for each the number of its colour on the screen. */
  'tetrahedron by colours'() {
    const tetra = must(puzzleById('tetra-3'))
    const numbers = tetra.definition.colours.map(({ id }) => id)
    const marks = marksOf(tetra, scrambledState(tetra, scramble(tetra, 7)))
    return Object.entries(marks).map(([id, colour]) => [id, numbers.indexOf(colour) + 1])
  },

  /** A shifted tower copied piece by piece: which of the choices is right, place after place. */
  'copied tower'() {
    const tower = must(puzzleById('shift-3x3x5'))
    return choicesFor(tower, scrambledState(tower, scramble(tower, 3)))
  },

  /** A cube with one corner twisted, copied in the same way until it is seen that it cannot be. */
  'twisted corner'() {
    const cube3 = must(puzzleById('cube-3'))
    const state = start(cube3)
    const corner = cube3.pieces.findIndex(({ kind }) => kind === 'corner')
    state[corner] = Array.from({ length: 24 }, (_, r) => r).findIndex(
      (r) => r > 0 && cube3.slot[24 * corner + r] === corner,
    )
    return choicesFor(cube3, state, (entry) => cannotBe(cube3, entry) !== undefined)
  },
}

const scene = scenes[process.argv[2] ?? '']
if (!scene) throw new Error(`There is no scene ${process.argv[2]}.`)
process.stdout.write(JSON.stringify(scene()))
