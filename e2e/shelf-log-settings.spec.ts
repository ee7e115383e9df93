import { readFileSync } from 'node:fs'
import { expect, kept, test } from './fixtures'

test('a copy is added with its own colours, changed and removed', async ({ page }) => {
  await page.goto('/shelf')
  await page.getByRole('button', { name: 'Add a puzzle' }).click()
  const dialog = page.getByRole('dialog', { name: 'Add a puzzle' })
  await dialog.getByRole('button', { name: 'Put it on the shelf' }).click()
  await expect(dialog.getByRole('alert')).toContainText('name of your own')
  await dialog.getByLabel('Your name for it').fill('Pier cube')
  await dialog.getByLabel('Colour name of the top face').fill('ivory')
  await dialog.getByRole('button', { name: 'Put it on the shelf' }).click()
  const card = page.getByRole('main').getByRole('listitem').filter({ hasText: 'Pier cube' })
  await expect(card).toBeVisible()
  await card.getByRole('button', { name: 'Change Pier cube' }).click()
  const change = page.getByRole('dialog', { name: 'Pier cube' })
  await expect(change.getByLabel('Colour name of the top face')).toHaveValue('ivory')
  await change.getByLabel('Remarks').fill('Squeaks.')
  await change.getByRole('button', { name: 'Keep the changes' }).click()
  await expect(card).toContainText('Squeaks.')
  await card.getByRole('button', { name: 'Change Pier cube' }).click()
  await change.getByRole('button', { name: 'Remove', exact: true }).click()
  await change.getByRole('button', { name: /^Remove it/ }).click()
  await expect(card).toBeHidden()
})

test('the log goes out and comes back; a bad file is refused as a whole', async ({
  page,
  allowed,
}) => {
  allowed.patterns.push(/400/)
  await page.goto('/log')
  const rows = await page.getByRole('row').count()
  for (const kind of ['JSON', 'CSV']) {
    const coming = page.waitForEvent('download')
    await page.getByRole('link', { name: kind }).click()
    const path = await (await coming).path()
    const text = readFileSync(path, 'utf8')
    await page
      .getByLabel('File to import')
      .setInputFiles({ name: `log.${kind}`, mimeType: 'text/plain', buffer: Buffer.from(text) })
    await expect(
      page.getByText('Every solve of the file was in the log already.').first(),
    ).toBeVisible()
    const broken = text.replace('cube-2', 'cube-x')
    await page
      .getByLabel('File to import')
      .setInputFiles({ name: `log.${kind}`, mimeType: 'text/plain', buffer: Buffer.from(broken) })
    await expect(page.getByText(/Line 2, puzzle.*cube-x.*Nothing was imported/)).toBeVisible()
  }
  await page.reload()
  expect(await page.getByRole('row').count()).toBe(rows)
  await page.getByRole('navigation', { name: 'Solver' }).getByRole('link', { name: 'Kelp' }).click()
  await expect(page).toHaveURL(/solver=Kelp/)
  await expect(page.getByRole('row').nth(1)).toContainText('Kelp')
})

test('settings are kept: theme, dialect, marks', async ({ page }) => {
  await page.goto('/settings')
  await kept(page, () => page.getByLabel('Theme').selectOption('daylight'))
  await kept(page, () => page.getByLabel('Write turns as').selectOption('i'))
  await kept(page, () => page.getByLabel('Marks on every sticker').check())
  await kept(page, () => page.getByLabel('A turn takes (milliseconds)').fill('5000'))
  await expect(page.getByRole('main').getByRole('alert')).toContainText('0 to 1000')
  await kept(page, () => page.getByLabel('A turn takes (milliseconds)').fill('60'))
  await expect(page.getByRole('status').filter({ hasText: 'kept' })).toHaveText('kept')
  await page.reload()
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'daylight')
  await expect(page.getByLabel('Marks on every sticker')).toBeChecked()
  await page.goto('/log')
  await page.getByRole('row').nth(1).getByRole('link').click()
  await expect(page.getByRole('list', { name: 'Turns of the solve' })).not.toContainText("'")
  await page.goto('/settings')
  await kept(page, () => page.getByLabel('Theme').selectOption('dusk'))
  await kept(page, () => page.getByLabel('Write turns as').selectOption('prime'))
  await kept(page, () => page.getByLabel('Marks on every sticker').uncheck())
  await expect(page.getByRole('status').filter({ hasText: 'kept' })).toHaveText('kept')
})
