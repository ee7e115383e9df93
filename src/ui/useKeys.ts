'use client'

import { useEffect, useRef, useState } from 'react'
import { readPress, type Keys, type Press } from '@/core/keys'

/** What reaches the listener: a turn has its layer number with it. */
export type KeyPress = Exclude<Press, { layer: number }>

/** How long a layer number waits for its letter, in milliseconds. */
const LAYER_WAIT = 2500

/**
 * Key presses anywhere on the page, unless something is being typed or a sheet is open. Returns the
 * layer number that waits for its letter.
 */
export function useKeys(
  keys: Keys,
  blocked: boolean,
  onPress: (press: KeyPress) => boolean,
): number | undefined {
  const latest = useRef(onPress)
  const layer = useRef<number>(undefined)
  const [waiting, setWaiting] = useState<number>()
  useEffect(() => {
    latest.current = onPress
  })
  useEffect(() => {
    if (blocked) return
    let timer: ReturnType<typeof setTimeout> | undefined
    const holdLayer = (number: number | undefined) => {
      clearTimeout(timer)
      layer.current = number
      setWaiting(number)
      if (number !== undefined) timer = setTimeout(() => holdLayer(undefined), LAYER_WAIT)
    }
    const listen = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement
      if (event.ctrlKey || event.metaKey || event.altKey) return
      if (target.closest('input:not([type=range]), textarea, select, [contenteditable]')) return
      // A focused button or link answers Space and Enter itself.
      if ((event.key === ' ' || event.key === 'Enter') && target.closest('button, a, summary'))
        return
      const press = readPress(event, keys)
      if (!press) return
      if ('layer' in press) {
        holdLayer(press.layer)
        event.preventDefault()
        return
      }
      const turned = 'turn' in press ? { turn: `${layer.current ?? ''}${press.turn}` } : press
      if (layer.current !== undefined) holdLayer(undefined)
      if (latest.current(turned)) event.preventDefault()
    }
    window.addEventListener('keydown', listen)
    return () => {
      window.removeEventListener('keydown', listen)
      clearTimeout(timer)
    }
  }, [blocked, keys])
  return waiting
}
