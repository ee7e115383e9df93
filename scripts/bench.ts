/**
 * `npm run bench`: the figures that the issues ask for, measured on this machine. With --quick fewer
 * states; with `--only ID,ID` piece by piece alone, for these puzzles; with `--hostile` input from a stranger
 * alone; with `--cards` every claim of 20,000 cards alone; with `--schools` the written schools of other puzzles alone; with `--growth` a full
 * database alone, with `--load` many solvers at once; with `--kills` the program is killed in mid-solve instead. The browser figures need a built application and a database: ./merry bench sets both up.
 */
import { orderOfPuzzle } from '../src/core/analysis/order'
import { CATALOG_IDS, catalog, puzzleById } from '../src/core/catalog'
import { plan } from '../src/core/coach/plan'
import { statesAfterStages } from '../src/core/coach/verify'
import { compile } from '../src/core/puzzle/compile'
import { seededRandom } from '../src/core/random'
import { must } from '../src/core/result'
import { drawState } from '../src/core/scramble/scramble'
import { schoolsFor } from '../src/core/schools'
import { UNIVERSAL_ID } from '../src/core/schools/piece-by-piece'
import { variantsOf } from '../src/core/schools/school'
import { buildDistanceTable, halfTurnTable } from '../src/core/search/distanceTable'
import { start, turnFreely } from '../src/core/state'
import { measureCards } from './benchCards'
import { measureHostile } from './benchHostile'
import { measureHostileRequests } from './hostileRequests'
import { measureAlgorithms } from './benchAlgorithms'
import { measureKin, measureSchools, measureSolids } from './benchSchools'
import { measureGrowth } from './benchGrowth'
import { measureLoad } from './benchLoad'
import { measureScreens } from './benchScreens'
import { measureStuck } from './benchStuck'
import { measureRandom, measureUniversal } from './benchUniversal'

// Whoever reads the figures may have read enough: `./merry bench | head`.
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code !== 'EPIPE') throw error
  process.exit()
})

const STATES = process.argv.includes('--quick') ? 1000 : 10_000

const only = process.argv[process.argv.indexOf('--only') + 1]
if (process.argv.includes('--only')) {
  measureUniversal(STATES / 10, only.split(','))
  process.exit()
}

const { BENCH_ADDRESS: address, BENCH_SERVER: server } = process.env

if (process.argv.includes('--hostile')) {
  await measureHostile()
  if (address) await measureHostileRequests(address)
  process.exit()
}

/** A number that was given, or the usual one. */
function numberAfter(option: string, usual: number): number {
  const at = process.argv.indexOf(option)
  const given = at < 0 ? usual : Number(process.argv[at + 1])
  if (!Number.isInteger(given) || given < 1) throw new Error(`${option} takes a whole number`)
  return given
}

if (process.argv.includes('--load')) {
  if (!address) throw new Error('run ./merry bench --load')
  await measureLoad(process.env.BENCH_TITLE ?? '', address, Number(server), {
    solvers: numberAfter('--solvers', 200),
    seconds: numberAfter('--seconds', 300),
  })
  process.exit()
}

if (process.argv.includes('--growth')) {
  if (!address) throw new Error('run ./merry bench --growth')
  await measureGrowth(address)
  process.exit()
}

if (process.argv.includes('--schools')) {
  measureSchools(STATES / 5)
  measureSolids(10, STATES / 50)
  measureKin(STATES / 50)
  process.exit()
}

if (process.argv.includes('--cards')) {
  measureCards(20_000)
  process.exit()
}

const cube2 = must(puzzleById('cube-2'))

function timed<T>(work: () => T): [T, number] {
  const began = performance.now()
  const value = work()
  return [value, performance.now() - began]
}

const at = (sorted: readonly number[], share: number) =>
  sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))]

function title(text: string): void {
  console.log(`\n${text}\n${'-'.repeat(text.length)}`)
}

title('Compile')
for (const definition of catalog()) {
  const [, first] = timed(() => compile(definition))
  const again = Array.from({ length: 9 }, () => timed(() => compile(definition))[1])
  again.sort((a, b) => a - b)
  console.log(
    `${definition.id.padEnd(20)} ${again[4].toFixed(1)} ms, the first time ${first.toFixed(1)} ms`,
  )
}

