'use client'

import { Box, LifeBuoy, Maximize2, Rows3, SkipForward, Undo2 } from 'lucide-react'
import { useRouter } from 'next/navigation'
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react'
import { toast } from 'sonner'
import { puzzleById } from '@/core/catalog'
import { calledWords, Names, type Named } from '@/core/algorithms/called'
import { keyWords, turnMeant } from '@/core/analysis/layers'
import { showKey, type Keys } from '@/core/keys'
import { held, turnCountOf, turnsMade } from '@/core/coach/bench'
import { registerAt } from '@/core/coach/register'
import { lookForSpans, sayCard, sentenceOf } from '@/core/coach/sayCard'
import type { Register } from '@/core/words/lexicon'
import {
  borrowedAt,
  owedAt,
  safeAt,
  stagesMet,
  statesOfStep,
  type Trail,
} from '@/core/coach/standing'
import { variantWords } from '@/core/coach/variantWords'
import { writeTurnName } from '@/core/notation/write'
import { fail, must } from '@/core/result'
import { schoolNamed, schoolsFor } from '@/core/schools'
import type { Settings } from '@/core/settings'
import { ShareBar } from '@/ui/ShareBar'
import { UNIVERSAL_ID } from '@/core/schools/piece-by-piece'
import { variantsOf } from '@/core/schools/school'
import { writeState, type State } from '@/core/state'
import { plural } from '@/core/phrases'
import { Button, LinkButton } from '@/ui/Button'
import { classes } from '@/ui/classes'
import { faded } from '@/ui/faded'
import { Key } from '@/ui/Key'
import { Notice } from '@/ui/Notice'
import { TryHere } from './TryHere'
import { TurnPad } from '@/ui/TurnPad'
import { useKeys } from '@/ui/useKeys'
import { useReducedMotion } from '@/ui/useReducedMotion'
import { NO_GUIDE } from '@/ui/puzzle-view/overlay'
import { PuzzleWindows, type PuzzleWindowsHandle } from '@/ui/puzzle-view/PuzzleWindows'
import { chooseSchool, finish } from './benchServer'
import { ApartNotice } from './Apart'
import { CasesSheet } from './CasesSheet'
import { Clock } from './Clock'
import { CompareSheet } from './CompareSheet'
import { Debts } from './Debts'
import { Ended } from './Ended'
import { HandsBusy } from './HandsBusy'
import { KinBeside, SmallerBeside, useKin, useSmaller } from './KinBeside'
import { KeysSheet } from './KeysSheet'
import { LanternString } from './LanternString'
import { ShorterWay } from './ShorterWay'
import { StartChooser } from './StartChooser'
import { StepCard } from './StepCard'
import { StuckPanel } from './StuckPanel'
import { Tape } from './Tape'
import { guideOf } from './guide'
import type { Saving } from './outbox'
import { WillItFit } from './WillItFit'
import { useBench, type BenchGiven } from './useBench'
import { useStuck } from './useStuck'

type Open = 'keys' | 'compare' | 'cases' | 'busy' | undefined

const SPEED_STEP = 1.5
const HELP = [
  { strength: 1, name: 'a nudge' },
  { strength: 2, name: 'a pointer' },
  { strength: 3, name: 'the turns' },
] as const

const NOTHING_NAMED: readonly Named[] = []

