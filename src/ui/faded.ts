/** Colours for when they do not matter yet: nearly grey, as light or dark as they are. */
import type { Scheme } from '@/core/puzzle/colours'

/** How much of the colour is left. */
const LEFT = 0.22

export const faded = (scheme: Scheme): Scheme =>
  scheme.map((colour) => ({ ...colour, shade: fadedShade(colour.shade) }))

/** @param shade `#rrggbb` */
function fadedShade(shade: string): string {
  const parts = [1, 3, 5].map((at) => parseInt(shade.slice(at, at + 2), 16))
  // What the eye takes for light: green the most, blue the least.
  const light = 0.3 * parts[0] + 0.59 * parts[1] + 0.11 * parts[2]
  const mixed = parts.map((part) => Math.round(light + LEFT * (part - light)))
  return `#${mixed.map((part) => part.toString(16).padStart(2, '0')).join('')}`
}
