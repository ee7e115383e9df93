import { readFileSync } from 'node:fs'
import { expect, kept, test, toBench } from './fixtures'

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
    const field = page.getByLabel('File to import')
    await field.setInputFiles({
      name: `log.${kind}`,
      mimeType: 'text/plain',
      buffer: Buffer.from(text),
    })
    // One file after another.
    await expect(field).toBeEnabled()
    await expect(
      page.getByText('Every solve of the file was in the log already.').first(),
    ).toBeVisible()
    // The newest solve stands on line 2, whichever puzzle an earlier test logged it for.
    const [head = '', newest = '', ...rest] = text.split('\n')
    const wrong =
      kind === 'JSON'
        ? newest.replace(/"puzzle":"[^"]+"/, '"puzzle":"cube-x"')
        : newest.replace(/^[^,]+/, 'cube-x')
    const broken = [head, wrong, ...rest].join('\n')
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

test('a theme as the device has it goes along when the device changes', async ({ page }) => {
  await page.goto('/settings')
  await kept(page, () => page.getByLabel('Theme').selectOption('system'))
  await page.reload()
  const ground = () => page.evaluate(() => getComputedStyle(document.body).backgroundColor)
  await page.emulateMedia({ colorScheme: 'light' })
  await expect.poll(ground).toBe('rgb(239, 231, 214)')
  await page.emulateMedia({ colorScheme: 'dark' })
  await expect.poll(ground).toBe('rgb(14, 19, 30)')
})

test('settings are kept: theme, dialect, marks', async ({ page }) => {
  await page.goto('/settings')
  await kept(page, () => page.getByLabel('Theme').selectOption('daylight'))
  await kept(page, () => page.getByLabel('Write turns as').selectOption('i'))
  await kept(page, () => page.getByLabel('Marks on every sticker').check())
  await kept(page, () => page.getByLabel('A turn takes (milliseconds)').fill('5000'))
  await expect(page.getByRole('main').getByRole('alert')).toContainText('0 to 1000')
  await kept(page, () => page.getByLabel('A turn takes (milliseconds)').fill('60'))
  await expect(page.getByRole('status').filter({ hasText: 'saved' })).toHaveText('saved')
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
  await expect(page.getByRole('status').filter({ hasText: 'saved' })).toHaveText('saved')
})

test('a key is changed, a taken one is refused, and the bench shows and obeys it', async ({
  page,
}) => {
  await page.goto('/settings')
  await page.getByRole('button', { name: 'Swap the windows: V' }).click()
  await page.keyboard.press('h')
  await expect(page.getByText('H is taken: a stronger hint.')).toBeVisible()
  await kept(page, () => page.keyboard.press('j'))
  await expect(page.getByRole('button', { name: 'Swap the windows: J' })).toBeVisible()
  await page.getByRole('button', { name: 'Hands busy: large type: K' }).click()
  await kept(page, () => page.keyboard.press('0'))
  // A bench of its own: what an earlier test left open may be home already.
  await toBench(page, "R U F'", 'Layer by layer')
  await page.keyboard.press('0')
  await expect(page.getByRole('dialog', { name: /^Step \d+ of/ })).toBeVisible()
  await page.keyboard.press('Escape')
  await page.goto('/settings')
  await kept(page, () => page.getByRole('button', { name: 'The keys it came with' }).click())
  await expect(page.getByRole('button', { name: 'Swap the windows: V' })).toBeVisible()
})

test('Ctrl+K goes to a screen, a puzzle or a solve by keyboard alone', async ({ page }) => {
  await page.goto('/settings')
  await page.keyboard.press('Control+k')
  const wanted = page.getByRole('combobox', { name: 'A screen, a puzzle or a solve' })
  await wanted.fill('lay reading')
  await expect(page.getByRole('option')).toHaveCount(1)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Lay out Reading-room cube' })).toBeVisible()
  await page.keyboard.press('Control+k')
  await wanted.fill('no such place')
  await expect(page.getByText('Nothing is called that.')).toBeVisible()
  await wanted.fill('log')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/\/log\/.+/)
})
