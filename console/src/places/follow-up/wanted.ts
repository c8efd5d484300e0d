import type { LocationQuery } from 'vue-router'
import type { Wanted } from '@/api/follow-ups'
import { ALL_OF_A_KIND, ASKED_FOR } from '@/lib/names'

const one = (value: LocationQuery[string] | undefined) =>
  (Array.isArray(value) ? value[0] : value) || undefined
const number = (value: LocationQuery[string] | undefined) => {
  const text = one(value)
  return text && /^\d{1,15}$/.test(text) ? Number(text) : undefined
}

/** What an address of the list asks for; what cannot be meant is left out. */
export function wantedOf(query: LocationQuery): Wanted {
  const kind = one(query.kind)
  const state = one(query.state)
  const since = one(query.since)
  const found: Wanted = {
    state: state && state in ASKED_FOR ? (state as Wanted['state']) : undefined,
    kind: kind && kind in ALL_OF_A_KIND ? (kind as Wanted['kind']) : undefined,
    touchpoint: number(query.touchpoint),
    member: number(query.member),
    via: one(query.via)?.slice(0, 60),
    site: number(query.site),
    page: one(query.page)?.slice(0, 500),
    tag: one(query.tag)?.slice(0, 60),
    since: since && /^\d{4}-\d\d-\d\d$/.test(since) ? since : undefined,
    untouched: number(query.untouched),
    q: one(query.q)?.slice(0, 200),
  }
  return Object.fromEntries(Object.entries(found).filter(([, value]) => value !== undefined)) as Wanted
}

/** The address's query of what is wanted. */
export function queryOf(wanted: Wanted): Record<string, string> {
  return Object.fromEntries(
    Object.entries(wanted)
      .filter(([, value]) => value !== undefined && value !== null && value !== '')
      .sort(([one], [other]) => one.localeCompare(other))
      .map(([key, value]) => [key, String(value)]),
  )
}
