/** Times as the owner says them, in the business's zone. */
import { ref } from 'vue'
import { formatOf, toLocal } from './local'

interface Parts {
  weekday: string
  day: string
  month: string
  year: string
}

/** How times and numbers are written: in English, as in the region of the business. */
const written = ref('en-GB')

/** With which day a week begins there: 0 is Monday. */
const firstDay = ref(0)

export function writeAsIn(region: string, weekStart = 0): void {
  written.value = `en-${region}`
  firstDay.value = weekStart
}

/** Seven things of a week, Monday's first, in the order of the region. */
export const inWeekOrder = <T>(days: readonly T[]): T[] => [
  ...days.slice(firstDay.value),
  ...days.slice(0, firstDay.value),
]

/** The date ("2026-11-24") with which the week of another begins. */
export function weekBegin(date: string): string {
  const at = new Date(`${date}T12:00:00Z`)
  at.setUTCDate(at.getUTCDate() - ((at.getUTCDay() + 6 - firstDay.value) % 7))
  return at.toISOString().slice(0, 10)
}

const DATE = { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' } as const
const TIME = { hour: 'numeric', minute: '2-digit' } as const

function parts(at: Date, zone: string): Parts & { monthFirst: boolean } {
  const found = formatOf(written.value, zone, DATE).formatToParts(at)
  const place = (type: string) => found.findIndex((part) => part.type === type)
  const named = Object.fromEntries(found.map((part) => [part.type, part.value])) as unknown as Parts
  return { ...named, monthFirst: place('month') < place('day') }
}

/** Whether the region writes a month before its day. */
export const monthFirst = (): boolean => parts(new Date(0), 'UTC').monthFirst

// Browsers differ over "Sept".
const month = (text: string): string => text.slice(0, 3)

/** "15:25", "3:25 PM" */
export function clockTime(at: string | Date, zone: string): string {
  const said = formatOf(written.value, zone, TIME).format(new Date(at)).replace('\u202f', ' ')
  return /^\d:/.test(said) && !/[ap]/i.test(said) ? `0${said}` : said
}

/** A time of a day of 24 hours ("15:25", "24:00") on the region's clock. */
export function clockOf(text: string): string {
  if (text === '24:00' && !/[ap]/i.test(clockTime(new Date(0), 'UTC'))) return text
  const [hours = 0, minutes = 0] = text.split(':').map(Number)
  return clockTime(new Date(Date.UTC(2026, 0, 1, hours, minutes)), 'UTC')
}

/** "Tue 24 Nov", "Tue, Nov 24" */
export function shortDate(at: string | Date, zone: string): string {
  const found = parts(new Date(at), zone)
  return found.monthFirst
    ? `${found.weekday}, ${month(found.month)} ${found.day}`
    : `${found.weekday} ${found.day} ${month(found.month)}`
}

/** A date without its weekday: "24 Nov", "Nov 24". */
export function shortDay(date: string): string {
  const found = parts(new Date(`${date}T12:00:00Z`), 'UTC')
  return found.monthFirst ? `${month(found.month)} ${found.day}` : `${found.day} ${month(found.month)}`
}

/** A date with its year: "24 Nov 2026", "Nov 24, 2026". */
export function yearDay(date: string): string {
  const found = parts(new Date(`${date}T12:00:00Z`), 'UTC')
  return found.monthFirst ? `${shortDay(date)}, ${found.year}` : `${shortDay(date)} ${found.year}`
}

/** A count as it is written: "1,290". */
export const saidCount = (number: number): string => number.toLocaleString(written.value)

const dayNumber = (at: string | Date, zone: string): number =>
  Date.parse(toLocal(at, zone).slice(0, 10)) / 86_400_000

/** "today 15:25", "yesterday 09:10", "Sat 28 Nov, 08:00"; another year is named. */
export function saidTime(at: string | Date, now: string | Date, zone: string): string {
  const when = new Date(at)
  const days = dayNumber(when, zone) - dayNumber(now, zone)
  const time = clockTime(when, zone)
  if (days === 0) return `today ${time}`
  if (days === -1) return `yesterday ${time}`
  if (days === 1) return `tomorrow ${time}`
  const year = parts(when, zone).year
  const sameYear = year === parts(new Date(now), zone).year
  return `${shortDate(when, zone)}${sameYear ? '' : ` ${year}`}, ${time}`
}

/** Minutes as "55 min", "1 h 05", "2 h". */
export function saidLength(minutes: number): string {
  const hours = Math.floor(minutes / 60)
  const rest = minutes % 60
  if (!hours) return `${rest} min`
  return rest ? `${hours} h ${String(rest).padStart(2, '0')}` : `${hours} h`
}

/** How long ago, roughly: "just now", "3 minutes ago", "2 hours ago", "5 days ago". */
export function ago(at: string, now: string): string {
  const minutes = Math.max(0, Math.floor((Date.parse(now) - Date.parse(at)) / 60_000))
  const said = (count: number, unit: string) => `${count} ${unit}${count === 1 ? '' : 's'} ago`
  if (minutes < 1) return 'just now'
  if (minutes < 60) return said(minutes, 'minute')
  return minutes < 48 * 60 ? said(Math.floor(minutes / 60), 'hour') : said(Math.floor(minutes / 1440), 'day')
}
