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
  // People who write an i for a turn back put the number first as well: then `2R Ui` can be two things, and is asked.
  reads: (name) => {
    const { grip, amount } = partsOf(name)
    return amount === "'" && !/^\d/.test(grip) ? [`${grip}i`, `${grip}I`] : []
  },
}
