/** `./merry demo | serve | dev | test | bench | work | stop`: what the README's commands do. */
import { openSync, readFileSync } from 'node:fs'
import { answers, startApplication, startWorker, type Application } from './application'
import { build } from './build'
import { needChromium, needPostgres, postgresPrograms } from './debian'
import { keepAll, type Kept } from './keepUp'
import { dataPath, keptSecret } from './place'
import { freePort, isPortFree } from './ports'
import { DATABASE, startPostgres, stopPostgres, type Server } from './postgres'
import { run } from './run'
import { claim, endGroup, endsWithin, isAlive, note, readRunning, unclaim } from './running'
import { say, Trouble } from './say'

const PORT = Number(process.env.PORT ?? 3600)
if (!Number.isInteger(PORT) || PORT < 1 || PORT > 65_535)
  throw new Error('PORT must be a whole number from 1 to 65535')

/** How many processes answer, on the same address. */
const PROCESSES = processesAsked()

function processesAsked(): number {
  const at = process.argv.indexOf('--processes')
  const asked = at < 0 ? 1 : Number(process.argv[at + 1])
  if (!Number.isInteger(asked) || asked < 1 || asked > 64)
    throw new Error('--processes must be a whole number from 1 to 64')
  return asked
}

/** The build of the tests is one of its own, so that a demo that runs here goes on undisturbed. */
const TEST_BUILD = '.next-test'

/**
 * Names of server actions, and what they carry, are made with this key: kept with the data it makes a page that
 * was opened before a new build understood after it.
 */
const buildEnv = (): NodeJS.ProcessEnv => ({
  ...process.env,
  NEXT_SERVER_ACTIONS_ENCRYPTION_KEY: keptSecret('actions.key', 32, 'base64'),
})

async function database(isSole: boolean): Promise<Server | undefined> {
  return process.env.DATABASE_URL
    ? undefined
    : startPostgres(await needPostgres(), 'postgres', {}, isSole)
}

async function prepare(url: string): Promise<void> {
  const { prepareDatabase } = await import('./prepare')
  try {
    await prepareDatabase(url)
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error)
    throw new Trouble(`The database could not be prepared: ${why}`)
  }
}

const DEMO = 'demo'

/** A promise that Ctrl+C, or a request to end, resolves; whatever is under way is then ended in order. */
function interruption(): { readonly asked: Promise<void>; readonly isAsked: () => boolean } {
  let isAsked = false
  const asked = new Promise<void>((resolve) => {
    for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const)
      process.on(signal, () => {
        isAsked = true
        resolve()
      })
  })
  return { asked, isAsked: () => isAsked }
}

/** What was just ended, because a script that was killed had left it behind, may hold the port for a moment more. */
async function comesFree(port: number): Promise<boolean> {
  for (let tries = 0; tries < 20; tries++) {
    if (await isPortFree(port)) return true
    await new Promise((wait) => setTimeout(wait, 100))
  }
  return false
}

async function serve(mode: 'start' | 'dev'): Promise<number> {
  claim(
    DEMO,
    ({ port }) =>
      `Merry Lantern runs in this folder already${port ? `, at http://localhost:${port}` : ''}. Use that, or stop it: ./merry stop`,
  )
  const { asked } = interruption()
  let server: Server | undefined
  let application: Application | undefined
  let worker: Application | undefined
  try {
    if (!(await comesFree(PORT)))
      throw new Trouble(
        `Port ${PORT} is taken. Stop what uses it, or choose another: PORT=${PORT + 1} ./merry demo`,
      )
    server = await database(true)
    const url = process.env.DATABASE_URL ?? server?.url(DATABASE) ?? ''
    await prepare(url)
    const env = { ...buildEnv(), DATABASE_URL: url }
    if (mode === 'start' && !process.env.MERRY_BUILT) await build(env)
    const start = async () => {
      application = await startApplication(mode, PORT, env, PROCESSES)
      note(DEMO, { port: PORT, server: application.process })
    }
    await start()
    const startWork = async () => {
      worker = await startWorker(env)
      note(DEMO, { worker: worker.process })
    }
    await answers(PORT, application)
    // Pages come first.
    await startWork()
    say(`Merry Lantern is at http://localhost:${PORT} (Ctrl+C stops it)`)
    const watched: Kept[] = [
      { name: 'the application', start, ended: () => application?.ended ?? Promise.resolve() },
      {
        name: 'the work beside it',
        start: startWork,
        ended: () => worker?.ended ?? Promise.resolve(),
      },
      ...(server ? [{ name: 'the database', start: server.restart, ended: server.ended }] : []),
    ]
    const trouble = await keepAll(watched, asked)
    if (trouble) throw new Trouble(trouble)
    return 0
  } finally {
    await worker?.stop()
    await application?.stop()
    server?.stop()
    unclaim(DEMO)
  }
}

