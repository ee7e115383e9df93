/**
 * A thread of its own that judges what was laid out: it may take seconds on a large puzzle, and others are
 * served meanwhile. Started by judging.ts, and ended by it where it takes too long.
 */
import { parentPort } from 'node:worker_threads'
import { learnDefinitions, puzzleById } from '../core/catalog'
import { judge, type Marked } from '../core/copy/colours'
import { entryOf, judgeEntry } from '../core/copy/pieces'
import { verdictWords } from '../core/stuck/sayVerdict'
import type { Scheme } from '../core/puzzle/colours'
import type { PuzzleDefinition } from '../core/puzzle/definition'
import { fail, must, ok, type Result } from '../core/result'
import { readState, writeState } from '../core/state'

export interface Question {
  readonly puzzleId: string
  /** Where the puzzle is one of the solver's own. */
  readonly own?: PuzzleDefinition
  readonly asked:
    | { readonly by: 'pieces'; readonly state: string }
    | { readonly by: 'colours'; readonly scheme: Scheme; readonly marked: Marked }
}

export interface Judged {
  /** As `writeState` writes it. */
  readonly state: string
  /** The colours as they were found, if they lie otherwise than the copy has them. */
  readonly scheme?: Scheme
}

parentPort?.on('message', ({ puzzleId, own, asked }: Question) => {
  if (own) learnDefinitions([own])
  const puzzle = must(puzzleById(puzzleId))
  const judged = (): Result<Judged> => {
    if (asked.by === 'colours') {
      const { missing, problems, found } = judge(puzzle, asked.scheme, asked.marked)
      if (!found)
        return fail(
          'bad-state',
          problems[0]?.sentence ?? `${missing} stickers are not marked yet.`,
          { field: 'marked' },
        )
      return ok({
        state: writeState(found.state),
        scheme: found.isOwnScheme ? undefined : found.scheme,
      })
    }
    const state = readState(puzzle, asked.state)
    if (!state.ok) return { ok: false, problem: { ...state.problem, field: 'state' } }
    const verdict = judgeEntry(puzzle, entryOf(puzzle, state.value))
    if (verdict.kind !== 'whole')
      return fail('bad-state', 'Some piece lies where no turns take it.', { field: 'state' })
    const { diagnosis } = verdict
    if (diagnosis.verdict === 'assembly') {
      const { colours } = puzzle.definition
      return fail('bad-state', verdictWords(puzzle, colours, diagnosis).join(' '), {
        field: 'state',
      })
    }
    return ok({ state: writeState(verdict.state) })
  }
  parentPort?.postMessage(judged())
})
