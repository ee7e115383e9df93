/** One call of the command line: what it prints, and the code with which it ends. */
import { applyCommand } from './commands/apply'
import { checkCommand } from './commands/check'
import { describeCommand } from './commands/describe'
import { effectCommand } from './commands/effect'
import { findCommand } from './commands/find'
import { orderCommand } from './commands/order'
import { puzzlesCommand } from './commands/puzzles'
import { readCommand } from './commands/read'
import { repairCommand } from './commands/repair'
import { schoolCommand } from './commands/school'
import { schoolsCommand } from './commands/schools'
import { scrambleCommand } from './commands/scramble'
import { solveCommand } from './commands/solve'
import { Failure, Usage } from './failure'
import { parse, USAGE, type Command, type Output, type Values } from './options'

const COMMANDS: Readonly<Record<string, Command>> = {
  puzzles: puzzlesCommand,
  describe: describeCommand,
  scramble: scrambleCommand,
  apply: applyCommand,
  schools: schoolsCommand,
  school: schoolCommand,
  effect: effectCommand,
  find: findCommand,
  repair: repairCommand,
  read: readCommand,
  check: checkCommand,
  order: orderCommand,
  solve: solveCommand,
}

export interface Printed {
  readonly out: (line: string) => void
  readonly error: (line: string) => void
}

/** The code: 0, 1 for what cannot be answered, 2 for what was asked wrongly. */
export async function run(args: string[], { out, error }: Printed): Promise<number> {
  try {
    const { values, positionals } = parse(args)
    const [name, ...rest] = positionals
    if (values.help) out(USAGE)
    else print(await commandNamed(name)(rest, values), values, out)
    return 0
  } catch (thrown) {
    // What is no failure of the question is one of the program, and is told as such: never a stack of calls.
    const message = thrown instanceof Error ? thrown.message : String(thrown)
    error(
      thrown instanceof Failure
        ? `lantern: ${message}`
        : `lantern: This is a fault of the program, not of what you asked: ${message}.`,
    )
    if (thrown instanceof Usage) error(USAGE)
    return thrown instanceof Usage ? 2 : 1
  }
}

function commandNamed(name: string | undefined): Command {
  if (name === undefined) throw new Usage('a command is missing')
  if (!Object.hasOwn(COMMANDS, name)) throw new Usage(`there is no command ${name}`)
  return COMMANDS[name]
}

function print(found: Output, { json, jsonl }: Values, out: Printed['out']): void {
  if ('one' in found) out(json || jsonl ? JSON.stringify(found.one) : found.words())
  else if (jsonl) for (const value of found.many) out(JSON.stringify(value))
  else if (json) out(JSON.stringify(found.many))
  else for (const words of found.words) out(words())
}
