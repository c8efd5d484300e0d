/** Lengths of time as people write and say them: "3 days", "5 h 30", "90 min". In minutes. */

const DAY = 1440
const UNITS: [RegExp, number][] = [
  [/^(w|wk|weeks?)$/, 7 * DAY],
  [/^(d|days?)$/, DAY],
  [/^(h|hrs?|hours?)$/, 60],
  [/^(m|mins?|minutes?)?$/, 1],
]

/** A length like "3 days 4 h", "1 h 20" or "45 min". */
export function sayLength(minutes: number): string {
  const days = Math.floor(minutes / DAY)
  const hours = Math.floor(minutes / 60) % 24
  const left = minutes % 60
  const words = days ? [`${days} ${days === 1 ? 'day' : 'days'}`] : []
  if (hours) words.push(left && !days ? `${hours} h ${String(left).padStart(2, '0')}` : `${hours} h`)
  if (left && (!hours || days)) words.push(`${left} min`)
  return words.join(' ') || '0 min'
}

/** The minutes that were meant, or null where that cannot be told. A bare number counts minutes. */
export function readLength(text: string): number | null {
  const given = text
    .trim()
    .toLowerCase()
    .replace(/,(?=\d)/g, '.')
    .replace(/\b(and|at once)\b/g, (one) => (one === 'and' ? ' ' : '0'))
  const clock = /^(\d{1,3}):([0-5]\d)$/.exec(given)
  if (clock) return Number(clock[1]) * 60 + Number(clock[2])
  const pieces = [...given.matchAll(/(\d+(?:\.\d+)?)\s*([a-z]*)\.?[\s,]*/g)]
  if (!pieces.length || pieces.map((one) => one[0]).join('') !== given) return null
  let sum = 0
  let before = Infinity
  for (const [, number, unit] of pieces) {
    // "5 h 30": what follows hours without a unit is minutes.
    const found = UNITS.find(([name]) => name.test(unit ?? ''))
    if (!found || found[1] >= before) return null
    before = found[1]
    sum += Number(number) * found[1]
  }
  return Math.round(sum)
}
