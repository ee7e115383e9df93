/** The built application on a database of its own, started and stopped by the tests themselves. */
import { spawn, spawnSync } from 'node:child_process'
import { mkdirSync, openSync, readFileSync, rmSync, writeFileSync } from 'node:fs'

const PID_FILE = '.data/e2e-server.pid'
const LOG_FILE = '.data/e2e-server.log'
const PORT = process.env.TEST_PORT ?? '3601'

export function databaseUrl(): string {
  const url = process.env.TEST_DATABASE_URL
  if (!url) throw new Error('TEST_DATABASE_URL is not set: run the tests with ./merry test')
  return url.replace(/\/[^/]*$/, '/merry_e2e')
}

/** A fresh database with the demo in it. */
export function prepareDatabase(): void {
  const run = spawnSync('node', ['--import', 'tsx', 'e2e/prepare.ts'], {
    encoding: 'utf8',
    env: { ...process.env, DATABASE_URL: databaseUrl() },
  })
  if (run.status !== 0) throw new Error(`the database could not be prepared: ${run.stderr}`)
}

export async function startServer(): Promise<void> {
  mkdirSync('.data', { recursive: true })
  const log = openSync(LOG_FILE, 'a')
  const child = spawn(
    'node',
    ['node_modules/next/dist/bin/next', 'start', '-H', '127.0.0.1', '-p', PORT],
    {
      detached: true,
      stdio: ['ignore', log, log],
      env: { ...process.env, DATABASE_URL: databaseUrl(), NEXT_TELEMETRY_DISABLED: '1' },
    },
  )
  child.unref()
  writeFileSync(PID_FILE, `${child.pid}`)
  for (let tries = 0; tries < 120; tries++) {
    try {
      const answer = await fetch(`http://127.0.0.1:${PORT}/shelf`)
      if (answer.ok) return
    } catch {
      // Not listening yet.
    }
    await new Promise((wait) => setTimeout(wait, 500))
  }
  throw new Error(`the server did not start; its log is ${LOG_FILE}`)
}

export async function stopServer(): Promise<void> {
  const pid = Number(readFileSync(PID_FILE, 'utf8'))
  process.kill(-pid, 'SIGTERM')
  for (let tries = 0; tries < 60; tries++) {
    try {
      process.kill(pid, 0)
    } catch {
      rmSync(PID_FILE, { force: true })
      return
    }
    await new Promise((wait) => setTimeout(wait, 250))
  }
  process.kill(-pid, 'SIGKILL')
}
