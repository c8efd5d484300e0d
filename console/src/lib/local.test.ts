import { expect, it } from 'vitest'
import { fromLocal, toLocal } from './local'

it.each([
  ['2026-12-01T09:30', 'Europe/London', '2026-12-01T09:30:00.000Z'],
  ['2026-07-01T09:30', 'Europe/London', '2026-07-01T08:30:00.000Z'],
  ['2026-12-01T09:30', 'Pacific/Auckland', '2026-11-30T20:30:00.000Z'],
])('%s in %s is %s, and back', (text, zone, at) => {
  expect(fromLocal(text, zone)).toBe(at)
  expect(toLocal(at, zone)).toBe(text)
})

it('cannot read nonsense', () => {
  expect(fromLocal('soon', 'Europe/London')).toBeNull()
  expect(toLocal('soon', 'Europe/London')).toBe('')
})
