// @vitest-environment jsdom
import { beforeEach, expect, it, vi } from 'vitest'
import type { App } from '../world'
import { Store } from '../memory'
import { Net } from '../net'
import type { Outside } from '../outside'
import { begin } from './rehearsal'

const ENTRY = {
  id: 'tp_1',
  document: {
    steps: [{ id: 'ask', parts: [{ kind: 'button', does: { action: 'send', next: 'thanks' } }] }],
  },
}
let posted: [string, Record<string, unknown>][]
let left: string[]

/** As much of the script at work as a rehearsal asks for, over a made-up outside. */
function app(): App {
  const outside: Outside = {
    post: (path, body) => {
      posted.push([path, JSON.parse(body) as Record<string, unknown>])
      return Promise.resolve(new Response(JSON.stringify({ says: { title: 'By 15:25', text: '' } })))
    },
    leave: (path) => void left.push(path),
    shelf: () => localStorage,
    clock: Date.now,
  }
  const store = new Store('k', outside)
  return { outside, store, net: new Net(store), entries: [ENTRY] } as unknown as App
}

const answer = {
  id: 'a'.repeat(32),
  touchpoint: 'tp_1',
  revision: 1,
  step: 'ask',
  page: { url: 'https://otterwick.example/' },
  device: 'desktop' as const,
}

beforeEach(() => {
  posted = []
  left = []
  localStorage.clear()
  sessionStorage.clear()
  document.documentElement.querySelector('[data-intavo-rehearsal]')?.remove()
  vi.stubGlobal('CSSStyleSheet', class { replaceSync = () => undefined }) // prettier-ignore
})

it('sends what is sent as ever where nothing is rehearsed', async () => {
  const real = app()
  begin(real)
  await real.net.submit(answer)
  expect(posted.map(([path]) => path)).toEqual(['intake'])
  expect(document.querySelector('[data-intavo-rehearsal]')).toBeNull()
})

it('sends no answer and counts nothing, and goes on as if it had', async () => {
  sessionStorage.intavoAs = 'somebody'
  const rehearsed = app()
  begin(rehearsed)
  const sent = await rehearsed.net.submit(answer)
  expect(sent).toMatchObject({ kind: 'taken', next: 'thanks', says: { title: 'By 15:25' } })
  rehearsed.net.beat({ touchpoint: 'tp_1', revision: 1, what: 'seen', page: answer.page, device: 'desktop', at: '' }) // prettier-ignore
  dispatchEvent(new Event('pagehide'))
  expect([posted.map(([path]) => path), left]).toEqual([['more'], []])
  expect(document.querySelector('[data-intavo-rehearsal]')).not.toBeNull()
})

it('asks as the visitor of the link, and remembers in its own tab alone', async () => {
  sessionStorage.intavoAs = 'somebody'
  localStorage.setItem('k', JSON.stringify({ visits: 7 }))
  const rehearsed = app()
  begin(rehearsed)
  await rehearsed.outside.post('plan', '{"device":"phone"}')
  expect(posted).toEqual([['plan', { device: 'phone', rehearsal: 'somebody' }]])
  expect(rehearsed.store.read().visits).toBe(0)
  rehearsed.store.change((memory) => (memory.visits = 3))
  expect(rehearsed.store.read().visits).toBe(3)
  expect(JSON.parse(localStorage.getItem('k') ?? '')).toEqual({ visits: 7 })
})
