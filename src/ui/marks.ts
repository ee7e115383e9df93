/** The small signs that can stand beside colours: outlines in a square from -1 to 1. */
import type { Mark } from '@/core/puzzle/colours'

export const MARK_PATHS: Readonly<Record<Mark, string>> = {
  dot: 'M.34 0A.34.34 0 1 1-.34 0A.34.34 0 1 1 .34 0Z',
  bar: 'M-.5-.16H.5V.16H-.5Z',
  ring: 'M.48 0A.48.48 0 1 1-.48 0A.48.48 0 1 1 .48 0ZM.24 0A.24.24 0 1 0-.24 0A.24.24 0 1 0 .24 0Z',
  wave: 'M-.56.06C-.4-.34-.12-.34 0-.06C.12.2.32.22.42-.12L.58-.02C.44.42.08.46-.1.12C-.2-.1-.34-.1-.42.16Z',
  notch: 'M-.46-.4H.46L0 .44Z',
  cross: 'M-.14-.5H.14V-.14H.5V.14H.14V.5H-.14V.14H-.5V-.14H-.14Z',
  leaf: 'M-.48.46C-.54-.3-.1-.54.5-.5C.54.14.2.5-.48.46Z',
  star: 'M0-.54L.16-.18L.54-.14L.26.12L.34.5L0 .3L-.34.5L-.26.12L-.54-.14L-.16-.18Z',
  moon: 'M.2-.5A.5.5 0 1 0 .2 .5A.62.62 0 0 1 .2-.5Z',
  gable: 'M-.5.4V-.02L0-.48L.5-.02V.4H.2V.1H-.2V.4Z',
  pair: 'M-.12 0A.22.22 0 1 1-.56 0A.22.22 0 1 1-.12 0ZM.56 0A.22.22 0 1 1 .12 0A.22.22 0 1 1 .56 0Z',
  hook: 'M-.46-.5H-.16V.16H.46V.46H-.46Z',
}

/** Black or white, whichever stands out on a shade. */
export function markInk(shade: string): string {
  const channel = (at: number) => parseInt(shade.slice(at, at + 2), 16) / 255
  const light = 0.299 * channel(1) + 0.587 * channel(3) + 0.114 * channel(5)
  return light > 0.55 ? '#1a1a1a' : '#ffffff'
}
