// @vitest-environment jsdom
import { beforeEach, expect, it, vi } from 'vitest'
import { Store } from './memory'
import { browser } from './outside'
import type { Plan } from './plan'
import { Visit } from './visit'

const NOW = Date.parse('2026-11-24T14:05:00Z')
const plan = (now: number) =>
  ({ now: new Date(now).toISOString(), visit_minutes: 30, touchpoints: [] }) as unknown as Plan
const outside = browser('http://i')
let store: Store

beforeEach(() => {
  localStorage.clear()
  store = new Store('k', outside)
  vi.stubGlobal('matchMedia', () => ({ matches: false }))
})

it('counts pages and begins a new visit after 30 minutes without one, by the time of the server', () => {
  const visit = new Visit(store, false)
  visit.page()
  visit.heard(plan(NOW))
  visit.page()
  expect(store.read()).toMatchObject({ visits: 1, pages_ever: 2, pages_this_visit: 2 })
  store.change((memory) => (memory.last_page = NOW - 31 * 60_000))
  visit.page()
  expect(store.read()).toMatchObject({ visits: 2, pages_ever: 3, pages_this_visit: 1 })
})

it('tells the time of the server, however wrong its own clock is', () => {
  const visit = new Visit(store, false)
  visit.heard(plan(NOW))
  expect(Math.abs(Date.parse(visit.now()) - NOW)).toBeLessThan(1000)
})

it('sends no id where privacy is asked for', () => {
  expect(new Visit(store, true).sender(store.read()).id).toBeNull()
  expect(new Visit(store, false).sender(store.read()).id).toMatch(/^[0-9a-f]{32}$/)
})

it('takes the word of the site that the address is known', () => {
  const visit = new Visit(store, false)
  Object.assign(visit.known, { email_known: true, signed_in: true })
  const said = visit.describe(store.read()) as { visitor: { on_list: boolean }; page: { signed_in: boolean } }
  expect([said.visitor.on_list, said.page.signed_in]).toEqual([true, true])
})
