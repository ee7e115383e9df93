/**
 * What a page keeps in its browser. That may be full or blocked: then nothing is kept there, and whoever asks
 * is told, but nothing fails for it.
 */

function store(): Storage | undefined {
  try {
    return globalThis.localStorage
  } catch {
    return undefined
  }
}

/** Whether it is kept now. */
export function keepHere(key: string, text: string): boolean {
  try {
    const here = store()
    here?.setItem(key, text)
    return here !== undefined
  } catch {
    return false
  }
}

export function keptHere(key: string): string | null {
  try {
    return store()?.getItem(key) ?? null
  } catch {
    return null
  }
}

export function forgetHere(key: string): void {
  try {
    store()?.removeItem(key)
  } catch {
    // Blocked: nothing was kept.
  }
}

/** Keys that begin so. */
export function keysHere(prefix: string): string[] {
  try {
    const here = store()
    const keys = Array.from({ length: here?.length ?? 0 }, (_, i) => here?.key(i) ?? '')
    return keys.filter((key) => key.startsWith(prefix))
  } catch {
    return []
  }
}
