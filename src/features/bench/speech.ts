'use client'

/** Speech in and out, where the browser has it. Nothing leaves the machine by our doing. */
import { useCallback, useEffect, useRef, useState } from 'react'

interface Recognition {
  continuous: boolean
  lang: string
  onresult: ((event: { results: ArrayLike<ArrayLike<{ transcript: string }>> }) => void) | null
  onerror: ((event: { error: string }) => void) | null
  onend: (() => void) | null
  start(): void
  stop(): void
}

/** What can be said. */
export type Command = 'next' | 'back' | 'again'

/** The last command in what was heard; other words between do no harm. */
export function commandIn(heard: string): Command | undefined {
  const found = heard.toLowerCase().match(/\b(next|back|again)\b/g)
  return found?.at(-1) as Command | undefined
}

/** Listening for commands. `trouble` says why it cannot be, in a sentence. */
export function useCommands(onCommand: (command: Command) => void) {
  const [listening, setListening] = useState(false)
  const [trouble, setTrouble] = useState<string>()
  const latest = useRef(onCommand)
  useEffect(() => {
    latest.current = onCommand
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
      const command = commandIn(results[results.length - 1][0].transcript)
      if (command) latest.current(command)
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

/** Reading aloud: what is given is said once each time that it changes, and again when asked. */
export function useReadAloud(text: string) {
  const [reading, setReading] = useState(false)
  const [trouble, setTrouble] = useState<string>()
  const say = useCallback((words: string) => {
    speechSynthesis.cancel()
    if (words === '') return
    const said = new SpeechSynthesisUtterance(words)
    said.lang = 'en'
    speechSynthesis.speak(said)
  }, [])
  useEffect(() => {
    if (!reading) return
    say(text)
    return () => speechSynthesis.cancel()
  }, [reading, say, text])
  return {
    reading,
    trouble,
    again: () => {
      if (reading) say(text)
    },
    toggle: () => {
      const known = 'speechSynthesis' in window
      setTrouble(known ? undefined : 'This browser cannot read aloud.')
      setReading(known && !reading)
    },
  }
}
