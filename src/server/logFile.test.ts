import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { readDefinition } from '../core/puzzle/readDefinition'
import { must } from '../core/result'
import { isSolved, readState, start, turnAll, writeState } from '../core/state'
import { readTurns } from '../core/notation/read'
import { puzzleById } from '../core/catalog'
import { circleSolves } from './demo/circle'
import { loadDemo } from './demo/load'
import { textSource } from './files/source'
import { textOf } from './files/write'
import { ownPuzzlesInLog } from './exportLog'
import { writeCsv, writeJson } from './logFile'
import { importLog } from './logReading'
import { migrate } from './migrate'
import { shelf } from './copies'
import { firstProfile } from './named'
import { addOwnPuzzle, forgetOwnPuzzle, ownId, ownPuzzleNames } from './ownPuzzles'
import { allRows } from './pool'
import { makeSolver } from './profiles'
import { addNewSolves, listSolves, type NewSolve, type Solve } from './solves'
import { freshDatabase } from './testDatabase'

let discard: () => Promise<void>
let solves: Solve[]

beforeAll(async () => {
  discard = await freshDatabase('log_file')
  await loadDemo()
  solves = await listSolves(await firstProfile())
})
afterAll(() => discard())

const read = (profileId: string, text: string) => importLog(profileId, textSource(text))

const without = ({ id, copyId, sessionId, ...rest }: Solve) => ({
  ...rest,
  known: [id, copyId, sessionId].length,
})

describe('the demo', () => {
  it('is loaded once, the same every time', async () => {
    expect(await loadDemo()).toBe(false)
    expect(circleSolves(5)).toEqual(circleSolves(5))
    expect(await shelf(await firstProfile())).toHaveLength(12)
    expect(solves.length).toBeGreaterThan(40)
  })

  it('holds only solves that the engine confirms', () => {
    const puzzle = must(puzzleById('cube-2'))
    for (const { startState, solution, scramble } of solves) {
      const from = must(readState(puzzle, startState))
      expect(isSolved(puzzle, must(turnAll(puzzle, from, must(readTurns(puzzle, solution)))))).toBe(
        true,
      )
      expect(must(turnAll(puzzle, new Uint8Array(8), must(readTurns(puzzle, scramble))))).toEqual(
        from,
      )
    }
  })
})

describe.each([
  ['JSON', writeJson],
  ['CSV', writeCsv],
])('the log as %s', (_, write) => {
  it('comes back as it went out', async () => {
    const other = must(await makeSolver(`Reader of ${_}`))
    expect(must(await read(other, await textOf(write(solves))))).toBe(solves.length)
    const plain = (all: readonly Solve[]) => all.map((solve) => without(solve))
    expect(plain(await listSolves(other))).toEqual(plain(solves))
  })

  it('is imported once: what is there already is passed over', async () => {
    const other = must(await makeSolver(`Twice ${_}`))
    const moved = { ...solves[0], finishedAt: new Date('2026-12-01T18:00:00Z'), remark: '=1+1' }
    expect(must(await read(other, await textOf(write([...solves, ...solves.slice(0, 5)]))))).toBe(
      solves.length,
    )
    expect(must(await read(other, await textOf(write([...solves, moved]))))).toBe(1)
    expect((await listSolves(other))[0].remark).toBe('=1+1')
  })

  it('is refused as a whole, with line and field, if one solve is wrong', async () => {
    const spoil = async (part: Partial<Solve>) => {
      const bad = [...solves.slice(0, 3), { ...solves[3], ...part }, ...solves.slice(4)]
      const before = (await listSolves(await firstProfile())).length
      const told = await read(await firstProfile(), await textOf(write(bad)))
      expect((await listSolves(await firstProfile())).length).toBe(before)
      return told.ok ? 'it was read' : told.problem.sentence
    }
    expect(await spoil({ elapsedMs: -5 })).toMatch(/Line 5, elapsedMs.*Nothing was imported/)
    expect(await spoil({ solution: 'R U' })).toMatch(/Line 5, solution.*do not solve/)
    expect(await spoil({ solution: 'R Q' })).toMatch(/Line 5, solution.*'Q'/)
    expect(await spoil({ turnCount: 1 })).toMatch(/Line 5, turnCount/)
    expect(await spoil({ startState: 'aaaa' })).toMatch(/Line 5, startState/)
    expect(await spoil({ puzzleId: 'cube-99' })).toMatch(/Line 5, puzzle/)
    expect(await spoil({ school: 'nowhere' })).toMatch(/Line 5, school/)
  })
})

