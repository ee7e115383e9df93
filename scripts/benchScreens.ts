/** First-load script of each screen and the time until the bench can be used, in a real browser. */
import { existsSync } from 'node:fs'
import { chromium } from '@playwright/test'
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
  const screens = ['/shelf', find('/lay-out/'), find('/bench/'), '/log', '/settings']
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
      `${path.split('/')[1].padEnd(10)} first load ${kB(sizes.early)}, with what follows ${kB(sizes.all)}, first paint ${Math.round(paintMs)} ms`,
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
  await browser.close()
}
