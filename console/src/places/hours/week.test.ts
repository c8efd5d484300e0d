import { expect, it } from 'vitest'
import type { HoursDocument } from '@/api/hours'
import { weekBegin } from '@/lib/time'
import { asUsual, bounds, closedOver, everyWeek, joined, onlyOn, pieceOf, stretchOf, weekOf } from './week'

const HOURS: HoursDocument = {
  timezone: 'Europe/London',
  week: [
    { day: 'fri', from: '09:00', to: '17:30' },
    { day: 'fri', from: '20:00', to: '00:30' },
    { day: 'sat', from: '00:00', to: '24:00' },
  ],
  exceptions: [{ first: '2026-12-24', last: '2026-12-26', label: 'Christmas', holiday: true, stretches: [] }],
}

it('a week is shown as it really is, past midnight and with its odd days', () => {
  const rows = weekOf(HOURS, weekBegin('2026-12-25'))
  expect(rows.map((one) => one.date)[4]).toBe('2026-12-25')
  expect(rows[4]).toMatchObject({ odd: 0, label: 'Christmas', pieces: [] })
  const usual = weekOf(HOURS, '2026-11-23')
  expect(usual[4]?.pieces).toEqual([
    { start: 540, end: 1050 },
    { start: 1200, end: 1470 },
  ])
  expect(bounds(usual)).toEqual({ start: 0, end: 1560 })
})

it('a stretch goes there and back', () => {
  for (const one of HOURS.week) expect(stretchOf(pieceOf(one))).toEqual({ from: one.from, to: one.to })
})

it('stretches that meet are one', () => {
  expect(
    joined([
      { start: 600, end: 700 },
      { start: 500, end: 600 },
      { start: 800, end: 800 },
    ]),
  ).toEqual([{ start: 500, end: 700 }])
})

it('every Friday changes the week, this Friday only makes an odd day, and as usual takes it back', () => {
  const every = everyWeek(HOURS, 'fri', [{ start: 600, end: 660 }])
  expect(every.week.map((one) => one.day)).toEqual(['fri', 'sat'])
  expect(every.exceptions).toEqual(HOURS.exceptions)
  const once = onlyOn(HOURS, '2026-12-25', [{ start: 600, end: 720 }], 'Swim')
  expect(once.exceptions.map((one) => [one.first, one.last, one.label])).toEqual([
    ['2026-12-24', '2026-12-24', 'Christmas'],
    ['2026-12-25', '2026-12-25', 'Swim'],
    ['2026-12-26', '2026-12-26', 'Christmas'],
  ])
  expect(once.week).toEqual(HOURS.week)
  expect(asUsual(once, '2026-12-25').exceptions.map((one) => one.first)).toEqual(['2026-12-24', '2026-12-26'])
})

it('a span closes each of its days and leaves what is odd before and after it', () => {
  const closed = closedOver(HOURS, '2026-12-25', '2026-12-30', 'Boat repairs', true)
  expect(closed.exceptions.map((one) => [one.first, one.last, one.label, one.holiday])).toEqual([
    ['2026-12-24', '2026-12-24', 'Christmas', HOURS.exceptions[0]?.holiday],
    ['2026-12-25', '2026-12-30', 'Boat repairs', true],
  ])
  expect(weekOf(closed, '2026-12-28')[0]).toMatchObject({ pieces: [], label: 'Boat repairs' })
})
