import { expect, layOut, stepsUntilHome, test } from './fixtures'

test('a 4x4x4 is reduced and played as a cube of three layers, a hold changed too early told', async ({
  page,
}) => {
  await layOut(page, 'Lock-keeper cube')
  await page
    .getByLabel('Or your own turns')
    .fill("U 2R F2 L' 2D B R2 2F U' L 2U2 D B2 2L R' F 2B D' L2 2R U R 2D F'")
  await page.getByLabel('School').selectOption({ label: 'Reduction' })
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  const card = page.getByRole('region', { name: 'Step card' })
  const debts = page.getByRole('region', { name: 'Debts' })
  const step = page.getByRole('button', { name: /^Step/ })
  const pair = card.getByText(/^The edges with .* are the .* and the .*\.$/).first()
  await expect(card).toBeVisible()
  for (let count = 0; count < 20 && !(await pair.isVisible()); count++) await step.click()
  await expect(pair).toBeVisible()
  // A slice stands open.
  const owed = debts.getByText(/^2[UDFBRL]['2]?$/)
  const next = page.getByRole('button', { name: /^Next/ })
  for (let turn = 0; turn < 8 && !(await owed.isVisible()); turn++) await next.click()
  await expect(owed).toBeVisible()
  await page.keyboard.press('y')
  const early = page.getByText(/was turned while .* is owed/)
  await expect(early).toBeVisible()
  await page.getByRole('button', { name: 'Take it back' }).click()
  await expect(early).toBeHidden()
  const joined = card.getByText(/edges that are joined count as one edge/)
  for (let count = 0; count < 20 && !(await joined.isVisible()); count++) await step.click()
  await expect(joined).toBeVisible()
  await page.getByRole('button', { name: 'The smaller puzzle beside it' }).click()
  const smaller = page.getByRole('figure', { name: 'The smaller puzzle' })
  await expect(smaller.getByRole('img')).toHaveAccessibleName(/[1-9]\d* of its pieces lit/)
  await stepsUntilHome(page, 60)
  await page.getByRole('link', { name: 'See it in the log' }).click()
  await expect(page.getByText('Reduction').first()).toBeVisible()
})

test('a bipyramid over four layers is reduced, every centre to its own place, to the stage of three layers', async ({
  page,
}) => {
  await layOut(page, 'Mooring buoy')
  await page.getByLabel('Or your own turns').fill("R 2U F' 2L2 D B 2R' U2 L 2F D' R2")
  await page.getByLabel('School').selectOption({ label: 'Reduction' })
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  const card = page.getByRole('region', { name: 'Step card' })
  await expect(card).toBeVisible()
  const joined = card.getByText(/edges that are joined count as one edge/)
  for (let count = 0; count < 40 && !(await joined.isVisible()); count++)
    await page.getByRole('button', { name: /^Step/ }).click()
  await expect(joined).toBeVisible()
  const pairs = page.getByRole('listitem').filter({ hasText: 'Edges in pairs' })
  await expect(pairs).toContainText('done')
  // Nothing is lost on reload: neither the position nor what is played as what.
  const look = await card.innerText()
  await page.reload()
  await expect(card).toBeVisible()
  expect(await card.innerText()).toBe(look)
  await stepsUntilHome(page, 60)
})
