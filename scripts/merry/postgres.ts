/**
 * A private PostgreSQL server on loopback, with its data in the project's own folder. Other clusters
 * of the machine are never touched.
 */
import { createHash } from 'node:crypto'
import { chmodSync, existsSync, mkdirSync, readFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { dirname, resolve } from 'node:path'
import { isRoot, quietly } from './run'
import { say, Trouble } from './say'

export interface Server {
  readonly port: number
  readonly url: (database: string) => string
  /** Stops the server if this process has started it. */
  readonly stop: () => void
}

export async function startPostgres(
  programs: string,
  name: string,
  settings: readonly string[] = [],
): Promise<Server> {
  const data = dataFolder(name)
  if (!existsSync(`${data}/PG_VERSION`)) {
    const made = asOwner(`${programs}/initdb`, [
      ...['-D', data, '-U', 'postgres', '-A', 'trust', '-E', 'UTF8'],
      ...['--locale=C.UTF-8', '--no-instructions'],
    ])
    if (!made.ok)
      throw new Trouble(`The database could not be created in ${data}: ${lastLine(made.output)}`)
  }
  const running = runningPort(data)
  if (running !== undefined) return server(running, () => undefined)
  const port = await freePort()
  const options = [`-p ${port}`, '-c listen_addresses=127.0.0.1', '-c unix_socket_directories=']
    .concat(settings.map((setting) => `-c ${setting}`))
    .join(' ')
  const control = `${programs}/pg_ctl`
  const log = `${data}/server.log`
  const started = asOwner(control, [
    '-D',
    data,
    '-w',
    '-t',
    '120',
    '-l',
    log,
    '-o',
    options,
    'start',
  ])
  if (!started.ok)
    throw new Trouble(
      `The database server did not start: ${lastLine(started.output)} Its log is ${log}.`,
    )
  return server(port, () => {
    const stopped = asOwner(control, ['-D', data, '-m', 'fast', '-w', 'stop'])
    if (!stopped.ok) say(`the database server did not stop: ${lastLine(stopped.output)}`)
  })
}

/** Stops a server that an earlier run has left behind. True if there was one. */
export function stopPostgres(programs: string, name: string): boolean {
  const data = dataFolder(name)
  if (runningPort(data) === undefined) return false
  return asOwner(`${programs}/pg_ctl`, ['-D', data, '-m', 'fast', '-w', 'stop']).ok
}

const server = (port: number, stop: () => void): Server => ({
  port,
  url: (database) => `postgresql://postgres@127.0.0.1:${port}/${database}`,
  stop,
})

/** `.data/<name>`, or a folder of the system's where the database's own user cannot enter that. */
function dataFolder(name: string): string {
  const own = resolve('.data', name)
  mkdirSync(dirname(own), { recursive: true })
  if (!isRoot) {
    mkdirSync(own, { recursive: true, mode: 0o700 })
    return own
  }
  mkdirSync(own, { recursive: true })
  if (quietly('runuser', ['-u', 'postgres', '--', 'test', '-x', dirname(own)], '/').ok)
    return give(own)
  const mark = createHash('sha256').update(resolve('.')).digest('hex').slice(0, 8)
  const elsewhere = `/var/lib/merry-lantern/${mark}-${name}`
  say(`the user postgres cannot enter ${dirname(own)}, so the data is kept in ${elsewhere}`)
  mkdirSync(elsewhere, { recursive: true })
  return give(elsewhere)
}

function give(folder: string): string {
  const given = quietly('chown', ['postgres', folder])
  if (!given.ok) throw new Trouble(`The folder ${folder} could not be given to the user postgres.`)
  chmodSync(folder, 0o700)
  return folder
}

/** As root the server's programs must run as postgres, from a folder that it can enter. */
const asOwner = (program: string, args: readonly string[]) =>
  isRoot
    ? quietly('runuser', ['-u', 'postgres', '--', program, ...args], '/')
    : quietly(program, args, '/')

/** The port of a server that already runs on this data, from line 4 of its pid file. */
function runningPort(data: string): number | undefined {
  const file = `${data}/postmaster.pid`
  if (!existsSync(file)) return undefined
  const lines = readFileSync(file, 'utf8').split('\n')
  try {
    process.kill(Number(lines[0]), 0)
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'EPERM') return undefined
  }
  return Number(lines[3])
}

export function freePort(): Promise<number> {
  return new Promise((found, reject) => {
    const probe = createServer()
    probe.on('error', reject)
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address()
      probe.close(() => found(typeof address === 'object' && address ? address.port : 0))
    })
  })
}

export function isPortFree(port: number): Promise<boolean> {
  return new Promise((found) => {
    const probe = createServer()
    probe.on('error', () => found(false))
    probe.listen(port, '127.0.0.1', () => probe.close(() => found(true)))
  })
}

const lastLine = (output: string): string => output.trim().split('\n').at(-1) ?? ''
