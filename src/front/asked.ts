/** What is asked of the door itself, and what it tells. */
import type { Result } from '../core/result'

export interface Asked {
  /** What stands in the address in the place of a name. */
  readonly name: string
  readonly query: URLSearchParams
  /** The solver whom the browser has kept, if any. */
  readonly solver?: string
  readonly body?: Uint8Array
}

/** A result is told as JSON. */
export type Told = Result<unknown> | { readonly svg: string }
