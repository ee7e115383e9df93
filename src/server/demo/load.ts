/** Loads the demo into an empty shelf. */
import { CATALOG, shippedPuzzle } from '../../core/catalog'
import { writeTurns } from '../../core/notation/write'
import type { Colour, Scheme } from '../../core/puzzle/colours'
import { must } from '../../core/result'
import { scramble, scrambledState } from '../../core/scramble/scramble'
import { DEFAULT_SETTINGS } from '../../core/settings'
import { writeState } from '../../core/state'
import { openSession } from '../benchSessions'
import { addCopy, shelf } from '../copies'
import { transaction } from '../pool'
import { defaultProfile, writeSettings } from '../profiles'
import { addSolve } from '../solves'
import { circleSolves } from './circle'

/** True if the demo was loaded, false if there were puzzles on the shelf already. */
export async function loadDemo(): Promise<boolean> {
  const profileId = await defaultProfile()
  if ((await shelf(profileId)).length > 0) return false
  await writeSettings(profileId, { ...DEFAULT_SETTINGS, nickname: 'Gull' })
  const plain = schemeFor('cube-2')
  const copies = await transaction(async (client) => [
    await addCopy(
      profileId,
      {
        puzzleId: 'cube-2',
        name: 'Reading-room cube',
        scheme: plain,
        remarks: 'Turns lightly. Lives in the drawer under the tide tables.',
      },
      client,
    ),
    await addCopy(
      profileId,
      {
        puzzleId: 'cube-2',
        name: 'Window-seat cube',
        scheme: harbourScheme(plain),
        remarks: 'Other colours: teal opposite sand. One sticker is lifting at a corner.',
      },
      client,
    ),
    await addCopy(
      profileId,
      { puzzleId: 'cube-3', name: 'Chart-room cube', scheme: schemeFor('cube-3'), remarks: '' },
      client,
    ),
  ])
  await transaction(async (client) => {
    for (const { copy, ...solve } of circleSolves())
      await addSolve(profileId, { ...solve, copyId: copies[copy] }, client)
  })
  const puzzle = must(shippedPuzzle('cube-2'))
  const scrambled = scramble(puzzle, 7)
  await openSession(profileId, {
    copyId: copies[0],
    school: 'one-trigger',
    variant: {},
    startState: writeState(scrambledState(puzzle, scrambled)),
    scramble: writeTurns(scrambled.turns),
    seed: scrambled.seed,
    laidBy: 'scramble',
  })
  return true
}

function schemeFor(puzzleId: string): Scheme {
  const definition = CATALOG.find(({ id }) => id === puzzleId)
  if (!definition) throw new Error(`the catalogue has no ${puzzleId}`)
  return definition.colours
}

/** A copy with colours of its own, and other opposites than usual. */
function harbourScheme(plain: Scheme): Scheme {
  const own: Record<string, Pick<Colour, 'name' | 'shade' | 'mark'>> = {
    white: { name: 'sand', shade: '#e8d9b0', mark: 'dot' },
    yellow: { name: 'teal', shade: '#1f8a8a', mark: 'ring' },
    red: { name: 'brick', shade: '#b0452f', mark: 'bar' },
    orange: { name: 'navy', shade: '#27406f', mark: 'wave' },
    blue: { name: 'plum', shade: '#7c4a86', mark: 'cross' },
    green: { name: 'lime', shade: '#9dbb3c', mark: 'leaf' },
  }
  return plain.map((colour) => ({ ...colour, ...own[colour.id] }))
}
