/**
 * Stands before every page, route and action. Who asks under another name, or from another site, gets
 * nothing; every page forbids the browser whatever it does not need.
 */
import { NextResponse, type NextRequest } from 'next/server'
import { fail, type Result } from '@/core/result'
import { decoded } from '@/server/address'
import { foreignProblem } from '@/server/gate'
import { PAGE_HEADER, policyOf } from '@/server/headers'

export function proxy(request: NextRequest): Response {
  const foreign = foreignProblem(request.method, request.headers)
  if (foreign) return refused(request, foreign, 403)
  if (decoded(request.nextUrl.pathname) === undefined)
    return refused(request, fail('bad-input', 'This address cannot be read.'), 400)
  const nonce = Buffer.from(crypto.randomUUID()).toString('base64')
  const policy = policyOf(nonce, process.env.NODE_ENV === 'development')
  // On the request, so that the pages' own scripts get the nonce; on the answer, for the browser.
  const headers = new Headers(request.headers)
  headers.set('x-nonce', nonce)
  headers.set('content-security-policy', policy)
  // So that a page on which nobody is chosen can lead back to itself; nobody else may say it.
  headers.delete(PAGE_HEADER)
  const { pathname, search } = request.nextUrl
  if (!pathname.startsWith('/api/')) headers.set(PAGE_HEADER, pathname + search)
  const response = NextResponse.next({ request: { headers } })
  response.headers.set('content-security-policy', policy)
  return response
}

/** To a program as a result, to a person as a sentence. */
function refused(request: NextRequest, result: Result<never>, status: number): Response {
  if (request.nextUrl.pathname.startsWith('/api/')) return Response.json(result, { status })
  const sentence = result.ok ? '' : result.problem.sentence
  return new Response(`${sentence}\n`, { status, headers: { 'content-type': 'text/plain' } })
}

export const config = {
  // Files that the build has made are the same for everyone.
  matcher: '/((?!_next/static|_next/image|icon.svg|favicon.ico).*)',
}
