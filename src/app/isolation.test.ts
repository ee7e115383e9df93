/** Every page, route and action, asked by one solver for what another one owns: nothing is told, nothing changed. */
import { readFileSync } from 'node:fs'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { limitReach } from '@/core/catalog/reach'
import { must } from '@/core/result'
import { puzzleById } from '@/core/catalog'
import { DEFAULT_SETTINGS } from '@/core/settings'
import { start, turnAll, writeState } from '@/core/state'
import { keepAlgorithm } from '@/server/algorithms'
import { asRequest, keepRequestsApart } from '@/server/asking'
import { appendEntries } from '@/server/benchSessions'
import { addCare } from '@/server/care'
import { addCopy } from '@/server/copies'
import { addOwnPuzzle } from '@/server/ownPuzzles'
import { keepSchool } from '@/server/ownSchools'
import { allRows } from '@/server/pool'
import { makeSolver, whoAsks, writeSettings } from '@/server/profiles'
import { doJob } from '@/server/doJob'
import { textSource } from '@/server/files/source'
import { beginImport, findJob, type ImportKind } from '@/server/jobs'
import { addSolve } from '@/server/solves'
import { exampleFile, exampleSchool, freshDatabase, openAnew } from '@/server/testDatabase'

/** The browser's cookie, for the request that is being answered. */
const browser = { solver: '' }

vi.mock('next/headers', () => ({
  cookies: () => Promise.resolve({ get: () => ({ value: browser.solver }), set: () => undefined }),
  headers: () => Promise.resolve(new Headers()),
}))
vi.mock('next/cache', () => ({ revalidatePath: () => undefined }))
vi.mock('next/navigation', async (load) => ({
  ...(await load<object>()),
  notFound: () => {
    throw new Error('nothing stands here')
  },
  redirect: (to: string) => {
    throw new Error(`redirected to ${to}`)
  },
}))

/** Stands in every text that the owner has written. */
const SECRET = 'Quayside'

let discard: () => Promise<void>
let owner: string
let stranger: string
const ids = {
  puzzle: '',
  school: '',
  copy: '',
  plain: '',
  bench: '',
  solve: '',
  care: '',
  algorithm: '',
  import: '',
}

beforeAll(async () => {
  discard = await freshDatabase('isolation')
  keepRequestsApart()
  owner = must(await makeSolver(`${SECRET} owner`))
  stranger = must(await makeSolver('Stranger'))
  await asRequest(async () => {
    await whoAsks(owner)
    const definition = exampleFile(`${SECRET} slab`)
    ids.puzzle = must(await addOwnPuzzle(owner, definition))
    ids.school = must(
      await keepSchool(owner, 'cube-3', { ...exampleSchool(), name: `${SECRET} way` }),
    )
    const copied = (puzzleId: string, name: string) =>
      addCopy(owner, {
        puzzleId,
        name: `${SECRET} ${name}`,
        scheme: must(puzzleById(puzzleId)).definition.colours,
        remarks: '',
      })
    ids.plain = await copied('cube-3', 'cube')
    ids.copy = await copied(ids.puzzle, 'slab')
    const cube = must(puzzleById('cube-3'))
    const turn = cube.turnByName.get('R')
    const startState = writeState(must(turnAll(cube, start(cube), turn ? [turn] : [])))
    ids.bench = await openAnew(owner, {
      copyId: ids.plain,
      school: ids.school,
      variant: {},
      startState,
      scramble: 'R',
      seed: undefined,
      laidBy: 'scramble',
    })
    must(
      await appendEntries(owner, ids.bench, 0, [
        {
          id: '11111111-1111-4111-8111-111111111111',
          event: { kind: 'turn', atMs: 5, name: 'U' },
        },
      ]),
    )
    ids.solve = await addSolve(
      owner,
      {
        puzzleId: 'cube-3',
        school: ids.school,
        copyId: ids.plain,
        variant: {},
        solver: SECRET,
        startState,
        scramble: 'R',
        solution: "R'",
        finishedAt: new Date(),
        elapsedMs: 5,
        turnCount: 1,
        quarterCount: 1,
        slips: 0,
        hints: 0,
        remark: SECRET,
        splits: [],
      },
      allRows,
    )
    await addCare(owner, ids.plain, { happenedOn: '2026-11-01', kind: 'pop', note: SECRET })
    const care = await allRows.query<{ id: string }>('select id from care_entries')
    ids.care = care.rows[0].id
    ids.algorithm = must(
      await keepAlgorithm(owner, 'cube-3', {
        turns: "R U R'",
        name: SECRET,
        remark: '',
        hold: 'a',
      }),
    )
    const waiting = await allRows.query<{ id: string }>(
      `insert into jobs (profile_id, kind, result) values ($1, 'log', to_jsonb($2::text)) returning id`,
      [owner, SECRET],
    )
    ids.import = waiting.rows[0].id
    must(await writeSettings(owner, { ...DEFAULT_SETTINGS, nickname: `${SECRET} owner` }))
  })
})
afterAll(async () => {
  limitReach(undefined)
  await discard()
})

