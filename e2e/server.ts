/** The built application on the tests' database: each worker starts and stops one of its own. */
import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { mkdirSync, openSync } from 'node:fs'
import { freePort } from '../scripts/merry/ports'

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

const serverEnv = (): NodeJS.ProcessEnv => ({
  ...process.env,
  DATABASE_URL: databaseUrl(),
  NEXT_TELEMETRY_DISABLED: '1',
  NODE_ENV: 'production',
})

/** What reads files, for all servers, and leaves what keeps a processor busy; the function that is returned ends it. */
export function startWorker(): () => void {
  const log = openSync('.data/e2e-worker.log', 'a')
  const child = spawn('node', ['--import', 'tsx', 'scripts/work.ts', '--files'], {
    stdio: ['ignore', log, log],
    env: serverEnv(),
  })
  return () => void child.kill('SIGTERM')
}

export class TestServer {
  private child?: ChildProcess
  private port = 0

  constructor(private readonly index: number) {}

  get address(): string {
    return `http://127.0.0.1:${this.port}`
  }

  async start(): Promise<void> {
    if (this.port === 0) this.port = await freePort()
    mkdirSync('.data', { recursive: true })
    const path = `.data/e2e-server-${this.index}.log`
    const log = openSync(path, 'a')
    this.child = spawn('node', ['--import', 'tsx', 'scripts/serve.ts', 'start', `${this.port}`], {
      stdio: ['ignore', log, log],
      env: serverEnv(),
    })
    // Beside the other tests, on two cores, a first start can take minutes.
    for (let tries = 0; tries < 400; tries++) {
      const answer = await fetch(`${this.address}/solvers`).catch(() => undefined)
      if (answer?.ok) return
      if (this.child.exitCode !== null) break
      await new Promise((wait) => setTimeout(wait, 500))
    }
    throw new Error(`the server did not start; its log is ${path}`)
  }

  async stop(): Promise<void> {
    const { child } = this
    if (!child || child.exitCode !== null) return
    const ended = new Promise<void>((done) => child.on('exit', () => done()))
    child.kill('SIGTERM')
    // One that does not end in time is ended.
    const timer = setTimeout(() => child.kill('SIGKILL'), 15_000)
    await ended
    clearTimeout(timer)
  }
}
