import type { Page } from '@playwright/test'
import { sql } from './database'
import { expect, kept, layOut, nextButton, test, toBench, toFreePlay } from './fixtures'

test("after a click the keys are the bench's again; reached by Tab a button keeps its own", async ({
  page,
}) => {
  await toBench(page, "R U F' R2 U' F R", 'One trigger')
  const tape = page.getByRole('group', { name: /^Turns: \d+ done/ })
  const done = async () =>
    Number(/(\d+) done/.exec((await tape.getAttribute('aria-label')) ?? '')?.[1])
  // The first card is read, and has no turns.
  for (let count = 0; count < 2; count++) await page.getByRole('button', { name: /^Step/ }).click()
  await expect.poll(done).toBeGreaterThan(1)
  // Into a step, so that no hold is taken by the way.
  const begun = await done()
  await nextButton(page).click()
  await expect.poll(done).toBeGreaterThan(begun)
  const after = await done()
  await page.keyboard.press('Space')
  await expect.poll(done).toBe(after + 1)
  // A choice in a menu, then a stronger hint with one press.
  const card = page.getByRole('region', { name: 'Step card' })
  const help = card.getByRole('combobox')
  await help.click()
  await help.selectOption('a nudge')
  await expect(card.getByRole('term').filter({ hasText: /^Turn$/ })).toBeHidden()
  await page.keyboard.press('h')
  await page.keyboard.press('h')
  await expect(card.getByRole('term').filter({ hasText: /^Turn$/ })).toBeVisible()
  // By the keyboard alone the button answers Space itself.
  await nextButton(page).focus()
  const before = await done()
  await page.keyboard.press('Space')
  await expect.poll(done).toBe(before + 1)
})

test('free play is no dead end: a school is taken up from where it stands', async ({ page }) => {
  await toFreePlay(page, "R U F'", 'Reading-room cube')
  await page.keyboard.press('u')
  await page.getByRole('button', { name: 'Take up a school' }).click()
  const ways = page.getByRole('dialog', { name: 'Ways home from here' })
  await ways
    .getByRole('button', { name: /^Take Layer by layer/ })
    .first()
    .click()
  await expect(page.getByRole('region', { name: 'Step card' })).toBeVisible()
  await expect(page.getByText('Layer by layer', { exact: false }).first()).toBeVisible()
  await page.reload()
  await expect(page.getByRole('region', { name: 'Step card' })).toBeVisible()
})

test('a key that turns otherwise, or nothing, says why', async ({ page }) => {
  await toFreePlay(page, 'U R', 'Moored twins')
  await page.keyboard.press('f')
  await expect(page.getByText(/^Nothing turns by F: .*shared column/)).toBeVisible()
  await page.keyboard.press('r')
  await expect(page.getByRole('group', { name: /^Turns: 1 done/ })).toBeVisible()
})

test('the log is read by puzzle, and its stages are not mixed', async ({ page }) => {
  await toFreePlay(page, 'R', 'Sail')
  await kept(page, () => page.keyboard.press('Shift+r'))
  await expect(page.getByRole('link', { name: 'See it in the log' })).toBeVisible()
  await page.goto('/log')
  await expect(page.getByText('Choose one puzzle')).toBeVisible()
  const puzzles = page.getByRole('navigation', { name: 'Puzzle' })
  await puzzles.getByRole('link', { name: /tetrahedron/ }).click()
  await expect(page.getByRole('row')).toHaveCount(2)
  await puzzles.getByRole('link', { name: '2x2x2' }).click()
  await expect(page.getByText(/percent of the time/)).toBeVisible()
})

test('a copy with circles keeps its name in every setting, and its way to Lay out', async ({
  page,
}) => {
  const { name, id } = await layOut(page, 'Porthole cube')
  await page.goto(`/anatomy/${id}`)
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(name)
  await page.getByRole('button', { name: 'Front circle locked' }).click()
  await expect(page).toHaveURL(new RegExp(`copy=${id}`))
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(name)
  await page.reload()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(name)
  await expect(page.getByRole('link', { name: 'Lay out' })).toHaveAttribute(
    'href',
    `/lay-out/${id}`,
  )
  await expect(page.getByRole('img', { name: /Its kin/ })).toBeVisible()
})

test('a puzzle that is not copied by colours says so, and its address is no error', async ({
  page,
}) => {
  const { id, name } = await layOut(page, 'Harbour-light prism')
  await page.goto(`/lay-out/${id}?way=colours`)
  await expect(page.getByRole('heading', { name: `Lay out ${name}` })).toBeVisible()
  await expect(page.getByRole('tab', { name: 'Copy its colours' })).toBeDisabled()
  await expect(
    page.getByText(/^Not by colours: what a place shows depends on the piece/),
  ).toBeVisible()
  await expect(page.getByRole('tab', { name: 'Copy it piece by piece' })).toHaveAttribute(
    'aria-selected',
    'true',
  )
})

/** The turns of the page's bench as they are stored. */
async function storedTurns(page: Page): Promise<string[]> {
  const id = page.url().split('/').at(-1)?.split('?')[0] ?? ''
  const rows = await sql<{ name: string }>(
    `select event->>'name' as name from bench_events
     where session_id = $1 and event->>'kind' = 'turn' order by seq`,
    [id],
  )
  return rows.map(({ name }) => name)
}

test('a row that is taken over is made in the hold in which it was shown, past the next card', async ({
  page,
}) => {
  await toBench(page, "R U2 F' R2 U F", 'One trigger')
  const card = page.getByRole('region', { name: 'Step card' })
  await page.getByRole('button', { name: /^Step/ }).click()
  await expect(card).toContainText(/Spin it a quarter/)
  await page.getByText('Try a sequence here').click()
  // These are the card's, and one more; the next card has another hold.
  await page.getByLabel('The sequence').fill("D' L D L' U")
  await page.getByRole('button', { name: 'Take it' }).click()
  await expect.poll(() => storedTurns(page)).toEqual(["y'", "D'", 'L', 'D', "L'", 'U'])
})

test('the windows show the hold of a card before it is taken, and one press goes back over it', async ({
  page,
}) => {
  await toBench(page, "R U F' L2 D B R' U2 F D' L", 'Layers', 'Chart-room cube')
  const card = page.getByRole('region', { name: 'Step card' })
  const turns = page.getByRole('group', { name: /^Turns: / })
  const stored = () => storedTurns(page)
  await expect(card).toContainText(/(Spin|Roll|Tip) it/)
  const first = await card.innerText()
  // Nothing is made yet, and no turn of the whole puzzle is asked for.
  await expect(turns).toHaveAccessibleName(/^Turns: 0 done/)
  expect(await stored()).toEqual([])
  await expect(nextButton(page)).toHaveText(/^Next [A-Z]/)
  await kept(page, () => nextButton(page).click())
  await expect.poll(stored).toHaveLength(2)
  expect((await stored())[0]).toMatch(/^[xyz]/)
  await page.getByRole('button', { name: /^Back/ }).click()
  await expect.poll(() => card.innerText()).toBe(first)
  await page.reload()
  await expect.poll(() => card.innerText()).toBe(first)
})
