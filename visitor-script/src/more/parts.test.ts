// @vitest-environment jsdom
import { beforeEach, expect, it, vi } from 'vitest'
import WORDS from '../generated/words.json'
import type { Drawing } from '../render/drawing'
import type { Mode } from '../render/types'
import type { Extras, PartOf } from '../render/types'
import { question, score } from './asking'
import { choice, several, slot } from './fields'
import { given } from './given'
import { countdown, hours, links, markup, price, questions, share } from './telling'

const NOW = Date.parse('2026-11-24T14:05:00Z')
let memos: Record<string, string>
let chosen: [string, string][]
let said: unknown[]

/** As much of a drawing as a part asks for. */
function drawing(extras: Extras = {}, now = NOW, mode: Mode = 'live'): Drawing {
  const memo = (key: string, value?: string): string | null => {
    if (value !== undefined) memos[key] = value
    return memos[key] ?? null
  }
  const made = {
    page: document,
    mode,
    words: WORDS,
    card: document.createElement('section'),
    document: { speech: { locale: 'en-GB' }, steps: [{ parts: [{ kind: 'hours' }] }] },
    around: { base: 'https://in.example', firstName: '', now: () => now, memo },
    actions: {
      extras: () => Promise.resolve(extras),
      clicked: () => said.push('clicked'),
      goal: () => said.push('goal'),
      post: (...what: unknown[]) => Promise.resolve(said.push(what)),
    },
    choose: (name: string, value: string) => chosen.push([name, value]),
    clicked: (does: unknown) => said.push(does),
  } as unknown as Drawing
  given(made).begin?.()
  return made
}
const base = {
  id: 'p1',
  on: ['desktop', 'phone'] as ('desktop' | 'phone')[],
  hidden: false,
  row: null,
  share: 100,
}
const words = (element: HTMLElement): string => element.textContent?.replace(/\s+/g, ' ').trim() ?? ''
const settled = () => new Promise((done) => setTimeout(done))

beforeEach(() => {
  memos = {}
  chosen = []
  said = []
  document.body.replaceChildren()
})

const priced = (more: object) =>
  ({
    ...base,
    kind: 'price',
    now: '32.50',
    old: '40',
    currency: 'GBP',
    unit: 'a day',
    show_saving: true,
    align: 'start',
    ...more,
  }) as PartOf<'price'>

it.each([
  [{}, '£32.50a day£40£7.50 less'],
  [{ show_saving: false }, '£32.50a day£40'],
  [{ old: null }, '£32.50a day'],
  [{ now: '120', old: '100' }, '£120a day£100'],
])('a price says what is saved, where something is: %j', (more, told) => {
  vi.stubGlobal('navigator', { language: 'en-GB' })
  expect(words(price(drawing(), priced(more)).element)).toBe(told)
  vi.unstubAllGlobals()
})

const counting = (more: object) =>
  ({
    ...base,
    kind: 'countdown',
    to: null,
    minutes: null,
    again_after: null,
    label: 'Still',
    ended: 'Over.',
    align: 'start',
    ...more,
  }) as PartOf<'countdown'>

it.each([
  [{ to: '2026-11-26T15:05:00Z' }, 'Still2 d1 h0 min'],
  [{ to: '2026-11-24T14:06:30Z' }, 'Still0 h1 min30 s'],
  [{ to: '2026-11-24T14:00:00Z' }, 'Over.'],
  [{ minutes: 90 }, 'Still1 h30 min0 s'],
])('a countdown shows what is left: %j', (more, told) => {
  expect(words(countdown(drawing(), counting(more)).element)).toBe(told)
})

it('a visitor’s own countdown goes on, ends, and begins again after its pause', () => {
  const part = counting({ minutes: 60, again_after: 120 })
  const left = (minutes: number) => words(countdown(drawing({}, NOW + minutes * 60_000), part).element)
  expect(left(0)).toBe('Still1 h0 min0 s')
  expect(left(20)).toBe('Still0 h40 min0 s')
  expect(left(61)).toBe('Over.')
  expect(left(179)).toBe('Over.')
  expect(left(181)).toBe('Still1 h0 min0 s')
})

