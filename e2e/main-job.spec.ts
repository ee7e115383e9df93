import { expect, layOut, nextButton, test, toBench, untilDrawn, untilHome } from './fixtures'

test('by mouse: a drawn scramble is led home and found in the log', async ({ page, solver }) => {
  await layOut(page, 'Window-seat cube')
  await page.getByRole('button', { name: 'Give me a scramble' }).click()
  await expect(page.getByText(/seed \d+/)).toBeVisible({ timeout: 30_000 })
  const scramble = await page.getByLabel('Or your own turns').inputValue()
  expect(scramble.split(' ').length).toBeGreaterThanOrEqual(9)
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  await expect(page.getByRole('region', { name: 'Step card' })).toContainText('Look for')
  // The colours of this copy are its own.
  await expect(page.getByRole('region', { name: 'Step card' })).toContainText(
    /sand|teal|brick|navy|plum|lime/,
  )
  await untilHome(page, (patience) => nextButton(page).click(patience))
  await page.getByRole('link', { name: 'See it in the log' }).click()
  await expect(page.getByRole('heading', { name: 'Splits' })).toBeVisible()
  await expect(page.getByText(`${solver.nickname} · One trigger`)).toBeVisible()
  await expect(page.getByText(scramble, { exact: true })).toBeVisible()
  await page.getByRole('button', { name: /^Turn / }).click()
  await expect(page.getByText(/^1 of \d+$/)).toBeVisible()
  await page.goto('/log')
  await expect(page.getByRole('row').nth(1)).toContainText(solver.nickname)
})

test('by keyboard alone: typed scramble, school, solve, log', async ({ page }) => {
  await page.goto('/shelf')
  const reach = async (name: RegExp) => {
    for (let tabs = 0; tabs < 60; tabs++) {
      await page.keyboard.press('Tab')
      const words = await page.evaluate(() => {
        const now = document.activeElement
        const label = now?.id ? document.querySelector(`label[for="${now.id}"]`)?.textContent : ''
        const own = now?.matches('a, button') ? now.textContent : ''
        return `${now?.getAttribute('aria-label') ?? ''} ${label ?? ''} ${own ?? ''}`
      })
      if (name.test(words)) return
    }
    throw new Error(`the keyboard does not reach ${name}`)
  }
  await reach(/^\s*Lay out$/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: /^Lay out/ })).toBeVisible()
  await reach(/Or your own turns/)
  await page.keyboard.type("R U F2 R' U2 F")
  await reach(/^\s*School/)
  await page.keyboard.type('Layer')
  await reach(/Put it on the bench/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('region', { name: 'Step card' })).toBeVisible()
  await expect(page.getByText('Layer by layer').first()).toBeVisible()
  await untilHome(page, async () => {
    await page.keyboard.press('Enter')
    await untilDrawn(page)
  })
  // The link comes when the server has replayed and logged the solve.
  await expect(page.getByRole('link', { name: 'See it in the log' })).toBeVisible()
  await reach(/See it in the log/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Splits' })).toBeVisible()
})

test('keys: hints grow, letters turn, a slip is told and taken back', async ({ page }) => {
  await toBench(page, "R U R' U2 F R2", 'Layer by layer')
  const card = page.getByRole('region', { name: 'Step card' })
  await page.getByLabel('Show').selectOption({ label: 'a nudge' })
  await expect(card).not.toContainText('Hold')
  await page.locator('h1').click()
  await page.keyboard.press('h')
  await expect(card).toContainText(/\w+-\w+-\w+ corner/)
  await page.keyboard.press('h')
  await page.keyboard.press('h')
  await expect(card).toContainText('Check')
  await page.keyboard.press('Enter')
  const expected = (await nextButton(page).innerText()).split(/\s/)[1]
  await page.keyboard.press(expected?.startsWith('B') ? 'd' : 'b')
  await expect(page.getByText(/You turned|is the right turn|inside run/)).toBeVisible()
  await page.getByRole('button', { name: 'Take it back' }).click()
  await expect(page.getByText(/You turned/)).toBeHidden()
  await expect(nextButton(page)).toContainText(expected ?? '')
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog', { name: 'Keys of the bench' })).toBeVisible()
})

