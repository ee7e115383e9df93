import { createServer, type Server } from 'node:http'
import type { Page } from '@playwright/test'
import { sql } from './database'
import { expect, layOut, nextButton, test, toBench } from './fixtures'

const isKept = (page: Page) => expect(page.getByText('saved', { exact: true })).toBeVisible()
const turns = (page: Page, count: number) =>
  expect(page.getByText(`${count} turns`, { exact: true })).toBeVisible()

async function freeBench(page: Page): Promise<string> {
  await layOut(page, 'Chart-room cube')
  await page.getByLabel('Or your own turns').fill("R U F' L2 D B")
  await page.getByLabel('School').selectOption({ label: 'None: free play' })
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  await expect(page.getByText('Free play', { exact: false }).first()).toBeVisible()
  await expect(page.locator('canvas[data-ready]')).toBeVisible()
  return page.url()
}

const storedEvents = async (address: string): Promise<number> =>
  (
    await sql('select 1 from bench_events where session_id = $1', [
      /bench\/([0-9a-f-]+)/.exec(address)?.[1],
    ])
  ).length

const storedTurns = async (address: string): Promise<string[]> =>
  (
    await sql<{ name: string }>(
      `select event->>'name' as name from bench_events
       where session_id = $1 and event->>'kind' = 'turn' order by seq`,
      [/bench\/([0-9a-f-]+)/.exec(address)?.[1]],
    )
  ).map(({ name }) => name)

test('two pages on one bench: each sees the other’s turns, and none is lost or doubled', async ({
  page,
  context,
  allowed,
}) => {
  allowed.patterns.push(/ERR_INTERNET_DISCONNECTED|ERR_FAILED/)
  const address = await freeBench(page)
  const second = await context.newPage()
  await second.goto(address)
  await expect(second.locator('canvas[data-ready]')).toBeVisible()
  // Both turn while neither hears of the other.
  await context.setOffline(true)
  for (const key of ['r', 'u', 'f', 'd', 'l']) await page.keyboard.press(key)
  for (const key of ['Shift+r', 'b', 'u', 'Shift+f', 'Shift+d']) await second.keyboard.press(key)
  await turns(page, 5)
  await turns(second, 5)
  await context.setOffline(false)
  await turns(page, 10)
  await turns(second, 10)
  await isKept(page)
  await isKept(second)
  const stored = await storedTurns(address)
  const one = ['R', 'U', 'F', 'D', 'L']
  const other = ["R'", 'B', 'U', "F'", "D'"]
  expect([one.concat(other).join(), other.concat(one).join()]).toContain(stored.join())
  const told = async () => {
    const words = await Promise.all(
      [page, second].map((each) => each.getByText(/Another page of this bench turned/).count()),
    )
    return words[0] + words[1]
  }
  await expect.poll(told).toBeGreaterThan(0)
  // Afterwards they follow each other.
  await page.keyboard.press('r')
  await turns(second, 11)
  await second.keyboard.press('Shift+Space')
  await turns(page, 10)
  expect(await storedTurns(address)).toEqual([...stored, 'R'])
})

test('turns of a page that was closed before it could send come behind what others did since', async ({
  page,
  context,
}) => {
  const address = await freeBench(page)
  const closed = await context.newPage()
  await closed.goto(address)
  await expect(closed.locator('canvas[data-ready]')).toBeVisible()
  // This page alone hears nothing any more.
  await closed.route('**/api/bench/**', (route) => route.abort())
  await closed.keyboard.press('u')
  await expect(closed.getByText('1 not saved yet')).toBeVisible()
  await closed.close()
  await page.keyboard.press('r')
  await isKept(page)
  const later = await context.newPage()
  await later.goto(address)
  await turns(later, 2)
  await expect(
    later.getByText('Another page of this bench turned R. Your turns come after it.'),
  ).toBeVisible()
  await isKept(later)
  await turns(page, 2)
  expect(await storedTurns(address)).toEqual(['R', 'U'])
  // Told once, and given up by the browser.
  await later.reload()
  await turns(later, 2)
  await expect(later.getByText(/Another page of this bench/)).toBeHidden()
})

for (const kind of ['full', 'blocked'] as const)
  test(`a browser storage that is ${kind}: every turn is sent, and the page says what it cannot keep`, async ({
    page,
    context,
    allowed,
  }) => {
    allowed.patterns.push(/ERR_INTERNET_DISCONNECTED|ERR_FAILED/)
    await page.addInitScript((how) => {
      if (how === 'full')
        Storage.prototype.setItem = () => {
          throw new DOMException('full', 'QuotaExceededError')
        }
      else
        Object.defineProperty(window, 'localStorage', {
          get: () => {
            throw new DOMException('blocked', 'SecurityError')
          },
        })
    }, kind)
    const address = await freeBench(page)
    for (const key of ['r', 'u', 'f']) await page.keyboard.press(key)
    await turns(page, 3)
    await isKept(page)
    await context.setOffline(true)
    await page.keyboard.press('d')
    await expect(page.getByText(/leave the page open until it says saved/)).toBeVisible()
    await context.setOffline(false)
    await isKept(page)
    expect(await storedTurns(address)).toEqual(['R', 'U', 'F', 'D'])
  })

test('while the database is away the bench goes on, says what is not kept, and sends it afterwards', async ({
  page,
  context,
  allowed,
}) => {
  allowed.patterns.push(/503/)
  await toBench(page, "R U F' R2 U' F", 'Layer by layer')
  const address = page.url()
  await isKept(page)
  const before = await storedEvents(address)
  // The server answers as it does without its database.
  await context.route('**/api/bench/**', (route) =>
    route.fulfill({ status: 503, json: { ok: false, problem: { code: 'away', sentence: '' } } }),
  )
  await nextButton(page).click()
  await nextButton(page).click()
  await expect(page.getByText('2 not saved yet')).toBeVisible()
  await context.unroute('**/api/bench/**')
  await isKept(page)
  expect(await storedEvents(address)).toBe(before + 2)
})

