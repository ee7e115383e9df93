import { expect, test } from './fixtures'
import { Program, surviveKills } from './kills'

test('killed again and again in mid-solve: nothing is lost, nothing doubled, all sent without a reload', async ({
  page,
  allowed,
}) => {
  allowed.patterns.push(/Failed to (fetch|load resource)|ERR_|network/i)
  const program = new Program()
  let seed = 7
  const random = () => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647
  try {
    await program.start()
    const turns = await surviveKills(
      program,
      page,
      { servers: 2, databases: 2, restarts: 1, workers: 1, scripts: 1 },
      random,
    )
    expect(turns).toBeGreaterThan(20)
  } finally {
    await program.end()
  }
})
