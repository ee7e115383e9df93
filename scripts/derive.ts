/**
 * Writes what is shipped with the program: src/core/schools/derived/<puzzle>.json for every puzzle that
 * has schools of its own, the orders of all groups in src/core/analysis/derived/orders.json, and the base
 * cycles and loops of the universal school in src/core/universal/derived. With --orders not the first.
 */
import { writeFileSync } from 'node:fs'
import { definitionKey } from '../src/core/analysis/definitionKey'
import { CATALOG_IDS, puzzleById } from '../src/core/catalog'
import { deriveAll } from '../src/core/coach/derive'
import { must } from '../src/core/result'
import { deriveTables } from '../src/core/universal/tables'
import { SCHOOLS } from '../src/core/schools'
import { fits } from '../src/core/schools/fits'

const write = (path: string, value: unknown) =>
  writeFileSync(
    new URL(`../src/core/${path}`, import.meta.url),
    `${JSON.stringify(value, null, 2)}\n`,
  )

function timed<T>(what: string, work: () => T): T {
  const began = performance.now()
  const value = work()
  console.log(`${what} in ${Math.round(performance.now() - began)} ms`)
  return value
}

const orders: Record<string, unknown> = {}
const cycles: Record<string, unknown> = {}
const loops: Record<string, unknown> = {}
const plans: Record<string, unknown> = {}
for (const id of CATALOG_IDS) {
  const puzzle = must(puzzleById(id))
  const key = definitionKey(puzzle.definition)
  const tables = timed(`${id}: tables`, () => deriveTables(puzzle))
  orders[key] = tables.order
  loops[key] = tables.loops
  cycles[key] = tables.cycles
  plans[key] = tables.plan
  if (process.argv.includes('--orders')) continue
  if (!SCHOOLS.some((school) => fits(school, puzzle.definition))) continue
  const derived = timed(`${id}: schools`, () => deriveAll(puzzle))
  // Most schools bring their sequences with them.
  if (Object.keys(derived).length > 0) write(`schools/derived/${id}.json`, derived)
}
write('analysis/derived/orders.json', orders)
write('universal/derived/cycles.json', cycles)
write('universal/derived/loops.json', loops)
write('universal/derived/plans.json', plans)
