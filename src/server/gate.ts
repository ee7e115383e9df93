/**
 * Who may ask. The program serves one person on one machine, but every page in that person's browser can
 * send requests to it: a form or a script of another site, or a name that another site has pointed here.
 */
import { fail, type Result } from '../core/result'

/** Names of this machine; others are given in MERRY_HOSTS, with commas. */
const OWN_NAMES = ['localhost', '127.0.0.1', '[::1]']

const SAFE_METHODS = ['GET', 'HEAD', 'OPTIONS']

const foreign = (why: string): Result<never> => fail('foreign', why)

interface AskedHeaders {
  get(name: string): string | null
}

/** Why a request is refused; undefined if it may come in. */
export function foreignProblem(method: string, headers: AskedHeaders): Result<never> | undefined {
  const host = headers.get('host') ?? ''
  const name = host.replace(/:\d+$/, '').toLowerCase()
  const given = (process.env.MERRY_HOSTS ?? '').split(',').map((each) => each.trim().toLowerCase())
  if (![...OWN_NAMES, ...given].filter(Boolean).includes(name))
    return foreign('Merry Lantern is asked for under a name that is not its own.')
  const site = headers.get('sec-fetch-site')
  const isNavigation = headers.get('sec-fetch-mode') === 'navigate'
  if (SAFE_METHODS.includes(method))
    // A link from elsewhere may lead to a page; nothing else may be read from another site.
    return site && !['same-origin', 'none'].includes(site) && !isNavigation
      ? foreign('Another site may not read this.')
      : undefined
  if (site && site !== 'same-origin') return foreign('Another site may not change anything here.')
  const origin = headers.get('origin')
  // Browsers name the origin of everything that changes something; programs without one are no sites.
  if (origin !== null && !isOrigin(origin, host))
    return foreign('Another site may not change anything here.')
  return undefined
}

function isOrigin(origin: string, host: string): boolean {
  try {
    return new URL(origin).host === host.toLowerCase()
  } catch {
    return false
  }
}
