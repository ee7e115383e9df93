'use client'

import { useRef, useState, useTransition } from 'react'
import { puzzleById } from '@/core/catalog'
import { DIALECTS, type DialectId } from '@/core/notation/dialect'
import { SMALL_MEANINGS, SMALL_WORDS, type SmallMeaning } from '@/core/notation/smallLetters'
import type { Problem } from '@/core/result'
import { must } from '@/core/result'
import type { Hand } from '@/core/notation/handCost'
import { showKey } from '@/core/keys'
import type { CardVoice, Settings, Theme } from '@/core/settings'
import { start } from '@/core/state'
import { Choice, TextArea, TextField } from '@/ui/Field'
import { PuzzlePicture } from '@/ui/puzzle-picture/PuzzlePicture'
import { Notice } from '@/ui/Notice'
import { heard } from '@/ui/heard'
import { saveSettings } from './actions'
import { KeysChooser } from './KeysChooser'

const dialects = DIALECTS.map(({ id, name, example }) => ({
  value: id,
  name: `${name}: ${example}`,
}))

/** Every change is kept at once. */
export function SettingsScreen({
  settings,
  puzzleNames,
}: {
  settings: Settings
  /** Of those on which it is remembered what small letters mean, by id. */
  puzzleNames: Readonly<Record<string, string>>
}) {
  const [now, setNow] = useState(settings)
  const [problem, setProblem] = useState<Problem>()
  const [pending, begin] = useTransition()
  /** Which change was the last: an answer to an earlier one says nothing of it. */
  const latest = useRef(0)
  const puzzle = must(puzzleById('cube-2'))
  const errorAt = (field: keyof Settings) =>
    problem?.field === field ? problem.sentence : undefined

  const change = (part: Partial<Settings>) => {
    const next = { ...now, ...part }
    setNow(next)
    if (part.theme) document.documentElement.dataset.theme = part.theme
    const nth = ++latest.current
    begin(async () => {
      const saved = await heard(() => saveSettings(next))
      if (nth === latest.current) setProblem(saved.ok ? undefined : saved.problem)
    })
  }

  return (
    <div className="mx-auto grid w-full max-w-4xl gap-6 px-4 py-5 sm:px-6">
      <div className="flex items-baseline gap-4">
        <h1 className="grow text-3xl">Settings</h1>
        <span role="status" className="text-sm text-soft">
          {pending ? 'saving' : problem ? 'not saved' : 'saved'}
        </span>
      </div>
      {problem && problem.field === undefined && <Notice kind="wrong">{problem.sentence}</Notice>}
      <div className="grid gap-6 md:grid-cols-2">
        <Group title="Turns">
          <Choice
            label="Read turns as"
            // Pictures are not typed.
            options={dialects.filter(({ value }) => value !== 'arrows')}
            value={now.readDialect}
            onChange={(event) => change({ readDialect: event.target.value as DialectId })}
          />
          <Choice
            label="Write turns as"
            options={dialects}
            value={now.writeDialect}
            onChange={(event) => change({ writeDialect: event.target.value as DialectId })}
          />
          {Object.entries(puzzleNames).map(([puzzleId, name]) => (
            <Choice
              key={puzzleId}
              label={`Small letters on ${name}`}
              options={SMALL_MEANINGS.map((value) => ({ value, name: SMALL_WORDS[value] }))}
              value={now.smallLetters[puzzleId]}
              onChange={(event) =>
                change({
                  smallLetters: {
                    ...now.smallLetters,
                    [puzzleId]: event.target.value as SmallMeaning,
                  },
                })
              }
            />
          ))}
          <TextArea
            label="Words without directions"
            className="turns text-sm"
            rows={4}
            spellCheck={false}
            maxLength={3000}
            value={now.vocabulary}
            error={errorAt('vocabulary')}
            hint="What they can mean, a word a line; tried when a sequence is mended."
            onChange={(event) => change({ vocabulary: event.target.value })}
          />
          <TextField
            label="A turn takes (milliseconds)"
            type="number"
            min={0}
            max={1000}
            step={20}
            value={now.turnMs}
            error={errorAt('turnMs')}
            hint="0 to 1000. With reduced motion in your system nothing moves at all."
            onChange={(event) => change({ turnMs: event.target.valueAsNumber })}
          />
        </Group>
        <Group title="Look">
          <Choice
            label="Cards speak"
            options={[
              { value: 'learning', name: 'In full, then in few words' },
              { value: 'full', name: 'Always in full' },
              { value: 'brief', name: 'Always in few words' },
            ]}
            value={now.cards}
            hint={`In full until a case has come twice. ${showKey(now.keys.words)} changes it on the bench.`}
            onChange={(event) => change({ cards: event.target.value as CardVoice })}
          />
          <Choice
            label="Theme"
            options={[
              { value: 'dusk', name: 'Dusk' },
              { value: 'daylight', name: 'Daylight' },
              { value: 'system', name: 'As the device has it' },
            ]}
            value={now.theme}
            onChange={(event) => change({ theme: event.target.value as Theme })}
          />
          <label className="flex min-h-9 items-center gap-3">
            <input
              type="checkbox"
              className="size-5 accent-[var(--amber)]"
              checked={now.marks}
              onChange={(event) => change({ marks: event.target.checked })}
            />
            <span>
              <span className="font-bold">Marks on every sticker</span>
              <span className="block text-sm text-soft">
                so that no one has to tell red from orange
              </span>
            </span>
          </label>
          <PuzzlePicture
            puzzle={puzzle}
            state={start(puzzle)}
            scheme={puzzle.definition.colours}
            marks={now.marks}
            label="A finished cube as it is drawn with these settings"
            className="w-64"
          />
        </Group>
        <Group title="You">
          <TextField
            label="Nickname"
            hint="How the others here call you; written into the log with every solve."
            value={now.nickname}
            error={errorAt('nickname')}
            onChange={(event) => change({ nickname: event.target.value })}
          />
          <Choice
            label="Hand that turns most"
            hint="Plans choose turns that lie easily in it; for the left hand algorithms are mirrored."
            options={[
              { value: 'right', name: 'right' },
              { value: 'left', name: 'left' },
            ]}
            value={now.hand}
            onChange={(event) => change({ hand: event.target.value as Hand })}
          />
        </Group>
        <Group title="Keys of the bench">
          <KeysChooser keys={now.keys} onChange={(keys) => change({ keys })} />
        </Group>
      </div>
    </div>
  )
}

const Group = ({ title, children }: { title: string; children: React.ReactNode }) => (
  <section className="grid content-start gap-4 rounded-lg border border-line bg-surface p-5">
    <h2 className="text-lg">{title}</h2>
    {children}
  </section>
)
