/** Rests in long work, so that others are served meanwhile: call it often, it rests when it is time. */
export function rests(everyMs = 20): () => Promise<void> {
  let since = performance.now()
  return async () => {
    if (performance.now() - since < everyMs) return
    await new Promise((go) => setImmediate(go))
    since = performance.now()
  }
}
