import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { policyOf, SONNER_STYLES } from './headers'

describe('the content policy', () => {
  it('allows the style that the package for notices writes, and no other without the nonce', () => {
    const source = readFileSync('node_modules/sonner/dist/index.mjs', 'utf8')
    const written = /__insertCSS\("((?:[^"\\]|\\.)*)"\)/.exec(source)?.[1]
    const style = JSON.parse(`"${written}"`) as string
    const hashes = ['', style].map(
      (text) => `'sha256-${createHash('sha256').update(text).digest('base64')}'`,
    )
    expect(SONNER_STYLES).toEqual(hashes)
  })

  it('allows no script without the nonce, no frame and no plug-in', () => {
    const policy = policyOf('bm9uY2U=', false)
    expect(policy).toContain("script-src 'self' 'nonce-bm9uY2U=' 'strict-dynamic';")
    expect(policy).toContain("frame-ancestors 'none'")
    expect(policy).toContain("object-src 'none'")
    expect(policy).not.toMatch(/script-src[^;]*unsafe/)
    expect(policy).not.toMatch(/style-src [^;]*unsafe/)
  })
})