test('a slip is still told after a reload, with the ways back', async ({ page }) => {
  await toBench(page, "R U R' U' R U R' U'", 'One trigger')
  await page.getByRole('button', { name: /^Step/ }).click()
  // In the middle of a run.
  await nextButton(page).click()
  await expect(nextButton(page)).toHaveText(/^Next D/)
  await page.keyboard.press('b')
  const slip = page.getByText('B was turned instead of D inside run 1 of 2')
  await expect(slip).toBeVisible()
  await expect(page.getByText('saved', { exact: true })).toBeVisible()
  await page.reload()
  await expect(slip).toBeVisible()
  await expect(page.getByRole('button', { name: 'Plan again from here' })).toBeVisible()
  await page.getByRole('button', { name: 'Take it back' }).click()
  await expect(slip).toBeHidden()
  await expect(nextButton(page)).toHaveText(/^Next D/)
})

test('a layer is turned by dragging it', async ({ page }) => {
  await toBench(page, 'R U', 'Shortest')
  const canvas = page.locator('canvas[data-ready]')
  await expect(canvas).toBeVisible()
  const before = await page.getByRole('group', { name: /^Turns:/ }).getAttribute('aria-label')
  const box = await canvas.boundingBox()
  if (!box) throw new Error('no canvas')
  // On the front face of the near window, right half, upward: the right layer clockwise.
  const x = box.x + box.width * 0.25
  const y = box.y + box.height * 0.55
  await page.mouse.move(x - 20, y)
  await page.mouse.down()
  await page.mouse.move(x - 20, y - 30, { steps: 4 })
  await page.mouse.up()
  await expect(page.getByRole('group', { name: /^Turns: 1 done/ })).toBeVisible()
  expect(before).toMatch(/^Turns: 0 done/)
})

test('a reload in mid-solve loses nothing', async ({ page }) => {
  await toBench(page, "F R2 U' F2 R U", 'One trigger')
  for (let i = 0; i < 4; i++) {
    await nextButton(page).click()
    await expect(page.getByRole('group', { name: `Turns: ${i + 1} done` })).toBeVisible()
  }
  const turns = page.getByRole('group', { name: /^Turns:/ })
  const before = await turns.getAttribute('aria-label')
  const card = await page.getByRole('region', { name: 'Step card' }).innerText()
  await page.reload()
  await expect(turns).toHaveAttribute('aria-label', before ?? '')
  expect(await page.getByRole('region', { name: 'Step card' }).innerText()).toBe(card)
})

test('a restart of the server in mid-solve loses nothing', async ({ page, server, allowed }) => {
  allowed.patterns.push(/Failed to fetch|ERR_CONNECTION_REFUSED|network/i)
  await toBench(page, "U F' R2 U F R'", 'Face first')
  await nextButton(page).click()
  await expect(page.getByText('saved', { exact: true })).toBeVisible()
  await server.stop()
  // Turns made while nobody listens are kept in the browser.
  await nextButton(page).click()
  await nextButton(page).click()
  await expect(page.getByText('2 not saved yet')).toBeVisible()
  await expect(page.getByText(/Go on turning: this browser keeps it/)).toBeVisible()
  await server.start()
  await expect(page.getByText('saved', { exact: true })).toBeVisible({ timeout: 30_000 })
  const turns = page.getByRole('group', { name: /^Turns:/ })
  const before = await turns.getAttribute('aria-label')
  await page.reload()
  await expect(turns).toHaveAttribute('aria-label', before ?? '')
  await untilHome(page, (patience) => nextButton(page).click(patience))
  await expect(page.getByRole('link', { name: 'See it in the log' })).toBeVisible()
})

test('other ways are compared for the very position, and taken', async ({ page }) => {
  await toBench(page, "R2 U F' R U2 F R'", 'One trigger')
  await page.getByRole('button', { name: 'Other ways' }).click()
  const dialog = page.getByRole('dialog', { name: 'Ways home from here' })
  await expect(dialog.getByRole('row')).toHaveCount(21, { timeout: 30_000 })
  await expect(dialog.getByRole('row').nth(1)).toContainText('Shortest')
  await dialog.getByRole('button', { name: 'Take Face first' }).click()
  await expect(page.getByText('Face first').first()).toBeVisible()
  await expect(page.getByRole('list', { name: 'Stages' })).toContainText('Permute both layers')
})

test('an address without a puzzle says so', async ({ page, allowed }) => {
  allowed.patterns.push(/404/)
  for (const address of [
    '/bench/nothing',
    '/log/00000000-0000-4000-8000-000000000000',
    '/lay-out/x',
  ]) {
    await page.goto(address)
    await expect(page.getByRole('heading', { name: 'Nothing stands here' })).toBeVisible()
  }
})