export function Bench({
  given,
  settings,
  sequence = '',
  named = NOTHING_NAMED,
}: {
  given: BenchGiven
  settings: Settings
  /** To be tried here, canonical. */
  sequence?: string
  /** The sequences to which whoever solves has given names. */
  named?: readonly Named[]
}) {
  const router = useRouter()
  const puzzle = must(puzzleById(given.puzzleId))
  const windows = useRef<PuzzleWindowsHandle>(null)
  const told = useRef(new Set<string>())
  const [turnMs, setTurnMs] = useState(settings.turnMs)
  const reduced = useReducedMotion()
  const controls = useBench(
    given,
    { turnMs: reduced ? 0 : turnMs, hand: settings.hand, dialect: settings.writeDialect },
    windows,
  )
  const { bench: stored, remark, trouble, planning } = controls
  const bench = useMemo(() => held(stored), [stored])
  const [open, setOpen] = useState<Open>()
  const [swapped, setSwapped] = useState(false)
  const coupled = useKin(puzzle)
  const [showsKin, setShowsKin] = useState(false)
  const [wideDebts, setWideDebts] = useState(false)
  const [help, setHelp] = useState(3)
  const { trail, done, step } = bench
  const card = trail?.steps[step]
  const [chosen, setChosen] = useState<Register>()
  const register = chosen ?? (trail && card ? registerAt(trail, step, settings.cards) : 'full')
  const names = useMemo(() => new Names(puzzle, named), [puzzle, named])
  const called = useMemo(() => {
    const found = card && names.of(card.algorithm)
    return found && calledWords(found)
  }, [names, card])
  const words = useMemo(
    () =>
      trail && trail.steps[step] ? sayCard(puzzle, given.scheme, trail, step, register) : undefined,
    [given.scheme, puzzle, register, step, trail],
  )
  const pale = useMemo(() => faded(given.scheme), [given.scheme])
  // Blocks are told by what is glued; a shape by nothing but its shape.
  const isByShape = card?.kind === 'shape' && puzzle.definition.glue.length === 0
  const smaller = useSmaller(puzzle, card?.as, bench.state)
  const school = trail && must(schoolNamed(given.puzzleId, trail.route.school))

  // A turn of the whole puzzle loses nothing by itself.
  const isRegripped =
    bench.deviation?.slip === 'regrip' && bench.made?.stood.deviation === undefined
  // On the way of the plan a stage that is behind stays lit, whatever is borrowed from it meanwhile.
  const behind = trail && (!bench.deviation || isRegripped) ? (trail.stageOfStep[step] ?? 0) : 0
  const met = trail && school ? stagesMet(puzzle, school, trail.route, bench.state) : 0
  const lit = Math.max(met, behind)
  const stage = trail ? (trail.stageOfStep[step] ?? trail.route.stages.length - 1) : 0
  const stuck = useStuck({
    puzzleId: given.puzzleId,
    state: writeState(bench.state),
    scheme: given.scheme,
    school: controls.school,
    variant: controls.variant,
    base: trail?.route.base,
    naming: trail?.route.naming,
  })
  const owed = trail && !bench.deviation ? owedAt(puzzle, trail, done) : []
  const borrowed =
    trail && school && !bench.deviation ? borrowedAt(puzzle, school, trail, step, done) : []
  const strength = Math.max(help, bench.hint)
  const isOver = bench.solved || controls.end !== undefined

  const lights = useMemo(() => {
    const indexOf = (id: string) => puzzle.pieces.findIndex((piece) => piece.id === id)
    const block = remark?.block
    if (block)
      return {
        attend: [],
        safe: [],
        wrong: block.kind === 'cuts' ? block.pieces : [],
        places: block.kind === 'incomplete' ? block.places : [],
      }
    if (stuck.isOpen) {
      const { slots = [], verdict } = stuck.stuck?.diagnosis ?? {}
      const spoken = slots.map((slot) =>
        bench.state.findIndex((r, p) => puzzle.slot[24 * p + r] === slot),
      )
      const isWrong = verdict === 'assembly'
      return {
        attend: isWrong ? [] : spoken,
        safe: [],
        wrong: isWrong ? spoken : [],
        places: [],
      }
    }
    const isAll = card?.pieces.length === puzzle.pieces.length
    if (!card || strength < 2 || isAll || bench.solved) return { attend: [], safe: [], places: [] }
    // Numbers and arrows tell it where there are lines.
    const onPlaces = trail?.tape[done]?.step === step && !card.lines ? card.places : []
    const safe =
      wideDebts && trail && school && !bench.deviation
        ? safeAt(puzzle, school, trail, step, done)
        : []
    return { attend: card.pieces.map(indexOf), safe, places: onPlaces.map(indexOf) }
  }, [
    bench.deviation,
    bench.solved,
    bench.state,
    card,
    done,
    puzzle,
    remark,
    school,
    step,
    strength,
    stuck.isOpen,
    stuck.stuck,
    trail,
    wideDebts,
  ])

  const guide = useMemo(
    () =>
      stuck.isOpen || bench.solved || !trail || strength < 2
        ? NO_GUIDE
        : guideOf(puzzle, bench, strength >= 3),
    [bench, puzzle, strength, stuck.isOpen, trail],
  )

  const logged = useFinish(given.sessionId, bench.solved && turnsMade(bench) > 0, controls)

  const keyFor = (act: keyof Keys) => showKey(settings.keys[act])

  const layer = useKeys(settings.keys, open !== undefined && open !== 'busy', (press) => {
    if (open === 'busy') return false
    if ('turn' in press) {
      const turn = turnMeant(puzzle, press.turn)
      if (turn) controls.make(turn.name)
      const words = keyWords(puzzle, press.turn)
      // What a key does is said once; why it does nothing, each time.
      if (words && !(turn && told.current.has(words))) toast(words, { id: words })
      if (words) told.current.add(words)
      return true
    }
    switch (press.act) {
      case 'next':
        controls.next()
        break
      case 'back':
        controls.undo()
        break
      case 'step':
        controls.finishStep()
        break
      case 'hint':
        controls.hint(strength)
        break
      case 'words':
        setChosen(register === 'full' ? 'brief' : 'full')
        break
      case 'stuck':
        stuck.toggle()
        break
      case 'owed':
        setWideDebts((wide) => !wide)
        break
      case 'swap':
        setSwapped((now) => !now)
        break
      case 'kin':
        setShowsKin((shown) => !shown)
        break
      case 'slower':
        setTurnMs((ms) => Math.min(1000, Math.round(Math.max(60, ms) * SPEED_STEP)))
        break
      case 'faster':
        setTurnMs((ms) => Math.max(0, Math.round(ms / SPEED_STEP)))
        break
      case 'busy':
        // In free play there is nothing to read from afar.
        if (trail) setOpen('busy')
        break
      case 'keys':
        setOpen('keys')
        break
    }
    return true
  })

  const changeTo = (schoolId: string, variant: Readonly<Record<string, string>>) => {
    setOpen(undefined)
    void chooseSchool(given.sessionId, schoolId, variant).then((chosen) => {
      if (chosen.ok) controls.changeTo(schoolId, variant)
      else toast.error(chosen.problem.sentence)
    })
  }

  const nextName = bench.deviation ? undefined : trail?.tape[done]?.name
  const canGoOn = !isOver && (nextName !== undefined || card?.turns.length === 0)
  const request = controls.request()
  const position = controls.position()

  return (
    <div className="mx-auto flex w-full max-w-[90rem] grow flex-col gap-3 p-3 sm:px-5 lg:max-h-[calc(100dvh-2.9rem)]">
      <div className="flex flex-wrap items-start gap-x-6 gap-y-2">
        <div className="min-w-0">
          <h1 className="text-xl">{given.copyName}</h1>
          <p className="text-sm text-soft">
            {school
              ? [school.name, variantWords(school, controls.variant)].filter(Boolean).join(', ')
              : given.school === undefined
                ? 'Free play.'
                : ''}
            {trail?.route.saved
              ? `. Other ways were tried: ${plural(trail.route.saved, 'turn')} saved.`
              : ''}
          </p>
        </div>
        {trail && (
          <div className="order-last w-full sm:order-none sm:mx-auto sm:w-auto">
            <LanternString route={trail.route} current={stage} lit={lit} />
          </div>
        )}
        <div className={classes('ml-auto flex items-center gap-4 text-sm', trail && 'sm:ml-0')}>
          <Clock clock={controls.clock} isOver={isOver} />
          <span className="whitespace-nowrap">
            <span className="turns">{turnCountOf(bench)}</span>{' '}
            {turnCountOf(bench) === 1 ? 'turn' : 'turns'}
          </span>
          <span className="whitespace-nowrap text-soft" role="status">
            {savingWords(controls.saving)}
          </span>
        </div>
      </div>

      <div className="grid min-h-0 grow gap-3 lg:grid-cols-[1fr_26rem]">
        <div className="flex min-h-[15rem] flex-col gap-2 lg:min-h-0">
          <div className="min-h-0 grow">
            <PuzzleWindows
              ref={windows}
              puzzle={puzzle}
              state={bench.state}
              scheme={isByShape ? pale : given.scheme}
              marks={settings.marks}
              lights={lights}
              guide={guide}
              swapped={swapped}
              label={`${given.copyName} from two corners. ${words ? sentenceOf(lookForSpans(words), settings.writeDialect) : ''}`}
              onTurn={(turn) => controls.make(turn.name)}
            />
          </div>
          {smaller && showsKin && (
            <SmallerBeside
              puzzle={puzzle}
              smaller={smaller}
              real={bench.state}
              scheme={given.scheme}
              attend={lights.attend}
              marks={settings.marks}
            />
          )}
          {!smaller && coupled && showsKin && (
            <KinBeside
              coupled={coupled}
              state={bench.state}
              attend={lights.attend}
              marks={settings.marks}
            />
          )}
        </div>
        <div className="flex min-h-0 flex-col gap-3 lg:overflow-y-auto">
          {controls.planShare !== undefined && (
            <div className="flex items-center gap-3 rounded-lg border border-line bg-surface p-4">
              <ShareBar share={controls.planShare} label="Getting ready for the first plan" />
              <span className="turns text-sm">{Math.round(100 * controls.planShare)} %</span>
              <Button onClick={controls.cancelPlan}>Cancel</Button>
            </div>
          )}
          {trouble && <Notice kind="wrong">{trouble}</Notice>}
          <Unsent saving={controls.saving} />
          {controls.apart.map((one) => (
            <ApartNotice
              key={one.key}
              apart={one}
              isEnded={controls.end !== undefined}
              onLetGo={() => controls.letGo(one)}
            />
          ))}
          {remark && !isOver && (
            <Notice kind={remark.kind}>
              <p>{remark.sentence}</p>
              <div className="mt-2 flex flex-wrap gap-2">
                {remark.canTakeBack && <Button onClick={controls.undo}>Take it back</Button>}
                {remark.canPlan && bench.deviation && (
                  <Button onClick={() => controls.plan()}>Plan again from here</Button>
                )}
              </div>
            </Notice>
          )}
          {controls.end && !bench.solved ? (
            <Ended sessionId={given.sessionId} end={controls.end} />
          ) : bench.solved ? (
            <Solved
              logged={logged}
              turns={turnCountOf(bench)}
              layOut={`/lay-out/${given.copyId}`}
            />
          ) : stuck.isOpen ? (
            <StuckPanel
              puzzle={puzzle}
              scheme={given.scheme}
              dialect={settings.writeDialect}
              layOut={`/lay-out/${given.copyId}`}
              controls={stuck}
              onTake={(remedy) => {
                stuck.toggle()
                if (remedy.kind === 'home') changeTo(UNIVERSAL_ID, {})
                else controls.makeAll(remedy.turns)
              }}
            />
          ) : card && words && trail ? (
            <StepCard
              puzzle={puzzle}
              puzzleId={given.puzzleId}
              scheme={given.scheme}
              marks={settings.marks}
              states={statesOfStep(trail, step)}
              step={card}
              words={words}
              called={called}
              register={register}
              number={bench.stepsBefore + step + 1}
              count={bench.stepsBefore + trail.steps.length}
              strength={strength}
              done={done - trail.firstOfStep[step]}
              dialect={settings.writeDialect}
              hand={settings.hand}
              hintKey={keyFor('hint')}
              onHint={() => controls.hint(strength)}
              onTakeOther={({ piece, first }) => controls.plan({ prefer: piece, first })}
              aside={
                <span className="flex items-center gap-3 text-sm text-soft">
                  {strength >= 3 && (
                    <button
                      type="button"
                      className="min-h-6 underline decoration-line"
                      onClick={() => setChosen(register === 'full' ? 'brief' : 'full')}
                    >
                      {register === 'full' ? 'In few words' : 'In full'}
                    </button>
                  )}
                  <label className="flex items-center gap-1">
                    Show
                    <select
                      value={help}
                      onChange={(event) => setHelp(Number(event.target.value))}
                      className="rounded border border-line bg-raised px-1 text-ink"
                    >
                      {HELP.map(({ strength: value, name }) => (
                        <option key={value} value={value}>
                          {name}
                        </option>
                      ))}
                    </select>
                  </label>
                </span>
              }
            />
          ) : (
            <div className="rounded-lg border border-line bg-surface p-4">
              {planning ? 'Planning.' : freeWords(given.school !== undefined)}
              {!planning && request && (
                <Button className="mt-3" onClick={() => controls.plan()}>
                  Plan from here
                </Button>
              )}
            </div>
          )}
          {trail && !isOver && !stuck.isOpen && (
            <>
              <p className="px-1 text-sm text-soft">
                <span className="font-display text-ink">{trail.route.stages[stage].name}.</span>{' '}
                {trail.route.stages[stage].aim}
                {stageBehind(trail, step)}
              </p>
              <Debts
                puzzle={puzzle}
                scheme={given.scheme}
                owed={owed}
                borrowed={borrowed}
                step={step}
                stepsBefore={bench.stepsBefore}
                dialect={settings.writeDialect}
                wide={wideDebts}
              />
              {(card?.kind === 'start' || step === 0) &&
                request &&
                trail.route.baseColour !== '' && (
                  <StartChooser
                    request={request}
                    base={trail.route.base}
                    onChoose={(base) => controls.plan({ base })}
                  />
                )}
              {request && school?.id === UNIVERSAL_ID && !bench.deviation && (
                <ShorterWay
                  key={request.state}
                  request={request}
                  left={trail.tape.length - done}
                  route={stored.done === 0 ? trail.route : undefined}
                  onFound={controls.take}
                />
              )}
              {card?.kind === 'case' && (
                <Button onClick={() => setOpen('cases')}>All cases of this stage</Button>
              )}
            </>
          )}
          {!isOver && (
            <details open={!school} className="rounded-lg border border-line bg-surface p-3">
              <summary className="cursor-pointer text-sm text-soft">
                {layer === undefined ? 'Turns by hand' : `Layer ${layer}: now its letter.`}
              </summary>
              <div className="mt-2">
                <TurnPad
                  puzzle={puzzle}
                  state={bench.state}
                  dialect={settings.writeDialect}
                  onTurn={(turn) => controls.make(turn.name)}
                />
              </div>
            </details>
          )}
          {!isOver && (
            <Fold title="Try a sequence here" isOpenFirst={sequence !== ''}>
              <TryHere
                puzzle={puzzle}
                puzzleId={given.puzzleId}
                scheme={given.scheme}
                state={bench.state}
                settings={settings}
                {...(trail && school
                  ? {
                      stages: {
                        names: trail.route.stages.map(({ name }) => name),
                        met: (state: State) => stagesMet(puzzle, school, trail.route, state),
                      },
                    }
                  : {})}
                first={sequence}
                onMake={controls.makeAll}
              />
            </Fold>
          )}
          {!isOver && (
            <details className="rounded-lg border border-line bg-surface p-3">
              <summary className="cursor-pointer text-sm text-soft">Will it fit?</summary>
              <WillItFit
                puzzle={puzzle}
                scheme={given.scheme}
                state={bench.state}
                lit={lights.attend[0]}
                marks={settings.marks}
                dialect={settings.readDialect}
                onMake={controls.makeAll}
              />
            </details>
          )}
        </div>
      </div>

      <div className="flex flex-wrap items-stretch gap-2 max-sm:sticky max-sm:bottom-0 max-sm:bg-ground max-sm:py-2">
        <Button
          onClick={controls.undo}
          disabled={turnsMade(bench) === 0 || controls.end !== undefined}
        >
          <Undo2 size={16} aria-hidden /> Back <Key>{keyFor('back')}</Key>
        </Button>
        <Button
          weight="attend"
          onClick={controls.next}
          disabled={!canGoOn}
          className="grow sm:min-w-28 sm:grow-0"
        >
          {nextName ? `Next ${writeTurnName(nextName, settings.writeDialect)}` : 'Next'}{' '}
          <Key>{keyFor('next')}</Key>
        </Button>
        <Button onClick={controls.finishStep} disabled={!canGoOn}>
          <SkipForward size={16} aria-hidden /> <span className="max-sm:sr-only">Step</span>{' '}
          <Key>{keyFor('step')}</Key>
        </Button>
        <div className="order-last flex min-w-0 basis-full lg:order-none lg:grow lg:basis-0">
          <Tape bench={bench} dialect={settings.writeDialect} />
        </div>
        <Button
          onClick={() => setOpen('busy')}
          aria-label="Hands busy: large type"
          disabled={!trail}
        >
          <Maximize2 size={16} aria-hidden /> <Key>{keyFor('busy')}</Key>
        </Button>
        {schoolsFor(given.puzzleId).flatMap(variantsOf).length > (school ? 1 : 0) && (
          <Button onClick={() => setOpen('compare')} disabled={isOver || !position}>
            <Rows3 size={16} aria-hidden />{' '}
            <span className="max-sm:sr-only">{school ? 'Other ways' : 'Take up a school'}</span>
          </Button>
        )}
        {(smaller ?? coupled) && (
          <Button
            onClick={() => setShowsKin((shown) => !shown)}
            aria-pressed={showsKin}
            aria-label={smaller ? 'The smaller puzzle beside it' : 'The plain puzzle beside it'}
          >
            <Box size={16} aria-hidden /> <Key>{keyFor('kin')}</Key>
          </Button>
        )}
        <Button onClick={stuck.toggle} disabled={isOver} aria-pressed={stuck.isOpen}>
          <LifeBuoy size={16} aria-hidden /> <span className="max-sm:sr-only">Stuck</span>{' '}
          <Key>{keyFor('stuck')}</Key>
        </Button>
        <Button weight="quiet" className="max-sm:hidden" onClick={() => setOpen('keys')}>
          Keys <Key>{keyFor('keys')}</Key>
        </Button>
      </div>

      <KeysSheet
        keys={settings.keys}
        open={open === 'keys'}
        onOpenChange={() => setOpen(undefined)}
      />
      {open === 'compare' && position && (
        <CompareSheet request={position} onChoose={changeTo} onClose={() => setOpen(undefined)} />
      )}
      {open === 'cases' && request && trail && (
        <CasesSheet
          puzzle={puzzle}
          request={request}
          stageId={trail.route.stages[stage].id}
          stageName={trail.route.stages[stage].name}
          current={card?.caseIndex}
          marks={settings.marks}
          dialect={settings.writeDialect}
          onClose={() => setOpen(undefined)}
        />
      )}
      {open === 'busy' && (
        <HandsBusy
          puzzle={puzzle}
          scheme={given.scheme}
          marks={settings.marks}
          bench={bench}
          dialect={settings.writeDialect}
          onNext={controls.next}
          onBack={controls.undo}
          onClose={() => {
            setOpen(undefined)
            router.refresh()
          }}
        />
      )}
    </div>
  )
}

