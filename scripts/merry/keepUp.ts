/** Watches over something that was started: when it ends it is started again, with growing pauses. */
import { say } from './say'

/** Seconds; when it ends once more after the last of them it is given up. */
const PAUSES = [0, 1, 2, 4, 8, 15]
/** What has stayed up so long begins with the shortest pause again. */
const STEADY_MS = 3000

export interface Kept {
  /** What it is called in a sentence. */
  readonly name: string
  /** Starts it; rejects if that fails. */
  readonly start: () => Promise<void>
  /** Resolves when it has ended. */
  readonly ended: () => Promise<void>
}

/**
 * Watches over several. Resolves when it is asked to end, or with a sentence when one of them is given up. From then on
 * nothing is started again: whoever called stops what still runs.
 */
export async function keepAll(
  all: readonly Kept[],
  asked: Promise<void>,
  pauses: readonly number[] = PAUSES,
): Promise<string> {
  let isOver = false
  const trouble = await Promise.race([
    asked.then(() => ''),
    ...all.map((kept) => keepUp(kept, () => isOver, pauses)),
  ])
  isOver = true
  return trouble
}

/** Resolves, with a sentence, when it is given up; with none if `isOver` says that it shall end. */
async function keepUp(
  { name, start, ended }: Kept,
  isOver: () => boolean,
  pauses: readonly number[],
): Promise<string> {
  let tries = 0
  for (;;) {
    const began = Date.now()
    await ended()
    if (isOver()) return ''
    if (Date.now() - began > STEADY_MS) tries = 0
    for (;;) {
      if (tries >= pauses.length)
        return `${name} ended again and again. The lines above say why; Merry Lantern stops here.`
      const pause = pauses[tries++]
      say(`${name} has ended; it is started again${pause > 0 ? ` in ${pause} s` : ''}`)
      await new Promise((wait) => setTimeout(wait, 1000 * pause))
      if (isOver()) return ''
      try {
        await start()
        say(`${name} is there again`)
        break
      } catch (error) {
        say(`${name} did not start: ${error instanceof Error ? error.message : String(error)}`)
      }
    }
  }
}
