import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { expect, test, toBench } from './fixtures'

/** In both themes; of the second only what can differ: its colours. */
async function expectClean(page: Page, where: string): Promise<void> {
  const html = page.locator('html')
  await expect(html).toHaveAttribute('data-theme', 'dusk')
  const dusk = await new AxeBuilder({ page }).analyze()
  await html.evaluate((root) => (root.dataset.theme = 'daylight'))
  const daylight = await new AxeBuilder({ page }).withRules(['color-contrast']).analyze()
  await html.evaluate((root) => (root.dataset.theme = 'dusk'))
  expect(
    [dusk, daylight].flatMap(({ violations }, i) =>
      violations.map(
        ({ id, nodes }) =>
          `${where}, ${i === 0 ? 'dusk' : 'daylight'}: ${id} ${nodes.map(({ target }) => target.join(' ')).join(', ')}`,
      ),
    ),
  ).toEqual([])
}

test('no violations on any screen, in either theme', async ({ page }) => {
  await page.goto('/settings')
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
})