it('a choice of a question is told by its value', () => {
  const options = [
    { value: 'calm', label: 'Calm water', next: 'a' },
    { value: 'wild', label: '', next: null },
  ]
  const { element } = question(drawing(), {
    ...base,
    kind: 'question',
    name: 'water',
    text: 'Which?',
    options,
  } as PartOf<'question'>)
  const buttons = element.querySelectorAll('button')
  expect([...buttons].map((one) => one.textContent)).toEqual(['Calm water', 'wild'])
  buttons[1]?.click()
  expect(chosen).toEqual([['water', 'wild']])
  expect(element.querySelector('[role=group]')?.getAttribute('aria-label')).toBe('Which?')
})

it('a score goes from its least to its most, and the one that was given is marked', () => {
  const part = {
    ...base,
    kind: 'score',
    name: 's',
    text: 'How?',
    least: 1,
    most: 5,
    least_label: 'bad',
    most_label: 'good',
    low: 2,
    bands: [],
  } as unknown
  const { element, control } = score(drawing(), part as PartOf<'score'>)
  const radios = element.querySelectorAll<HTMLElement>('[role=radio]')
  expect([...radios].map((one) => one.textContent)).toEqual(['1', '2', '3', '4', '5'])
  radios[3]?.click()
  expect(control?.read()).toBe('4')
  expect([...radios].map((one) => one.getAttribute('aria-checked'))).toEqual([
    'false',
    'false',
    'false',
    'true',
    'false',
  ])
  control?.write('2')
  expect(element.querySelector('[aria-checked=true]')?.textContent).toBe('2')
})

const field = (more: object) =>
  ({ ...base, kind: 'field', name: 'f', label: 'Which', hint: '', required: true, options: [{ value: 'a', label: 'A', next: null }, { value: 'b', label: 'B', next: null }], ...more }) as unknown as PartOf<'field'> // prettier-ignore

it('one of several is read and written by its value', () => {
  const { element, control } = choice(drawing(), field({ input: 'choice' }))
  expect(control?.read()).toBe('')
  control?.write('b')
  expect(control?.read()).toBe('b')
  expect(element.querySelector('select')?.getAttribute('aria-required')).toBe('true')
})

it('any of several are kept as lines', () => {
  const { element, control } = several(drawing(), field({ input: 'several' }))
  control?.write('a\nb')
  expect(control?.read()).toBe('a\nb')
  element.querySelector<HTMLInputElement>('input')?.click()
  expect(control?.read()).toBe('b')
  expect(element.querySelector('legend')?.textContent).toBe('Which')
})

const SLOTS = [
  { value: '1', day: 'Tue', time: '15:00' },
  { value: '2', day: 'Tue', time: '15:30' },
  { value: '3', day: 'Wed', time: '09:00' },
]

it('a time is chosen by its day first, and one that was typed before stands there again', async () => {
  const { element, control } = slot(drawing({ slots: { f: SLOTS } }), field({ input: 'slot' }))
  control?.write('3')
  await settled()
  const [day, time] = element.querySelectorAll('select')
  expect([day?.value, time?.value]).toEqual(['Wed', '3'])
  if (day) day.value = 'Tue'
  day?.dispatchEvent(new Event('change'))
  expect([...(time?.options ?? [])].map((one) => one.text)).toEqual(['15:00', '15:30'])
})

it('says so where no time is free', async () => {
  const { element } = slot(drawing({ slots: { f: [] } }), field({ input: 'slot' }))
  await settled()
  expect(words(element)).toContain('No time is free just now')
})

const WEEK = { open: true, says: 'Open now, till 17:30', days: [{ day: 'Tuesday', spans: ['09:00–17:30'], label: '' }, { day: 'Thursday', spans: ['closed'], label: 'Christmas' }] } // prettier-ignore

it.each([
  [{ now: true, week: true }, WEEK, 'Open now, till 17:30Tuesday09:00–17:30Thursdayclosed (Christmas)'],
  [{ now: true, week: false }, { ...WEEK, open: false, says: 'Closed just now' }, 'Closed just now'],
  [{ now: false, week: false }, WEEK, ''],
])('hours say what they are asked to: %j', async (asked, found, told) => {
  const { element } = hours(drawing({ hours: found }), {
    ...base,
    kind: 'hours',
    ...asked,
  } as PartOf<'hours'>)
  await settled()
  expect(words(element)).toBe(told)
})

