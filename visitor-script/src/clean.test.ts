// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

const clean = (): Promise<typeof import('./clean')> => {
  vi.resetModules()
  return import('./clean')
}

describe('functions that the page has replaced', () => {
  const { parse } = Date
  const { toISOString } = Date.prototype

  beforeEach(() => {
    Object.assign(Array.prototype, { toJSON: () => 'a list' })
    Object.assign(String.prototype, { toJSON: () => 'a text' })
  })

  afterEach(() => {
    Reflect.deleteProperty(Array.prototype, 'toJSON')
    Reflect.deleteProperty(String.prototype, 'toJSON')
    Object.assign(Date, { parse })
    Object.assign(Date.prototype, { toISOString })
  })

  it('writes a value as it is', async () => {
    const { written, read } = await clean()
    expect(JSON.stringify([1])).toBe('"a list"')
    expect(written({ a: [1, 'x'], b: undefined, c: [[]] })).toBe('{"a":[1,"x"],"c":[[]]}')
    expect(read('{"a":[1]}')).toEqual({ a: [1] })
  })

  it('takes the clock of an empty frame where the page has its own', async () => {
    Object.assign(Date, { parse: () => NaN })
    Object.assign(Date.prototype, { toISOString: () => 'today' })
    const { instant, iso, clock } = await clean()
    expect(instant('2026-11-24T14:05:00Z')).toBe(Date.UTC(2026, 10, 24, 14, 5))
    expect(iso(Date.UTC(2026, 10, 24, 14, 5))).toBe('2026-11-24T14:05:00.000Z')
    expect(Math.abs(clock() - Date.now())).toBeLessThan(60_000)
    expect(document.querySelector('iframe')).toBeNull()
  })
})
