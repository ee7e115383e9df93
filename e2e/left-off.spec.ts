import { expect, kept, layOut, test, toFreePlay } from './fixtures'

const OF = 'Reading-room cube'

test('a running bench is never ended unasked: it is left off, stays in the log and is taken up again', async ({
  page,
  context,
  allowed,
}) => {
  allowed.patterns.push(/409/)
  const copy = await toFreePlay(page, "R U R' F", OF)
  const first = page.url()
  await kept(page, () => page.keyboard.press('r'))
  await kept(page, () => page.keyboard.press('u'))
  await expect(page.getByRole('status').filter({ hasText: /^saved$/ })).toBeVisible()

  // Laid out anew in another tab: it asks, and cancelling changes nothing.
  const other = await context.newPage()
  await other.goto(`/lay-out/${copy.id}`)
  await other.getByLabel('Or your own turns').fill('F2 R')
  await other.getByLabel('School').selectOption({ label: 'None: free play' })
  await other.getByRole('button', { name: 'Put it on the bench' }).click()
  const dialog = other.getByRole('dialog')
  await expect(dialog).toContainText('You are two turns in.')
  await dialog.getByRole('button', { name: 'Cancel' }).click()
  await other.getByRole('button', { name: 'Put it on the bench' }).click()
  await dialog.getByRole('button', { name: 'Leave it off and begin anew' }).click()
  await expect(other.getByText('Free play.')).toBeVisible()
  const second = other.url()
  expect(second).not.toBe(first)

  // The first page learns of it with its next turn: it is read only, and says where to go.
  await page.keyboard.press('f')
  const ended = page.getByRole('status', { name: 'Left off' })
  await expect(ended).toContainText('left off')
  await expect(
    page.getByText('One turn could not be kept. This solve had been ended before.'),
  ).toBeVisible()
  await expect(ended.getByRole('link', { name: 'Where it stands now' })).toHaveAttribute(
    'href',
    new URL(second).pathname,
  )
  await page.reload()
  await expect(ended).toBeVisible()
  await page.getByRole('button', { name: 'Let go' }).click()
  await page.reload()
  await expect(ended).toBeVisible()
  await expect(page.getByRole('button', { name: 'Let go' })).toHaveCount(0)

  await page.goto('/log')
  await expect(page.getByRole('heading', { name: 'Left off' })).toBeVisible()
  const left = page.getByRole('listitem').filter({ hasText: copy.name })
  await expect(left).toContainText('two turns')
  await left.getByRole('link').click()
  await expect(ended).toBeVisible()
  await page.getByRole('button', { name: 'Take it up again' }).click()
  await expect(ended).toHaveCount(0)
  await expect(page.locator('canvas[data-ready]')).toBeVisible()
  await expect(page.getByText('Free play.')).toBeVisible()
  await expect(page.getByRole('group', { name: /^Turns: 2 done/ })).toBeVisible()
  await kept(page, () => page.keyboard.press('f'))
  await expect(page.getByRole('group', { name: /^Turns: 3 done/ })).toBeVisible()
})

test('what the server refuses is set apart, and the bench goes on', async ({ page, allowed }) => {
  allowed.patterns.push(/400/)
  await toFreePlay(page, "R U R' F", OF)
  await kept(page, () => page.keyboard.press('r'))
  await expect(page.getByRole('status').filter({ hasText: /^saved$/ })).toBeVisible()
  let refuses = true
  await page.route(/api\/bench\/[0-9a-f-]+$/, (route) =>
    refuses && route.request().method() === 'POST'
      ? route.fulfill({
          status: 400,
          contentType: 'application/json',
          body: JSON.stringify({
            ok: false,
            problem: { code: 'bad-input', sentence: 'entries[0].event.atMs is too late.' },
          }),
        })
      : route.continue(),
  )
  await page.keyboard.press('u')
  const notice = page.getByText(/could not be kept\. entries\[0\]\.event\.atMs is too late/)
  await expect(notice).toBeVisible()
  await expect(page.getByRole('group', { name: /^Turns: 1 done/ })).toBeVisible()
  refuses = false
  await kept(page, () => page.keyboard.press('f'))
  await expect(page.getByRole('status').filter({ hasText: /^saved$/ })).toBeVisible()
  await page.reload()
  await expect(page.getByRole('group', { name: /^Turns: 2 done/ })).toBeVisible()
  await expect(notice).toBeVisible()
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save as a file' }).click()
  expect((await download).suggestedFilename()).toBe('merry-lantern-not-kept.json')
  await page.getByRole('button', { name: 'Let go' }).click()
  await expect(notice).toHaveCount(0)
})

test('the clock stands while it is paused, and a solved bench shows its time again', async ({
  page,
}) => {
  await page.clock.install()
  await toFreePlay(page, 'R', OF)
  const time = page.getByLabel('Time on the bench')
  await page.clock.runFor(65_000)
  await expect(time).toHaveText(/1:0[4-9]/)
  await page.getByRole('button', { name: 'Pause the clock' }).click()
  await page.clock.runFor(1500)
  const paused = await time.innerText()
  await page.clock.runFor(300_000)
  await expect(time).toHaveText(paused)
  // A turn lets it go on.
  await page.keyboard.press('Shift+r')
  await page.clock.runFor(2000)
  await expect(page.getByRole('heading', { name: 'Home' })).toBeVisible()
  await expect(page.getByRole('link', { name: 'See it in the log' })).toBeVisible()
  const shown = await time.innerText()
  expect(shown).toMatch(/^1:0/)
  await page.reload()
  await expect(time).toHaveText(shown)
  await page.getByRole('link', { name: 'See it in the log' }).click()
  await expect(
    page.getByText(shown.replace(/^(\d+:\d\d).*/, '$1'), { exact: false }).first(),
  ).toBeVisible()
})

test('steps are counted on when it is planned again', async ({ page }) => {
  await layOut(page, OF)
  await page.getByLabel('Or your own turns').fill("R U2 F' R2 U F")
  await page.getByLabel('School').selectOption({ label: 'One trigger' })
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  const card = page.getByRole('region', { name: 'Step card' })
  await expect(card).toContainText('Step 1 of')
  for (const step of [2, 3, 4]) {
    await page.getByRole('button', { name: /^Step/ }).click()
    await expect(card).toContainText(`Step ${step} of`)
  }
  await page.keyboard.press('b')
  await expect(page.getByText('Planned again from here')).toBeVisible()
  await expect(card).toContainText(/Step [4-9] of/)
})
