import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import type { Entry } from './plan'
import { Turns } from './turns'

const entry = (id: string, order: number) => ({ id, order }) as Entry

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

it('shows one at a time, the next 3 s after the one before has gone', async () => {
  const shown: string[] = []
  const turns = new Turns((one) => Promise.resolve(!!shown.push(one.id)))
  turns.ready(entry('first', 20))
  await vi.advanceTimersByTimeAsync(0)
  turns.ready(entry('late', 30))
  turns.ready(entry('early', 10))
  expect(shown).toEqual(['first'])
  turns.gone()
  await vi.advanceTimersByTimeAsync(2999)
  expect(shown).toEqual(['first'])
  await vi.advanceTimersByTimeAsync(1)
  expect(shown).toEqual(['first', 'early'])
})

it('goes on to the next when one may not be shown any more', async () => {
  const shown: string[] = []
  const turns = new Turns((one) => Promise.resolve(one.id === 'b' && !!shown.push(one.id)))
  turns.ready(entry('a', 1))
  turns.ready(entry('b', 2))
  await vi.advanceTimersByTimeAsync(0)
  expect(shown).toEqual(['b'])
})

it('ends the queue with the page', async () => {
  const shown: string[] = []
  const turns = new Turns((one) => Promise.resolve(!!shown.push(one.id)))
  turns.taken()
  turns.ready(entry('a', 1))
  turns.clear()
  turns.gone()
  await vi.advanceTimersByTimeAsync(10_000)
  expect(shown).toEqual([])
})