async function test(): Promise<number> {
  claim('test', () => 'The tests run in this folder already. Wait until they are through.')
  interruption()
  let server: Server | undefined
  try {
    await needChromium()
    server = await startPostgres(await needPostgres(), 'test-database', {
      settings: [
        'fsync=off',
        'synchronous_commit=off',
        'full_page_writes=off',
        'max_connections=200',
      ],
      createsDatabases: true,
    })
    const env = {
      ...buildEnv(),
      TEST_DATABASE_URL: server.url('postgres'),
      MERRY_BUILD: TEST_BUILD,
    }
    const steps: readonly Part[] = [
      { name: 'check', command: ['npm', 'run', '--silent', 'check'] },
      { name: 'browser tests', command: ['npx', 'playwright', 'test'] },
    ]
    // The browser tests wait for a browser most of the time: the others run beside them, behind them in rank.
    const beside = quietPart(
      'unit and database tests',
      ['nice', '-n', '10', 'npx', 'vitest', 'run'],
      env,
    )
    let passed = await part(steps[0], env)
    if (passed) {
      const began = Date.now()
      await build(env)
      told('build', began, 0)
    }
    for (const step of steps.slice(1)) if (passed) passed = await part(step, env)
    passed = (await beside) && passed
    if (!passed) return 1
    say('everything passed')
    return 0
  } finally {
    server?.stop()
    unclaim('test')
  }
}

interface Part {
  readonly name: string
  readonly command: readonly string[]
}

async function part({ name, command: [command, ...args] }: Part, env: NodeJS.ProcessEnv) {
  say(name)
  return told(name, Date.now(), await run(command, args, { env }))
}

/** Runs beside other things: what it says is shown when it has ended. */
async function quietPart(name: string, [command, ...args]: string[], env: NodeJS.ProcessEnv) {
  const path = dataPath('unit-tests.log')
  const log = openSync(path, 'w')
  const began = Date.now()
  const code = await run(command, args, { env, stdio: ['ignore', log, log] })
  process.stdout.write(readFileSync(path, 'utf8'))
  return told(name, began, code)
}

function told(name: string, began: number, code: number): boolean {
  const seconds = Math.round((Date.now() - began) / 1000)
  say(code === 0 ? `${name}: passed in ${seconds} s` : `${name}: failed`)
  return code === 0
}

/** Figures of the core, then of the built application on a database of its own; with --kills that alone. */
async function bench(): Promise<number> {
  claim('bench', () => 'The figures are being measured in this folder already.')
  interruption()
  let server: Server | undefined
  let application: Application | undefined
  let worker: Application | undefined
  try {
    await needChromium()
    const given = process.argv.slice(3)
    if (given.includes('--kills')) {
      await needPostgres()
      const env = { ...buildEnv(), MERRY_BUILD: TEST_BUILD }
      await build(env)
      return await run('npx', ['tsx', 'scripts/benchKills.ts', ...given], { env })
    }
    server = await startPostgres(await needPostgres(), 'bench-database', {
      // How many queries a page makes, and what they cost.
      settings: ['shared_preload_libraries=pg_stat_statements'],
      extensions: ['pg_stat_statements'],
    })
    const url = server.url(DATABASE)
    const port = await freePort()
    const env = {
      ...buildEnv(),
      DATABASE_URL: url,
      BENCH_ADDRESS: `http://127.0.0.1:${port}`,
      MERRY_BUILD: TEST_BUILD,
    }
    await prepare(url)
    await build(env)
    const measure = async (processes: number, title: string): Promise<number> => {
      application = await startApplication('start', port, env, processes)
      await answers(port, application)
      worker = await startWorker(env)
      const measured = {
        ...env,
        BENCH_SERVER: `${application.process.pid}`,
        BENCH_TITLE: title,
      }
      const code = await run('npx', ['tsx', 'scripts/bench.ts', ...given], { env: measured })
      await worker.stop()
      await application.stop()
      return code
    }
    if (!given.includes('--load')) return await measure(1, '')
    // A second process beside the first, on one database, must carry more.
    const one = await measure(1, 'One process')
    return one === 0 ? await measure(2, 'Two processes') : one
  } finally {
    await worker?.stop()
    await application?.stop()
    server?.stop()
    unclaim('bench')
  }
}

/** Takes a share of the heavy work of a program that runs. */
async function work(): Promise<number> {
  const { isAsked } = interruption()
  const server = await database(false)
  const url = process.env.DATABASE_URL ?? server?.url(DATABASE) ?? ''
  const code = await run('node', ['--import', 'tsx', 'scripts/work.ts'], {
    env: { ...process.env, DATABASE_URL: url },
  })
  server?.stop()
  return isAsked() ? 0 : code
}

async function stopAll(): Promise<number> {
  const ended: string[] = []
  const running = readRunning(DEMO)
  if (running && isAlive(running.script)) {
    process.kill(running.script.pid, 'SIGTERM')
    if (!(await endsWithin(running.script, 20_000))) endGroup(running.script)
    ended.push('Merry Lantern')
  }
  for (const left of [running?.server, running?.worker])
    if (left && isAlive(left)) {
      endGroup(left)
      ended.push('a process that was left behind')
    }
  if (running) unclaim(DEMO)
  const programs = postgresPrograms()
  if (programs)
    for (const name of ['postgres', 'test-database', 'bench-database'])
      if (stopPostgres(programs, name)) ended.push('a database server')
  say(ended.length > 0 ? `stopped: ${ended.join(', ')}` : 'nothing was running')
  return 0
}

const commands: Record<string, () => Promise<number> | number> = {
  demo: () => serve('start'),
  serve: () => serve('start'),
  dev: () => serve('dev'),
  test,
  bench,
  work,
  stop: stopAll,
}

try {
  const command = commands[process.argv[2] ?? '']
  if (!command)
    throw new Trouble(
      'Say ./merry demo, ./merry serve, ./merry dev, ./merry test, ./merry bench, ./merry work or ./merry stop.',
    )
  process.exitCode = await command()
} catch (error) {
  if (!(error instanceof Trouble)) throw error
  say(error.message)
  process.exitCode = 1
}
