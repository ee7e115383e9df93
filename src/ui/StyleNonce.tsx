'use client'

import { setNonce } from 'get-nonce'

/** Dialogs write a style of their own into the page: this gives it the nonce that the page's policy asks for. */
export function StyleNonce({ nonce }: { nonce?: string }) {
  if (nonce) setNonce(nonce)
  return null
}
