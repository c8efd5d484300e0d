import { expect, it } from 'vitest'
import { readClock } from './clocktime'

it.each([
  ['8:30', '08:30'], ['9am', '09:00'], ['9 a.m.', '09:00'], ['9.30', '09:30'], ['5pm', '17:00'], ['1730', '17:30'], ['9h30', '09:30'],
  ['12am', '00:00'], ['24:00', '24:00'], ['midnight', '24:00'], ['9', '09:00'],
] as const)('reads %s', (text, clock) => expect(readClock(text)).toBe(clock)) // prettier-ignore

it.each(['', 'soon', '25:00', '9:60', '13pm', '9-17'])('does not guess at “%s”', (text) =>
  expect(readClock(text)).toBeNull(),
)
