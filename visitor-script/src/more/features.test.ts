// @vitest-environment jsdom
import { beforeEach, expect, it, vi } from 'vitest'
import WORDS from '../generated/words.json'
import { DrawnTouchpoint } from '../render/draw'
import type { Drawing } from '../render/drawing'
import type { Mode } from '../render/types'
import { learn } from '../render'
import type { Feature } from '../render/feature'
import type { Actions, Around, Extras, SeenDocument, Sent, Values } from '../render/types'
import { FEATURES } from './features'
import { MORE } from '.'

const base = { on: ['desktop', 'phone'], hidden: false, row: null, share: 100 }
const button = (id: string, does: object) => ({ ...base, id, kind: 'button', label: id, style: 'full', does })
const field = (name: string, more: object = {}) => ({
  ...base,
  id: name,
  kind: 'field',
  name,
  input: 'text',
  label: name,
  hint: '',
  required: true,
  options: [],
  ...more,
})
const STEPS = [
  {
    id: 'ask',
    parts: [{ ...field('name'), row: 'r' }, { ...field('town', { required: false }), row: 'r' }, button('on', { action: 'step', next: 'send' })],
  },
  { id: 'send', parts: [field('email'), button('back', { action: 'back' }), button('go', { action: 'send', next: 'thanks' })] },
  { id: 'thanks', parts: [{ ...base, id: 'pc', kind: 'code', label: 'Your code' }] },
] // prettier-ignore
const FONT = { source: 'system', name: 'sans' }
const VALUES = {
  place: 'bottom-right',
  height: 'content',
  content: 'top',
  shadow: 'soft',
  background: { kind: 'plain', picture: null },
  backdrop: { kind: 'shade', strength: 50, picture: null },
  arrival: 'none',
  going: 'none',
  font: FONT,
  head_font: FONT,
  button_font: FONT,
  colours: {},
  cross: { place: 'end', style: 'sign', word: '', size: 20 },
}
const FACE = { label: 'Ask us', does: null, opens: 'step', strip: false, greeting: null, nudge: null, picture: null, sign: null, shape: 'pill', size: 56, fills: false } // prettier-ignore

let sent: [string, Values][]
let kept: ({ step: string } | null)[]
let closed: number
let extras: Extras

function document_(more: object = {}): SeenDocument {
  return {
    stance: 'card',
    purpose: 'sign-up',
    steps: STEPS,
    look: { ...VALUES, phone: VALUES, css: '' },
    leaving: { cross: 0, after: null, escape: true, outside: true, hold_scroll: false },
    then: { trap: false, work: false, page: null },
    face: FACE,
    speech: { lang: 'en', dir: 'ltr', locale: 'en-GB', words: WORDS },
    ...more,
  } as unknown as SeenDocument
}

function made(more: object = {}, features = FEATURES, mode: Mode = 'live', answer?: Sent): Drawing {
  const actions = {
    send: (step: string, values: Values) => {
      sent.push([step, structuredClone(values)])
      return Promise.resolve(
        answer ?? { kind: 'taken', next: 'thanks', says: null, code: 'WINTER', file: null },
      )
    },
    close: () => (closed += 1),
    started: () => undefined,
    clicked: () => undefined,
    extras: () => Promise.resolve(extras),
    more: () => Promise.resolve(),
  } as unknown as Actions
  const around = {
    base: '',
    firstName: '',
    now: () => 0,
    typed: null,
    keep: (typed: { step: string } | null) => kept.push(typed),
    memo: () => null,
    ways: () => ({}),
    entry: { id: 'tp_1', revision: 1 },
  } as unknown as Around
  const drawn = new DrawnTouchpoint(document, document_(more), mode, actions, around, features)
  drawn.show(document.body)
  return drawn
}

const press = (drawing: Drawing, name: string): void =>
  drawing.card.querySelector<HTMLElement>(`[data-part=${name}]`)?.click()
const fill = (drawing: Drawing, name: string, value: string): void => {
  const input = drawing.card.querySelector<HTMLInputElement>(`[name=${name}]`)
  if (!input) throw new Error(name)
  input.value = value
  input.dispatchEvent(new InputEvent('input', { bubbles: true }))
}
const settled = () => new Promise((done) => setTimeout(done))

beforeEach(() => {
  sent = []
  kept = []
  closed = 0
  extras = {}
  document.body.replaceChildren()
  vi.stubGlobal('matchMedia', () => ({
    matches: false,
    addEventListener: () => 0,
    removeEventListener: () => 0,
  }))
  vi.stubGlobal('ResizeObserver', class { observe = () => undefined; disconnect = () => undefined }) // prettier-ignore
  vi.stubGlobal('CSSStyleSheet', class { replaceSync = () => undefined }) // prettier-ignore
  learn(MORE)
})

it('without a feature the first step stands there, and nothing else is known', () => {
  const plain = made({}, [])
  press(plain, 'on')
  expect(plain.step.id).toBe('ask')
  plain.leave()
  expect(closed).toBe(1)
})

