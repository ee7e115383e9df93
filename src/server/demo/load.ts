/** Loads the demo into an empty shelf: the puzzles of the circle's cupboard and what was done to them. */
import { definitionById, puzzleById } from '../../core/catalog'
import { writeTurns } from '../../core/notation/write'
import type { Colour, Scheme } from '../../core/puzzle/colours'
import { must } from '../../core/result'
import { scramble, scrambledState } from '../../core/scramble/scramble'
import { DEFAULT_SETTINGS } from '../../core/settings'
import { writeState } from '../../core/state'
import { openSession } from '../benchSessions'
import { addCare, type NewCareEntry } from '../care'
import { addCopy, shelf } from '../copies'
import { transaction } from '../pool'
import { firstProfile } from '../named'
import { writeSettings } from '../profiles'
import { addSolve } from '../solves'
import { circleSolves } from './circle'

interface DemoCopy {
  readonly puzzleId: string
  readonly name: string
  readonly scheme?: Scheme
  readonly remarks?: string
  readonly care?: readonly NewCareEntry[]
}

const care = (happenedOn: string, kind: NewCareEntry['kind'], note: string): NewCareEntry => ({
  happenedOn,
  kind,
  note,
})

/** The first three are those that the circle's solves were made on. */
const COPIES: readonly DemoCopy[] = [
  {
    puzzleId: 'cube-2',
    name: 'Reading-room cube',
    remarks: 'Turns lightly. Lives in the drawer under the tide tables.',
    care: [care('2026-11-05', 'tension', 'A quarter turn looser on all four screws.')],
  },
  {
    puzzleId: 'cube-2',
    name: 'Window-seat cube',
    scheme: harbourScheme(schemeFor('cube-2')),
    remarks: 'Other colours: teal opposite sand.',
    care: [care('2026-11-12', 'stickers', 'One is lifting at a corner.')],
  },
  { puzzleId: 'cube-3', name: 'Chart-room cube' },
  {
    puzzleId: 'prism-6',
    name: 'Harbour-light prism',
    remarks: 'Kelp is learning its edges.',
  },
  {
    puzzleId: 'shift-3x3x5',
    name: 'Pilot-house tower',
    care: [
      care('2026-11-10', 'pop', 'A cap edge flew under the atlas shelf.'),
      care('2026-11-10', 'refit', 'Put back while solved.'),
    ],
  },
  { puzzleId: 'circle-3', name: 'Porthole cube' },
  { puzzleId: 'twin-3', name: 'Moored twins' },
  { puzzleId: 'tetra-3', name: 'Sail' },
  { puzzleId: 'box-3x3x5', name: 'Sea-chest box' },
  { puzzleId: 'cube-4', name: 'Lock-keeper cube' },
  { puzzleId: 'bipyramid-6', name: 'Mooring buoy' },
  { puzzleId: 'box-4x4x5', name: 'Cargo crate' },
]

/** What lies on a bench now; without a school it is free play. */
const BENCHES = [
  { name: 'Pilot-house tower', seed: 21, school: undefined },
  { name: 'Reading-room cube', seed: 7, school: 'one-trigger' },
] as const

/** True if the demo was loaded, false if there were puzzles on the shelf already. */
export async function loadDemo(): Promise<boolean> {
  const profileId = await firstProfile()
  if ((await shelf(profileId)).length > 0) return false
  await writeSettings(profileId, { ...DEFAULT_SETTINGS, nickname: 'Gull' })
  const copies = await transaction(profileId, async (client) => {
    const ids: string[] = []
    for (const { care = [], ...copy } of COPIES) {
      const id = await addCopy(
        profileId,
        { remarks: '', ...copy, scheme: copy.scheme ?? schemeFor(copy.puzzleId) },
        client,
      )
      for (const entry of care) await addCare(profileId, id, entry, client)
      ids.push(id)
    }
    return ids
  })
  await transaction(profileId, async (client) => {
    for (const { copy, ...solve } of circleSolves())
      await addSolve(profileId, { ...solve, copyId: copies[copy] }, client)
  })
  for (const { name, seed, school } of BENCHES) {
    const at = COPIES.findIndex((copy) => copy.name === name)
    const puzzle = must(puzzleById(COPIES[at].puzzleId))
    const scrambled = scramble(puzzle, seed)
    await openSession(profileId, {
      copyId: copies[at],
      school,
      variant: {},
      startState: writeState(scrambledState(puzzle, scrambled)),
      scramble: writeTurns(scrambled.turns),
      seed: scrambled.seed,
      laidBy: 'scramble',
    })
  }
  return true
}

function schemeFor(puzzleId: string): Scheme {
  const definition = definitionById(puzzleId)
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
