/** How much of anything is taken from outside: each number stands here, and in docs/log-file.md where it is a file's. */

/** Longest file that is read, in bytes: a log or a backup of a million solves takes about 700 MB. */
export const LONGEST_FILE = 2_000_000_000
/** Longest body of any other request, in bytes. */
export const LONGEST_BODY = 2_000_000
export const MOST_SOLVES = 1_000_000
/** Turns of all solutions of one file. */
export const MOST_TURNS = 200_000_000
/** What a bench can have lasted, in milliseconds: a page may stay open for a lifetime. */
export const LONGEST_MS = 3_000_000_000_000

/** A size as a person says it; what is small is not said to be nothing. */
export function sizeWords(bytes: number): string {
  const units = [
    [1e9, 'GB'],
    [1e6, 'MB'],
    [1e3, 'kB'],
  ] as const
  const [size, name] = units.find(([each]) => bytes >= each) ?? [1, 'bytes']
  return `${Math.round((10 * bytes) / size) / 10} ${name}`
}
