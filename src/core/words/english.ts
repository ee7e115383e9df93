/** English, in two registers. */
import { placeNamesOf } from '../analysis/placeNames'
import { coloursAlone, who } from '../analysis/who'
import { anchorsOf } from '../analysis/anchors'
import { indexOf, type Claim, type PieceId } from '../claims/claim'
import { capital, inWords, listed } from '../phrases'
import { directionOfName, DIRECTIONS, type Direction } from '../puzzle/directions'
import { colourIn } from '../puzzle/colours'
import type { Lexicon, Speaker } from './lexicon'
import { textSpan, type Span } from './span'

type Told = ReturnType<Lexicon['first']>
type Of<Kind extends Claim['kind']> = Extract<Claim, { kind: Kind }>

export const ENGLISH: Lexicon = {
  first([claim, next, afterNext], speaker): Told {
    switch (claim.kind) {
      case 'pieceAt': {
        const goes = next?.kind === 'goesTo' || next?.kind === 'turnsThere' ? next : undefined
        return goes?.piece === claim.piece
          ? { spans: lineWords(claim, goes, speaker), of: 2 }
          : {
              spans: [
                pieceSpan(claim.piece, speaker, true),
                textSpan(': '),
                whereSpan(claim, speaker),
                textSpan('.'),
              ],
              of: 1,
            }
      }
      case 'goesTo':
      case 'turnsThere':
        return { spans: [...goesWords(claim, speaker), textSpan('.')], of: 1 }
      case 'takenOut':
        return { spans: [textSpan('Take it out.')], of: 1 }
      case 'shows':
        return { spans: [textSpan(`${capital(showsWords(claim, speaker))}.`)], of: 1 }
      case 'afterTurns':
        return next?.kind === 'pieceAt'
          ? {
              spans: [
                textSpan(`After ${inWords(claim.count)} turns `),
                ...isAt(next, speaker),
                textSpan('.'),
              ],
              of: 2,
            }
          : { spans: [textSpan(`After ${inWords(claim.count)} turns.`)], of: 1 }
      case 'holdBy':
      case 'sideHeld':
        return holdWords([claim, next, afterNext], speaker)
      case 'text':
        return { spans: turnsIn(claim.text, speaker), of: 1 }
    }
  },
}

/** 'White-red-green' or 'the white centre'. */
function pieceSpan(id: PieceId, { puzzle, scheme }: Speaker, isFirst = false): Span {
  const piece = indexOf(puzzle, id)
  const called = coloursAlone(puzzle, scheme, piece)
  const whole = who(puzzle, scheme, piece)
  const text = isFirst ? capital(called ?? whole.replace(/^the /, '')) : whole
  return { kind: 'piece', piece: id, text }
}

/** 'top, front left': where one points. */
function pointSpan(place: PieceId, { puzzle, frame }: Speaker): Span & { text: string } {
  return { kind: 'place', place, text: placeNamesOf(puzzle, frame).points[indexOf(puzzle, place)] }
}

/** 'the top left front corner' */
function placeSpan(place: PieceId, { puzzle, frame }: Speaker): Span {
  return { kind: 'place', place, text: placeNamesOf(puzzle, frame).names[indexOf(puzzle, place)] }
}

const OUTSIDE = 'outside the finished shape'

const whereSpan = ({ place }: Of<'pieceAt'>, speaker: Speaker): Span =>
  place === undefined ? textSpan(OUTSIDE) : pointSpan(place, speaker)

/** 'White-red-green: top, front left. It belongs at 2.' */
function lineWords(
  at: Of<'pieceAt'>,
  goes: Of<'goesTo'> | Of<'turnsThere'>,
  speaker: Speaker,
): Span[] {
  const where = whereSpan(at, speaker)
  const piece = pieceSpan(at.piece, speaker, true)
  if (speaker.register === 'brief') {
    const to =
      goes.kind === 'turnsThere'
        ? textSpan(', turned')
        : goes.line === undefined
          ? textSpan(` → ${pointSpan(goes.place, speaker).text}`)
          : textSpan(` → ${goes.line}`)
    return [piece, textSpan(': '), where, to, textSpan('.')]
  }
  return [piece, textSpan(': '), where, textSpan('. '), ...goesWords(goes, speaker), textSpan('.')]
}

