import { expect, kept, layOut, stepsUntilHome, test } from './fixtures'
import type { Page } from '@playwright/test'

/** An edge glued to a corner: not every turn is free, and the puzzle is in no catalogue. */
const STIFF = {
  schema: 1,
  id: 'stiff-3',
  name: '3x3x3 with a stiff edge',
  mechanism: { kind: 'box', size: [3, 3, 3] },
  glue: [
    [
      [1, 1, 1],
      [1, 1, 0],
    ],
  ],
}

/** Two corners tied together: so few states that all of them can be listed. */
const TIED = {
  schema: 1,
  id: 'tied-2',
  name: '2x2x2 with a tied edge',
  mechanism: { kind: 'box', size: [2, 2, 2] },
  glue: [
    [
      [0.5, 0.5, 0.5],
      [0.5, 0.5, -0.5],
    ],
  ],
}

const FLAT = {
  schema: 1,
  id: 'flat',
  name: '1x3x3 box',
  mechanism: { kind: 'box', size: [3, 1, 3] },
}

/** A cube cut at a slant over a 3x3x3: every piece another shape, and every turn of a centre is seen. */
const SLANTED = {
  schema: 1,
  id: 'slanted-3',
  name: '3x3x3 in a slanted cube',
  mechanism: { kind: 'box', size: [3, 3, 3] },
  solid: {
    halfSpaces: [
      [[-1, 2, 2], 'white'],
      [[1, -2, -2], 'yellow'],
      [[2, 2, -1], 'red'],
      [[-2, -2, 1], 'orange'],
      [[-2, 1, -2], 'blue'],
      [[2, -1, 2], 'green'],
    ].map(([normal, colour]) => ({ normal, at: 4.5, colour })),
  },
}

/** Drops a file on the page, as a hand with a mouse does. */
async function drop(page: Page, name: string, text: string) {
  const files = await page.evaluateHandle(
    ([title, content]) => {
      const transfer = new DataTransfer()
      transfer.items.add(new File([content], title, { type: 'application/json' }))
      return transfer
    },
    [name, text],
  )
  // A hand that comes before the page listens moves on over it.
  await expect(async () => {
    await page.dispatchEvent('body', 'dragover', { dataTransfer: files })
    await expect(page.getByText('Drop the puzzle file anywhere on the shelf')).toBeVisible({
      timeout: 1000,
    })
  }).toPass()
  await page.dispatchEvent('body', 'drop', { dataTransfer: files })
}

test('a puzzle file dropped on the shelf is led home piece by piece, over a reload, into the log', async ({
  page,
}) => {
  await page.goto('/shelf')
  await expect(page.getByRole('heading', { name: 'Shelf' })).toBeVisible()
  await drop(page, 'stiff.json', JSON.stringify(STIFF))
  const sheet = page.getByRole('dialog', { name: 'Add a puzzle' })
  await expect(sheet.getByText(STIFF.name)).toBeVisible()
  await expect(sheet.getByText(/7 corners/)).toBeVisible()
  await sheet.getByLabel('Your name for it').fill('Stiff pilot')
  await sheet.getByRole('button', { name: 'Put it on the shelf' }).click()
  await expect(page.getByRole('heading', { name: 'Stiff pilot' })).toBeVisible()

  await layOut(page, 'Stiff pilot')
  // The front layer would cut the glued block.
  await page.getByLabel('Or your own turns').fill('F U')
  await expect(page.getByRole('alert').filter({ hasText: /would cut/ })).toBeVisible()
  await expect(page.getByRole('status', { name: 'Why not' })).toContainText('is blocked')
  await page.getByLabel('Or your own turns').fill("B2 L D R' U L' F2 B")
  await page.getByLabel('School').selectOption({ label: 'Piece by piece' })
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  const card = page.getByRole('region', { name: 'Step card' })
  await expect(card).toBeVisible()
  await kept(page, () => page.getByRole('button', { name: /^Step/ }).click())
  await expect(page.getByText('saved', { exact: true })).toBeVisible()
  await page.reload()
  await expect(card).toBeVisible()
  await stepsUntilHome(page, 60)
  await page.getByRole('link', { name: 'See it in the log' }).click()
  await expect(page.getByRole('heading', { name: 'Splits' })).toBeVisible()
  await page.goto('/log')
  await expect(page.getByText(STIFF.name).first()).toBeVisible()
})

