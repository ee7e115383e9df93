/** Judges on the engine, in a thread, what was laid out: with a limit of time, and one after another. */
import { Worker } from 'node:worker_threads'
import { CATALOG_IDS, definitionById } from '../core/catalog'
import { splitId } from '../core/catalog/setting'
import { fail, type Result } from '../core/result'
import type { Judged, Question } from './judging.thread'

/** A box of seven layers takes 20 s the first time on a slow machine. */
const LIMIT_MS = 90_000
/** More wait for no one. */
const MOST_WAITING = 4

let thread: Worker | undefined
let line: Promise<unknown> = Promise.resolve()
let waiting = 0

export function judged(puzzleId: string, asked: Question['asked']): Promise<Result<Judged>> {
  if (waiting >= MOST_WAITING)
    return Promise.resolve(
      fail('busy', 'Other positions are being judged just now. Try again in a moment.'),
    )
  const { file } = splitId(puzzleId)
  const own = CATALOG_IDS.includes(file) ? undefined : definitionById(file)
  waiting++
  const answer = line.then(() => ask({ puzzleId, own, asked })).finally(() => waiting--)
  line = answer.catch(() => undefined)
  return answer
}

function ask(question: Question): Promise<Result<Judged>> {
  const worker = (thread ??= new Worker(new URL('./judging.thread.ts', import.meta.url)))
  return new Promise((resolve, reject) => {
    const settle = (isUsable: boolean) => {
      clearTimeout(timer)
      worker.off('message', onAnswer)
      worker.off('error', onError)
      worker.off('exit', onExit)
      if (isUsable) return
      thread = undefined
      void worker.terminate()
    }
    const onAnswer = (result: Result<Judged>) => {
      settle(true)
      resolve(result)
    }
    const onError = (error: Error) => {
      settle(false)
      reject(error)
    }
    const onExit = () => onError(new Error('the thread that judges has ended'))
    const timer = setTimeout(() => {
      settle(false)
      resolve(
        fail(
          'too-long',
          `It could not be judged in ${LIMIT_MS / 1000} seconds, so it is not put on the bench.`,
        ),
      )
    }, LIMIT_MS)
    worker.on('message', onAnswer)
    worker.on('error', onError)
    worker.on('exit', onExit)
    worker.postMessage(question)
  })
}
