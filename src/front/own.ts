/**
 * What the door answers by itself, because it is asked again and again: turns of a bench, what others have done on it,
 * and pictures. Whoever makes pages takes several times as long for each.
 */
import { fail, type Result } from '../core/result'
import { failureOf } from '../server/failure'
import { statusOf } from '../server/status'
import type { Asked, Told } from './asked'
import { picture } from './pictures'
import { append, follow } from './turns'

type Handler = (asked: Asked) => Promise<Told>

const OWN: readonly (readonly [path: RegExp, byMethod: ReadonlyMap<string, Handler>])[] = [
  [
    /^\/api\/bench\/([^/]+)$/,
    new Map<string, Handler>([
      ['GET', follow],
      ['POST', append],
    ]),
  ],
  [
    /^\/api\/pictures\/([^/]+)$/,
    new Map<string, Handler>([
      ['GET', picture],
      ['HEAD', picture],
    ]),
  ],
]

const OTHERWISE: Handler = () =>
  Promise.resolve(fail('bad-method', 'This address is not asked in this way.'))

/** Undefined where the application answers. */
export function ownHandler(
  method: string,
  path: string,
): ((asked: Omit<Asked, 'name'>) => Promise<Answered>) | undefined {
  for (const [pattern, byMethod] of OWN) {
    const name = pattern.exec(path)?.[1]
    if (name === undefined) continue
    const handler = byMethod.get(method) ?? OTHERWISE
    return (asked) => answered(() => handler({ ...asked, name }))
  }
  return undefined
}

export interface Answered {
  readonly status: number
  readonly type: string
  /** How long a browser may keep it. */
  readonly cache: string
  readonly text: string
}

async function answered(work: () => Promise<Told>): Promise<Answered> {
  let told: Told
  try {
    told = await work()
  } catch (error) {
    told = failureOf(error)
  }
  if ('svg' in told)
    return {
      ...{ status: 200, type: 'image/svg+xml', text: told.svg },
      cache: 'private, max-age=31536000, immutable',
    }
  return asJson(told)
}

export const asJson = (result: Result<unknown>): Answered => ({
  ...{ status: statusOf(result), type: 'application/json', text: JSON.stringify(result) },
  cache: 'no-store',
})
