// @vitest-environment jsdom
import { beforeEach, expect, it } from 'vitest'
import { memoryOf, randomId, Store } from './memory'
import { browser } from './outside'

const outside = browser('http://i')

beforeEach(() => localStorage.clear())

it('remembers between pages and tabs', () => {
  new Store('k', outside).change((memory) => (memory.visits = 3))
  expect(new Store('k', outside).read().visits).toBe(3)
})

it('starts anew from memory that cannot be read', () => {
  localStorage.setItem('k', '{"visits": ')
  expect(new Store('k', outside).read().visits).toBe(0)
})

it('forgets past showings when the generation goes up', () => {
  const memory = new Store('k', outside).change((held) => {
    memoryOf(held, 'tp', 1).shown = 4
  })
  expect(memoryOf(memory, 'tp', 1).shown).toBe(4)
  expect(memoryOf(memory, 'tp', 2).shown).toBe(0)
})

it('remembers as long as it lives where the browser refuses', () => {
  const shelf = (): never => {
    throw new DOMException('no', 'SecurityError')
  }
  const store = new Store('k', { ...outside, shelf })
  store.change((memory) => (memory.visits = 3))
  expect([store.works, store.read().visits]).toEqual([false, 3])
  expect(localStorage.getItem('k')).toBeNull()
})

it('makes ids that differ', () => {
  const ids = new Set(Array.from({ length: 50 }, randomId))
  expect(ids.size).toBe(50)
  expect([...ids][0]).toMatch(/^[0-9a-f]{32}$/)
})
