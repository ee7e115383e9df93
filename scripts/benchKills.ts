/**
 * `./merry bench --kills`: 50 kills of the server, 50 of the database, 30 of the worker, 20 of the script, 20 restarts,
 * in the middle of a solve.
 */
import { chromium } from '@playwright/test'
import { CHROMIUM_OPTIONS } from '../e2e/chromium'
import { Program, surviveKills } from '../e2e/kills'
import { seededRandom } from '../src/core/random'

const seed = Number(process.argv[process.argv.indexOf('--seed') + 1]) || Date.now() % 1_000_000
const random = seededRandom(seed)
const program = new Program()
const browser = await chromium.launch(CHROMIUM_OPTIONS)
try {
  await program.start()
  const page = await browser.newPage({ reducedMotion: 'reduce' })
  const kills = { servers: 50, databases: 50, restarts: 20, workers: 30, scripts: 20 }
  const turns = await surviveKills(
    program,
    page,
    kills,
    () => random.unit(),
    (sentence) => console.log(sentence),
  )
  console.log(
    `seed ${seed}: 50 kills of the server, 50 of the database, 30 of the worker, 20 of the script, 20 restarts; ${turns} turns made, ${turns} stored once and in order, all sent without a reload`,
  )
} finally {
  await browser.close()
  await program.end()
}
