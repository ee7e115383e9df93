/** How a command is asked, and what it gives back. */
import { parseArgs } from 'node:util'
import { Usage } from './failure'

export const USAGE = `usage: lantern <command> [options] [--json | --jsonl]
  puzzles
  describe <puzzle>
  scramble <puzzle> [--seed N] [--count K]
  apply <puzzle> "<turns>"
  solve <puzzle> [--school S] (--scramble "<turns>" | --random K --seed N)
         [--steps [--register full|brief]]
  schools <puzzle>
  school FILE --puzzle P [--states N]
  effect <puzzle> "<algorithm>"
  find <puzzle> --same "<algorithm>" or --effect FILE [--layers "R U F"] [--most N] [--seconds S]
  repair <puzzle> "<heard>" [--keep K] [--from "<turns>"] [--ends E] [--edits N] [--dialect D]
  read "<text>" --dialect D [--write D] [--puzzle P] [--small inner|wide]
  check <puzzle> --state FILE
  order <puzzle>
<puzzle> is a shipped id or the path of a puzzle file; with --locked "front,back" a circle cube
has these faces locked. K: piece ids with commas, layer:D or all-but:U; E: home, faced:U or placed:U.`

const OPTIONS = {
  json: { type: 'boolean' },
  jsonl: { type: 'boolean' },
  help: { type: 'boolean' },
  seed: { type: 'string' },
  count: { type: 'string' },
  school: { type: 'string' },
  scramble: { type: 'string' },
  random: { type: 'string' },
  locked: { type: 'string' },
  state: { type: 'string' },
  steps: { type: 'boolean' },
  register: { type: 'string' },
  puzzle: { type: 'string' },
  states: { type: 'string' },
  keep: { type: 'string' },
  from: { type: 'string' },
  ends: { type: 'string' },
  edits: { type: 'string' },
  dialect: { type: 'string' },
  write: { type: 'string' },
  same: { type: 'string' },
  effect: { type: 'string' },
  layers: { type: 'string' },
  most: { type: 'string' },
  seconds: { type: 'string' },
  small: { type: 'string' },
} as const

export type Values = ReturnType<typeof parse>['values']

export function parse(args: string[]) {
  try {
    return parseArgs({ args, options: OPTIONS, allowPositionals: true })
  } catch (error) {
    throw new Usage((error as Error).message)
  }
}

/** What a command finds: one thing, or many of which each is a line. */
export type Output =
  | { readonly one: unknown; readonly words: () => string }
  | { readonly many: readonly unknown[]; readonly words: readonly (() => string)[] }

export const one = (value: unknown, words: () => string): Output => ({ one: value, words })

export const many = <T>(list: readonly T[], words: (value: T) => string): Output => ({
  many: list,
  words: list.map((value) => () => words(value)),
})

export type Command = (rest: string[], values: Values) => Output | Promise<Output>
