/** Types, style, format, layers and unused code: all of them, each named when it fails. */
import { spawnSync } from 'node:child_process'
import { rmSync } from 'node:fs'

const CHECKS = [
  ['types', ['next', 'typegen']],
  ['types', ['tsc', '--noEmit']],
  ['lint', ['eslint', '.']],
  ['format', ['prettier', '--check', '--log-level', 'warn', '.']],
  ['layers', ['depcruise', '--config', '.dependency-cruiser.cjs', '--output-type', 'err', 'src']],
  ['unused code', ['knip']],
]

// What an earlier build of the tests said of routes that are gone.
rmSync('.next-test/types', { recursive: true, force: true })

let failed = false
for (const [name, args] of CHECKS) {
  const run = spawnSync('npx', ['--no-install', ...args], { encoding: 'utf8' })
  const output = `${run.stdout}${run.stderr}`.trim()
  // Silence of the layer check would mean that it has read nothing.
  const empty = name === 'layers' && !/\([1-9]\d* modules/.test(output)
  const bad = run.status !== 0 || empty
  console.log(`${bad ? 'failed' : 'passed'}: ${name} (${args[0]})`)
  if (bad) {
    console.log(output || 'no output')
    failed = true
  }
}
process.exit(failed ? 1 : 0)
