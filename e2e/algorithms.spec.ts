import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { expect, kept, test, toBench, toFreePlay, untilDrawn } from './fixtures'

const room = async (page: Page, puzzleId: string, screen = '') => {
  await page.goto(`/algorithms/${puzzleId}${screen}`)
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
}
const clean = async (page: Page) => {
  const { violations } = await new AxeBuilder({ page }).analyze()
  expect(violations.map(({ id, nodes }) => `${id} ${nodes.map((n) => n.target).join()}`)).toEqual(
    [],
  )
}

test('a sequence that was heard is mended, kept, found again and played', async ({ page }) => {
  await room(page, 'cube-3', '/repair')
  await page
    .getByLabel('What was heard')
    .fill('right up, top with the right hand, right up, top back')
  await expect(page.getByText("Read as hands: R U R U'")).toBeVisible()
  await page.getByLabel('Where it begins').fill("U R U' R'")
  await page.getByLabel('How it must end').selectOption({ label: 'the puzzle finished' })
  await page.getByRole('button', { name: 'Mend it' }).click()
  await expect(page.getByText('It takes one slip, and there is exactly one reading.')).toBeVisible()
  await expect(page.getByText("Turn 3 is R', not R.")).toBeVisible()
  await clean(page)
  await page.getByRole('link', { name: "R U R' U'" }).click()
  await expect(page.getByRole('heading', { name: "R U R' U'" })).toBeVisible()
  const does = page.getByRole('region', { name: 'What it does here' })
  await expect(does).toContainText('Three edges go round')
  await expect(does).toContainText('Done six times, everything is back')
  await expect(page.getByText('Built as')).toContainText('[R, U]')
  await page.getByLabel('Name').fill('Harbour trigger')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByRole('heading', { name: 'One of yours' })).toBeVisible()
  await clean(page)
  // It stands on the shelf after a reload, is found by its name, and opens with a playing.
  await page.goto('/algorithms/cube-3')
  await expect(page.getByRole('tab', { name: 'Yours (1)' })).toHaveAttribute('data-state', 'active')
  await page.getByLabel('Search these sequences').fill('harbour')
  await page.getByRole('list', { name: 'Sequences' }).getByRole('link').click()
  await page.getByRole('button', { name: 'Turn R', exact: true }).click()
  await expect(page.getByRole('img', { name: /after 1 of 4 turns/ })).toBeVisible()
  await page.getByRole('button', { name: 'Play' }).click()
  await expect(page.getByRole('img', { name: /after 4 of 4 turns/ })).toBeVisible()
  // It goes out as a file.
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page
      .goto('/algorithms/cube-3')
      .then(() => page.getByRole('link', { name: 'As a file' }).click()),
  ])
  expect(download.suggestedFilename()).toBe('algorithms.json')
})

test('the sequence of a card is given a name, and the card calls it so', async ({ page }) => {
  await toBench(page, "R U F' R2 U' F R2 U F2", 'Face first')
  const card = page.getByRole('region', { name: 'Step card' })
  const step = page.getByRole('button', { name: /^Step/ })
  const isCase = card.getByText(/^Case \d of 7\. Not case \d/)
  for (let count = 0; count < 8 && !(await isCase.isVisible()); count++) await step.click()
  await expect(isCase).toBeVisible()
  const bench = page.url()
  await card.locator('summary').first().click()
  await card.getByRole('link', { name: 'Give its sequence a name' }).click()
  await page.getByLabel('Name').fill('Pier swing')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByRole('heading', { name: 'One of yours' })).toBeVisible()
  await page.goto(bench)
  await expect(card.getByText('Pier swing', { exact: true })).toBeVisible()
})

test('found by touching: refused with the reason, then answered with the fewest turns', async ({
  page,
}) => {
  await room(page, 'cube-3', '/find')
  const pick = (label: string) =>
    page.getByLabel('The piece', { exact: true }).selectOption({ label })
  const to = (label: string) => page.getByLabel('It goes to').selectOption({ label })
  await pick('The white-green edge, at the top front edge')
  await to('the top back edge')
  await page.getByRole('button', { name: 'Find', exact: true }).click()
  await expect(page.getByText(/It takes more: any two of the 12 edges exchanged/)).toBeVisible()
  await pick('The white-blue edge, at the top back edge')
  await to('the bottom front edge')
  await expect(page.getByRole('list', { name: 'Wishes' }).getByRole('listitem')).toHaveCount(2)
  await page.getByRole('button', { name: 'Find', exact: true }).click()
  await expect(page.getByText(/the fewest that end in the same hold/)).toBeVisible({
    timeout: 30_000,
  })
  await clean(page)
  // What is wished stands in the address.
  await page.reload()
  await expect(page.getByRole('list', { name: 'Wishes' }).getByRole('listitem')).toHaveCount(2)
  // What leads from one position to another is a wish too.
  await page.getByText('Or the same as a sequence does').click()
  await page.getByLabel('What makes the position before').fill('R U')
  await page.getByLabel('The sequence, or what makes the position after').fill('R')
  await page.getByRole('button', { name: 'Wish what it does' }).click()
  await page.getByRole('button', { name: 'Find', exact: true }).click()
  await expect(page.getByRole('link', { name: "U'", exact: true })).toBeVisible({ timeout: 30_000 })
  // By touching: a piece in the window is picked.
  const windows = page.locator('canvas[data-ready]')
  await windows.click({ position: { x: 150, y: 200 } })
  await expect(page.getByLabel('The piece', { exact: true })).not.toHaveValue('')
})

