import { string } from 'yup'

/** A text without the blanks around it. The schema library's own `trim` throws where there is no text. */
export const trimmed = () =>
  string().transform((value: unknown) => (typeof value === 'string' ? value.trim() : value))
