import { expect, layOut, stepsUntilHome, test } from './fixtures'

test('a mod is led home piece by piece: path, owed turns, borrowed pieces, home, log', async ({
  page,
}) => {
  await layOut(page, 'Harbour-light prism')
  await page.getByLabel('Or your own turns').fill("R U F' L2 D B")
  await page.getByLabel('School').selectOption({ label: 'Piece by piece' })
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  const card = page.getByRole('region', { name: 'Step card' })
  await expect(card).toBeVisible()
  await expect(card).toContainText('Odd and even come first.')
  // Into the first set-up: what was turned is owed, the latest first.
  const debts = page.getByRole('region', { name: 'Debts' })
  const next = page.getByRole('button', { name: /^Next/ })
  for (let turns = 0; turns < 60; turns++) {
    if (!/Owed\s+Nothing/.test(await debts.innerText())) break
    await next.click()
  }
  expect(await debts.innerText()).toMatch(/Owed\s+[UDFBRL]/)
  await stepsUntilHome(page, 40)
  await page.getByRole('link', { name: 'See it in the log' }).click()
  await expect(page.getByRole('heading', { name: 'Splits' })).toBeVisible()
  await expect(page.getByText('Piece by piece').first()).toBeVisible()
})

test('another third piece is taken for a series, and the way goes on from there', async ({
  page,
}) => {
  await layOut(page, 'Chart-room cube')
  await page.getByLabel('Or your own turns').fill("R U F' L2 D B R' U2")
  await page.getByLabel('School').selectOption({ label: 'Piece by piece' })
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  const card = page.getByRole('region', { name: 'Step card' })
  await expect(card).toBeVisible()
  const choices = card.getByText(/^Or another third piece/)
  for (let step = 0; step < 12 && !(await choices.isVisible()); step++)
    await page.getByRole('button', { name: /^Step/ }).click()
  await choices.click()
  const choice = card.getByRole('listitem').filter({ hasText: 'Take it' }).first()
  const words = await choice.innerText()
  expect(words).toMatch(/arrives?, in \w+ turns/)
  await choice.getByRole('button', { name: 'Take it' }).click()
  const piece = /^(.+?), now/.exec(words)?.[1] ?? ''
  // It is the third line now, by its colours.
  const colours = /[a-z]+(-[a-z]+)+/i.exec(piece)?.[0] ?? ''
  const line = card.getByRole('listitem').filter({ hasText: /^\s*3/ })
  await expect(line).toContainText(new RegExp(colours, 'i'))
})

test('a shorter way is looked for, shown on the card, and leads home', async ({ page }) => {
  await layOut(page, 'Chart-room cube')
  await page.getByLabel('Or your own turns').fill("R U F' L2 D B R' U2")
  await page.getByLabel('School').selectOption({ label: 'Piece by piece' })
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  const shorter = page.getByRole('region', { name: 'A shorter way' })
  await shorter.getByLabel('for').selectOption({ label: '120 seconds' })
  await shorter.getByRole('button', { name: 'Look for a shorter way' }).click()
  // As soon as something better is there, that will do.
  const best = shorter.getByText(/\d+ turns so far/)
  const first = await best.innerText()
  await expect(best).not.toHaveText(first)
  await shorter.getByRole('button', { name: 'Stop' }).click()
  await expect(shorter.getByRole('status')).toHaveText(/\d+ turns from here instead of \d+/)
  const [now, before] = (await shorter.getByRole('status').innerText()).match(/\d+/g) ?? []
  expect(Number(now)).toBeLessThan(Number(before))
  await page.reload()
  await stepsUntilHome(page, 60)
  // Logged before the page goes, so that the next test does not find this bench still open.
  await expect(page.getByRole('link', { name: 'See it in the log' })).toBeVisible()
})
