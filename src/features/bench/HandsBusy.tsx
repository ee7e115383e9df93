'use client'

import { Mic, MicOff, X } from 'lucide-react'
import { Dialog } from 'radix-ui'
import { useEffect, useRef, useState } from 'react'
import type { Bench } from '@/core/coach/bench'
import type { DialectId } from '@/core/notation/dialect'
import { writeTurnName } from '@/core/notation/write'
import { capital } from '@/core/words'
import { Button } from '@/ui/Button'

interface Recognition {
  continuous: boolean
  lang: string
  onresult: ((event: { results: ArrayLike<ArrayLike<{ transcript: string }>> }) => void) | null
  onerror: ((event: { error: string }) => void) | null
  onend: (() => void) | null
  start(): void
  stop(): void
}

/** Large type, readable from two metres: one key, a tap anywhere or a spoken 'next' goes on. */
export function HandsBusy({
  bench,
  dialect,
  onNext,
  onBack,
  onClose,
}: {
  bench: Bench
  dialect: DialectId
  onNext: () => void
  onBack: () => void
  onClose: () => void
}) {
  const { trail, done, step, solved, deviation } = bench
  const card = trail?.steps[step]
  const turn = deviation ? undefined : trail?.tape[done]
  const following = trail?.tape.slice(done + 1, done + 4) ?? []
  const voice = useSpokenNext(onNext)
  const isReading = card !== undefined && card.turns.length === 0
  return (
    <Dialog.Root open onOpenChange={onClose}>
      <Dialog.Portal>
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-0 z-50 flex flex-col bg-ground p-4 sm:p-8"
          onKeyDown={(event) => {
            if (event.key !== ' ' && event.key !== 'Enter') return
            event.preventDefault()
            if (event.shiftKey) onBack()
            else onNext()
          }}
        >
          <div className="flex items-center gap-2">
            <Dialog.Title className="grow text-lg text-soft">
              {solved ? 'Home' : card ? `Step ${step + 1} of ${trail?.steps.length}` : 'Hands busy'}
            </Dialog.Title>
            <Button onClick={voice.toggle} aria-pressed={voice.listening}>
              {voice.listening ? <Mic size={16} aria-hidden /> : <MicOff size={16} aria-hidden />}
              Say ‘next’
            </Button>
            <Button onClick={onBack}>Back</Button>
            <Dialog.Close asChild>
              <Button aria-label="Leave hands busy">
                <X size={16} aria-hidden />
              </Button>
            </Dialog.Close>
          </div>
          {voice.trouble && <p className="text-sm text-rose">{voice.trouble}</p>}
          <button
            type="button"
            autoFocus
            onClick={onNext}
            className="grid grow place-content-center gap-[3vmin] text-center -outline-offset-4"
            aria-label={turn ? `Next: ${turn.name}` : 'Next'}
          >
            {card && turn?.run !== undefined && card.runs && card.runs.total > 1 && (
              <span className="text-[5vmin] text-soft">
                run {turn.run} of {card.runs.total}
              </span>
            )}
            {solved ? (
              <span className="font-display text-[16vmin]">Home.</span>
            ) : deviation ? (
              <span className="text-[6vmin]">Off the card. Go back one turn.</span>
            ) : isReading ? (
              <span className="max-w-[22ch] text-[6vmin]">{capital(card.hold)}.</span>
            ) : (
              <>
                <span className="turns text-[30vmin] leading-none font-bold text-amber">
                  {turn ? writeTurnName(turn.name, dialect) : ''}
                </span>
                <span className="turns text-[8vmin] text-soft">
                  {following.map(({ name }) => writeTurnName(name, dialect)).join('  ')}
                </span>
              </>
            )}
            {card && !solved && done === trail?.firstOfStep[step] && !isReading && (
              <span className="max-w-[30ch] justify-self-center text-[4.4vmin]">
                {capital(card.hold)}
              </span>
            )}
          </button>
          <p className="text-center text-sm text-soft">Tap anywhere, or press Space.</p>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}

/** Listening for the word 'next', where the browser can. */
function useSpokenNext(onNext: () => void) {
  const [listening, setListening] = useState(false)
  const [trouble, setTrouble] = useState<string>()
  const latest = useRef(onNext)
  useEffect(() => {
    latest.current = onNext
  })
  useEffect(() => {
    if (!listening) return
    const kinds = window as unknown as Record<string, (new () => Recognition) | undefined>
    const Kind = kinds.SpeechRecognition ?? kinds.webkitSpeechRecognition
    if (!Kind) return
    const recognition = new Kind()
    recognition.continuous = true
    recognition.lang = 'en'
    let wanted = true
    recognition.onresult = ({ results }) => {
      const words = results[results.length - 1][0].transcript.toLowerCase()
      if (/\bnext\b/.test(words)) latest.current()
    }
    recognition.onerror = ({ error }) => {
      if (error === 'no-speech') return
      wanted = false
      setTrouble('The microphone cannot be used here. Tap or press Space instead.')
      setListening(false)
    }
    recognition.onend = () => wanted && recognition.start()
    recognition.start()
    return () => {
      wanted = false
      recognition.stop()
    }
  }, [listening])
  return {
    listening,
    trouble,
    toggle: () => {
      const known = 'SpeechRecognition' in window || 'webkitSpeechRecognition' in window
      setTrouble(known ? undefined : 'This browser does not understand speech. Tap or press Space.')
      setListening(known && !listening)
    },
  }
}
