/** First pieces, triggers, counting, twisting, cases. */
import { hasColouredSides, turnSide } from '../../analysis/sides'
import type { Of, TriggersKind } from '../../claims/claim'
import { baseKind, capital, inWords, times as timesWords } from '../../phrases'
import { directionOfName, type Direction } from '../../puzzle/directions'
import { indexOf } from '../../claims/claim'
import type { Sayers, Speaker } from '../lexicon'
import { capitalised, line, turnSpan } from '../span'
import { colourName, groupNoun, pieceSpan, placeSpan, pointSpan, sideSaid } from './names'

/** 'top', of the layer of a side as it is held; on solids the last one. */
export const layerOf = (side: Direction['name'], { puzzle, frame }: Speaker): string =>
  hasColouredSides(puzzle) ? turnSide(puzzle, frame, directionOfName(side)).adjective : 'last'

const OTHERWISE: Readonly<Record<Of<'otherwise'>['what'], string>> = {
  keepTurning: 'Keep turning that layer until it matches.',
  countOn: 'Turn the layer on and count again.',
  countAgain: 'Take the turns back, the last first, and count again.',
  holdAgain: 'Then the puzzle was turned another way: take the hold again.',
  finishRun:
    'Finish the run that you are in. If it still looks elsewhere, take back the runs of this step and count anew.',
  goBack: 'Go back turn by turn, the last one first, until it matches.',
}

export const TRIGGERS: Sayers<TriggersKind> = {
  beginWith: ({ piece }, speaker) => line`Begin with ${pieceSpan(piece, speaker)}.`,
  noLayerYet: ({ side }, speaker) =>
    line`The ${sideSaid(side, speaker)} face is of one colour, but its sides don't match: no layer yet.`,
  triggerRuns({ times, isInSlot }, { register }) {
    if (register === 'brief') return []
    return isInSlot
      ? line`In its slot but twisted, so it takes 2 or 4 runs: here ${times}.`
      : line`From the other layer it takes 1, 3 or 5 runs: here ${times}.`
  },
  lastTurnLeft: ({ turn }) =>
    line`The last ${turnSpan(turn)} is left out: it would turn the other layer only.`,
  slotDeceives({ piece, colour }, speaker) {
    const { puzzle } = speaker
    const kind = baseKind(puzzle.pieces[indexOf(puzzle, piece)].kind)
    return line`Its slot shows ${colourName(colour, speaker)} already, but that is the wrong ${kind}.`
  },
  noneWaits: () => line`None of them waits in the other layer, so take a wrong one out.`,
  placedCounts: ({ counts }) =>
    line`Placed as it stands, and after each quarter turn on: ${counts.join(', ')}.`,
  meansPlaced: ({ side }, speaker) =>
    line`Placed: but for ${sideSaid(side, speaker)} it has the colours of its neighbour in the other layer, however turned.`,
  allPlacedSomewhere: ({ of, side }, speaker) =>
    line`Turn the ${layerOf(side, speaker)} layer until all ${inWords(of.length)} ${groupNoun(speaker, of)} are placed.`,
  onePlaced: ({ of, side, piece }, speaker) =>
    line`Turn the ${layerOf(side, speaker)} layer until just one of the ${groupNoun(speaker, of)} is placed: ${pieceSpan(piece, speaker)}.`,
  nowhereOnePlaced: ({ of }, speaker) =>
    line`No position has just one of the ${groupNoun(speaker, of)} placed: cycle once from anywhere, then count again.`,
  somewhereOnePlaced: () => line`Now some position has just one placed.`,
  staysAt({ piece, place, times }, speaker) {
    const [it, at] = [capitalised([pieceSpan(piece, speaker)]), placeSpan(place, speaker)]
    return line`${it} stays at ${at}; the others go round ${timesWords(times)}.`
  },
  twistedAt: ({ place }, speaker) =>
    place === undefined
      ? line`Twist it there.`
      : line`Bring it round: ${pointSpan(place, speaker)}; twist it there.`,
  runs({ from, to, total, wholeAt }) {
    if (to === wholeAt) return line`With run ${to} of ${total} the first layer is whole again.`
    const which = from === to ? `Run ${to}` : `Runs ${from} to ${to}`
    return line`${which} of ${total}: the first layer looks ruined until run ${wholeAt}; it all comes back.`
  },
  finishRuns: ({ isOnceHeld }, { register }) => {
    if (register === 'brief') return []
    return line`Finish every run, and ${isOnceHeld ? "once you hold it so, don't" : "don't"} turn the whole puzzle until the last one is twisted.`
  },
  twistsLeft: ({ count }) =>
    count === 0
      ? line`This is the last one.`
      : line`${capital(inWords(count))} still to twist after this.`,
  endsEarly: () =>
    line`All is home one turn early: what is left out would only turn the whole puzzle.`,
  doneButForTurn: () => line`All fits, if need be after a turn of one layer.`,
  otherwise: ({ what }) => line`${OTHERWISE[what]}`,
}
