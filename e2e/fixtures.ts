/** A page on which any error in the console fails the test, and the steps that tests share. */
import { execFileSync } from 'node:child_process'
import { expect, test as base, type Locator, type Page } from '@playwright/test'
import { SOLVER_COOKIE } from '../src/server/headers'
import { addOwnCopy, newSolver, type OwnCopy, type TestSolver } from './database'
import { TestServer } from './server'

interface Given {
  /** Errors in the console that are none here. */
  readonly allowed: { readonly patterns: RegExp[] }
  /** Who solves in this test: the demo's shelf and log, for this test alone. */
  readonly solver: TestSolver
}

export const test = base.extend<Given, { readonly server: TestServer }>({
  server: [
    async ({}, use, { workerIndex }) => {
      const server = new TestServer(workerIndex)
      await server.start()
      await use(server)
      await server.stop()
    },
    { scope: 'worker' },
  ],
  baseURL: ({ server }, use) => use(server.address),
  allowed: async ({}, use) => use({ patterns: [] }),
  solver: async ({}, use) => use(await newSolver()),
  context: async ({ context, solver, baseURL }, use) => {
    await context.addCookies([{ name: SOLVER_COOKIE, value: solver.id, url: baseURL }])
    await use(context)
  },
  page: async ({ page, allowed }, use) => {
    const errors: string[] = []
    page.on('console', (message) => {
      if (message.type() === 'error') errors.push(`${message.text()} ${message.location().url}`)
    })
    page.on('pageerror', (error) => errors.push(error.message))
    await use(page)
    expect(errors.filter((text) => !allowed.patterns.some((each) => each.test(text)))).toEqual([])
  },
})

/** The id of the solver whom a page has. */
export async function solverOf(page: Page): Promise<string> {
  const kept = await page.context().cookies()
  const cookie = kept.find(({ name }) => name === SOLVER_COOKIE)
  if (!cookie) throw new Error('this page has no solver')
  return cookie.value
}

export { expect }

/** A position that the core works out: see scenes.ts. */
export const sceneOf = <T>(name: string): T =>
  JSON.parse(
    execFileSync('node', ['--import', 'tsx', 'e2e/scenes.ts', name], { encoding: 'utf8' }),
  ) as T

/** Opens Lay out for a copy of this test's own, made after one that stands on the shelf. */
export async function layOut(page: Page, of: string): Promise<OwnCopy> {
  const copy = await addOwnCopy(await solverOf(page), of)
  await page.goto(`/lay-out/${copy.id}`)
  await expect(page.getByRole('heading', { name: `Lay out ${copy.name}` })).toBeVisible()
  return copy
}

/** Types a scramble and puts it on the bench. */
export async function toBench(
  page: Page,
  scramble: string,
  school: string,
  of = 'Reading-room cube',
): Promise<OwnCopy> {
  const copy = await layOut(page, of)
  await page.getByLabel('Or your own turns').fill(scramble)
  await page.getByLabel('School').selectOption({ label: school })
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  await expect(page.getByRole('region', { name: 'Step card' })).toBeVisible()
  // Keys are heard once the page is alive.
  await expect(nextButton(page)).toBeEnabled()
  return copy
}

/** Types a scramble and puts it on the bench with no school. */
export async function toFreePlay(page: Page, scramble: string, of: string): Promise<OwnCopy> {
  const copy = await layOut(page, of)
  await page.getByLabel('Or your own turns').fill(scramble)
  await page.getByLabel('School').selectOption({ label: 'None: free play' })
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  await expect(page.getByText('Free play.')).toBeVisible()
  return copy
}

/** Does something that the page keeps on the server, and waits until it is kept. */
export async function kept(page: Page, act: () => Promise<unknown>): Promise<void> {
  const answer = page.waitForResponse((response) => response.request().method() === 'POST')
  await act()
  await answer
}

/** What the next button would turn, or undefined when the puzzle is home. */
export const nextButton = (page: Page) => page.getByRole('button', { name: /^Next/ })

/** How long a press may take before it is asked again whether the puzzle is home. */
const PATIENCE = { timeout: 15_000 }

/**
 * Presses a key or button until the puzzle is home; fails after too many. A press that comes too late, when
 * the last turn has just put the button out of use, is no fault.
 */
export async function untilHome(
  page: Page,
  act: (patience: { timeout: number }) => Promise<void>,
  most = 150,
): Promise<void> {
  const home = page.getByRole('heading', { name: 'Home' })
  let failures = 0
  for (let count = 0; count < most; count++) {
    if (await home.isVisible()) return
    await act(PATIENCE).catch((error: unknown) => {
      if (++failures > 3) throw error
    })
  }
  await expect(home).toBeVisible()
}

/** Goes on step by step until the puzzle is home, and plans again where the bench asks for it. */
export const stepsUntilHome = (page: Page, most: number): Promise<void> =>
  untilHome(
    page,
    async (patience) => {
      const again = page.getByRole('button', { name: 'Plan again from here' })
      if (await again.isVisible()) return again.click(patience)
      await page.getByRole('button', { name: /^Step/ }).click(patience)
    },
    most,
  )

/** Does something, and waits until what is shown is another text than before. */
export async function untilChanged(shown: Locator, act: () => Promise<void>): Promise<void> {
  const before = await shown.innerText()
  await act()
  await expect.poll(() => shown.innerText()).not.toBe(before)
}

/** Waits until what has happened so far is drawn. */
export const untilDrawn = (page: Page): Promise<void> =>
  page.evaluate(
    () =>
      new Promise<void>((drawn) =>
        requestAnimationFrame(() => requestAnimationFrame(() => drawn())),
      ),
  )
