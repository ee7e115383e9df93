/** Joins class names; empty ones are left out. */
export const classes = (...names: (string | false | undefined)[]): string =>
  names.filter(Boolean).join(' ')
