import { readFileSync } from 'node:fs'
import { expect, layOut, stepsUntilHome, test } from './fixtures'

test('a tetrahedron is led home in its own school: the vertex named, a colour chosen, into the log', async ({
  page,
}) => {
  await layOut(page, 'Sail')
  await page.getByLabel('Or your own turns').fill("U R' L B u' l R U' B'")
  await page.getByLabel('School').selectOption({ label: 'Face, then the last three' })
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  const card = page.getByRole('region', { name: 'Step card' })
  await expect(card).toContainText('turned wrong: it comes right there')
  await expect(card).toContainText(/Only the \S+ axial centre lacks (yellow|blue|red|green)/)
  // Another colour can be begun with, each with its price.
  await page.getByText('Start with another colour').click()
  await expect(page.getByText(/\d+ turns, \d+ right already/)).toHaveCount(4)
  await page.getByRole('button', { name: 'Take it' }).last().click()
  await expect(card).toBeVisible()
  await stepsUntilHome(page, 40)
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
  await expect(card).toContainText(/\w+-\w+: /)
  for (const stage of ['Cross', 'Middle layer', 'Last corners twisted'])
    await expect(
      page.getByRole('list', { name: 'Stages' }).getByRole('listitem').filter({ hasText: stage }),
    ).toBeVisible()
  await stepsUntilHome(page, 60)
})

test('a prism with an edge that is turned unseen: said at the step that mends it, and led home', async ({
  page,
}) => {
  await layOut(page, 'Harbour-light prism')
  // Two edges turned over; of one of them the flip cannot be seen.
  await page
    .getByLabel('Or your own turns')
    .fill("R F' 2B U F U' 2B' U F' U' F R' B U2 F' U' S U F U' S' U' B'")
  await page.getByLabel('School').selectOption({ label: 'Layers' })
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  const card = page.getByRole('region', { name: 'Step card' })
  await expect(card).toContainText("it's turned where you can't see it")
  // Whether a piece would fit is told before the turns are made.
  await page.getByText('Will it fit?').click()
  const told = page.getByRole('status').filter({ hasText: /^Then the/ })
  await expect(told).toContainText('lies in the place')
  await page.getByLabel('After which turns').fill('U Q')
  await expect(page.getByRole('status').filter({ hasText: 'Q' })).toBeVisible()
  await page.getByLabel('After which turns').fill('U')
  await expect(told).toContainText(/fit/)
  await page.getByText('Will it fit?').click()
  await expect(
    page
      .getByRole('list', { name: 'Stages' })
      .getByRole('listitem')
      .filter({ hasText: 'Middle layer' }),
  ).toBeVisible()
  await stepsUntilHome(page, 30)
})

test('the schools of a puzzle: stages, what is known by heart, what it costs', async ({ page }) => {
  await page.goto('/schools')
  await page.getByRole('link', { name: /tetrahedron with tips/ }).click()
  const school = page.getByRole('region', { name: 'Face, then the last three' })
  await expect(school).toContainText('seven sequences by heart')
  await expect(school).toContainText('Every tip shows the colours of the centre under it.')
  await school.getByText('five sequences by heart').click()
  await expect(school.getByRole('img', { name: /From here .* leads to the finished/ })).toHaveCount(
    5,
  )
  await school.getByRole('button', { name: /What it costs/ }).click()
  await expect(school.getByRole('status')).toContainText(/\d+(\.\d+)? turns on average/)
  // Over many more it waits for a process that does such things, here there is none, and is found again.
  await school.getByRole('button', { name: 'Over 1,000, on the server' }).click()
  await expect(school.getByText('Waits for a process that is free.')).toBeVisible()
  await page.reload()
  await expect(school.getByText('Waits for a process that is free.')).toBeVisible()
  await school.getByRole('button', { name: 'Stop' }).click()
  await expect(school.getByText('Stopped.')).toBeVisible()
  // What is done in the layers of every box is learned once.
  await page.goto('/schools/box-3x3x5')
  const boxes = page.getByRole('region', { name: 'Nested boxes' })
  await expect(boxes).toContainText('eight sequences by heart')
  await expect(boxes).toContainText('Inner box: corners below.')
})

test('a school file is proven, kept and followed, or refused with what it cannot leave', async ({
  page,
}) => {
  const example = readFileSync('docs/school-file.md', 'utf8').match(/```json\n([\s\S]*?)```/)?.[1]
  if (!example) throw new Error('there is no example')
  await page.goto('/schools/cube-3')
  const own = page.getByRole('region', { name: 'A school file of your own' })
  const choose = (text: string) =>
    own
      .getByLabel('School file')
      .setInputFiles({ name: 'mine.json', mimeType: 'application/json', buffer: Buffer.from(text) })
  await choose(example)
  // Two hundred plans.
  await expect(own).toContainText('Corners, then the rest leads home from all of them.', {
    timeout: 180_000,
  })
  await own.getByRole('button', { name: 'Keep it' }).click()
  const kept = page.getByRole('region', { name: 'Corners, then the rest' })
  await expect(kept).toContainText('The rest')
  await layOut(page, 'Chart-room cube')
  await page.getByLabel('Or your own turns').fill("R U F' L2 D B R' U2 F D' L")
  await page.getByLabel('School').selectOption({ label: 'Corners, then the rest' })
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  await expect(page.getByRole('region', { name: 'Step card' })).toContainText('Look for')
  await stepsUntilHome(page, 40)
  // A logged solve follows it now, so it stays.
  await page.goto('/schools/cube-3')
  await kept.getByRole('button', { name: 'Forget it' }).click()
  await expect(page.getByText(/follows this school, so it stays known/)).toBeVisible()
  await choose(example.replace(`"R U R'", "L' U' L", `, ''))
  await expect(own.getByRole('alert')).toContainText(/From .* the school does not get on/)
  await choose(example.replace('"known"', '"magic"').replace('"insert"', '"magic"'))
  await expect(own.getByRole('alert')).toContainText('must be one of')
  await choose('{')
  await expect(own.getByRole('alert')).toContainText('no JSON')
})
