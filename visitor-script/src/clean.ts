/**
 * Functions as the browser has them: a page may have put its own in their places, which no longer do the
 * same.
 */

type Realm = Pick<typeof globalThis, 'JSON' | 'Date'>

const SAMPLE = '2022-02-22T22:22:22.222Z'

function sound({ JSON, Date }: Realm): boolean {
  try {
    return JSON.stringify([new Date(Date.parse(SAMPLE)).toISOString()], own) === `["${SAMPLE}"]`
  } catch {
    return false
  }
}

/** A value as it is, whatever the page has taught it to be written as. */
function own(this: Record<string, unknown>, key: string): unknown {
  return this[key]
}

/** Those of an empty frame, which the page has not touched. */
function borrowed(): Realm {
  const frame = document.createElement('iframe')
  document.documentElement.append(frame)
  const { JSON, Date } = frame.contentWindow as unknown as Realm
  frame.remove()
  return { JSON, Date }
}

const { JSON: json, Date: Day } = sound(window) ? window : borrowed()
const { stringify, parse } = json

export const read = parse
export const written = (value: unknown): string => stringify(value, own)
/** An instant in milliseconds, of an ISO text. */
export const instant = Day.parse
export const iso = (at: number): string => new Day(at).toISOString()
export const clock = (): number => Day.now()
