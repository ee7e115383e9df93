import { readFileSync } from 'node:fs'
import { sql } from './database'
import { expect, test } from './fixtures'

test('a log of 20,000 solves: page by page, filtered, and found at its far end', async ({
  page,
  solver,
}) => {
  await sql(
    `insert into solves (profile_id, puzzle_id, school, solver, start_state, solution, finished_at,
       elapsed_ms, turn_count, quarter_count)
     select $1, (array['tetra-3', 'cube-3'])[1 + n % 2], null, 'Tern', 'a', '',
       timestamptz '2026-01-01' - n * interval '1 hour', 30000 + n, 20, 25
     from generate_series(1, 20000) n`,
    [solver.id],
  )
  await page.goto('/log')
  const pages = page.getByRole('navigation', { name: 'Pages' })
  await expect(pages).toContainText('1 to 50 of 20079')
  await expect(page.getByRole('row')).toHaveCount(51)
  await expect(page.getByRole('img', { name: /groups of \d+ solves/ })).toBeVisible()
  await pages.getByRole('link', { name: 'Older' }).click()
  await expect(pages).toContainText('51 to 100 of 20079')
  await pages.getByRole('link', { name: 'Oldest' }).click()
  await expect(pages).toContainText('20051 to 20079 of 20079')
  await expect(page).toHaveURL(/page=402/)
  await expect(page.getByRole('row').last()).toContainText('2023')
  await page
    .getByRole('navigation', { name: 'Puzzle' })
    .getByRole('link', { name: 'tetrahedron with tips' })
    .click()
  await expect(pages).toContainText('1 to 50 of 10000')
  await expect(page.getByText('These solves have no stages.')).toBeVisible()
})

test('a long import says how far it is, and stopped leaves nothing behind', async ({ page }) => {
  await page.goto('/log')
  const rows = await page.getByRole('row').count()
  const coming = page.waitForEvent('download')
  await page.getByRole('link', { name: 'JSON' }).click()
  const file = JSON.parse(readFileSync(await (await coming).path(), 'utf8')) as {
    solves: { finishedAt: string }[]
  }
  const solves = Array.from({ length: 120 }, (_, i) =>
    file.solves.map((solve) => ({
      ...solve,
      finishedAt: new Date(Date.parse(solve.finishedAt) - 1000 * (i + 1)).toISOString(),
    })),
  ).flat()
  await page.getByLabel('File to import').setInputFiles({
    name: 'log.json',
    mimeType: 'application/json',
    buffer: Buffer.from(JSON.stringify({ ...file, solves })),
  })
  await expect(page.getByText(/\d+ percent read/)).toBeVisible()
  // Whoever reloads the page finds it again.
  await page.reload()
  await expect(page.getByText(/\d+ percent read|Waiting to be read/)).toBeVisible()
  await page.getByRole('button', { name: 'Stop' }).click()
  await expect(page.getByText('Stopped. Nothing was imported.')).toBeVisible()
  await page.reload()
  await expect(page.getByRole('button', { name: 'Import', exact: true })).toBeVisible()
  expect(await page.getByRole('row').count()).toBe(rows)
})

test('a backup makes a solver with all of it, and a wrong one says what is wrong', async ({
  page,
  solver,
}) => {
  await page.goto('/solvers')
  const coming = page.waitForEvent('download')
  await page.getByRole('link', { name: `Backup of ${solver.nickname}` }).click()
  const text = readFileSync(await (await coming).path(), 'utf8')
  const choose = (content: string) =>
    page.getByLabel('Backup to restore').setInputFiles({
      name: 'backup.json',
      mimeType: 'application/json',
      buffer: Buffer.from(content),
    })
  await choose(text.replace('"version":1', '"version":7'))
  await expect(page.getByText('only version 1 is known.')).toBeVisible()
  await choose(text)
  await expect(page).toHaveURL(/\/shelf$/)
  await expect(page.getByRole('button', { name: `Solving as ${solver.nickname} 2` })).toBeVisible()
  await expect(page.getByText('12 puzzles')).toBeVisible()
  await expect(page.getByText(/Solved 53 times/)).toBeVisible()
  await page.goto('/log')
  await expect(page.getByRole('navigation', { name: 'Pages' })).toContainText('1 to 50 of 79')
})
