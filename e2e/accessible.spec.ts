import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { expect, kept, test, toBench } from './fixtures'

/** Of the second theme only what can differ: its colours. */
async function violationsOf(page: Page): Promise<Results> {
  const builder = new AxeBuilder({ page })
  const theme = await page.locator('html').getAttribute('data-theme')
  return (theme === 'dusk' ? builder : builder.withRules(['color-contrast'])).analyze()
}

type Results = Awaited<ReturnType<AxeBuilder['analyze']>>

async function expectClean(page: Page, where: string): Promise<void> {
  const { violations } = await violationsOf(page)
  expect(
    violations.map(
      ({ id, nodes }) =>
        `${where}: ${id} ${nodes.map(({ target }) => target.join(' ')).join(', ')}`,
    ),
  ).toEqual([])
}

for (const theme of ['dusk', 'daylight'] as const)
  test(`no violations on any screen: ${theme}`, async ({ page }) => {
    await page.goto('/settings')
    if (theme !== 'dusk') await kept(page, () => page.getByLabel('Theme').selectOption(theme))
    await page.goto('/settings')
    await expect(page.locator('html')).toHaveAttribute('data-theme', theme)
    await expectClean(page, 'settings')
    await page.goto('/solvers')
    await expectClean(page, 'solvers')
    await page.getByRole('button', { name: /^Solving as/ }).click()
    await expect(page.getByRole('menu')).toBeVisible()
    await expectClean(page, 'who is solving')
    await page.goto('/shelf')
    await expectClean(page, 'shelf')
    await page.getByRole('button', { name: 'Add a puzzle' }).click()
    await expect(page.getByRole('dialog')).toBeVisible()
    await expectClean(page, 'add a puzzle')
    await page.goto('/schools/tetra-3')
    await expect(page.getByRole('heading', { name: 'Piece by piece' })).toBeVisible()
    await expectClean(page, 'schools')
    for (const screen of ['/find', "/sequence?turns=R U R' U'"]) {
      await page.goto(`/algorithms/tetra-3${screen}`)
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
      await expectClean(page, `algorithms${screen}`)
    }
    await toBench(page, "R U F' R2 U' F", 'Layer by layer')
    await expectClean(page, 'bench')
    await page.getByRole('button', { name: 'Other ways' }).click()
    await expect(page.getByRole('dialog').getByRole('row')).toHaveCount(21, { timeout: 30_000 })
    await expectClean(page, 'other ways')
    await page.goto('/log')
    await expect(page.locator('canvas')).toBeVisible()
    await expectClean(page, 'log')
    await page.getByRole('row').nth(1).getByRole('link').click()
    await expect(page.getByRole('heading', { name: 'Splits' })).toBeVisible()
    await expectClean(page, 'solve')
    await page.goto('/shelf')
    await page.getByRole('link', { name: 'Lay out' }).first().click()
    await page.getByRole('tab', { name: 'Copy its colours' }).click()
    await expectClean(page, 'lay out')
    await page.getByRole('tab', { name: 'Copy it piece by piece' }).click()
    await expectClean(page, 'lay out piece by piece')
    await page.goto('/anatomy')
    await expectClean(page, 'all anatomies')
    await page.goto('/anatomy/prism-6?piece=DFL&turns=R')
    await expect(page.locator('canvas[data-ready]')).toHaveCount(2)
    await expectClean(page, 'anatomy')
    await page.goto('/shelf')
    await page.getByRole('button', { name: 'Care of Pilot-house tower' }).click()
    await expect(page.getByRole('dialog')).toBeVisible()
    await expectClean(page, 'care')
    await page.goto('/settings')
    if (theme !== 'dusk') await kept(page, () => page.getByLabel('Theme').selectOption('dusk'))
  })
