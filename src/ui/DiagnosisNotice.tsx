import type { ReactNode } from 'react'
import type { Diagnosis } from '@/core/stuck/diagnose'
import type { Verdict } from '@/core/stuck/finding'
import { Notice } from './Notice'

/** What each verdict is called. */
export const VERDICT_NAMES: Readonly<Record<Verdict, string>> = {
  home: 'Finished',
  'not finished': 'Not finished',
  'look-alike': 'Look-alikes',
  'reduction parity': 'Parity of the reduction',
  frame: 'Out of register',
  assembly: 'Put together wrongly',
  'not known': 'Not known',
}

/** A diagnosis in its own words. */
export function DiagnosisNotice({
  diagnosis,
  children,
}: {
  diagnosis: Diagnosis
  children?: ReactNode
}) {
  const { verdict, sentences } = diagnosis
  const kind = verdict === 'assembly' ? 'wrong' : verdict === 'not known' ? 'attend' : 'safe'
  return (
    <Notice kind={kind}>
      <p className="font-display">{VERDICT_NAMES[verdict]}</p>
      {sentences.map((sentence) => (
        <p key={sentence}>{sentence}</p>
      ))}
      {children && <p>{children}</p>}
    </Notice>
  )
}
