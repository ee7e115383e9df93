/**
 * What runs in this folder, written down so that a second start finds it, and `stop` ends it even where the
 * script that started it was killed. A process is known by its number and the moment it began: numbers are
 * used again.
 */
import { readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { dataPath } from './place'
import { Trouble } from './say'

export interface Process {
  readonly pid: number
  /** When it began, as the system counts. */
  readonly began: string
}

export interface Running {
  readonly script: Process
  readonly port?: number
  readonly server?: Process
  /** What takes the heavy work. */
  readonly worker?: Process
}

/** Undefined if there is no such process. */
export function processOf(pid: number): Process | undefined {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8')
    // The name stands in brackets and may hold anything; after it come the state and the numbers.
    const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ')
    return fields[0] === 'Z' ? undefined : { pid, began: fields[19] }
  } catch {
    return undefined
  }
}

const self = (): Process => processOf(process.pid) ?? { pid: process.pid, began: '' }

export const isAlive = ({ pid, began }: Process): boolean => processOf(pid)?.began === began

const fileOf = (name: string) => dataPath(`${name}.running.json`)

export function readRunning(name: string): Running | undefined {
  try {
    const read = JSON.parse(readFileSync(fileOf(name), 'utf8')) as Running
    return typeof read.script?.pid === 'number' ? read : undefined
  } catch {
    return undefined
  }
}

/**
 * Takes the place of what runs under this name. Throws, with the sentence, if something runs already; what a
 * killed script has left behind is ended.
 */
export function claim(name: string, words: (running: Running) => string): void {
  const path = fileOf(name)
  for (let tries = 0; ; tries++) {
    try {
      writeFileSync(path, JSON.stringify({ script: self() }), { flag: 'wx' })
      return
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST' || tries > 3) throw error
    }
    const before = readRunning(name)
    if (before && isAlive(before.script)) throw new Trouble(words(before))
    for (const left of [before?.server, before?.worker]) if (left) endGroup(left)
    rmSync(path, { force: true })
  }
}

/** Adds to what is written down; whoever reads it meanwhile finds it whole. */
export function note(name: string, more: Omit<Running, 'script'>): void {
  const path = fileOf(name)
  const text = JSON.stringify({ ...readRunning(name), script: self(), ...more })
  writeFileSync(`${path}.new`, text)
  renameSync(`${path}.new`, path)
}

export const unclaim = (name: string): void => rmSync(fileOf(name), { force: true })

/** Ends a process and whatever it has started, at once. */
export function endGroup(ended: Process, signal: NodeJS.Signals = 'SIGKILL'): void {
  if (!isAlive(ended)) return
  try {
    process.kill(-ended.pid, signal)
  } catch {
    try {
      process.kill(ended.pid, signal)
    } catch {
      // It has ended meanwhile.
    }
  }
}

/** Whether it ends within so many milliseconds. */
export async function endsWithin(ended: Process, ms: number): Promise<boolean> {
  for (const until = Date.now() + ms; Date.now() < until;) {
    if (!isAlive(ended)) return true
    await new Promise((wait) => setTimeout(wait, 50))
  }
  return !isAlive(ended)
}
