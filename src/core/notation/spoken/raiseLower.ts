import type { Spoken } from './spoken'

const SAYS: Readonly<Record<string, string>> = {
  R: 'raise right',
  "R'": 'lower right',
  L: 'lower left',
  "L'": 'raise left',
}

/** As tetrahedra are taught: the vertex that is raised or lowered. */
export const raiseLower: Spoken = {
  id: 'raise-lower',
  name: 'raise and lower',
  example: 'raise right, lower left',
  says: (name) => SAYS[name],
}
