import { expect, layOut, sceneOf, test } from './fixtures'

test('anatomy of a mod: kinds, a touched piece, its kin, all by keyboard; the address keeps it', async ({
  page,
}) => {
  await page.goto('/anatomy')
  await page.getByRole('link', { name: /hexagonal prism/ }).click()
  await expect(page.getByRole('heading', { name: '3x3x3 in a hexagonal prism' })).toBeVisible()
  const kinds = page.getByRole('region', { name: 'Kinds of pieces' })
  await expect(kinds.getByRole('listitem')).toHaveCount(5)
  await kinds.getByRole('button', { name: /edges \(trapezium\)/ }).focus()
  await page.keyboard.press('Enter')
  const card = page.getByRole('status', { name: 'The touched piece' })
  await expect(card).toContainText('It can reach 12 places')
  await expect(card).toContainText('It looks exactly like what belongs to')
  await expect(page.locator('canvas[data-ready]')).toHaveCount(2)
  await expect(page.getByRole('img', { name: /Its kin/ })).toBeVisible()
  await page.getByRole('button', { name: 'R', exact: true }).click()
  await expect(page).toHaveURL(/turns=R/)
  await page.keyboard.press('Shift+u')
  await expect(page).toHaveURL(/turns=R\+U%27/)
  await page.reload()
  await expect(page.getByRole('region', { name: 'How it stands now' })).toContainText(
    'not fit by shape',
  )
  await expect(card).toContainText('DL')
  await page.getByRole('slider', { name: 'Apart' }).focus()
  await page.keyboard.press('End')
  await page.getByRole('button', { name: 'Put together' }).click()
  await expect(page).not.toHaveURL(/turns/)
  await expect(page.getByRole('region', { name: 'How many states' })).toContainText(
    'million million million',
  )
})

test('a setting of the circles is a puzzle of its own, and its states are counted on demand', async ({
  page,
}) => {
  await page.goto('/anatomy/circle-3')
  await page.getByRole('button', { name: 'Front circle locked' }).click()
  await expect(page).toHaveURL(/circle-3--down-back/)
  await expect(page.getByRole('heading', { level: 1 })).toContainText('bottom and back locked')
  await page.getByRole('button', { name: 'Count them' }).click()
  const told = page.getByText('that look different', { exact: true })
  await expect(told).toBeVisible({ timeout: 60_000 })
  await page.reload()
  await expect(told).toBeVisible()
})

test('a blocked turn is refused with its reason, and nothing moves', async ({ page }) => {
  await page.goto('/anatomy/shift-3x3x5?turns=R')
  await expect(page.locator('canvas[data-ready]')).toBeVisible()
  await page.keyboard.press('1')
  await page.keyboard.press('u')
  await expect(page.getByRole('alert').filter({ hasText: '1U is blocked' })).toContainText(
    'that layer is not complete',
  )
  await expect(page).toHaveURL(/turns=R$/)
  await page.getByRole('button', { name: 'Back' }).click()
  await page.getByRole('button', { name: '1U', exact: true }).click()
  await expect(page).toHaveURL(/turns=1U/)
})

test('a shape-shifted state is laid out piece by piece, kept on reload, and put on the bench', async ({
  page,
}) => {
  await layOut(page, 'Pilot-house tower')
  await page.getByRole('tab', { name: 'Copy it piece by piece' }).click()
  await expect(page).toHaveURL(/way=pieces/)
  const asked = page.getByText('What lies at the ringed place')
  const choices = page.getByRole('list', { name: 'What can lie there' }).getByRole('button')
  const right = sceneOf<number[]>('copied tower')
  for (const at of right.slice(0, 6)) {
    await expect(asked).toBeVisible()
    await choices.nth(at).click()
  }
  const before = await page.getByText(/^\d+ of 74$/).innerText()
  await page.reload()
  await expect(page.getByText(before)).toBeVisible()
  for (const at of right.slice(6)) await choices.nth(at).click()
  await expect(page.getByText('Nothing is wrong: turns lead home from here.')).toBeVisible()
  await page.getByLabel('School').selectOption({ label: 'None: free play' })
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  await expect(page).toHaveURL(/bench/)
  await expect(page.getByText('Free play')).toBeVisible()
  // Out of shape, so a cap is held; the bench says so and stays as it is.
  const locked = page.getByRole('button', { name: /^1[UD], blocked$/ }).first()
  await locked.click()
  await expect(page.getByRole('alert').filter({ hasText: 'is blocked' })).toBeVisible()
  await expect(page.getByText('0 turns')).toBeVisible()
})

test('care is written down with its day; equal pieces are told', async ({ page }) => {
  await page.goto('/shelf')
  await page.getByRole('button', { name: 'Care of Harbour-light prism' }).click()
  const sheet = page.getByRole('dialog', { name: 'Care of Harbour-light prism' })
  await expect(sheet).toContainText('Equal pieces may go back in each other’s places.')
  await sheet.getByLabel('Day').fill('2199-01-01')
  await sheet.getByRole('button', { name: 'Write it down' }).click()
  await expect(sheet.getByRole('alert')).toContainText('future')
  await sheet.getByLabel('What').selectOption({ label: 'Stickers' })
  await sheet.getByLabel('Day').fill('2026-11-20')
  await sheet.getByLabel('Note').fill('A new grey side.')
  await sheet.getByRole('button', { name: 'Write it down' }).click()
  await expect(sheet.getByRole('list', { name: 'Entries' })).toContainText('A new grey side.')
  await sheet.getByRole('button', { name: 'Remove the entry of 2026-11-20' }).click()
  await expect(sheet.getByText('Nothing is written down yet.')).toBeVisible()
})

test('a mod is added with colours of its own and shows them in its anatomy', async ({ page }) => {
  await page.goto('/shelf')
  await page.getByRole('button', { name: 'Add a puzzle' }).click()
  const dialog = page.getByRole('dialog', { name: 'Add a puzzle' })
  await dialog.getByLabel('Puzzle').selectOption({ label: '3x3x3 in a tilted cube' })
  await dialog.getByLabel('Your name for it').fill('Capstan')
  await dialog
    .getByLabel(/Colour name of the .* face/)
    .first()
    .fill('chalk')
  await dialog.getByRole('button', { name: 'Put it on the shelf' }).click()
  const card = page.getByRole('main').getByRole('listitem').filter({ hasText: 'Capstan' })
  await card.getByRole('link', { name: 'Anatomy' }).click()
  await expect(page.getByRole('heading', { name: 'Capstan' })).toBeVisible()
  const kinds = page.getByRole('region', { name: 'Kinds of pieces' })
  for (const name of [/corners with three faces/, /^ *6 *centres/, /edges with two faces/])
    await kinds.getByRole('button', { name }).click()
  await expect(page.getByRole('status', { name: 'The touched piece' })).toContainText('chalk')
})
