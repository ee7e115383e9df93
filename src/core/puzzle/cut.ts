/** A part's share of a solid. */
import { bigCube, clipAll, type HalfSpace } from '../geometry/polyhedron'
import type { Part } from './mechanism'

/** Farther out than any solid that the schema lets through. */
const BEYOND = 1000

export function cutPart(halfSpaces: readonly HalfSpace[], part: Part): Part {
  // The part's own cuts first: they leave little for the many sides of the solid to be tried on.
  const facets = clipAll(bigCube(BEYOND), [...part.region, ...halfSpaces])
  return {
    ...part,
    faces: facets.flatMap(({ colour, normal, polygon }) =>
      colour === undefined ? [] : [{ colour, normal, polygon }],
    ),
    body: facets.map(({ polygon }) => polygon),
  }
}