const OWED = ' once all is undone'

function goesWords(claim: Of<'goesTo'> | Of<'turnsThere'>, speaker: Speaker): Span[] {
  if (claim.kind === 'turnsThere') return [textSpan(stayingWords(claim))]
  const owed = claim.isOwed ? OWED : ''
  const to = claim.line === undefined ? pointSpan(claim.place, speaker) : textSpan(`${claim.line}`)
  switch (claim.lies) {
    case 'home':
      return [
        textSpan(claim.line === undefined ? 'It goes home: ' : 'It belongs at '),
        to,
        textSpan(owed),
      ]
    case 'turned':
      return [textSpan('It goes to '), to, textSpan(', its own place, but turned')]
    case 'on':
      return [textSpan('It goes on to '), to, textSpan(' for now')]
  }
}

/** 'yellow to the front, green up': in few words the first alone. */
const showsWords = ({ looks }: Of<'shows'>, { scheme, register }: Speaker): string =>
  (register === 'brief' ? looks.slice(0, 1) : looks)
    .map(
      ({ colour, toward }) =>
        `${colourIn(scheme, colour).name} ${listed(toward.map((name) => directionOfName(name).toward))}`,
    )
    .join(', ')

/** Of a piece that stays where it is. */
function stayingWords({ was, lies }: Of<'turnsThere'>): string {
  if (was === 'home') return 'It looks right, and is turned there all the same'
  return {
    home: 'Right place, turned wrong: it comes right there',
    turned: 'Right place, and still turned wrong after this',
    on: 'It is turned there',
  }[lies]
}

/** 'the white-red edge is the top front edge' */
const isAt = (claim: Of<'pieceAt'>, speaker: Speaker): Span[] => [
  pieceSpan(claim.piece, speaker),
  textSpan(' is '),
  claim.place === undefined ? textSpan(OUTSIDE) : placeSpan(claim.place, speaker),
]

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
function heldSpan(claim: Of<'pieceAt'> | Of<'sideHeld'>, speaker: Speaker): Span {
  const { puzzle, scheme } = speaker
  if (claim.kind === 'sideHeld') {
    const { name } = colourIn(scheme, puzzle.definition.faces[claim.side])
    return textSpan(`${name} ${FACES[claim.at]}`)
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
  const sign = marks.some((mark) => mark.kind === 'piece' && mark.text.includes(',')) ? '; ' : ', '
  const told = marks.flatMap((mark, i) => (i === 0 ? [mark] : [textSpan(sign), mark]))
  if (!by) return { spans: [...capitalised(told), textSpan('.')], of }
  const turns = by.turns.flatMap((name, i): Span[] => [
    ...(i === 0 ? [] : [textSpan(' ')]),
    { kind: 'turn', name },
  ])
  const opening =
    by.turns.length === 0
      ? [textSpan('Keep your grip')]
      : [textSpan('Turn the whole puzzle: '), ...turns]
  return {
    spans: [
      ...opening,
      ...(told.length === 0 ? [] : [textSpan(by.turns.length === 0 ? ': ' : '. Then: '), ...told]),
      textSpan('.'),
    ],
    of,
  }
}

const capitalised = (spans: readonly Span[]): Span[] =>
  spans.map((span, i) =>
    i === 0 && span.kind !== 'turn' ? { ...span, text: capital(span.text) } : span,
  )

/** A turn by its canonical name, standing by itself in a sentence. */
const TURN_IN_TEXT = /(?<![\w'\u2019-])((?:\d+(?:-\d+)?)?[A-Za-z](?:2|')?)(?![\w'\u2019-])/

/** Of a finished sentence the turns that it names, as far as they can be told from words. */
function turnsIn(text: string, { puzzle }: Speaker): Span[] {
  return text.split(TURN_IN_TEXT).flatMap((part, i): Span[] => {
    if (part === '') return []
    return i % 2 === 1 && puzzle.turnByName.has(part)
      ? [{ kind: 'turn', name: part }]
      : [textSpan(part)]
  })
}
