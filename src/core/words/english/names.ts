/** What pieces, places, groups and turns are called. */
import { ORDINALS, placeNamesOf } from '../../analysis/placeNames'
import { coloursAlone, who, type Look } from '../../analysis/who'
import { indexOf, smallOf, type PieceId } from '../../claims/claim'
import { baseKind, capital, inWords, kindPlural, listed, shortKind } from '../../phrases'
import { colourIn } from '../../puzzle/colours'
import { directionOfName, type FaceName } from '../../puzzle/directions'
import type { Vector } from '../../rotation'
import { groupOf } from '../../universal/groups'
import { workOf } from '../../universal/orbitsAtWork'
import type { Speaker } from '../lexicon'
import { textSpan, type Span, type TextSpan } from '../span'

export const OUTSIDE = 'outside the finished shape'

/** 'the white-red-green corner' */
export const pieceSpan = (id: PieceId, { puzzle, scheme }: Speaker): TextSpan => ({
  kind: 'piece',
  piece: id,
  text: who(puzzle, scheme, indexOf(puzzle, id)),
})

/** 'White-red-green' where that is enough, else 'White centre': how a line begins. */
export function labelSpan(id: PieceId, { puzzle, scheme }: Speaker): TextSpan {
  const piece = indexOf(puzzle, id)
  const text =
    coloursAlone(puzzle, scheme, piece) ?? who(puzzle, scheme, piece).replace(/^the /, '')
  return { kind: 'piece', piece: id, text: capital(text) }
}

/** 'top, front left': where one points. */
export const pointSpan = (place: PieceId | undefined, { puzzle, frame }: Speaker): TextSpan =>
  place === undefined
    ? textSpan(OUTSIDE)
    : { kind: 'place', place, text: placeNamesOf(puzzle, frame).points[indexOf(puzzle, place)] }

/** 'the top left front corner' */
export const placeSpan = (place: PieceId | undefined, { puzzle, frame }: Speaker): TextSpan =>
  place === undefined
    ? textSpan(OUTSIDE)
    : { kind: 'place', place, text: placeNamesOf(puzzle, frame).names[indexOf(puzzle, place)] }

/** The speaker of the smaller box that some pieces make. */
export const ofSmall = (as: Vector, speaker: Speaker): Speaker => ({
  ...speaker,
  puzzle: smallOf(speaker.puzzle, as).small,
})

/** 'edges of the middle layer', 'corners', 'edge bits': what some places are together. */
export function groupNoun({ puzzle }: Pick<Speaker, 'puzzle'>, of: readonly PieceId[]): string {
  const own = of.map((id) => indexOf(puzzle, id))
  const group = workOf(puzzle).orbits.flatMap(({ orbit: { places } }, o) => {
    if (places.length < 2 || !own.includes(places[0])) return []
    const named = groupOf(puzzle, o)
    return named.places.length === own.length && named.places.every((p) => own.includes(p))
      ? [named.name]
      : []
  })
  if (group.length === 1) return group[0]
  const kindsBy = (name: (kind: string) => string) => [
    ...new Set(own.map((p) => name(puzzle.pieces[p].kind))),
  ]
  const short = kindsBy(shortKind)
  return listed((short.length === 1 ? short : kindsBy(baseKind)).map(kindPlural))
}

/** 'white', by the id of a colour. */
export const colourName = (colour: string, { scheme }: Speaker): string =>
  colourIn(scheme, colour).name

/** 'yellow to the front, green up' */
export const looksWords = (looks: readonly Look[], speaker: Speaker): string =>
  looks
    .map(
      ({ colour, toward }) =>
        `${colourName(colour, speaker)} ${listed(toward.map((name) => directionOfName(name).toward))}`,
    )
    .join(', ')

/** A turn of the step by its number; where there are several of that name 'the second R2'. */
export function nthTurnSpans({ turns }: Speaker, at: number): Span[] {
  const name = turns[at] as string | undefined
  if (name === undefined) return [textSpan('a later turn')]
  const same = turns.flatMap((each, i) => (each === name ? [i] : []))
  const turn = { kind: 'turn', name } as const
  return same.length > 1 ? [textSpan(`the ${ORDINALS[same.indexOf(at)]} `), turn] : [turn]
}

/** 'two edges', 'one edge' */
export const countOf = (n: number, kind: string): string =>
  `${inWords(n)} ${n === 1 ? kind : kindPlural(kind)}`

/** A side by its colour, or by where it is when finished. */
export function sideSaid(side: FaceName, { puzzle, scheme }: Speaker): string {
  const colour = puzzle.definition.faces[side]
  return scheme.find(({ id }) => id === colour)?.name ?? directionOfName(side).adjective
}
