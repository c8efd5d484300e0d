// @vitest-environment jsdom
import WORDS from '../generated/words.json'
import { expect, it, vi } from 'vitest'
import type { Drawing } from '../render/drawing'
import type { PartOf, Way, Ways } from '../render/types'
import { buttonPart, channels, signs } from './reaching'

const WAY: Way = {
  situation: 'open', hidden: false, says: null, people: [], kind: 'phone', label: 'Call us', button: 'Call us', icon: 'call', colour: null,
  pick: 'visitor', opens: 'new', goal: true, href: 'tel:+441632960123',
} // prettier-ignore
const base = { id: 'p1', on: ['desktop', 'phone'], hidden: false, row: null, share: 100 }

function drawing(ways: Ways) {
  const actions = { clicked: vi.fn(), goal: vi.fn() }
  const around = { base: 'https://in.example', ways: () => ways, entry: { id: 'tp_1', revision: 1 } }
  return {
    drawing: { page: document, mode: 'live', words: WORDS, actions, around } as unknown as Drawing,
    actions,
  }
}
const part = (more: object = {}) =>
  ({
    ...base,
    kind: 'channels',
    channels: 'all',
    as: 'rows',
    people: true,
    ...more,
  }) as unknown as PartOf<'channels'>

it('the ways stand in the owner’s order, without those that are hidden, and a click is told with its channel', () => {
  const { drawing: it, actions } = drawing({
    ch_1: WAY,
    ch_2: { ...WAY, hidden: true },
    ch_3: { ...WAY, button: 'Text us', href: 'sms:+44' },
  })
  const { element } = channels(it, part())
  const links = [...element.querySelectorAll('a')]
  expect(links.map((one) => one.textContent)).toEqual(['Call us', 'Text us'])
  links[0]?.addEventListener('click', (event) => event.preventDefault())
  links[0]?.click()
  expect(actions.clicked).toHaveBeenCalledWith('ch_1')
  expect(actions.goal).toHaveBeenCalledOnce()
  const named = channels(it, part({ channels: ['ch_3', 'ch_9'] })).element
  expect(named.querySelectorAll('a')).toHaveLength(1)
})

it('what is said while closed stands beside it, and a touchpoint has a link of its own', () => {
  const closed = {
    ...WAY,
    situation: 'after-hours',
    says: { title: 'Shut.', text: 'Back at nine.' },
    href: 'https://w.example/a',
    by: { tp_1: 'https://w.example/b' },
  }
  const { element } = channels(drawing({ ch_1: closed }).drawing, part())
  expect(element.textContent).toContain('Shut. Back at nine.')
  expect(element.querySelector('.way')?.classList.contains('closed')).toBe(true)
  const link = element.querySelector('a')
  expect([link?.href, link?.target]).toEqual(['https://w.example/b', '_blank'])
  const sign = channels(drawing({ ch_1: closed }).drawing, part({ as: 'signs' })).element.querySelector('a')
  expect(sign?.getAttribute('aria-label')).toBe('Call us. Shut. Back at nine.')
})

it('those behind it are chosen, and who is away is shown so', () => {
  const people = [
    { name: 'Jory', words: 'trips', picture: null, reachable: true, href: 'https://w.example/jory' },
    { name: 'Sable', words: 'lessons', picture: null, reachable: false, href: '' },
  ]
  const { element } = channels(drawing({ ch_1: { ...WAY, people } }).drawing, part())
  const face = element.querySelector('button')
  face?.click()
  expect(face?.getAttribute('aria-expanded')).toBe('true')
  expect([...element.querySelectorAll('.person')].map((one) => one.textContent)).toEqual([
    'JJorytrips',
    'SSableaway just now',
  ])
  expect(element.querySelector('.person.away')?.getAttribute('href')).toBe(WAY.href)
})

it('their own words are asked for first and stand in the link, whatever they are', () => {
  const asks = { ...WAY, opens: 'ask-first' as const, text: 'Hello', asks: 'sms:+44?body=intavo-words' }
  const { element } = channels(drawing({ ch_1: asks }).drawing, part())
  const box = element.querySelector('textarea')
  if (box) box.value = 'A & B? #1'
  box?.dispatchEvent(new Event('input'))
  expect(element.querySelector('.asking a')?.getAttribute('href')).toBe('sms:+44?body=A%20%26%20B%3F%20%231')
})

it('a button to a channel that is hidden is not there', () => {
  const does = { action: 'channel', channel: 'ch_1', href: '', tab: 'same', goal: false }
  const button = {
    ...base,
    kind: 'button',
    label: 'Call',
    style: 'main',
    does,
  } as unknown as PartOf<'button'>
  expect(buttonPart(drawing({ ch_1: { ...WAY, hidden: true } }).drawing, button).element.hidden).toBe(true)
  expect(buttonPart(drawing({}).drawing, button).element.hidden).toBe(true)
  expect(buttonPart(drawing({ ch_1: WAY }).drawing, button).element.getAttribute('href')).toBe(WAY.href)
})

it('a strip says above itself what a closed way says, and asks who is meant', () => {
  const kit = { name: 'Kit', words: 'Lessons', picture: null, reachable: true, href: 'tel:+44' }
  const { drawing: it } = drawing({
    ch_1: { ...WAY, situation: 'after-hours', says: { title: 'Shut.', text: 'Back at nine.' } },
    ch_2: { ...WAY, people: [kit], pick: 'visitor' } as unknown as Way,
    ch_3: WAY,
  })
  const strip = document.createElement('ul')
  strip.append(...signs(it, 'all', true))
  const [closed, asks] = strip.querySelectorAll<HTMLButtonElement>('button')
  closed?.click()
  const [said, who] = strip.querySelectorAll<HTMLElement>('.over')
  expect([said?.hidden, said?.textContent]).toEqual([false, 'Shut. Back at nine.Go on: Call us'])
  asks?.click()
  expect([said?.hidden, who?.hidden, closed?.getAttribute('aria-expanded')]).toEqual([true, false, 'false'])
  expect(who?.querySelector('a')?.textContent).toContain('Kit')
  // One that is open and nobody's own leads on at once.
  expect(strip.lastElementChild?.querySelector('a')?.getAttribute('href')).toBe('tel:+441632960123')
})

it('says once what several closed ways would say alike', () => {
  const closed = { ...WAY, situation: 'after-hours', says: { title: 'Shut', text: 'Back at nine.' } }
  const own = { ...closed, says: { title: '', text: 'The dog answers.' } }
  const { element } = channels(drawing({ ch_1: closed, ch_2: own, ch_3: closed }).drawing, part())
  expect([...element.querySelectorAll('p.quiet, small')].map((one) => one.textContent)).toEqual([
    'Shut. Back at nine.',
    'The dog answers.',
  ])
  const alone = channels(drawing({ ch_1: closed, ch_2: own }).drawing, part()).element
  expect([alone.querySelectorAll('p.quiet').length, alone.querySelectorAll('small').length]).toEqual([0, 2])
})
