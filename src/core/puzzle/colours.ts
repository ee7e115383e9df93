/** Colours of a puzzle and of a copy. A scheme belongs to the copy that a person owns. */
import type { FaceName } from './directions'

/** A small sign that can stand on every face, so that no one has to tell red from orange. */
export const MARKS = [
  'dot',
  'bar',
  'ring',
  'wave',
  'notch',
  'cross',
  'leaf',
  'star',
  'moon',
  'gable',
  'pair',
  'hook',
] as const
export type Mark = (typeof MARKS)[number]

export interface Colour {
  readonly id: string
  readonly name: string
  /** `#rrggbb` */
  readonly shade: string
  readonly mark: Mark
}

/** The colours that a definition draws on when it does not name its own. */
export const DEFAULT_COLOURS: readonly Colour[] = [
  { id: 'white', name: 'white', shade: '#f3efe4', mark: 'dot' },
  { id: 'yellow', name: 'yellow', shade: '#f0cf3a', mark: 'ring' },
  { id: 'red', name: 'red', shade: '#c5283d', mark: 'bar' },
  { id: 'orange', name: 'orange', shade: '#ee7f2d', mark: 'wave' },
  { id: 'blue', name: 'blue', shade: '#2d5fc4', mark: 'cross' },
  { id: 'green', name: 'green', shade: '#2c9a55', mark: 'leaf' },
  { id: 'violet', name: 'violet', shade: '#7a4bb5', mark: 'star' },
  { id: 'rose', name: 'rose', shade: '#ec8fb4', mark: 'notch' },
  { id: 'grey', name: 'grey', shade: '#8b93a1', mark: 'moon' },
  { id: 'brown', name: 'brown', shade: '#8a5a35', mark: 'gable' },
  { id: 'turquoise', name: 'turquoise', shade: '#37b6c4', mark: 'pair' },
  { id: 'lime', name: 'lime', shade: '#a3c644', mark: 'hook' },
]

/** White opposite yellow, red opposite orange, blue opposite green; white up, green in front. */
export const DEFAULT_FACES: Readonly<Record<FaceName, string>> = {
  up: 'white',
  down: 'yellow',
  right: 'red',
  left: 'orange',
  back: 'blue',
  front: 'green',
}

/** What a copy shows for each colour id of its definition: own name, shade and mark. */
export type Scheme = readonly Colour[]

export function colourIn(scheme: Scheme, id: string): Colour {
  const found = scheme.find((colour) => colour.id === id)
  if (!found) throw new Error(`the scheme has no colour ${id}`)
  return found
}