const ASKED = [
  {
    id: 1,
    group: 'Hire',
    question: 'Dogs?',
    answer: '<p>In a double.</p><img src="/m/as_1/960.webp" alt="">',
  },
  { id: 2, group: 'Hire', question: 'Children?', answer: '<p>With a jacket.</p>' },
  { id: 3, group: 'Trips', question: 'Rain?', answer: '<p>We go.</p>' },
]

it('answers are grouped, found by any of their words, and asked whether they helped', async () => {
  const { element } = questions(drawing({ questions: ASKED }), {
    ...base,
    kind: 'questions',
    group: '',
    search: true,
    helped: true,
  } as PartOf<'questions'>)
  await settled()
  const heads = () => [...element.querySelectorAll('h3')].map((one) => one.textContent)
  expect(heads()).toEqual(['Hire', 'Trips'])
  expect(element.querySelector('img')?.src).toBe('https://in.example/m/as_1/960.webp')
  const search = element.querySelector('input')
  if (search) search.value = 'JACKET with'
  search?.dispatchEvent(new Event('input'))
  expect([...element.querySelectorAll('summary')].map((one) => one.textContent)).toEqual(['Children?'])
  element.querySelector<HTMLElement>('.helped button')?.click()
  expect(said).toEqual([['helped', { question: 2, helped: true }]])
  expect(words(element)).toContain('Good to know')
})

it('a visitor sees no search through questions that are not there; the owner is told', async () => {
  const part = { ...base, kind: 'questions', group: '', search: true, helped: true } as PartOf<'questions'>
  const live = questions(drawing({ questions: [] }), part)
  const stage = questions(drawing({ questions: [] }, NOW, 'stage'), part)
  await settled()
  expect([live.element.hidden, stage.element.hidden]).toEqual([true, false])
  expect(words(stage.element)).toContain('there are none yet')
})

it('links lead to pages or do what a click does', () => {
  const does = {
    action: 'page',
    next: null,
    address: '/',
    asset: null,
    touchpoint: '',
    spot: '',
    tab: 'new',
    goal: true,
    href: '/',
  } as const
  const items = [
    { label: 'Home', does },
    { label: 'Up', does: { ...does, action: 'spot', href: '', spot: 'top' } },
  ]
  // Where the page says that its own addresses begin is nothing to ours.
  document.head.innerHTML = '<base href="https://elsewhere.example/" />'
  const { element } = links(drawing(), {
    ...base,
    kind: 'links',
    columns: 2,
    items,
  } as unknown as PartOf<'links'>)
  const anchor = element.querySelector('a')
  expect([anchor?.getAttribute('href'), anchor?.target, anchor?.rel]).toEqual([
    'http://localhost:3000/',
    '_blank',
    'noopener',
  ])
  document.head.innerHTML = ''
  element.querySelector('button')?.click()
  expect(said).toEqual([expect.objectContaining({ spot: 'top' })])
})

it('sharing copies the link and counts as the goal', async () => {
  const written: string[] = []
  vi.stubGlobal('navigator', {
    clipboard: { writeText: (text: string) => (written.push(text), Promise.resolve()) },
  })
  const { element } = share(drawing(), {
    ...base,
    kind: 'share',
    label: 'Share',
    address: 'https://a.example/',
    words: '',
  } as PartOf<'share'>)
  element.querySelector('button')?.click()
  await settled()
  expect(written).toEqual(['https://a.example/'])
  expect(said).toEqual(['clicked', 'goal'])
  vi.unstubAllGlobals()
})

it('foreign markup stands in a sandboxed frame without the page’s origin', () => {
  const { element } = markup(drawing(), {
    ...base,
    kind: 'markup',
    html: '<b>x</b>',
    height: 90,
    description: 'A map',
  } as PartOf<'markup'>)
  const frame = element.querySelector('iframe')
  expect(frame?.getAttribute('sandbox')).not.toContain('allow-same-origin')
  expect([frame?.title, frame?.getAttribute('height')]).toEqual(['A map', '90'])
})
