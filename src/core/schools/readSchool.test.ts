import { readFileSync } from 'node:fs'
import Ajv from 'ajv'
import { describe, expect, it } from 'vitest'
import { puzzleById } from '../catalog'
import { prove } from '../coach/prove'
import { must } from '../result'
import { whyNotServed } from '../universal/solve'
import { boxSwaps } from './box-swaps'
import { cage } from './cage'
import { capsByBlocks } from './caps-by-blocks'
import { edgesFirst } from './edges-first'
import { faceThenThree } from './face-then-three'
import { halfByHalf } from './half-by-half'
import { layers } from './layers'
import { nestedBoxes } from './nested-boxes'
import { reduction } from './reduction'
import { shapeFirst } from './shape-first'
import { slideIn } from './slide-in'
import { readSchool } from './readSchool'

const corners = { kinds: ['corner'], layers: ['base'] }
const BY_LOOK = ["R U R'", "L' U' L", "R U2 R' U' R U R'"]
const HALF_TURNS = ["R2 U R2 U' R2", 'R2 U2 R2', "R2 U' R2 U R2"]

/** A layer's corners by insertion, then the rest piece by piece. */
const mixed = (
  size: readonly number[],
  sequences: readonly string[],
  kinds: readonly string[],
) => ({
  schema: 1,
  id: 'corners-then-rest',
  name: 'Corners, then the rest',
  character: 'The corners of a layer, then piece by piece.',
  fits: { mechanism: 'box', size },
  stages: [
    {
      id: 'corners',
      name: 'Corners',
      aim: 'The corners of the {base} layer are home.',
      base: 'D',
      goal: [{ must: 'home', select: corners }],
      technique: { kind: 'insert', select: corners, sequences, fetch: 'U', runs: 1 },
    },
    {
      id: 'rest',
      name: 'The rest',
      aim: 'Every piece is home.',
      base: 'D',
      goal: [{ must: 'looks home', select: { kinds } }],
      technique: { kind: 'rest' },
    },
  ],
})

const cubeFile = mixed([3, 3, 3], BY_LOOK, ['corner', 'edge'])
const cube3 = must(puzzleById('cube-3'))
whyNotServed(cube3)

