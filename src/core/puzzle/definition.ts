/**
 * What a puzzle file says (schema version 1). A puzzle is data: nothing else in the program knows
 * what kind of puzzle it is handling.
 */
import type { HalfSpace } from '../geometry/polyhedron'
import type { Vector } from '../rotation'
import type { Colour } from './colours'
import type { FaceName } from './directions'
import type { FaceColours } from './mechanisms/cells'
import type { ConjoinedBox } from './mechanisms/conjoined'

export type MechanismDefinition =
  /**
   * Layers along x (to the right), y (up), z (toward the viewer): 1 to 7 each. `middles`: where layers of a
   * larger box are joined, the thickness of the middle layer along each axis, in cells; the others have one.
   */
  | { readonly kind: 'box'; readonly size: Vector; readonly middles?: Vector }
  /** A 3x3x3 core with nine more cells beyond each of these faces. */
  | { readonly kind: 'capped'; readonly caps: readonly FaceName[] }
  /** Boxes that share a rigid column. */
  | { readonly kind: 'conjoined'; readonly boxes: readonly ConjoinedBox[] }
  /** A 3x3x3 with a circle on every face; these turn with their face, the others stay. */
  | { readonly kind: 'circles'; readonly locked: readonly FaceName[] }
  /** Turns about its vertices. */
  | { readonly kind: 'tetrahedron' }

export interface PuzzleDefinition {
  readonly schema: 1
  readonly id: string
  readonly name: string
  readonly mechanism: MechanismDefinition
  /** A convex solid that the pieces are cut out of, instead of the mechanism's own shape. */
  readonly solid?: { readonly halfSpaces: readonly (HalfSpace & { readonly colour: string })[] }
  /**
   * How it is drawn: which directions point up and to the front, and whether one looks at a corner of it or
   * straight at the front.
   */
  readonly view?: {
    readonly up: Vector
    readonly front: Vector
    readonly toward?: 'corner' | 'face'
  }
  /** Sets of cells joined into one rigid piece; cells as centres in cell units, core at (0,0,0). */
  readonly glue: readonly (readonly Vector[])[]
  readonly colours: readonly Colour[]
  /** The colour id of each face of the mechanism's own shape. */
  readonly faces: FaceColours
}
