/** The keys of the bench, in one list: what they do, and how they are shown. */
export const BENCH_KEYS = [
  { id: 'next', key: ' ', shown: 'Space', does: 'the next turn' },
  { id: 'back', key: 'Shift+ ', shown: 'Shift+Space', does: 'take a turn back' },
  { id: 'step', key: 'Enter', shown: 'Enter', does: 'all turns of this step' },
  { id: 'hint', key: 'h', shown: 'H', does: 'a stronger hint' },
  { id: 'owed', key: 'o', shown: 'O', does: 'what is borrowed, and what is safe' },
  { id: 'swap', key: 'v', shown: 'V', does: 'swap the windows' },
  { id: 'slower', key: '[', shown: '[', does: 'turns slower' },
  { id: 'faster', key: ']', shown: ']', does: 'turns faster' },
  { id: 'busy', key: 'k', shown: 'K', does: 'hands busy: large type' },
  { id: 'keys', key: '?', shown: '?', does: 'all keys' },
] as const

export type BenchKeyId = (typeof BENCH_KEYS)[number]['id']

export type BenchPress = { readonly act: BenchKeyId } | { readonly turn: string }

/** Letters that turn, with Shift for the inverse; capitals and small letters mean the same. */
const TURN_LETTERS = 'UDFBRLMESXYZ'
const WHOLE_LETTERS = 'XYZ'

/** What a key press means on the bench, or undefined. */
export function readPress(event: Pick<KeyboardEvent, 'key' | 'shiftKey'>): BenchPress | undefined {
  const pressed = event.shiftKey && event.key === ' ' ? 'Shift+ ' : event.key
  const found = BENCH_KEYS.find(
    ({ key }) => key === pressed || (key.length === 1 && key === pressed.toLowerCase()),
  )
  if (found) return { act: found.id }
  const letter = event.key.toUpperCase()
  if (event.key.length !== 1 || !TURN_LETTERS.includes(letter)) return undefined
  const name = WHOLE_LETTERS.includes(letter) ? letter.toLowerCase() : letter
  return { turn: event.shiftKey ? `${name}'` : name }
}
