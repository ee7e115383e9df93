'use client'

import { getNonce, setNonce } from 'get-nonce'

/**
 * Dialogs write a style of their own into the page: this gives it the nonce that the page's policy asks for.
 * The page keeps the policy that it came with; what is asked for later comes with others.
 */
export function StyleNonce({ nonce }: { nonce?: string }) {
  if (nonce && !getNonce()) setNonce(nonce)
  return null
}
