/** The page's end of the coach worker. */
import { proxy, wrap, type Remote } from 'comlink'
import type { Coach } from './coach.worker'

let worker: Worker | undefined
let remote: Remote<Coach> | undefined

/** The coach; its worker starts at the first call and then stays warm. */
export function coach(): Remote<Coach> {
  if (!remote) {
    worker = new Worker(new URL('./coach.worker.ts', import.meta.url), { type: 'module' })
    remote = wrap<Coach>(worker)
  }
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
