/** Numbers of states, written so that a person can feel them. */

const AGE_OF_THE_UNIVERSE_SECONDS = 435_000_000_000_000_000n // 13.8 thousand million years
const YEAR_SECONDS = 31_557_600n
/** A very fast machine: so many states a second. */
const FAST = 1_000_000_000n
/** Above this a number is given by its digits, not by millions. */
const WORDS_LIMIT = 10n ** 24n

export interface Magnitude {
  /** '43.3 million million million' or 'about 7.40 × 10⁴⁵, a number of 46 digits' */
  readonly rounded: string
  /** All digits in groups of three. */
  readonly exact: string
  /** How long it would take to see them all. */
  readonly felt: string
}

export function magnitudeOf(n: bigint): Magnitude {
  return { rounded: roundedWords(n), exact: grouped(n), felt: feltWords(n) }
}

export const grouped = (n: bigint): string => `${n}`.replace(/\B(?=(\d{3})+$)/g, ',')

/** The first three digits of a quotient, as a plain decimal. */
function threeDigits(n: bigint, by: bigint): string {
  const whole = n / by
  if (whole >= 100n) return grouped(whole)
  const places = whole >= 10n ? 1 : 2
  return (Number((n * 1000n) / by) / 1000).toFixed(places)
}

function roundedWords(n: bigint): string {
  if (n < 1_000_000n) return grouped(n)
  if (n >= WORDS_LIMIT) {
    const digits = `${n}`
    const power = [...`${digits.length - 1}`].map((d) => '⁰¹²³⁴⁵⁶⁷⁸⁹'[Number(d)]).join('')
    const front = (Number(digits.slice(0, 6)) / 1e5).toFixed(2)
    return `${front} × 10${power}, a number of ${digits.length} digits`
  }
  let millions = 0
  let unit = 1n
  while (unit * 1_000_000n <= n) {
    unit *= 1_000_000n
    millions++
  }
  return `${threeDigits(n, unit)}${' million'.repeat(millions)}`
}

function feltWords(n: bigint): string {
  if (n < 10_000n * YEAR_SECONDS) return `Seen one a second, all of them take ${durationWords(n)}.`
  const seconds = n / FAST
  if (seconds < AGE_OF_THE_UNIVERSE_SECONDS)
    return `Even at a thousand million a second, all of them take ${durationWords(seconds)}.`
  return `Even at a thousand million a second, all of them take ${roundedWords(seconds / AGE_OF_THE_UNIVERSE_SECONDS).replace(/,.*digits$/, '')} times the age of the universe.`
}

function durationWords(seconds: bigint): string {
  const units: [bigint, string][] = [
    [YEAR_SECONDS, 'year'],
    [86_400n, 'day'],
    [3_600n, 'hour'],
    [60n, 'minute'],
  ]
  for (const [size, word] of units) {
    if (seconds < 2n * size) continue
    if (seconds < 10n * size) return `${(Number((seconds * 10n) / size) / 10).toFixed(1)} ${word}s`
    return `${roundedWords(seconds / size)} ${word}s`
  }
  return seconds < 2n ? 'a second' : `${seconds} seconds`
}
