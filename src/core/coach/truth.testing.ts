/**
 * Every claim of every card of a route, checked on the engine: read back from the words and compared with
 * the states that they speak of. What it finds is a defect of the program; tests and the benchmark ask it.
 */
import { joinedAs, joinedState, wholesIn, type Joined } from '../analysis/joined'
import { parityOf } from '../analysis/invariants'
import { lookClassesOf } from '../analysis/lookAlikes'
import { placeNamesOf } from '../analysis/placeNames'
import { piecesShowing, sideOpposite, sidesOf, turnSide } from '../analysis/sides'
import { length, subtract, unit } from '../geometry/vector'
import { colourIn, type Scheme } from '../puzzle/colours'
import {
  directionOfName,
  directionOfVector,
  DIRECTIONS,
  type Direction,
} from '../puzzle/directions'
import type { Puzzle } from '../puzzle/compile'
import { IDENTITY, INVERSE, multiply, rotate, type Rotation, type Vector } from '../rotation'
import {
  looksHome,
  readState,
  rotateState,
  sameState,
  start,
  turnFreely,
  type State,
} from '../state'
import { isReachedButForExchanges, isReachedInFrame } from '../universal/account'
import { groupOf } from '../universal/groups'
import { baseCyclesOf } from '../universal/baseCycles'
import { orbitsWith, workOf } from '../universal/orbitsAtWork'
import { baseKind, capital, facingWords, inWords, listed } from '../phrases'
import { schoolsOf } from '../schools'
import { taught } from '../schools/taught'
import { writtenSchool } from '../schools/written'
import type { Technique } from '../schools/school'
import { reachOf, withinReach } from '../analysis/placements'
import { must } from '../result'
import { selected } from './selections'
import { readStep, type ReadStep } from './readStep.testing'
import type { Route, RouteStep } from './route'
import { sayCard } from './sayCard'
import { owedAt, trailOf, type Trail } from './standing'
import { couldFit, turnsOfLast } from './unseenWords'
import { faultsOfCap } from './truthOfCaps.testing'
import { faultsOfPairs } from './truthOfPairs.testing'
import { homeFilled, who } from '../analysis/who'
import type { Claim, Said } from '../claims/claim'
import { isTrue, type Moment } from '../claims/isTrue'
import { textOf, type Span } from '../words/span'

export interface Fault {
  readonly step: string
  readonly what: string
}

/** All that is false, unclear or ill put on the cards of a route. */
export function faultsOf(puzzle: Puzzle, scheme: Scheme, route: Route): Fault[] {
  const trail = trailOf(puzzle, route)
  return trail.steps.flatMap((step, s) => {
    const smaller = step.as && joinedAs(puzzle, step.as)
    const card = smaller
      ? new Card(smaller.small, scheme, asSmaller(puzzle, smaller, trail, s), s)
      : new Card(puzzle, scheme, trail, s)
    const found = card.faults()
    return found.map((what) => ({ step: `${route.puzzle} ${route.school} ${step.id}`, what }))
  })
}

/** What a step says of a smaller box is checked on that one: its own states, pieces and turns. */
function asSmaller(puzzle: Puzzle, joined: Joined, trail: Trail, nth: number): Trail {
  const { small, wholeOf, partsOf, turnFor } = joined
  const [from, to] = [trail.firstOfStep[nth], trail.firstOfStep[nth + 1]]
  const { reading } = trail.steps[nth]
  const states = trail.states.map((state, i) => {
    const read = i < from || i > to ? undefined : joinedState(puzzle, joined, state)
    return read ?? start(small)
  })
  if (reading !== undefined) {
    states[from] = must(readState(small, reading))
    for (let i = from; i < to; i++) {
      const turn = small.turns.find((each) => turnFor(each).name === trail.tape[i].name)
      const next = new Uint8Array(small.pieces.length)
      states[i + 1] = turn ? turnFreely(small, states[i], turn, next) : states[i]
    }
  }
  /** What a piece is part of, by where it lies. */
  const wholeId = (id: string) => {
    const p = puzzle.pieces.findIndex((piece) => piece.id === id)
    const slot = puzzle.slot[24 * p + trail.states[from][p]]
    const whole = small.pieces.findIndex((_, w) =>
      partsOf[w].some((part) => puzzle.slot[24 * part + states[from][w]] === slot),
    )
    return small.pieces[whole].id
  }
  const placeId = (id: string) =>
    small.pieces[wholeOf[puzzle.pieces.findIndex((piece) => piece.id === id)]].id
  const nameOf = (name: string) =>
    small.turns.find((turn) => turnFor(turn).name === name)?.name ?? name
  const inSmall = (step: RouteStep): RouteStep => ({
    ...step,
    pieces: [...new Set(step.pieces.map(wholeId))],
    places: [...new Set(step.places.map(placeId))],
    ...(step.lines
      ? { lines: step.lines.map((line) => ({ ...line, piece: wholeId(line.piece) })) }
      : {}),
    turns: step.turns.map((turn) => ({ ...turn, name: nameOf(turn.name) })),
  })
  const steps = trail.steps.map((step, s) => (s === nth ? inSmall(step) : step))
  const stages = trail.route.stages.map((stage) => ({
    ...stage,
    steps: stage.steps.map((step) => (step === trail.steps[nth] ? steps[nth] : step)),
  }))
  const played = techniqueOf(puzzle, trail.route.school, stages[trail.stageOfStep[nth]].id)
  const school = played?.kind === 'as' ? played.school : trail.route.school
  return {
    ...trail,
    route: { ...trail.route, school, stages },
    steps,
    states,
    read: states,
    naming: [],
  }
}

/** Of a smaller box also what is taught on longer ones. */
const techniqueOf = (puzzle: Puzzle, school: string, stage: string | undefined) =>
  (
    schoolsOf(puzzle).find(({ id }) => id === school) ?? taught(puzzle, writtenSchool(school))
  ).stages.find(({ id }) => id === stage)?.technique

/** How long a sentence may be. */
const LONGEST = 160

