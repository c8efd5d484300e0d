import names from '@/api/names.json'

const PATTERN = new RegExp(names.clock.pattern)
const NAMED = new Map(Object.entries(names.namedTimes))
const BEFORE = new Set(names.clock.before.split(' '))
const WITHIN = new Set(names.clock.within.split(' '))

/**
 * A time of day as people type it ("8:30", "9am", "9.30", "17 Uhr 30") as "HH:MM"; null where it is none. The
 * server reads it too, by the same words.
 */
export function readClock(text: string): string | null {
  const words = text
    .toLowerCase()
    .replace(/([0-9])(\p{L})/gu, '$1 $2')
    .trim()
    .split(/\s+/)
  while (BEFORE.has(words[0] ?? '')) words.shift()
  const given = words.map((one) => (WITHIN.has(one) ? 'h' : one)).join(' ')
  const named = NAMED.get(given)
  if (named) return named
  const found = PATTERN.exec(given)
  if (!found) return null
  let hour = Number(found[1])
  const minute = Number(found[2] ?? found[3] ?? 0)
  if (found[4]) {
    if (hour < 1 || hour > 12) return null
    hour = (hour % 12) + (found[4] === 'p' ? 12 : 0)
  }
  if (minute > 59 || hour > 24 || (hour === 24 && minute)) return null
  return `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`
}
