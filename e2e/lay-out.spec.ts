import type { Page } from '@playwright/test'
import { expect, layOut, sceneOf, test, toFreePlay } from './fixtures'

const FACES: Record<string, string> = {
  U: 'white',
  D: 'yellow',
  R: 'red',
  L: 'orange',
  B: 'blue',
  F: 'green',
}
const NUMBERS = ['white', 'yellow', 'red', 'orange', 'blue', 'green']

/** What a sticker shows after a clockwise turn of the top: side colours of the top layer go round. */
function afterTop(id: string): string {
  const [place, side] = id.split(':')
  const from: Record<string, string> = { F: 'R', L: 'F', B: 'L', R: 'B' }
  return FACES[place.startsWith('U') && side !== 'U' ? from[side] : side]
}

async function mark(page: Page, colourOf: (id: string) => string): Promise<void> {
  const ids = await page
    .locator('[data-sticker]')
    .evaluateAll((all) => all.map((each) => each.getAttribute('data-sticker') ?? ''))
  expect(ids).toHaveLength(24)
  for (const id of ids) {
    await page.locator(`[data-sticker="${id}"]`).focus()
    await page.keyboard.press(`${NUMBERS.indexOf(colourOf(id)) + 1}`)
  }
}

test('by colours: judged while typed, then led home', async ({ page }) => {
  await layOut(page, 'Reading-room cube')
  await page.getByRole('tab', { name: 'Copy its colours' }).click()
  await expect(page).toHaveURL(/way=colours/)
  await expect(page.getByText('24 stickers are still to mark.')).toBeVisible()
  await mark(page, afterTop)
  await expect(page.getByText('This is a state of your puzzle.')).toBeVisible()
  await page.getByLabel('School').selectOption({ label: 'Shortest' })
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  await expect(page.getByRole('region', { name: 'Step card' })).toContainText('One turn')
})

test('by colours: a tetrahedron is copied sticker by sticker, and taken to the bench', async ({
  page,
}) => {
  await layOut(page, 'Sail')
  await page.getByRole('tab', { name: 'Copy its colours' }).click()
  await expect(page.getByText('36 stickers are still to mark.')).toBeVisible()
  for (const [id, number] of sceneOf<[string, number][]>('tetrahedron by colours')) {
    await page.locator(`[data-sticker="${id}"]`).focus()
    await page.keyboard.press(`${number}`)
  }
  await expect(page.getByText('This is a state of your puzzle.')).toBeVisible()
  await page.getByLabel('School').selectOption({ label: 'Face, then the last three' })
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  await expect(page.getByRole('region', { name: 'Step card' })).toBeVisible()
})

test('by colours: a twisted corner is found, with the way to mend it', async ({ page }) => {
  await layOut(page, 'Reading-room cube')
  await page.getByRole('tab', { name: 'Copy its colours' }).click()
  const twist: Record<string, string> = { 'UFR:R': 'white', 'UFR:F': 'red', 'UFR:U': 'green' }
  await mark(page, (id) => twist[id] ?? FACES[id.split(':')[1]])
  await expect(
    page.getByText(/cannot happen on this puzzle by turning.*a third anticlockwise by hand/),
  ).toBeVisible()
  await expect(page.getByRole('button', { name: 'Put it on the bench' })).toBeDisabled()
  const why = page.getByRole('status', { name: 'Why not' })
  await expect(why).toContainText('What is marked cannot be')
  // One sticker by mouse: the wrong colour is told at once, undo brings the verdict back.
  await page.getByRole('button', { name: /^white/ }).click()
  await page.locator('[data-sticker="DBL:D"]').click()
  await expect(page.getByText(/There are 5 white stickers/)).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByText(/a third anticlockwise by hand/)).toBeVisible()
})

test('piece by piece: colours narrow the choice, and what cannot be is said at once', async ({
  page,
}) => {
  await layOut(page, 'Chart-room cube')
  await page.getByRole('tab', { name: 'Copy it piece by piece' }).click()
  const offered = page.getByRole('list', { name: 'What can lie there' })
  const doubt = page.getByText(/^As entered, the corners cannot be/)
  const seen = page.getByRole('group', { name: 'Colours seen there' })
  await expect(offered.getByRole('button', { name: /yellow/ })).not.toHaveCount(0)
  await seen.getByRole('button', { name: 'white' }).click()
  await seen.getByRole('button', { name: 'red' }).click()
  for (const button of await offered.getByRole('button').all())
    await expect(button).toHaveAccessibleName(/white.*red|red.*white/)
  await seen.getByRole('button', { name: 'yellow' }).click()
  await expect(page.getByText('No piece that can lie there shows these colours.')).toBeVisible()
  for (const name of ['white', 'red', 'yellow']) await seen.getByRole('button', { name }).click()
  const choices = sceneOf<number[]>('twisted corner')
  for (const at of choices) {
    await expect(doubt).toBeHidden()
    await offered.getByRole('button').nth(at).click()
  }
  await expect(doubt).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(doubt).toBeHidden()
  // A touch of the windows asks for the place that is touched.
  const asked = page.getByText(/What lies at the ringed place/)
  const first = await asked.innerText()
  await page.locator('canvas[data-ready]').click({ position: { x: 120, y: 120 } })
  await expect(asked).not.toHaveText(first)
})

test('by scramble: an error points at its character', async ({ page }) => {
  await layOut(page, 'Reading-room cube')
  await page.getByLabel('Or your own turns').fill('R U Q F')
  await expect(page.getByText("'Q' names no layer of this puzzle.")).toBeVisible()
  await expect(page.getByRole('button', { name: 'Put it on the bench' })).toBeDisabled()
  await page.getByLabel('Or your own turns').fill('[R: U2]')
  await expect(page.getByRole('button', { name: 'Put it on the bench' })).toBeEnabled()
})

test('free play: a puzzle without a school is turned, and logged when solved', async ({ page }) => {
  await toFreePlay(page, 'R U', 'Chart-room cube')
  await page.keyboard.press('Shift+U')
  await page.keyboard.press('Shift+R')
  await expect(page.getByRole('heading', { name: 'Home' })).toBeVisible()
  await expect(page.getByRole('link', { name: 'See it in the log' })).toBeVisible()
})
