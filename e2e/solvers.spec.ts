import { SOLVER_COOKIE } from '../src/server/headers'
import { newSolver, sql } from './database'
import { expect, layOut, test, toBench } from './fixtures'

const NICKNAME = () => `Plover ${Math.random().toString(36).slice(2, 8)}`

test('two solvers on one machine: each has a shelf, a bench, a log and settings of their own', async ({
  page,
  solver,
  allowed,
}) => {
  allowed.patterns.push(/404/)
  await toBench(page, "R U F' R2 U' F", 'Layer by layer')
  const bench = page.url()
  await page.goto('/settings')
  await page.getByLabel('Theme').selectOption('daylight')
  await expect(page.getByText('saved', { exact: true })).toBeVisible()

  await page.getByRole('button', { name: `Solving as ${solver.nickname}` }).click()
  await page.getByRole('menuitem', { name: 'All solvers' }).click()
  await expect(page.getByRole('heading', { name: 'Solvers', exact: true })).toBeVisible()
  const nickname = NICKNAME()
  await page.getByLabel('Nickname').fill(solver.nickname.toUpperCase())
  await page.getByRole('button', { name: 'Begin with an empty shelf' }).click()
  await expect(page.getByRole('main').getByRole('alert')).toContainText(
    'Another solver here has this nickname',
  )
  await page.getByLabel('Nickname').fill(nickname)
  await page.getByRole('button', { name: 'Begin with an empty shelf' }).click()

  await expect(page.getByText('No puzzle stands here yet.')).toBeVisible()
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dusk')
  await page.goto('/log')
  await expect(page.getByText('No solve is logged yet.')).toBeVisible()
  await page.goto(bench)
  await expect(page.getByRole('heading', { name: 'Nothing stands here' })).toBeVisible()

  await page.goto('/solvers')
  const card = page.getByRole('listitem').filter({ hasText: solver.nickname })
  await expect(card).toContainText('puzzles on the shelf')
  await card.getByRole('button', { name: `Go on as ${solver.nickname}` }).click()
  await expect(page).toHaveURL(/\/shelf$/)
  await page.goto(bench)
  await expect(page.getByRole('region', { name: 'Step card' })).toBeVisible()
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'daylight')
})

test('a page whose solver is not the chosen one any more stands still until someone chooses', async ({
  page,
  context,
  solver,
}) => {
  const other = await newSolver()
  await page.goto('/shelf')
  const second = await context.newPage()
  await second.goto('/solvers')
  await second
    .getByRole('listitem')
    .filter({ hasText: other.nickname })
    .getByRole('button', { name: /^Go on as/ })
    .click()
  await expect(second.getByRole('button', { name: `Solving as ${other.nickname}` })).toBeVisible()
  const dialog = page.getByRole('alertdialog', {
    name: `${other.nickname} solves in this browser now`,
  })
  await expect(dialog).toBeVisible()
  await dialog.getByRole('button', { name: `Go on as ${solver.nickname}` }).click()
  await expect(dialog).toBeHidden()
  await expect(second.getByRole('alertdialog')).toContainText(`this page is ${other.nickname}’s`)
  await page.reload()
  await expect(page.getByRole('button', { name: `Solving as ${solver.nickname}` })).toBeVisible()
})

test('where nobody is chosen yet, a deep link asks who is solving and then leads on', async ({
  page,
  context,
  solver,
  allowed,
}) => {
  allowed.patterns.push(/401/)
  const copy = await layOut(page, 'Sail')
  await context.clearCookies()
  await page.goto(`/lay-out/${copy.id}?way=pieces`)
  await expect(page.getByRole('heading', { name: 'Who is solving?' })).toBeVisible()
  const answer = await page.evaluate(async () => {
    const got = await fetch('/api/log')
    return { status: got.status, text: await got.text() }
  })
  expect(answer).toMatchObject({ status: 401 })
  expect(answer.text).toContain('Choose first who is solving')
  await page
    .getByRole('listitem')
    .filter({ hasText: solver.nickname })
    .getByRole('button', { name: /^Go on as/ })
    .click()
  await expect(page).toHaveURL(new RegExp(`/lay-out/${copy.id}\\?way=pieces$`))
  await expect(page.getByRole('heading', { name: `Lay out ${copy.name}` })).toBeVisible()
})

test('a copy is handed over with its bench, and its solves stay with who made them', async ({
  page,
  context,
  solver,
}) => {
  const other = await newSolver()
  const copy = await toBench(page, "R U F' R2 U' F", 'Layer by layer')
  const bench = page.url()
  await page.keyboard.press('r')
  const turns = page.getByRole('group', { name: /^Turns: 1 done/ })
  await expect(turns).toBeVisible()
  await expect(page.getByText('saved', { exact: true })).toBeVisible()
  const made = (await turns.getAttribute('aria-label')) ?? ''
  const solves = () => sql('select count(*) from solves where profile_id = $1', [solver.id])
  const before = await solves()
  await page.goto('/shelf')
  const card = page.getByRole('main').getByRole('listitem').filter({ hasText: copy.name })
  await card.getByRole('button', { name: `Change ${copy.name}` }).click()
  await page.getByLabel('To', { exact: true }).selectOption({ label: other.nickname })
  await page.getByRole('button', { name: 'Hand over' }).click()
  await expect(
    page.getByText(`${copy.name} stands on ${other.nickname}’s shelf now.`),
  ).toBeVisible()
  await expect(card).toBeHidden()
  await context.addCookies([{ name: SOLVER_COOKIE, value: other.id, url: page.url() }])
  await page.goto(bench)
  await expect(page.getByRole('group', { name: made, exact: true })).toBeVisible()
  expect(await solves()).toEqual(before)
})

test('a solver is removed with everything, after being asked', async ({ page, solver }) => {
  const other = await newSolver()
  await page.goto('/solvers')
  await page.getByRole('button', { name: `Remove ${other.nickname}` }).click()
  const sheet = page.getByRole('dialog', { name: `Remove ${other.nickname}` })
  await expect(sheet).toContainText('12 puzzles with their benches')
  await sheet.getByRole('button', { name: /and all of it$/ }).click()
  await expect(page.getByText(`${other.nickname} is removed.`)).toBeVisible()
  const left = await sql('select id from copies where profile_id = $1', [other.id])
  expect(left).toEqual([])
  await expect(page.getByRole('listitem').filter({ hasText: solver.nickname })).toBeVisible()
})
