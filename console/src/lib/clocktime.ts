/**
 * A time of day as people type it ("8:30", "9am", "9.30", "1730") as "HH:MM"; null where it is none. The
 * server reads it too.
 */
export function readClock(text: string): string | null {
  const given = text.trim().toLowerCase().replace(/\s+/g, ' ')
  const named = { noon: '12:00', midday: '12:00', midnight: '24:00' }[given]
  if (named) return named
  const found = /^(\d{1,2})(?:\s*[:.h]\s*(\d{2})?|(\d{2}))?\s*(?:([ap])\.?\s*m?\.?)?$/.exec(given)
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
