import { describe, expect, it } from 'vitest'
import { must } from '../core/result'
import { checked } from '@/server/outside'
import { careSchema } from './careSchema'

const fieldOf = async (input: unknown) => {
  const read = await checked(careSchema, input)
  return read.ok ? undefined : read.problem.field
}
const good = { happenedOn: '2026-11-20', kind: 'tension', note: ' A quarter looser. ' }

describe('a care entry', () => {
  it('is trimmed and taken', async () => {
    expect(must(await checked(careSchema, good)).note).toBe('A quarter looser.')
    expect(must(await checked(careSchema, { ...good, note: undefined })).note).toBe('')
  })

  it.each([
    ['happenedOn', { happenedOn: '' }],
    ['happenedOn', { happenedOn: '2026-02-30' }],
    ['happenedOn', { happenedOn: '20.11.2026' }],
    ['happenedOn', { happenedOn: '2199-01-01' }],
    ['kind', { kind: 'oiled' }],
    ['kind', { kind: undefined }],
    ['note', { note: 'x'.repeat(501) }],
  ])('is refused with the field %s named: %j', async (field, change) => {
    expect(await fieldOf({ ...good, ...change })).toBe(field)
  })

  it('has no other fields', async () => {
    expect(await fieldOf({ ...good, mood: 'calm' })).toBeDefined()
  })
})
