/** Times as the owner says them, in the business's zone. */

interface Parts {
  weekday: string
  day: string
  month: string
  year: string
  hour: string
  minute: string
}

const formats = new Map<string, Intl.DateTimeFormat>()

function parts(at: Date, zone: string): Parts {
  let format = formats.get(zone)
  if (!format) {
    format = new Intl.DateTimeFormat('en-GB', {
      timeZone: zone, weekday: 'short', day: 'numeric', month: 'short', year: 'numeric', hour: '2-digit', minute: '2-digit', hourCycle: 'h23',
    }) // prettier-ignore
    formats.set(zone, format)
  }
  return Object.fromEntries(format.formatToParts(at).map((part) => [part.type, part.value])) as unknown as Parts
}

// Browsers differ over "Sept".
const month = (text: string): string => text.slice(0, 3)

/** "15:25" */
export function clockTime(at: string | Date, zone: string): string {
  const found = parts(new Date(at), zone)
  return `${found.hour}:${found.minute}`
}

/** "Tue 24 Nov" */
export function shortDate(at: string | Date, zone: string): string {
  const found = parts(new Date(at), zone)
  return `${found.weekday} ${found.day} ${month(found.month)}`
}

function dayNumber(at: Date, zone: string): number {
  const [year, monthNumber, day] = new Intl.DateTimeFormat('en-CA', { timeZone: zone }).format(at).split('-').map(Number)
  return Date.UTC(year ?? 0, (monthNumber ?? 1) - 1, day ?? 1) / 86_400_000
}

/** "today 15:25", "yesterday 09:10", "Sat 28 Nov, 08:00"; another year is named. */
export function saidTime(at: string | Date, now: string | Date, zone: string): string {
  const when = new Date(at)
  const days = dayNumber(when, zone) - dayNumber(new Date(now), zone)
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