/** At the first card of a stage: what the one before took. */
function stageBehind({ route, stageOfStep }: Trail, step: number): string {
  const before = stageOfStep[step - 1]
  if (before === undefined || before === stageOfStep[step]) return ''
  const { name, steps } = route.stages[before]
  const turns = steps.flatMap((each) => each.turns.filter(({ role }) => role !== 'hold')).length
  return ` ${name} took ${plural(turns, 'turn')} in ${plural(steps.length, 'step')}.`
}

const savingWords = ({ state, unsent }: Saving): string => {
  if (state === 'saved') return 'saved'
  if (state === 'closed') return ''
  if (state === 'saving') return 'saving'
  return `${unsent} not saved${state === 'waiting' ? ' yet' : ''}`
}

/** What is not kept yet, and whether the page may be closed. */
function Unsent({ saving: { state, isKeptHere, sentence } }: { saving: Saving }) {
  if (state !== 'waiting') return null
  if (sentence) return <Notice kind="wrong">{sentence}</Notice>
  return (
    <Notice kind="attend">
      {isKeptHere
        ? 'Merry Lantern does not answer now. Go on turning: this browser keeps it and sends it as soon as there is an answer.'
        : 'Merry Lantern does not answer now, and this browser keeps nothing for a page. Go on turning, but leave the page open until it says saved.'}
    </Notice>
  )
}

