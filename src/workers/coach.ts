/** The page's end of the coach worker. */
import { proxy, wrap, type Remote } from 'comlink'
import { learnedTables } from '@/core/analysis/learnedTables'
import { ownDefinitions } from '@/core/catalog'
import { ownSchools, type OwnSchool } from '@/core/schools/ownSchools'
import type { Coach } from './coach.worker'

let worker: Worker | undefined
let remote: Remote<Coach> | undefined
/** The puzzles and schools of the solver's own that the worker knows, and tables of these puzzles. */
const told = new Set<string>()
const nameOf = ({ puzzleId, school }: OwnSchool) => `${puzzleId} ${school.id}`

/** The coach; its worker starts at the first call and then stays warm. */
export function coach(): Remote<Coach> {
  if (!remote) {
    worker = new Worker(new URL('./coach.worker.ts', import.meta.url), { type: 'module' })
    remote = wrap<Coach>(worker)
    told.clear()
  }
  // Messages arrive in order, so what is asked next knows these.
  const own = ownDefinitions().filter(({ id }) => !told.has(id))
  if (own.length > 0) void remote.learn(own)
  own.forEach(({ id }) => told.add(id))
  for (const definition of ownDefinitions()) {
    const tables = learnedTables(definition)
    const name = `tables ${definition.id}`
    if (told.has(name) || Object.keys(tables).length === 0) continue
    void remote.learnTables(definition, tables)
    told.add(name)
  }
  const schools = ownSchools().filter((each) => !told.has(nameOf(each)))
  if (schools.length > 0) void remote.learnSchools(schools)
  schools.forEach((each) => told.add(nameOf(each)))
  return remote
}

/** Ends whatever the worker is doing. The next call starts a fresh one. */
export function cancelCoach(): void {
  worker?.terminate()
  worker = undefined
  remote = undefined
}

/** A function that the worker may call back. */
export const callback = <T extends (...args: never[]) => void>(call: T): T => proxy(call)
