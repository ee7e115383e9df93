/** Where pieces lie and go, how they look, how the puzzle is held. */
import { anchorsOf } from '../../analysis/anchors'
import { wholeWords } from '../../analysis/turnWords'
import { who } from '../../analysis/who'
import { indexOf, type Claim, type Of, type PlacesKind } from '../../claims/claim'
import { capital, inWords, listed } from '../../phrases'
import { colourIn } from '../../puzzle/colours'
import { directionOfName, DIRECTIONS, type Direction } from '../../puzzle/directions'
import type { Sayers, Speaker, Told } from '../lexicon'
import {
  capitalised,
  line,
  listedSpans,
  textSpan,
  turnSpan,
  type Span,
  type TextSpan,
} from '../span'
import {
  colourName,
  labelSpan,
  looksWords,
  OUTSIDE,
  pieceSpan,
  placeSpan,
  pointSpan,
  sideSaid,
} from './names'

type Goes = Of<'goesTo'> | Of<'turnsThere'>

const OWED = ' once all is undone'

export const PLACES: Sayers<PlacesKind> = {
  pieceAt(claim, speaker, [next]) {
    const goes = next?.kind === 'goesTo' || next?.kind === 'turnsThere' ? next : undefined
    if (goes?.piece === claim.piece) return { spans: lineWords(claim, goes, speaker), of: 2 }
    return line`${labelSpan(claim.piece, speaker)}: ${pointSpan(claim.place, speaker)}.`
  },
  goesTo: (claim, speaker) => line`${goesWords(claim, speaker)}.`,
  turnsThere: (claim, speaker) => line`${goesWords(claim, speaker)}.`,
  takenOut: () => line`Take it out.`,
  shows: ({ looks }, speaker) => {
    const told = looks.slice(0, speaker.register === 'brief' ? 1 : 2)
    return line`${capital(looksWords(told, speaker))}.`
  },
  afterTurns({ count }, speaker, [next]) {
    if (next?.kind !== 'pieceAt') return line`After ${inWords(count)} turns.`
    const [piece, place] = [pieceSpan(next.piece, speaker), placeSpan(next.place, speaker)]
    return { spans: line`After ${inWords(count)} turns ${piece} is ${place}.`, of: 2 }
  },
  holdBy: (claim, speaker, after) => holdWords([claim, ...after], speaker),
  sideHeld: (claim, speaker, after) => holdWords([claim, ...after], speaker),
  matches({ looks }, speaker) {
    const meets = looks.map(({ colour, toward: [toward] }) => {
      const name = colourName(colour, speaker)
      return `${name} meets ${name} ${directionOfName(toward).at}`
    })
    return line`${capital(listed(meets))}.`
  },
  continues: () => line`Its colours go on over the piece under it.`,
  goRound: ({ at, isClockwise }, { register }) =>
    register === 'brief'
      ? []
      : line`They go round ${isClockwise ? 'clockwise' : 'anticlockwise'}, looking at the ${directionOfName(at).adjective} side.`,
  inLayer: ({ at }) => line`It is in the ${directionOfName(at).adjective} layer now.`,
  countsAsHome: () => line`It counts as home: build the rest around it.`,
  rightTogether({ pieces }, speaker) {
    const names = listedSpans(pieces.map((piece) => pieceSpan(piece, speaker)))
    return line`Right together with it: ${names}.`
  },
  lacks: ({ piece, colour }, speaker) =>
    line`Only ${pieceSpan(piece, speaker)} lacks ${colourName(colour, speaker)}.`,
}

/** 'White-red-green: top, front left. It belongs at 2.' */
function lineWords(at: Of<'pieceAt'>, goes: Goes, speaker: Speaker): Span[] {
  const [piece, where] = [labelSpan(at.piece, speaker), pointSpan(at.place, speaker)]
  if (speaker.register === 'full') return line`${piece}: ${where}. ${goesWords(goes, speaker)}.`
  if (goes.kind === 'turnsThere') return line`${piece}: ${where}, turned.`
  const to = goes.line === undefined ? pointSpan(goes.place, speaker).text : goes.line
  return line`${piece}: ${where} → ${to}.`
}

