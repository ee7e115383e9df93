import type { Locator, Page } from '@playwright/test'
import { expect, kept, stepsUntilHome, test, toBench } from './fixtures'

const cardOf = (page: Page) => page.getByRole('region', { name: 'Step card' })

/** Every card in full, so that it says how two come together. */
async function inFull(page: Page) {
  await page.goto('/settings')
  await kept(page, () => page.getByLabel('Cards speak').selectOption('full'))
}

/** Step after step until the card says it. */
async function stepUntil(page: Page, says: Locator, most: number) {
  const step = page.getByRole('button', { name: /^Step/ })
  for (let count = 0; count < most && !(await says.isVisible()); count++) await step.click()
  await expect(says).toBeVisible()
}

/** With a slice open the whole puzzle is turned: it is told, and taken back. */
async function regripWhileOpen(page: Page, slice: RegExp) {
  const owed = page.getByRole('region', { name: 'Debts' }).getByText(slice)
  const next = page.getByRole('button', { name: /^Next/ })
  for (let turn = 0; turn < 24 && !(await owed.isVisible()); turn++) await next.click()
  await expect(owed).toBeVisible()
  const lanterns = page.getByRole('listitem').filter({ hasText: /done$/ })
  const lit = await lanterns.count()
  await page.keyboard.press('y')
  const early = page.getByText(/was turned while .* is owed/)
  await expect(early).toBeVisible()
  // The hold alone loses nothing of what is done.
  await expect(lanterns).toHaveCount(lit)
  await page.getByRole('button', { name: 'Take it back' }).click()
  await expect(early).toBeHidden()
}

test('a 4x4x4 is reduced and played as a cube of three layers, a hold changed too early told', async ({
  page,
}) => {
  const scramble = "U 2R F2 L' 2D B R2 2F U' L 2U2 D B2 2L R' F 2B D' L2 2R U R 2D F'"
  await toBench(page, scramble, 'Reduction', 'Lock-keeper cube')
  const card = cardOf(page)
  await stepUntil(page, card.getByText(/^\S+ edges: .* and .*\./).first(), 20)
  await regripWhileOpen(page, /^2[UDFBRL]['2]?$/)
  await stepUntil(page, card.getByText(/joined edges count as one edge/), 20)
  await page.getByRole('button', { name: 'The smaller puzzle beside it' }).click()
  const smaller = page.getByRole('figure', { name: 'The smaller puzzle' })
  await expect(smaller.getByRole('img')).toHaveAccessibleName(/[1-9]\d* of its pieces lit/)
  await stepsUntilHome(page, 60)
  await page.getByRole('link', { name: 'See it in the log' }).click()
  await expect(page.getByText('Reduction').first()).toBeVisible()
})

test('a bipyramid over four layers is reduced, every centre to its own place, to the stage of three layers', async ({
  page,
}) => {
  await toBench(page, "R 2U F' 2L2 D B 2R' U2 L 2F D' R2", 'Reduction', 'Mooring buoy')
  const card = cardOf(page)
  await stepUntil(page, card.getByText(/joined edges count as one edge/), 40)
  const pairs = page.getByRole('listitem').filter({ hasText: 'Edges in pairs' })
  await expect(pairs).toContainText('done')
  // Nothing is lost on reload: neither the position nor what is played as what.
  const look = await card.innerText()
  await page.reload()
  await expect(card).toBeVisible()
  expect(await card.innerText()).toBe(look)
})

test('a 4x4x5 goes through its bars, a slice open and a re-grip warned of, and through parity', async ({
  page,
}) => {
  const scramble = "U 2R2 F2 3U B2 2U' 2F2 U2 R2 2D L2 U' 2R2 3U' F2 D 2F2 2U R2"
  await inFull(page)
  await toBench(page, scramble, 'Belt, bars, boxes', 'Cargo crate')
  const card = cardOf(page)
  await stepUntil(page, page.getByText('The two parts of every bar lie side by side.'), 20)
  await expect(card).toContainText(/2[UDFBRL]2 joins them: it brings the \w+.* across to the \w+\./)
  // Another pair may be taken apart for it: the card then tells of that one.
  await card.getByText(/^Or take apart something else/).click()
  const offer = card.getByRole('listitem').filter({ hasText: 'What lies' }).first()
  const place = /What lies (.+?): /.exec(await offer.innerText())?.[1]
  await offer.getByRole('button', { name: 'Take it' }).click()
  await expect(card).toContainText(`Taken apart for it, no pair yet: ${place}.`)
  await regripWhileOpen(page, /^2[UDFBRL]2$/)
  await stepUntil(page, card.getByText(/no turns that keep all joined can finish this/), 40)
  await stepsUntilHome(page, 20)
})

test('the last two bars of a 4x4x5 are joined by equal strips', async ({ page }) => {
  const scramble =
    "U2 2D 2R2 2U D' 2R2 U 2U2 2D D 2L2 2U' D F2 D2 U 2U 2B2 2D' 2L2 2U 2D' D' F2 2R2 2U' 2D2 U' F2 2B2 2D' 2U2 U2 D F2 D2 U' F2 2R2 2U2 2L2 F2 D2 2L2 2D U2 2U' 2R2 2D' 2U"
  await inFull(page)
  await toBench(page, scramble, 'Belt, bars, boxes', 'Cargo crate')
  const card = cardOf(page)
  await stepUntil(page, card.getByText(/They are the last two, so strips are made equal/), 20)
  // Every sentence speaks the dialect that is chosen, and says it in letters again.
  const bench = page.url()
  await page.goto('/settings')
  await kept(page, () => page.getByLabel('Write turns as').selectOption('hands'))
  await page.goto(bench)
  await expect(card.getByText(/joins them: it brings/).first()).toBeVisible()
  await expect(card).not.toContainText(/\b2[UDFBRL]2\b/)
  await page.goto('/settings')
  await kept(page, () => page.getByLabel('Write turns as').selectOption('prime'))
  await page.goto(bench)
  await expect(card).toContainText(/Before the first 2[UDFBRL]2, \w+ centres in both: .+ and .+\./)
  await page.getByRole('button', { name: /^Step/ }).click()
  await expect(page.getByRole('listitem').filter({ hasText: /^Bars, done$/ })).toHaveCount(1)
})
