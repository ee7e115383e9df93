/** The build of the application, made only where something that it is made of has changed. */
import { createHash } from 'node:crypto'
import { existsSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { NEXT } from './application'
import { run } from './run'
import { say, Trouble } from './say'

/** What goes into it. */
const MADE_OF = [
  'src',
  'public',
  'package-lock.json',
  'next.config.ts',
  'postcss.config.mjs',
  'tsconfig.json',
]

/** Tests, and what runs beside it. */
const NOT_IN_IT = /[.](test|testing)[.]tsx?$|^src\/(front|cli)$/

/** What a build was made of, in one word; with what its processes agree on. */
function markOf(env: NodeJS.ProcessEnv): string {
  const hash = createHash('sha256')
  hash.update(`${process.version} ${env.NEXT_SERVER_ACTIONS_ENCRYPTION_KEY}`)
  const add = (path: string) => {
    if (!existsSync(path) || NOT_IN_IT.test(path)) return
    const names = folderOf(path)
    if (names) for (const name of names) add(join(path, name))
    else hash.update(`\n${path}\n`).update(readFileSync(path))
  }
  MADE_OF.forEach(add)
  return hash.digest('hex')
}

function folderOf(path: string): string[] | undefined {
  try {
    return readdirSync(path).sort()
  } catch {
    return undefined
  }
}

/** Where builds are kept, and the mark of each beside it. */
const folder = (env: NodeJS.ProcessEnv): string => env.MERRY_BUILD ?? '.next'

export async function build(env: NodeJS.ProcessEnv): Promise<void> {
  const mark = markOf(env)
  const kept = `${folder(env)}/made-of`
  if (existsSync(kept) && readFileSync(kept, 'utf8') === mark) return
  // One that breaks off is none.
  rmSync(kept, { force: true })
  say('building')
  if ((await run('node', [NEXT, 'build'], { env, stdio: ['ignore', 2, 2] })) !== 0)
    throw new Trouble('The application could not be built. The lines above say where.')
  writeFileSync(kept, mark)
}
