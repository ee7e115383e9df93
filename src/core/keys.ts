/** The keys of the bench: what they do, which key does it, and what a solver changed. */

export const ACTS = [
  { id: 'next', key: ' ', does: 'the next turn' },
  { id: 'back', key: 'Shift+ ', does: 'take a turn back' },
  { id: 'step', key: 'Enter', does: 'all turns of this step' },
  { id: 'hint', key: 'h', does: 'a stronger hint' },
  { id: 'words', key: 'w', does: 'the card in full, or in few words' },
  { id: 'stuck', key: 'g', does: 'stuck: what is this?' },
  { id: 'owed', key: 'o', does: 'what is borrowed, and what is safe' },
  { id: 'swap', key: 'v', does: 'swap the windows' },
  { id: 'kin', key: 'p', does: 'the plain puzzle beside it' },
  { id: 'slower', key: '[', does: 'turns slower' },
  { id: 'faster', key: ']', does: 'turns faster' },
  { id: 'busy', key: 'k', does: 'hands busy: large type' },
  { id: 'keys', key: '?', does: 'all keys' },
] as const

export type ActId = (typeof ACTS)[number]['id']

/** For each act its key: one character in small letters, or Enter; with `Shift+` before Space. */
export type Keys = Readonly<Record<ActId, string>>

export const DEFAULT_KEYS = Object.fromEntries(ACTS.map(({ id, key }) => [id, key])) as Keys

export type Press =
  | { readonly act: ActId }
  | { readonly turn: string }
  /** Counted from the outside: the letter that follows turns this layer alone. */
  | { readonly layer: number }

/** Letters that turn, with Shift for the inverse; capitals and small letters mean the same. */
const TURN_LETTERS = 'UDFBRLMESXYZ'
const WHOLE_LETTERS = 'XYZ'

type Pressed = Pick<KeyboardEvent, 'key' | 'shiftKey'>

/** The key of a press as it is kept: letters small, Space with Shift apart from Space. */
export const keyOf = ({ key, shiftKey }: Pressed): string =>
  shiftKey && key === ' ' ? 'Shift+ ' : key.length === 1 ? key.toLowerCase() : key

/** What a key press means on the bench, or undefined. */
export function readPress(event: Pressed, keys: Keys = DEFAULT_KEYS): Press | undefined {
  const pressed = keyOf(event)
  const found = ACTS.find(({ id }) => keys[id] === pressed)
  if (found) return { act: found.id }
  if (/^[1-7]$/.test(event.key)) return { layer: Number(event.key) }
  const letter = event.key.toUpperCase()
  if (event.key.length !== 1 || !TURN_LETTERS.includes(letter)) return undefined
  const name = WHOLE_LETTERS.includes(letter) ? letter.toLowerCase() : letter
  return { turn: event.shiftKey ? `${name}'` : name }
}

/** A key as it is written on the screen: Space, Shift+Space, H. */
export const showKey = (key: string): string =>
  key.replace(' ', 'Space').replace(/^[a-z]$/, (letter) => letter.toUpperCase())

/** Why a key cannot stand for an act, or undefined. */
export function keyProblem(keys: Keys, id: ActId, key: string): string | undefined {
  const shown = showKey(key)
  if (!/^(Shift\+ |Enter|[^\s])$|^ $/.test(key))
    return `${shown} cannot be used: take a letter, a sign, a digit, Space or Enter.`
  if (TURN_LETTERS.includes(key.toUpperCase())) return `${shown} turns the puzzle already.`
  const other = ACTS.find((act) => act.id !== id && keys[act.id] === key)
  return other && `${shown} is taken: ${other.does}.`
}
