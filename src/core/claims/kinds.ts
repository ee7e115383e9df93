/**
 * Every kind of claim with its fields: one row a kind. It is judged on the engine (`judges/`) and put into words
 * (`core/words`) in one place each, under the same theme. Places are called after the pieces whose homes they are.
 */
import { PATTERNS, type Pattern } from '../analysis/caseRead'
import type { Fit } from '../analysis/fit'
import {
  amount,
  amounts,
  colour,
  count,
  counts,
  direction,
  directions,
  flag,
  kinds,
  looks,
  maybe,
  oneOf,
  orNone,
  two,
  piece,
  pieces,
  place,
  places,
  size,
  text,
  turn,
  turns,
  whole,
  wholes,
} from './fields'

/** Of a piece at its place: all of it is as in the finished puzzle, it is in its own place but turned, or neither. */
export type Lies = 'home' | 'turned' | 'on'
const lies = oneOf<Lies>('home', 'turned', 'on')

/** How the places of a group are counted, always by the eye. */
export type How =
  /** The place shows what it does in the finished puzzle. */
  | 'home'
  /** What belongs there, or one that looks the same, lies there. */
  | 'placed'
  /** What lies there shows the colour of a side where that side is. */
  | 'faced'
  /** What lies there looks home, if need be after a turn of that side's layer. */
  | 'fitting'

export const PLACES = {
  /** A piece lies in a place; without one it lies outside the finished shape. */
  pieceAt: { piece, place: maybe(place) },
  /**
   * After the turns of the step, and once nothing is owed any more, it lies in a place: in that which the piece of
   * another line of the card leaves, if there is one. Owed: that turns have to be undone for it.
   */
  goesTo: { piece, place, lies, line: maybe(count), isOwed: maybe(flag) },
  /** It is in the same place afterwards. */
  turnsThere: { piece, was: lies, lies },
  /** It is somewhere else after the turns: it is lifted out of where it lies. */
  takenOut: { piece },
  /** Which way some of its faces look in the picture, a few of them, each by the nearest of the six first. */
  shows: { piece, looks },
  /** The side of the finished puzzle of that name is held there. */
  sideHeld: { side: direction, at: direction },
  /** The whole puzzle is turned so before anything else; no turns: it is held as it was. */
  holdBy: { turns: orNone(turns) },
  /** After so many turns of layers: what the claims after it speak of. */
  afterTurns: { count },
  /** Where its faces look, another piece beside it shows the same colour. */
  matches: { piece, looks },
  /** All its faces go on over the piece that lies on its ray. */
  continues: { piece },
  /** The three of the lines go round within the layer of that side, as it is held: seen by who looks at it. */
  goRound: { at: direction, isClockwise: maybe(flag) },
  /** It lies in the layer on that side, as the puzzle is held. */
  inLayer: { piece, at: direction },
  /** It counts as home, and the rest is built around it. */
  countsAsHome: { piece },
  /** These are right together with it. */
  rightTogether: { pieces },
  /** On a solid: the one centre that lacks a colour of the first side. */
  lacks: { piece, colour },
} as const

export const COUNTS = {
  /**
   * So many of the places show what they should. A side where only faces are asked, or whose layer may turn; whose
   * circle or cap they are; which of them; once nothing is owed any more.
   */
  homeCount: {
    of: places,
    count,
    how: oneOf<How>('home', 'placed', 'faced', 'fitting'),
    side: maybe(direction),
    whose: maybe(oneOf('circle', 'cap')),
    right: maybe(orNone(places)),
    isOwed: maybe(flag),
  },
  /** What these words mean: fitting. */
  meansFitting: { kinds },
  /** What else shows itself otherwise afterwards than before; told one by one where they are few. */
  movedBeside: { kinds, count: maybe(count) },
  /** Places that are right before the step and not after it. */
  givenUp: { places },
  /** None more of these is right afterwards than before. */
  noneGained: { of: places },
  /** None of these that is right before the step is wrong after it. */
  noneLost: { of: places },
  /** So many of these come home by the step. */
  comeHome: { of: places, count },
  /** So many more than have lines. */
  othersComeHome: { of: places, count },
  /** It looks right and is not: it is turned unseen, or it is another that looks like it. */
  deceives: { piece, how: oneOf('unseen', 'twin'), seems: oneOf('home', 'fitting') },
  /** So many look like it, itself counted. */
  lookAlike: { piece, count },
  /** What has been written is now worked on: seek it, or among these. */
  seek: { piece },
  seekAmong: {
    of: places,
    what: oneOf('right', 'three', 'coming', 'pair', 'odd', 'all', 'first', 'placed', 'twisted'),
  },
  /** It takes an odd or an even number of exchanges to bring these home. */
  exchanges: { of: places, isOdd: maybe(flag) },
  /** No sequence of the stage brings it home from where it lies. */
  mustComeOut: { piece },
  /** All of these look home after the turns, before the set-up is undone. */
  allHomeAtOnce: { of: places },
  /** The step is one quarter turn. */
  oneQuarter: {},
  /** Only the turn of a layer is missing. */
  turnMissing: {},
  /** What may be taken instead: in so many turns. */
  offered: { piece, turns: count },
  /** What may be the third of three that go round, where it is, how many then arrive, in how many turns. */
  offeredThird: { piece, place, arrive: count, turns: maybe(count) },
} as const

