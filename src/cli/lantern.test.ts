import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { CATALOG_IDS } from '../core/catalog'
import { looseBlocks } from '../core/testing'
import { run } from './run'

async function lantern(...args: string[]) {
  let out = ''
  let err = ''
  const code = await run(args, {
    out: (line) => (out += `${line}\n`),
    error: (line) => (err += `${line}\n`),
  })
  return { code, out, err }
}

let folder: string
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'lantern-'))
})
afterAll(() => rmSync(folder, { recursive: true }))

describe('lantern', () => {
  it('lists the puzzles with their schools', async () => {
    const list = JSON.parse((await lantern('puzzles', '--json')).out) as {
      id: string
      schools: { id: string }[]
    }[]
    expect(list.map(({ id }) => id)).toEqual([...CATALOG_IDS])
    expect(list[0].schools.map(({ id }) => id)).toEqual([
      'one-trigger',
      'layer-by-layer',
      'face-first',
      'piece-by-piece',
      'shortest',
    ])
  })

  it('ends quietly when nobody reads on', async () => {
    const run = spawnSync(
      'bash',
      [
        '-c',
        'set -o pipefail; node --import tsx src/cli/lantern.ts scramble cube-3 --seed 1 --count 3000 --jsonl | head -n 1',
      ],
      { encoding: 'utf8' },
    )
    expect([run.status, run.stderr]).toEqual([0, ''])
    expect(JSON.parse(run.stdout)).toHaveProperty('turns')
  })

  it('solves scrambles that it has drawn, one a line', async () => {
    const { out, code } = await lantern(
      'solve',
      'cube-2',
      '--school',
      'layer-by-layer',
      '--random',
      '3',
      '--seed',
      '8',
      '--jsonl',
    )
    expect(code).toBe(0)
    const solves = out
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as Record<string, unknown>)
    expect(solves).toHaveLength(3)
    for (const solve of solves) {
      expect(solve.solved).toBe(true)
      const applied = await lantern(
        'apply',
        'cube-2',
        `${solve.scramble} ${solve.solution}`,
        '--json',
      )
      expect(JSON.parse(applied.out)).toMatchObject({ solved: true })
    }
  })

  it('prints every card with its steps, in the words of the bench', async () => {
    const options = ['--scramble', "R U F' L2 D B", '--steps']
    const { out } = await lantern('solve', 'prism-6', ...options, '--json')
    const [{ stages, solution }] = [JSON.parse(out) as never].flat() as {
      solution: string
      stages: {
        cards: {
          turns: { name: string; words: string }[]
          hold: string
          check: string
          claims: { kind: string }[]
        }[]
      }[]
    }[]
    const cards = stages.flatMap((stage) => stage.cards)
    expect(cards.length).toBeGreaterThan(5)
    expect(cards.flatMap(({ turns }) => turns.map(({ name }) => name)).join(' ')).toBe(solution)
    for (const { hold, check, turns } of cards) {
      expect(hold).toMatch(/^[A-Z]/)
      expect(check).toMatch(/\.$/)
      for (const { words } of turns) expect(words).toMatch(/layer|cap|tip|puzzle/)
    }
    const told = (await lantern('solve', 'prism-6', ...options)).out
    for (const word of ['Look for', 'Hold', 'Turn', 'Check']) expect(told).toContain(word)
    const wordsIn = (text: string) => text.split(/\s+/).length
    const brief = (await lantern('solve', 'prism-6', ...options, '--register', 'brief')).out
    expect(wordsIn(brief)).toBeLessThan(wordsIn(told))
    expect(cards.flatMap(({ claims }) => claims).map(({ kind }) => kind)).toContain('pieceAt')
  })

  it('lists the schools of a puzzle, and proves a school file or refuses it', async () => {
    const schools = JSON.parse((await lantern('schools', 'tetra-3', '--json')).out) as {
      id: string
      stages: { aim: string }[]
      algorithms: number
    }[]
    expect(schools[0]).toMatchObject({ id: 'face-then-three', algorithms: 7 })
    for (const { stages } of schools) for (const { aim } of stages) expect(aim).not.toMatch(/[{}]/)
    const example = readFileSync('docs/school-file.md', 'utf8')
      .match(/```json\n([\s\S]*?)```/)
      ?.at(1) as string
    const file = join(folder, 'school.json')
    writeFileSync(file, example)
    expect((await lantern('school', file, '--puzzle', 'cube-3', '--states', '12')).out).toMatch(
      /home from all of 12/,
    )
    expect((await lantern('school', file, '--puzzle', 'cube-4')).err).toMatch(/is not written for/)
    writeFileSync(file, example.replace('"R U R\'", "L\' U\' L", ', ''))
    const refused = await lantern('school', file, '--puzzle', 'cube-3', '--states', '12')
    expect(refused.code).toBe(1)
    expect(refused.err).toMatch(/^lantern: From .* the school does not get on/)
    expect((await lantern('school', file)).code).toBe(2)
  }, 240_000)

  it('finds shorter sequences with the effect of one, or says why there is none', async () => {
    const asked = ['find', 'cube-3', '--same']
    const found = JSON.parse(
      (await lantern(...asked, "R U2 R' R U2 R2 U", '--json')).out,
    ) as object[]
    expect(found[0]).toMatchObject({ turns: "R' U", turnCount: 2, shortest: true })
    expect((await lantern(...asked, 'R U', '--most', '99')).err).toMatch(/most is 99/)
    expect((await lantern(...asked, 'R U F', '--layers', 'R U')).err).toMatch(/No row of up to/)
    expect((await lantern('find', 'cube-3')).code).toBe(2)
    const wish = join(mkdtempSync(join(tmpdir(), 'wish-')), 'wish.json')
    writeFileSync(wish, '{"goes":[{"piece":"UF","to":"UB"},{"piece":"UB","to":"UF"}]}')
    expect((await lantern('find', 'cube-3', '--effect', wish)).err).toMatch(/It takes more/)
    writeFileSync(wish, '{"goes":[{"piece":"UF","to":"UFR"}]}')
    expect((await lantern('find', 'cube-3', '--effect', wish)).err).toMatch(/goes\[0\]\.to/)
  })

  it('repairs what was misheard, or says that it cannot', async () => {
    const heard = ['repair', 'cube-3', "R U R' U R U2 R", '--from', "R U2 R' U' R U' R'"]
    const readings = JSON.parse(
      (await lantern(...heard, '--ends', 'home', '--edits', '1', '--json')).out,
    ) as {
      turns: string
      edits: object[]
    }[]
    expect(readings[0]).toMatchObject({
      turns: "R U R' U R U2 R'",
      edits: [{ at: 6, kind: 'back', was: 'R', is: "R'" }],
    })
    const inI = await lantern(
      ...heard.slice(0, 2),
      'R U Ri U R U2 R',
      '--keep',
      'layer:D',
      '--dialect',
      'i',
    )
    expect(inI.out).toContain('R U Ri U R U2 Ri')
    expect(
      (await lantern('repair', 'cube-2', 'R U', '--keep', 'layer:D', '--edits', '0')).err,
    ).toMatch(/As it was heard it does not do that/)
    expect((await lantern('repair', 'cube-2', 'R U', '--keep', 'DFX')).err).toMatch(/DFX/)
    expect((await lantern('repair', 'cube-2', 'R U')).code).toBe(2)
  })

  it('reads and writes dialects, lists what words without directions can mean, and tries all', async () => {
    const out = (
      await lantern('read', "R U' L2", '--dialect', 'prime', '--write', 'hands')
    ).out.trim()
    expect(out).toBe('right up, top with the left hand, left half round')
    expect((await lantern('read', out, '--dialect', 'hands')).out.trim()).toBe("R U' L2")
    const small = ['read', "r U l'", '--dialect', 'prime', '--puzzle', 'cube-4', '--small']
    expect((await lantern(...small, 'wide')).out.trim()).toBe("1-2R U 1-2L'")
    expect((await lantern(...small, 'inner')).out.trim()).toBe("2R U 2L'")
    const loose = JSON.parse(
      (await lantern('read', 'up, across, down', '--dialect', 'words-loose', '--json')).out,
    ) as object[]
    expect(loose).toEqual([{ turns: "R U R'" }, { turns: "R U' R'" }])
    expect((await lantern('read', 'R', '--dialect', 'runes')).code).toBe(2)
    expect((await lantern('read', 'R sideways', '--dialect', 'words')).err).toMatch(/sideways/)
    const tried = [
      'repair',
      'cube-3',
      'right, top, right back, top back',
      '--dialect',
      'words-loose',
    ]
    const [only] = JSON.parse(
      (await lantern(...tried, '--from', "U R U' R'", '--ends', 'home', '--json')).out,
    ) as { turns: string; only?: true }[]
    expect(only).toMatchObject({
      turns: 'right clockwise, top clockwise, right back, top back',
      only: true,
    })
  })

  it('describes a puzzle file so that it can be rebuilt', async () => {
    const file = join(folder, 'flat.json')
    const definition = {
      schema: 1,
      id: 'flat',
      name: 'Flat box',
      mechanism: { kind: 'box', size: [3, 2, 3] },
    }
    writeFileSync(file, JSON.stringify(definition))
    const described = JSON.parse((await lantern('describe', file, '--json')).out) as {
      grips: { name: string; amounts: number[] }[]
      pieces: unknown[]
    }
    expect(described.pieces).toHaveLength(18)
    expect(described.grips.find(({ name }) => name === 'R')?.amounts).toEqual([2])
    expect((await lantern('apply', file, 'R2 U R')).err).toMatch(/half turns.*R2/)
    const solved = JSON.parse(
      (await lantern('solve', file, '--random', '1', '--seed', '3', '--jsonl')).out,
    ) as { school: string; solved: boolean }
    // The first of its schools, because it is a box of that size.
    expect(solved).toMatchObject({ school: 'box-swaps', solved: true })
  })

  it('says why it cannot lead a puzzle file home', async () => {
    const file = join(folder, 'glued.json')
    writeFileSync(file, JSON.stringify(looseBlocks.definition))
    expect((await lantern('solve', file, '--scramble', 'U')).err).toMatch(
      /no school: .*can be blocked/,
    )
  })

  it('judges a state file: a fault with what mends it, and what is misread', async () => {
    const check = async (state: object) => {
      const file = join(folder, 'state.json')
      const head = { format: 'merry-lantern-state', version: 1 }
      writeFileSync(file, JSON.stringify({ ...head, ...state }))
      return JSON.parse((await lantern('check', 'cube-2', '--state', file, '--json')).out) as {
        verdict: string
        sentences: string[]
        pieces: string[]
        remedies: { turnCount: number }[]
      }
    }
    const fault = await check({ letters: 'aaaaaaae' })
    expect(fault).toMatchObject({ verdict: 'assembly', pieces: ['UFR'], remedies: [] })
    const scrambled = JSON.parse((await lantern('apply', 'cube-2', 'R U', '--json')).out) as {
      state: string
    }
    const fine = await check({ letters: scrambled.state })
    expect(fine.verdict).toBe('not finished')
    expect(fine.remedies[0].turnCount).toBeGreaterThan(0)
    expect(await check({ places: [] })).toMatchObject({ verdict: 'misread' })
  })

  it.each([
    [['solve', 'cube-2'], 2, /--scramble or --random/],
    [['nothing'], 2, /no command nothing/],
    [['scramble', 'cube-2', '--seed', 'x'], 2, /--seed takes a whole number/],
    [['apply', 'cube-9', 'R'], 1, /No puzzle here has the id cube-9/],
    [['apply', 'cube-2', 'R Q'], 1, /'Q' names no layer.*character 3/],
    [
      ['solve', 'plus-3x3x3', '--school', 'layers', '--scramble', 'R2'],
      1,
      /No school for this puzzle/,
    ],
    [['check', 'cube-2'], 2, /--state FILE/],
    [['describe', './missing.json'], 1, /cannot be read/],
  ])('ends %j with code %i and a sentence', async (args, code, sentence) => {
    const run = await lantern(...args)
    expect(run.code).toBe(code)
    expect(run.out).toBe('')
    expect(run.err).toMatch(/^lantern: /)
    expect(run.err).toMatch(sentence)
  })
})
