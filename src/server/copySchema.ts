/** What a copy of a puzzle may be called and look like. */
import { array, mixed, object, string } from 'yup'
import { trimmed } from '../core/trimmed'
import { MARKS } from '../core/puzzle/colours'

export const copySchema = object({
  puzzleId: string().max(40).required('Choose a puzzle.'),
  name: trimmed()
    .required('Give the puzzle a name of your own.')
    .max(80, 'A name has at most 80 letters.'),
  remarks: trimmed().max(2000, 'Remarks have at most 2000 letters.').default(''),
  scheme: array()
    .of(
      object({
        id: string().max(80).required(),
        name: trimmed()
          .required('Every colour needs a name.')
          .max(30, 'A colour name has at most 30 letters.'),
        shade: string()
          .matches(/^#[0-9a-f]{6}$/i, 'A shade is written #rrggbb.')
          .required(),
        mark: mixed<(typeof MARKS)[number]>()
          .oneOf([...MARKS])
          .required(),
      }).noUnknown(),
    )
    .min(1)
    .max(30)
    .required()
    .test('names', 'Two colours have the same name.', (scheme) => {
      // What is no name has been told already.
      const names = (scheme ?? []).map((colour) => `${Object(colour).name}`.trim().toLowerCase())
      return new Set(names).size === names.length
    }),
}).noUnknown()