/** A page of another site, at another port of this machine. */
async function otherSite(html: string): Promise<{ server: Server; address: string }> {
  const server = createServer((_, response) => {
    response.setHeader('content-type', 'text/html')
    response.end(html)
  })
  await new Promise<void>((go) => server.listen(0, '127.0.0.1', go))
  const address = server.address()
  return { server, address: `http://127.0.0.1:${typeof address === 'object' ? address?.port : 0}` }
}

test('another site’s form, script and frame get nothing', async ({
  page,
  baseURL,
  solver,
  allowed,
}) => {
  allowed.patterns.push(/403|frame|Refused|CORS|ERR_BLOCKED|ERR_FAILED|content security/i)
  const [{ count }] = await sql<{ count: string }>(
    'select count(*) from solves where profile_id = $1',
    [solver.id],
  )
  const log = '{"format":"merry-lantern-log","version":1,"solves":[]}'
  const { server, address } = await otherSite(`
    <form method="post" enctype="text/plain" action="${baseURL}/api/log">
      <input name='${log.slice(0, -1)},"x":"' value='"}'><button>Send</button>
    </form>
    <iframe src="${baseURL}/shelf"></iframe>`)
  try {
    await page.goto(address)
    await page.evaluate(
      ([target, body]) => fetch(target, { method: 'POST', mode: 'no-cors', body }).catch(() => 0),
      [`${baseURL}/api/log`, log],
    )
    const read = await page.evaluate(
      (target) =>
        fetch(target).then(
          () => 'read',
          () => 'refused',
        ),
      `${baseURL}/api/log`,
    )
    expect(read).toBe('refused')
    expect(await page.frames()[1]?.title()).not.toContain('Merry Lantern')
    await page.getByRole('button', { name: 'Send' }).click()
    await expect(page.getByText(/Another site may not change anything here/)).toBeVisible()
  } finally {
    server.close()
  }
  expect(await sql('select count(*) from solves where profile_id = $1', [solver.id])).toEqual([
    { count },
  ])
})

test('a name that another site has pointed here gets nothing', async ({ request, baseURL }) => {
  for (const path of ['/shelf', '/api/log']) {
    const answer = await request.get(`${baseURL}${path}`, { headers: { host: 'rebound.example' } })
    expect(answer.status(), path).toBe(403)
    expect(await answer.text()).toContain('under a name that is not its own')
  }
})

test('what is damaged is shown with what is wrong, and takes no page with it', async ({ page }) => {
  const copy = await layOut(page, 'Reading-room cube')
  const bench = await layOut(page, 'Sail')
  const [{ profile_id: profile }] = await sql<{ profile_id: string }>(
    'select profile_id from copies where id = $1',
    [copy.id],
  )
  await sql(`update copies set puzzle_id = 'own-0000' where id = $1`, [copy.id])
  const [{ id }] = await sql<{ id: string }>(
    `insert into bench_sessions (profile_id, copy_id, start_state, laid_by)
     values ($1, $2, 'nonsense', 'pieces') returning id`,
    [profile, bench.id],
  )
  await sql(`insert into own_puzzles (profile_id, id, definition) values ($1, 'own-0001', $2)`, [
    profile,
    '{"schema":1,"id":"dup","name":"Double cap","mechanism":{"kind":"capped","caps":["right","right"]}}',
  ])
  await page.goto('/shelf')
  const broken = page.getByRole('listitem')
  await expect(broken.filter({ hasText: `${copy.name} is damaged. No puzzle here` })).toBeVisible()
  await expect(
    broken.filter({ hasText: /Double cap is damaged.*names a face twice/ }),
  ).toBeVisible()
  const card = broken.filter({ hasText: bench.name }).last()
  await expect(card).toContainText('Its bench is damaged. Its start cannot be read')
  await expect(
    page.getByRole('link', { name: 'Go on at the bench with Reading-room cube' }),
  ).toBeVisible()
  for (const address of [`/lay-out/${copy.id}`, `/anatomy/${copy.id}`, `/bench/${id}`]) {
    await page.goto(address)
    await expect(page.getByText('What stands here is damaged.')).toBeVisible()
  }
  const coming = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Export it' }).click()
  expect((await coming).suggestedFilename()).toBe('merry-lantern-copy.json')
  await page.goto('/shelf')
  await card.getByRole('button', { name: 'Remove the bench' }).click()
  await expect(card.getByRole('link', { name: 'Lay out' })).toBeVisible()
  await expect(card).not.toContainText('damaged')
  await page.getByRole('button', { name: `Remove ${copy.name} and its benches` }).click()
  await page.getByRole('button', { name: 'Forget Double cap' }).click()
  await expect(page.getByText('What cannot be read')).toBeHidden()
})

test('a hostile address is answered, and holds up nobody', async ({ page, allowed }) => {
  allowed.patterns.push(/404|400/)
  await page.goto('/anatomy/cube-3?turns=((((R)999)999)999)0')
  await expect(page.getByRole('heading', { name: '3x3x3' })).toBeVisible()
  await page.goto('/anatomy/constructor')
  await expect(page.getByRole('heading', { name: 'Nothing stands here' })).toBeVisible()
  for (const path of ['/anatomy/%E0%A4%A', '/bench/%00', '/log/%E0%A4%A', '/lay-out/__proto__']) {
    const answer = await page.goto(path)
    expect(answer?.status() ?? 0, path).toBeLessThan(500)
  }
})
