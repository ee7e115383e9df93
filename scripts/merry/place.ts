/** Where things of this folder are kept: `.data`, or what MERRY_DATA names. */
import { randomBytes } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { resolve } from 'node:path'

/** @param folder where they are kept, if not where this process keeps its own */
export function dataPath(
  name: string,
  folder = resolve(process.env.MERRY_DATA ?? '.data'),
): string {
  mkdirSync(folder, { recursive: true })
  return `${folder}/${name}`
}

/** A secret that is made once and stays: only its owner can read it. */
export function keptSecret(name: string, bytes: number, encoding: 'base64' | 'hex'): string {
  const path = dataPath(name)
  if (existsSync(path)) {
    const kept = readFileSync(path, 'utf8').trim()
    if (kept !== '') return kept
  }
  const made = randomBytes(bytes).toString(encoding)
  writeFileSync(path, `${made}\n`, { mode: 0o600 })
  return made
}
