/** That nothing about a puzzle is said but by the lexicon: with another one, every word is another. */
import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { must } from '../result'
import { schoolsFor } from '../schools'
import { scramble, scrambledState } from '../scramble/scramble'
import { ENGLISH } from '../words/english'
import type { Lexicon } from '../words/lexicon'
import { textOf } from '../words/span'
import { plan } from './plan'
import { sayCard } from './sayCard'
import { trailOf } from './standing'

/** English in capitals; but a finished sentence stays as it is, wherever one hides. */
const LOUD: Lexicon = {
  first(claims, speaker) {
    const told = ENGLISH.first(claims, speaker)
    if (claims[0].kind === 'text') return told
    const spans = told.spans.map((span) =>
      span.kind === 'turn' ? span : { ...span, text: span.text.toUpperCase() },
    )
    return { ...told, spans }
  },
}

/** Turns keep the letters that they have. */
const LOWER = /(?<![\w'])[a-z]{2,}/

describe('a card in another lexicon', () => {
  it.each(CATALOG_IDS)('has no word of its own: %s', (id) => {
    const puzzle = must(puzzleById(id))
    let told = 0
    for (const school of schoolsFor(id)) {
      const route = must(plan(puzzle, school, scrambledState(puzzle, scramble(puzzle, 11))))
      const trail = trailOf(puzzle, route)
      trail.steps.forEach(({ id: step, kind }, nth) => {
        // How a case is read is told in finished sentences.
        if (kind === 'case') return
        for (const register of ['full', 'brief'] as const) {
          const scheme = puzzle.definition.colours
          const card = sayCard(puzzle, scheme, trail, nth, register, LOUD)
          const { lines, others, usesClock, ...parts } = card
          expect(typeof usesClock).toBe('boolean')
          for (const spans of [...Object.values(parts), ...lines, ...others]) {
            expect(textOf(spans), `${school.id} ${step}`).not.toMatch(LOWER)
            told++
          }
        }
      })
    }
    expect(told).toBeGreaterThan(10)
  })
})
