import { partsOf } from './phrases'
import type { Spoken } from './spoken'

/** A number in front is how often: `2R` is a half turn, so inner layers are said in words. */
export const numberFirst: Spoken = {
  id: 'number-first',
  name: 'number first',
  example: "R R' 2R",
  isOfLetters: true,
  says: (name) => {
    const { grip, amount } = partsOf(name)
    if (/^\d/.test(grip)) return undefined
    return amount === '2' ? `2${grip}` : name
  },
}
