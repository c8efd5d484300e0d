// @vitest-environment jsdom
import { beforeEach, expect, it } from 'vitest'
import { memoryOf, randomId, Store } from './memory'

beforeEach(() => localStorage.clear())

it('remembers between pages and tabs', () => {
  new Store('k').change((memory) => (memory.visits = 3))
  expect(new Store('k').read().visits).toBe(3)
})

it('starts anew from memory that cannot be read', () => {
  localStorage.setItem('k', '{"visits": ')
  expect(new Store('k').read().visits).toBe(0)
})

it('forgets past showings when the generation goes up', () => {
  const memory = new Store('k').change((held) => {
    memoryOf(held, 'tp', 1).shown = 4
  })
  expect(memoryOf(memory, 'tp', 1).shown).toBe(4)
  expect(memoryOf(memory, 'tp', 2).shown).toBe(0)
})

it('makes ids that differ', () => {
  const ids = new Set(Array.from({ length: 50 }, randomId))
  expect(ids.size).toBe(50)
  expect([...ids][0]).toMatch(/^[0-9a-f]{32}$/)
})
