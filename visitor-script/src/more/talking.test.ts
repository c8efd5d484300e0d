// @vitest-environment jsdom
import { beforeEach, expect, it, vi } from 'vitest'
import OFFERED from '../../../tests/vectors/dialogue/offered.json'
import WORDS from '../generated/words.json'
import type { MessageSaid, TalkNow } from '../generated/wire'
import type { Drawing } from '../render/drawing'
import type { PartOf } from '../render/types'
import { given } from './given'
import { offered } from './offering'
import { talk } from './talking'

const WHERE = '/e/k/talks/t'
let memos: Record<string, string>
let asked: { url: string; body?: string }[]
let looked: () => void
let answers: (url: string, init?: RequestInit) => Response | Promise<Response>
const QUESTIONS = OFFERED.questions.map(([id, question]) => ({
  id: Number(id),
  group: '',
  question: String(question),
  answer: '<p>Yes.</p>',
}))

const message = (n: number, from: 'us' | 'them', text = `${from} ${n}`): MessageSaid => ({
  n,
  from,
  text,
  at: '',
  script: false,
  who: from === 'us' ? { name: 'Ife', picture: null } : null,
})
const now = (messages: MessageSaid[], more: Partial<TalkNow> = {}): Response =>
  Response.json({ messages, situation: 'open', ...more })

/** A conversation on a page, folded until it is looked at. */
async function begun(files = false): Promise<HTMLElement> {
  const root = document.createElement('div')
  root.innerHTML = '<button class="face"></button>'
  document.body.append(root)
  const drawing = {
    page: document,
    mode: 'live',
    words: WORDS,
    root,
    host: root,
    card: document.createElement('section'),
    document: { speech: { locale: 'en-GB' }, steps: [{ parts: [{ kind: 'talk' }] }] },
    around: {
      base: '',
      entry: { id: 'x', revision: 1 },
      memo: (key: string, value?: string) =>
        value === undefined ? (memos[key] ?? null) : (memos[key] = value),
    },
    actions: {
      extras: () => Promise.resolve({ questions: QUESTIONS }),
      started: () => undefined,
      goal: () => undefined,
      post: async () =>
        Response.json({ talk: 't', where: WHERE, messages: [message(1, 'us')], situation: 'open' }),
    },
  } as unknown as Drawing
  given(drawing).begin?.()
  const { element } = talk(drawing, {
    kind: 'talk',
    hint: 'Write to us',
    files,
    script: { start: '', turns: [] },
  } as unknown as PartOf<'talk'>)
  root.append(element)
  await passing()
  return root
}
const passing = (ms = 0) => vi.advanceTimersByTimeAsync(ms)
const seen = async (root: HTMLElement) => {
  Object.defineProperty(root.querySelector('.talk'), 'offsetParent', { value: root, configurable: true })
  looked()
  await passing()
}
const box = (root: HTMLElement) => root.querySelector('textarea')!
async function type(root: HTMLElement, text: string, send = true): Promise<void> {
  box(root).value = text
  box(root).dispatchEvent(new Event('input'))
  if (send) box(root).dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }))
  await passing()
}
const state = (root: HTMLElement) => root.querySelector('.quiet')!.textContent
const lines = (root: HTMLElement) =>
  [...root.querySelectorAll('.said-log li span')].map((one) => one.textContent)

beforeEach(() => {
  vi.useFakeTimers()
  memos = {}
  asked = []
  document.body.replaceChildren()
  vi.stubGlobal(
    'IntersectionObserver',
    class {
      constructor(done: (entries: { isIntersecting: boolean }[]) => void) {
        looked = () => done([{ isIntersecting: true }])
      }
      observe(): void {}
    },
  )
  vi.stubGlobal('matchMedia', () => ({ matches: false }))
  vi.stubGlobal('fetch', async (url: string, init?: RequestInit) => {
    asked.push({ url, body: typeof init?.body === 'string' ? init.body : undefined })
    return answers(url, init)
  })
  answers = () => now([])
})

it('counts on its button only what was not read, and nothing once it is looked at', async () => {
  memos.talk = JSON.stringify({ where: WHERE, seen: 3, out: [] })
  answers = () =>
    now([message(1, 'us'), message(2, 'them'), message(3, 'us'), message(4, 'us'), message(5, 'us')])
  const root = await begun()
  await passing(1000)
  expect(root.querySelector<HTMLElement>('.face')!.dataset.count).toBe('2')
  await seen(root)
  expect(root.querySelector<HTMLElement>('.face')!.dataset.count).toBeUndefined()
  expect(JSON.parse(memos.talk!).seen).toBe(5)
})

it('keeps words that are too long for one message, and says so', async () => {
  const root = await begun()
  await seen(root)
  await type(root, 'a'.repeat(5000))
  expect(state(root)).toBe('That is too long for one message; please send it in two.')
  expect(box(root).value).toHaveLength(5000)
  expect(asked.filter((one) => one.url.endsWith('/messages'))).toEqual([])
})

it('gives words that were refused back', async () => {
  const root = await begun()
  await seen(root)
  answers = () => Response.json({ errors: [{ field: 'text', message: 'Not that.' }] }, { status: 422 })
  await type(root, 'Something')
  expect([state(root), box(root).value]).toEqual(['Not that.', 'Something'])
})

it('sends a file and what is said after it in that order, and says what becomes of it', async () => {
  const root = await begun(true)
  await seen(root)
  let arrive = (): void => undefined
  answers = (url, init) =>
    url.includes('/files?')
      ? new Promise((done) => (arrive = () => done(now([message(2, 'them', 'dent.jpg')]))))
      : now(
          url.endsWith('/messages') ? [message(3, 'them', String(JSON.parse(String(init?.body)).text))] : [],
        )
  const field = root.querySelector<HTMLInputElement>('input[type=file]')!
  Object.defineProperty(field, 'files', { value: [new File(['x'], 'dent.jpg')], configurable: true })
  field.dispatchEvent(new Event('change'))
  await passing()
  expect(state(root)).toBe('“dent.jpg” is being sent …')
  await type(root, 'That is the dent')
  expect(asked.some((one) => one.url.endsWith('/messages'))).toBe(false)
  arrive()
  await passing()
  expect(lines(root).slice(-2)).toEqual(['dent.jpg', 'That is the dent'])
})

it('offers answers to what is being typed, and takes them away with it', async () => {
  const root = await begun()
  await seen(root)
  await type(root, 'are dogs', false)
  const offers = root.querySelector<HTMLElement>('.questions')!
  expect([...offers.querySelectorAll('summary')].map((one) => one.textContent)).toEqual([
    'Are dogs allowed on board?',
  ])
  expect(offers.getAttribute('aria-label')).toBe('Is it one of these?')
  await type(root, 'are dogs')
  expect(offers.hidden).toBe(true)
})

it('knows what is much like a question as the server does', () => {
  for (const [typed, ids] of OFFERED.typed as [string, number[]][])
    expect(
      offered(QUESTIONS, typed).map((one) => one.id),
      typed,
    ).toEqual(ids)
})
