'use client'

import { useEffect, useState } from 'react'

/** What is drawn on a canvas knows no variables of the style sheet. */
type Name = 'ink' | 'soft' | 'line' | 'amber' | 'teal' | 'rose'
type Colours = Readonly<Record<Name, string>>

const NAMES: readonly Name[] = ['ink', 'soft', 'line', 'amber', 'teal', 'rose']

/** As they are now: a colour of the theme is worked out only where something has it. */
function read(): Colours {
  const probe = document.createElement('span')
  document.body.append(probe)
  const found = NAMES.map((name) => {
    probe.style.color = `var(--${name})`
    return [name, getComputedStyle(probe).color] as const
  })
  probe.remove()
  return Object.fromEntries(found) as Colours
}

/** The colours of the theme, also after the theme, or the device's, has changed; undefined until the page is there. */
export function useThemeColours(): Colours | undefined {
  const [colours, setColours] = useState<Colours>()
  useEffect(() => {
    const again = () => setColours(read())
    again()
    const observer = new MutationObserver(again)
    observer.observe(document.documentElement, { attributeFilter: ['data-theme'] })
    const device = matchMedia('(prefers-color-scheme: light)')
    device.addEventListener('change', again)
    return () => {
      observer.disconnect()
      device.removeEventListener('change', again)
    }
  }, [])
  return colours
}
