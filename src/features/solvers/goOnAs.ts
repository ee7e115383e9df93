/** The page's own part of going on as another solver. */

const CHANNEL = 'merry-solver'

/**
 * Opens a page anew as the solver who was just chosen: nothing that this page knows of the one before, or has
 * told its workers, goes along. Other pages of this browser are told.
 */
export function goOnAs(id: string, to = '/shelf'): void {
  tellOthers(id)
  window.location.assign(to)
}

export function tellOthers(id: string): void {
  const channel = channelOfSolvers()
  channel?.postMessage(id)
  channel?.close()
}

/** Where pages of one browser hear who was chosen; undefined where the browser has none. */
export const channelOfSolvers = (): BroadcastChannel | undefined =>
  typeof BroadcastChannel === 'function' ? new BroadcastChannel(CHANNEL) : undefined
