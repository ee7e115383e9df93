/** What is needed to put a laid-out state on the bench. */
import { lazy, mixed, number, object, string, type Schema } from 'yup'

const common = {
  copyId: string().required(),
  school: string().max(40).default(''),
  variant: object().default({}),
  instead: string().max(40),
}

interface CommonEntry {
  copyId: string
  school: string
  variant: Record<string, string>
  /** The bench that may be left off for it. */
  instead?: string
}

export interface ScrambledEntry extends CommonEntry {
  laidBy: 'scramble'
  /** In canonical notation. */
  scramble: string
  seed?: number
}

export interface CopiedEntry extends CommonEntry {
  laidBy: 'colours'
  /** Colour ids by sticker id. */
  marked: Record<string, string>
}

export interface PieceEntry extends CommonEntry {
  laidBy: 'pieces'
  /** As `writeState` writes it. */
  state: string
}

const scrambled = object({
  laidBy: string().oneOf(['scramble']).required(),
  ...common,
  scramble: string().max(4000, 'A scramble has at most 4000 letters.').defined(),
  seed: number().integer().min(0).max(Number.MAX_SAFE_INTEGER),
}).noUnknown()

const copied = object({
  laidBy: string().oneOf(['colours']).required(),
  ...common,
  marked: object()
    .required()
    .test(
      'size',
      'There are more stickers than the puzzle has.',
      (marked) => Object.keys(marked).length <= 400,
    ),
}).noUnknown()

const byPieces = object({
  laidBy: string().oneOf(['pieces']).required(),
  ...common,
  state: string().max(400).required(),
}).noUnknown()

export const entrySchema = lazy((value: unknown) => {
  const laidBy = (value as { laidBy?: string } | null)?.laidBy
  if (laidBy === 'scramble') return scrambled
  if (laidBy === 'colours') return copied
  if (laidBy === 'pieces') return byPieces
  return mixed()
    .nullable()
    .test('laidBy', 'laidBy must be "scramble", "colours" or "pieces".', () => false)
}) as unknown as Schema<ScrambledEntry | CopiedEntry | PieceEntry>
