/** Files that are written piece by piece. */

/** Entries in pieces of so many characters. */
const PIECE = 60_000

/** Values as the members of a list in JSON, one a line. */
export async function* jsonLines(
  values: Iterable<unknown> | AsyncIterable<unknown>,
): AsyncGenerator<string> {
  let piece = ''
  let isFirst = true
  for await (const value of values) {
    piece += `${isFirst ? '' : ',\n'}${JSON.stringify(value)}`
    isFirst = false
    if (piece.length < PIECE) continue
    yield piece
    piece = ''
  }
  yield piece
}

/** All of what is written, at once: for what is known to be short. */
export async function textOf(pieces: AsyncIterable<string>): Promise<string> {
  const all: string[] = []
  for await (const piece of pieces) all.push(piece)
  return all.join('')
}