const freeWords = (hasSchool: boolean): string =>
  hasSchool
    ? 'There is no plan yet.'
    : 'Turn it with the keys, or drag a layer. Every turn is kept and can be taken back.'

/** What is made only once it is opened. */
function Fold({
  title,
  isOpenFirst,
  children,
}: {
  title: string
  isOpenFirst: boolean
  children: ReactNode
}) {
  const [isOpen, setOpen] = useState(isOpenFirst)
  return (
    <details
      open={isOpen}
      onToggle={(event) => setOpen(event.currentTarget.open)}
      className="rounded-lg border border-line bg-surface p-3"
    >
      <summary className="cursor-pointer text-sm text-soft">{title}</summary>
      {isOpen && children}
    </details>
  )
}

function Solved({ logged, turns, layOut }: { logged: Logged; turns: number; layOut: string }) {
  return (
    <section className="grid gap-3 rounded-lg border border-amber bg-surface p-5" role="status">
      <h2 className="text-2xl">Home</h2>
      <p>
        Solved: {turns} {turns === 1 ? 'turn' : 'turns'}.
      </p>
      {logged.problem && <p className="text-rose">{logged.problem}</p>}
      <div className="flex flex-wrap gap-2">
        {logged.solveId && (
          <LinkButton weight="attend" href={`/log/${logged.solveId}`}>
            See it in the log
          </LinkButton>
        )}
        <LinkButton href={layOut}>Lay out the next</LinkButton>
      </div>
    </section>
  )
}

interface Logged {
  readonly solveId?: string
  readonly problem?: string
}

const REFUSED = fail('refused', 'The solve is not logged, because not every turn is kept.')

/** Logs the solve once the server has every event; asked again while there is no answer. */
function useFinish(
  sessionId: string,
  solved: boolean,
  { settled }: { settled: () => Promise<boolean> },
): Logged {
  const [logged, setLogged] = useState<Logged>({})
  const begun = useRef(false)
  useEffect(() => {
    if (!solved || begun.current) return
    begun.current = true
    let isOver = false
    void (async () => {
      for (let tries = 0; !isOver; tries++) {
        const done = (await settled()) ? await finish(sessionId) : REFUSED
        if (isOver) return
        if (done.ok) return setLogged({ solveId: done.value })
        setLogged({ problem: done.problem.sentence })
        // What may be better later is tried again; what is refused is told.
        if (done.problem.code !== 'away') break
        await new Promise((wait) => setTimeout(wait, Math.min(6000, 700 * 2 ** tries)))
      }
      begun.current = false
    })()
    return () => {
      isOver = true
      begun.current = false
    }
  }, [sessionId, settled, solved])
  return logged
}
