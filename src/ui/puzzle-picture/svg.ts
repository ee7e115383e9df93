/** The pair of windows drawn flat, as a file of its own: what `PuzzlePicture` draws into a page. */
import type { Scheme } from '@/core/puzzle/colours'
import type { Puzzle } from '@/core/puzzle/compile'
import type { State } from '@/core/state'
import { WINDOW_NAMES } from '../camera'
import { markInk, MARK_PATHS } from '../marks'
import { BODY, EDGE, STEP, VIEW_BOX } from './look'
import { markTransform, outlinePath, project, type FlatFacet } from './project'

export function pictureSvg(puzzle: Puzzle, state: State, scheme: Scheme, marks: boolean): string {
  const windows = WINDOW_NAMES.map((name, i) => {
    const facets = project(puzzle, state, scheme, name).map((facet) => facetSvg(facet, marks))
    return `<g transform="translate(${STEP * i} 0)" stroke-linejoin="round">${facets.join('')}</g>`
  })
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${VIEW_BOX}">${windows.join('')}</svg>`
}

function facetSvg({ outline, sticker }: FlatFacet, marks: boolean): string {
  const width = sticker ? EDGE.sticker : EDGE.bare
  const body = `<path d="${outlinePath(outline)}" fill="${BODY}" stroke="${BODY}" stroke-width="${width}"/>`
  if (!sticker) return body
  const shade = `<path d="${outlinePath(sticker.outline)}" fill="${sticker.shade}"/>`
  if (!marks) return body + shade
  return `${body}${shade}<path d="${MARK_PATHS[sticker.mark]}" fill="${markInk(sticker.shade)}" transform="${markTransform(sticker)}"/>`
}