test('a solid dropped on the shelf is led in layers, with the plain puzzle beside it', async ({
  page,
}) => {
  await page.goto('/shelf')
  await expect(page.getByRole('heading', { name: 'Shelf' })).toBeVisible()
  await drop(page, 'slanted.json', JSON.stringify(SLANTED))
  const sheet = page.getByRole('dialog', { name: 'Add a puzzle' })
  await sheet.getByLabel('Your name for it').fill('Slanted buoy')
  await sheet.getByRole('button', { name: 'Put it on the shelf' }).click()
  await expect(page.getByRole('heading', { name: 'Slanted buoy' })).toBeVisible()
  await layOut(page, 'Slanted buoy')
  await page.getByLabel('Or your own turns').fill("R U F' L2 D B R' U2 F D' L")
  await page.getByLabel('School').selectOption({ label: 'Layers' })
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  const card = page.getByRole('region', { name: 'Step card' })
  await expect(card).toContainText(/it comes right there/)
  // What is lit on the solid is lit on the plain puzzle too.
  await page.keyboard.press('p')
  const kin = page.getByRole('figure', { name: 'The plain puzzle' })
  await expect(
    kin.getByRole('img', { name: /one of its pieces lit|1 of its pieces lit/ }),
  ).toBeVisible()
  // A turn by hand that spoils a centre is told, and planned from.
  await page.keyboard.press('f')
  await expect(page.getByText(/is out of register now\. Planned again from here/)).toBeVisible()
})

test('a glued puzzle is counted, and led home in the fewest turns', async ({ page }) => {
  await page.goto('/shelf')
  await expect(page.getByRole('heading', { name: 'Shelf' })).toBeVisible()
  await drop(page, 'tied.json', JSON.stringify(TIED))
  const sheet = page.getByRole('dialog', { name: 'Add a puzzle' })
  await sheet.getByLabel('Your name for it').fill('Tied pilot')
  await sheet.getByRole('button', { name: 'Put it on the shelf' }).click()
  await page
    .getByRole('listitem')
    .filter({ hasText: 'Tied pilot' })
    .last()
    .getByRole('link', { name: 'Anatomy' })
    .click()
  const states = page.getByRole('region', { name: 'How many states' })
  await states.getByRole('button', { name: 'Count them' }).click()
  await expect(states.getByText('29,160').first()).toBeVisible()
  await expect(states.getByText(/blocks can lie in 9 ways/)).toBeVisible()

  await layOut(page, 'Tied pilot')
  await page.getByLabel('Or your own turns').fill("R2 D F2 U'")
  await page.getByLabel('School').selectOption({ label: 'Shortest' })
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  const card = page.getByRole('region', { name: 'Step card' })
  await expect(card).toContainText(/turns? is the least that leads home/)
  // The bar of the table is gone once the plan is there.
  await expect(page.getByRole('progressbar')).toHaveCount(0)
  await stepsUntilHome(page, 2)
  await expect(page.getByRole('link', { name: 'See it in the log' })).toBeVisible()
})

test('a puzzle file is forgotten when nothing of it stands on the shelf, and not before', async ({
  page,
}) => {
  await page.goto('/shelf')
  await expect(page.getByRole('heading', { name: 'Shelf' })).toBeVisible()
  await drop(page, 'flat.json', JSON.stringify({ ...FLAT }))
  const sheet = page.getByRole('dialog', { name: 'Add a puzzle' })
  await sheet.getByLabel('Your name for it').fill('Flat pilot')
  await sheet.getByRole('button', { name: 'Put it on the shelf' }).click()
  await expect(page.getByRole('heading', { name: 'Flat pilot' })).toBeVisible()
  const forget = async () => {
    await page.getByRole('button', { name: 'Add a puzzle' }).click()
    await sheet.getByLabel('Puzzle').selectOption({ label: FLAT.name })
    await sheet.getByRole('button', { name: 'Forget this puzzle file' }).click()
  }
  await forget()
  await expect(sheet.getByRole('alert')).toContainText('stands on the shelf')
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Change Flat pilot' }).click()
  const own = page.getByRole('dialog', { name: 'Flat pilot' })
  await own.getByRole('button', { name: 'Remove', exact: true }).click()
  await own.getByRole('button', { name: 'Remove it and its open bench' }).click()
  await expect(page.getByRole('heading', { name: 'Flat pilot' })).toBeHidden()
  await forget()
  await expect(page.getByText('Forgotten.')).toBeVisible()
  await expect(sheet.getByLabel('Puzzle').getByText(FLAT.name)).toHaveCount(0)
})

test('a puzzle file that is wrong is told with its fields, and nothing is added', async ({
  page,
}) => {
  await page.goto('/shelf')
  await expect(page.getByRole('heading', { name: 'Shelf' })).toBeVisible()
  const before = await page.getByRole('listitem').count()
  await drop(
    page,
    'wrong.json',
    JSON.stringify({ ...STIFF, mechanism: { kind: 'box', size: [3, 3, 9] }, mood: 'calm' }),
  )
  const sheet = page.getByRole('dialog', { name: 'Add a puzzle' })
  await expect(sheet.getByRole('alert')).toContainText('mechanism.size[2]')
  await expect(sheet.getByRole('alert')).toContainText('mood')
  await expect(sheet.getByRole('button', { name: 'Put it on the shelf' })).toBeHidden()
  await sheet.getByLabel('File to read').setInputFiles({
    name: 'half.json',
    mimeType: 'application/json',
    buffer: Buffer.from('{"schema": 1,'),
  })
  await expect(sheet.getByRole('alert')).toContainText('not well-formed JSON')
  await page.keyboard.press('Escape')
  await page.reload()
  expect(await page.getByRole('listitem').count()).toBe(before)
})