export const ORBITS = {
  /** Set-up turns that are undone again. */
  setUp: { count },
  /** Set-up turns that stay until the next step. */
  leftStanding: { turns },
  /** This stage was planned in several ways, and this is the shortest. */
  fewestTried: {},
  /** The school's own way does not lead on from here. */
  noWayOn: {},
  /** No fewer turns lead home; how many they are counted in quarters. */
  least: { turns: count, quarters: count },
  distance: { turns: count },
  firstTurn: { turn },
  /** It is finished after the step. */
  solved: {},
  /** A search found turns that bring these home together; home they are. */
  foundTogether: { pieces, turns: count },
  homeNow: { pieces },
  canComeTogether: { count },
  foundHere: {},
  /** Two turns of one layer, and what they are together; both within the step, or the second in the next. */
  meets: { here: turn, there: turn, one: maybe(turn), isWithin: maybe(flag) },
  /** These come home together; three of them never go round alone. */
  allTogether: { of: places, isNeverThree: maybe(flag) },
  /** What does not add up: kinds whose exchanges are odd, whose twists are off, and how many are turned in place. */
  sumsOff: { odd: kinds, twisted: kinds, turned: maybe(count), turnedKinds: maybe(kinds) },
  /** Each position of these has a shortest way of its own. */
  ownWay: { of: places },
  /** Odd and even come first; the rest depends on it. */
  oddFirst: {},
  restDepends: {},
  /** What three that go round never change. */
  sumsFirst: {},
  /** The shape is made before the colours. */
  shapeFirst: {},
  /** So many pieces lie outside the finished shape. */
  standOut: { count },
  /** These come into the shape by the step. */
  intoShape: { pieces },
  /** Every piece lies in some place of the finished shape. */
  inShape: {},
  /** The glued blocks are taken for themselves; afterwards each lies where the finished puzzle has one. */
  blocksFirst: {},
  blocksPlaced: {},
  blocksBack: {},
} as const

export const CAPS = {
  /** How pieces of the last cap change places, by the lengths of their rounds. */
  rounds: { of: places, lengths: counts, how: maybe(oneOf('beside', 'across')) },
  /** The pieces of the lines lie as they belong already, and go as one. */
  asOneBlock: {},
  /** The turns hold the commutator of these. */
  commutator: { first: turns, second: turn },
  /** Whether turns of that side pass its circle by. */
  circle: { side: direction, isLocked: maybe(flag) },
  /** So many pieces of the cap are a block, but for its centre. */
  grown: { side: direction, count },
  /** By the n-th of the turns (from 0) what comes lies together. */
  gathers: { at: count },
  /** The n-th turn moves the block out of the way of the lift. */
  parks: { at: count, lift: count, from: oneOf('apart', 'along', 'clear') },
  /** The n-th turn brings what comes beside the block. */
  lifts: {
    at: count,
    moves: oneOf('nothing', 'some', 'all'),
    coming: count,
    leaving: count,
    hasBlock: maybe(flag),
  },
} as const

export const BOXES = {
  /** Two corners that show one colour to a side, stay as they are. */
  matchingPair: { pieces: two(pieces), colour, at: direction },
  /** The side on which all else is half done after an odd number of its half turns. */
  workSide: { turn, times: count },
  /** Its twin would show this colour that way in its place, and not that one. */
  twinWouldShow: { piece, twin: piece, looks, not: looks },
} as const

