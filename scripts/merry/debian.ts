/** Installs what is missing from Debian: the PostgreSQL server and Chromium. */
import { existsSync, readdirSync } from 'node:fs'
import { isRoot, quietly, run } from './run'
import { say, Trouble } from './say'

const POSTGRES_ROOT = '/usr/lib/postgresql'
export const CHROMIUM = '/usr/bin/chromium'

/** The folder of the newest installed PostgreSQL server's programs, or undefined. */
export function postgresPrograms(): string | undefined {
  if (!existsSync(POSTGRES_ROOT)) return undefined
  return readdirSync(POSTGRES_ROOT)
    .sort((a, b) => Number(b) - Number(a))
    .map((version) => `${POSTGRES_ROOT}/${version}/bin`)
    .find((folder) => existsSync(`${folder}/postgres`) && existsSync(`${folder}/initdb`))
}

export async function needPostgres(): Promise<string> {
  const found = postgresPrograms()
  if (found) return found
  // Without this Debian would create and start a cluster of its own, which is not ours to do.
  await asRoot('mkdir', ['-p', '/etc/postgresql-common'])
  await asRoot('sh', [
    '-c',
    'test -e /etc/postgresql-common/createcluster.conf || echo "create_main_cluster = false" > /etc/postgresql-common/createcluster.conf',
  ])
  await install('postgresql')
  const installed = postgresPrograms()
  if (!installed)
    throw new Trouble('PostgreSQL was installed, but its server program is not there.')
  return installed
}

export async function needChromium(): Promise<void> {
  if (!existsSync(CHROMIUM)) await install('chromium')
  if (!existsSync(CHROMIUM))
    throw new Trouble('Chromium was installed, but its program is not there.')
}

async function install(name: string): Promise<void> {
  if (!quietly('sh', ['-c', 'command -v apt-get']).ok)
    throw new Trouble(`The package ${name} is missing, and this is no Debian. Install it by hand.`)
  say(`installing ${name} from Debian`)
  const options = ['-o', 'DPkg::Lock::Timeout=600', '-q']
  await asRoot('apt-get', [...options, 'update'])
  const code = await asRoot('env', [
    'DEBIAN_FRONTEND=noninteractive',
    'apt-get',
    ...options,
    'install',
    '-y',
    '--no-install-recommends',
    name,
  ])
  if (code !== 0)
    throw new Trouble(
      `The package ${name} could not be installed. Is the network there? The lines above say what Debian found.`,
    )
}

function asRoot(command: string, args: readonly string[]): Promise<number> {
  if (isRoot) return run(command, args, { stdio: ['ignore', 2, 2] })
  if (!quietly('sh', ['-c', 'command -v sudo']).ok)
    throw new Trouble(
      'Something is missing from Debian, and there is no sudo to install it. Run this once as root.',
    )
  return run('sudo', [command, ...args], { stdio: ['inherit', 2, 2] })
}
