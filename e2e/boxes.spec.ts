import { expect, layOut, stepsUntilHome, test } from './fixtures'

test('a 3x3x5 is led home in nested boxes: the side owed, a hold changed too early, a twin told', async ({
  page,
}) => {
  await layOut(page, 'Sea-chest box')
  await page.getByLabel('Or your own turns').fill("R2 U F2 D' 2U L2 U2 B2 2D R2 U' F2 2U' D B2")
  await page.getByLabel('School').selectOption({ label: 'Nested boxes' })
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  const card = page.getByRole('region', { name: 'Step card' })
  const debts = page.getByRole('region', { name: 'Debts' })
  const next = page.getByRole('button', { name: /^Next/ })
  await expect(card).toBeVisible()
  const says = card.getByText(/side turns \w+( times)? in all/)
  for (let step = 0; step < 6 && !(await says.isVisible()); step++)
    await page.getByRole('button', { name: /^Step/ }).click()
  await expect(says).toBeVisible()
  // Turn by turn until a half turn of the side is owed.
  const owed = debts.getByText(/^[RLFB]2$/)
  for (let turn = 0; turn < 6 && !(await owed.isVisible()); turn++) await next.click()
  await expect(owed).toBeVisible()
  await page.keyboard.press('y')
  const early = page.getByText(/was turned while [RLFB]2 is owed/)
  await expect(early).toBeVisible()
  await page.getByRole('button', { name: 'Take it back' }).click()
  await expect(early).toBeHidden()
  let twins = 0
  for (let step = 0; step < 14 && twins === 0; step++) {
    twins += await card.getByText(/has a twin, which would show/).count()
    if (twins === 0) await page.getByRole('button', { name: /^Step/ }).click()
  }
  expect(twins).toBe(1)
  await stepsUntilHome(page, 30)
  await page.getByRole('link', { name: 'See it in the log' }).click()
  await expect(page.getByText('Nested boxes').first()).toBeVisible()
})

test('a tower out of shape is a box again by its shape alone, then led home box by box', async ({
  page,
}) => {
  await layOut(page, 'Pilot-house tower')
  await page
    .getByLabel('Or your own turns')
    .fill("R2 U F2 1U D2 B2 1D' R2 U' L2 1U2 F2 D R U' F R2 D B' L F2")
  await page.getByLabel('School').selectOption({ label: 'Shape first' })
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  const card = page.getByRole('region', { name: 'Step card' })
  await expect(card).toContainText('Shape first: colours can wait.')
  const lit = page.getByRole('listitem').filter({ hasText: 'Shape' })
  await expect(lit).not.toContainText('done')
  // Piece by piece: how many stand out is said at each step.
  await expect(card).toContainText(/stands? out of the finished shape/)
  await expect(async () => {
    if (!(await lit.textContent())?.includes('done'))
      await page.getByRole('button', { name: /^Step/ }).click()
    await expect(lit).toContainText('done', { timeout: 1500 })
  }).toPass()
  await stepsUntilHome(page, 40)
  await page.getByRole('link', { name: 'See it in the log' }).click()
  await expect(page.getByText('Shape first').first()).toBeVisible()
})
