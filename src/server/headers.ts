/** What every answer says to the browser. */

/** Kept by the browser: the id of the solver who was chosen there. */
export const SOLVER_COOKIE = 'merry-solver'

/** Set by the door where a page is asked for: its address. */
export const PAGE_HEADER = 'x-page'

/** Set by the door: what makes the scripts of a page its own. */
export const NONCE_HEADER = 'x-nonce'

/** Sent with pages, routes and files alike. */
export const STANDING_HEADERS: readonly (readonly [string, string])[] = [
  ['x-content-type-options', 'nosniff'],
  ['x-frame-options', 'DENY'],
  ['referrer-policy', 'same-origin'],
  ['cross-origin-opener-policy', 'same-origin'],
  ['cross-origin-resource-policy', 'same-origin'],
  // Spoken turns need the microphone; nothing else of the machine is needed.
  [
    'permissions-policy',
    'microphone=(self), camera=(), geolocation=(), payment=(), usb=(), serial=(), hid=(), bluetooth=(), midi=()',
  ],
]

/**
 * The content security policy of one answer: scripts of our own only, told by the nonce, none inline.
 * Styles stand in attributes too, because pictures are placed by them.
 */
export function policyOf(nonce: string, isDevelopment: boolean): string {
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${isDevelopment ? " 'unsafe-eval'" : ''}`,
    // While developing, styles come and go without a nonce; beside one, 'unsafe-inline' would be ignored.
    isDevelopment
      ? "style-src 'self' 'unsafe-inline'"
      : `style-src 'self' 'nonce-${nonce}' ${SONNER_STYLES.join(' ')}`,
    "style-src-attr 'unsafe-inline'",
    "img-src 'self' blob: data:",
    "font-src 'self'",
    `connect-src 'self'${isDevelopment ? ' ws:' : ''}`,
    "worker-src 'self'",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ')
}

/** The package for short notices writes a style of its own without asking for the nonce: by its hash. */
export const SONNER_STYLES: readonly string[] = [
  // It is put into the page empty, then filled.
  "'sha256-47DEQpj8HBSa+/TImW+5JCeuQeRkm5NMpJWZG3hSuFU='",
  "'sha256-StEaX+se6YS7pqjzrzMIA0KaX9zF/8zAhvQXZAe5epY='",
]