/** Everything that the owner has, as it is stored. */
async function belongings(): Promise<unknown> {
  const all: unknown[] = []
  for (const text of [
    'select * from profiles where id = $1',
    'select * from settings where profile_id = $1',
    'select * from copies where profile_id = $1 order by id',
    'select e.* from care_entries e join copies c on c.id = e.copy_id where c.profile_id = $1',
    'select * from bench_sessions where profile_id = $1 order by id',
    'select e.* from bench_events e join bench_sessions b on b.id = e.session_id where b.profile_id = $1',
    'select * from solves where profile_id = $1',
    'select profile_id, id, definition from own_puzzles where profile_id = $1',
    'select * from own_schools where profile_id = $1',
    'select * from algorithms where profile_id = $1',
    'select * from jobs where profile_id = $1',
  ])
    all.push((await allRows.query(text, [owner])).rows)
  return all
}

/** All texts in whatever came back, however deep. */
function textsIn(value: unknown, seen = new Set<unknown>()): string[] {
  if (typeof value === 'string') return [value]
  if (typeof value !== 'object' || value === null || seen.has(value)) return []
  seen.add(value)
  return Object.entries(value).flatMap(([key, each]) =>
    key === '_owner' || key === '_debugInfo' ? [] : textsIn(each, seen),
  )
}

/** What comes of it when a solver asks: what came back, or the error. */
async function told(solver: string, work: () => unknown): Promise<readonly string[]> {
  return asRequest(async () => {
    browser.solver = solver
    try {
      const came = await work()
      return came instanceof Response ? [`${came.status} ${await came.text()}`] : textsIn(came)
    } catch (error) {
      return [String(error)]
    }
  })
}

type Attempt = (asked: Record<string, (...given: never[]) => unknown>) => unknown
const call = (
  asked: Record<string, (...given: never[]) => unknown>,
  name: string,
  ...given: unknown[]
) => (asked[name] as (...all: unknown[]) => unknown)(...given)

const page =
  (params: object, query: object = {}): Attempt =>
  (asked) =>
    call(asked, 'default', {
      params: Promise.resolve(params),
      searchParams: Promise.resolve(query),
    })

const route =
  (method: string, params: object, body?: unknown, query = ''): Attempt =>
  (asked) =>
    call(
      asked,
      method,
      new Request(`http://localhost/x${query}`, {
        method,
        body: body === undefined ? undefined : JSON.stringify(body),
      }),
      { params: Promise.resolve(params) },
    )

/**
 * By file, then by what is exported. `shown`: it serves everyone, and shows the stranger's own. `all`: it is
 * everyone's by its nature, who solves here is no secret.
 */
