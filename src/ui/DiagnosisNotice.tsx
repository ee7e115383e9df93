import type { ReactNode } from 'react'
import type { DialectId } from '@/core/notation/dialectId'
import type { Scheme } from '@/core/puzzle/colours'
import type { Puzzle } from '@/core/puzzle/compile'
import type { Diagnosis } from '@/core/stuck/diagnose'
import type { Verdict } from '@/core/stuck/finding'
import { verdictWords } from '@/core/stuck/sayVerdict'
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
  puzzle,
  scheme,
  dialect,
  diagnosis,
  children,
}: {
  puzzle: Puzzle
  scheme: Scheme
  /** Turns are written in it. */
  dialect?: DialectId
  diagnosis: Diagnosis
  children?: ReactNode
}) {
  const { verdict } = diagnosis
  const sentences = verdictWords(puzzle, scheme, diagnosis, dialect)
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
