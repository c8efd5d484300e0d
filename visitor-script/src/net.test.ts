// @vitest-environment jsdom
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { Store } from './memory'
import { Net } from './net'
import { browser } from './outside'

const PAGE = { url: 'https://otterwick.example/' }
const BODY = {
  id: 'a'.repeat(32),
  touchpoint: 'tp_1',
  revision: 1,
  step: 'ask',
  page: PAGE,
  device: 'desktop' as const,
}
const BEAT = {
  touchpoint: 'tp_1',
  revision: 1,
  page: PAGE,
  device: 'desktop' as const,
  at: '2026-11-24T14:05:00Z',
}
let answers: (() => Promise<Response>)[]
let sent: { url: string; body: string }[]
const outside = browser('http://i')
let store: Store

const answer = (status: number, body: object) => () =>
  Promise.resolve(new Response(JSON.stringify(body), { status }))
const noConnection = () => Promise.reject(new TypeError('no connection'))

beforeEach(() => {
  vi.useFakeTimers()
  localStorage.clear()
  store = new Store('k', outside)
  answers = []
  sent = []
  vi.stubGlobal('fetch', (url: string, init: { body: string }) => {
    sent.push({ url, body: init.body })
    return (answers.shift() ?? noConnection)()
  })
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

it('keeps nothing of what was acknowledged', async () => {
  answers = [answer(201, { next: 'thanks', says: null, suggest: { email: 'b@x.example' } })]
  const result = await new Net(store).submit(BODY)
  expect(result).toEqual({ kind: 'taken', next: 'thanks', says: null, suggest: { email: 'b@x.example' } })
  expect(store.read().waiting).toEqual([])
})

it('keeps nothing of what has to be mended either', async () => {
  answers = [answer(422, { title: 'no', errors: [{ field: 'answers.email', message: 'm' }] })]
  const result = await new Net(store).submit(BODY)
  expect(result).toEqual({ kind: 'mend', errors: [{ field: 'answers.email', message: 'm' }] })
  expect(store.read().waiting).toEqual([])
})

it.each([503, 429])('sends the same body again after %i, until it is acknowledged', async (status) => {
  answers = [answer(status, {}), noConnection, answer(200, { next: 'thanks', says: null, suggest: null })]
  const net = new Net(store)
  const later = vi.fn()
  net.whenSent = later
  expect(await net.submit(BODY)).toEqual({ kind: 'kept' })
  expect(store.read().waiting).toHaveLength(1)
  await vi.advanceTimersByTimeAsync(60_000)
  expect(new Set(sent.map((one) => one.body)).size).toBe(1)
  expect(sent).toHaveLength(3)
  expect(later).toHaveBeenCalledOnce()
  expect(store.read().waiting).toEqual([])
})

it('is taken up by the next page', async () => {
  await new Net(store).submit(BODY)
  answers = [answer(201, { next: null, says: null, suggest: null })]
  await new Net(new Store('k', outside)).resend()
  expect(store.read().waiting).toEqual([])
})

it('gives up after a week', async () => {
  store.change((memory) =>
    memory.waiting.push({ body: JSON.stringify(BODY), since: Date.now() - 8 * 24 * 3600 * 1000 }),
  )
  await new Net(store).resend()
  expect(sent).toEqual([])
  expect(store.read().waiting).toEqual([])
})

it('says the last beats as the page goes away', () => {
  const left: [string, string][] = []
  const net = new Net(new Store('k', { ...outside, leave: (...said) => void left.push(said) }))
  net.beat({ ...BEAT, what: 'closed' })
  dispatchEvent(new Event('pagehide'))
  expect(left.map(([path, body]) => [path, (JSON.parse(body) as unknown[]).length])).toEqual([['beats', 1]])
  expect(sent).toEqual([])
})

it('sends beats together', async () => {
  answers = [answer(202, {})]
  const net = new Net(store)
  net.beat({ ...BEAT, what: 'seen' })
  net.beat({ ...BEAT, what: 'closed' })
  await vi.advanceTimersByTimeAsync(2000)
  expect(sent).toHaveLength(1)
  expect((JSON.parse(sent[0]?.body ?? '[]') as { what: string }[]).map((one) => one.what)).toEqual([
    'seen',
    'closed',
  ])
})