export const JOINS = {
  /** Two parts of one, apart, and where they lie. */
  partsAt: { as: size, piece, partner: piece, place: maybe(place), partnerPlace: maybe(place) },
  /** The n-th of the turns joins two: which it moves, from where if not from where it lay, and whether across. */
  joinsBy: {
    as: size,
    of: wholes,
    at: count,
    pieces: two(pieces),
    moves: piece,
    from: maybe(place),
    isAcross: maybe(flag),
    isByStrips: maybe(flag),
  },
  /** Two parts lie together in a place of the smaller box. */
  together: { as: size, pieces: two(pieces), place: maybe(whole) },
  /** So many parts of a piece of the smaller box lie together as they do in that place of it. */
  partsIn: { as: size, whole, place: maybe(whole), count, of: count },
  /** Between these turns a slice stands open. */
  openFrom: { from: turn, to: turn },
  /** What lies in these places is no pair, and is taken apart. */
  takenApart: { as: size, of: wholes, places: wholes },
  /** So many pairs there are fewer of; where it was, if it is one. */
  pairsParted: { as: size, of: wholes, count, place: maybe(whole) },
  /** There are no others apart. */
  lastTwo: { as: size, of: wholes },
  /** Before the slice turns for the first or the second time, two places both hold such pieces. */
  equalStrip: { as: size, of: wholes, turn, nth: count, places: two(wholes), holds: piece },
  stripsEqual: { as: size, of: wholes, turn, first: count, second: count },
  /** So many are not joined yet, or so many parts are missing. */
  pairsLeft: { as: size, of: wholes, count },
  partsMissing: { as: size, of: wholes, count },
  /** What the step is about: parts of these come together. */
  joins: { as: size, wholes },
  /** May be taken apart instead, with these turns. */
  offeredApart: { as: size, of: wholes, place: maybe(whole), pieces, pair: piece, turns },
  /** From here on what is joined counts as one. */
  countsAsOne: {},
} as const

export const REMEDIES = {
  /** So many edges of the last layer of the smaller box are turned over. */
  turnedOver: { as: size, of: wholes, count },
  /** How many exchanges bring corners and edges of the smaller box home: odd or even. */
  exchangesOf: { as: size, corners: oneOf('odd', 'even'), edges: oneOf('odd', 'even') },
  /** What a remedy does: these turn over or change places, those turn in place; nothing else moves. */
  remedied: {
    as: size,
    how: oneOf('turned', 'exchanged'),
    of: orNone(wholes),
    beside: orNone(wholes),
  },
  /** No turns that keep all joined finish this, whichever of equal pieces is taken for which; or they do. */
  cannotFinish: { as: size },
  canFinish: { as: size },
  /** Hints at these. */
  countThrough: { how: oneOf('turned', 'exchanged') },
  outerCannot: {},
  equalsHide: {},
} as const

export const TRIGGERS = {
  /** Of the first pieces of a layer. */
  beginWith: { piece },
  /** The face of that side is of one colour, and its pieces do not match. */
  noLayerYet: { side: direction },
  /** By the trigger it comes home after so many runs: odd numbers from the other layer, even ones in its slot. */
  triggerRuns: { piece, times: count, isInSlot: maybe(flag) },
  /** The last turn of the trigger is not made: it would turn the other layer only. */
  lastTurnLeft: { turn },
  /** What lies in its slot shows the colour that is wanted there. */
  slotDeceives: { piece, colour },
  /** None of these that is wrong waits in the other layer. */
  noneWaits: { of: places },
  /** So many of these are placed as it stands and after one, two and three quarter turns of a side's layer. */
  placedCounts: { of: places, side: direction, counts },
  meansPlaced: { side: direction },
  /** There is a position of that layer with all of them placed, with one, with none that has just one. */
  allPlacedSomewhere: { of: places, side: direction },
  onePlaced: { of: places, side: direction, piece },
  nowhereOnePlaced: { of: places, side: direction },
  somewhereOnePlaced: { of: places, side: direction },
  /** It stays in a place while the others go round so often. */
  staysAt: { piece, place: maybe(place), times: count },
  /** It is turned in that place; in that where it lies if there is none. */
  twistedAt: { piece, place: maybe(place) },
  /** These runs of the trigger, of so many in all; after which run the first layer is whole again. */
  runs: { from: count, to: count, total: count, wholeAt: count },
  /** A run is always finished, and the whole puzzle is not turned from now on, or once it is held so. */
  finishRuns: { isOnceHeld: maybe(flag) },
  /** So many are still twisted after the step. */
  twistsLeft: { of: places, count },
  /** Everything is home before the last turn of the last run. */
  endsEarly: {},
  /** All fits, if need be after a turn of one layer. */
  doneButForTurn: {},
  /** What to do where it does not come out. */
  otherwise: {
    what: oneOf('keepTurning', 'countOn', 'countAgain', 'holdAgain', 'finishRun', 'goBack'),
  },
} as const