/** Words that say nothing, or are ill joined. */
const ILL =
  /\b(\w+) \1\b|undefined|NaN|\[object|\{|\}|  |\.\.|, \.|; \.|\bone of the \d+ \w+ are\b|\bone \w+s are\b|!|\ba (?:edge|orbit)/i

/** Names that the program gives to places for itself. */
const CODE =
  /\b[UDFBRL]{2,3}(\.\d+)?\b|\b[UDFBRL]+\.\d+|\b\d\.[UDFBRL]+\b|[UDFBRL]\+[UDFBRL]|\b[UDFBRL]{1,3}-[UDFBRL]\b/

/** Numbers that do not agree with their noun: 'three corner', 'one edges'. */
const NUMBER =
  /(?<!size )\b(?:two|three|four|five|six|seven|eight|nine|ten|[2-9]|\d\d+) (?:other |cap |outer |axial |corner bit|edge bit)?(?:corner|edge|centre|tip|piece|place|turn|run|bar|block)(?!s|-| bits?| turns?| and | with | one )\b|\bone (?:corners|edges|centres|tips|pieces|places|turns|runs|bars)\b/

class Card {
  private readonly card: RouteStep
  /** Its finished sentences. */
  private readonly step: ReadStep
  private readonly turnsDone: number
  private readonly held: Moment
  private readonly end: Moment
  private readonly found: string[] = []

  constructor(
    private readonly puzzle: Puzzle,
    private readonly scheme: Scheme,
    private readonly trail: Trail,
    private readonly nth: number,
  ) {
    this.card = trail.steps[nth]
    this.step = readStep(this.card)
    const opening = this.step.turns.findIndex(({ role }) => role !== 'hold')
    this.turnsDone = opening < 0 ? this.step.turns.length : opening
    this.held = this.at(this.turnsDone)
    this.end = this.at(this.step.turns.length)
  }

  private at(turns: number): Moment {
    const position = this.trail.firstOfStep[this.nth] + turns
    return { state: this.trail.states[position], frame: this.trail.frames[position] }
  }

  /** As the route reads it: equal pieces under the names of the homes that they go to. */
  private readAt(turns: number): Moment {
    const position = this.trail.firstOfStep[this.nth] + turns
    return { state: this.trail.read[position], frame: this.trail.frames[position] }
  }

  /** With what is owed at a position undone. */
  private settled(turns: number): Moment {
    const position = this.trail.firstOfStep[this.nth] + turns
    let { state } = this.at(turns)
    for (const name of owedAt(this.puzzle, this.trail, position)) {
      const turn = this.puzzle.turnByName.get(name)
      if (turn) state = turnFreely(this.puzzle, state, turn, new Uint8Array(state.length))
    }
    return { state, frame: this.at(turns).frame }
  }

  faults(): string[] {
    this.language()
    this.claims()
    this.places()
    this.lines()
    this.counts()
    this.colours()
    this.statuses()
    this.swaps()
    this.joins()
    this.remedies()
    this.commutators()
    this.shapes()
    this.evens()
    this.holds()
    this.small()
    this.deceptions()
    this.meetings()
    this.hints()
    return this.found
  }

  private claim(isTrue: boolean, what: string): void {
    if (!isTrue) this.found.push(what)
  }

  /** All that is said, in both registers. */
  private texts(): [string, string][] {
    const { puzzle, scheme, trail, nth, card } = this
    return (['full', 'brief'] as const).flatMap((register) => {
      const said = sayCard(puzzle, scheme, trail, nth, register)
      const texts: [string, readonly Span[]][] = [
        ...(card.lines
          ? said.lines.map((line): [string, readonly Span[]] => ['line', line])
          : [['look for', said.lookFor] as [string, readonly Span[]]]),
        ['hold', said.hold],
        ['check', said.check],
        ['if not', said.ifNot],
        ['note', said.note],
        ['nudge', said.nudge],
        ['pointer', said.pointer],
        ['halfway', said.halfway],
        ...said.others.map((other): [string, readonly Span[]] => ['offer', other]),
      ]
      return texts.map(([where, spans]): [string, string] => [
        `${register} ${where}`,
        textOf(spans),
      ])
    })
  }

  /** Every claim, held against the states. */
  private claims(): void {
    const { puzzle, card, step, trail, nth, turnsDone, held } = this
    const names = step.turns.map(({ name }) => name)
    const evidence = {
      puzzle,
      start: this.settled(0),
      end: this.settled(names.length),
      isOwing: [0, names.length].some(
        (turns) => owedAt(puzzle, trail, trail.firstOfStep[nth] + turns).length > 0,
      ),
      lines: (card.lines ?? []).map(({ piece }) => piece),
    }
    const judge = (where: string, said: Said | undefined, now: Moment, turns: number) => {
      for (const claim of said ?? [])
        this.claim(
          isTrue(claim, { ...evidence, now, made: names.slice(0, turns) }),
          `${where}: untrue: ${JSON.stringify(claim)}`,
        )
    }
    judge('look for', card.lookFor, held, turnsDone)
    for (const { says } of card.lines ?? []) judge('line', says, held, turnsDone)
    judge('hold', card.hold, held, turnsDone)
    judge('nudge', card.hints.nudge, held, turnsDone)
    judge('pointer', card.hints.pointer, held, turnsDone)
    judge('check', card.check, this.end, names.length)
    judge('if not', card.ifNot, held, turnsDone)
    judge('note', card.note, held, turnsDone)
    for (const { says } of card.others) judge('offer', says, held, turnsDone)
    const { halfway } = card
    if (halfway) judge('halfway', halfway.says, this.at(halfway.after), halfway.after)
  }

  private language(): void {
    for (const [where, text] of this.texts()) {
      this.claim(!ILL.test(text), `${where}: ill put: ${text}`)
      this.claim(!CODE.test(withoutTurns(this.puzzle, text)), `${where}: a code: ${text}`)
      this.claim(!NUMBER.test(text), `${where}: number: ${text}`)
      this.claim(where.endsWith('if not') || !/^\s|\s$/.test(text), `${where}: a space: ${text}`)
      for (const sentence of text.split(/(?<=[.?])\s|; |: /))
        this.claim(
          sentence.length <= LONGEST,
          `${where}: ${sentence.length} characters: ${sentence}`,
        )
    }
    // A turn that only prepares a case has a label of its own, and the algorithm is done as it is known.
    const layers = this.step.turns.flatMap(({ name, role }) => {
      const turn = this.puzzle.turnByName.get(name)
      return turn ? [{ ...turn, role }] : []
    })
    this.claim(
      layers.every(
        ({ grip, whole, role }, i) =>
          whole ||
          i === 0 ||
          layers[i - 1].grip !== grip ||
          (layers[i - 1].role === 'prepare') !== (role === 'prepare'),
      ),
      `two turns of one layer in a row: ${layers.map(({ name }) => name).join(' ')}`,
    )
    this.claim(this.card.check.length > 0, 'no check')
    this.claim(this.card.hold.length > 0, 'no hold')
  }

  /** 'X is Y' for every piece and place: X lies in Y at the moment that the text speaks of. */
  private places(): void {
    const { lines = [], hold, check, hints } = this.step
    for (const { sentence } of lines) this.placesIn(sentence, this.held, 'line')
    if (lines.length === 0) this.placesIn(this.step.lookFor, this.held, 'look for')
    this.placesIn(hold, this.held, 'hold')
    this.placesIn(check, this.end, 'check')
    this.placesIn(hints.pointer, this.held, 'pointer')
  }

  private placesIn(text: string, { state, frame }: Moment, where: string): void {
    const { names } = placeNamesOf(this.puzzle, frame)
    for (const [, subject, place] of text.matchAll(
      /(?:^|[ .:;])([Tt]he [^.:;]+?) is (the [^.:;]+?)(?=\.|;|$| and the (?:[^.;]*) is the )/g,
    )) {
      const called = subject.replace(/^T/, 't')
      const meant = this.puzzle.pieces.flatMap((_, p) =>
        called.endsWith(who(this.puzzle, this.scheme, p)) ? [p] : [],
      )
      if (meant.length === 0) continue
      const home = names.indexOf(place)
      this.claim(home >= 0, `${where}: no such place: ${place}`)
      this.claim(
        meant.some((p) => homeFilled(this.puzzle, frame, p, state[p]) === home),
        `${where}: not there: ${text}`,
      )
    }
  }

  /** Numbered pieces go where they are said to go, belong there if it is said, and are lit. */
  private lines(): void {
    const { lines, pieces, kind } = this.step
    if (!lines || kind === 'join') return
    const { puzzle } = this
    this.claim(lines.length <= 3, 'more than three lines')
    this.claim(
      lines.every(({ piece }, i) => piece === pieces[i]),
      'the pieces that glow are not those of the lines',
    )
    const indexOf = (id: string) => puzzle.pieces.findIndex((piece) => piece.id === id)
    const [before, after] = [this.settled(0), this.settled(this.step.turns.length)]
    const slotIn = ({ state }: Moment, p: number, hold: Rotation) =>
      puzzle.slot[24 * p + multiply(hold, state[p])]
    lines.forEach(({ piece, sentence }) => {
      // What is claimed is judged for itself.
      if (sentence === '') return
      const p = indexOf(piece)
      const target = /It goes to (\d)/.exec(sentence)?.[1]
      const stays = sentence.includes('It is turned there')
      const place = /It goes to (the .+), where it belongs/.exec(sentence)?.[1]
      if (place !== undefined) {
        const home = homeFilled(puzzle, after.frame, p, after.state[p]) ?? -1
        const { names } = placeNamesOf(puzzle, after.frame)
        this.claim(names[home] === place, `it goes elsewhere: ${sentence}`)
        this.claim(this.looksHome(after, p), `home or not: ${sentence}`)
        return
      }
      this.claim(target !== undefined || stays, `a line without a target: ${sentence}`)
      if (target === undefined && !stays) return
      const other = target === undefined ? p : indexOf(lines[Number(target) - 1].piece)
      // Both are told in the hold of the end.
      const held = multiply(after.frame, INVERSE[before.frame])
      this.claim(
        slotIn(after, p, 0) === slotIn(before, other, held),
        `it goes elsewhere: ${sentence}`,
      )
      const isHome = this.looksHome(after, p)
      this.claim(sentence.includes('where it belongs') === isHome, `home or not: ${sentence}`)
      const isTurned = sentence.includes('its own place, where it still lies turned')
      this.claim(!isTurned || !isHome, `turned or not: ${sentence}`)
    })
    const moved = this.movedBeside(
      before,
      after,
      lines.map(({ piece }) => indexOf(piece)),
    )
    if (/Nothing else has moved/.test(this.step.check))
      this.claim(moved.length === 0, `something else moved: ${this.step.check}`)
    if (/have moved too/.test(this.step.check))
      this.claim(moved.length > 0, `nothing else moved: ${this.step.check}`)
  }

  private looksHome({ state, frame }: Moment, p: number): boolean {
    return looksHome(this.puzzle, p, multiply(INVERSE[frame], state[p]))
  }

  /** Pieces that show themselves otherwise than before, up to the hold. */
  private movedBeside(before: Moment, after: Moment, but: readonly number[]): number[] {
    const { look } = this.puzzle
    return [...before.state].flatMap((r, p) => {
      const [was, is] = [
        multiply(INVERSE[before.frame], r),
        multiply(INVERSE[after.frame], after.state[p]),
      ]
      return but.includes(p) || look[24 * p + was] === look[24 * p + is] ? [] : [p]
    })
  }

  /** 'three of the 8 corners are home': of the places of that group. */
  private counts(): void {
    const { puzzle } = this
    const settled = this.settled(this.step.turns.length)
    const owes = /once what is owed is undone/i.test(this.step.check)
    for (const o of workOf(puzzle).orbits.keys()) {
      if (workOf(puzzle).orbits[o].orbit.places.length < 2) continue
      const { name, places } = groupOf(puzzle, o)
      const said = new RegExp(
        `(all|none of the|the|(\\w+) of the) ${places.length} ${escaped(name)} (?:is|are) home`,
        'i',
      ).exec(this.step.check)
      if (!said) continue
      const moment = owes ? settled : this.end
      const right = places.filter((place) => this.isFilledRight(moment, place)).length
      const told = /^(all|the)$/i.test(said[1])
        ? places.length
        : /^none/i.test(said[1])
          ? 0
          : NUMBERS.indexOf(said[2].toLowerCase())
      this.claim(told === right, `${right} are home: ${this.step.check}`)
    }
  }

  /**
   * 'two of the four edges are in their places: A and B', 'yellow looks up on all four edges': of the pieces of
   * the stage, before in what to look for and after in the check.
   */
  private statuses(): void {
    if (this.step.kind !== 'known') return
    const [said, checked] = [this.step.note ?? '', this.step.check]
    const looked = this.step.lines ? said : this.step.lookFor
    for (const [text, moment] of [
      [looked, this.readAt(this.turnsDone)],
      [checked, this.readAt(this.step.turns.length)],
    ] as const) {
      const found =
        /(none|all|\w+)(?: of the)? (\w+) (edges|corners)(?: (?:is|are) (home|in its place|in their places|turned right))?(?:: ([^.]*))?\./i.exec(
          text,
        )
      this.claim(found !== null, `nothing is said of how they lie: ${text}`)
      if (!found) continue
      const [, count, total, noun, how, list] = found
      const looks = /(\w+) looks (up|down|to the \w+)/.exec(text)
      const right = this.statusOf(moment, noun.replace(/s$/, ''), how, looks)
      const told = /^none$/i.test(count)
        ? 0
        : /^all$/i.test(count)
          ? NUMBERS.indexOf(total)
          : NUMBERS.indexOf(count.toLowerCase())
      this.claim(right.length === told, `${right.length} are so: ${text}`)
      for (const place of list?.split(/, | and (?=the )/) ?? [])
        this.claim(right.includes(place), `not ${place}: ${text}`)
    }
  }

  /** The places of pieces of the stage that are as it is said. */
  private statusOf(
    moment: Moment,
    noun: string,
    how: string | undefined,
    looks: RegExpExecArray | null,
  ): string[] {
    const { puzzle } = this
    const { names } = placeNamesOf(puzzle, moment.frame)
    const base = directionOfName(this.trail.route.base)
    const across = sideOpposite(puzzle, base)
    const far = across && piecesShowing(puzzle, across)
    const near = piecesShowing(puzzle, base)
    const inHalf = this.lastOfHalf()
    const isOfStage = (p: number) =>
      baseKind(puzzle.pieces[p].kind) === noun &&
      (inHalf?.includes(p) ?? (!near.includes(p) && (far === undefined || far.includes(p))))
    const { state, frame } = moment
    const fitsByTurn = (p: number) =>
      state[p] === frame ||
      turnsOfLast(puzzle, base, frame).some(
        (turn) => turnFreely(puzzle, state, turn, new Uint8Array(state.length))[p] === frame,
      )
    return puzzle.pieces.flatMap((_, p) => {
      if (!isOfStage(p)) return []
      const r = moment.state[p]
      const home = homeFilled(puzzle, moment.frame, p, r)
      const isSo = looks
        ? this.looksAlong(moment, p, looks[1], ({ toward }) => toward === looks[2])
        : how === 'home'
          ? this.looksHome(moment, p)
          : how === 'turned right'
            ? fitsByTurn(p)
            : home === p
      return isSo && home !== undefined ? [names[home]] : []
    })
  }

  /** Of a box: how many places of the stage are right, what is half done on the way, and what a twin would show. */
  private swaps(): void {
    if (this.step.kind !== 'swap') return
    const { puzzle, step, scheme } = this
    const { route } = this.trail
    const technique = this.technique()
    if (technique?.kind !== 'swap') return this.claim(false, 'the stage has no swaps')
    const places = selected(puzzle, technique.select, directionOfName(route.base))
    const note = step.note ?? ''
    for (const [text, moment] of [
      [step.lines ? note : step.lookFor, this.held],
      [step.check, this.end],
    ] as const) {
      const found =
        /(none|all|\w+)(?: of the)? (\w+) (?:cap )?(?:edges|corners|centres) (?:is|are) home(?:: ([^.]*))?\./i.exec(
          text,
        )
      const right = places.filter((place) => this.isFilledRight(moment, place))
      const told = /^none$/i.test(found?.[1] ?? '')
        ? 0
        : /^all$/i.test(found?.[1] ?? '')
          ? NUMBERS.indexOf(found?.[2] ?? '')
          : NUMBERS.indexOf((found?.[1] ?? '').toLowerCase())
      this.claim(right.length === told, `${right.length} are home: ${text}`)
      const { names } = placeNamesOf(puzzle, moment.frame)
      const list = found?.[3]?.split(/, (?=the )| and (?=the )/) ?? []
      for (const place of list)
        this.claim(
          right.some((home) => names[home] === place),
          `not ${place}: ${text}`,
        )
    }
    if (/None comes home/.test(note)) {
      const count = (moment: Moment) => places.filter((p) => this.isFilledRight(moment, p)).length
      this.claim(count(this.end) <= count(this.held), `some come home: ${note}`)
    }
    const pair = /The two corners (.+?) both show (\w+) (.+?): a matching pair\. It stays/.exec(
      note,
    )
    if (pair) {
      const [, at, colour, toward] = pair
      const [side] = DIRECTIONS.filter((each) => each.at === at && each.toward === toward)
      const isSo = (p: number, { state }: Moment) =>
        puzzle.pieces[p].faces.some(
          (face) =>
            colourIn(scheme, face.colour).name === colour &&
            directionOfVector(rotate(state[p], face.normal)) === side,
        )
      const inPlaces = [...this.held.state].flatMap((r, p) =>
        places.some((home) => puzzle.slot[24 * home + this.held.frame] === puzzle.slot[24 * p + r])
          ? [p]
          : [],
      )
      const shown = inPlaces.filter((p) => isSo(p, this.held))
      this.claim(shown.length === 2 && shown.every((p) => isSo(p, this.end)), `no pair: ${note}`)
      const moved = this.movedBeside(this.held, this.end, [])
      this.claim(
        inPlaces.filter((p) => moved.includes(p)).length === 2 &&
          shown.every((p) => !moved.includes(p)),
        `it does not stay: ${note}`,
      )
    }
    const beside = /It also moves (\w+) (\w+?)s?, whose turn comes later/.exec(note)
    if (beside) {
      const own = this.movedBeside(this.held, this.end, []).filter(
        (p) => baseKind(puzzle.pieces[p].kind) === beside[2],
      )
      this.claim(own.length === NUMBERS.indexOf(beside[1]), `${own.length} move: ${note}`)
    }
    const side = /The (\w+) side is the work side: (\w+) half turns in all(, an even number)?/.exec(
      note,
    )
    if (side) {
      const made = step.turns.filter(({ name }) => name === step.workSide)
      const turn = puzzle.turnByName.get(step.workSide ?? '')
      const axis = turn && directionOfVector(puzzle.grips[turn.grip].axis)
      this.claim(axis?.adjective === side[1], `another side: ${note}`)
      this.claim(
        NUMBERS.indexOf(side[2]) === made.length || side[2] === `${made.length}`,
        `${made.length} half turns: ${note}`,
      )
      this.claim((side[3] !== undefined) === (made.length % 2 === 0), `odd or even: ${note}`)
    }
    const twin =
      /(The [^.;]+) has a twin of the same colours, which would show (.+?) there, not (.+?)\./.exec(
        note,
      )
    if (twin) {
      const shows = (p: number, r: Rotation) => facingWords(puzzle, scheme, p, r)
      const called = twin[1].replace(/^T/, 't')
      const isSo = puzzle.pieces.some((_, p) => {
        if (who(puzzle, scheme, p) !== called || !this.looksHome(this.end, p)) return false
        const at = homeFilled(puzzle, this.end.frame, p, this.end.state[p])
        const others = puzzle.pieces.flatMap((__, q) =>
          q === p
            ? []
            : reachOf(puzzle)[q].flatMap((r) =>
                puzzle.place[24 * q + r] === at ? [shows(q, multiply(this.end.frame, r))] : [],
              ),
        )
        return (
          shows(p, this.end.state[p]).startsWith(twin[3]) &&
          others.some((each) => each.startsWith(twin[2]))
        )
      })
      this.claim(isSo, `no such twin: ${note}`)
    }
  }

  /** Parts lie where it is said, come to where it is said, and as many lie together as it is said. */
  private joins(): void {
    if (this.step.kind !== 'join') return
    const { puzzle, step, scheme, held, end } = this
    const joined = joinedAs(puzzle, this.sizeJoined())
    if (!joined) return this.claim(false, 'nothing is joined here')
    const { small, partsOf } = joined
    const called = (name: string) =>
      puzzle.pieces.flatMap((_, p) => (who(puzzle, scheme, p) === name ? [p] : []))
    const placeOf = ({ state, frame }: Moment, p: number) =>
      placeNamesOf(puzzle, frame).names[homeFilled(puzzle, frame, p, state[p]) ?? -1]
    this.claim((step.lines?.length ?? 0) <= 3, 'more than three lines')
    for (const { piece, sentence: all } of step.lines ?? []) {
      if (all === '') continue
      const sentence = all.replace(/ (?:The \w+ )?\S+ joins them: .+$/, '')
      const pair = /^The (.*?)(edge|centre)s(.*?) are (the .+) and (the .+)\.$/.exec(sentence)
      const two = /^The (.+?) is (the .+?)\. Its partner is (the .+)\.$/.exec(sentence)
      const single = /^The (.+) is (the .+)\. It goes to (the .+)\.$/.exec(sentence)
      const p = puzzle.pieces.findIndex(({ id }) => id === piece)
      if (pair) {
        const at = called(`the ${pair[1]}${pair[2]}${pair[3]}`).map((each) => placeOf(held, each))
        this.claim(at.includes(pair[4]) && at.includes(pair[5]), `not there: ${sentence}`)
      } else if (two) {
        const { classOf } = lookClassesOf(puzzle)
        const isPartner = (q: number) =>
          joined.partsOf.some(
            (parts) =>
              parts.length === 2 &&
              [parts, [...parts].reverse()].some(
                ([one, other]) => classOf[one] === classOf[p] && classOf[other] === classOf[q],
              ),
          )
        const there = puzzle.pieces.findIndex((_, q) => placeOf(held, q) === two[3])
        this.claim(
          who(puzzle, scheme, p) === `the ${two[1]}` &&
            placeOf(held, p) === two[2] &&
            there >= 0 &&
            isPartner(there),
          `not there: ${sentence}`,
        )
      } else if (single)
        this.claim(
          who(puzzle, scheme, p) === `the ${single[1]}` &&
            placeOf(held, p) === single[2] &&
            placeOf(end, p) === single[3],
          `it lies or goes elsewhere: ${sentence}`,
        )
      else this.claim(false, `a line without a target: ${sentence}`)
    }
    const smallPlaces = placeNamesOf(small, end.frame).names
    /** How many parts of a piece of the smaller box lie in a place of it, as they belong together. */
    const partsAt = (whole: number, place: string) =>
      Math.max(
        -1,
        ...Array.from({ length: 24 }, (_, r) => r).flatMap((r) =>
          smallPlaces[homeFilled(small, end.frame, whole, r) ?? -1] !== place
            ? []
            : [
                partsOf[whole].filter((part) =>
                  [...end.state].some(
                    (own, p) =>
                      puzzle.slot[24 * p + own] === puzzle.slot[24 * part + r] &&
                      puzzle.look[24 * p + own] === puzzle.look[24 * part + r],
                  ),
                ).length,
              ],
        ),
      )
    /** The same of any that is called so. */
    const partsIn = (name: string, place: string) =>
      Math.max(
        -1,
        ...small.pieces.flatMap((_, whole) =>
          who(small, scheme, whole) === name ? [partsAt(whole, place)] : [],
        ),
      )
    /** The same of two parts, told by their own names. */
    const pairIn = (names: string, place: string) => {
      const parts = / and its partner$/.test(names)
        ? [names.replace(/ and its partner$/, '')]
        : [names, names].map((each) => each.replace(/\b(edge|centre)s\b/, '$1'))
      const slots = small.pieces.flatMap((_, whole) =>
        smallPlaces[homeFilled(small, end.frame, whole, end.frame) ?? -1] === place
          ? partsOf[whole].map((part) => puzzle.slot[24 * part + end.frame])
          : [],
      )
      const there = slots.map((slot) =>
        who(
          puzzle,
          scheme,
          [...end.state].findIndex((r, p) => puzzle.slot[24 * p + r] === slot),
        ),
      )
      const whole = small.pieces.findIndex(
        (_, w) => partsOf[w].length === 2 && wholesIn(puzzle, joined, end.state, [w]).size === 1,
      )
      return whole >= 0 && parts.every((name) => there.includes(name)) ? 2 : there.length - 3
    }
    const size = (count: string, of: string) => NUMBERS.indexOf(/^all$/i.test(count) ? of : count)
    for (const sentence of step.check.replace(/\.$/, '').split('; ')) {
      const plain = /^(all|\w+)(?: of the)? (\w+) (\w+) centres (?:is|are) (\w+)$/.exec(sentence)
      const pair = /^(the .+) together are (the .+)$/.exec(sentence)
      const some = /^(\w+) of the \w+ parts of (the .+) lies? as (the .+)$/.exec(sentence)
      const full = /^(the .+) is whole: it is (the .+)$/.exec(sentence)
      const [told, found] = plain
        ? [size(plain[1], plain[2]), partsIn(`the ${plain[4]} centre`, `the ${plain[3]} centre`)]
        : pair
          ? [2, pairIn(pair[1], pair[2])]
          : some
            ? [NUMBERS.indexOf(some[1]), partsIn(some[2], some[3])]
            : full
              ? [4, partsIn(full[1], full[2])]
              : [0, -1]
      this.claim(told === found, `${found} lie there: ${sentence}`)
    }
    const apart = /(\w+) pairs? (?:is|are) still apart/.exec(step.note ?? '')
    const technique = this.technique()
    const own =
      technique?.kind === 'join'
        ? selected(puzzle, technique.select, directionOfName(this.trail.route.base))
        : []
    const edges = [...new Set(own.map((p) => joined.wholeOf[p]))]
    this.lastTwo(joined, edges)
    const at = (turns: number) => this.at(turns)
    for (const fault of faultsOfPairs({ puzzle, scheme, step, joined, own: edges, at }))
      this.claim(false, fault)
    const left = edges.length - wholesIn(puzzle, joined, end.state, edges).size
    if (apart)
      this.claim(NUMBERS.indexOf(apart[1].toLowerCase()) === left, `${left} apart: ${step.note}`)
    const missing = /(\w+) (?:is|are) still missing after this/.exec(step.note ?? '')
    if (missing || /They are all in then/.test(step.note ?? '')) {
      const out = edges.reduce(
        (sum, whole) => sum + partsOf[whole].length - partsAt(whole, smallPlaces[whole]),
        0,
      )
      const told = missing ? NUMBERS.indexOf(missing[1].toLowerCase()) : 0
      this.claim(told === out, `${out} missing: ${step.note}`)
    }
    if (/All pairs are joined/.test(step.note ?? ''))
      this.claim(left === 0, `${left} apart: ${step.note}`)
  }

  private lastTwo(joined: Joined, edges: readonly number[]): void {
    const { puzzle, step, held, end } = this
    if (!step.note?.includes('They are the last two')) return
    const apart = ({ state }: Moment) => edges.length - wholesIn(puzzle, joined, state, edges).size
    this.claim(apart(held) === 2 && apart(end) === 0, `not the last two: ${step.note}`)
  }

  /** How the stage of the step works. */
  private technique(): Technique | undefined {
    const { route } = this.trail
    const own = route.stages.find(({ steps }) => steps.includes(this.card))
    return techniqueOf(this.puzzle, route.school, own?.id)
  }

  private sizeJoined(): Vector {
    const technique = this.technique()
    return (technique && 'select' in technique && technique.select?.as) || [3, 3, 3]
  }

  /** Counts of what outer layers cannot mend, and that they are mended. */
  private remedies(): void {
    if (this.step.kind !== 'remedy') return
    const { puzzle, scheme, step, held, end } = this
    const joined = joinedAs(puzzle, this.sizeJoined())
    if (!joined) return this.claim(false, 'nothing is joined here')
    const { small } = joined
    if (/whichever of equal pieces/.test(step.lookFor)) {
      const isDone = ({ state, frame }: Moment) => {
        const read = joinedState(puzzle, joined, state)
        return (
          read !== undefined &&
          isReachedInFrame(small, withinReach(small, rotateState(read, INVERSE[frame])))
        )
      }
      const isNearer = ({ state, frame }: Moment) => {
        const read = joinedState(puzzle, joined, state)
        return (
          read !== undefined &&
          isReachedButForExchanges(small, withinReach(small, rotateState(read, INVERSE[frame])))
        )
      }
      this.claim(!isDone(held), `it can be finished: ${step.lookFor}`)
      return this.claim(isDone(end) || isNearer(end), `nothing is mended: ${step.check}`)
    }
    const last = directionOfName(this.trail.route.base).vector.map((c) => -c)
    const read = ({ state, frame }: Moment) =>
      joinedState(puzzle, joined, state)?.map((r) => multiply(INVERSE[frame], r)) ?? start(small)
    const turned = (moment: Moment) =>
      read(moment).reduce((sum, r, p) => {
        const { kind, cells } = small.pieces[p]
        const isLast = cells[0].some((c, i) => c * last[i] > 0)
        const image = rotate(r, last as unknown as Vector)
        return baseKind(kind) === 'edge' && isLast && image.some((c, i) => c !== last[i])
          ? sum + 1
          : sum
      }, 0)
    const isOdd = (moment: Moment, kind: string) => {
      const state = read(moment)
      const seen = new Set<number>()
      let exchanges = 0
      small.pieces.forEach((piece, first) => {
        if (baseKind(piece.kind) !== kind) return
        for (let p = first; !seen.has(p); p = small.place[24 * p + state[p]]) {
          if (p !== first) exchanges++
          seen.add(p)
        }
      })
      return exchanges % 2 === 1
    }
    const [was, is] = [read(held), read(end)]
    const moved = small.pieces.flatMap((_, p) =>
      small.look[24 * p + was[p]] === small.look[24 * p + is[p]] ? [] : [p],
    )
    const note = step.note ?? ''
    for (const p of moved)
      this.claim(
        note.toLowerCase().includes(who(small, scheme, p).toLowerCase()),
        `${who(small, scheme, p)} moves unsaid: ${note}`,
      )
    this.claim(
      /nothing else moves/.test(note) ===
        moved.every((p) => baseKind(small.pieces[p].kind) === 'edge'),
      `something else moves, or not: ${note}`,
    )
    const flips = /turned over: (\w+), an odd number/.exec(step.lookFor)
    if (flips) {
      const count = /^(\w+) of the/.exec(step.check)?.[1] ?? ''
      this.claim(NUMBERS.indexOf(flips[1]) === turned(held), `${turned(held)}: ${step.lookFor}`)
      const now = count === 'none' ? 0 : NUMBERS.indexOf(count)
      this.claim(now === turned(end) && now % 2 === 0, `${turned(end)}: ${step.check}`)
    }
    for (const [text, moment] of [
      [step.lookFor, held],
      [step.check, end],
    ] as const) {
      const counts = /the corners by an (odd|even) number, the edges by an (odd|even) number/.exec(
        text,
      )
      this.claim(flips !== null || counts !== null, `nothing is counted: ${text}`)
      if (!counts) continue
      this.claim((counts[1] === 'odd') === isOdd(moment, 'corner'), `corners: ${text}`)
      this.claim((counts[2] === 'odd') === isOdd(moment, 'edge'), `edges: ${text}`)
      this.claim((counts[1] === counts[2]) === (moment === end), `alike or not: ${text}`)
    }
  }

  /** 'never three of them round alone': there is no cycle of three for that group. */
  private small(): void {
    if (!/never three of them round alone/.test(this.step.lookFor)) return
    const { puzzle } = this
    const lit = this.step.pieces.map((id) => puzzle.pieces.findIndex((piece) => piece.id === id))
    const orbits = orbitsWith(puzzle, lit)
    this.claim(
      orbits.every((o) => !baseCyclesOf(puzzle).has(o)),
      `three go round alone: ${this.step.lookFor}`,
    )
  }

  /** Of what tells the hold: held any other way, not all of it is so. */
  private holds(): void {
    const { puzzle, held, card } = this
    const marks = card.hold.filter(({ kind }) => kind === 'pieceAt' || kind === 'sideHeld')
    if (marks.length < 2) return
    const stays = (claim: Claim, hold: Rotation) => {
      if (claim.kind === 'sideHeld') {
        const side = directionOfName(claim.at)
        return turnSide(puzzle, hold, side) === side
      }
      const p = puzzle.pieces.findIndex(({ id }) => claim.kind === 'pieceAt' && id === claim.piece)
      const at = 24 * p
      return puzzle.slot[at + multiply(hold, held.state[p])] === puzzle.slot[at + held.state[p]]
    }
    const others = puzzle.holds.filter(
      (hold) => hold !== IDENTITY && marks.every((claim) => stays(claim, hold)),
    )
    this.claim(others.length === 0, `another hold is so too: ${JSON.stringify(card.hold)}`)
  }

  /** What two turns are said to be together, by making them; and that both are where it is said. */
  private meetings(): void {
    const { puzzle, step, trail, nth } = this
    for (const { here, there, one, isWithin } of step.meets ?? []) {
      const what = `${here} and ${there}, together ${one ?? 'nothing'}`
      const after = isWithin ? step : trail.steps[nth + 1]
      const areMade = [step, after].every(({ turns }, i) =>
        turns.some(({ name }) => name === [here, there][i]),
      )
      this.claim(areMade, `no such turns: ${what}`)
      const made = (names: readonly string[]) =>
        names.reduce<State>((state, name) => {
          const turn = puzzle.turnByName.get(name)
          return turn ? turnFreely(puzzle, state, turn, new Uint8Array(state.length)) : state
        }, this.held.state)
      this.claim(
        sameState(made([here, there]), made(one === undefined ? [] : [one])),
        `they do something else: ${what}`,
      )
    }
  }

  /** Of conjoined halves the pieces of one, in its outer layer that the sequence turns first. */
  private lastOfHalf(): readonly number[] | undefined {
    const { puzzle } = this
    if (puzzle.cores.length === 1) return undefined
    const stage = this.trail.route.stages.find(({ steps }) => steps.includes(this.card))
    const core = stage?.name.startsWith('First') ? 0 : 1
    const outer = puzzle.grips.find(({ name, core: own }) => own === core && /^[UD]$/.test(name))
    const side = outer && directionOfVector(outer.axis)
    return puzzle.pieces.flatMap((piece, p) =>
      side && piece.core === core && piecesShowing(puzzle, side).includes(p) ? [p] : [],
    )
  }

  private isFilledRight({ state, frame }: Moment, place: number): boolean {
    const slot = this.puzzle.slot[24 * place + frame]
    const piece = state.findIndex((r, p) => this.puzzle.slot[24 * p + r] === slot)
    return piece >= 0 && this.looksHome({ state, frame }, piece)
  }

  /** 'its white looks up', 'white up, green in front', 'red meets red on the left'. */
  private colours(): void {
    const { lookFor, hold, check, pieces, kind } = this.step
    const first = this.puzzle.pieces.findIndex(({ id }) => id === pieces[0])
    const looks = /its (\S+) looks (up|down|to the (?:front|back|right|left))/.exec(lookFor)
    if (looks && first >= 0 && (kind === 'insert' || kind === 'twist' || kind === 'start')) {
      const piece = kind === 'start' ? this.pieceNamed(lookFor) : first
      this.claim(
        this.looksAlong(this.held, piece, looks[1], ({ toward }) => toward === looks[2]),
        `it looks elsewhere: ${lookFor}`,
      )
    }
    const meets = check.matchAll(
      /(\w+) meets \1 (at the top|at the bottom|in front|at the back|on the right|on the left)/g,
    )
    for (const [sentence, colour, at] of meets)
      this.claim(this.shownTwice(colour, at), `they do not meet: ${sentence}`)
    const side = /^(\w+) (up|down|in front|at the back|on the right|on the left)[,;.]/.exec(
      `${hold}.`,
    )
    if (side && kind !== 'cycle')
      this.claim(
        this.puzzle.pieces.some((_, p) =>
          this.looksAlong(
            this.held,
            p,
            side[1],
            ({ at, name }) => at === side[2] || name === side[2],
          ),
        ),
        `no piece shows it there: ${hold}`,
      )
  }

  private pieceNamed(text: string): number {
    return this.puzzle.pieces.findIndex(({ faces }) => {
      const names = faces.map(({ colour }) => colourIn(this.scheme, colour).name)
      const told = /^the (\S+) /.exec(text)?.[1] ?? ''
      return names.every((name) => told.split('-').includes(name))
    })
  }

  private looksAlong(
    { state }: Moment,
    piece: number,
    colour: string,
    isSide: (side: Direction) => boolean,
  ): boolean {
    return this.puzzle.pieces[piece].faces.some(
      (face) =>
        colourIn(this.scheme, face.colour).name === colour &&
        [...sidesOf(this.puzzle)].some(
          ([side, vector]) =>
            isSide(side) &&
            length(subtract(unit(rotate(state[piece], face.normal)), vector)) < 1e-6,
        ),
    )
  }

  /** Whether two stickers of one colour lie side by side on a face at the end. */
  private shownTwice(colour: string, at: string): boolean {
    const { state } = this.end
    const side = DIRECTIONS.find((direction) => direction.at === at)
    return (
      this.puzzle.pieces.filter((piece, p) =>
        piece.faces.some(
          (face) =>
            colourIn(this.scheme, face.colour).name === colour &&
            directionOfVector(rotate(state[p], face.normal)) === side,
        ),
      ).length > 1
    )
  }

  /** 'X would look right turned either way', 'X looks home, but an equal edge belongs there'. */
  private deceptions(): void {
    const { note = '', kind } = this.step
    const scene = {
      puzzle: this.puzzle,
      base: directionOfName(this.trail.route.base),
      ...this.readAt(this.turnsDone),
    }
    const said = [
      ...note.matchAll(
        /(?:^|\. )(The [^.]*?) (would look (?:right|home) turned either way|would fit the place of an equal|looks home, but an equal)/g,
      ),
    ]
    for (const [sentence, subject, how] of said) {
      const meant = this.puzzle.pieces.flatMap((_, p) =>
        who(this.puzzle, this.scheme, p) === `t${subject.slice(1)}` ? [p] : [],
      )
      const isSo = (p: number) => (/home/.test(how) ? this.looksHome(scene, p) : couldFit(scene, p))
      this.claim(meant.some(isSo), `it does not look right: ${sentence}`)
    }
    // What a card works on looks wrong, or the card says why it is worked on.
    const [first] = this.step.pieces
    if (kind !== 'bring' || said.length > 0) return
    const p = this.puzzle.pieces.findIndex(({ id }) => id === first)
    this.claim(!this.looksHome(this.held, p), `it looks home already: ${this.step.lookFor}`)
  }

  /** What is told of a circle and its bits, what comes home, and the commutator that does it. */
  private commutators(): void {
    const { kind, check, note = '', lines = [], lookFor, turns } = this.step
    if (kind !== 'commutator' && kind !== 'blocks') return
    const { puzzle } = this
    const stage = this.trail.route.stages[this.trail.stageOfStep[this.nth]]
    const technique = techniqueOf(puzzle, this.trail.route.school, stage.id)
    const isOfPieces = technique?.kind === 'commutator' || technique?.kind === 'blocks'
    const select = isOfPieces ? technique.select : {}
    const own = selected(puzzle, select, directionOfName(this.trail.route.base))
    const filled = (moment: Moment) => own.filter((home) => this.isFilledRight(moment, home))
    const right = filled(this.end).length
    const [, count, total, , owner] =
      /^(all|\w+)(?: of the)? (\w+) ([^.]+?)(?: of the (\w+) (?:circle|cap))? (?:is|are) home/.exec(
        check,
      ) ?? []
    this.claim(NUMBERS.indexOf(total) === own.length, `another number of bits: ${check}`)
    this.claim(
      (count === 'all' ? own.length : NUMBERS.indexOf(count)) === right,
      `${right} are home: ${check}`,
    )
    this.claim(
      owner === undefined ||
        own.every((p) =>
          puzzle.pieces[p].faces.some(({ colour }) => colourIn(this.scheme, colour).name === owner),
        ),
      `another side: ${check}`,
    )
    const before = filled(this.held)
    const come = filled(this.end).filter((home) => !before.includes(home)).length
    const more = /(\w+) others? comes? home too/i.exec(note)
    const told = lines.length + (more ? NUMBERS.indexOf(more[1].toLowerCase()) : 0)
    this.claim(told === come, `${come} come home: ${check} ${note}`)
    this.claim(NUMBERS.indexOf(lookFor.split(' ')[0]) === come, `${come} come home: ${lookFor}`)
    for (const fault of faultsOfCap({ puzzle, step: this.step, select, at: (n) => this.at(n) }))
      this.claim(false, fault)
    const side = /The (\w+) side is (free|locked)/.exec(note)
    const { mechanism } = puzzle.definition
    if (side && mechanism.kind === 'circles') {
      const [, colour, how] = side
      const found = DIRECTIONS.filter(
        ({ name }) => colourIn(this.scheme, puzzle.definition.faces[name]).name === colour,
      )
      this.claim(
        found.some(({ name }) => mechanism.locked.includes(name) === (how === 'locked')),
        `it is not ${how}: ${note}`,
      )
      this.claim(
        found.some((each) => own.every((p) => this.looksAlongHome(p, each))),
        `another circle: ${note}`,
      )
    }
    if (/go as one block/.test(note)) {
      const pieces = lines.map(({ piece }) => puzzle.pieces.findIndex(({ id }) => id === piece))
      const isOne = ({ state }: Moment) => new Set(pieces.map((p) => state[p])).size === 1
      this.claim(pieces.length > 1 && isOne(this.held) && isOne(this.end), `no block: ${note}`)
      const between = (a: number, b: number) =>
        length(subtract(puzzle.pieces[a].cells[0], puzzle.pieces[b].cells[0]))
      this.claim(
        mechanism.kind !== 'capped' ||
          pieces.every((a) => pieces.some((b) => a !== b && between(a, b) < 1.2)),
        `they do not hang together: ${note}`,
      )
    }
    const heart = /a commutator: (.+), then (\S+), then both taken back/.exec(note)
    if (!heart) return
    const inverse = (name: string) =>
      puzzle.turns[(puzzle.turnByName.get(name) as { inverse: number }).inverse].name
    const first = heart[1].split(' ')
    const whole = [...first, heart[2], ...first.map(inverse).reverse(), inverse(heart[2])].join(' ')
    const made = turns.map(({ name }) => name).join(' ')
    this.claim(` ${made} `.includes(` ${whole} `), `no such commutator: ${note} ${made}`)
  }

  /** 'Six pieces stand out of the finished shape': these glow, and none does afterwards. */
  private shapes(): void {
    const { kind, lookFor, pieces } = this.step
    const told = /(\w+) pieces? stands? out of the finished shape/i.exec(lookFor)
    this.claim(told !== null || kind !== 'shape' || this.hasGlue(), `no count: ${lookFor}`)
    if (!told) return
    const out = ({ state, frame }: Moment) =>
      this.puzzle.pieces.flatMap(({ faces, id }, p) =>
        faces.length > 0 && homeFilled(this.puzzle, frame, p, state[p]) === undefined ? [id] : [],
      )
    const before = out(this.held)
    const count = NUMBERS.indexOf(told[1].toLowerCase())
    this.claim(
      (count < 0 ? Number(told[1]) : count) === before.length,
      `${before.length}: ${lookFor}`,
    )
    this.claim(before.join() === pieces.join(), `other pieces glow: ${lookFor}`)
    const left = out(this.end)
    const still = /^(\w+) pieces? still stands? out/i.exec(this.step.check)?.[1].toLowerCase()
    const said =
      still === undefined ? 0 : NUMBERS.includes(still) ? NUMBERS.indexOf(still) : Number(still)
    this.claim(said === left.length, `${left.length} still stand out: ${this.step.check}`)
    this.claim(left.length < before.length, `none came into it: ${lookFor}`)
    const next = /finished shape\. (The .+?) comes? into it next/.exec(lookFor)?.[1]
    if (next === undefined) return
    const came = before.filter((id) => !left.includes(id))
    const names = came.map((id) =>
      who(
        this.puzzle,
        this.scheme,
        this.puzzle.pieces.findIndex((piece) => piece.id === id),
      ),
    )
    this.claim(capital(listed(names)) === next, `others came: ${lookFor}`)
  }

  /** An odd number of exchanges before, an even one afterwards, of all that glow. */
  private evens(): void {
    if (this.step.kind !== 'even') return
    const { puzzle, step } = this
    const own = step.pieces.map((id) => puzzle.pieces.findIndex((piece) => piece.id === id))
    const parity = ({ state, frame }: Moment) =>
      parityOf(
        own.map((p) => own.indexOf(puzzle.place[24 * p + multiply(INVERSE[frame], state[p])])),
      )
    const [before, after] = [this.readAt(this.turnsDone), this.readAt(step.turns.length)].map(
      parity,
    )
    this.claim(before === 1 && after === 0, `not odd, then even: ${step.lookFor}`)
    for (const kind of new Set(own.map((p) => baseKind(puzzle.pieces[p].kind))))
      this.claim(step.lookFor.includes(kind), `nothing is said of the ${kind}s: ${step.lookFor}`)
  }

  private hasGlue = (): boolean => this.puzzle.definition.glue.length > 0

  private looksAlongHome(piece: number, side: Direction): boolean {
    return this.puzzle.pieces[piece].faces.every(({ normal }) => directionOfVector(normal) === side)
  }

  private hints(): void {
    const { hints, lookFor, lines } = this.card
    const said = (one: unknown) => JSON.stringify(one)
    this.claim(said(hints.nudge) !== said(hints.pointer), `two hints alike: ${said(hints.nudge)}`)
    this.claim(said(hints.pointer) !== said(lookFor), `the pointer is the card: ${said(lookFor)}`)
    if (lines)
      this.claim(said(hints.pointer) === said(lines[0].says), 'the pointer is no line of the card')
  }
}

const NUMBERS = Array.from({ length: 60 }, (_, n) => inWords(n))

const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')

/** Turns are written with letters, and may be: they stand by themselves. */
const withoutTurns = ({ turnByName }: Puzzle, text: string): string =>
  text
    .split(/(?<=\s)|(?=\s)/)
    .map((word) => (turnByName.has(word.replace(/[,.:;]+$/, '')) ? '' : word))
    .join('')
