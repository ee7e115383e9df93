/** What a command was asked: puzzles, files, numbers. */
import { readFileSync } from 'node:fs'
import { puzzleById } from '../core/catalog'
import { readTurns } from '../core/notation/read'
import { compiledFrom, type Puzzle } from '../core/puzzle/compile'
import { readDefinition } from '../core/puzzle/readDefinition'
import { start, turnAll, type State } from '../core/state'
import { Failure, told, Usage } from './failure'
import { type Values } from './options'

export function stateAfter(puzzle: Puzzle, text: string): State {
  return told(turnAll(puzzle, start(puzzle), told(readTurns(puzzle, text))))
}

export function puzzleAnd(rest: string[], more: number, values: Values): [Puzzle, string] {
  expectCount(rest, 1 + more)
  return [withLocked(loadPuzzle(rest[0]), values.locked), rest[1] ?? '']
}

export function expectCount(rest: readonly string[], count: number): void {
  if (rest.length !== count)
    throw new Usage(
      `${count} ${count === 1 ? 'word' : 'words'} expected after the command, ${rest.length} given`,
    )
}

/** The same circle cube with other faces locked: the parameter of its mechanism. */
function withLocked(puzzle: Puzzle, locked: string | undefined): Puzzle {
  if (locked === undefined) return puzzle
  const { definition } = puzzle
  const faces = locked
    .split(',')
    .map((face) => face.trim())
    .filter(Boolean)
  const mechanism = { ...definition.mechanism, locked: faces }
  return told(compiledFrom(told(readDefinition({ ...definition, mechanism }))))
}

export function loadPuzzle(name: string): Puzzle {
  if (!/[./\\]/.test(name)) return told(puzzleById(name))
  return told(compiledFrom(told(readDefinition(readJsonFile(name)))))
}

export function readJsonFile(name: string): unknown {
  let text: string
  try {
    text = readFileSync(name, 'utf8')
  } catch {
    throw new Failure(`The file ${name} cannot be read.`)
  }
  try {
    return JSON.parse(text)
  } catch (error) {
    throw new Failure(`The file ${name} is not well-formed JSON: ${(error as Error).message}.`)
  }
}

export function wholeNumber(text: string | undefined, option: string): number | undefined {
  if (text === undefined) return undefined
  const value = Number(text)
  if (!Number.isSafeInteger(value) || value < 0 || text.trim() === '')
    throw new Usage(`--${option} takes a whole number, 0 or more`)
  return value
}