title('Order of the group, by a strong generating set that is proven')
for (const id of CATALOG_IDS) {
  const [order, ms] = timed(() => orderOfPuzzle(must(puzzleById(id))))
  console.log(`${id.padEnd(20)} ${String(Math.round(ms)).padStart(6)} ms  ${order.groupOrder}`)
}

title('All states of cube-2')
for (const metric of ['half', 'quarter'] as const) {
  const [table, ms] = timed(() => must(buildDistanceTable(cube2, metric)))
  const total = table.counts.reduce((a, b) => a + b)
  const mean = table.counts.reduce((sum, n, d) => sum + n * d, 0) / total
  console.log(`${metric} turns: ${total} states in ${Math.round(ms)} ms, mean ${mean.toFixed(3)}`)
  console.log(`  ${table.counts.map((n, d) => `${d}: ${n}`).join('  ')}`)
}

title('Sequences that are looked for, or were misheard')
await measureAlgorithms()

title('Turns a second')
for (const id of CATALOG_IDS) {
  const puzzle = must(puzzleById(id))
  const state = start(puzzle)
  const random = seededRandom(1)
  const turns = Array.from({ length: 4096 }, () => puzzle.turns[random.below(puzzle.turns.length)])
  const count = 2_000_000
  const [, ms] = timed(() => {
    for (let i = 0; i < count; i++) turnFreely(puzzle, state, turns[i & 4095], state)
  })
  console.log(`${id.padEnd(20)} ${(count / ms / 1000).toFixed(2)} million`)
}

title(`Schools over ${STATES} uniformly drawn states`)
halfTurnTable(cube2)
const random = seededRandom(20261125)
const states = Array.from({ length: STATES }, () => drawState(cube2, random))
console.log(
  'school and variant'.padEnd(36),
  ['median ms', '99th ms', 'mean turns', 'worst', 'quarters', 'looks', 'solved']
    .map((name) => name.padStart(10))
    .join(' '),
)
for (const school of schoolsFor('cube-2').filter(({ id }) => id !== UNIVERSAL_ID))
  for (const [v, variant] of variantsOf(school).entries()) {
    // All variants over a tenth of the states, the default ones over all.
    const used = v === 0 ? states : states.slice(0, STATES / 10)
    for (const state of used.slice(0, 50)) plan(cube2, school, state, { variant })
    const times: number[] = []
    const turns: number[] = []
    let quarters = 0
    let looks = 0
    let solved = 0
    for (const state of used) {
      const [route, ms] = timed(() => must(plan(cube2, school, state, { variant })))
      times.push(ms)
      turns.push(route.turnCount)
      quarters += route.quarterCount
      looks += route.looks
      if (statesAfterStages(cube2, school, route).every(({ met }) => met)) solved++
    }
    times.sort((a, b) => a - b)
    const mean = (sum: number) => (sum / used.length).toFixed(2)
    const figures = [
      at(times, 0.5).toFixed(2),
      at(times, 0.99).toFixed(2),
      mean(turns.reduce((a, b) => a + b)),
      `${Math.max(...turns)}`,
      mean(quarters),
      mean(looks),
      `${((100 * solved) / used.length).toFixed(2)}%`,
    ]
    const name = [school.id, ...Object.values(variant)].join(' ')
    console.log(name.padEnd(36), figures.map((figure) => figure.padStart(10)).join(' '))
  }

title('Piece by piece, scrambled states in any hold')
measureUniversal(process.argv.includes('--quick') ? 20 : 1000)

title('Piece by piece, definitions made at random')
measureRandom(process.argv.includes('--quick') ? 6 : 12, process.argv.includes('--quick') ? 5 : 100)

title('Stuck: verdicts against the group')
measureStuck(process.argv.includes('--quick') ? 10 : 100)

title('Input from a stranger')
await measureHostile()

title('Screens')
await measureScreens()

title('Schools of people, by what a puzzle is')
measureSchools(STATES / 5)
measureSolids(10, STATES / 50)
measureKin(STATES / 50)

title('Cards')
measureCards(process.argv.includes('--quick') ? 2000 : 20_000)
