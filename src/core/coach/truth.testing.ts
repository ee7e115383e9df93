/**
 * Every claim of every card of a route, judged on the engine, and how it is put in both registers. What it finds is a
 * defect of the program; tests and the benchmark ask it.
 */
import { joinedAs, joinedState, type Joined } from '../analysis/joined'
import { turnSide } from '../analysis/sides'
import { type Scheme } from '../puzzle/colours'
import { directionOfName } from '../puzzle/directions'
import type { Puzzle } from '../puzzle/compile'
import { IDENTITY, INVERSE, multiply, type Rotation } from '../rotation'
import { looksHome, readState, sameState, start, turnFreely, type State } from '../state'
import { schoolsOf } from '../schools'
import { taught } from '../schools/taught'
import { writtenSchool } from '../schools/written'
import type { Technique } from '../schools/school'
import { must } from '../result'
import { outOf } from '../universal/unfinished'
import { selected } from './selections'
import { holdTurnsOf, ownTurnsOf, type Route, type RouteStep } from './route'
import { sayCard } from './sayCard'
import { frameOfStep, owedAt, trailOf, type Trail } from './standing'
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
  return trail.steps.flatMap(({ id }, nth) =>
    faultsOfCard(puzzle, scheme, trail, nth).map((what) => ({
      step: `${route.puzzle} ${route.school} ${id}`,
      what,
    })),
  )
}

/** The same of one card. */
export function faultsOfCard(puzzle: Puzzle, scheme: Scheme, trail: Trail, nth: number): string[] {
  const { as } = trail.steps[nth]
  const smaller = as && joinedAs(puzzle, as)
  return smaller
    ? new Card(smaller.small, scheme, asSmaller(puzzle, smaller, trail, nth), nth).faults()
    : new Card(puzzle, scheme, trail, nth).faults()
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

/** Steps whose check counts those of the stage. */
const COUNTED: readonly string[] = ['known', 'swap', 'commutator', 'blocks']

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
    this.turnsDone = holdTurnsOf(this.card)
    this.held = this.at(this.turnsDone)
    this.end = this.at(this.card.turns.length)
  }

  private frame = (turns: number) => frameOfStep(this.puzzle, this.trail, this.nth, turns)

  private at(turns: number): Moment {
    const position = this.trail.firstOfStep[this.nth] + turns
    return { state: this.trail.states[position], frame: this.frame(turns) }
  }

  /** As the route reads it: equal pieces under the names of the homes that they go to. */
  private readAt(turns: number): Moment {
    const position = this.trail.firstOfStep[this.nth] + turns
    return { state: this.trail.read[position], frame: this.frame(turns) }
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
    this.lines()
    this.groups()
    this.shapes()
    this.holds()
    this.claim(
      ownTurnsOf(this.card).every(({ role }) => role !== 'hold'),
      'the hold changes in the middle of a step',
    )
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
    const { puzzle, card, trail, nth, turnsDone, held } = this
    const names = card.turns.map(({ name }) => name)
    const evidence = {
      puzzle,
      held: turnsDone,
      turns: card.turns,
      algorithm: card.algorithm,
      runs: card.runs,
      at: (turns: number) => this.at(turns),
      readAt: (turns: number) => this.readAt(turns),
      glowing: card.pieces,
      base: directionOfName(trail.route.base),
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
          isTrue(claim, { ...evidence, now, made: turns }),
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
    const layers = this.card.turns.flatMap(({ name, role }) => {
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

  /** Few, and what glows first. */
  private lines(): void {
    const { lines, pieces } = this.card
    if (!lines) return
    this.claim(lines.length <= 3, 'more than three lines')
    this.claim(
      lines.every(({ piece }, i) => piece === pieces[i]),
      'the pieces that glow are not those of the lines',
    )
  }

  /** Those that are counted are those of the stage. */
  private groups(): void {
    const technique = this.technique()
    const { kind, check } = this.card
    if (!technique || !('select' in technique) || !technique.select) return
    if (!COUNTED.includes(kind) || technique.kind !== kind) return
    const own = selected(this.puzzle, technique.select, directionOfName(this.trail.route.base))
    const counted = check.flatMap((claim) => (claim.kind === 'homeCount' ? [claim] : []))
    this.claim(counted.length > 0, 'nothing is counted')
    for (const { of } of counted)
      this.claim(
        of.length === own.length && own.every((p) => of.includes(this.puzzle.pieces[p].id)),
        `others are counted: ${of.join()}`,
      )
  }

  private looksHome({ state, frame }: Moment, p: number): boolean {
    return looksHome(this.puzzle, p, multiply(INVERSE[frame], state[p]))
  }

  /** How the stage of the step works. */
  private technique(): Technique | undefined {
    const { route, stageOfStep } = this.trail
    const own = route.stages[stageOfStep[this.nth]]
    return techniqueOf(this.puzzle, route.school, own.id)
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
    const { puzzle, card: step, trail, nth } = this
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

  /** What a card works on looks wrong, or the card says why it is worked on. */
  private deceptions(): void {
    const { note = [], kind, pieces } = this.card
    if (kind !== 'bring' || note.some((claim) => claim.kind === 'deceives')) return
    const p = this.puzzle.pieces.findIndex(({ id }) => id === pieces[0])
    this.claim(!this.looksHome(this.held, p), `it looks home already: ${pieces[0]}`)
  }

  /** What stands out glows, and every such step brings some of it in. */
  private shapes(): void {
    const { kind, lookFor, pieces } = this.card
    if (kind !== 'shape' || this.puzzle.definition.glue.length > 0) return
    const [before, after] = [this.held, this.end].map((moment) => outOf(this.puzzle, moment))
    this.claim(
      lookFor.some((claim) => claim.kind === 'standOut'),
      'nothing is counted',
    )
    this.claim(
      before.map((p) => this.puzzle.pieces[p].id).join() === pieces.join(),
      'other pieces glow',
    )
    this.claim(after.length < before.length, 'none comes into the shape')
  }

  private hints(): void {
    const { hints, lookFor, lines = [] } = this.card
    const said = (one: unknown) => JSON.stringify(one)
    this.claim(hints.nudge.length > 0, 'no nudge')
    const costs = this.card.others.flatMap(({ says }) =>
      says.flatMap((claim) => (claim.kind === 'offeredApart' ? [claim.turns.length] : [])),
    )
    this.claim(
      costs.every((cost, i) => i === 0 || cost >= costs[i - 1]),
      'what is offered is not in order',
    )
    this.claim(said(hints.nudge) !== said(hints.pointer), `two hints alike: ${said(hints.nudge)}`)
    this.claim(lookFor.length > 0 || lines.length > 0, 'nothing to look for')
  }
}

/** Turns are written with letters, and may be: they stand by themselves. */
const withoutTurns = ({ turnByName }: Puzzle, text: string): string =>
  text
    .split(/(?<=\s)|(?=\s)/)
    .map((word) => (turnByName.has(word.replace(/[,.:;]+$/, '')) ? '' : word))
    .join('')
