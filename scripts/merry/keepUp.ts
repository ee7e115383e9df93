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
 * Resolves, with a sentence, when it is given up; never if `isOver` says first that it shall end.
 */
export async function keepUp({ name, start, ended }: Kept, isOver: () => boolean): Promise<string> {
  let tries = 0
  for (;;) {
    const began = Date.now()
    await ended()
    if (isOver()) return ''
    if (Date.now() - began > STEADY_MS) tries = 0
    for (;;) {
      if (tries >= PAUSES.length)
        return `${name} ended again and again. The lines above say why; Merry Lantern stops here.`
      const pause = PAUSES[tries++]
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