function goesWords(claim: Goes, speaker: Speaker): Span[] {
  if (claim.kind === 'turnsThere') return [textSpan(stayingWords(claim))]
  const owed = claim.isOwed ? OWED : ''
  const to = claim.line === undefined ? pointSpan(claim.place, speaker) : textSpan(`${claim.line}`)
  switch (claim.lies) {
    case 'home':
      return line`${claim.line === undefined ? 'It goes home: ' : 'It belongs at '}${to}${owed}`
    case 'turned':
      return line`It goes to ${to}, its own place, but turned`
    case 'on':
      return line`It goes on to ${to} for now`
  }
}

/** Of a piece that stays where it is. */
function stayingWords({ was, lies }: Of<'turnsThere'>): string {
  if (was === 'home') return 'It looks right, and is turned there all the same'
  return {
    home: 'Right place, turned wrong: it comes right there',
    turned: 'Right place, and still turned wrong after this',
    on: 'It is turned there',
  }[lies]
}

/** How a colour that lies in the middle of a side is held. */
const FACES: Readonly<Record<Direction['name'], string>> = {
  up: 'on top',
  down: 'at the bottom',
  front: 'in front',
  back: 'at the back',
  right: 'on the right',
  left: 'on the left',
}

/** A colour of one side, or the piece in its middle: 'white on top'; any other piece: 'the red edge top front'. */
function heldSpan(claim: Of<'pieceAt'> | Of<'sideHeld'>, speaker: Speaker): TextSpan {
  const { puzzle, scheme } = speaker
  if (claim.kind === 'sideHeld') {
    return textSpan(`${sideSaid(claim.side, speaker)} ${FACES[claim.at]}`)
  }
  const piece = indexOf(puzzle, claim.piece)
  const point = claim.place === undefined ? OUTSIDE : pointSpan(claim.place, speaker).text
  const side = DIRECTIONS.find(({ adjective }) => adjective === point)
  const [face, ...more] = puzzle.pieces[piece].faces
  const isCentre = anchorsOf(puzzle).includes(piece) && face !== undefined && more.length === 0
  if (side && isCentre) {
    const { name } = colourIn(scheme, face.colour)
    return { kind: 'piece', piece: claim.piece, text: `${name} ${FACES[side.name]}` }
  }
  return {
    kind: 'piece',
    piece: claim.piece,
    text: `${who(puzzle, scheme, piece).replace(/^the /, '')} ${point}`,
  }
}

/** 'Keep your grip: white on top, green in front.' */
function holdWords(claims: readonly (Claim | undefined)[], speaker: Speaker): Told {
  const [first] = claims
  const by = first?.kind === 'holdBy' ? first : undefined
  const marks: Span[] = []
  let of = by ? 1 : 0
  for (const claim of claims.slice(of)) {
    if (claim?.kind !== 'pieceAt' && claim?.kind !== 'sideHeld') break
    marks.push(heldSpan(claim, speaker))
    of++
  }
  // Where one points has commas of its own.
  const sign = marks.some((mark) => mark.kind === 'piece' && /[,(]/.test(mark.text)) ? '; ' : ', '
  const told = marks.flatMap((mark, i) => (i === 0 ? [mark] : [textSpan(sign), mark]))
  if (!by) return { spans: [...capitalised(told), textSpan('.')], of }
  // The windows show it so.
  if (speaker.register === 'brief' && told.length > 0)
    return { spans: line`${capitalised(told)}.`, of }
  const opening = takenWords(by.turns, speaker, told.length > 0)
  return { spans: told.length === 0 ? line`${opening}.` : line`${opening}: ${told}.`, of }
}

/** How a hold is taken. Where that cannot be said, the marks say how it is held; without marks, the letters do. */
function takenWords(
  turns: readonly string[],
  { puzzle }: Speaker,
  hasMarks: boolean,
): readonly Span[] {
  if (turns.length === 0) return [textSpan('Keep your grip')]
  const said = turns.map((name) => {
    const turn = puzzle.turnByName.get(name)
    return turn && wholeWords(puzzle, turn)
  })
  if (said.every((each) => each !== undefined)) return [textSpan(capital(said.join(', then ')))]
  const letters = turns.flatMap((name) => [textSpan(' '), turnSpan(name)])
  return [textSpan('Turn the whole puzzle'), ...(hasMarks ? [] : [textSpan(','), ...letters])]
}
