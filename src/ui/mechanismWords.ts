import type { MechanismDefinition } from '@/core/puzzle/definition'

/** Puzzles are grouped by how they turn. */
export const MECHANISM_WORDS: Readonly<Record<MechanismDefinition['kind'], string>> = {
  box: 'Layers at right angles',
  capped: 'Layers that change the shape',
  conjoined: 'Joined at a column',
  circles: 'Layers with circles',
  tetrahedron: 'Turning about vertices',
}