test('another dialect: the bench, its tape and its buttons speak it', async ({ page }) => {
  await page.goto('/settings')
  await kept(page, () => page.getByLabel('Write turns as').selectOption('hands'))
  await toBench(page, "R U F' R2 U' F", 'Layer by layer')
  await expect(
    page.getByRole('button', { name: /^Next (right|left|top|front|back|bottom|whole)/ }),
  ).toBeVisible()
  await expect(page.getByRole('group', { name: /^Turns: 0 done/ })).toContainText(
    /right up|right down|clockwise|hand/,
  )
  await page.goto('/settings')
  await kept(page, () => page.getByLabel('Write turns as').selectOption('prime'))
})

test('arrows are drawn on the tape and in large type', async ({ page }) => {
  await page.goto('/settings')
  await kept(page, () => page.getByLabel('Write turns as').selectOption('arrows'))
  await toBench(page, "R U R' U'", 'Layer by layer')
  const tape = page.getByRole('group', { name: /^Turns: 0 done/ })
  await expect(tape.locator('use').first()).toBeAttached()
  // Each turn is drawn once, and what is shown is what is drawn.
  const drawn = await tape.locator('symbol').evaluateAll((all) => all.map(({ id }) => `#${id}`))
  expect(new Set(drawn).size).toBe(drawn.length)
  for (const mark of await tape.locator('use').all())
    expect(drawn).toContain(await mark.getAttribute('href'))
  await page.getByRole('button', { name: 'Hands busy: large type' }).click()
  const large = page.getByRole('dialog')
  // The first card may be held only.
  const picture = large.locator('[data-words] svg').first()
  for (let press = 0; press < 4 && !(await picture.isVisible()); press++) {
    await page.keyboard.press('Space')
    await untilDrawn(page)
  }
  await expect(picture).toBeVisible()
})

test('a sequence that was heard for a case is mended by the case alone', async ({ page }) => {
  await page.goto('/algorithms/cube-2/repair')
  await page.getByRole('button', { name: 'Take a case from a list' }).click()
  const list = page.getByLabel('The case that it is for')
  await expect(list.locator('option')).toHaveCount(26)
  const cases = await list.locator('option').allTextContents()
  await list.selectOption({
    label: cases.find((each) => /Orient the last layer.* R' U2 R U R' U R$/.test(each)),
  })
  await expect(page.getByLabel('How it must end')).toHaveValue('case')
  await page.getByLabel('What was heard').fill("R' U2 R U R U R")
  await page.getByRole('button', { name: 'Mend it' }).click()
  const readings = page.getByRole('region', { name: 'Readings' })
  await expect(readings).toContainText('It takes one slip')
  await expect(readings).toContainText("R' U2 R U R' U R")
})

test('a text that can be two things is asked about, and an error points at its place', async ({
  page,
}) => {
  await room(page, 'cube-4')
  const field = page.getByLabel('Try a sequence')
  await field.fill("r U'")
  await page.getByRole('radio', { name: /1-2R U'/ }).check()
  await page.getByRole('button', { name: 'See what it does' }).click()
  await expect(page.getByRole('heading', { name: "1-2R U'" })).toBeVisible()
  // It is asked once a puzzle, and can be said otherwise there or in Settings.
  await room(page, 'cube-4')
  await field.fill("r U'")
  await expect(page.getByRole('radio', { name: /1-2R U'/ })).toBeChecked()
  await expect(page.getByText('On this puzzle small letters mean the outer two')).toBeVisible()
  await page.goto('/settings')
  const means = page.getByLabel('Small letters on 4x4x4')
  await expect(means).toHaveValue('wide')
  await kept(page, () => means.selectOption('inner'))
  await room(page, 'cube-4')
  await field.fill("r U'")
  await expect(page.getByRole('radio', { name: /^2R U'/ })).toBeChecked()
  await field.fill('R Q')
  await expect(page.getByText("'Q' names no layer of this puzzle.")).toBeVisible()
  await expect(page.getByRole('button', { name: 'See what it does' })).toBeDisabled()
})

test('a sequence is tried on the bench before it is taken', async ({ page }) => {
  await toFreePlay(page, "R U R' U'", 'Reading-room cube')
  await page.getByText('Try a sequence here').click()
  await page.getByLabel('The sequence').fill("U R U' R'")
  await expect(page.getByRole('status').filter({ hasText: 'look home' })).toContainText(
    'Then eight of the eight pieces look home',
  )
  await page.getByRole('button', { name: 'Take it' }).click()
  await expect(page.getByRole('link', { name: 'See it in the log' })).toBeVisible()
})

test('at 390 px nothing is cut off, and colours lead the eye where motion is reduced', async ({
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 800 })
  await page.emulateMedia({ reducedMotion: 'reduce' })
  for (const screen of ['', '/find', '/repair', "/sequence?turns=R U R' U'"]) {
    await room(page, 'tilt-3', screen)
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  }
  const read = await page.evaluate(() => {
    const probe = document.createElement('span')
    document.body.append(probe)
    return ['ink', 'amber'].map((name) => {
      probe.style.color = `var(--${name})`
      return getComputedStyle(probe).color
    })
  })
  expect(read[0]).not.toBe(read[1])
})
