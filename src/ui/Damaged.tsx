import { Download } from 'lucide-react'
import type { ReactNode } from 'react'
import { LinkButton } from './Button'
import { Notice } from './Notice'

/** Something that is stored and cannot be shown: what is wrong, a way to keep it, and to be rid of it. */
export function Damaged({
  what,
  sentence,
  file,
  children,
}: {
  /** 'This bench' */
  what: string
  sentence: string
  /** The address of it as a file. */
  file?: string
  /** The button that removes it. */
  children?: ReactNode
}) {
  return (
    <Notice kind="wrong">
      <p>
        {what} is damaged. {sentence}
      </p>
      <div className="mt-2 flex flex-wrap gap-2">
        {file && (
          <LinkButton href={file} prefetch={false} download>
            <Download size={16} aria-hidden /> Export it
          </LinkButton>
        )}
        {children}
      </div>
    </Notice>
  )
}