describe('a school file', () => {
  it.each([
    ['cube-2', [2, 2, 2], BY_LOOK, ['corner']],
    ['cube-3', [3, 3, 3], BY_LOOK, ['corner', 'edge']],
    ['cube-4', [4, 4, 4], BY_LOOK, ['corner', 'edge', 'centre']],
    ['box-3x3x2', [3, 2, 3], HALF_TURNS, ['corner', 'edge', 'centre']],
    ['box-3x3x5', [3, 5, 3], HALF_TURNS, ['corner', 'edge', 'centre']],
  ] as const)('that mixes ways of working is proven on %s', (id, size, sequences, kinds) => {
    const puzzle = must(puzzleById(id))
    whyNotServed(puzzle)
    const school = must(readSchool(mixed(size, sequences, kinds)))
    const proof = must(prove(puzzle, school, 6))
    expect(proof.states).toBe(6)
    expect(proof.meanTurns).toBeGreaterThan(10)
  })

  it('that can be stuck is refused with a state that it cannot leave', () => {
    const school = must(readSchool(mixed([3, 3, 3], [BY_LOOK[2]], ['corner', 'edge'])))
    const proof = prove(cube3, school, 20)
    if (proof.ok) throw new Error('it was proven')
    expect(proof.problem.sentence).toMatch(
      /^From [UDFBRL]\S*( [\dUDFBRL]\S*)+ the school does not get on/,
    )
  })

  it('that stops before the end, fits elsewhere or means no piece is refused with a sentence', () => {
    const half = { ...cubeFile, stages: cubeFile.stages.slice(0, 1) }
    const refused = (file: unknown) => {
      const proof = prove(cube3, must(readSchool(file)), 3)
      if (proof.ok) throw new Error('it was proven')
      return proof.problem.sentence
    }
    expect(refused(half)).toContain('does not lead home')
    expect(refused(mixed([4, 4, 4], BY_LOOK, ['corner']))).toContain('is not written for')
    expect(refused(mixed([3, 3, 3], BY_LOOK, ['wing']))).toContain(
      'pieces that this puzzle does not have',
    )
    expect(refused(mixed([3, 3, 3], ['R U Q'], ['corner']))).toContain('R U Q')
  })

  it.each([
    ['nothing', null, /object/],
    ['an unknown field', { ...cubeFile, colour: 'red' }, /colour/],
    ['no stage', { ...cubeFile, stages: [] }, /stages/],
    [
      'a technique that is none',
      { ...cubeFile, stages: [{ ...cubeFile.stages[0], technique: { kind: 'magic' } }] },
      /stages\[0\]\.technique\.kind must be one of/,
    ],
    ['a stage twice', { ...cubeFile, stages: [cubeFile.stages[0], cubeFile.stages[0]] }, /twice/],
    [
      'a sense that is none',
      { ...cubeFile, stages: [{ ...cubeFile.stages[0], goal: [{ must: 'nice' }] }] },
      /must/,
    ],
    [
      'a size without a box',
      { ...cubeFile, fits: { mechanism: 'tetrahedron', size: [3, 3, 3] } },
      /size/,
    ],
  ])('with %s is told by its field', (_, file, words) => {
    const read = readSchool(file)
    if (read.ok) throw new Error('it was read')
    expect(`${read.problem.field}: ${read.problem.sentence}`).toMatch(words)
  })

  it('has the form that is published, and its examples are proven', () => {
    const schema = JSON.parse(readFileSync('docs/school-file.schema.json', 'utf8')) as object
    const isInForm = new Ajv({ allowUnionTypes: true }).compile(schema)
    const examples = [
      ...readFileSync('docs/school-file.md', 'utf8').matchAll(/```json\n([\s\S]*?)```/g),
    ].map(([, text]) => JSON.parse(text) as unknown)
    expect(examples.length).toBeGreaterThan(0)
    for (const file of [cubeFile, ...examples]) {
      expect(isInForm(file), JSON.stringify(isInForm.errors)).toBe(true)
      must(prove(cube3, must(readSchool(file)), 5))
    }
    for (const school of [
      layers,
      edgesFirst,
      halfByHalf,
      faceThenThree,
      boxSwaps,
      nestedBoxes,
      shapeFirst,
      slideIn,
      reduction,
      cage,
      capsByBlocks,
    ]) {
      const file = JSON.parse(JSON.stringify({ schema: 1, ...school })) as { stages: object[] }
      expect(isInForm(file), JSON.stringify(isInForm.errors)).toBe(true)
      expect(must(readSchool(file))).toEqual(school)
      const [first, ...rest] = file.stages
      const strange = readSchool({
        ...file,
        stages: [{ ...first, when: { pace: 'slow' } }, ...rest],
      })
      expect(strange.ok ? '' : strange.problem.sentence).toContain('pace slow')
    }
    expect(isInForm({ ...cubeFile, schema: 2 })).toBe(false)
    expect(isInForm({ ...cubeFile, extra: true })).toBe(false)
  })

  it('may play stages of another school, if that one and its stages are there', () => {
    const small = [3, 3, 3]
    const as = (school: string, stage: string, size: readonly number[] = small) =>
      readSchool({
        ...JSON.parse(JSON.stringify({ schema: 1, ...reduction })),
        id: 'own-reduction',
        stages: [
          {
            id: 'played',
            name: 'Played',
            aim: 'It is played as a smaller one.',
            base: 'D',
            goal: [{ must: 'together', select: { as: size } }],
            technique: { kind: 'as', size, school, stages: [stage] },
          },
        ],
      })
    const why = (read: ReturnType<typeof as>) => (read.ok ? '' : read.problem.sentence)
    expect(why(as('layers', 'middle'))).toBe('')
    expect(why(as('layers', 'nowhere'))).toContain('nowhere')
    expect(why(as('nothing', 'middle'))).toContain('school')
    // A school that plays another itself would go round.
    expect(why(as('reduction', 'pairs'))).toContain('school')
    const wide = must(as('layers', 'middle', [2, 3, 3]))
    const proof = prove(must(puzzleById('cube-4')), wide, 1)
    expect(proof.ok ? '' : proof.problem.sentence).toContain('cannot be')
  })
})
