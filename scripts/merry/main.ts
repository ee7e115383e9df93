/** `./merry demo | dev | test | bench | stop`: what the README's commands do. */
import { spawn } from 'node:child_process'
import { needChromium, needPostgres, postgresPrograms } from './debian'
import { freePort, isPortFree, startPostgres, stopPostgres, type Server } from './postgres'
import { run } from './run'
import { say, Trouble } from './say'

const PORT = Number(process.env.PORT ?? 3600)
const NEXT = 'node_modules/next/dist/bin/next'

async function database(): Promise<{ url: string; stop: () => void }> {
  if (process.env.DATABASE_URL) return { url: process.env.DATABASE_URL, stop: () => undefined }
  const server = await startPostgres(await needPostgres(), 'postgres')
  return { url: server.url('merry'), stop: server.stop }
}

async function prepare(url: string): Promise<void> {
  await step(
    'scripts/merry/prepare.ts',
    [],
    { DATABASE_URL: url },
    'The database could not be prepared.',
  )
}

async function step(file: string, args: string[], env: Record<string, string>, trouble: string) {
  const code = await run('node', ['--import', 'tsx', file, ...args], {
    env: { ...process.env, ...env },
  })
  if (code !== 0) throw new Trouble(trouble)
}

async function serve(mode: 'start' | 'dev'): Promise<number> {
  if (!(await isPortFree(PORT)))
    throw new Trouble(
      `Port ${PORT} is taken. Stop what uses it, or choose another: PORT=3601 ./merry demo`,
    )
  const { url, stop } = await database()
  try {
    await prepare(url)
    const env: NodeJS.ProcessEnv = { ...process.env, DATABASE_URL: url }
    if (mode === 'start') {
      say('building')
      if ((await run('node', [NEXT, 'build'], { env, stdio: ['ignore', 2, 2] })) !== 0)
        throw new Trouble('The application could not be built. The lines above say where.')
    }
    const child = spawn('node', [NEXT, mode, '-H', '127.0.0.1', '-p', `${PORT}`], {
      env,
      stdio: 'inherit',
    })
    const ended = new Promise<number>((done) => child.on('exit', (code) => done(code ?? 0)))
    // Ctrl+C reaches the child too; it ends, and then the database is stopped.
    for (const signal of ['SIGINT', 'SIGTERM'] as const)
      process.on(signal, () => child.kill(signal))
    say(`Merry Lantern is at http://localhost:${PORT} (Ctrl+C stops it)`)
    await ended
    return 0
  } finally {
    stop()
  }
}

async function test(): Promise<number> {
  await needChromium()
  const server: Server = await startPostgres(await needPostgres(), 'postgres-test', [
    'fsync=off',
    'synchronous_commit=off',
    'full_page_writes=off',
    'max_connections=200',
  ])
  const port = await freePort()
  const env = { ...process.env, TEST_DATABASE_URL: server.url('postgres'), TEST_PORT: `${port}` }
  try {
    const parts: [string, string[]][] = [
      ['check', ['npm', 'run', '--silent', 'check']],
      ['unit and database tests', ['npx', 'vitest', 'run']],
      ['build', ['node', NEXT, 'build']],
      ['browser tests', ['npx', 'playwright', 'test']],
    ]
    for (const [name, [command, ...args]] of parts) {
      say(name)
      const code = await run(command, args, { env })
      if (code !== 0) {
        say(`${name}: failed`)
        return 1
      }
    }
    say('everything passed')
    return 0
  } finally {
    server.stop()
  }
}

/** Figures of the core, then of the built application on a database of its own. */
async function bench(): Promise<number> {
  await needChromium()
  const server = await startPostgres(await needPostgres(), 'postgres-bench')
  const url = server.url('merry')
  const port = await freePort()
  const address = `http://127.0.0.1:${port}`
  const env = { ...process.env, DATABASE_URL: url, BENCH_ADDRESS: address }
  let child: ReturnType<typeof spawn> | undefined
  try {
    await prepare(url)
    if ((await run('node', [NEXT, 'build'], { env, stdio: ['ignore', 2, 2] })) !== 0)
      throw new Trouble('The application could not be built. The lines above say where.')
    child = spawn('node', [NEXT, 'start', '-H', '127.0.0.1', '-p', `${port}`], {
      env,
      stdio: 'ignore',
    })
    return await run('npx', ['tsx', 'scripts/bench.ts', ...process.argv.slice(3)], { env })
  } finally {
    child?.kill()
    server.stop()
  }
}

function stopAll(): number {
  const programs = postgresPrograms()
  const stopped = programs
    ? ['postgres', 'postgres-test', 'postgres-bench'].filter((name) => stopPostgres(programs, name))
    : []
  say(stopped.length > 0 ? 'the database server is stopped' : 'nothing was running')
  return 0
}

const commands: Record<string, () => Promise<number> | number> = {
  demo: () => serve('start'),
  dev: () => serve('dev'),
  test,
  bench,
  stop: stopAll,
}

try {
  const command = commands[process.argv[2] ?? '']
  if (!command)
    throw new Trouble('Say ./merry demo, ./merry dev, ./merry test, ./merry bench or ./merry stop.')
  process.exitCode = await command()
} catch (error) {
  if (!(error instanceof Trouble)) throw error
  say(error.message)
  process.exitCode = 1
}