export const CASES = {
  /** Which case it is, of how many. */
  caseIs: { nth: count, of: count },
  seekCase: { of: places, cases: count },
  /** How the layer of a side shows it: so many right, and what the others are like, the same from every hold. */
  caseLooks: { of: places, side: direction, count, how: oneOf<Pattern>(...PATTERNS) },
  /** Where it looks at these places, each by the direction with the same number. */
  looksToward: { side: direction, places, toward: directions },
  /** So many sides on which the layer shows one colour, and which these are as it is held. */
  barCount: { side: direction, count },
  barsAt: { side: direction, sides: directions },
  meansBar: {},
  /** The sequence does the same from any side about that side's axis, or half round. */
  worksHeld: {
    side: direction,
    so: oneOf('faced', 'home'),
    holds: oneOf('any', 'half'),
  },
  /** That case differs in so many places, from the side from which it does least; at one the colour looks there, here so. */
  mistakenFor: {
    nth: count,
    algorithm: turns,
    of: places,
    side: direction,
    count,
    place,
    here: direction,
    there: direction,
  },
} as const

/** Of more strays than this the rest is counted. */
export const MOST_STRAYS = 3

/** What a position is, and what hands did to it. */
export const VERDICTS = {
  /** Turns lead home, and nothing was put in wrongly; or nobody knows it of turns, but for this. */
  leadsHome: {},
  nothingWrong: {},
  /** So many pieces do not look home. */
  notHome: { count },
  /** Equal pieces have changed places, or one is turned in its place: nobody sees it. */
  traded: { pieces: two(pieces) },
  turnedUnseen: { piece },
  /** What therefore seems impossible about these. */
  seemOdd: { of: places },
  seemTwisted: { of: places },
  /** Any two equal ones, or that piece, need that before the end. */
  onTheWay: { do: oneOf('trade', 'turn') },
  /** All is joined to a smaller box whose outer layers cannot finish it: of these kinds exchanges or twists are off. */
  joinedLike: { as: size, odd: kinds, twisted: kinds },
  innerAgain: {},
  /** One turn of a layer finishes it. */
  offByTurn: { turn },
  /** All is in its place; these never leave theirs, and are turned there. */
  turnedOnly: { pieces },
  turnedBy: { piece, degrees: count, isClockwise: maybe(flag) },
  /** No turns lead here. */
  impossible: {},
  /** No turns make this shape; or one that is wished. */
  noSuchShape: { isWished: maybe(flag) },
  /** No turns take the piece to where it lies; so many more than `MOST_STRAYS` are such. */
  strayAt: { piece, place: maybe(place) },
  moreStray: { count },
  /** What hands do with what strays. */
  putRight: { do: oneOf('exchange', 'turn', 'putBack') },
  /** Turns move these in fewer ways than sums would let them. */
  smallGroup: { of: places },
  /** Hands exchanged two of these. */
  exchangedByHand: { of: places },
  /** Any two exchanged put that right, one of them turned if need be: the pieces that follow, for instance. */
  exchangeAny: { of: places, degrees: maybe(count), isClockwise: maybe(flag) },
  /** Hands turned one of these; what their twists add up to. */
  turnedByHand: { of: places, degrees: count, sum: maybe(count), isClockwise: maybe(flag) },
  /** Any of these turned so puts that right: the piece that follows, for instance. */
  turnAny: { of: places, degrees: count, isClockwise: maybe(flag) },
  /** Not any two, but these, the first of them turned if need be; or just this one. Where they lie follows. */
  exchangeThese: { pieces: two(pieces), degrees: maybe(count), isClockwise: maybe(flag) },
  turnThis: { piece, degrees: count, isClockwise: maybe(flag) },
  /** Single corrections are not enough. */
  moreByHand: {},
  /** Of a wish: nothing does that; or nothing does that and no more, and what else it takes. */
  noTurnsDo: { isJust: maybe(flag) },
  cannotLie: { piece },
  alsoExchanged: { of: places, degrees: maybe(count), isClockwise: maybe(flag) },
  alsoTurned: { of: places, degrees: count, isClockwise: maybe(flag) },
  countedOtherwise: {},
  /** Nothing speaks against it, and why nobody knows. */
  notProved: {
    why: oneOf('blocked', 'twists', 'noShapeWay', 'outOfShape', 'notServed'),
  },
} as const

