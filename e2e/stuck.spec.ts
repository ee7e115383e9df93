import type { Page } from '@playwright/test'
import { expect, layOut, sceneOf, test } from './fixtures'

async function onBench(page: Page, copy: string, scramble: string): Promise<void> {
  await layOut(page, copy)
  await page.getByLabel('Or your own turns').fill(scramble)
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  await expect(page.getByRole('region', { name: 'Step card' })).toBeVisible()
}

test('parity of a reduction: said, counted, and a way out that leads home', async ({ page }) => {
  await page.goto('/shelf')
  await page.getByRole('button', { name: 'Add a puzzle' }).click()
  const dialog = page.getByRole('dialog', { name: 'Add a puzzle' })
  await dialog.getByLabel('Puzzle').selectOption('cube-4')
  await dialog.getByLabel('Your name for it').fill('Tide table')
  await dialog.getByRole('button', { name: 'Put it on the shelf' }).click()
  await expect(dialog).toBeHidden()
  await onBench(page, 'Tide table', sceneOf('flipped joined edge'))
  await page.keyboard.press('g')
  const panel = page.getByRole('region', { name: 'Stuck' })
  await expect(panel.getByText('Parity of the reduction')).toBeVisible()
  await expect(
    panel.getByText(/joined like a 3x3x3.*flips of its edges don't add up/),
  ).toBeVisible()
  await expect(panel.getByText('Settle odd and even, then go on', { exact: false })).toBeVisible()
  // The address keeps it.
  await page.reload()
  await expect(panel.getByText('Parity of the reduction')).toBeVisible()
  await panel
    .getByRole('listitem')
    .filter({ hasText: 'All the way home' })
    .getByRole('button', { name: 'Take it' })
    .click()
  await expect(page.getByRole('region', { name: 'Step card' })).toBeVisible()
})

test('look-alikes: two equal edges have traded places, so two others look exchanged', async ({
  page,
}) => {
  await onBench(page, 'Harbour-light prism', sceneOf('traded look-alikes'))
  await page.getByRole('button', { name: /^Stuck/ }).click()
  const panel = page.getByRole('region', { name: 'Stuck' })
  await expect(panel.getByText(/have traded places, which no one can see/)).toBeVisible()
  await panel.getByRole('button', { name: 'Close what this is' }).click()
  await expect(page.getByRole('region', { name: 'Step card' })).toBeVisible()
})

test('a layer out of register: one turn, made from the panel', async ({ page }) => {
  await onBench(page, 'Harbour-light prism', 'R')
  await page.keyboard.press('g')
  const panel = page.getByRole('region', { name: 'Stuck' })
  await expect(panel.getByText(/out of register by a quarter turn/)).toBeVisible()
  await panel.getByRole('button', { name: 'Make them' }).click()
  await expect(page.getByRole('heading', { name: 'Home' })).toBeVisible()
})

test('a turn made while it is still being worked out is planned from', async ({ page }) => {
  await onBench(page, 'Chart-room cube', "R U F' L2 D B")
  await page.keyboard.press('g')
  await page.keyboard.press('r')
  await page.keyboard.press('g')
  await expect(page.getByText('1 turn', { exact: true })).toBeVisible()
  await expect(page.getByText(/Planned again from here/)).toBeVisible()
  // The new plan goes on from that turn; it may begin with a turn of the whole puzzle, which is not counted.
  await page.getByRole('button', { name: /^Step/ }).click()
  await expect(page.getByText(/^\d+ turns$/)).toBeVisible()
})
