/**
 * Dates and times as people type them, and as the rest of the screen writes them. Values are a browser's own:
 * ISO, in no zone.
 */
import { readClock } from './clocktime'
import { addDays } from './local'
import { clockOf, monthFirst, yearDay } from './time'

/** "2026-11-24", "15:25", or "2026-11-24T15:25". */
export type Kind = 'date' | 'time' | 'both'

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec']
const NAMED_DAYS: Record<string, number> = { yesterday: -1, today: 0, tomorrow: 1 }
/** The time of day where only a day was said. */
const MORNING = '09:00'

function isoOf(year: number, month: number, day: number): string | null {
  const at = new Date(Date.UTC(year, month - 1, day))
  if (at.getUTCMonth() !== month - 1 || year < 1900 || year > 2200) return null
  return at.toISOString().slice(0, 10)
}

/** Where no year was said, the one that brings the day nearest to today. */
function nearest(month: number, day: number, today: string): string | null {
  const year = Number(today.slice(0, 4))
  const away = (date: string) => Math.abs(Date.parse(date) - Date.parse(today))
  const all = [year - 1, year, year + 1].map((one) => isoOf(one, month, day)).filter((date) => date !== null)
  return all.sort((a, b) => away(a) - away(b))[0] ?? null
}

const dated = (year: string | undefined, month: number, day: number, today: string): string | null => {
  if (!year) return nearest(month, day, today)
  return isoOf(Number(year) + (year.length === 2 ? 2000 : 0), month, day)
}

/**
 * A day as people type it ("24 Nov", "24/11/2026" or "11/24/26" by the region, "tomorrow") as "YYYY-MM-DD";
 * null where it is none.
 */
export function readDate(text: string, today: string): string | null {
  const given = text.trim().toLowerCase().replace(/\s+/g, ' ')
  const named = NAMED_DAYS[given]
  if (named !== undefined) return addDays(today, named)
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(given)
  if (iso) return isoOf(Number(iso[1]), Number(iso[2]), Number(iso[3]))
  const worded =
    /^(?:[a-z]{3,9},? )?(?<day>\d{1,2})(?:st|nd|rd|th|\.)? (?<month>[a-z]{3,9})\.?(?:,? (?<year>\d{4}))?$/.exec(
      given,
    ) ??
    /^(?:[a-z]{3,9},? )?(?<month>[a-z]{3,9})\.? (?<day>\d{1,2})(?:st|nd|rd|th)?(?:,? (?<year>\d{4}))?$/.exec(
      given,
    )
  if (worded?.groups) {
    const month = MONTHS.indexOf((worded.groups.month ?? '').slice(0, 3)) + 1
    return month ? dated(worded.groups.year, month, Number(worded.groups.day), today) : null
  }
  const numbers = /^(\d{1,2})[./-](\d{1,2})(?:[./-](\d{4}|\d{2})?)?$/.exec(given)
  if (!numbers) return null
  const [first, second] = [Number(numbers[1]), Number(numbers[2])]
  return monthFirst() ? dated(numbers[3], first, second, today) : dated(numbers[3], second, first, today)
}

// Midnight at the end of a day is the beginning of the next.
const onADay = (date: string, time: string) =>
  time === '24:00' ? `${addDays(date, 1)}T00:00` : `${date}T${time}`

/**
 * What was typed, as a value of its kind; null where it is none. Only a time means today; only a day, nine in
 * the morning.
 */
export function readWhen(text: string, kind: Kind, today: string): string | null {
  if (kind === 'date') return readDate(text, today)
  const time = readClock(text)
  if (kind === 'time') return time === '24:00' ? '00:00' : time
  const day = readDate(text, today)
  if (day) return onADay(day, MORNING)
  if (time) return onADay(today, time)
  for (const { index, 0: gap } of text.matchAll(/,?\s+|t(?=\d)/gi)) {
    const [date, at] = [readDate(text.slice(0, index), today), readClock(text.slice(index + gap.length))]
    if (date && at) return onADay(date, at)
  }
  return null
}

/** A value as the screen writes it: "24 Nov 2026", "3:25 PM", "24 Nov 2026, 15:25". */
export function saidWhen(value: string, kind: Kind): string {
  if (!value) return ''
  if (kind === 'time') return clockOf(value.slice(0, 5))
  const [date = '', time = ''] = value.split('T')
  return kind === 'date' ? yearDay(date) : `${yearDay(date)}, ${clockOf(time.slice(0, 5))}`
}
