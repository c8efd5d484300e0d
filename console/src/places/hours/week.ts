import type { HoursDocument, Stretch } from '@/api/hours'
import { addDays } from '@/lib/local'
import { WEEKDAYS, type Weekday } from '@/lib/names'

const DAYS = Object.keys(WEEKDAYS) as Weekday[]
export const GRID = 15
export const FINE = 5
const DAY = 1440

/** A stretch of a day in minutes from its midnight; the end may lie in the next day. */
export interface Piece {
  start: number
  end: number
}
export interface DayRow {
  date: string
  day: Weekday
  name: string
  pieces: Piece[]
  /** The odd day that holds instead of the week, by its place in the document. */
  odd: number | null
  label: string
}

export const minutes = (text: string): number => {
  const [hours = 0, more = 0] = text.split(':').map(Number)
  return hours * 60 + more
}
export const clock = (at: number): string => {
  const within = ((at % DAY) + DAY) % DAY
  return `${String(Math.floor(within / 60)).padStart(2, '0')}:${String(within % 60).padStart(2, '0')}`
}
export const pieceOf = (one: Stretch): Piece => {
  const [start, end] = [minutes(one.from), one.to === '24:00' ? DAY : minutes(one.to)]
  return { start, end: end > start ? end : end + DAY }
}
export const stretchOf = (one: Piece): Stretch => ({
  from: clock(one.start),
  to: one.end === DAY ? '24:00' : clock(one.end),
})

/** Seven days from a date on as they really are, odd days in place. */
export function weekOf(document: HoursDocument, begins: string): DayRow[] {
  return DAYS.map((_, ahead) => {
    const date = addDays(begins, ahead)
    const weekday = (new Date(`${date}T12:00:00Z`).getUTCDay() + 6) % 7
    const day = DAYS[weekday] ?? 'mon'
    const odd = document.exceptions.findIndex((one) => one.first <= date && date <= one.last)
    const exception = odd < 0 ? undefined : document.exceptions[odd]
    const stretches = exception ? exception.stretches : document.week.filter((one) => one.day === day)
    const pieces = stretches.map(pieceOf).sort((a, b) => a.start - b.start)
    return {
      date,
      day,
      name: WEEKDAYS[day],
      pieces,
      odd: odd < 0 ? null : odd,
      label: exception?.label ?? '',
    }
  })
}

/** From the earliest opening to the latest closing, in whole hours, with an hour to either side. */
export function bounds(rows: DayRow[]): Piece {
  const pieces = rows.flatMap((one) => one.pieces)
  const first = Math.min(8 * 60, ...pieces.map((one) => one.start))
  const last = Math.max(20 * 60, ...pieces.map((one) => one.end))
  return {
    start: Math.max(0, Math.floor(first / 60 - 1) * 60),
    end: Math.min(30 * 60, Math.ceil(last / 60 + 1) * 60),
  }
}

/** How far along a span of minutes one is, in percent. */
export const along = (span: Piece, at: number): number =>
  Math.min(100, (100 * (at - span.start)) / (span.end - span.start))

/** Pieces in order, those that touch or cross taken as one, none longer than a day. */
export function joined(pieces: Piece[]): Piece[] {
  const found: Piece[] = []
  for (const one of [...pieces].filter((each) => each.end > each.start).sort((a, b) => a.start - b.start)) {
    const last = found[found.length - 1]
    if (last && one.start <= last.end) last.end = Math.max(last.end, one.end)
    else found.push({ start: one.start, end: Math.min(one.end, one.start + DAY) })
  }
  return found
}

/** The document with a weekday open so from now on. */
export function everyWeek(document: HoursDocument, day: DayRow['day'], pieces: Piece[]): HoursDocument {
  const others = document.week.filter((one) => one.day !== day)
  const own = joined(pieces).map((one) => ({ day, ...stretchOf(one) }))
  const order = (one: { day: string }) => DAYS.indexOf(one.day as DayRow['day'])
  return { ...document, week: [...others, ...own].sort((a, b) => order(a) - order(b)) }
}

/** The odd days without those of a span; what lies before and after it stays. */
function outside(document: HoursDocument, first: string, last: string): HoursDocument['exceptions'] {
  return document.exceptions.flatMap((one) => {
    if (last < one.first || one.last < first) return [one]
    const before = one.first < first ? [{ ...one, last: addDays(first, -1) }] : []
    const after = last < one.last ? [{ ...one, first: addDays(last, 1) }] : []
    return [...before, ...after]
  })
}
const withOdd = (document: HoursDocument, made: HoursDocument['exceptions'][number]): HoursDocument => ({
  ...document,
  exceptions: [...outside(document, made.first, made.last), made].sort((a, b) =>
    a.first.localeCompare(b.first),
  ),
})

/** The document with one date open so; what was odd about it before gives way, other days of a span stay. */
export function onlyOn(document: HoursDocument, date: string, pieces: Piece[], label: string): HoursDocument {
  return withOdd(document, {
    first: date,
    last: date,
    label,
    holiday: false,
    stretches: joined(pieces).map(stretchOf),
  })
}

/** The document with every day of a span closed. */
export function closedOver(
  document: HoursDocument,
  first: string,
  last: string,
  label: string,
  holiday: boolean,
): HoursDocument {
  return withOdd(document, { first, last, label, holiday, stretches: [] })
}

/** The document with the odd days of a date taken out, so that the week holds again. */
export function asUsual(document: HoursDocument, date: string): HoursDocument {
  return { ...document, exceptions: outside(document, date, date) }
}

/** How long a day is open, in words. */
export function lengthOf(pieces: Piece[]): string {
  const sum = pieces.reduce((all, one) => all + one.end - one.start, 0)
  return sum ? `${Math.floor(sum / 60)} h ${String(sum % 60).padStart(2, '0')}` : 'closed'
}