type Kind = 'refused' | 'shown' | 'all'
const attempts = (): Record<string, Record<string, readonly (readonly [Kind, Attempt])[]>> => {
  const copy = { puzzleId: ids.puzzle, name: 'Mine now', remarks: '' }
  const scheme = () => puzzleById('cube-3')
  const action =
    (name: string, ...given: unknown[]): Attempt =>
    (asked) =>
      call(asked, name, ...given)
  const own = { puzzleId: ids.puzzle }
  return {
    'src/app/algorithms/[puzzleId]/find/page.tsx': { default: [['refused', page(own)]] },
    'src/app/algorithms/[puzzleId]/page.tsx': {
      default: [
        ['refused', page(own)],
        ['shown', page({ puzzleId: 'cube-3' })],
      ],
    },
    'src/app/algorithms/[puzzleId]/repair/page.tsx': { default: [['refused', page(own)]] },
    'src/app/algorithms/[puzzleId]/sequence/page.tsx': {
      default: [
        ['refused', page(own)],
        ['shown', page({ puzzleId: 'cube-3' }, { turns: 'R' })],
      ],
    },
    'src/app/algorithms/page.tsx': { default: [['shown', page({})]] },
    'src/app/anatomy/[puzzleId]/page.tsx': {
      default: [
        ['refused', page(own)],
        ['refused', page({ puzzleId: ids.copy })],
        ['refused', page({ puzzleId: ids.plain })],
        ['shown', page({ puzzleId: 'cube-3' }, { copy: ids.plain })],
      ],
    },
    'src/app/anatomy/page.tsx': { default: [['shown', page({})]] },
    'src/app/api/algorithms/[puzzleId]/route.ts': {
      GET: [['shown', route('GET', { puzzleId: 'cube-3' })]],
    },
    'src/app/api/bench/[sessionId]/finish/route.ts': {
      POST: [['refused', route('POST', { sessionId: ids.bench }, {})]],
    },
    'src/app/api/bench/[sessionId]/school/route.ts': {
      POST: [['refused', route('POST', { sessionId: ids.bench }, { school: 'piece-by-piece' })]],
    },
    'src/app/api/bench/[sessionId]/end/route.ts': {
      GET: [['refused', route('GET', { sessionId: ids.bench })]],
    },
    'src/app/api/bench/[sessionId]/take-up/route.ts': {
      POST: [['refused', route('POST', { sessionId: ids.bench }, {})]],
    },
    'src/app/api/copies/[copyId]/route.ts': {
      GET: [['refused', route('GET', { copyId: ids.plain })]],
    },
    'src/app/api/backup/route.ts': { GET: [['shown', route('GET', {})]] },
    'src/app/api/jobs/[jobId]/route.ts': {
      GET: [['refused', route('GET', { jobId: ids.import })]],
      DELETE: [['refused', route('DELETE', { jobId: ids.import })]],
    },
    'src/app/api/imports/route.ts': {
      GET: [['shown', route('GET', {}, undefined, '?kind=log')]],
    },
    'src/app/api/surveys/route.ts': {
      POST: [['refused', route('POST', {}, { puzzleId: ids.puzzle, schoolId: ids.school })]],
    },
    'src/app/api/small-letters/route.ts': {
      PUT: [['refused', route('PUT', {}, { puzzleId: ids.puzzle, means: 'wide' })]],
    },
    'src/app/api/log/route.ts': {
      GET: [['shown', route('GET', {})]],
    },
    'src/app/api/puzzles/[puzzleId]/route.ts': {
      GET: [['refused', route('GET', { puzzleId: ids.puzzle })]],
    },
    'src/app/bench/[sessionId]/page.tsx': {
      default: [['refused', page({ sessionId: ids.bench })]],
    },
    'src/app/lay-out/[copyId]/page.tsx': {
      default: [
        ['refused', page({ copyId: ids.plain })],
        ['refused', page({ copyId: ids.copy })],
      ],
    },
    'src/app/log/[solveId]/page.tsx': { default: [['refused', page({ solveId: ids.solve })]] },
    'src/app/log/page.tsx': {
      default: [
        ['shown', page({})],
        ['shown', page({}, { solver: 'x', puzzle: 'cube-3' })],
      ],
    },
    'src/app/page.tsx': { default: [['shown', page({})]] },
    'src/app/schools/[puzzleId]/page.tsx': {
      default: [
        ['refused', page(own)],
        ['shown', page({ puzzleId: 'cube-3' })],
      ],
    },
    'src/app/schools/page.tsx': { default: [['shown', page({})]] },
    'src/app/settings/page.tsx': { default: [['shown', page({})]] },
    'src/app/shelf/page.tsx': { default: [['shown', page({})]] },
    'src/app/solvers/page.tsx': { default: [['all', page({})]] },
    'src/features/algorithms/actions.ts': {
      keepSequence: [['refused', action('keepSequence', ids.puzzle, { turns: 'R2' })]],
      renameSequence: [['refused', action('renameSequence', ids.algorithm, { name: 'mine' })]],
      forgetSequence: [['refused', action('forgetSequence', ids.algorithm)]],
    },
    'src/features/bench/actions.ts': {
      ownSequences: [['shown', action('ownSequences', 'cube-3')]],
    },
    'src/features/go/actions.ts': { placesToGo: [['shown', action('placesToGo')]] },
    'src/features/lay-out/actions.ts': {
      putOnBench: [
        ['refused', action('putOnBench', { laidBy: 'scramble', copyId: ids.plain, scramble: 'R' })],
      ],
    },
    'src/features/log/actions.ts': {
      saveRemark: [['refused', action('saveRemark', ids.solve, 'mine')]],
      discardSolve: [['refused', action('discardSolve', ids.solve)]],
      solveAgain: [['refused', action('solveAgain', ids.solve)]],
    },
    'src/features/schools/actions.ts': {
      keepSchoolFile: [
        ['refused', action('keepSchoolFile', ids.puzzle, JSON.stringify(exampleSchool()))],
      ],
      forgetSchoolFile: [['refused', action('forgetSchoolFile', 'cube-3', ids.school)]],
    },
    'src/features/settings/actions.ts': {
      saveSettings: [
        ['refused', action('saveSettings', { ...DEFAULT_SETTINGS, nickname: `${SECRET} owner` })],
      ],
    },
    'src/features/shelf/actions.ts': {
      saveCopy: [
        ['refused', action('saveCopy', { ...copy, scheme: [] })],
        [
          'refused',
          action(
            'saveCopy',
            {
              ...copy,
              puzzleId: 'cube-3',
              scheme: must(scheme()).definition.colours,
            },
            ids.plain,
          ),
        ],
      ],
      putFileOnShelf: [['refused', action('putFileOnShelf', { name: 'x' }, { id: ids.puzzle })]],
      forgetPuzzle: [['refused', action('forgetPuzzle', ids.puzzle)]],
      discardCopy: [['refused', action('discardCopy', ids.plain)]],
      discardBench: [['refused', action('discardBench', ids.bench)]],
      addCareEntry: [
        [
          'refused',
          action('addCareEntry', ids.plain, {
            happenedOn: '2026-11-02',
            kind: 'tension',
            note: 'x',
          }),
        ],
      ],
      removeCareEntry: [['refused', action('removeCareEntry', ids.care)]],
      takers: [['all', action('takers')]],
      handCopyOver: [['refused', action('handCopyOver', ids.plain, owner)]],
    },
    'src/features/solvers/actions.ts': {
      otherSolvers: [['all', action('otherSolvers')]],
      chooseSolver: [['all', action('chooseSolver', owner)]],
      addSolver: [['refused', action('addSolver', { nickname: `${SECRET} OWNER` })]],
      // Whoever uses the machine may be any of its solvers, and remove one; that is tried elsewhere.
      dropSolver: [['refused', action('dropSolver', 'nobody')]],
    },
  }
}

