import { date } from 'yup'

/**
 * A moment as the database and other programs write it. The schema library by itself takes '.27' for 27 milliseconds,
 * and the database leaves zeros at the end out.
 */
export const moment = () =>
  date().transform((value: unknown, original: unknown) =>
    typeof original === 'string' ? new Date(original) : value,
  )
