import { expect, nextButton, test, toBench, untilDrawn, untilHome } from './fixtures'

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true })

test('by touch at 390 px: nothing is cut off, and taps lead home', async ({ page }) => {
  await toBench(page, "R U2 F' R2 U", 'One trigger')
  const fits = () =>
    page.evaluate(
      () => document.documentElement.scrollWidth <= document.documentElement.clientWidth,
    )
  expect(await fits()).toBe(true)
  await untilHome(page, (patience) => nextButton(page).tap(patience))
  await page.getByRole('link', { name: 'See it in the log' }).tap()
  await expect(page.getByRole('heading', { name: 'Splits' })).toBeVisible()
  expect(await fits()).toBe(true)
  const screens = ['/shelf', '/schools', '/schools/tetra-3', '/log', '/settings', '/solvers']
  for (const address of screens) {
    await page.goto(address)
    expect(await fits(), address).toBe(true)
  }
})

test('hands busy: a tap anywhere goes on', async ({ page }) => {
  await toBench(page, "F2 U R' U F", 'One trigger')
  await page.getByRole('button', { name: 'Hands busy: large type' }).tap()
  const dialog = page.getByRole('dialog')
  const words = dialog.locator('[data-words]')
  await expect(dialog).toContainText('Step 1 of')
  for (let taps = 0; taps < 200; taps++) {
    if (await dialog.getByText('Home.').isVisible()) break
    await words.tap()
    await untilDrawn(page)
  }
  await expect(dialog.getByText('Home.')).toBeVisible()
})
