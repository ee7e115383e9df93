import { markInk, MARK_PATHS } from '../marks'
import { BODY } from './look'
import { markTransform, outlinePath, type FlatFacet } from './project'

/** One facet drawn flat: the dark body, and on it the sticker with its mark. */
export function Facet({
  facet: { outline, sticker },
  marks,
  edge = BODY,
  edgeWidth,
}: {
  facet: FlatFacet
  marks: boolean
  edge?: string
  edgeWidth: number
}) {
  return (
    <g>
      <path d={outlinePath(outline)} fill={BODY} stroke={edge} strokeWidth={edgeWidth} />
      {sticker && <path d={outlinePath(sticker.outline)} fill={sticker.shade} />}
      {sticker && marks && (
        <path
          d={MARK_PATHS[sticker.mark]}
          fill={markInk(sticker.shade)}
          transform={markTransform(sticker)}
        />
      )}
    </g>
  )
}
