/** Who sits before the browser that asks. No password: whoever uses this machine may be any of its solvers. */
import { cookies, headers } from 'next/headers'
import { redirect } from 'next/navigation'
import { PAGE_HEADER, SOLVER_COOKIE } from './headers'
import { askAnew, type Profile } from './asking'
import { NobodyChosen } from './failure'
import { whoAsks } from './profiles'

/** As long as browsers keep one. */
const SECONDS = 400 * 24 * 3600

/** Undefined if someone has to be chosen first. */
export async function solverHere(): Promise<Profile | undefined> {
  return whoAsks((await cookies()).get(SOLVER_COOKIE)?.value)
}

/**
 * The id of the solver who asks. Every page, route and action begins with it. A page on which nobody is chosen
 * yet leads to the choice and back.
 *
 * @throws NobodyChosen where no page is asked for
 */
export async function solverId(): Promise<string> {
  const solver = await solverHere()
  if (solver) return solver.id
  const page = (await headers()).get(PAGE_HEADER)
  if (page === null) throw new NobodyChosen('nobody is chosen')
  redirect(`/solvers?then=${encodeURIComponent(page)}`)
}

/** From now on this browser asks for this solver. */
export async function rememberSolver(id: string): Promise<void> {
  const kept = await cookies()
  askAnew()
  kept.set(SOLVER_COOKIE, id, { path: '/', maxAge: SECONDS, httpOnly: true, sameSite: 'lax' })
}
