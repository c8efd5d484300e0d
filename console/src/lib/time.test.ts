import { afterEach, describe, expect, it } from 'vitest'
import {
  ago,
  clockOf,
  clockTime,
  inWeekOrder,
  saidCount,
  saidLength,
  saidTime,
  shortDate,
  shortDay,
  weekBegin,
  writeAsIn,
  yearDay,
} from './time'

const LONDON = 'Europe/London'
const NOW = '2026-11-24T14:05:00Z'

describe('times as the owner says them', () => {
  it.each([
    ['2026-11-24T15:25:00Z', 'today 15:25'],
    ['2026-11-25T09:00:00Z', 'tomorrow 09:00'],
    ['2026-11-23T23:59:00Z', 'yesterday 23:59'],
    ['2026-11-28T08:00:00Z', 'Sat 28 Nov, 08:00'],
    ['2027-09-04T08:00:00Z', 'Sat 4 Sep 2027, 09:00'],
  ])('%s is %s', (at, said) => expect(saidTime(at, NOW, LONDON)).toBe(said))

  it('knows that tomorrow is nearer in another zone', () => {
    expect(saidTime('2026-11-24T15:25:00Z', NOW, 'Pacific/Auckland')).toBe('today 04:25')
    expect(shortDate(NOW, 'Pacific/Auckland')).toBe('Wed 25 Nov')
  })

  it('follows the change of the clocks', () => {
    expect(clockTime('2026-10-25T00:30:00Z', LONDON)).toBe('01:30')
    expect(clockTime('2026-10-25T01:30:00Z', LONDON)).toBe('01:30')
  })

  it.each([
    [55, '55 min'],
    [60, '1 h'],
    [65, '1 h 05'],
    [0, '0 min'],
  ])('%i minutes are %s', (minutes, said) => expect(saidLength(minutes)).toBe(said))

  it.each([
    ['2026-11-24T14:04:30Z', 'just now'],
    ['2026-11-24T14:02:00Z', '3 minutes ago'],
    ['2026-11-24T13:05:00Z', '1 hour ago'],
    ['2026-11-20T14:05:00Z', '4 days ago'],
  ])('%s was %s', (at, said) => expect(ago(at, NOW)).toBe(said))
})

describe('times as in the region of the business', () => {
  afterEach(() => writeAsIn('GB'))

  it.each([
    ['GB', 0, 'tomorrow 09:00', '24 Nov 2026', '24:00', '2026-11-23', 'mon'],
    ['US', 6, 'tomorrow 9:00 AM', 'Nov 24, 2026', '12:00 AM', '2026-11-22', 'sun'],
    ['DE', 0, 'tomorrow 09:00', '24 Nov 2026', '24:00', '2026-11-23', 'mon'],
    ['AU', 0, 'tomorrow 9:00 am', '24 Nov 2026', '12:00 am', '2026-11-23', 'mon'],
  ])('%s', (region, first, said, day, midnight, begins, weekday) => {
    writeAsIn(region, first)
    expect(saidTime('2026-11-25T09:00:00Z', NOW, LONDON)).toBe(said)
    expect(yearDay('2026-11-24')).toBe(day)
    expect(clockOf('24:00')).toBe(midnight)
    expect(weekBegin('2026-11-24')).toBe(begins)
    expect(inWeekOrder(['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'])[0]).toBe(weekday)
    expect(shortDay('2026-09-04')).toBe(region === 'US' ? 'Sep 4' : '4 Sep')
    expect(saidCount(1290)).toMatch(/^1.290$/)
  })
})
