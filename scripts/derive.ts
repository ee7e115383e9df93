/** Writes src/core/schools/derived/<puzzle>.json for every puzzle that has schools. */
import { writeFileSync } from 'node:fs'
import { CATALOG, shippedPuzzle } from '../src/core/catalog'
import { deriveAll } from '../src/core/coach/derive'
import { must } from '../src/core/result'
import { schoolsFor } from '../src/core/schools'

for (const { id } of CATALOG) {
  if (schoolsFor(id).length === 0) continue
  const began = performance.now()
  const derived = deriveAll(must(shippedPuzzle(id)))
  const file = new URL(`../src/core/schools/derived/${id}.json`, import.meta.url)
  writeFileSync(file, `${JSON.stringify(derived, null, 2)}\n`)
  console.log(`${id}: derived in ${Math.round(performance.now() - began)} ms`)
}
