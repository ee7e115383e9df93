/** Where the room's screens are. */
const at = (puzzleId: string, screen = '', query: Record<string, string> = {}): string => {
  const asked = new URLSearchParams(query).toString()
  return `/algorithms/${encodeURIComponent(puzzleId)}${screen && `/${screen}`}${asked && `?${asked}`}`
}

export const shelfAt = (puzzleId: string): string => at(puzzleId)

/** @param turns canonical */
export const sequenceAt = (puzzleId: string, turns: string): string =>
  at(puzzleId, 'sequence', { turns })

/** To find what does the same as some turns, or nothing in particular. */
export const finderAt = (puzzleId: string, like?: string): string =>
  at(puzzleId, 'find', like === undefined ? {} : { like })

export const repairAt = (puzzleId: string, heard?: string): string =>
  at(puzzleId, 'repair', heard === undefined ? {} : { heard })

/** To find what does what is wished, as `writeWish` writes it. */
export const wishAt = (puzzleId: string, wish: string): string => at(puzzleId, 'find', { wish })
