/** First-load script of each screen and the time until the bench can be used, in a real browser. */
import { existsSync } from 'node:fs'
import { chromium, type Browser } from '@playwright/test'
import { CHROMIUM } from './merry/debian'

const ADDRESS = process.env.BENCH_ADDRESS

export async function measureScreens(): Promise<void> {
  if (!ADDRESS || !existsSync(CHROMIUM)) {
    console.log('Not measured: run ./merry bench, which builds and serves the application.')
    return
  }
  const browser = await chromium.launch({
    executablePath: CHROMIUM,
    args: ['--no-sandbox', '--use-angle=swiftshader', '--enable-unsafe-swiftshader'],
  })
  const first = await browser.newPage()
  await first.goto(`${ADDRESS}/shelf`)
  const hrefs = await first
    .locator('a[href^="/bench/"], a[href^="/lay-out/"]')
    .evaluateAll((all) => all.map((each) => each.getAttribute('href') ?? ''))
  await first.close()
  const find = (start: string) => hrefs.find((href) => href.startsWith(start)) ?? start
  const screens = [
    '/shelf',
    '/anatomy',
    '/anatomy/prism-6',
    find('/lay-out/'),
    find('/bench/'),
    '/log',
    '/settings',
  ]
  for (const path of screens) {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    const sizes = { early: 0, all: 0 }
    let painted = false
    page.on('response', (response) => {
      void response
        .request()
        .sizes()
        .then(({ responseBodySize }) => {
          if (response.request().resourceType() !== 'script') return
          sizes.all += responseBodySize
          if (!painted) sizes.early += responseBodySize
        })
    })
    await page.goto(`${ADDRESS}${path}`, { waitUntil: 'load' })
    painted = true
    await page.waitForTimeout(2500)
    const paintMs = await page.evaluate(
      () => performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? NaN,
    )
    const kB = (bytes: number) => `${Math.round(bytes / 1024)} kB`
    console.log(
      `${path.split('/').slice(1, 3).join(' ').slice(0, 16).padEnd(17)} first load ${kB(sizes.early)}, with what follows ${kB(sizes.all)}, first paint ${Math.round(paintMs)} ms`,
    )
    await page.close()
  }
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  const began = performance.now()
  await page.goto(`${ADDRESS}${find('/bench/')}`)
  await page.getByRole('button', { name: /^Next/ }).and(page.locator(':enabled')).waitFor()
  const usable = performance.now() - began
  await page.locator('canvas[data-ready]').waitFor()
  console.log(
    `bench: next turn can be made after ${Math.round(usable)} ms, windows drawn after ${Math.round(performance.now() - began)} ms`,
  )
  await page.close()
  await measureTurns(browser)
  await browser.close()
}

/** Script time a frame while a layer of the largest shipped box turns, windows of the anatomy. */
async function measureTurns(browser: Browser): Promise<void> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  await page.goto(`${ADDRESS}/anatomy/box-4x4x5`)
  await page.locator('canvas[data-ready]').waitFor()
  await page.waitForTimeout(1500)
  const session = await page.context().newCDPSession(page)
  await session.send('Performance.enable')
  const scriptSeconds = async () => {
    const { metrics } = await session.send('Performance.getMetrics')
    return metrics.find(({ name }) => name === 'ScriptDuration')?.value ?? NaN
  }
  // As text, because a compiled function would bring helpers along that the page does not have.
  const frames = page.evaluate<number>(`new Promise((resolve) => {
    let count = 0
    const end = performance.now() + 4000
    requestAnimationFrame(function tick(now) {
      count++
      if (now < end) requestAnimationFrame(tick)
      else resolve(count)
    })
  })`)
  const before = await scriptSeconds()
  for (let made = 0; made < 12; made++) {
    await page.keyboard.press(made % 2 ? 'u' : 'd')
    await page.waitForTimeout(250)
  }
  const count = await frames
  const spent = (await scriptSeconds()) - before
  console.log(
    `a turn on box-4x4x5: ${((1000 * spent) / count).toFixed(2)} ms of script a frame (${count} frames in 4 s, drawn in software)`,
  )
  await page.close()
}