describe("a log with solves of a puzzle of the solver's own", () => {
  const definition = must(
    readDefinition({
      schema: 1,
      id: 'tied',
      name: 'Tied',
      mechanism: { kind: 'box', size: [2, 2, 2] },
      glue: [
        [
          [0.5, 0.5, 0.5],
          [0.5, 0.5, -0.5],
        ],
      ],
    }),
  )

  async function logged() {
    const profileId = await firstProfile()
    const id = must(await addOwnPuzzle(profileId, definition))
    await allRows.query('delete from solves where puzzle_id = $1', [id])
    const puzzle = must(puzzleById(id))
    const state = must(turnAll(puzzle, start(puzzle), must(readTurns(puzzle, 'R2 U'))))
    const { known, ...rest } = without(solves[0])
    expect(known).toBe(3)
    const solve: NewSolve = {
      ...rest,
      puzzleId: id,
      school: 'shortest',
      variant: {},
      startState: writeState(state),
      scramble: 'R2 U',
      solution: "U' R2",
      turnCount: 2,
      quarterCount: 3,
    }
    expect(await addNewSolves(profileId, [solve], allRows)).toBe(1)
    return { profileId, id }
  }

  it('carries the puzzle along, and brings it back where it is not known', async () => {
    const { profileId, id } = await logged()
    const all = await listSolves(profileId)
    const text = await textOf(writeJson(all, await ownPuzzlesInLog(profileId)))
    // Files of earlier programs have the puzzles behind the solves.
    const { puzzles, ...rest } = JSON.parse(text) as { puzzles: unknown[] }
    expect(puzzles).toEqual([definition])
    for (const file of [text, JSON.stringify({ ...rest, puzzles })]) {
      await allRows.query('delete from solves where puzzle_id = $1', [id])
      expect(await forgetOwnPuzzle(profileId, id)).toBe(true)
      expect(puzzleById(id).ok).toBe(false)
      // What is refused leaves nothing behind.
      expect((await read(profileId, file.replace(/.$/s, ',"version":2}'))).ok).toBe(false)
      expect(puzzleById(id).ok).toBe(false)
      expect(must(await read(profileId, file))).toBe(1)
      expect(puzzleById(id).ok).toBe(true)
      expect((await ownPuzzleNames(profileId)).map((each) => each.id)).toContain(id)
      expect(must(await read(profileId, file))).toBe(0)
    }
  })

  it('is refused with the line if the puzzle is not right, or is missing', async () => {
    const { profileId } = await logged()
    const all = await listSolves(profileId)
    const text = await textOf(writeJson(all, await ownPuzzlesInLog(profileId)))
    const line = text.slice(0, text.indexOf('"mechanism"')).split('\n').length
    const broken = await read(profileId, text.replace('"size":[2,2,2]', '"size":[2,2,9]'))
    expect(broken.ok ? '' : broken.problem.sentence).toMatch(
      new RegExp(`Line ${line}, puzzles.*size.*Nothing was imported`),
    )
    const id = ownId(definition)
    await allRows.query('delete from solves where puzzle_id = $1', [id])
    await forgetOwnPuzzle(profileId, id)
    const alone = await read(profileId, await textOf(writeJson(all)))
    expect(alone.ok ? '' : alone.problem.sentence).toMatch(
      /Line \d+, puzzle: .*Nothing was imported/,
    )
  })
})

describe('a file that is no log', () => {
  it.each([
    ['empty', '', /empty/],
    ['broken JSON', '{"format":\n"x",,}', /Line \d, file.*JSON/],
    ['another format', '{"format":"x","version":1,"solves":[]}', /format/],
    ['another version', '{"format":"merry-lantern-log","version":9,"solves":[]}', /version/],
    ['no solves', '{"format":"merry-lantern-log","version":1}', /solves/],
    ['a CSV without its columns', 'a,b\n1,2\n', /column is missing/],
  ])('is refused: %s', async (_, text, sentence) => {
    const told = await read(await firstProfile(), text)
    expect(told.ok ? '' : told.problem.sentence).toMatch(sentence)
  })

  it('names the line in a file that is laid out otherwise', async () => {
    const file = JSON.parse(await textOf(writeJson(solves.slice(0, 2)))) as {
      solves: { slips: unknown }[]
    }
    file.solves[1].slips = 'many'
    const text = JSON.stringify(file, null, 2)
    const line =
      text.split('\n').findIndex((row, i, all) => row === '    {' && i > all.indexOf('    {')) + 1
    const told = await read(await firstProfile(), text)
    expect(told.ok ? '' : told.problem.sentence).toMatch(new RegExp(`Line ${line}, slips`))
  })
})

describe('migrations', () => {
  it('go down and up again', async () => {
    const url = process.env.DATABASE_URL ?? ''
    const gone = await migrate(url, 'down')
    expect(gone).toBeGreaterThanOrEqual(4)
    expect(await migrate(url)).toBe(gone)
    expect(await migrate(url)).toBe(0)
  })
})