it('a feature that has seen to it is the last that hears of it', () => {
  const heard: string[] = []
  const one = (name: string, leaves: boolean) => (): Feature => ({
    leaves: () => {
      heard.push(name)
      return leaves
    },
  })
  made({}, [one('a', false), one('b', true), one('c', true)]).leave()
  expect([heard, closed]).toEqual([['a', 'b'], 0])
})

it('goes on where nothing is missing, and back with what was typed', () => {
  const drawing = made()
  press(drawing, 'on')
  expect(drawing.step.id).toBe('ask')
  fill(drawing, 'name', 'Ife')
  press(drawing, 'on')
  expect(drawing.step.id).toBe('send')
  expect(kept.at(-1)).toMatchObject({ step: 'send', answers: { name: 'Ife' } })
  press(drawing, 'back')
  expect(drawing.step.id).toBe('ask')
  expect(drawing.card.querySelector<HTMLInputElement>('[name=name]')?.value).toBe('Ife')
})

it('parts of one row stand side by side, and three steps say how far it is', () => {
  const drawing = made()
  const row = drawing.card.querySelector('.row')
  expect([...(row?.children ?? [])].map((one) => one.getAttribute('data-part'))).toEqual(['name', 'town'])
  expect(drawing.card.querySelectorAll('.progress i')).toHaveLength(3)
  expect(drawing.card.querySelectorAll('.progress .done')).toHaveLength(1)
})

it('sends what was typed on every step, and shows the code that came of it', async () => {
  const drawing = made()
  fill(drawing, 'name', 'Ife')
  press(drawing, 'on')
  fill(drawing, 'email', 'ife@post.example')
  drawing.card.querySelector('form')?.dispatchEvent(new Event('submit', { cancelable: true }))
  await settled()
  expect(sent).toEqual([
    ['send', { answers: { name: 'Ife', town: '', email: 'ife@post.example' }, consents: {} }],
  ])
  expect(drawing.step.id).toBe('thanks')
  expect(drawing.card.querySelector('output')?.textContent).toBe('WINTER')
})

it('leads back to the step of what is wrong', async () => {
  const errors = [{ field: 'answers.name', message: 'No name' }]
  const drawing = made({}, FEATURES, 'live', { kind: 'mend', errors })
  fill(drawing, 'name', 'x')
  press(drawing, 'on')
  fill(drawing, 'email', 'ife@post.example')
  drawing.card.querySelector('form')?.dispatchEvent(new Event('submit', { cancelable: true }))
  await settled()
  expect(drawing.step.id).toBe('ask')
  expect(drawing.card.querySelector('#f-name-error')?.textContent).toBe('No name')
})

it('says so where a code stands that cannot be given, each time it is drawn', async () => {
  const steps = [
    { id: 'ask', parts: [{ ...base, id: 'pc', kind: 'code', label: 'Your code' }, button('on', { action: 'step', next: 'send' })] },
    ...STEPS.slice(1),
  ] // prettier-ignore
  extras = { code: null }
  const drawing = made({ steps })
  await settled()
  const told = () => [
    drawing.card.querySelector<HTMLElement>('.code')?.hidden,
    drawing.card.querySelector('.none')?.textContent,
    drawing.card.querySelector('output')?.textContent,
  ]
  expect(told()).toEqual([true, 'No code can be given just now.', ''])
  press(drawing, 'on')
  press(drawing, 'back')
  expect(told()).toEqual([true, 'No code can be given just now.', ''])
  // Whoever is given one for their answer has it.
  press(drawing, 'on')
  fill(drawing, 'email', 'ife@post.example')
  drawing.card.querySelector('form')?.dispatchEvent(new Event('submit', { cancelable: true }))
  await settled()
  expect(told()).toEqual([false, undefined, 'WINTER'])
  // Where none is wanted of the server, nothing is said of one.
  extras = {}
  const other = made({ steps })
  await settled()
  expect(other.card.querySelector<HTMLElement>('[data-part=pc]')?.hidden).toBe(true)
})

it('the card of a button folds, and never closes', () => {
  const drawing = made({ stance: 'button' })
  const face = drawing.root.querySelector<HTMLElement>('.face')
  const open = (): unknown[] => [drawing.card.hidden, face?.getAttribute('aria-expanded')]
  expect(open()).toEqual([true, 'false'])
  face?.click()
  expect(open()).toEqual([false, 'true'])
  drawing.leave()
  expect(open()).toEqual([true, 'false'])
  expect(closed).toBe(0)
})

it('goes by itself after its seconds, but not while somebody is in it', () => {
  vi.useFakeTimers()
  const leaving = { ...document_().leaving, after: 5 }
  const drawing = made({ leaving })
  drawing.card.querySelector<HTMLElement>('[name=name]')?.focus()
  vi.advanceTimersByTime(5500)
  expect(closed).toBe(0)
  drawing.card.querySelector<HTMLElement>('[name=name]')?.blur()
  vi.advanceTimersByTime(1000)
  expect(closed).toBe(1)
  vi.useRealTimers()
})
