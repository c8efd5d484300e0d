import { expect, it } from 'vitest'
import { readLength, sayLength } from './length'

it.each([
  ['3 days', 4320], ['1 day', 1440], ['2 weeks', 20160], ['5 h 30', 330], ['5h30', 330], ['1:20', 80], ['90', 90], ['90 min', 90],
  ['2 d 4 h', 3120], ['1.5 h', 90], ['1,5 hours', 90], ['1 day and 6 hours', 1800], ['at once', 0], ['0', 0],
] as const)('reads %s', (text, minutes) => expect(readLength(text)).toBe(minutes)) // prettier-ignore

it.each(['', 'soon', '3 fortnights', '-5', '5 min 3 h', '1:75', '3 days ago'])(
  'does not guess at “%s”',
  (text) => {
    expect(readLength(text)).toBeNull()
  },
)

it.each([
  [4320, '3 days'], [1440, '1 day'], [90, '1 h 30'], [60, '1 h'], [45, '45 min'], [1530, '1 day 1 h 30 min'], [65, '1 h 05'], [0, '0 min'],
] as const)('says %i minutes', (minutes, words) => {
  expect(sayLength(minutes)).toBe(words)
  expect(readLength(words)).toBe(minutes)
}) // prettier-ignore
