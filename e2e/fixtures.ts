/** A page on which any error in the console fails the test, and the steps that tests share. */
import { execFileSync } from 'node:child_process'
import { expect, test as base, type Page } from '@playwright/test'

export const test = base.extend<{ allowed: { patterns: RegExp[] } }>({
  allowed: async ({}, use) => use({ patterns: [] }),
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

export { expect }

/** A position that the core works out: see scenes.ts. */
export const sceneOf = <T>(name: string): T =>
  JSON.parse(
    execFileSync('node', ['--import', 'tsx', 'e2e/scenes.ts', name], { encoding: 'utf8' }),
  ) as T

/** Opens Lay out for a copy of the demo. */
export async function layOut(page: Page, name: string): Promise<void> {
  await page.goto('/shelf')
  await page
    .getByRole('listitem')
    .filter({ hasText: name })
    // The card itself, not the shelf that it stands on.
    .last()
    .getByRole('link', { name: 'Lay out' })
    .click()
  await expect(page.getByRole('heading', { name: `Lay out ${name}` })).toBeVisible()
}

/** Types a scramble and puts it on the bench. */
export async function toBench(
  page: Page,
  scramble: string,
  school: string,
  copy = 'Reading-room cube',
) {
  await layOut(page, copy)
  await page.getByLabel('Or your own turns').fill(scramble)
  await page.getByLabel('School').selectOption({ label: school })
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  await expect(page.getByRole('region', { name: 'Step card' })).toBeVisible()
}

/** Does something that the page keeps on the server, and waits until it is kept. */
export async function kept(page: Page, act: () => Promise<unknown>): Promise<void> {
  const answer = page.waitForResponse((response) => response.request().method() === 'POST')
  await act()
  await answer
}

/** What the next button would turn, or undefined when the puzzle is home. */
export const nextButton = (page: Page) => page.getByRole('button', { name: /^Next/ })

/** Presses a key or button until the puzzle is home; fails after too many. */
export async function untilHome(page: Page, act: () => Promise<void>, most = 150): Promise<void> {
  const home = page.getByRole('heading', { name: 'Home' })
  for (let count = 0; count < most; count++) {
    if (await home.isVisible()) return
    await act()
  }
  await expect(home).toBeVisible()
}
