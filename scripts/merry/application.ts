/** The built application as a process of its own: started, watched over, ended. */
import { spawn, type ChildProcess } from 'node:child_process'
import { endGroup, endsWithin, processOf, type Process } from './running'

export const NEXT = 'node_modules/next/dist/bin/next'

export interface Application {
  readonly process: Process
  readonly ended: Promise<void>
  /** Lets it finish what it is doing, but not for ever. */
  readonly stop: () => Promise<void>
}

const PATIENCE_MS = 4000

export async function startApplication(
  mode: 'start' | 'dev',
  port: number,
  env: NodeJS.ProcessEnv,
  processes = 1,
): Promise<Application> {
  const modeEnv = mode === 'start' ? 'production' : 'development'
  return inGroup(['--import', 'tsx', 'scripts/serve.ts', mode, `${port}`, `${processes}`], {
    ...env,
    NODE_ENV: modeEnv,
  })
}

/** Resolves when it answers, or has ended. */
export async function answers(port: number, application?: Application): Promise<void> {
  let isOver = false
  void application?.ended.then(() => (isOver = true))
  while (!isOver) {
    const answer = await fetch(`http://127.0.0.1:${port}/solvers`).catch(() => undefined)
    if (answer) return
    await new Promise((wait) => setTimeout(wait, 100))
  }
}

/** Takes the heavy work, so that pages need not wait for it. */
export const startWorker = (env: NodeJS.ProcessEnv): Promise<Application> =>
  inGroup(['--import', 'tsx', 'scripts/work.ts'], env)

async function inGroup(args: readonly string[], env: NodeJS.ProcessEnv): Promise<Application> {
  // A group of its own: Ctrl+C reaches the script alone, which ends it in order.
  const child = spawn('node', args, {
    env,
    stdio: ['ignore', 'inherit', 'inherit'],
    detached: true,
  })
  const ended = new Promise<void>((done) => child.on('exit', () => done()))
  const process = await started(child)
  return {
    process,
    ended,
    stop: async () => {
      endGroup(process, 'SIGTERM')
      // A connection that is busy would keep it waiting.
      if (!(await endsWithin(process, PATIENCE_MS))) endGroup(process)
      await ended
    },
  }
}

const started = (child: ChildProcess): Promise<Process> =>
  new Promise((resolve, reject) => {
    child.on('error', reject)
    child.on('spawn', () => {
      const found = processOf(child.pid ?? 0)
      if (found) resolve(found)
      else reject(new Error('it ended at once'))
    })
  })
