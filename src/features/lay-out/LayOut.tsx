'use client'

import { useRouter } from 'next/navigation'
import { Tabs } from 'radix-ui'
import { useCallback, useState, useTransition } from 'react'
import { puzzleById } from '@/core/catalog'
import { whyNotByColours, type Marked } from '@/core/copy/colours'
import { must } from '@/core/result'
import type { Settings } from '@/core/settings'
import type { Copy } from '@/server/copies'
import { Button } from '@/ui/Button'
import { heard } from '@/ui/heard'
import { LeaveOff, type Running } from '@/ui/LeaveOff'
import { Notice } from '@/ui/Notice'
import { putOnBench } from './actions'
import { ByColours } from './ByColours'
import { ByPieces } from './ByPieces'
import { ByScramble, type ScrambleEntry } from './ByScramble'
import type { OnEntry } from './onEntry'
import { firstSchool, SchoolChooser } from './SchoolChooser'

export type Way = 'scramble' | 'colours' | 'pieces'

export function LayOut({ copy, settings, way }: { copy: Copy; settings: Settings; way: Way }) {
  const router = useRouter()
  const puzzle = must(puzzleById(copy.puzzleId))
  const [chosen, setChosen] = useState(() => firstSchool(copy.puzzleId))
  const whyNot = whyNotByColours(puzzle)
  const [tab, setTab] = useState<Way>(way === 'colours' && whyNot ? 'pieces' : way)
  const [scrambled, setScrambled] = useState<ScrambleEntry>()
  const [marked, setMarked] = useState<Marked>()
  const [trouble, setTrouble] = useState<string>()
  const [pending, begin] = useTransition()
  const [placed, setPlaced] = useState<string>()
  const entry = {
    scramble: scrambled,
    colours: marked && { marked },
    pieces: placed === undefined ? undefined : { state: placed },
  }[tab]
  const [why, setWhy] = useState<string>()
  const setEntry = useCallback<OnEntry<ScrambleEntry>>((given, reason) => {
    setScrambled(given)
    setWhy(reason)
  }, [])
  const setMarks = useCallback<OnEntry<Marked>>((given, reason) => {
    setMarked(given)
    setWhy(reason)
  }, [])
  const setPieces = useCallback<OnEntry<string>>((given, reason) => {
    setPlaced(given)
    setWhy(reason)
  }, [])

  const [running, setRunning] = useState<Running>()
  const put = (instead?: string) =>
    begin(async () => {
      setRunning(undefined)
      const opened = await heard(() =>
        putOnBench({ laidBy: tab, copyId: copy.id, instead, ...chosen, ...entry }),
      )
      if (!opened.ok) return setTrouble(opened.problem.sentence)
      if ('running' in opened.value) return setRunning(opened.value.running)
      router.push(`/bench/${opened.value.bench}`)
    })

  return (
    <div className="mx-auto grid w-full max-w-6xl gap-4 px-4 py-5 sm:px-6">
      <div>
        <h1 className="text-2xl">Lay out {copy.name}</h1>
        <p className="text-soft">Put the state of your real puzzle in.</p>
      </div>
      <Tabs.Root
        value={tab}
        onValueChange={(value) => {
          setTab(value as Way)
          window.history.replaceState(null, '', `?way=${value}`)
        }}
      >
        <Tabs.List aria-label="Ways to lay out" className="mb-4 flex gap-1 border-b border-line">
          {(
            [
              ['scramble', 'Scramble it'],
              ['colours', 'Copy its colours'],
              ['pieces', 'Copy it piece by piece'],
            ] as const
          ).map(([value, name]) => (
            <Tabs.Trigger
              key={value}
              value={value}
              disabled={value === 'colours' && whyNot !== undefined}
              className="border-b-2 border-transparent px-4 py-2 text-soft data-[state=active]:border-amber data-[state=active]:text-ink disabled:opacity-50"
            >
              {name}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        {whyNot && (
          <p className="-mt-2 mb-4 text-sm text-soft">
            Not by colours: {whyNot[0].toLowerCase()}
            {whyNot.slice(1)} Piece by piece you touch a place and give the colours seen there.
          </p>
        )}
        <Tabs.Content value="scramble">
          <ByScramble puzzle={puzzle} scheme={copy.scheme} settings={settings} onEntry={setEntry} />
        </Tabs.Content>
        <Tabs.Content value="colours">
          <ByColours
            puzzle={puzzle}
            scheme={copy.scheme}
            marks={settings.marks}
            onEntry={setMarks}
          />
        </Tabs.Content>
        <Tabs.Content value="pieces">
          <ByPieces copy={copy} settings={settings} onEntry={setPieces} />
        </Tabs.Content>
      </Tabs.Root>
      <div className="grid gap-4 rounded-lg border border-line bg-surface p-4 md:grid-cols-[1fr_auto] md:items-end">
        <div className="md:[&>div]:[grid-template-columns:repeat(auto-fill,minmax(13rem,1fr))] md:[&>div]:items-start">
          <SchoolChooser puzzleId={copy.puzzleId} chosen={chosen} onChange={setChosen} />
        </div>
        <div className="grid gap-2">
          {running && (
            <LeaveOff
              running={running}
              onLeaveOff={() => put(running.id)}
              onClose={() => setRunning(undefined)}
            />
          )}
          {trouble && <Notice kind="wrong">{trouble}</Notice>}
          <Button
            weight="attend"
            className="min-h-11 px-5"
            disabled={!entry || pending}
            onClick={() => put()}
          >
            {pending ? 'Opening the bench' : 'Put it on the bench'}
          </Button>
          {!entry && why && (
            <p role="status" aria-label="Why not" className="max-w-64 text-xs text-soft">
              {why}
            </p>
          )}
        </div>
      </div>
    </div>
  )
}
