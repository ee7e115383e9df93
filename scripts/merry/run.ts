/** Running other programs. */
import { spawn, spawnSync, type SpawnOptions } from 'node:child_process'

export const isRoot = process.getuid?.() === 0

/** Runs to the end, its output passed on; the exit code is returned. */
export function run(
  command: string,
  args: readonly string[],
  options: SpawnOptions = {},
): Promise<number> {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { stdio: 'inherit', ...options })
    child.on('error', reject)
    child.on('exit', (code, signal) => resolve(code ?? (signal === 'SIGINT' ? 130 : 1)))
  })
}

/** Runs quietly; output and exit code are returned. */
export function quietly(command: string, args: readonly string[], cwd?: string, input?: string) {
  const done = spawnSync(command, args, { encoding: 'utf8', cwd, input })
  return { ok: done.status === 0, output: `${done.stdout ?? ''}${done.stderr ?? ''}` }
}
