import { expect, stepsUntilHome, test } from './fixtures'

test('a circle cube with other circles locked is led home circle by circle, over a reload', async ({
  page,
}) => {
  await page.goto('/shelf')
  await page.getByRole('button', { name: 'Add a puzzle' }).click()
  const dialog = page.getByRole('dialog', { name: 'Add a puzzle' })
  await dialog.getByLabel('Puzzle', { exact: true }).selectOption('circle-3')
  for (const circle of ['Front', 'Bottom'])
    await dialog.getByRole('checkbox', { name: circle, exact: true }).click()
  await dialog.getByLabel('Your name for it').fill('Scuttle cube')
  await dialog.getByRole('button', { name: 'Put it on the shelf' }).click()
  const card = page.getByRole('main').getByRole('listitem').filter({ hasText: 'Scuttle cube' })
  await card.getByRole('link', { name: /Lay out/ }).click()
  await page.getByLabel('Or your own turns').fill('B R U B')
  await page.getByLabel('School').selectOption({ label: 'Cage' })
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  const step = page.getByRole('region', { name: 'Step card' })
  await expect(
    step.getByText(/^The \w+ side is free: its own turns pass its circle by/),
  ).toBeVisible()
  const next = page.getByRole('button', { name: /^Step/ })
  const locked = step.getByText(/side is locked: its own turns take its circle round/)
  for (let count = 0; count < 12 && !(await locked.isVisible()); count++) await next.click()
  await expect(locked).toBeVisible()
  const look = await step.innerText()
  await page.reload()
  await expect(step).toBeVisible()
  expect(await step.innerText()).toBe(look)
  await stepsUntilHome(page, 40)
  await page.getByRole('link', { name: 'See it in the log' }).click()
  await expect(page.getByText('Cage').first()).toBeVisible()
})
