import { describe, expect, it } from 'vitest'
import { CATALOG_IDS } from '../catalog'
import { techniqueSchema } from './techniques'
import { schoolsFor } from './index'

/** As they are taught: a school is written with sizes that only a puzzle gives. */
const techniques = CATALOG_IDS.flatMap(schoolsFor).flatMap(({ stages }) =>
  stages.map(({ technique }) => technique),
)

describe('a technique', () => {
  it('of every school is what its own entry says', () => {
    expect(techniques.length).toBeGreaterThan(40)
    for (const technique of techniques)
      expect(() =>
        techniqueSchema(technique.kind).validateSync(technique, { strict: true }),
      ).not.toThrow()
  })

  it('is refused without what it cannot do without, and with what it does not know', () => {
    for (const technique of techniques) {
      const schema = techniqueSchema(technique.kind)
      expect(schema.isValidSync({ ...technique, pace: 'slow' }, { strict: true })).toBe(false)
      expect(schema.isValidSync({ ...technique, kind: undefined }, { strict: true })).toBe(false)
    }
    const spin = { kind: 'spin', layers: ['U'] }
    expect(() => techniqueSchema('spin').validateSync(spin, { strict: true })).toThrow(/select/)
    expect(techniqueSchema('gather').isValidSync({ kind: 'gather', must: 'home' })).toBe(true)
  })
})