type Module = Parameters<Attempt>[0]

// The runner of the tests finds them: a file that is new is found too.
const found = {
  ...import.meta.glob<Module>('./**/{page.tsx,route.ts}'),
  ...import.meta.glob<Module>('../features/*/actions.ts'),
}
const FILES = Object.keys(found)
  .map((path) => path.replace(/^\.\.\//, 'src/').replace(/^\.\//, 'src/app/'))
  .sort()

/** A file as it is written above, loaded. */
const load = (path: string): Promise<Module> =>
  found[
    path.startsWith('src/app/') ? path.replace('src/app/', './') : path.replace('src/', '../')
  ]()

describe('what one solver owns', () => {
  it('is asked for at every page, route and action that there is', () => {
    expect(Object.keys(attempts()).sort()).toEqual(FILES)
    for (const [path, exported] of Object.entries(attempts())) {
      const text = readFileSync(path, 'utf8')
      const names = [...text.matchAll(/export (?:async )?function (\w+)/g)].map(([, name]) => name)
      if (path.endsWith('page.tsx')) expect(Object.keys(exported), path).toEqual(['default'])
      else expect(Object.keys(exported).sort(), path).toEqual(names.sort())
    }
  })

  it.each(FILES)('is neither told nor changed by %s', async (path) => {
    const asked = await load(path)
    const before = await belongings()
    for (const [name, tries] of Object.entries(attempts()[path]))
      for (const [kind, attempt] of tries) {
        const said = await told(stranger, () => attempt(asked))
        const words = said.join('\n')
        if (kind !== 'all') expect(words, `${name} tells`).not.toContain(SECRET)
        if (kind === 'refused')
          expect(words, `${name} does it`).toMatch(
            /nothing stands here|not-found|bad-|unknown-|foreign|in-use|taken|no puzzle|No puzzle|missing|must/,
          )
        expect(await belongings(), `${name} changes something`).toEqual(before)
      }
  })

  it('is not known to files that are read for somebody else', async () => {
    const files: [ImportKind, object, string?][] = [
      [
        'log',
        {
          format: 'merry-lantern-log',
          version: 1,
          solves: [
            {
              ...{ puzzle: ids.puzzle, startState: 'a', solution: 'R', elapsedMs: 1 },
              ...{ turnCount: 1, quarterCount: 1, finishedAt: '2026-11-01' },
            },
          ],
        },
      ],
      [
        'sequences',
        {
          ...{ format: 'merry-lantern-algorithms', puzzle: ids.puzzle },
          algorithms: [{ turns: 'R2' }],
        },
        ids.puzzle,
      ],
    ]
    for (const [kind, file, subject] of files)
      for (const [solver, known] of [
        [stranger, false],
        [owner, true],
      ] as const) {
        const pieces = textSource(JSON.stringify(file)).read()
        const id = must(await beginImport(solver, kind, { pieces }, subject))
        await doJob(id, 'here')
        const said = JSON.stringify(await findJob(solver, id))
        if (!known) expect(said).not.toContain(SECRET)
        expect(/no puzzle/i.test(said), said).toBe(!known)
      }
  })

  it('is told to its owner by the same pages and routes: the attempts are not refused for being wrong', async () => {
    for (const path of FILES.filter((each) => /page\.tsx|route\.ts/.test(each))) {
      const asked = await load(path)
      for (const [name, tries] of Object.entries(attempts()[path]))
        for (const [kind, attempt] of tries) {
          if (kind !== 'refused' || ['POST', 'DELETE'].includes(name)) continue
          const said = await told(owner, () => attempt(asked))
          expect(said.join('\n'), `${path} ${name}`).not.toMatch(/nothing stands here|not-found/)
        }
    }
  })
})
