import type { Result } from '../../core/result'

/** A file from outside, that is read from its beginning as often as it is needed, never as a whole. */
export interface Source {
  /** How long it is, in bytes. */
  readonly bytes: number
  readonly read: () => AsyncIterable<Uint8Array>
}

/** What is at hand as a text. */
export function textSource(text: string): Source {
  const whole = new TextEncoder().encode(text)
  return {
    bytes: whole.byteLength,
    async *read() {
      for (let at = 0; at < whole.byteLength; at += PIECE) yield whole.subarray(at, at + PIECE)
      await Promise.resolve()
    },
  }
}

const PIECE = 100_000

/** The file, telling at each piece how much of it is read, 0 to 1. */
export function told(source: Source, say: (share: number) => Promise<void>): Source {
  return {
    bytes: source.bytes,
    async *read() {
      let read = 0
      for await (const piece of source.read()) {
        await say(source.bytes === 0 ? 1 : read / source.bytes)
        yield piece
        read += piece.byteLength
      }
    },
  }
}

/** What is wrong with a file, thrown where it is found: whoever reads the file keeps nothing then. */
export class BadFile extends Error {
  constructor(
    readonly field: string,
    readonly sentence: string,
    readonly line?: number,
  ) {
    super(sentence)
  }
}

/** What was read; a problem ends the whole, with the part of the file named. */
export function need<T>(part: string, result: Result<T>): T {
  if (result.ok) return result.value
  const { sentence, field } = result.problem
  throw new BadFile([part, field].filter(Boolean).join('.'), `${part}: ${sentence}`)
}
