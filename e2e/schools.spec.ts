import { expect, layOut, test, untilHome } from './fixtures'

test('a tetrahedron is led home in its own school: the vertex named, a colour chosen, into the log', async ({
  page,
}) => {
  await layOut(page, 'Sail')
  await page.getByLabel('Or your own turns').fill("U R' L B u' l R U' B'")
  await page.getByLabel('School').selectOption({ label: 'Face, then the last three' })
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  const card = page.getByRole('region', { name: 'Step card' })
  await expect(card).toContainText('it is turned there')
  await expect(card).toContainText(/One vertex lacks (yellow|blue|red|green)/)
  // Another colour can be begun with, each with its price.
  await page.getByText('Start with another colour').click()
  await expect(page.getByText(/\d+ turns, \d+ right already/)).toHaveCount(4)
  await page.getByRole('button', { name: 'Take it' }).last().click()
  await expect(card).toBeVisible()
  await untilHome(page, () => page.getByRole('button', { name: /^Step/ }).click(), 40)
  await page.getByRole('link', { name: 'See it in the log' }).click()
  await expect(page.getByRole('heading', { name: 'Splits' })).toBeVisible()
  await expect(page.getByText('Last three edges').first()).toBeVisible()
})

test('a 3x3x3 is led home in layers, stage by stage', async ({ page }) => {
  await layOut(page, 'Chart-room cube')
  await page.getByLabel('Or your own turns').fill("R U F' L2 D B R' U2 F D' L")
  await page.getByLabel('School').selectOption({ label: 'Layers' })
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  const card = page.getByRole('region', { name: 'Step card' })
  await expect(card).toContainText(/The edge with|the edge with/)
  for (const stage of ['Cross', 'Middle layer', 'Last corners twisted'])
    await expect(page.getByText(stage, { exact: true }).first()).toBeVisible()
  await untilHome(page, () => page.getByRole('button', { name: /^Step/ }).click(), 60)
})