/** What a sequence does to the finished puzzle, and what stops it. */
export const EFFECTS = {
  /** What lies in each of these goes to the next, what lies in the last to the first; and whether it shows. */
  roundOf: { of: places, isUnseen: maybe(flag) },
  /** On arrival a side of what lay there, which looked one way, looks another. */
  arrives: { from: place, was: direction, is: direction },
  /** All that goes round of these, by the lengths of the rounds. */
  roundsOf: { of: places, lengths: counts },
  /** These stay in their places, and are turned there, seen or not. */
  spun: { of: places, degrees: count, isClockwise: maybe(flag), isUnseen: maybe(flag) },
  nothingChanged: {},
  /** So many pieces move on the way and are back at the end; so many never move. */
  borrowedOnly: { count, still: count },
  /** The whole puzzle is held otherwise afterwards: each direction has gone where the same number says. */
  heldAfter: { was: directions, is: directions },
  /** Repeats until all is back; these kinds are sooner. */
  backAfter: { times: amount, kinds, sooner: amounts },
  /** From so many scrambles it can be made in so many. */
  passes: { tried: count, made: count },
  /**
   * In so many it stops before that turn: it would cut these, or its layer is not complete then, because from the
   * beginning nothing lies in these places.
   */
  stopsAt: {
    times: count,
    nth: count,
    turn,
    cuts: maybe(pieces),
    empty: maybe(orNone(places)),
  },
  /** The turn cannot be made as it stands: it would cut these, or nothing lies in these places of its layer. */
  blocked: { turn, cuts: maybe(pieces), empty: maybe(orNone(places)) },
} as const

/** What there is to know about one piece, and how the puzzle stands. */
export const FACTS = {
  /** No turn moves it; or turns move it only in its place. */
  isCore: { piece },
  onlyTurns: { piece },
  /** So many places it can fill, those of these kinds where they are several; and so many outside the finished shape. */
  reaches: { piece, count, kinds },
  reachesOutside: { piece, count },
  /** A layer that only half-turns trades it with what belongs there; or with a place outside. */
  tradedBy: { piece, turn, place: maybe(place) },
  /** So many ways to lie in its own place, so many of which differ to the eye. */
  waysToLie: { piece, ways: count, seen: count },
  /** It looks exactly like what belongs in these. */
  likeThose: { piece, of: places },
  /** Where it lies, and whether its shape and its colours fit there. */
  liesNow: { piece, place: maybe(place), fit: oneOf<Fit>('home', 'shape', 'out') },
  /** So many pieces do not fit by shape where they lie. */
  misfits: { count },
  /** The turn takes so many along; afterwards so many of them would not fit by shape, so many would look right. */
  wouldCarry: { turn, count, out: maybe(count), home: count },
} as const

const TEXT = {
  /** A finished sentence, of what was stored before there were claims. */
  text: { text },
} as const

/** Every kind of claim, with its fields. */
export const CLAIMS = {
  ...PLACES,
  ...COUNTS,
  ...ORBITS,
  ...CAPS,
  ...BOXES,
  ...JOINS,
  ...REMEDIES,
  ...TRIGGERS,
  ...CASES,
  ...VERDICTS,
  ...EFFECTS,
  ...FACTS,
  ...TEXT,
}

export type PlacesKind = keyof typeof PLACES
export type CountsKind = keyof typeof COUNTS
export type OrbitsKind = keyof typeof ORBITS
export type CapsKind = keyof typeof CAPS
export type BoxesKind = keyof typeof BOXES
export type JoinsKind = keyof typeof JOINS
export type RemediesKind = keyof typeof REMEDIES
export type TriggersKind = keyof typeof TRIGGERS
export type CasesKind = keyof typeof CASES
export type VerdictsKind = keyof typeof VERDICTS
export type EffectsKind = keyof typeof EFFECTS
export type FactsKind = keyof typeof FACTS
