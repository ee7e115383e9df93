'use client'

import { useEffect, useRef, useState } from 'react'
import { readPress, type Keys, type Press } from '@/core/keys'

/** What reaches the listener: a turn has its layer number with it. */
export type KeyPress = Exclude<Press, { layer: number }>

/** How long a layer number waits for its letter, in milliseconds. */
const LAYER_WAIT = 2500

/** Where a mouse or a finger has chosen something, the keys are the page's again. */
const CHOICES = 'select, input[type=checkbox], input[type=radio]'

/**
 * Key presses anywhere on the page, unless something is being typed or a sheet is open. A control that was
 * reached by the keyboard keeps its own keys; one that was clicked does not. Returns the layer number that
 * waits for its letter.
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
    let byPointer = false
    let isClicked = false
    const onPointer = ({ target }: PointerEvent) => {
      byPointer = true
      // What has the focus already gets no new one by being clicked.
      const focused = document.activeElement
      if (focused !== document.body && target instanceof Node && focused?.contains(target))
        isClicked = true
    }
    const onAnyKey = () => (byPointer = false)
    const onFocus = () => (isClicked = byPointer)
    const onChange = ({ target }: Event) => {
      if (isClicked && target instanceof HTMLElement && target.matches(CHOICES)) target.blur()
    }
    const listen = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement
      if (event.ctrlKey || event.metaKey || event.altKey) return
      if (target.closest('input:not([type=range]), textarea, select, [contenteditable]')) return
      // A button or link that was reached by the keyboard answers Space and Enter itself.
      const isPress = event.key === ' ' || event.key === 'Enter'
      const control = isPress ? target.closest<HTMLElement>('button, a, summary') : null
      if (control && !isClicked) return
      const press = readPress(event, keys)
      if (!press) return
      if ('layer' in press) {
        holdLayer(press.layer)
        event.preventDefault()
        return
      }
      const turned = 'turn' in press ? { turn: `${layer.current ?? ''}${press.turn}` } : press
      if (layer.current !== undefined) holdLayer(undefined)
      if (!latest.current(turned)) return
      event.preventDefault()
      control?.blur()
    }
    window.addEventListener('pointerdown', onPointer, true)
    window.addEventListener('keydown', onAnyKey, true)
    window.addEventListener('focusin', onFocus)
    window.addEventListener('change', onChange)
    window.addEventListener('keydown', listen)
    return () => {
      window.removeEventListener('pointerdown', onPointer, true)
      window.removeEventListener('keydown', onAnyKey, true)
      window.removeEventListener('focusin', onFocus)
      window.removeEventListener('change', onChange)
      window.removeEventListener('keydown', listen)
      clearTimeout(timer)
    }
  }, [blocked, keys])
  return waiting
}
