/** Blocks that grow in a cap, rounds of its pieces, commutators, circles. */
import type { CapsKind } from '../../claims/claim'
import { capital, plural } from '../../phrases'
import type { Sayers } from '../lexicon'
import { capitalised, line, turnSpan, textSpan, type Span } from '../span'
import { nthTurnSpans, sideSaid } from './names'

/** What a block is called, by the number of its pieces but for the centre. */
const BLOCKS: Readonly<Record<number, string>> = {
  2: 'a corner with its edge',
  3: 'a block of two by two',
  5: 'a block of two by three',
  8: 'the whole cap',
}

const ROUNDS: Readonly<Record<string, string>> = {
  '2': 'Just two change places',
  '3': 'Just three go round',
  '2,2': 'Two and two change places',
}

const AWAY = { beside: ', side by side', across: ', across from each other' }

const row = (names: readonly string[]): Span[] =>
  names.flatMap((name, i) => (i === 0 ? [turnSpan(name)] : [textSpan(' '), turnSpan(name)]))

export const CAPS: Sayers<CapsKind> = {
  rounds: ({ lengths, how }) =>
    line`${ROUNDS[lengths.join()] ?? 'They go round'}${how ? AWAY[how] : ''}.`,
  asOneBlock: () => line`They lie together already, and go as one block.`,
  commutator: ({ first, second }) =>
    line`Built as ${row(first)}, ${turnSpan(second)}, then both undone.`,
  circle({ side, isLocked }, speaker) {
    const name = capital(sideSaid(side, speaker))
    return isLocked
      ? line`${name} is locked: its turns take its circle along.`
      : line`${name} is free: it turns past its circle.`
  },
  grown: ({ count }) => line`That makes ${BLOCKS[count] ?? plural(count, 'piece')}.`,
  gathers: ({ at }, speaker) =>
    line`${capitalised(nthTurnSpans(speaker, at))} brings them together.`,
  parks({ at, lift, from }, speaker) {
    const [own, then] = [capitalised(nthTurnSpans(speaker, at)), nthTurnSpans(speaker, lift)]
    if (from === 'clear') return line`${own} turns the open place to ${then}.`
    return line`${own} parks the block: ${then} would take it ${from}.`
  },
  lifts({ at, moves, coming, leaving, hasBlock }, speaker) {
    const it = coming > 1 ? 'them' : 'it'
    const own = capitalised(nthTurnSpans(speaker, at))
    switch (moves) {
      case 'nothing':
        return line`${own} lifts ${it} in${hasBlock ? ' beside the block' : ''}; ${plural(leaving, 'piece')} ${leaving === 1 ? 'leaves' : 'leave'} the cap for ${it}.`
      case 'some':
        return line`${own} puts the block together again, with ${it}.`
      case 'all':
        return line`${own} brings the block to ${it}.`
    }
  },
}
