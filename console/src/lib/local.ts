/** A wall-clock time in a zone, as a browser's date box writes it, and back. */

const formats = new Map<string, Intl.DateTimeFormat>()

/** A format for a zone, made once: making it costs as much as using it some hundred times. */
export function formatOf(
  locale: string,
  zone: string,
  options: Intl.DateTimeFormatOptions,
): Intl.DateTimeFormat {
  const key = `${locale} ${zone} ${Object.entries(options).flat().join()}`
  const known = formats.get(key) ?? new Intl.DateTimeFormat(locale, { timeZone: zone, ...options })
  formats.set(key, known)
  return known
}

const WALL = {
  year: 'numeric',
  month: '2-digit',
  day: '2-digit',
  hour: '2-digit',
  minute: '2-digit',
  hourCycle: 'h23',
} as const

function wall(at: Date, zone: string): string {
  const said = formatOf('en-GB', zone, WALL).formatToParts(at)
  const parts = Object.fromEntries(said.map((part) => [part.type, part.value]))
  return `${parts.year}-${parts.month}-${parts.day}T${parts.hour}:${parts.minute}`
}

export function toLocal(at: string | Date, zone: string): string {
  const date = new Date(at)
  return Number.isNaN(date.getTime()) ? '' : wall(date, zone)
}

/**
 * The instant of a wall-clock time, as an ISO text; null if it cannot be read. In a gap, the time after it.
 */
export function fromLocal(text: string, zone: string): string | null {
  const guess = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$/.test(text) ? Date.parse(`${text}:00Z`) : NaN
  if (Number.isNaN(guess)) return null
  let at = guess
  // The zone's offset there is found by looking what the clock says, twice where the clocks change between.
  for (let look = 0; look < 2; look++) at += guess - Date.parse(`${wall(new Date(at), zone)}:00Z`)
  return new Date(at).toISOString()
}

/** A date ("2026-11-24") so many days later. */
export function addDays(date: string, days: number): string {
  const at = new Date(`${date}T12:00:00Z`)
  at.setUTCDate(at.getUTCDate() + days)
  return at.toISOString().slice(0, 10)
}

/**
 * The instant at which a zone's clock shows the same time so many days later; clocks may change in between.
 */
export function daysLater(at: Date, days: number, zone: string): Date {
  const [date = '', time = ''] = toLocal(at.toISOString(), zone).split('T')
  return new Date(fromLocal(`${addDays(date, days)}T${time}`, zone) ?? Number.NaN)
}
