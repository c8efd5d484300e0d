import { afterEach, describe, expect, it } from 'vitest'
import { writeAsIn } from './time'
import { readWhen, saidWhen, type Kind } from './when'

const TODAY = '2026-11-28'

afterEach(() => writeAsIn('GB'))

describe('what was typed is read in the order of the region', () => {
  it.each<[string, string, Kind, string | null]>([
    ['GB', '24/11/2026', 'date', '2026-11-24'],
    ['GB', '24.11.26', 'date', '2026-11-24'],
    ['GB', '3/4', 'date', '2027-04-03'],
    ['GB', '24.11.', 'date', '2026-11-24'],
    ['US', '11/24/2026', 'date', '2026-11-24'],
    ['US', '4/3/2027', 'date', '2027-04-03'],
    ['US', '24/11/2026', 'date', null],
    ['GB', '11/24/2026', 'date', null],
    ['GB', '2026-12-01', 'date', '2026-12-01'],
    ['GB', '24 Nov 2026', 'date', '2026-11-24'],
    ['GB', 'Tue 24th November', 'date', '2026-11-24'],
    ['US', 'Nov 24, 2026', 'date', '2026-11-24'],
    // Without a year, the nearest one.
    ['GB', '2 Jan', 'date', '2027-01-02'],
    ['GB', '30 Oct', 'date', '2026-10-30'],
    ['GB', 'Tomorrow', 'date', '2026-11-29'],
    ['GB', '29 Feb 2027', 'date', null],
    ['GB', '29 Feb 2028', 'date', '2028-02-29'],
    ['GB', '31/04/2027', 'date', null],
    ['GB', '24 Foo', 'date', null],
    ['GB', 'soon', 'date', null],
    ['GB', '9am', 'time', '09:00'],
    ['US', '3:25 PM', 'time', '15:25'],
    ['GB', 'midnight', 'time', '00:00'],
    ['GB', '25:00', 'time', null],
    ['GB', '5 Dec 2026, 10:00', 'both', '2026-12-05T10:00'],
    ['GB', '2026-12-05T10:00', 'both', '2026-12-05T10:00'],
    ['GB', '5/12 9.30', 'both', '2026-12-05T09:30'],
    ['US', 'Dec 5, 2026, 3:25 PM', 'both', '2026-12-05T15:25'],
    ['US', '12/5/26 3 pm', 'both', '2026-12-05T15:00'],
    ['GB', '5 Dec midnight', 'both', '2026-12-06T00:00'],
    ['GB', '5 Dec 2026', 'both', '2026-12-05T09:00'],
    ['GB', '17:00', 'both', '2026-11-28T17:00'],
    ['GB', 'tomorrow 8', 'both', '2026-11-29T08:00'],
    ['GB', '5 Dec 2026 at some time', 'both', null],
  ])('%s: %s (%s) is %s', (region, text, kind, value) => {
    writeAsIn(region)
    expect(readWhen(text, kind, TODAY)).toBe(value)
  })
})

describe('it is written as the rest of the screen, and read again as the same', () => {
  it.each<[string, Kind, string, string]>([
    ['GB', 'date', '2026-11-04', '4 Nov 2026'],
    ['US', 'date', '2026-11-04', 'Nov 4, 2026'],
    ['GB', 'both', '2026-09-05T08:30', '5 Sep 2026, 08:30'],
    ['US', 'both', '2026-09-05T15:25', 'Sep 5, 2026, 3:25 PM'],
    ['US', 'time', '00:00', '12:00 AM'],
    ['GB', 'time', '20:00:00', '20:00'],
  ])('%s, %s: %s is %s', (region, kind, value, said) => {
    writeAsIn(region)
    expect(saidWhen(value, kind)).toBe(said)
    expect(readWhen(said, kind, TODAY)).toBe(kind === 'time' ? value.slice(0, 5) : value)
  })
})

it('says nothing of nothing', () => expect(saidWhen('', 'both')).toBe(''))
