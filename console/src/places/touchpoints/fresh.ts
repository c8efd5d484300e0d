import type { Part, TouchpointDocument } from './types'

/** Stands for the logo of the site's house style. */
export const HOUSE_LOGO = 'house-logo'
const DOES = { next: null, address: '', asset: null, touchpoint: '', spot: '', tab: 'same', goal: false, href: '' } as const
const field = (input: string, name: string, label: string, more: object = {}) => ({
  kind: 'field', input, name, label, hint: '', required: false, options: [], least: null, most: null, value: '', minutes: 30, notice: 60, capacity: 1, ...more,
}) // prettier-ignore
const CHOICES = [
  { value: 'choice-1', label: 'This', next: null },
  { value: 'choice-2', label: 'That', next: null },
]
const button = (label: string, action: string, style = 'main') => ({ kind: 'button', label, style, does: { ...DOES, action } })
const WORDS = { size: 'large', colour: null, align: 'start' }

/** What can be added, grouped as it is offered. */
export const ADDABLE: Record<string, Record<string, object>> = {
  'Words and pictures': {
    Headline: { kind: 'headline', text: 'A few large words', known: [], ...WORDS },
    Text: { kind: 'text', html: '<p>What you want to say.</p>', known: '', ...WORDS, size: 'medium' },
    Picture: {
      kind: 'picture', asset: null, description: '', place: 'inline', focus_x: 50, focus_y: 50, bright: 0, wash: 0, wash_colour: '#000000', height: null, whole: false, follows: false,
    },
    Logo: {
      kind: 'picture', asset: HOUSE_LOGO, description: 'Our logo', place: 'inline', focus_x: 0, focus_y: 50, bright: 0, wash: 0, wash_colour: '#000000', height: 48, whole: true, follows: false,
    },
    Video: { kind: 'video', asset: null, poster: null, description: '' },
    Line: { kind: 'line' },
    Space: { kind: 'space', height: 16 },
  },
  'To fill in': {
    'Email field': field('email', 'email', 'Your email', { required: true }),
    'First name field': field('name', 'name', 'First name'),
    'Phone field': field('phone', 'phone', 'Your phone number'),
    'Short field': field('text', 'short', 'A few words'),
    'Long field': field('long', 'message', 'Your message'),
    'One of several': field('choice', 'choice', 'Which one?', { options: CHOICES }),
    'Any of several': field('several', 'several', 'Which of these?', { options: CHOICES }),
    'Number field': field('number', 'number', 'How many?'),
    'Day field': field('date', 'day', 'Which day?'),
    'Time for a call': field('slot', 'time', 'When shall we call?', { required: true }),
    'Hidden value': field('hidden', 'hidden', '', { value: '' }),
    'Consent tick': { kind: 'consent', name: 'consent', text: 'Yes, write to me by email.', required: true },
  },
  'To click': {
    'Button that sends': button('Send', 'send'),
    'Button to a page': button('Read more', 'page'),
    'Button to another step': button('Go on', 'step'),
    'Button that closes': button('No, thank you', 'close', 'plain'),
    'Question with choices': { kind: 'question', name: 'choice', text: 'Which is it?', options: CHOICES },
    Score: { kind: 'score', name: 'score', text: 'How was it?', least: 0, most: 10, least_label: 'not good', most_label: 'very good', low: 6, bands: [] },
    Links: { kind: 'links', columns: 1, items: [{ label: 'A page', does: { ...DOES, action: 'page' } }] },
    Share: { kind: 'share', label: 'Share this', address: '', words: '' },
  },
  'To show': {
    Price: { kind: 'price', now: '20', old: '25', currency: 'GBP', unit: '', show_saving: true, align: 'start' },
    Countdown: { kind: 'countdown', to: null, minutes: 1440, again_after: null, at_end: 'words', label: 'Still', ended: 'This has ended.', align: 'start' },
    Code: { kind: 'code', label: 'Your code' },
    'Opening hours': { kind: 'hours', now: true, week: true },
    'Questions & answers': { kind: 'questions', group: '', search: true, helped: true },
    'When somebody answers': { kind: 'reply' },
    'Foreign markup': { kind: 'markup', html: '', windows: false, height: 200, description: '' },
  },
} // prettier-ignore

const parts = (document: TouchpointDocument): Part[] => document.steps.flatMap((step) => step.parts)

function free(stem: string, taken: Set<string>): string {
  if (stem !== 'p' && !taken.has(stem)) return stem
  let number = 1
  while (taken.has(`${stem}${number}`)) number++
  return `${stem}${number}`
}

/** A part of its own from a pattern: with an id, and a field's name, that nothing else has. */
export function freshPart(document: TouchpointDocument, pattern: object): Part {
  const every = parts(document)
  const made = structuredClone({ on: ['desktop', 'phone'], hidden: false, row: null, share: 100, ...pattern }) as unknown as Part
  made.id = free('p', new Set(every.map((one) => one.id)))
  if ('name' in made) made.name = free(made.name.replace(/\d+$/, ''), new Set(every.flatMap((one) => ('name' in one ? [one.name] : []))))
  return made
}

export function freshStep(document: TouchpointDocument): TouchpointDocument['steps'][number] {
  const id = free('step', new Set(document.steps.map((one) => one.id)))
  const made = { id, name: `Step ${document.steps.length + 1}`, parts: [] as Part[] }
  made.parts = [freshPart(document, { kind: 'headline', text: 'And then', known: [], ...WORDS })]
  return made
}

/** The step that sending leads to: the last one, or one that thanks, which is added. */
export function thanksOf(document: TouchpointDocument): string {
  const last = document.steps[document.steps.length - 1]
  if (last && document.steps.length > 1) return last.id
  const made = { id: free('thanks', new Set(document.steps.map((one) => one.id))), name: 'Thanks', parts: [] as Part[] }
  document.steps.push(made)
  for (const pattern of [
    { kind: 'headline', text: 'Thank you', known: [], ...WORDS },
    { kind: 'reply' },
    button('Back to the page', 'close', 'plain'),
  ]) {
    made.parts.push(freshPart(document, pattern))
  }
  return made.id
}

/** Takes a step out, and everything that led to it now leads on where it led. */
export function dropStep(document: TouchpointDocument, id: string): void {
  const at = document.steps.findIndex((one) => one.id === id)
  if (at < 0 || document.steps.length < 2) return
  const to = document.steps[at + 1]?.id ?? null
  document.steps.splice(at, 1)
  if (document.after.confirm.next === id) document.after.confirm.next = null
  const mend = (next: string | null) => (next === id ? to : next)
  for (const part of parts(document)) {
    if (part.kind === 'button') part.does.next = mend(part.does.next)
    if (part.kind === 'links') for (const item of part.items) item.does.next = mend(item.does.next)
    if (part.kind === 'field' || part.kind === 'question') for (const option of part.options) option.next = mend(option.next)
    if (part.kind === 'score') part.bands = part.bands.flatMap((one) => (one.next !== id ? [one] : to ? [{ ...one, next: to }] : []))
  }
}
