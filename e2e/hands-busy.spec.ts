import { expect, test, toBench, untilChanged } from './fixtures'

interface Ears {
  onresult?: (event: { results: { transcript: string }[][] }) => void
}

/** Stand-ins for a browser that listens and reads aloud: what is heard is given, what is said is kept. */
function standIns() {
  const spoken: string[] = []
  const ears: Ears[] = []
  class Recognition {
    constructor() {
      ears.push(this as never)
    }
    start() {}
    stop() {}
  }
  const synthesis = {
    cancel: () => undefined,
    speak: ({ text }: { text: string }) => spoken.push(text),
  }
  class Utterance {
    constructor(readonly text: string) {}
  }
  Object.assign(window, { SpeechRecognition: Recognition, spoken, ears })
  Object.defineProperty(window, 'speechSynthesis', { value: synthesis })
  Object.assign(window, { SpeechSynthesisUtterance: Utterance })
}

test('hands busy: looked for, turned and checked by voice alone, read aloud', async ({ page }) => {
  await page.addInitScript(standIns)
  await toBench(page, "R U F' L2 D B", 'Piece by piece', 'Harbour-light prism')
  await page.getByRole('button', { name: /^Step/ }).click()
  await page.keyboard.press('k')
  const dialog = page.getByRole('dialog')
  const heard = (transcript: string) =>
    page.evaluate((text) => {
      const { ears } = window as unknown as { ears: Ears[] }
      ears.at(-1)?.onresult?.({ results: [[{ transcript: text }]] })
    }, transcript)
  const said = () => page.evaluate(() => (window as unknown as { spoken: string[] }).spoken.slice())
  // The card of the step: what to look for and how to hold it.
  await expect(dialog).toContainText('Look for')
  await expect(dialog).toContainText('→ 2')
  await expect(dialog).toContainText(/Hold.+on top|Hold.+centre/)
  await expect(dialog.locator('[data-number]').first()).toBeVisible()
  await dialog.getByRole('button', { name: 'Read aloud' }).click()
  await expect.poll(said).toHaveLength(1)
  expect((await said())[0]).toMatch(/^Look for: 1 [A-Z].*\. It (belongs at|goes on to) 2/)
  await dialog.getByRole('button', { name: 'Say ‘next’' }).click()
  await heard('next please')
  // A turn: its layer in words, lit and with its arrow.
  await expect(dialog).toContainText(/layer, (?:anti)?clockwise as seen from outside/)
  await expect(dialog.locator('[data-turn-arrow]').first()).toBeVisible()
  await heard('again')
  await expect.poll(async () => (await said()).slice(-2).join('|')).toMatch(/^(.*layer.*)\|\1$/)
  await heard('back')
  await expect(dialog).toContainText('Look for')
  await heard('next')
  for (let turn = 0; turn < 40; turn++) {
    if (await dialog.getByText('Check', { exact: true }).isVisible()) break
    await untilChanged(dialog, () => heard('next'))
  }
  await expect(dialog).toContainText('Check')
  await expect(dialog).toContainText(/corners are home|corner is home/)
  await heard('next')
  await expect(dialog).toContainText('Step 3 of')
  await expect(dialog).toContainText('Look for')
})

test('hands busy: without speech the page says so, and the keys go on', async ({ page }) => {
  await page.addInitScript(() => {
    Object.assign(window, { SpeechRecognition: undefined, webkitSpeechRecognition: undefined })
    delete (window as { webkitSpeechRecognition?: unknown }).webkitSpeechRecognition
    delete (window as { SpeechRecognition?: unknown }).SpeechRecognition
  })
  await toBench(page, "F2 U R' U F", 'One trigger')
  await page.keyboard.press('k')
  const dialog = page.getByRole('dialog')
  await dialog.getByRole('button', { name: 'Say ‘next’' }).click()
  await expect(dialog.getByRole('alert')).toContainText('does not understand speech')
  await dialog.locator('[data-words]').focus()
  const step = await dialog.getByRole('heading').innerText()
  for (let press = 0; press < 40; press++) {
    if ((await dialog.getByRole('heading').innerText()) !== step) break
    await untilChanged(dialog, () => page.keyboard.press('Space'))
  }
  await expect(dialog).toContainText('Check')
  await page.keyboard.press('Escape')
  await expect(dialog).toBeHidden()
})

test('a card numbers its pieces on the windows, and says each turn in words', async ({ page }) => {
  await toBench(page, "R U F' L2 D B R' U2", 'Piece by piece', 'Chart-room cube')
  await page.getByRole('button', { name: /^Step/ }).click()
  const card = page.getByRole('region', { name: 'Step card' })
  await expect(card.getByRole('listitem').filter({ hasText: /It (belongs at|goes)/ })).toHaveCount(
    3,
  )
  // Three pieces, each in sight from one side at least, and arrows between them.
  await expect
    .poll(
      async () =>
        new Set(
          await page
            .locator('[data-number]')
            .evaluateAll((all) => all.map((each) => each.getAttribute('data-number'))),
        ).size,
    )
    .toBe(3)
  expect(await page.locator('[data-place-arrow]').count()).toBeGreaterThan(0)
  await expect(card).toContainText(
    /layer, (away from you|towards you|to the left|to the right|half round|(anti)?clockwise)/,
  )
  await page.getByRole('button', { name: /^Next/ }).click()
  await expect(page.locator('[data-number]')).toHaveCount(0)
  await expect(page.locator('[data-turn-arrow]').first()).toBeVisible()
})
