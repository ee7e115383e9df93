/** Which dialects there are; `dialect.ts` reads them and `write.ts` writes them. */
import type { LettersId } from './letters'
import type { SmallId } from './smallLetters'
import type { SpokenId } from './spoken/spoken'

export type DialectId = LettersId | SmallId | SpokenId
