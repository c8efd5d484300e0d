import { expect, it } from 'vitest'
import { addDays, daysLater, fromLocal, toLocal } from './local'

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

const LONDON = 'Europe/London'

it.each([
  // The night before clocks go forward, and the one before they go back.
  ['2026-03-28T23:30:00Z', 1, '2026-03-29T22:30:00.000Z'],
  ['2026-10-24T14:05:00Z', 1, '2026-10-25T15:05:00.000Z'],
  ['2026-03-25T09:00:00Z', 7, '2026-04-01T08:00:00.000Z'],
  // A time that the clock jumps over is the one after it.
  ['2026-03-28T01:30:00Z', 1, '2026-03-29T01:30:00.000Z'],
  ['2026-11-24T14:05:00Z', 7, '2026-12-01T14:05:00.000Z'],
])('the same time on the clock: %s, %i days later', (at, days, later) => {
  expect(daysLater(new Date(at), days, LONDON).toISOString()).toBe(later)
})

it('days of a calendar follow one another', () => {
  expect(addDays('2026-03-28', 1)).toBe('2026-03-29')
  expect(addDays('2026-12-31', 1)).toBe('2027-01-01')
  expect(addDays('2026-03-01', -1)).toBe('2026-02-28')
})
