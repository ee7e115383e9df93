/** A failure that is told in one sentence, without a stack. */
export class Trouble extends Error {}

export const say = (sentence: string): void => {
  process.stderr.write(`merry: ${sentence}\n`)
}
